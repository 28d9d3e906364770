package mintshelf.core.route;

/** What a move does beside changing the stage. */
public enum Effect {
    OPEN_ROUND("ask for sign-offs"),
    END_ROUND("end the round"),
    FIX_LABEL("fix the revision's label"),
    SUPERSEDE_FORMER("supersede the former revision"),
    WRITE_SHEET("write the title block"),
    MAKE_OUTPUTS("make what its kind names: the PDF, copies"),
    START_LINES("start the revisions of its lines"),
    RELEASE_LINES("release its lines and issue the notice");

    private final String words;

    Effect(String words) {
        this.words = words;
    }

    /** As in "then {words}". */
    public String words() {
        return words;
    }
}
