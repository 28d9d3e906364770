package mintshelf.core.bom;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;

/** BOMs for tests, put together by names. */
final class Boms {
    private final Map<String, Integer> places = new LinkedHashMap<>();
    private final List<BomPart> parts = new ArrayList<>();
    private final List<List<BomLine>> lines = new ArrayList<>();

    static Boms of(String top) {
        return new Boms().part(top, Comes.MADE, "pc", "", "");
    }

    /** @param mass kg, as the cost empty for none */
    Boms part(String name, Comes comes, String unit, String mass, String cost) {
        return part(name, "A", comes, unit, mass, cost);
    }

    Boms part(String name, String revision, Comes comes, String unit, String mass, String cost) {
        places.put(name, parts.size());
        parts.add(new BomPart(
                name.hashCode() & 0xffffffL,
                name,
                name + " title",
                revision,
                1,
                comes,
                unit,
                number(mass),
                number(cost)));
        lines.add(new ArrayList<>());
        return this;
    }

    private static Optional<BigDecimal> number(String text) {
        return text.isEmpty() ? Optional.empty() : Optional.of(new BigDecimal(text));
    }

    Boms line(String above, String below, String quantity, String unit) {
        int place = at(above);
        List<BomLine> mine = lines.get(place);
        return line(above, below, quantity, unit, String.valueOf(mine.size() + 1));
    }

    Boms line(String above, String below, String quantity, String unit, String find) {
        lines.get(at(above)).add(new BomLine(find, at(below), new BigDecimal(quantity), unit, false));
        return this;
    }

    int at(String name) {
        Integer place = places.get(name);
        if (place == null) throw new IllegalArgumentException(name);
        return place;
    }

    Bom bom() {
        return Bom.of(parts, lines);
    }

    /** A structure of made-up parts: lines lead from earlier to later ones, so that there is no ring. */
    static Bom random(long seed) {
        Random random = new Random(seed);
        int size = 2 + random.nextInt(12);
        Boms boms = new Boms();
        for (int i = 0; i < size; i++) {
            Comes comes = i == 0 ? Comes.MADE : List.of(Comes.values()).get(random.nextInt(4));
            String mass = random.nextInt(6) == 0 ? "" : String.valueOf(random.nextInt(1000) / 100.0);
            boms.part("p" + i, comes, random.nextInt(8) == 0 ? "m" : "pc", mass, random.nextInt(5) == 0 ? "" : "" + i);
        }
        for (int i = 0; i < size - 1; i++) {
            for (int n = random.nextInt(4); n > 0; n--) {
                int below = i + 1 + random.nextInt(size - i - 1);
                String unit = boms.parts.get(below).unit().equals("m")
                        ? List.of("m", "mm", "pc").get(random.nextInt(3))
                        : "pc";
                boms.line("p" + i, "p" + below, String.valueOf(1 + random.nextInt(5)), unit);
            }
        }
        return boms.bom();
    }
}
