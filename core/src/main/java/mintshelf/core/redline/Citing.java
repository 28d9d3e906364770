package mintshelf.core.redline;

import java.util.List;
import java.util.stream.Collectors;

/** The words of a decision that cites remarks: what was typed, then each remark with its number. */
public final class Citing {
    private Citing() {}

    /** @param most letters that the words may have; where they do not do, the numbers alone are cited */
    public static String words(String typed, List<Remark> cited, int most) {
        String own = typed.strip();
        if (cited.isEmpty()) return own;
        String full = cited.stream().map(r -> r.number() + ": " + r.title()).collect(Collectors.joining("\n"));
        String words = own.isEmpty() ? full : own + "\n" + full;
        if (words.length() <= most) return words;
        String numbers = "Remarks " + cited.stream().map(Remark::number).collect(Collectors.joining(", "));
        return own.isEmpty() ? numbers : own + "\n" + numbers;
    }
}
