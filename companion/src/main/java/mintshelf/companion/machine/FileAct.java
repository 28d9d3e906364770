package mintshelf.companion.machine;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** What file managers offer on files of a desk. */
public enum FileAct {
    LOOK("Look at it on the shelf"),
    WORK("Work on it"),
    CHECK_IN("Check in…"),
    ASK("Ask for it"),
    UNDO("Undo check-out"),
    NEXT("Start the next revision…"),
    SAVES("Saves on the way…");

    private final String words;

    FileAct(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** As a command says it: "check-in". */
    public String code() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** The act of a code. */
    public static Optional<FileAct> of(String code) {
        return Arrays.stream(values()).filter(a -> a.code().equals(code)).findFirst();
    }
}
