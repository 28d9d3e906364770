package mintshelf.core.house;

/** What a house rule is about. Each has editions; the latest is in force. */
public enum Subject {
    KIND("kind"),
    SERIES("number series"),
    ROUTE("route"),
    FACT("fact"),
    FILING("filing rules");

    private final String words;

    Subject(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
