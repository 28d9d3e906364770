package mintshelf.core.revision;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mintshelf.core.base.Outcome;

/**
 * Numbers before the first release to production, letters after it. {@link #next} stays in its phase; {@link #toProduction} is
 * the one step from the first phase to the second. In order, all letters come after all numbers.
 */
public record TwoPhase() implements RevisionSeries {
    private static final long NUMBERS = 1L << 32;
    private static final RevisionSeries LETTERS = ShippedSeries.of("asme");
    private static final RevisionSeries COUNTING = ShippedSeries.of("numbers");

    @Override
    public Optional<String> label(long position) {
        return position < NUMBERS ? COUNTING.label(position) : LETTERS.label(position - NUMBERS);
    }

    @Override
    public Optional<Long> position(String label) {
        Optional<Long> number = COUNTING.position(label).filter(p -> p < NUMBERS);
        return number.isPresent() ? number : LETTERS.position(label).map(p -> p + NUMBERS);
    }

    /** The label with which a document goes to production for the first time: always the first letter. */
    public Outcome<String> toProduction(String label) {
        if (COUNTING.accepts(label)) return Outcome.granted(LETTERS.first());
        return Outcome.refused("revision.phase", "“" + label + "” is in production already.", "");
    }

    @Override
    public List<String> steps(String label) {
        List<String> steps = new ArrayList<>(RevisionSeries.super.steps(label));
        if (toProduction(label) instanceof Outcome.Granted<String> other) steps.add(other.value());
        return List.copyOf(steps);
    }

    @Override
    public String says() {
        return "1, 2, 3 … before production, A, B, C … after";
    }
}
