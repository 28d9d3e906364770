package mintshelf.core.drawing.dxf;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.Meter;
import mintshelf.core.drawing.Scene;

/**
 * An exchange drawing (ASCII or binary, release 12 to 2018) with its tables, blocks and layouts looked up. Entities stay in the
 * bytes and are read when a scene is made, so that a large file costs little more than its own size.
 *
 * <p>What cannot be read is passed over and said; only what is no drawing at all is refused. Opening is O(bytes).
 */
public final class DxfDrawing {
    private static final int MOST_SAID = 20;
    /** The name of model space among the layouts. */
    public static final String MODEL = "Model";

    final DxfSource source;
    final Names names;
    final Map<String, Layer> layers = new HashMap<>();
    final Map<Long, String> layerHandles = new HashMap<>();
    final Map<String, List<Double>> lineTypes = new HashMap<>();
    final Map<String, TextStyle> textStyles = new HashMap<>();
    final Map<String, DimensionStyle> dimensionStyles = new HashMap<>();
    final Map<String, Block> blocks = new HashMap<>();
    final Map<String, Double> variables = new HashMap<>();
    /** Where the entities begin, -1 where there are none. */
    int entities = -1;

    int entitiesLine;
    int entitiesEnd;
    /** Where the table of layers ends, -1 where there is none. */
    int layersEnd = -1;
    /** The first layer of the table with all its tags: a new one is made like it. */
    Optional<Attributes.Place> firstLayer = Optional.empty();

    /** Where the section of blocks and the table of their records end; -1 where there are none. */
    int blocksEnd = -1;

    int blockRecordsEnd = -1;
    /** The handle of that table, 0 where it has none. */
    long blockRecordsHandle;
    /** Where the next free handle stands in the head. */
    Optional<Attributes.Place> handSeed = Optional.empty();

    final List<String> layerNames = new ArrayList<>();
    final List<String> blockNames = new ArrayList<>();
    final Map<Long, String> blockRecords = new HashMap<>();
    final List<Layout> layouts = new ArrayList<>();
    final Map<String, Integer> modelCounts = new TreeMap<>();
    final Map<String, Integer> paperCounts = new TreeMap<>();
    private final List<String> said = new ArrayList<>();

    record Layer(String name, int colour, int rgb, String lineType, int weight, boolean shown) {}

    record TextStyle(double height, double width, String font) {}

    record DimensionStyle(
            double scale,
            double arrow,
            double offset,
            double beyond,
            double text,
            double factor,
            int decimals,
            String post,
            double gap) {
        static final DimensionStyle USUAL = new DimensionStyle(1, 2.5, 0.625, 1.25, 2.5, 1, 2, "", 0.625);
    }

    /** A block: where its entities lie, its base point, its flags (4: an external reference). */
    record Block(String name, int from, int to, int line, double x, double y, int flags, String path) {
        boolean isReference() {
            return (flags & 4) != 0;
        }
    }

    /** A layout: its name and the block that holds what the entities section does not. */
    record Layout(String name, int order, String block) {}

    private Meter meter = Meter.UNBOUNDED;

    private DxfDrawing(DxfSource source) {
        this.source = source;
        this.names = new Names(source);
    }

    /** The same drawing, whose scenes ask for their room. */
    public DxfDrawing within(Meter meter) {
        this.meter = meter;
        return this;
    }

    Meter meter() {
        return meter;
    }

    /** Opens a drawing, or says in one sentence why the bytes are none. */
    public static Outcome<DxfDrawing> read(byte[] bytes) {
        Outcome<DxfSource> opened = DxfSource.open(bytes);
        if (!(opened instanceof Outcome.Granted<DxfSource> source)) {
            return Outcome.refused(opened.refusal().orElseThrow());
        }
        DxfDrawing drawing = new DxfDrawing(source.value());
        new DxfIndex(drawing).read();
        if (drawing.entities < 0 && drawing.blocks.isEmpty() && drawing.layers.isEmpty()) {
            return Outcome.refused(
                    "dxf.empty",
                    "The file holds no drawing" + (drawing.said.isEmpty() ? "." : ": " + lower(drawing.said.get(0))),
                    "");
        }
        return Outcome.granted(drawing);
    }

    private static String lower(String sentence) {
        return sentence.substring(0, 1).toLowerCase(Locale.ROOT) + sentence.substring(1);
    }

    static String key(String name) {
        return name.toUpperCase(Locale.ROOT);
    }

    void say(String sentence) {
        if (said.size() < MOST_SAID && !said.contains(sentence)) said.add(sentence);
    }

    String place(int line) {
        return (source.binary ? "tag " : "line ") + String.format(Locale.ROOT, "%,d", line);
    }

    /** Goes on after damage, and says where it was. */
    boolean mend(TagCursor tags) {
        if (tags.cut) {
            say("The file ends in " + place(tags.line) + ", after a group code.");
            return false;
        }
        if (!tags.damaged) return false;
        say("In " + place(tags.line) + " stands no group code; reading goes on at the next entity.");
        return tags.resume();
    }

    double variable(String name, double otherwise) {
        return variables.getOrDefault(name, otherwise);
    }

    /** The version as in $ACADVER, such as AC1015; empty where the head lacks it. */
    public String version() {
        return source.version();
    }

    public boolean isBinary() {
        return source.binary;
    }

    /** The name of the encoding in which texts are read, in small letters. */
    public String encoding() {
        return source.charset().name().toLowerCase(Locale.ROOT);
    }

    /** What of the file could not be read, a sentence each. */
    public List<String> said() {
        return Collections.unmodifiableList(said);
    }

    /** Names as in the layer table, in its order. */
    public List<String> layers() {
        return Collections.unmodifiableList(layerNames);
    }

