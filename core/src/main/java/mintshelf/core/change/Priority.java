package mintshelf.core.change;

/** How soon a change is wanted. */
public enum Priority {
    USUAL("in its turn"),
    SOON("soon"),
    /** Whoever was told of the released one is told at once that it is not to be trusted. */
    NOW("now");

    private final String words;

    Priority(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
