package mintshelf.core.drawing;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * How much room texts take that the shelf writes into a sheet, and how they are fitted into the room that there is: narrowed
 * first, then put on further lines where there are some, then shortened at a word. Lengths are in heights of a capital letter.
 */
public final class Lettering {
    /**
     * Advance widths of the letters from blank to ~, in thousandths of the font's size: of the font that sheets are drawn with, on
     * the screen and in the released PDF (DejaVu Sans). The letters of ISO 3098-1:2015 (type B, table 1) are narrower.
     */
    private static final int[] WIDTHS = {
        318, 401, 460, 838, 636, 950, 780, 275, 390, 390, 500, 838, 318, 361, 318, 337, 636, 636, 636,
        636, 636, 636, 636, 636, 636, 636, 337, 337, 838, 838, 838, 531, 1000, 684, 686, 698, 770, 632,
        575, 775, 752, 295, 295, 656, 557, 863, 748, 787, 603, 787, 695, 635, 611, 732, 684, 989, 685,
        611, 685, 390, 337, 390, 838, 500, 500, 613, 635, 550, 635, 615, 352, 635, 634, 278, 278, 579,
        278, 974, 634, 612, 635, 635, 411, 521, 392, 634, 592, 818, 592, 592, 525, 636, 337, 636, 838
    };
    /** Of any other letter: of its capitals most are narrower. */
    private static final int OTHER = 780;
    /** Chinese, Japanese and Korean letters stand in squares. */
    private static final int SQUARE = 1000;
    /** How high its capitals are, in thousandths of its size. */
    public static final double CAPITAL = 729;
    /** How far letters are narrowed: beyond it they are hard to read on a print of half the size. */
    public static final double NARROWEST = 0.75;
    /** In less room than this, in heights, a beginning says nothing: then the whole text is worth more. */
    private static final double FEWEST = 4.5;

    private Lettering() {}

    /**
     * A text as it is written.
     *
     * @param factor by which its letters are narrower than high ones usually are
     */
    public record Fitted(List<String> lines, double factor) {
        public Fitted {
            lines = List.copyOf(lines);
        }
    }

    /** How wide a text is, in heights of its capitals. O(letters). */
    public static double wide(String text) {
        return text.codePoints().map(Lettering::width).sum() / CAPITAL;
    }

    private static int width(int c) {
        if (c >= ' ' && c <= '~') return WIDTHS[c - ' '];
        return isWide(c) || c == '…' || c == '—' ? SQUARE : OTHER;
    }

    private static boolean isWide(int c) {
        return Character.isIdeographic(c)
                || (c >= 0x1100 && c <= 0x115F)
                || (c >= 0x3000 && c <= 0x30FF)
                || (c >= 0xAC00 && c <= 0xD7A3)
                || (c >= 0xFF00 && c <= 0xFF60);
    }

    /**
     * Fits a text into a room.
     *
     * @param room in heights of its letters; infinite where nothing limits it
     * @param own the factor that its letters have where there is room enough
     * @param most lines that it may take
     * @param whole whether every letter counts, as in a number: such a text is narrowed only
     */
    public static Fitted fit(String text, double room, double own, int most, boolean whole) {
        if (text.isEmpty() || wide(text) * own <= room) return new Fitted(List.of(text), own);
        double narrow = own * NARROWEST;
        for (int lines = 1; lines <= most; lines++) {
            // From the usual width down, a hundredth at a time, so that what is written in a file is what was measured.
            for (double factor = own; factor >= narrow - 1e-9; factor = Math.round((factor - 0.01) * 100) / 100.0) {
                Optional<List<String>> wrapped = wrapped(text, room / factor, lines);
                if (wrapped.isPresent()) return new Fitted(wrapped.get(), factor);
            }
        }
        if (whole || room / narrow < FEWEST) return new Fitted(List.of(text), narrow);
        return new Fitted(shortened(text, room / narrow, most), narrow);
    }

    /** As {@link #fit}, of names of people: where they do not fit as they are, their first names are initials. */
    public static Fitted fitNames(String names, double room, double own) {
        Fitted whole = fit(names, room, own, 1, false);
        return whole.lines().get(0).equals(names) ? whole : fit(initials(names), room, own, 1, false);
    }

    /** Names with a comma between them, as "P. Malhan, T. Okrent". */
    public static String initials(String names) {
        return Arrays.stream(names.split(", "))
                .map(name -> {
                    int blank = name.lastIndexOf(' ');
                    return blank < 1
                            ? name
                            : name.substring(0, name.offsetByCodePoints(0, 1)) + "." + name.substring(blank);
                })
                .collect(Collectors.joining(", "));
    }

    /** The text on at most {@code most} lines, broken at blanks; nothing where a word or the whole is too long. */
    private static Optional<List<String>> wrapped(String text, double room, int most) {
        List<String> lines = broken(text, room, most);
        boolean fits = lines.size() <= most && lines.stream().allMatch(l -> wide(l) <= room);
        return fits ? Optional.of(lines) : Optional.empty();
    }

    /** Greedily broken into lines; the one behind the last that is allowed holds all that is left. */
    private static List<String> broken(String text, double room, int most) {
        List<String> lines = new ArrayList<>();
        StringBuilder line = new StringBuilder();
        for (String word : text.split(" ")) {
            boolean begins = line.isEmpty();
            if (begins || lines.size() >= most || wide(line + " " + word) <= room) {
                line.append(begins ? "" : " ").append(word);
            } else {
                lines.add(line.toString());
                line = new StringBuilder(word);
            }
        }
        lines.add(line.toString());
        return lines;
    }

    private static List<String> shortened(String text, double room, int most) {
        List<String> lines = new ArrayList<>(broken(text, room, most - 1));
        lines.replaceAll(line -> wide(line) > room ? cut(line, room) : line);
        return lines;
    }

    /** The beginning of a line with an ellipsis, cut behind a word where one ends in its second half. */
    private static String cut(String line, double room) {
        int end = 0;
        double taken = wide("…");
        while (end < line.length()) {
            int c = line.codePointAt(end);
            taken += width(c) / CAPITAL;
            if (taken > room) break;
            end += Character.charCount(c);
        }
        int blank = line.lastIndexOf(' ', end);
        if (blank >= end / 2 && blank > 0) end = blank;
        return line.substring(0, end).replaceAll("[ ,;:.]+$", "") + "…";
    }
}
