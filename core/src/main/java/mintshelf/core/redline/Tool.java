package mintshelf.core.redline;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** With what a mark is drawn (words after ISO 32000-2:2020, 12.5.6, and the Web Annotation Data Model, where they have them). */
public enum Tool {
    CLOUD("Cloud", 2, 2),
    ARROW_NOTE("Arrow note", 2, 2),
    NOTE("Note", 1, 1),
    SIZE("Size", 3, 3),
    INK("Ink", 2, 2000),
    HIGHLIGHT("Highlight", 2, 2),
    STAMP("Stamp", 1, 1);

    private final String words;
    final int fewest;
    final int most;

    Tool(String words, int fewest, int most) {
        this.words = words;
        this.fewest = fewest;
        this.most = most;
    }

    /** As the strip of tools says it. */
    public String words() {
        return words;
    }

    /** As addresses and files name it. */
    public String code() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    public static Optional<Tool> of(String code) {
        return Arrays.stream(values()).filter(t -> t.code().equals(code)).findFirst();
    }
}
