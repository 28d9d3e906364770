package mintshelf.core.signoff;

/** What the first return does to a round. */
public enum Policy {
    FIRST_RETURN("the first return ends the round"),
    EVERYBODY_HEARD("everybody of the step is heard before a return ends the round");

    private final String words;

    Policy(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** Of documents that are decided together the more patient one holds for all. */
    public Policy and(Policy other) {
        return this == EVERYBODY_HEARD ? this : other;
    }
}
