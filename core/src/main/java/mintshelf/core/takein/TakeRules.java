package mintshelf.core.takein;

/**
 * What holds for all files of a taking-in that say nothing else.
 *
 * @param stands how the latest revision of a document stands
 * @param leaveDoubles whether a file with the content of another one, that has no number of its own, is left out
 * @param leaveUnknown whether a file that no filing rule knows is left out; else it stops until its kind is chosen
 * @param folders whether the folders come along as they are; else all lies in the one in which it is taken in
 */
public record TakeRules(Stands stands, boolean leaveDoubles, boolean leaveUnknown, boolean folders) {
    public static final TakeRules USUAL = new TakeRules(Stands.RELEASED, true, false, true);

    /** How a revision stands that is taken in. */
    public enum Stands {
        IN_PREPARATION("in preparation"),
        RELEASED("released"),
        SUPERSEDED("superseded"),
        WITHDRAWN("withdrawn");

        private final String words;

        Stands(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        public boolean wasOut() {
            return this != IN_PREPARATION;
        }
    }
}
