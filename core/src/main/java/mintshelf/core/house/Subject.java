package mintshelf.core.house;

/** What a house rule is about. Each has editions; the latest is in force. */
public enum Subject {
    KIND("kind"),
    SERIES("number series"),
    ROUTE("route"),
    FACT("fact"),
    FILING("filing rules", FilingOrder.CODE),
    SIGN_OFF("sign-off rule"),
    CALENDAR("calendar of the house", CalendarRule.CODE),
    DISTRIBUTION("distribution", DistributionRule.CODE),
    CHANGE_CONTROL("change control", ChangeControlRule.CODE),
    NOTICE_FORM("form of change notices", NoticeFormRule.CODE);

    private final String words;
    private final String code;

    Subject(String words) {
        this(words, "");
    }

    Subject(String words, String code) {
        this.words = words;
        this.code = code;
    }

    public String words() {
        return words;
    }

    /** Whether a house has one of it alone, which nobody names. */
    public boolean isOne() {
        return !code.isEmpty();
    }

    /** The code of the one that a house has; empty where it has many. */
    public String code() {
        return code;
    }
}
