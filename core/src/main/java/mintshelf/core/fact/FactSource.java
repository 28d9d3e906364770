package mintshelf.core.fact;

/** Where a fact's value comes from. */
public enum FactSource {
    BOTH("typed, or taken over from the file"),
    TYPED("typed; what the file says is not taken over"),
    SHEET("taken over from the file; nobody types it"),
    COMPUTED("put together from other facts");

    private final String words;

    FactSource(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** Whether people may type it. */
    public boolean isTyped() {
        return this == BOTH || this == TYPED;
    }

    /** Whether what a title block, or a property of a model, says is taken over. */
    public boolean isRead() {
        return this == BOTH || this == SHEET;
    }
}
