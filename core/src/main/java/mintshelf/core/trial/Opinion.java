package mintshelf.core.trial;

import java.util.Optional;

/** What somebody who was asked says of a trial. It binds nobody: a trial is adopted, not released. */
public enum Opinion {
    FOR("for it"),
    REMARKED("for it, with a remark"),
    AGAINST("against it");

    private final String words;

    Opinion(String words) {
        this.words = words;
    }

    /** As in "Hedda is {words}". */
    public String words() {
        return words;
    }

    /** Whether it says nothing without words. */
    public boolean asksWords() {
        return this != FOR;
    }

    /** What was chosen on a page or by a program; nothing for what is none. */
    public static Optional<Opinion> of(String said) {
        for (Opinion one : values()) if (one.name().equals(said)) return Optional.of(one);
        return Optional.empty();
    }
}
