package mintshelf.core.drawing.dxf;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import mintshelf.core.base.ContentHash;

/**
 * What a drawing is put together from: the entities of its spaces and of its named blocks, each with what belongs to it (vertices, attributes, the
 * block that a dimension is drawn by). Equal things say the same in every file, whatever their handles are and whether they have any. O(bytes).
 */
public final class SheetParts {
    /** Entities that belong to the one before them. */
    private static final Set<String> BELONG = Set.of("VERTEX", "ATTRIB", "SEQEND");

    private static final int DEEPEST = 8;

    final DxfDrawing drawing;
    private final List<Part> parts = new ArrayList<>();
    private final TreeMap<Integer, Part> places = new TreeMap<>();
    private final Map<String, List<Part>> saying = new HashMap<>();
    private final Map<String, List<Part>> inside = new HashMap<>();
    private final Map<String, String> drawnBy = new HashMap<>();
    /** Where a container ends, by its name: what is added goes in before that. */
    final Map<String, Integer> ends = new HashMap<>();

    private boolean whole = true;

    /**
     * An entity.
     *
     * @param in name of the block that it stands in, in capitals; empty in the section of entities
     * @param from its first byte, {@code to} the one behind its last and behind what belongs to it
     * @param thing by which equal things are known: what it says and where, apart from handles
     * @param layers that it stands on, {@code blocks} that it is drawn by
     */
    public record Part(String in, int from, int to, String thing, Set<String> layers, Set<String> blocks) {}

    private SheetParts(DxfDrawing drawing) {
        this.drawing = drawing;
    }

    public static SheetParts of(DxfDrawing drawing) {
        SheetParts parts = new SheetParts(drawing);
        if (drawing.entities >= 0) {
            parts.read("", drawing.entities, drawing.entitiesEnd, drawing.entitiesLine);
        }
        for (DxfDrawing.Block block : drawing.blocksInOrder()) {
            if (block != null && !isDrawnBy(block.name()))
                parts.read(DxfDrawing.key(block.name()), block.from(), block.to(), block.line());
        }
        parts.parts.forEach(p -> {
            parts.places.put(p.from(), p);
            parts.saying.computeIfAbsent(p.thing(), t -> new ArrayList<>()).add(p);
            parts.inside.computeIfAbsent(p.in(), i -> new ArrayList<>()).add(p);
        });
        return parts;
    }

    /** Whether a block has no name that people know: it is part of what is drawn by it. */
    static boolean isDrawnBy(String name) {
        String key = DxfDrawing.key(name);
        return key.startsWith("*") && !key.startsWith("*MODEL_SPACE") && !key.startsWith("*PAPER_SPACE");
    }

    /** Whether all of it could be read. */
    public boolean isWhole() {
        return whole;
    }

    public List<Part> parts() {
        return List.copyOf(parts);
    }

    /** How many things there are of each. */
    public Map<String, Integer> things() {
        Map<String, Integer> things = new HashMap<>();
        saying.forEach((thing, all) -> things.put(thing, all.size()));
        return things;
    }

    public int count(String thing) {
        return saying(thing).size();
    }

    /** The part to which a place in the file belongs; nothing where none is there. */
    public Optional<Part> at(int place) {
        return Optional.ofNullable(places.floorEntry(place))
                .map(Map.Entry::getValue)
                .filter(p -> place < p.to());
    }

    /** What stands in a block, by its name. */
    public List<Part> inside(String block) {
        return inside.getOrDefault(DxfDrawing.key(block), List.of());
    }

    /** The parts that say the same as one of another drawing. */
    public List<Part> saying(String thing) {
        return saying.getOrDefault(thing, List.of());
    }

    /** What this drawing lacks for a part of another one to stand in it, in words; empty where it can. */
    public List<String> lacks(Part part) {
        List<String> lacks = new ArrayList<>();
        if (!ends.containsKey(part.in())) lacks.add("the block " + part.in());
        for (String layer : part.layers())
            if (!layer.equals("0") && !drawing.layers.containsKey(DxfDrawing.key(layer)))
                lacks.add("the layer " + layer);
        for (String block : part.blocks())
            if (isDrawnBy(block) ? drawing.blocksEnd < 0 : !drawing.blocks.containsKey(DxfDrawing.key(block)))
                lacks.add("the block " + block);
        return lacks;
    }

