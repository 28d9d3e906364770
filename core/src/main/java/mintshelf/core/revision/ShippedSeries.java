package mintshelf.core.revision;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;

/**
 * The seven ready-made revision series, and their form as text, in which a kind keeps them:
 *
 * <pre>
 * asme          A, B, C … Y, AA … without I, O, Q, S, X, Z (ASME Y14.35)
 * asme dash     the same, with - (original) before A
 * letters       A … Z, AA … ZZ, AAA …
 * numbers       1, 2, 3 …
 * padded 2 0    00, 01, 02 …: width, then first number
 * two-part      A.1, A.2 … B.1: see {@link TwoPart}
 * two-phase     1, 2, 3 … before the first release to production, then A, B …: see {@link TwoPhase}
 * list a|b|c    a list of one's own
 * </pre>
 */
public final class ShippedSeries {
    /** The letters of ASME Y14.35, in which I, O, Q, S, X and Z are left out. */
    static final String ASME = "ABCDEFGHJKLMNPRTUVWY";

    private static final int LONGEST = 200;

    /** The longest label of a list of one's own. */
    private static final int LABEL = 12;

    static final String ALL = "ABCDEFGHIJKLMNOPQRSTUVWXYZ";

    private ShippedSeries() {}

    /** @throws IllegalArgumentException when the text is none of the forms above */
    public static RevisionSeries of(String text) {
        String[] words = text.strip().split(" +", 2);
        String rest = words.length > 1 ? words[1] : "";
        return switch (words[0]) {
            case "asme" -> new Letters(ASME, 2, rest.equals("dash"), "A, B, C … Y, AA … by ASME Y14.35");
            case "letters" -> new Letters(ALL, 6, false, "A, B, C … Z, AA …");
            case "numbers" -> new Counting(0, 1);
            case "padded" -> padded(rest);
            case "two-part" -> new TwoPart();
            case "two-phase" -> new TwoPhase();
            case "list" -> new OwnList(List.of(rest.split("\\|")));
            default -> throw new IllegalArgumentException("No revision series: " + text);
        };
    }

    /** As {@link #of}, for what somebody typed: a form that is none, or labels that nobody could write, are refused. */
    public static Outcome<RevisionSeries> read(String text) {
        Outcome<RevisionSeries> none = Outcome.refused(
                "revision.series",
                "“" + Texts.shorten(text, 40) + "” is no revision series.",
                "Choose one of the seven, or write a list of labels, each once.");
        if (text.length() > LONGEST) return none;
        try {
            RevisionSeries series = of(text);
            boolean odd = series instanceof OwnList list
                    && list.labels().stream()
                            .anyMatch(l -> l.length() > LABEL || !l.equals(Texts.line(l)) || l.isEmpty());
            boolean wide = series instanceof Counting counting && (counting.width() > LABEL || counting.start() < 0);
            return odd || wide ? none : Outcome.granted(series);
        } catch (IllegalArgumentException | ArrayIndexOutOfBoundsException e) {
            return none;
        }
    }

    private static RevisionSeries padded(String rest) {
        String[] parts = rest.split(" +");
        return new Counting(Integer.parseInt(parts[0]), Long.parseLong(parts[1]));
    }

    /** Letters in their order, then pairs, up to {@code widest} letters: for ASME, AA … AY, BA … YY and no further. */
    record Letters(String alphabet, int widest, boolean dashFirst, String says) implements RevisionSeries {
        @Override
        public Optional<String> label(long position) {
            if (position < 0) return Optional.empty();
            if (dashFirst && position == 0) return Optional.of("-");
            long rest = dashFirst ? position - 1 : position;
            int base = alphabet.length();
            StringBuilder label = new StringBuilder();
            // Bijective numeration: there is no zero, so each place counts from 1.
            for (long n = rest + 1; n > 0; n = (n - 1) / base) {
                label.insert(0, alphabet.charAt((int) ((n - 1) % base)));
            }
            return label.length() <= widest ? Optional.of(label.toString()) : Optional.empty();
        }

        @Override
        public Optional<Long> position(String label) {
            if (dashFirst && label.equals("-")) return Optional.of(0L);
            String upper = label.toUpperCase(Locale.ROOT);
            if (upper.isEmpty() || upper.length() > widest) return Optional.empty();
            long n = 0;
            for (int i = 0; i < upper.length(); i++) {
                int digit = alphabet.indexOf(upper.charAt(i));
                if (digit < 0) return Optional.empty();
                n = n * alphabet.length() + digit + 1;
            }
            return Optional.of(dashFirst ? n : n - 1);
        }
    }

    /** Whole numbers from {@code start}, padded with zeros to {@code width} places. */
    record Counting(int width, long start) implements RevisionSeries {
        @Override
        public Optional<String> label(long position) {
            if (position < 0) return Optional.empty();
            String digits = Long.toString(start + position);
            return Optional.of("0".repeat(Math.max(0, width - digits.length())) + digits);
        }

        @Override
        public Optional<Long> position(String label) {
            if (!label.matches("\\d{1,15}") || Long.parseLong(label) < start) return Optional.empty();
            long position = Long.parseLong(label) - start;
            return label(position).filter(label::equals).map(l -> position);
        }

        @Override
        public String says() {
            return label(0).orElseThrow() + ", " + label(1).orElseThrow() + ", " + label(2).orElseThrow() + " …";
        }
    }

    /** A list of one's own; ends with its last label. */
    record OwnList(List<String> labels) implements RevisionSeries {
        OwnList {
            labels = List.copyOf(labels);
            if (labels.isEmpty() || labels.stream().distinct().count() != labels.size()) {
                throw new IllegalArgumentException("A list of labels has at least one and none twice");
            }
        }

        @Override
        public Optional<String> label(long position) {
            return position >= 0 && position < labels.size()
                    ? Optional.of(labels.get((int) position))
                    : Optional.empty();
        }

        @Override
        public Optional<Long> position(String label) {
            int at = labels.indexOf(label);
            return at < 0 ? Optional.empty() : Optional.of((long) at);
        }

        @Override
        public String says() {
            return String.join(", ", labels);
        }
    }
}
