package mintshelf.core.change;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.time.LocalDate;
import java.util.Map;
import java.util.Optional;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.FactLookup;
import mintshelf.core.fact.FactReader;
import mintshelf.core.fact.FactType;
import mintshelf.core.fact.FactValue;

/**
 * What is to be true of a fact of a document once it is changed: "mass at most +10 %", "pitting resistance at least 34".
 *
 * @param wanted as kept: a number, a day or a word; of a percentage the signed number
 * @param percent whether it is reckoned from what the fact was before
 */
public record Goal(long id, long item, FactDefinition fact, Relation relation, String wanted, boolean percent) {
    /** Decimals of what is reckoned. */
    private static final MathContext EXACT = new MathContext(12, RoundingMode.HALF_UP);

    private static final BigDecimal HUNDRED = BigDecimal.valueOf(100);

    /** How the fact stands to what is wanted. */
    public enum Relation {
        AT_MOST("at most"),
        AT_LEAST("at least"),
        EQUAL("equal to");

        private final String words;

        Relation(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** Whether a goal is reached. */
    public enum State {
        MET("met"),
        NOT_MET("not met"),
        OPEN("open");

        private final String words;

        State(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * How a goal stands.
     *
     * @param before what the fact was in the revision in force, as text; empty where nothing is known
     * @param after what it is in the revision that is prepared; empty until there is one
     * @param limit what is wanted, reckoned where it is a percentage; empty where that cannot be
     * @param change of a number in per cent of what it was, with one decimal; empty where it cannot be told
     * @param variant of which it is told; empty for the document itself
     */
    public record Judgement(
            State state,
            String before,
            String after,
            Optional<BigDecimal> limit,
            Optional<BigDecimal> change,
            String variant) {
        /** In words: "24 before, 35 after: +45.8 %". */
        public String says(String unit) {
            String in = unit.isEmpty() ? "" : " " + unit;
            String was = before.isEmpty() ? "not known before" : before + in + " before";
            String is = after.isEmpty() ? "nothing prepared yet" : after + in + " after";
            return (variant.isEmpty() ? "" : variant + ": ") + was + ", " + is
                    + change.map(c -> ": " + (c.signum() > 0 ? "+" : "") + c.toPlainString() + " %")
                            .orElse("");
        }
    }

    /**
     * Reads a goal as it was typed: a value of the fact, or a signed percentage of a number ("+10 %").
     *
     * @return refused where the fact cannot stand so, or the value is none of it
     */
    public static Outcome<Goal> read(long item, FactDefinition fact, Relation relation, String typed) {
        String text = typed.strip();
        boolean ordered = fact.type() == FactType.NUMBER || fact.type() == FactType.DATE;
        if (!ordered && relation != Relation.EQUAL) {
            return Outcome.refused(
                    "goal.order",
                    fact.label() + " is no number and no day: it cannot be " + relation.words() + " something.",
                    "Say what it is to be equal to.");
        }
        if (text.endsWith("%")) {
            String number = text.substring(0, text.length() - 1).strip().replace(',', '.');
            if (fact.type() != FactType.NUMBER || !number.matches("[+-]?\\d{1,4}(\\.\\d{1,3})?")) {
                return Outcome.refused(
                        "goal.percent",
                        "“" + text + "” is no percentage of " + fact.label() + ".",
                        "Write one such as +10 %, or a value.");
            }
            return Outcome.granted(new Goal(0, item, fact, relation, number, true));
        }
        Outcome<Optional<FactValue>> value = FactReader.read(fact, text, FactLookup.AS_SAID);
        if (!(value instanceof Outcome.Granted<Optional<FactValue>> granted)) {
            return Outcome.refused(value.refusal().orElseThrow());
        }
        if (granted.value().isEmpty()) {
            return Outcome.refused("goal.empty", "The goal on " + fact.label() + " is empty.", "Say what is wanted.");
        }
        return Outcome.granted(
                new Goal(0, item, fact, relation, granted.value().get().text(), false));
    }

    /** In words: "Mass at most +10 %". */
    public String words() {
        String sign = percent && !wanted.startsWith("-") && !wanted.startsWith("+") ? "+" : "";
        String unit = percent ? " %" : fact.unit().isEmpty() ? "" : " " + fact.unit();
        return fact.label() + " " + relation.words() + " " + sign + wanted + unit;
    }

    /**
     * Holds the goal against what the fact was and is. Open where one of them that is needed is not known.
     *
     * @param after empty while no revision is prepared
     */
    public Judgement judge(Optional<FactValue> before, Optional<FactValue> after) {
        Optional<BigDecimal> was = number(before);
        Optional<BigDecimal> is = number(after);
        Optional<BigDecimal> limit = limit(was);
        Optional<BigDecimal> change = was.filter(w -> w.signum() != 0)
                .flatMap(w -> is.map(i ->
                        i.subtract(w).multiply(HUNDRED).divide(w.abs(), EXACT).setScale(1, RoundingMode.HALF_UP)));
        return new Judgement(
                state(after, is, limit),
                before.map(FactValue::text).orElse(""),
                after.map(FactValue::text).orElse(""),
                limit,
                change,
                "");
    }

    /**
     * As {@link #judge(Optional, Optional)}, of a document with variants that say the fact otherwise: the first of them that does not meet it, else the
     * document. O(variants).
     *
     * @param befores what variants said in force, by name; of one that is not here what the document said counts
     * @param afters what they say as it is prepared, by name
     */
    public Judgement judge(
            Optional<FactValue> before,
            Optional<FactValue> after,
            Map<String, FactValue> befores,
            Map<String, FactValue> afters) {
        Judgement own = judge(before, after);
        if (own.state() == State.NOT_MET) return own;
        for (Map.Entry<String, FactValue> one : afters.entrySet()) {
            Judgement of =
                    judge(Optional.ofNullable(befores.get(one.getKey())).or(() -> before), Optional.of(one.getValue()));
            if (of.state() == State.NOT_MET)
                return new Judgement(of.state(), of.before(), of.after(), of.limit(), of.change(), one.getKey());
        }
        return own;
    }

    /**
     * Why the order that answers the goal does not go before its board; nothing where it is met, or something shows it.
     *
     * @param number of the document; empty where the asking person may not see it
     * @param shown whether the order names what it goes by
     */
    public Optional<Refusal> inTheWay(String number, Judgement judged, boolean shown) {
        if (shown || judged.state() == State.MET) return Optional.empty();
        String of = number.isEmpty() ? "" : " of " + number;
        return Optional.of(
                judged.state() == State.NOT_MET
                        ? Refusal.of(
                                "goal.not_met",
                                words() + of + " is not met: " + judged.says(fact.unit()) + ".",
                                "Change it, or name on the order what shows that it is.")
                        : Refusal.of(
                                "goal.open",
                                words() + of + " is open: " + judged.says(fact.unit()) + ".",
                                "Fill the fact, or name on the order what shows it."));
    }

    private static Optional<BigDecimal> number(Optional<FactValue> value) {
        return value.filter(v -> v instanceof FactValue.Quantity).map(v -> ((FactValue.Quantity) v).number());
    }

    private Optional<BigDecimal> limit(Optional<BigDecimal> before) {
        if (fact.type() != FactType.NUMBER) return Optional.empty();
        BigDecimal number = new BigDecimal(wanted);
        if (!percent) return Optional.of(number);
        return before.map(b ->
                b.add(b.abs().multiply(number).divide(HUNDRED, EXACT), EXACT).stripTrailingZeros());
    }

    private State state(Optional<FactValue> after, Optional<BigDecimal> is, Optional<BigDecimal> limit) {
        if (after.isEmpty()) return State.OPEN;
        int stands;
        if (fact.type() == FactType.NUMBER) {
            if (is.isEmpty() || limit.isEmpty()) return State.OPEN;
            stands = is.get().compareTo(limit.get());
        } else if (fact.type() == FactType.DATE && after.get() instanceof FactValue.Day day) {
            stands = day.day().compareTo(LocalDate.parse(wanted));
        } else {
            stands = after.get().text().equals(wanted) ? 0 : 1;
        }
        boolean met = switch (relation) {
            case AT_MOST -> stands <= 0;
            case AT_LEAST -> stands >= 0;
            case EQUAL -> stands == 0;
        };
        return met ? State.MET : State.NOT_MET;
    }
}
