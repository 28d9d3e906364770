package mintshelf.core.drawing.dxf;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.dxf.Attributes.Place;

/**
 * A file that a drawing refers to: another drawing (a block with flag 4), a picture or a page (IMAGEDEF, PDFDEFINITION).
 *
 * @param path as written
 * @param count how often it is placed in model space, layouts and blocks together; arrays by their places
 * @param place where the path stands in the file
 */
public record ExternalReference(String path, int count, boolean isPicture, Place place) {
    /** Those of a drawing, in the order of the file; each place that names one is told. O(bytes). */
    public static List<ExternalReference> of(DxfDrawing drawing) {
        Walk walk = new Walk(drawing);
        walk.run();
        return walk.found();
    }

    /**
     * Puts other paths in the place of those of references; every other byte stays. O(bytes).
     *
     * @param names new paths by the old ones
     */
    public static Outcome<byte[]> renamed(DxfDrawing drawing, Map<String, String> names) {
        List<ExternalReference> all = of(drawing);
        List<String> missing = names.keySet().stream()
                .filter(n -> all.stream().noneMatch(r -> r.path().equals(n)))
                .sorted()
                .toList();
        if (!missing.isEmpty()) {
            return Outcome.refused(
                    "dxf.no_reference", "The drawing does not refer to " + String.join(", ", missing) + ".", "");
        }
        DxfEdit edit = new DxfEdit(drawing);
        for (ExternalReference r : all) {
            String name = names.getOrDefault(r.path(), r.path());
            if (!name.equals(r.path())) edit.replace(r.place(), name);
        }
        return Outcome.granted(edit.bytes());
    }

    /** A pass over the whole file: definitions, then how often they are placed. */
    private static final class Walk {
        private record Definition(String path, Place place, boolean picture, String key) {}

        private final DxfSource source;
        private final TagCursor tags;
        private final List<Definition> definitions = new ArrayList<>();
        private final Map<String, Integer> counts = new HashMap<>();

        private String type = "";
        private String name = "";
        private String handle = "";
        private String target = "";
        private String path = "";
        private Place place = new Place(0, 0);
        private int flags;
        private int columns;
        private int rows;

        Walk(DxfDrawing drawing) {
            this.source = drawing.source;
            this.tags = new TagCursor(source);
        }

        void run() {
            while (true) {
                boolean more = tags.next();
                if (!more && (!tags.damaged || !tags.resume())) break;
                if (!more) continue;
                if (tags.code == 0) {
                    end();
                    begin();
                } else if (isWanted()) {
                    tag();
                }
            }
            end();
        }

        private boolean isWanted() {
            return !type.isEmpty();
        }

        private void begin() {
            type = "";
            for (String wanted : List.of("BLOCK", "INSERT", "IMAGE", "IMAGEDEF", "PDFDEFINITION", "PDFUNDERLAY")) {
                if (tags.is(wanted)) type = wanted;
            }
            name = "";
            handle = "";
            target = "";
            path = "";
            flags = 0;
            columns = 1;
            rows = 1;
        }

        private void tag() {
            switch (tags.code) {
                case 1 -> {
                    if (!path.isEmpty()) return;
                    path = Attributes.text(source.text(tags.start, tags.end));
                    place = new Place(tags.start, tags.end);
                }
                case 2 -> name = name.isEmpty() ? source.text(tags.start, tags.end) : name;
                case 5 -> handle = hex();
                case 340 -> target = target.isEmpty() ? hex() : target;
                case 70 -> {
                    if (type.equals("INSERT")) columns = whole();
                    else flags = whole();
                }
                case 71 -> rows = type.equals("INSERT") ? whole() : rows;
                default -> {
                    // Says nothing of a reference.
                }
            }
        }

        private String hex() {
            return source.ascii(tags.start, tags.end).strip().toUpperCase(Locale.ROOT);
        }

        private int whole() {
            if (source.binary) {
                return (source.bytes[tags.start] & 0xff) | (source.bytes[tags.start + 1] & 0xff) << 8;
            }
            double read = Numbers.real(source.bytes, tags.start, tags.end);
            return read >= 0 && read < 32_768 ? (int) read : 0;
        }

        private void end() {
            switch (type) {
                case "BLOCK" -> {
                    if ((flags & 4) != 0 && !path.isEmpty()) {
                        definitions.add(new Definition(path, place, false, "block " + DxfDrawing.key(name)));
                    }
                }
                case "IMAGEDEF", "PDFDEFINITION" -> {
                    if (!path.isEmpty()) definitions.add(new Definition(path, place, true, "handle " + handle));
                }
                case "INSERT" ->
                    count("block " + DxfDrawing.key(name), Math.max(1, columns) * (long) Math.max(1, rows));
                case "IMAGE", "PDFUNDERLAY" -> count("handle " + target, 1);
                default -> {
                    // Nothing that refers.
                }
            }
        }

        private void count(String key, long times) {
            counts.merge(key, (int) Math.min(Integer.MAX_VALUE, times), (a, b) ->
                    (int) Math.min(Integer.MAX_VALUE, (long) a + b));
        }

        List<ExternalReference> found() {
            return definitions.stream()
                    .map(d -> new ExternalReference(
                            d.path(), Math.max(1, counts.getOrDefault(d.key(), 1)), d.picture(), d.place()))
                    .toList();
        }
    }
}
