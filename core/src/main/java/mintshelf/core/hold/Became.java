package mintshelf.core.hold;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * What became of one file of a check-in.
 *
 * @param number of the version that is there now, on its line; for a stray its id
 * @param version id of that version; 0 for a stray
 */
public record Became(long document, Fate fate, long number, long version) {
    private static final Pattern ONE = Pattern.compile("(\\d{1,18})([vtuos])(\\d{1,18})\\.(\\d{1,18})");

    /** What may become of a file. */
    public enum Fate {
        VERSION('v', "version"),
        /** A new version on the line of a trial. */
        TRIAL('t', "trial"),
        /** The same bytes came back. */
        UNCHANGED('u', "unchanged"),
        /** Nothing but the times of saving differed. */
        ONLY_SAVED('o', "only-saved"),
        STRAY('s', "stray");

        private final char letter;
        private final String word;

        Fate(char letter, String word) {
            this.letter = letter;
            this.word = word;
        }

        /** The word by which programs are told. */
        public String word() {
            return word;
        }

        /** The fate of a word as programs are told. */
        public static Fate of(String word) {
            for (Fate fate : values()) if (fate.word.equals(word)) return fate;
            throw new IllegalArgumentException("No fate: " + word);
        }

        static Fate of(char letter) {
            for (Fate fate : values()) if (fate.letter == letter) return fate;
            throw new IllegalArgumentException("No fate: " + letter);
        }
    }

    /** Whether a version was made of it. */
    public boolean made() {
        return fate == Fate.VERSION || fate == Fate.TRIAL;
    }

    /** Several, in one short word as an act's result is kept; {@link #read} reads it. */
    public static String join(List<Became> all) {
        return all.stream()
                .map(b -> b.document() + "" + b.fate().letter + b.number() + "." + b.version())
                .collect(Collectors.joining(","));
    }

    /** What {@link #join} wrote; empty for anything else. */
    public static List<Became> read(String joined) {
        List<Became> all = new ArrayList<>();
        for (String part : joined.split(",", -1)) {
            Matcher m = ONE.matcher(part);
            if (!m.matches()) return List.of();
            all.add(new Became(
                    Long.parseLong(m.group(1)),
                    Fate.of(m.group(2).charAt(0)),
                    Long.parseLong(m.group(3)),
                    Long.parseLong(m.group(4))));
        }
        return all;
    }
}
