package mintshelf.core.reuse;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import mintshelf.core.access.Access;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.document.DropRules;
import mintshelf.core.document.Holder;
import mintshelf.core.revision.StageClass;
import mintshelf.core.structure.StructureGraph;

/** One document in the place of another: what pairs may be, and what becomes of what they stand in. */
public final class Swaps {
    /** Pairs of one swap. */
    public static final int MOST = 20;

    private Swaps() {}

    /** @param old goes out, {@code now} comes in */
    public record Pair(long old, long now) {
        /** Pairs as an address carries them: "12-15,18-19"; what is no pair is passed over. */
        public static List<Pair> many(String text) {
            List<Pair> pairs = new ArrayList<>();
            for (String one : text.split(",")) {
                if (PAIR.matcher(one).matches() && pairs.size() <= MOST) {
                    int cut = one.indexOf('-');
                    pairs.add(new Pair(Long.parseLong(one.substring(0, cut)), Long.parseLong(one.substring(cut + 1))));
                }
            }
            return List.copyOf(pairs);
        }

        public static String joined(List<Pair> pairs) {
            return pairs.stream().map(p -> p.old() + "-" + p.now()).collect(Collectors.joining(","));
        }
    }

    private static final Pattern PAIR = Pattern.compile("[0-9]{1,18}-[0-9]{1,18}");

    /** What becomes of a parent. */
    public enum Fate {
        /** Its file is rewritten: a new version. */
        GOES("goes"),
        /** As that, with its next revision. */
        REVISED("goes with its next revision"),
        /** Somebody has it: they are asked. */
        HELD("held"),
        /** Its file can be written only by its own program: a job. */
        JOB("becomes a job"),
        CANNOT("cannot"),
        /** It contains the one that comes in, or is it: it stays as it is. */
        STAYS("stays");

        private final String words;

        Fate(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        /** Whether its file is written. */
        public boolean isWritten() {
            return this == GOES || this == REVISED;
        }
    }

    /** @param refusal why it is not written; nothing where it is, and where it is meant to stay */
    public record Verdict(Fate fate, Optional<Refusal> refusal) {
        static Verdict of(Fate fate) {
            return new Verdict(fate, Optional.empty());
        }

        static Verdict of(Fate fate, Refusal why) {
            return new Verdict(fate, Optional.of(why));
        }
    }

    /** What is wrong with pairs, whatever they stand in; nothing when they can be swapped together. */
    public static Optional<Refusal> refusal(List<Pair> pairs, Function<Long, String> number) {
        if (pairs.isEmpty()) return refused("swap.none", "There is no pair to swap.", "Say what comes in.");
        if (pairs.size() > MOST)
            return refused("swap.many", "One swap takes up to " + MOST + " pairs.", "Do the others afterwards.");
        Set<Long> olds = new HashSet<>();
        for (Pair pair : pairs) {
            if (pair.old() == pair.now())
                return refused(
                        "swap.same",
                        number.apply(pair.old()) + " cannot come in its own place.",
                        "Say which other one comes in.");
            if (!olds.add(pair.old()))
                return refused(
                        "swap.twice",
                        number.apply(pair.old()) + " would go out for two others.",
                        "Leave one of the pairs out.");
        }
        // In one act nothing goes round: what comes in stays in.
        return pairs.stream()
                .filter(p -> olds.contains(p.now()))
                .findFirst()
                .map(p -> Refusal.of(
                        "swap.circle",
                        number.apply(p.now()) + " would come in and go out in the same swap.",
                        "Swap one pair first, then the other."));
    }

    private static Optional<Refusal> refused(String code, String reason, String remedy) {
        return Optional.of(Refusal.of(code, reason, remedy));
    }

    /**
     * What keeps a document from coming in.
     *
     * @param now what comes in
     */
    public static Optional<Refusal> comesIn(Document now) {
        if (now.dropped())
            return refused("swap.dropped", now.number() + " was dropped.", "Say which other one comes in.");
        if (now.current().stage().stageClass() == StageClass.WITHDRAWN)
            return refused(
                    "swap.withdrawn",
                    now.number() + " is " + now.current().stage().name().toLowerCase(Locale.ROOT)
                            + ": nothing is built from it any more.",
                    "Say which other one comes in.");
        return Optional.empty();
    }

    /** The ring that a parent would close by taking what comes in; nothing where there is none. */
    public static boolean wouldContainItself(long parent, long now, StructureGraph graph) {
        if (parent == now) return true;
        for (long below : graph.components(now)) if (below == parent) return true;
        return false;
    }

    /**
     * What becomes of a parent.
     *
     * @param form why its file cannot be written here; nothing where it can
     * @param start why its next revision cannot be started; asked of what is in force alone
     */
    public static Verdict of(
            Document parent, Access access, Optional<Refusal> form, Function<Document, Optional<Refusal>> start) {
        Optional<Refusal> dropped = DropRules.refusal(parent);
        if (dropped.isPresent()) return Verdict.of(Fate.CANNOT, dropped.get());
        Optional<Refusal> missing = access.ask(Right.CHANGE, parent.place());
        if (missing.isPresent()) return Verdict.of(Fate.CANNOT, missing.get());
        if (form.isPresent()) return Verdict.of(Fate.JOB, form.get());
        if (parent.holder().isPresent()) {
            Holder holder = parent.holder().get();
            boolean mine = holder.person() == access.person();
            return Verdict.of(
                    mine ? Fate.CANNOT : Fate.HELD,
                    Refusal.of(
                            "hold.taken",
                            mine
                                    ? "You hold " + parent.number() + " yourself."
                                    : parent.number() + " is held by " + holder.name() + ".",
                            mine ? "Check it in first." : "Ask " + holder.name() + ", or leave it as a job."));
        }
        if (parent.pending().isEmpty()) {
            return start.apply(parent).map(r -> Verdict.of(Fate.CANNOT, r)).orElseGet(() -> Verdict.of(Fate.REVISED));
        }
        if (parent.pending().get().stage().stageClass() != StageClass.PREPARING)
            return Verdict.of(
                    Fate.CANNOT,
                    Refusal.of(
                            "stage.deciding",
                            parent.number() + " is being decided on; its content does not change meanwhile.",
                            "Swap it once it is returned or released."));
        return Verdict.of(Fate.GOES);
    }
}
