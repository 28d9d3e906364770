package mintshelf.core.bom;

import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;

/**
 * Which products a line of a BOM is part of (ISO 10303-44: effectivity by date, serial number, lot): those that are built from a day to
 * a day, with serial numbers from one to another, or of named lots. Each limit that is given must hold; both ends belong to it.
 *
 * @param fromSerial the first; both ends are of one series
 * @param lots in capitals; empty for all
 */
public record Effectivity(
        Optional<LocalDate> from,
        Optional<LocalDate> to,
        Optional<Serial> fromSerial,
        Optional<Serial> toSerial,
        List<String> lots) {
    /** No limit at all. */
    public static final Effectivity ALWAYS =
            new Effectivity(Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty(), List.of());

    private static final Pattern LOT = Pattern.compile("[A-Z0-9][A-Z0-9./-]{0,19}");

    /** Lots of one line. */
    public static final int MOST_LOTS = 5;

    /**
     * A product that a BOM is asked for.
     *
     * @param day on which it is built
     * @param serial its serial number; empty where nobody asks for one
     */
    public record Product(LocalDate day, Optional<Serial> serial, Optional<String> lot) {
        /** Any that is built on a day. */
        public static Product on(LocalDate day) {
            return new Product(day, Optional.empty(), Optional.empty());
        }
    }

    /** Whether a line is part of a product. */
    public enum Holds {
        YES,
        NO,
        /** It depends on a serial number or a lot that nobody asked for. */
        OPEN
    }

    /** Whether a line with these limits is part of a product. */
    public Holds of(Product product) {
        boolean early = from.filter(f -> product.day().isBefore(f)).isPresent();
        boolean late = to.filter(t -> product.day().isAfter(t)).isPresent();
        if (early || late) return Holds.NO;
        boolean bySerial = fromSerial.isPresent() || toSerial.isPresent();
        if (bySerial && product.serial().filter(s -> !within(s)).isPresent()) return Holds.NO;
        if (!lots.isEmpty() && product.lot().filter(l -> !lots.contains(l)).isPresent()) return Holds.NO;
        boolean open = (bySerial && product.serial().isEmpty())
                || (!lots.isEmpty() && product.lot().isEmpty());
        return open ? Holds.OPEN : Holds.YES;
    }

    private boolean within(Serial serial) {
        boolean behind = fromSerial
                .filter(f -> !f.isOfOneSeriesWith(serial) || serial.number() < f.number())
                .isEmpty();
        boolean before = toSerial.filter(t -> !t.isOfOneSeriesWith(serial) || serial.number() > t.number())
                .isEmpty();
        return behind && before;
    }

    public boolean isAlways() {
        return equals(ALWAYS);
    }

    /** In words: "serial 0150 on, lot L3"; empty for no limit. */
    public String says() {
        List<String> said = new ArrayList<>();
        if (fromSerial.isPresent() && toSerial.isPresent())
            said.add("serial " + fromSerial.get().shown() + " to "
                    + toSerial.get().shown());
        else {
            fromSerial.ifPresent(s -> said.add("serial " + s.shown() + " on"));
            toSerial.ifPresent(s -> said.add("serial up to " + s.shown()));
        }
        if (from.isPresent() && to.isPresent()) said.add(from.get() + " to " + to.get());
        else {
            from.ifPresent(d -> said.add("from " + d));
            to.ifPresent(d -> said.add("until " + d));
        }
        if (!lots.isEmpty()) said.add((lots.size() == 1 ? "lot " : "lots ") + String.join(", ", lots));
        return String.join(", ", said);
    }

    /** Limits as somebody typed them; empty texts are no limit. */
    public record Typed(String from, String to, String fromSerial, String toSerial, String lots) {
        public static final Typed NOTHING = new Typed("", "", "", "", "");

        /** Of limits that are kept. */
        public static Typed of(Effectivity e) {
            return new Typed(
                    e.from().map(LocalDate::toString).orElse(""),
                    e.to().map(LocalDate::toString).orElse(""),
                    e.fromSerial().map(Serial::shown).orElse(""),
                    e.toSerial().map(Serial::shown).orElse(""),
                    String.join(", ", e.lots()));
        }
    }

    /** Reads limits: days by ISO 8601, ends not before beginnings, serial numbers of one series, at most {@value #MOST_LOTS} lots. */
    public static Outcome<Effectivity> read(Typed typed) {
        return day(typed.from())
                .flatMap(from -> day(typed.to())
                        .flatMap(to -> serial(typed.fromSerial())
                                .flatMap(first -> serial(typed.toSerial())
                                        .flatMap(last -> lots(typed.lots())
                                                .flatMap(lots ->
                                                        checked(new Effectivity(from, to, first, last, lots)))))));
    }

    private static Outcome<Effectivity> checked(Effectivity e) {
        if (e.from().isPresent()
                && e.to().filter(t -> t.isBefore(e.from().get())).isPresent())
            return Outcome.refused("bom.days", "It ends before it begins.", "Write the earlier day first.");
        if (e.fromSerial().isPresent() && e.toSerial().isPresent()) {
            Serial first = e.fromSerial().get();
            Serial last = e.toSerial().get();
            if (!first.isOfOneSeriesWith(last))
                return Outcome.refused(
                        "bom.series",
                        first.shown() + " and " + last.shown() + " are not of one series.",
                        "Write the same letters in front of both.");
            if (last.number() < first.number())
                return Outcome.refused(
                        "bom.serials",
                        last.shown() + " comes before " + first.shown() + ".",
                        "Write the earlier serial number first.");
        }
        return Outcome.granted(e);
    }

    private static Outcome<Optional<LocalDate>> day(String typed) {
        String text = typed.strip();
        if (text.isEmpty()) return Outcome.granted(Optional.empty());
        try {
            LocalDate day = LocalDate.parse(text);
            if (day.getYear() >= 1900 && day.getYear() <= 2999) return Outcome.granted(Optional.of(day));
        } catch (DateTimeParseException e) {
            // Said below.
        }
        return Outcome.refused(
                "bom.day", "“" + Texts.shorten(text, 30) + "” is no day.", "Write year, month, day: 2026-03-01.");
    }

    private static Outcome<Optional<Serial>> serial(String typed) {
        if (typed.isBlank()) return Outcome.granted(Optional.empty());
        return Serial.read(typed).map(Optional::of);
    }

    /** Reads a lot's name as it is asked for; nothing for another text. */
    public static Optional<String> lot(String typed) {
        String text = typed.strip().toUpperCase(Locale.ROOT);
        return LOT.matcher(text).matches() ? Optional.of(text) : Optional.empty();
    }

    private static Outcome<List<String>> lots(String typed) {
        if (typed.isBlank()) return Outcome.granted(List.of());
        List<String> asked =
                Arrays.stream(typed.split("[,;\\s]+")).filter(l -> !l.isEmpty()).toList();
        List<String> lots =
                asked.stream().flatMap(l -> lot(l).stream()).distinct().toList();
        if (asked.size() > MOST_LOTS || asked.stream().anyMatch(l -> lot(l).isEmpty()))
            return Outcome.refused(
                    "bom.lots",
                    "“" + Texts.shorten(typed.strip(), 40) + "” are no lots.",
                    "Write at most five names of letters and digits, with commas between them.");
        return Outcome.granted(lots);
    }
}
