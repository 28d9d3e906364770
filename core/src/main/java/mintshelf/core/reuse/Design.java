package mintshelf.core.reuse;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.numbering.NumberKey;

/**
 * A new design from another one: what becomes of each thing of its structure. The number says it: a number of its own makes a new one, the former
 * one shares it, none leaves it out, another thing's exchanges it.
 */
public final class Design {
    /** Numbers behind a taken one that are tried. */
    static final int TRIES = 20;

    private static final int LONGEST_TITLE = 200;

    private Design() {}

    /** What becomes of a thing. */
    public enum Becomes {
        NEW("new"),
        SHARED("shared"),
        EXCHANGED("exchanged"),
        LEFT_OUT("left out"),
        /** It stands only in things of which no copy is made. */
        WITHIN("as it is there");

        private final String words;

        Becomes(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** Where a number comes from. */
    public enum By {
        RULE("by the rule"),
        NEXT_FREE("next free"),
        TYPED("typed"),
        NONE("");

        private final String words;

        By(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * A thing of the structure.
     *
     * @param below what stands right in it
     * @param proposed the number that the rule or the series has for it; nothing where it has none
     * @param stays why no copy of it can be made; nothing where one can
     */
    public record Thing(long id, String number, List<Long> below, Optional<String> proposed, Optional<Refusal> stays) {
        public Thing {
            below = List.copyOf(below);
        }
    }

    /**
     * What became of it.
     *
     * @param number that stands there from now on; empty where it is left out
     * @param other what comes in its place, of what is exchanged
     * @param settled what was wanted and could not be, and how it was settled
     * @param refused what keeps all of it from being made
     */
    public record Verdict(
            Becomes becomes,
            String number,
            By by,
            Optional<Long> other,
            Optional<Refusal> settled,
            Optional<Refusal> refused) {
        static Verdict of(Becomes becomes, String number, By by) {
            return new Verdict(becomes, number, by, Optional.empty(), Optional.empty(), Optional.empty());
        }

        Verdict settled(Refusal how) {
            return new Verdict(becomes, number, by, other, Optional.of(how), refused);
        }

        static Verdict refused(String number, Refusal why) {
            return new Verdict(Becomes.SHARED, number, By.TYPED, Optional.empty(), Optional.empty(), Optional.of(why));
        }

        public boolean isNew() {
            return becomes == Becomes.NEW;
        }
    }

    /** Words that stand in titles, and what stands there in those of the new design. */
    public record Words(String from, String to) {}

    /** The title of a copy; one of which nothing would be left stays. */
    public static String retitled(String title, List<Words> words) {
        String now = title;
        for (Words one : words) if (!one.from().isEmpty()) now = now.replace(one.from(), one.to());
        now = Texts.shorten(Texts.line(now), LONGEST_TITLE);
        return now.isEmpty() ? title : now;
    }

    /** What is known of numbers; asked a few times for many at once. */
    public interface Numbers {
        /** Which of these keys are used or kept, for whatever. */
        Set<String> used(Collection<String> keys);

        /** What can stand in the place of a thing, of those with these keys, by key; only what the actor sees. */
        Optional<Long> other(Thing thing, String key);
    }

    /**
     * What becomes of each; O(things), and a few questions for numbers.
     *
     * @param things the top first
     * @param typed what was typed for a thing, by its id; empty leaves it out
     */
    public static Map<Long, Verdict> settle(List<Thing> things, Map<Long, String> typed, Numbers numbers) {
        Map<Long, Thing> byId = new LinkedHashMap<>();
        things.forEach(t -> byId.put(t.id(), t));
        Taken taken = new Taken(numbers, things, typed);
        Map<Long, Verdict> verdicts = new HashMap<>();
        Deque<Thing> next = new ArrayDeque<>(List.of(things.get(0)));
        Set<Long> met = new HashSet<>(Set.of(things.get(0).id()));
        while (!next.isEmpty()) {
            Thing thing = next.poll();
            Verdict verdict = verdict(thing, Optional.ofNullable(typed.get(thing.id())), taken);
            if (thing.id() == things.get(0).id()) verdict = top(thing, verdict);
            verdicts.put(thing.id(), verdict);
            if (!verdict.isNew()) continue;
            for (long id : thing.below()) {
                Thing below = byId.get(id);
                if (below != null && met.add(id)) next.add(below);
            }
        }
        twice(byId, verdicts);
        Map<Long, Verdict> all = new LinkedHashMap<>();
        for (Thing thing : things) {
            Verdict verdict = verdicts.get(thing.id());
            all.put(thing.id(), verdict == null ? Verdict.of(Becomes.WITHIN, thing.number(), By.NONE) : verdict);
        }
        return all;
    }

    private static Verdict top(Thing top, Verdict verdict) {
        if (verdict.isNew() || verdict.refused().isPresent()) return verdict;
        return Verdict.refused(
                verdict.number(),
                verdict.settled()
                        .filter(r -> top.stays().isPresent())
                        .orElseGet(() -> Refusal.of(
                                "design.top",
                                top.number() + " is the design itself: it becomes new, or nothing does.",
                                "Give it a number of its own, or write a rule that has one for it.")));
    }

    private static Verdict verdict(Thing thing, Optional<String> typed, Taken taken) {
        if (typed.isPresent()) return typed(thing, typed.get().strip(), taken);
        if (thing.proposed().isEmpty()) return Verdict.of(Becomes.SHARED, thing.number(), By.NONE);
        if (thing.stays().isPresent())
            return Verdict.of(Becomes.SHARED, thing.number(), By.NONE)
                    .settled(thing.stays().get());
        String wanted = thing.proposed().get();
        if (same(wanted, thing.number())) return Verdict.of(Becomes.SHARED, thing.number(), By.RULE);
        Outcome<NumberKey> number = NumberKey.of(wanted);
        if (number instanceof Outcome.Granted<NumberKey> key
                && !taken.typed.contains(key.value().key())
                && taken.give(key.value().key()))
            return Verdict.of(Becomes.NEW, key.value().number(), By.RULE);
        if (number.refusal().isPresent())
            return Verdict.of(Becomes.SHARED, thing.number(), By.NONE)
                    .settled(number.refusal().get());
        Optional<String> free = taken.next(wanted);
        if (free.isPresent())
            return Verdict.of(Becomes.NEW, free.get(), By.NEXT_FREE)
                    .settled(Refusal.of(
                            "design.taken",
                            wanted + " is taken.",
                            free.get() + " is the next free one and is taken instead."));
        return Verdict.refused(
                wanted,
                Refusal.of(
                        "design.none_free",
                        wanted + " is taken, and so are the " + TRIES + " behind it.",
                        "Type a number, or the former one to share it."));
    }

    private static Verdict typed(Thing thing, String typed, Taken taken) {
        if (typed.isEmpty()) return Verdict.of(Becomes.LEFT_OUT, "", By.TYPED);
        if (same(typed, thing.number())) return Verdict.of(Becomes.SHARED, thing.number(), By.TYPED);
        Outcome<NumberKey> read = NumberKey.of(typed);
        if (!(read instanceof Outcome.Granted<NumberKey> number))
            return Verdict.refused(typed, read.refusal().orElseThrow());
        String key = number.value().key();
        Optional<Long> other = taken.numbers.other(thing, key);
        if (other.isPresent())
            return new Verdict(
                    Becomes.EXCHANGED, number.value().number(), By.TYPED, other, Optional.empty(), Optional.empty());
        if (thing.stays().isPresent())
            return Verdict.of(Becomes.SHARED, thing.number(), By.NONE)
                    .settled(thing.stays().get());
        if (taken.give(key)) return Verdict.of(Becomes.NEW, number.value().number(), By.TYPED);
        boolean here = taken.given.contains(key);
        return Verdict.refused(
                typed,
                Refusal.of(
                        here ? "design.twice" : "number.used",
                        here ? typed + " is given to another one of this design." : typed + " is used already.",
                        "Type another number, or the former one to share it."));
    }

    private static boolean same(String one, String other) {
        return NumberRule.key(one).equals(NumberRule.key(other));
    }

    /** Two that stand in one thing become one: its file would name it twice. */
    private static void twice(Map<Long, Thing> things, Map<Long, Verdict> verdicts) {
        things.forEach((id, thing) -> {
            Verdict parent = verdicts.get(id);
            if (parent == null || !parent.isNew()) return;
            Map<Long, Long> stands = new HashMap<>();
            for (long below : new LinkedHashSet<>(thing.below())) {
                Verdict verdict = verdicts.get(below);
                if (verdict == null || (verdict.becomes() != Becomes.EXCHANGED && verdict.becomes() != Becomes.SHARED))
                    continue;
                Long other = stands.putIfAbsent(verdict.other().orElse(below), below);
                if (other == null) continue;
                boolean comesIn = verdict.other().isPresent();
                String number = comesIn ? verdict.number() : numberOf(verdicts, other);
                verdicts.put(
                        comesIn ? below : other,
                        Verdict.refused(
                                number,
                                Refusal.of(
                                        "design.both",
                                        "Two of " + thing.number() + " would be " + number + ".",
                                        "Type another number, or leave one of them out.")));
            }
        });
    }

    private static String numberOf(Map<Long, Verdict> verdicts, long id) {
        Verdict verdict = verdicts.get(id);
        return verdict == null ? "" : verdict.number();
    }

    /** Which numbers are gone: used before, wanted by others, or given in this design. */
    private static final class Taken {
        private final Numbers numbers;
        /** Keys that somebody types or proposes: the next free one of another thing is none of them. */
        private final Set<String> wanted = new LinkedHashSet<>();

        /** Of those, what somebody types: it is theirs whoever comes first. */
        private final Set<String> typed = new HashSet<>();

        private final Set<String> asked = new HashSet<>();
        private final Set<String> used;
        private final Set<String> given = new HashSet<>();

        Taken(Numbers numbers, List<Thing> things, Map<Long, String> typed) {
            this.numbers = numbers;
            Map<String, String> proposed = new LinkedHashMap<>();
            for (Thing thing : things) {
                String said = typed.get(thing.id());
                String one = said == null ? thing.proposed().orElse("") : said;
                NumberRule.key(one).ifPresent(key -> {
                    wanted.add(key);
                    if (said == null) proposed.put(key, one);
                    else if (!same(said, thing.number())) this.typed.add(key);
                });
            }
            used = new HashSet<>(numbers.used(wanted));
            // All at once for those that are taken; what is wanted twice is rare, and asked for by itself.
            proposed.keySet().retainAll(used);
            ask(proposed.values());
        }

        private void ask(Collection<String> taken) {
            List<String> behind = new ArrayList<>();
            for (String one : taken) {
                if (!asked.add(one)) continue;
                NumberRule.after(one, TRIES).forEach(n -> NumberRule.key(n).ifPresent(behind::add));
            }
            if (!behind.isEmpty()) used.addAll(numbers.used(behind));
        }

        /** The next free number behind one, which is given then. */
        Optional<String> next(String taken) {
            ask(List.of(taken));
            return NumberRule.after(taken, TRIES).stream()
                    .filter(n -> NumberRule.key(n)
                            .filter(k -> !wanted.contains(k) && give(k))
                            .isPresent())
                    .findFirst();
        }

        boolean give(String key) {
            return !key.isEmpty() && !used.contains(key) && given.add(key);
        }
    }
}