    /** Names of the blocks that people made, in the order of the file: not those of layouts, nor anonymous ones. */
    public List<String> blocks() {
        return blockNames.stream()
                .filter(n ->
                        !n.startsWith("*") && !key(n).startsWith("$MODEL_SPACE") && !key(n).startsWith("$PAPER_SPACE"))
                .toList();
    }

    List<Block> blocksInOrder() {
        return blockNames.stream().map(n -> blocks.get(key(n))).toList();
    }

    /** External references: the block's name and the path that it carries. */
    public Map<String, String> references() {
        Map<String, String> found = new LinkedHashMap<>();
        for (String name : blockNames) {
            Block block = blocks.get(key(name));
            if (block != null && block.isReference()) found.put(name, block.path());
        }
        return found;
    }

    /** How many entities of each type stand in model space itself. */
    public Map<String, Integer> entities() {
        return Collections.unmodifiableMap(modelCounts);
    }

    /** How many entities of each type the entities section holds for the active layout. */
    public Map<String, Integer> paperEntities() {
        return Collections.unmodifiableMap(paperCounts);
    }

    /** The names of the spaces that can be drawn, model space first, then the layouts in the order of their tabs. */
    public List<String> layouts() {
        List<String> all = new ArrayList<>();
        all.add(MODEL);
        for (Layout layout : layouts)
            if (!key(layout.block()).startsWith("*MODEL_SPACE") && !all.contains(layout.name())) all.add(layout.name());
        if (all.size() == 1 && !paperCounts.isEmpty()) all.add("Layout1");
        return all;
    }

    /** The block of a layout, empty for model space; the active layout's own block may be empty. */
    Optional<String> blockOf(String layout) {
        return layouts.stream()
                .filter(l -> l.name().equals(layout))
                .map(Layout::block)
                .findFirst();
    }

    /**
     * The space that a reader looks at first: a layout that draws something itself, else model space.
     */
    public String sheet() {
        // Whoever reads a drawing asks often; two that ask at once find the same.
        String known = sheet;
        if (known.isEmpty()) {
            known = layouts().stream()
                    .filter(layout -> !layout.equals(MODEL) && isDrawn(layout))
                    .findFirst()
                    .orElse(MODEL);
            sheet = known;
        }
        return known;
    }

    /** A layout that has nothing of its own and shows less of the model is one that nobody set up. */
    private static final double LEAST_SHOWN = 0.05;

    private volatile String sheet = "";

    private boolean isDrawn(String layout) {
        String block = blockOf(layout).orElse("*Paper_Space");
        Map<String, Integer> counts = isActive(block) ? paperCounts : Map.of();
        Block own = blocks.get(key(block));
        if (!isActive(block) && own != null && own.to() - own.from() > 40) counts = counts(own);
        int windows = counts.getOrDefault("VIEWPORT", 0);
        int others = counts.values().stream().mapToInt(n -> n).sum() - windows;
        int model = modelCounts.values().stream().mapToInt(n -> n).sum();
        // A stray line on an unused layout is no sheet: it takes a window onto the model, or as much as a frame at
        // least.
        if (others >= Math.min(12, Math.max(1, model))) return true;
        return windows > 1 && (others > 0 || SheetWindows.shownPart(this, block) >= LEAST_SHOWN);
    }

    private Map<String, Integer> counts(Block block) {
        Map<String, Integer> counts = new HashMap<>();
        TagCursor tags = new TagCursor(source, block.from(), block.line());
        while (tags.at < block.to() && tags.next()) {
            if (tags.code == 0) counts.merge(names.of(tags.start, tags.end), 1, Integer::sum);
        }
        return counts;
    }

    /** Whether the block's entities stand in the entities section. */
    static boolean isActive(String block) {
        return block.isEmpty()
                || key(block).equals("*PAPER_SPACE")
                || key(block).equals("$PAPER_SPACE");
    }

    /** Where the sheet's own entities lie; {@code space} 1 for those of the active layout, 0 for model space, -1 for all. */
    record Room(int from, int to, int space) {}

    Room room() {
        boolean model = sheet().equals(MODEL);
        String block = model ? "" : blockOf(sheet()).orElse("*Paper_Space");
        if (isActive(block)) return new Room(entities, entitiesEnd, model ? 0 : 1);
        Block own = blocks.get(key(block));
        return own == null ? new Room(-1, -1, -1) : new Room(own.from(), own.to(), -1);
    }

    /** The handle of the record that owns what stands on the sheet; 0 where there is none. */
    long sheetRecord() {
        if (sheet().equals(MODEL)) return recordOf("*Model_Space");
        return recordOf(blockOf(sheet()).filter(b -> !b.isEmpty()).orElse("*Paper_Space"));
    }

    /** The handle of a block's record; 0 where it has none. */
    long recordOf(String block) {
        return blockRecords.entrySet().stream()
                .filter(r -> r.getValue().equalsIgnoreCase(block))
                .map(Map.Entry::getKey)
                .findFirst()
                .orElse(0L);
    }

    /** Whether entities need handles and the marks of their classes: from release 13 on. */
    boolean isMarked() {
        return version().startsWith("AC") && version().compareTo("AC1012") >= 0;
    }

    /** The sheet, flattened; {@link #sheet()} says which space that is. */
    public Outcome<Scene> scene() {
        return scene(sheet(), 0);
    }

    /**
     * A space, flattened. O(bytes of entities + primitives).
     *
     * @param tolerance how far chords may stand off curves, in drawing units; 0 chooses by each curve's size
     */
    public Outcome<Scene> scene(String layout, double tolerance) {
        return SceneReader.read(this, layout, tolerance);
    }

    /** Attributes of inserted blocks, wherever they stand. O(bytes). */
    public List<Attributes.Attribute> attributes() {
        return Attributes.of(this);
    }
}