    private void read(String in, int from, int to, int line) {
        ends.put(in, to);
        List<Part> found = parts(in, from, to, line, 0);
        parts.addAll(found);
    }

    private List<Part> parts(String in, int from, int to, int line, int depth) {
        List<Part> found = new ArrayList<>();
        TagCursor tags = new TagCursor(drawing.source, from, line);
        Entity e = new Entity(drawing.source, drawing.names);
        boolean more = tags.at < to && tags.next();
        Open open = null;
        while (more && tags.begin < to && tags.code == 0 && !isEnd(tags)) {
            more = e.fill(tags);
            if (tags.damaged) {
                whole = false;
                return found;
            }
            if (open != null && BELONG.contains(e.type())) {
                open.take(e, depth);
                continue;
            }
            if (open != null) found.add(open.part());
            open = new Open(in, e, depth);
        }
        if (open != null) found.add(open.part());
        return found;
    }

    private static boolean isEnd(TagCursor tags) {
        return tags.is("ENDSEC") || tags.is("ENDBLK") || tags.is("EOF");
    }

    /** What a block without a name draws. */
    private String drawnBy(String name, int depth) {
        String key = DxfDrawing.key(name);
        String known = drawnBy.get(key);
        if (known != null) return known;
        DxfDrawing.Block block = drawing.blocks.get(key);
        if (block == null || depth > DEEPEST) return "";
        StringBuilder all = new StringBuilder();
        parts("*", block.from(), block.to(), block.line(), depth + 1)
                .forEach(p -> all.append(p.thing()).append(' '));
        String drawn = hash(all);
        drawnBy.put(key, drawn);
        return drawn;
    }

    private static String hash(StringBuilder says) {
        return ContentHash.compute(says.toString().getBytes(StandardCharsets.UTF_8))
                .hex()
                .substring(0, 32);
    }

    /** An entity while what belongs to it is read. */
    private final class Open {
        private final String in;
        private final int from;
        private int to;
        private final StringBuilder says = new StringBuilder();
        private final Set<String> layers = new HashSet<>();
        private final Set<String> blocks = new HashSet<>();

        Open(String in, Entity e, int depth) {
            this.in = in;
            this.from = e.begin;
            says.append(in).append('\n');
            take(e, depth);
        }

        void take(Entity e, int depth) {
            to = e.after;
            says.append(e.type()).append('\n');
            boolean inserts = e.type().equals("INSERT") || e.type().equals("DIMENSION");
            boolean group = false;
            for (int i = 0; i < e.size(); i++) {
                int code = e.code(i);
                if (code == 102) group = e.text(i).startsWith("{");
                if (group || code == 102 || isPointer(code)) continue;
                String value = value(e, i, code);
                if (code == 2 && inserts) {
                    blocks.add(value);
                    if (isDrawnBy(value)) value = drawnBy(value, depth);
                }
                says.append(code).append(' ').append(value).append('\n');
            }
            layers.add(e.name(8, "0"));
        }

        Part part() {
            return new Part(in, from, to, hash(says), Set.copyOf(layers), Set.copyOf(blocks));
        }
    }

    /** Handles, and what leads to something by its handle: other ones in every file. */
    static boolean isPointer(int code) {
        return code == 5 || code == 105 || (code >= 320 && code < 370) || (code >= 390 && code < 400) || code == 1005;
    }

    private static String value(Entity e, int tag, int code) {
        if (TagCursor.kind(code) != TagCursor.REAL) return e.text(tag);
        double n = e.raw(tag);
        // As many digits as two programs agree on.
        return Double.isFinite(n) && Math.abs(n) < 1e12 ? Long.toString(Math.round(n * 1e5)) : e.text(tag);
    }
}
