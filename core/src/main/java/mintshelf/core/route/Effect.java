package mintshelf.core.route;

/** What a move does beside changing the stage. */
public enum Effect {
    OPEN_ROUND("ask for sign-offs"),
    END_ROUND("end the round"),
    FIX_LABEL("fix the revision's label"),
    SUPERSEDE_FORMER("supersede the former revision"),
    WRITE_SHEET("write the title block"),
    MAKE_OUTPUTS("make what its kind names: the PDF, copies"),
    /** Without it those whom the distribution names are told by link alone. */
    MAIL_OUTPUTS("mail files to whom the distribution names"),
    START_LINES("start the revisions of its lines"),
    RELEASE_LINES("release its lines and issue the notice");

    private final String words;

    Effect(String words) {
        this.words = words;
    }

    /** Whether something is done; else it says how those who are told are told. */
    public boolean isDeed() {
        return this != MAIL_OUTPUTS;
    }

    /** As in "then {words}". */
    public String words() {
        return words;
    }
}
