package mintshelf.core.next;

/** What a person can do with a document from its page. */
public enum Act {
    CHECK_OUT("Check out"),
    CHECK_IN("Check in"),
    UNDO_CHECK_OUT("Undo check-out"),
    START_REVISION("Start revision"),
    ASK_FOR_CHANGE("Ask for a change"),
    CHANGE_FACTS("Change facts"),
    SEND("Send to review"),
    SIGN("Sign"),
    LOOK("Fetch a copy");

    private final String words;

    Act(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
