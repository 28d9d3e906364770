package mintshelf.core.fact;

/** From when on a fact must have a value. */
public enum RequiredAt {
    NEVER("may stay empty"),
    FILING("required at filing"),
    RELEASE("required before review and release");

    private final String words;

    RequiredAt(String words) {
        this.words = words;
    }

    /** As in "Material, {words}". */
    public String words() {
        return words;
    }
}
