package mintshelf.core.access;

/** What a role can allow. */
public enum Right {
    SEE_RELEASED("see what is released"),
    SEE_ALL("see work in preparation"),
    ASK("ask for changes"),
    REDLINE("mark redlines"),
    CHANGE("change documents"),
    FILE("file documents"),
    SIGN("sign"),
    DECIDE_CHANGES("decide changes"),
    LIBRARIAN("change library documents"),
    KEEP_SHELF("keep the shelf in order"),
    KEEP_HOUSE_RULES("keep the house rules");

    private final String words;

    Right(String words) {
        this.words = words;
    }

    /** As in "may {words}". */
    public String words() {
        return words;
    }
}
