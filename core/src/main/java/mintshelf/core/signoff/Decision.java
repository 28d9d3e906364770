package mintshelf.core.signoff;

/** What a person answers when asked to sign. */
public enum Decision {
    SIGNED("signed"),
    REMARKED("signed with remarks"),
    RETURNED("returned it"),
    ABSTAINED("abstained");

    private final String words;

    Decision(String words) {
        this.words = words;
    }

    /** As in "Hedda {words}". */
    public String words() {
        return words;
    }

    /** Whether it counts as a signature. */
    public boolean signs() {
        return this == SIGNED || this == REMARKED;
    }

    /** Whether it says nothing without a remark. */
    public boolean asksRemark() {
        return this == REMARKED || this == RETURNED;
    }
}
