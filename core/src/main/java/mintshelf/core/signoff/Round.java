package mintshelf.core.signoff;

import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/**
 * One sending to review: who is asked, in which step, and what they answered.
 *
 * @param asks in the order of their steps
 * @param signOffs in the order in which they were given, those that fell included
 */
public record Round(
        long id,
        long bundle,
        long by,
        String byName,
        Instant at,
        String note,
        State state,
        Optional<Instant> endedAt,
        List<Ask> asks,
        List<SignOff> signOffs) {
    public Round {
        asks = asks.stream()
                .sorted(Comparator.comparingInt(a -> a.line().step()))
                .toList();
        signOffs = List.copyOf(signOffs);
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

    /** How many signatures an ask still lacks. */
    public int lacks(Ask ask) {
        int given =
                (int) answers(ask).stream().filter(s -> s.decision().signs()).count();
        return Math.max(0, ask.line().needed() - given);
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
