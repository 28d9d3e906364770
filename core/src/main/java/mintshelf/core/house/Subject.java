package mintshelf.core.house;

/** What a house rule is about. Each has editions; the latest is in force. */
public enum Subject {
    KIND("kind"),
    SERIES("number series"),
    ROUTE("route"),
    FACT("fact"),
    FILING("filing rules"),
    SIGN_OFF("sign-off rule"),
    CALENDAR("calendar of the house"),
    DISTRIBUTION("distribution"),
    CHANGE_CONTROL("change control");

    private final String words;

    Subject(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** Whether a house has one of it alone, which nobody names. */
    public boolean isOne() {
        return this == FILING || this == CALENDAR || this == DISTRIBUTION || this == CHANGE_CONTROL;
    }
}
