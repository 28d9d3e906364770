package mintshelf.core.route;

/** What a move does beside changing the stage. */
public enum Effect {
    FIX_LABEL("fix the revision's label"),
    SUPERSEDE_FORMER("supersede the former revision");

    private final String words;

    Effect(String words) {
        this.words = words;
    }

    /** As in "then {words}". */
    public String words() {
        return words;
    }
}
