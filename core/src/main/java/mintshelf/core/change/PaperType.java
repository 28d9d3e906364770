package mintshelf.core.change;

/** What a paper of a change is. Papers are written by changes, and moved on pages of their own. */
public enum PaperType {
    /** What is wrong or wanted, before anybody has decided on it. */
    REQUEST("change request"),
    /** What is to be changed, by whose decision, with what came of it. */
    ORDER("change order"),
    /** What was changed, for everybody who works with it. */
    NOTICE("change notice");

    private final String words;

    PaperType(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
