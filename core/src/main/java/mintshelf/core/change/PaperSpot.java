package mintshelf.core.change;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A place in a paper that somebody goes by.
 *
 * @param title of the chapter; empty for a page alone
 * @param page from 1 on
 */
public record PaperSpot(String title, int page) {
    private static final Pattern PAGE = Pattern.compile("(?i)(?:page|p\\.) *(\\d{1,6})");

    /** In words: "4.2 Pressure test, page 7". */
    public String says() {
        return title.isEmpty() ? "page " + page : title + ", page " + page;
    }

    /** The page that a text names: "page 7", "p. 7"; nothing for another text. */
    public static Optional<Integer> page(String typed) {
        Matcher page = PAGE.matcher(typed.strip());
        return page.matches() ? Optional.of(Integer.parseInt(page.group(1))) : Optional.empty();
    }

    /**
     * The chapter that a text names: the one that is called so, else the first that begins so, else the first in which it stands. Upper and
     * lower case count as one. O(chapters).
     *
     * @param chapters in their order
     */
    public static Optional<PaperSpot> chapter(String typed, List<PaperSpot> chapters) {
        String wanted = key(typed);
        if (wanted.isEmpty()) return Optional.empty();
        Optional<PaperSpot> same =
                chapters.stream().filter(c -> key(c.title()).equals(wanted)).findFirst();
        return same.or(() -> chapters.stream()
                        .filter(c -> key(c.title()).startsWith(wanted))
                        .findFirst())
                .or(() -> chapters.stream()
                        .filter(c -> key(c.title()).contains(wanted))
                        .findFirst());
    }

    private static String key(String text) {
        return text.strip().replaceAll("\\s+", " ").toLowerCase(Locale.ROOT);
    }
}
