package mintshelf.app.page.redline;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import mintshelf.core.redline.Picked;
import mintshelf.core.redline.Space;
import mintshelf.core.redline.Vector;

/**
 * Where a mark stands on a model, as pages and forms say it: what was picked, parted by semicolons ("axis x y z dx dy dz radius"), a
 * stroke, where the words stand, a stroke, from where it was looked at ("at target up height").
 */
public final class SpaceForm {
    private static final int LONGEST = 2000;

    private SpaceForm() {}

    public static String of(Space space) {
        String picks = space.picks().stream()
                .map(p -> p.of().words() + " " + of(p.at()) + " " + of(p.along()) + " " + number(p.radius()))
                .collect(Collectors.joining(";"));
        Space.Eye eye = space.eye();
        return picks + "|" + of(space.words()) + "|" + of(eye.at()) + " " + of(eye.target()) + " " + of(eye.up()) + " "
                + number(eye.height());
    }

    private static String of(Vector v) {
        return number(v.x()) + " " + number(v.y()) + " " + number(v.z());
    }

    private static String number(double value) {
        return String.format(Locale.ROOT, "%.6f", value);
    }

    /** Nothing for a text that says no such thing. */
    static Optional<Space> read(String text) {
        String[] parts = text.split("\\|", -1);
        if (parts.length != 3 || text.length() > LONGEST) return Optional.empty();
        List<Picked> picks = new ArrayList<>();
        for (String said : parts[0].split(";")) {
            String[] words = said.strip().split(" ", 2);
            Optional<Picked.Of> of = Picked.Of.of(words[0]);
            Optional<double[]> v = words.length == 2 ? RedlinePages.numbers(words[1], 7) : Optional.empty();
            if (of.isEmpty() || v.isEmpty()) return Optional.empty();
            picks.add(new Picked(of.get(), vector(v.get(), 0), vector(v.get(), 3), v.get()[6]));
        }
        Optional<double[]> words = RedlinePages.numbers(parts[1], 3);
        return words.flatMap(w -> RedlinePages.numbers(parts[2], 10)
                .map(e ->
                        new Space(picks, vector(w, 0), new Space.Eye(vector(e, 0), vector(e, 3), vector(e, 6), e[9]))));
    }

    private static Vector vector(double[] values, int from) {
        return new Vector(values[from], values[from + 1], values[from + 2]);
    }
}
