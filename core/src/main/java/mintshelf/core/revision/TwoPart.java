package mintshelf.core.revision;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.core.base.Outcome;

/**
 * A letter for what others must follow and a number for what they need not: A.1, A.2 … B.1. The minor step is the usual one; the
 * major one is asked for. There are at most {@value #MINORS} minor steps in a letter.
 */
public record TwoPart() implements RevisionSeries {
    static final int MINORS = 1_000_000;
    private static final Pattern FORM = Pattern.compile("([A-Za-z]{1,2})\\.([1-9]\\d{0,5})");
    private static final RevisionSeries LETTERS = ShippedSeries.of("asme");

    @Override
    public Optional<String> label(long position) {
        if (position < 0) return Optional.empty();
        return LETTERS.label(position / MINORS).map(letter -> letter + "." + (position % MINORS + 1));
    }

    @Override
    public Optional<Long> position(String label) {
        Matcher form = FORM.matcher(label);
        if (!form.matches()) return Optional.empty();
        long minor = Long.parseLong(form.group(2)) - 1;
        return LETTERS.position(form.group(1)).map(major -> major * MINORS + minor);
    }

    /** The first label of the next letter: after A.7 comes B.1. */
    public Outcome<String> nextMajor(String label) {
        Optional<Long> at = position(label);
        if (at.isEmpty()) return next(label);
        return label((at.get() / MINORS + 1) * MINORS)
                .map(Outcome::granted)
                .orElseGet(() -> Outcome.refused("revision.end", "“" + label + "” has the last letter.", ""));
    }

    @Override
    public List<String> steps(String label) {
        List<String> steps = new ArrayList<>(RevisionSeries.super.steps(label));
        if (nextMajor(label) instanceof Outcome.Granted<String> other) steps.add(other.value());
        return List.copyOf(steps);
    }

    @Override
    public String says() {
        return "A.1, A.2 … B.1, B.2 …";
    }
}
