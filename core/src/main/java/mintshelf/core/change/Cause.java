package mintshelf.core.change;

import java.util.Arrays;
import java.util.Optional;

/** The reason code of a change: under what a house counts it. */
public enum Cause {
    FIELD("failed in use"),
    SAFETY("safety"),
    DRAWN_WRONG("wrong on the sheet"),
    MAKING("easier to make"),
    SUPPLY("material or supplier"),
    COST("cost"),
    WISH("asked for by a customer"),
    RULES("a standard or a rule");

    private final String words;

    Cause(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** The cause of a name; nothing for any other text. */
    public static Optional<Cause> of(String name) {
        return Arrays.stream(values()).filter(c -> c.name().equals(name)).findFirst();
    }
}
