package mintshelf.app.effect.run;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.reuse.Swaps;
import mintshelf.core.signoff.Decision;
import mintshelf.core.structure.StructureView;

/**
 * What is wanted of a set of documents, beside the documents; each act reads what it needs.
 *
 * @param move code of the route's move, or of the fact that is filled, the folder into which it goes, or the run that is taken back
 * @param decision what is answered to who asks for a signature
 * @param words the reason, the remark, the comment or the value; empty for none
 * @param version the number of the version that is meant
 * @param above whether what stands above goes along
 * @param swap which documents come in for which, of a swap
 * @param design what becomes of what, of a new design
 * @param password whether who signs said their password again: never read from a request; empty for what an earlier release kept
 */
public record Wish(
        Optional<String> move,
        Optional<Decision> decision,
        String words,
        Optional<Integer> version,
        boolean above,
        Optional<Boolean> password,
        Optional<Swap> swap,
        Optional<Design> design) {
    /**
     * A new design from another one.
     *
     * @param root of the design that it begins from
     * @param numbers what each of its things is called from then on, by the thing's id: its own number where it is shared, none where it is left out
     * @param folder into which all goes; without one each beside what it begins from
     * @param newFolder the name of a folder in there that is made for it; empty for none
     * @param hold whether the actor holds what is made
     */
    public record Design(
            long root,
            StructureView view,
            Map<Long, String> numbers,
            Optional<Long> folder,
            String newFolder,
            List<mintshelf.core.reuse.Design.Words> titles,
            List<Fact> facts,
            boolean hold) {
        public Design {
            numbers = Map.copyOf(numbers);
            titles = List.copyOf(titles);
            facts = List.copyOf(facts);
        }

        /**
         * A fact that new ones say otherwise.
         *
         * @param name short name of the fact
         * @param from of those that say this; empty for all that say anything
         */
        public record Fact(String name, String from, String to) {}
    }

    /**
     * One document in the place of another.
     *
     * @param asks parents whose holders are asked, {@code jobs} those that are left as a job
     */
    public record Swap(List<Swaps.Pair> pairs, Set<Long> asks, Set<Long> jobs) {
        public Swap {
            pairs = List.copyOf(pairs);
            asks = Set.copyOf(asks);
            jobs = Set.copyOf(jobs);
        }
    }

    public Wish {
        // What an earlier release kept says nothing of it.
        if (swap == null) swap = Optional.empty();
        if (design == null) design = Optional.empty();
    }

    public Wish(
            Optional<String> move,
            Optional<Decision> decision,
            String words,
            Optional<Integer> version,
            boolean above) {
        this(move, decision, words, version, above, Optional.empty(), Optional.empty(), Optional.empty());
    }

    /** As it is, with the password said again. */
    public Wish saidAgain(boolean said) {
        return new Wish(move, decision, words, version, above, Optional.of(said), swap, design);
    }

    /** Nothing beside the documents. */
    public static final Wish NONE = new Wish(Optional.empty(), Optional.empty(), "", Optional.empty(), false);

    /** @param above whether what stands above takes up, too */
    public static Wish takeUp(boolean above) {
        return new Wish(Optional.empty(), Optional.empty(), "", Optional.empty(), above);
    }

    public static Wish move(String code, String reason) {
        return new Wish(Optional.of(code), Optional.empty(), reason, Optional.empty(), false);
    }

    public static Wish sign(Decision decision, String remark) {
        return new Wish(Optional.empty(), Optional.of(decision), remark, Optional.empty(), false);
    }

    /** @param fact short name of the fact, {@code value} as typed */
    public static Wish fill(String fact, String value) {
        return new Wish(Optional.of(fact), Optional.empty(), value, Optional.empty(), false);
    }

    /** @param folder to which it goes */
    public static Wish into(long folder) {
        return new Wish(Optional.of(Long.toString(folder)), Optional.empty(), "", Optional.empty(), false);
    }

    public static Wish version(int number, String comment) {
        return new Wish(Optional.empty(), Optional.empty(), comment, Optional.of(number), false);
    }

    public static Wish swap(Swap swap, String reason) {
        return new Wish(
                Optional.empty(),
                Optional.empty(),
                reason,
                Optional.empty(),
                false,
                Optional.empty(),
                Optional.of(swap),
                Optional.empty());
    }

    public static Wish design(Design design) {
        return new Wish(
                Optional.empty(),
                Optional.empty(),
                "",
                Optional.empty(),
                false,
                Optional.empty(),
                Optional.empty(),
                Optional.of(design));
    }

    /** What a run of a swap did is taken back. */
    public static Wish back(long run) {
        return move(Long.toString(run), "");
    }

    /** Whether who signs said their password again. */
    public boolean again() {
        return password.orElse(false);
    }
}
