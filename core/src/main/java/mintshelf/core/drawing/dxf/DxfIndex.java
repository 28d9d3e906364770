package mintshelf.core.drawing.dxf;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Looks up a drawing's head, tables, blocks, layouts and where its entities lie: once through the file, O(bytes). */
final class DxfIndex {
    private final DxfDrawing drawing;

    DxfIndex(DxfDrawing drawing) {
        this.drawing = drawing;
    }

    void read() {
        TagCursor tags = new TagCursor(drawing.source);
        Entity entity = new Entity(drawing.source, drawing.names);
        boolean more = tags.next();
        String section = "";
        boolean ended = false;
        boolean records = false;
        boolean layers = false;
        while (more || drawing.mend(tags)) {
            if (!more) {
                more = tags.next();
                continue;
            }
            if (tags.code != 0) {
                more = tags.next();
            } else if (tags.is("SECTION")) {
                more = tags.next();
                if (more && tags.code == 2) {
                    section = drawing.source.ascii(tags.start, tags.end);
                    if (section.equals("ENTITIES")) {
                        drawing.entities = tags.at;
                        drawing.entitiesLine = tags.line + 2 - (drawing.source.binary ? 1 : 0);
                        more = count(tags);
                        drawing.entitiesEnd = tags.begin;
                        continue;
                    }
                    if (section.equals("HEADER")) header(tags);
                    more = tags.next();
                }
            } else if (tags.is("ENDSEC")) {
                if (section.equals("BLOCKS")) drawing.blocksEnd = tags.begin;
                section = "";
                more = tags.next();
            } else if (tags.is("EOF")) {
                ended = true;
                break;
            } else if (section.equals("BLOCKS") && tags.is("BLOCK")) {
                more = block(tags, entity);
            } else {
                int begin = tags.begin;
                more = entity.fill(tags);
                if (entity.type().equals("TABLE")) {
                    records = entity.text(2, "").equals("BLOCK_RECORD");
                    layers = entity.text(2, "").equals("LAYER");
                    if (records) drawing.blockRecordsHandle = entity.handle(5);
                }
                if (entity.type().equals("ENDTAB") && records) drawing.blockRecordsEnd = begin;
                if (entity.type().equals("ENDTAB") && layers) drawing.layersEnd = begin;
                if (entity.type().equals("LAYER") && drawing.firstLayer.isEmpty()) {
                    drawing.firstLayer = Optional.of(new Attributes.Place(entity.begin, entity.after));
                }
                if (section.equals("TABLES")) table(entity);
                else if (section.equals("OBJECTS") && entity.type().equals("LAYOUT")) layout(entity);
            }
        }
        if (!ended && !tags.cut) drawing.say("The file ends in " + drawing.place(tags.line) + " without its end mark.");
        if (drawing.entitiesEnd <= drawing.entities) drawing.entitiesEnd = drawing.source.bytes.length;
        drawing.layouts.sort((a, b) -> a.order() != b.order()
                ? Integer.compare(a.order(), b.order())
                : a.name().compareTo(b.name()));
    }

    private void header(TagCursor tags) {
        String variable = "";
        TagCursor ahead = new TagCursor(drawing.source, tags.at, tags.line);
        while (ahead.next() && !(ahead.code == 0)) {
            if (ahead.code == 9) {
                variable = drawing.names.of(ahead.start, ahead.end);
            } else if (ahead.code == 5 && variable.equals("$HANDSEED")) {
                drawing.handSeed = Optional.of(new Attributes.Place(ahead.start, ahead.end));
            } else if (!variable.isEmpty() && drawing.variables.size() < 2000 && isNumber(ahead.code)) {
                double value = drawing.source.binary
                        ? binary(ahead)
                        : Numbers.real(drawing.source.bytes, ahead.start, ahead.end);
                if (Double.isFinite(value)) {
                    drawing.variables.putIfAbsent(ahead.code == 20 ? variable + ".y" : variable, value);
                }
            }
        }
    }

    private static boolean isNumber(int code) {
        return (code >= 10 && code < 100) || (code >= 140 && code < 300) || (code >= 370 && code < 390);
    }

    private double binary(TagCursor tag) {
        return switch (tag.kind()) {
            case TagCursor.REAL -> Numbers.realBinary(drawing.source.bytes, tag.start);
            case TagCursor.SHORT -> Numbers.whole(drawing.source.bytes, tag.start, 2);
            case TagCursor.INT -> Numbers.whole(drawing.source.bytes, tag.start, 4);
            default -> Double.NaN;
        };
    }

