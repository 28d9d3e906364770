package mintshelf.core.drawing.dxf;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.dxf.Attributes.Place;
import mintshelf.core.drawing.dxf.SheetParts.Part;

/**
 * Takes parts of one drawing over into another one: some of its own go out, some of the other's come in, with the blocks that they are drawn by;
 * every other byte stays. Read again to prove it.
 */
public final class TakeOver {
    private final SheetParts mine;
    private final SheetParts theirs;
    private final DxfEdit edit;
    private final TagWriter blocks;
    private final TagWriter records;
    private final Map<String, String> carried = new HashMap<>();
    private final Set<Long> taken = new HashSet<>();
    private final long first;
    private long next;

    private TakeOver(SheetParts mine, SheetParts theirs) {
        this.mine = mine;
        this.theirs = theirs;
        this.edit = new DxfEdit(mine.drawing);
        this.blocks = new TagWriter(mine.drawing.source);
        this.records = new TagWriter(mine.drawing.source);
        this.first = RowBlock.firstFree(mine.drawing);
        this.next = first;
        TagCursor tags = new TagCursor(mine.drawing.source);
        while (tags.next() || (tags.damaged && tags.resume()))
            if (tags.code == 5 || tags.code == 105) taken.add(handle(mine.drawing.source, tags));
    }

    /** Whether what one file says can stand in the other as it is. */
    public static boolean isAlike(DxfDrawing one, DxfDrawing other) {
        return one.isBinary() == other.isBinary()
                && one.source.wideCodes == other.source.wideCodes
                && one.isMarked() == other.isMarked()
                && one.encoding().equals(other.encoding());
    }

    /**
     * The drawing with them. O(bytes).
     *
     * @param out parts of the drawing itself, {@code in} parts of the other one
     */
    public static Outcome<byte[]> write(SheetParts mine, Collection<Part> out, SheetParts theirs, Collection<Part> in) {
        if (out.isEmpty() && in.isEmpty()) return Outcome.granted(mine.drawing.source.bytes.clone());
        TakeOver over = new TakeOver(mine, theirs);
        byte[] bytes = over.write(out, in);
        Map<String, Integer> wanted = mine.things();
        out.forEach(p -> wanted.merge(p.thing(), -1, Integer::sum));
        in.forEach(p -> wanted.merge(p.thing(), 1, Integer::sum));
        wanted.values().removeIf(n -> n == 0);
        boolean proved = DxfDrawing.read(bytes) instanceof Outcome.Granted<DxfDrawing> read
                && SheetParts.of(read.value()).isWhole()
                && SheetParts.of(read.value()).things().equals(wanted);
        return proved
                ? Outcome.granted(bytes)
                : Outcome.refused(
                        "take_over.differs",
                        "The sheet as written does not read as it should.",
                        "Take the changes up in the program that drew it; nothing was changed.");
    }

    private byte[] write(Collection<Part> out, Collection<Part> in) {
        // What comes in stands where something went out of the same block, in the order of drawing; else at its end.
        Map<String, Deque<Part>> coming = new HashMap<>();
        in.forEach(p -> coming.computeIfAbsent(p.in(), i -> new ArrayDeque<>()).add(p));
        List<Part> going = new ArrayList<>(out);
        going.sort((a, b) -> Integer.compare(a.from(), b.from()));
        for (Part part : going) {
            Deque<Part> fills = coming.getOrDefault(part.in(), new ArrayDeque<>());
            byte[] instead = fills.isEmpty() ? new byte[0] : written(fills.poll());
            edit.replace(new Place(part.from(), part.to()), instead);
        }
        coming.forEach((block, rest) -> {
            Integer end = mine.ends.get(block);
            if (end != null) rest.forEach(p -> edit.insert(end, written(p)));
        });
        byte[] recorded = records.bytes();
        if (recorded.length > 0 && mine.drawing.blockRecordsEnd >= 0)
            edit.insert(mine.drawing.blockRecordsEnd, recorded);
        byte[] carriedBlocks = blocks.bytes();
        if (carriedBlocks.length > 0) edit.insert(mine.drawing.blocksEnd, carriedBlocks);
        if (next != first) RowBlock.keepSeed(mine.drawing, edit, next);
        return edit.bytes();
    }

    private byte[] written(Part part) {
        long owner = owner(part);
        return copied(part.from(), part.to(), owner);
    }

