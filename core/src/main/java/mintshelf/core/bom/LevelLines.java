package mintshelf.core.bom;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** The lines of one level of a BOM: what a file counts, and what people wrote into it. */
public final class LevelLines {
    private LevelLines() {}

    /** How much of something, and in which unit. */
    public record Quantity(BigDecimal quantity, String unit) {}

    /**
     * What people said of a line.
     *
     * @param ofFile whether the file has it, else they wrote it
     * @param find the number that it keeps
     * @param quantity nothing where it is as the file counts
     */
    public record Said(String key, boolean ofFile, String find, Optional<Quantity> quantity) {}

    /** A line, by what identifies it. */
    public record Line(String key, String find, Quantity quantity, boolean byHand) {}

    /**
     * The lines by their find numbers. Those of the file that nobody said anything of follow the highest number that was ever given, in the order in
     * which the file counts them; what was said of a line that the file has no more keeps its number from others, and is no line. O(n log n).
     *
     * @param counted pieces by what identifies them, in the order of the file
     */
    public static List<Line> of(Map<String, BigDecimal> counted, List<Said> said) {
        Map<String, String> numbers = new HashMap<>();
        Map<String, Said> ofFile = new HashMap<>();
        List<Line> lines = new ArrayList<>();
        for (Said one : said) {
            numbers.put(one.key(), one.find());
            if (one.ofFile()) ofFile.put(one.key(), one);
            else lines.add(new Line(one.key(), one.find(), one.quantity().orElseThrow(), true));
        }
        List<String> finds = FindNumbers.assign(List.copyOf(counted.keySet()), numbers);
        int at = 0;
        for (Map.Entry<String, BigDecimal> one : counted.entrySet()) {
            Quantity quantity = Optional.ofNullable(ofFile.get(one.getKey()))
                    .flatMap(Said::quantity)
                    .orElseGet(() -> new Quantity(one.getValue(), BomUnits.PIECE));
            lines.add(new Line(one.getKey(), finds.get(at++), quantity, false));
        }
        lines.sort(Comparator.comparing(Line::find, FindNumbers::compare));
        return lines;
    }
}