    private void table(Entity e) {
        switch (e.type()) {
            case "LAYER" -> {
                String name = e.name(2, "0");
                int colour = e.whole(62, 7);
                boolean shown = colour >= 0 && (e.whole(70, 0) & 1) == 0;
                int rgb = e.has(420) ? e.whole(420, 0) & 0xffffff : -1;
                DxfDrawing.Layer layer = new DxfDrawing.Layer(
                        name, Math.abs(colour), rgb, e.name(6, "CONTINUOUS"), e.whole(370, -3), shown);
                if (drawing.layers.putIfAbsent(DxfDrawing.key(name), layer) == null) drawing.layerNames.add(name);
                if (e.handle(5) != 0) drawing.layerHandles.put(e.handle(5), DxfDrawing.key(name));
            }
            case "LTYPE" -> {
                List<Double> dashes = new ArrayList<>();
                for (double dash : e.all(49)) dashes.add(dash);
                drawing.lineTypes.put(DxfDrawing.key(e.name(2, "")), dashes);
            }
            case "STYLE" ->
                drawing.textStyles.put(
                        DxfDrawing.key(e.name(2, "")),
                        new DxfDrawing.TextStyle(e.real(40, 0), e.real(41, 1), e.text(3, "")));
            case "DIMSTYLE" -> {
                DxfDrawing.DimensionStyle usual = DxfDrawing.DimensionStyle.USUAL;
                drawing.dimensionStyles.put(
                        DxfDrawing.key(e.name(2, "")),
                        new DxfDrawing.DimensionStyle(
                                e.real(40, usual.scale()),
                                e.real(41, usual.arrow()),
                                e.real(42, usual.offset()),
                                e.real(44, usual.beyond()),
                                e.real(140, usual.text()),
                                e.real(144, usual.factor()),
                                e.whole(271, usual.decimals()),
                                e.text(3, ""),
                                e.real(147, usual.gap())));
            }
            case "BLOCK_RECORD" -> {
                if (e.handle(5) != 0) drawing.blockRecords.put(e.handle(5), e.name(2, ""));
            }
            default -> {
                // Views, user coordinate systems and the like draw nothing.
            }
        }
    }

    private boolean block(TagCursor tags, Entity entity) {
        boolean more = entity.fill(tags);
        String name = entity.name(2, entity.name(3, ""));
        double x = entity.real(10, 0);
        double y = entity.real(20, 0);
        int flags = entity.whole(70, 0);
        String path = entity.text(1, "");
        int from = more ? tags.begin : tags.at;
        int line = tags.line;
        while (true) {
            if (!more) {
                if (!drawing.mend(tags)) break;
                more = tags.next();
                continue;
            }
            if (tags.code == 0 && (tags.is("ENDBLK") || tags.is("ENDSEC") || tags.is("BLOCK"))) break;
            more = tags.next();
        }
        DxfDrawing.Block block = new DxfDrawing.Block(name, from, more ? tags.begin : tags.at, line, x, y, flags, path);
        if (drawing.blocks.putIfAbsent(DxfDrawing.key(name), block) == null) drawing.blockNames.add(name);
        if (more && tags.is("ENDBLK")) {
            // What belongs to the end mark is passed over.
            more = tags.next();
            while (more && tags.code != 0) more = tags.next();
        }
        return more;
    }

    private void layout(Entity e) {
        int at = -1;
        for (int i = 0; i < e.size(); i++) if (e.code(i) == 100 && e.is(i, "AcDbLayout")) at = i;
        if (at < 0) return;
        int name = e.find(1, at);
        int order = e.find(71, at);
        int record = -1;
        for (int i = at; i < e.size() && e.code(i) < 1000; i++) if (e.code(i) == 330) record = i;
        String block = record < 0 ? "" : drawing.blockRecords.getOrDefault(e.handleAt(record), "");
        if (name >= 0)
            drawing.layouts.add(new DxfDrawing.Layout(e.text(name), order < 0 ? 0 : e.wholeAt(order), block));
    }

    /** Counts what stands in the drawing.entities section; ends before its end mark. */
    private boolean count(TagCursor tags) {
        String type = "";
        boolean paper = false;
        boolean more = tags.next();
        while (more || drawing.mend(tags)) {
            if (!more) {
                more = tags.next();
                continue;
            }
            if (tags.code == 0) {
                add(type, paper);
                paper = false;
                if (tags.is("ENDSEC") || tags.is("EOF") || tags.is("SECTION")) return true;
                type = drawing.names.of(tags.start, tags.end);
            } else if (tags.code == 67) {
                paper = drawing.source.binary
                        ? drawing.source.bytes[tags.start] != 0
                        : Numbers.real(drawing.source.bytes, tags.start, tags.end) == 1;
            }
            more = tags.next();
        }
        add(type, paper);
        return false;
    }

    private static final Set<String> PARTS = Set.of("", "VERTEX", "ATTRIB", "SEQEND", "ENDSEC");

    private void add(String type, boolean paper) {
        if (!PARTS.contains(type)) (paper ? drawing.paperCounts : drawing.modelCounts).merge(type, 1, Integer::sum);
    }
}