    /** The record of the space or block in which it stands here; 0 where there are none. */
    private long owner(Part part) {
        if (!mine.drawing.isMarked()) return 0;
        if (!part.in().isEmpty()) return mine.drawing.recordOf(part.in());
        boolean paper = false;
        for (TagCursor tags = new TagCursor(theirs.drawing.source, part.from(), 1);
                tags.at < part.to() && tags.next(); )
            if (tags.code == 67)
                paper = theirs.drawing.source.text(tags.start, tags.end).strip().equals("1");
        return mine.drawing.recordOf(paper ? "*Paper_Space" : "*Model_Space");
    }

    /** Entities of the other drawing with handles that are free here, in a block of this one. */
    private byte[] copied(int from, int to, long owner) {
        DxfSource source = theirs.drawing.source;
        Map<Long, Long> handles = new HashMap<>();
        for (TagCursor tags = new TagCursor(source, from, 1); tags.at < to && tags.next(); ) {
            if (tags.code != 5) continue;
            long handle = handle(source, tags);
            if (taken.add(handle)) continue;
            handles.put(handle, next);
            taken.add(next++);
        }
        TagWriter out = new TagWriter(source);
        String type = "";
        boolean group = false;
        for (TagCursor tags = new TagCursor(source, from, 1); tags.at < to && tags.next(); ) {
            if (tags.code == 0) type = source.text(tags.start, tags.end).strip();
            if (tags.code == 102) {
                group = source.text(tags.start, tags.end).startsWith("{");
                continue;
            }
            if (group) continue;
            if (SheetParts.isPointer(tags.code)) {
                long named = handle(source, tags);
                if (handles.containsKey(named)) out.handle(tags.code, handles.getOrDefault(named, 0L));
                else if (tags.code == 330 && owner > 0 && theirs.drawing.blockRecords.containsKey(named))
                    out.handle(tags.code, owner);
                else out.copy(tags.begin, tags.at);
            } else if (tags.code == 2 && (type.equals("INSERT") || type.equals("DIMENSION"))) {
                String name = source.text(tags.start, tags.end).strip();
                if (SheetParts.isDrawnBy(name)) out.text(2, carried(name));
                else out.copy(tags.begin, tags.at);
            } else {
                out.copy(tags.begin, tags.at);
            }
        }
        return out.bytes();
    }

    private static long handle(DxfSource source, TagCursor tags) {
        return Math.max(0, Numbers.hex(source.bytes, tags.start, tags.end));
    }

    /** A block without a name comes along under one that is free here; its name here. */
    private String carried(String name) {
        String known = carried.get(name);
        if (known != null) return known;
        String stem = name.replaceAll("[0-9]+$", "");
        int n = 1;
        while (mine.drawing.blocks.containsKey(DxfDrawing.key(stem + n)) || carried.containsValue(stem + n)) n++;
        String free = stem + n;
        carried.put(name, free);
        DxfDrawing.Block block = theirs.drawing.blocks.get(DxfDrawing.key(name));
        if (block == null) return free;
        boolean marked = mine.drawing.isMarked();
        long record = marked ? fresh() : 0;
        if (marked) {
            records.text(0, "BLOCK_RECORD").handle(5, record);
            if (mine.drawing.blockRecordsHandle > 0) records.handle(330, mine.drawing.blockRecordsHandle);
            records.text(100, "AcDbSymbolTableRecord").text(100, "AcDbBlockTableRecord");
            records.text(2, free).text(340, "0");
        }
        byte[] body = copied(block.from(), block.to(), record);
        mark(blocks.text(0, "BLOCK"), record, "AcDbBlockBegin");
        blocks.text(2, free)
                .whole(70, 1)
                .point(10, block.x(), block.y())
                .text(3, free)
                .text(1, "");
        blocks.bytes(body);
        mark(blocks.text(0, "ENDBLK"), record, "AcDbBlockEnd");
        return free;
    }

    private void mark(TagWriter out, long owner, String mark) {
        boolean marked = mine.drawing.isMarked();
        if (first > 0) out.handle(5, fresh());
        if (marked) out.handle(330, owner).text(100, "AcDbEntity");
        out.text(8, "0");
        if (marked) out.text(100, mark);
    }

    private long fresh() {
        taken.add(next);
        return next++;
    }
}
