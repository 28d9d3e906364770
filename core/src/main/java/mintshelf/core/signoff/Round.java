package mintshelf.core.signoff;

import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * One sending to review: who is asked, in which step, and what they answered.
 *
 * @param policy what a return does
 * @param asks in the order of their steps
 * @param signOffs in the order in which they were given, those that fell included
 * @param begun signatures of those who have signed some of several documents and not yet the others
 */
public record Round(
        long id,
        long bundle,
        long by,
        String byName,
        Instant at,
        String note,
        State state,
        Policy policy,
        Optional<Instant> endedAt,
        List<Ask> asks,
        List<SignOff> signOffs,
        List<Answers.Begun> begun) {
    public Round {
        asks = asks.stream()
                .sorted(Comparator.comparingInt(a -> a.line().step()))
                .toList();
        signOffs = List.copyOf(signOffs);
        begun = List.copyOf(begun);
    }

    /** A round in which nobody has begun to sign sheet by sheet. */
    public Round(
            long id,
            long bundle,
            long by,
            String byName,
            Instant at,
            String note,
            State state,
            Policy policy,
            Optional<Instant> endedAt,
            List<Ask> asks,
            List<SignOff> signOffs) {
        this(id, bundle, by, byName, at, note, state, policy, endedAt, asks, signOffs, List.of());
    }

    /** The documents that a person has signed for an ask while others are left. */
    public Set<Long> signedBy(Ask ask, long person) {
        return begun.stream()
                .filter(b -> b.ask() == ask.id() && b.person() == person)
                .map(Answers.Begun::items)
                .findFirst()
                .orElse(Set.of());
    }

    /** Who has begun an ask that still waits. */
    public List<Answers.Begun> begun(Ask ask) {
        return lacks(ask) == 0 || !isOpen()
                ? List.of()
                : begun.stream().filter(b -> b.ask() == ask.id()).toList();
    }

    /** Where a round stands. */
    public enum State {
        OPEN("open"),
        SIGNED("signed"),
        RETURNED("returned"),
        TAKEN_BACK("taken back");

        private final String words;

        State(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    public boolean isOpen() {
        return state == State.OPEN;
    }

    /** The standing answers to an ask. */
    public List<SignOff> answers(Ask ask) {
        return signOffs.stream().filter(s -> s.ask() == ask.id() && s.stands()).toList();
    }

    /**
     * How many answers an ask still lacks. Where everybody is heard, a return is one: whoever gave it is not asked again, and nobody in
     * their place.
     */
    public int lacks(Ask ask) {
        int given = (int) answers(ask).stream()
                .filter(s ->
                        s.decision().signs() || (policy == Policy.EVERYBODY_HEARD && s.decision() == Decision.RETURNED))
                .count();
        return Math.max(0, ask.line().needed() - given);
    }

    /** The returns that stand, in the order in which they were given. */
    public List<SignOff> returns() {
        return signOffs.stream()
                .filter(s -> s.stands() && s.decision() == Decision.RETURNED)
                .toList();
    }

    /** The answer that sent it back; where several people returned it, one that says what all of them said, in the name of all. */
    public Optional<SignOff> returning() {
        List<SignOff> all = returns();
        if (all.size() < 2) {
            return signOffs.stream()
                    .filter(s -> s.decision() == Decision.RETURNED)
                    .reduce((a, b) -> b);
        }
        SignOff last = all.get(all.size() - 1);
        return Optional.of(new SignOff(
                last.ask(),
                last.person(),
                all.stream().map(SignOff::signer).collect(Collectors.joining(" and ")),
                Decision.RETURNED,
                all.stream().map(s -> s.signer() + ": " + s.remark()).collect(Collectors.joining("; ")),
                last.at(),
                last.fellAt(),
                last.fellWhy(),
                ""));
    }

    /** Whether it goes back now: somebody returned it, and whom the policy wants to be heard before that was heard. */
    public boolean goesBack() {
        if (returns().isEmpty()) return false;
        if (policy == Policy.FIRST_RETURN) return true;
        Set<Long> returned = returns().stream().map(SignOff::ask).collect(Collectors.toSet());
        Set<Integer> steps = asks.stream()
                .filter(a -> returned.contains(a.id()))
                .map(a -> a.line().step())
                .collect(Collectors.toSet());
        return asks.stream().filter(a -> steps.contains(a.line().step())).allMatch(a -> lacks(a) == 0);
    }

    /** The step whose asks are open now; empty when nothing is lacking. */
    public Optional<Integer> openStep() {
        return asks.stream().filter(a -> lacks(a) > 0).map(a -> a.line().step()).findFirst();
    }

    /** The asks that wait for an answer now. */
    public List<Ask> waiting() {
        if (!isOpen()) return List.of();
        Optional<Integer> step = openStep();
        return asks.stream()
                .filter(a ->
                        lacks(a) > 0 && step.filter(s -> s == a.line().step()).isPresent())
                .toList();
    }

    /** What is still lacking, in words: "checked (a checker)". */
    public List<String> missing() {
        return asks.stream()
                .filter(a -> lacks(a) > 0)
                .map(a -> a.line().meaning() + " (" + a.whom() + ")")
                .toList();
    }
}
