package mintshelf.core.redline;

import java.util.List;

/**
 * How a mark looks.
 *
 * @param letters height of its letters in millimetres of the sheet, one of {@link #LETTERS}
 */
public record Look(Colour colour, double letters) {
    /** The heights of ISO 3098-1:2015 that are read on a screen. */
    public static final List<Double> LETTERS = List.of(2.5, 3.5, 5.0, 7.0, 10.0);

    public Look {
        double wanted = letters;
        letters = LETTERS.stream()
                .min((a, b) -> Double.compare(Math.abs(a - wanted), Math.abs(b - wanted)))
                .orElseThrow();
    }

    /** The look of somebody who chose none. */
    public static Look of(long person) {
        return new Look(Colour.of(person), 3.5);
    }
}
