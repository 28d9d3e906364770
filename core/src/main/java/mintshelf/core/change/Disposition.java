package mintshelf.core.change;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Currency;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.regex.Pattern;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;

/**
 * What becomes of the old ones of a line at one place where they are.
 *
 * @param quantity pieces; empty where nobody knows how many
 * @param what empty while nobody has decided
 * @param cost of all of them; empty where nobody knows
 */
public record Disposition(
        long item, Place place, Optional<BigDecimal> quantity, Optional<What> what, Optional<Money> cost, String note) {
    private static final Pattern QUANTITY = Pattern.compile("\\d{1,12}(\\.\\d{1,3})?");
    private static final Pattern AMOUNT = Pattern.compile("\\d{1,12}(\\.\\d{1,2})?");
    private static final int MOST = 200;

    /** Where old ones are. */
    public enum Place {
        STOCK("in stock"),
        ORDERED("on order"),
        MAKING("in production"),
        FIELD("in the field");

        private final String words;

        Place(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** What is done with them. */
    public enum What {
        USE("use as is"),
        REWORK("rework"),
        RETURN("return"),
        SCRAP("scrap");

        private final String words;

        What(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** An amount of a currency of ISO 4217. */
    public record Money(BigDecimal amount, String currency) {
        /** As in "1,280.00 EUR". */
        public String words() {
            return String.format(Locale.ENGLISH, "%,.2f %s", amount, currency);
        }
    }

    /** What somebody wrote of a line at a place, as text; each may be empty. */
    public record Written(String quantity, String what, String cost, String currency, String note) {
        boolean isEmpty() {
            return quantity.isBlank() && what.isEmpty() && cost.isBlank() && note.isBlank();
        }
    }

    /** Reads what somebody wrote; nothing where all of it is empty. */
    public static Outcome<Optional<Disposition>> of(long item, Place place, Written written) {
        if (written.isEmpty()) return Outcome.granted(Optional.empty());
        String where = place.words();
        Optional<BigDecimal> quantity = Optional.empty();
        if (!written.quantity().isBlank()) {
            String text = written.quantity().strip();
            if (!QUANTITY.matcher(text).matches()) {
                return Outcome.refused(
                        "disposition.quantity",
                        Texts.shorten(text, 40) + " is no quantity (" + where + ").",
                        "Write digits, at most three of them after a point; leave it empty where nobody knows.");
            }
            quantity = Optional.of(new BigDecimal(text));
        }
        Optional<What> what;
        try {
            what = written.what().isEmpty() ? Optional.empty() : Optional.of(What.valueOf(written.what()));
        } catch (IllegalArgumentException e) {
            return Outcome.refused(
                    "disposition.what",
                    "Nothing that there is becomes of them (" + where + ").",
                    "Choose one of the list.");
        }
        Outcome<Optional<Money>> cost = money(written, where);
        if (!(cost instanceof Outcome.Granted<Optional<Money>> costs))
            return Outcome.refused(cost.refusal().orElseThrow());
        Outcome<String> note = Texts.optional("The note", written.note(), MOST);
        if (!(note instanceof Outcome.Granted<String> said))
            return Outcome.refused(note.refusal().orElseThrow());
        return Outcome.granted(Optional.of(new Disposition(item, place, quantity, what, costs.value(), said.value())));
    }

    private static Outcome<Optional<Money>> money(Written written, String where) {
        if (written.cost().isBlank()) return Outcome.granted(Optional.empty());
        String text = written.cost().strip();
        if (!AMOUNT.matcher(text).matches()) {
            return Outcome.refused(
                    "disposition.cost",
                    Texts.shorten(text, 40) + " is no amount (" + where + ").",
                    "Write digits, at most two of them after a point; leave it empty where nobody knows.");
        }
        String code = written.currency().strip().toUpperCase(Locale.ROOT);
        try {
            Currency.getInstance(code);
        } catch (IllegalArgumentException e) {
            return Outcome.refused(
                    "disposition.currency",
                    (code.isEmpty() ? "The cost has no currency" : Texts.shorten(code, 10) + " is no currency") + " ("
                            + where + ").",
                    "Write its three letters, EUR for instance.");
        }
        return Outcome.granted(
                Optional.of(new Money(new BigDecimal(text).setScale(2, RoundingMode.UNNECESSARY), code)));
    }

    /** Whether there are none here, so that nothing has to be said of them. */
    private boolean isNone() {
        return quantity.filter(q -> q.signum() == 0).isPresent();
    }

    /** What of it nobody has said: as in "how many", "what becomes of them", "what it costs". */
    public List<String> unknown() {
        List<String> unknown = new ArrayList<>();
        if (quantity.isEmpty()) unknown.add("how many");
        if (isNone()) return unknown;
        if (what.isEmpty()) unknown.add("what becomes of them");
        // Used as they are they cost nothing more.
        if (cost.isEmpty() && what.filter(w -> w == What.USE).isEmpty()) unknown.add("what it costs");
        return unknown;
    }

    /** As in "6 use as is", "? scrap", "14 not decided". */
    public String words() {
        String many = quantity.map(Disposition::plain).orElse("?");
        if (isNone()) return "none";
        return many + " " + what.map(What::words).orElse("not decided");
    }

    /** How many, as it is written; empty where nobody knows. */
    public String howMany() {
        return quantity.map(Disposition::plain).orElse("");
    }

    /** A quantity without needless noughts. */
    static String plain(BigDecimal quantity) {
        BigDecimal bare = quantity.stripTrailingZeros();
        return (bare.scale() < 0 ? bare.setScale(0) : bare).toPlainString();
    }

    /**
     * Sums over dispositions.
     *
     * @param quantities what is known by place
     * @param costs what is known by currency; currencies are not added to one another
     * @param unknown how many of them lack something; a total is complete where it is none
     */
    public record Totals(Map<Place, BigDecimal> quantities, Map<String, BigDecimal> costs, int unknown) {
        public Totals {
            quantities = Map.copyOf(quantities);
            costs = new TreeMap<>(costs);
        }

        /** How many are known to be at a place; empty where nothing is said. */
        public String at(Place place) {
            return quantities.containsKey(place) ? plain(quantities.get(place)) : "";
        }

        /** The known costs, as in "1,280.00 EUR and 90.00 NOK"; empty where none is known. */
        public String cost() {
            List<String> all = new ArrayList<>();
            costs.forEach((code, amount) -> all.add(new Money(amount, code).words()));
            return String.join(" and ", all);
        }
    }

    /** O(dispositions). */
    public static Totals totals(Collection<Disposition> all) {
        Map<Place, BigDecimal> quantities = new EnumMap<>(Place.class);
        Map<String, BigDecimal> costs = new HashMap<>();
        int unknown = 0;
        for (Disposition one : all) {
            one.quantity.ifPresent(q -> quantities.merge(one.place, q, BigDecimal::add));
            one.cost.ifPresent(c -> costs.merge(c.currency(), c.amount(), BigDecimal::add));
            if (!one.unknown().isEmpty()) unknown++;
        }
        return new Totals(quantities, costs, unknown);
    }
}
