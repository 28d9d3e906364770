package mintshelf.core.drawing.partslist;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.bom.FindNumbers;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.dxf.Attributes.Attribute;
import mintshelf.core.drawing.dxf.Attributes.Place;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.dxf.DxfEdit;
import mintshelf.core.drawing.dxf.RowBlock;
import mintshelf.core.drawing.dxf.SheetContent;

/**
 * Writes an assembly's lines into the parts list of its sheet (ISO 7573): rows are filled where they stand, a row more repeats the first
 * one a step further, what is too many is emptied; balloons whose number is another one now are lettered anew. Every other byte stays,
 * and the sheet is read again to prove that it says what it should. O(bytes of the drawing).
 */
public final class PartsListWrite {
    private static final double ROW_MM = 7;

    /** Why a sheet without a list is not written. */
    public static final Refusal NO_ROWS = Refusal.of(
            "partslist.no_rows",
            "The sheet has no parts list that could be written: rows of a block with values named FIND and QTY.",
            "Put one row of it onto the sheet in the program that draws it.");

    private PartsListWrite() {}

    /** A text of the sheet that could be the number in a balloon. */
    private record Lettered(String text, double x, double y, List<Place> sites) {}

    /**
     * @param file the sheet's bytes
     * @param millimetre how long one is on the sheet
     * @return refused where it has no list to write into, or would not read as it should
     */
    public static Outcome<byte[]> write(byte[] file, List<Wanted> wanted, double millimetre) {
        if (!(DxfDrawing.read(file) instanceof Outcome.Granted<DxfDrawing> read)
                || !(read.value().scene() instanceof Outcome.Granted<Scene> scene))
            return Outcome.refused("partslist.none", "It is no drawing that can be read.", "");
        DxfDrawing drawing = read.value();
        PartsList list = PartsList.of(drawing, scene.value(), millimetre);
        List<SheetContent.Row> there = new ArrayList<>(SheetContent.rows(drawing, list.block()));
        if (list.block().isEmpty() || there.isEmpty()) return Outcome.refused(NO_ROWS);
        boolean upwards = upwards(there);
        Set<String> tags = new TreeSet<>();
        there.forEach(r -> tags.addAll(r.values().keySet()));
        Map<String, PartsList.PartLine> byKey = new HashMap<>();
        list.lines().values().forEach(l -> byKey.putIfAbsent(Wanted.key(l.number(), l.title()), l));
        DxfEdit edit = new DxfEdit(drawing);
        List<Map<String, RowBlock.Said>> rows = new ArrayList<>();
        for (Wanted one : wanted) {
            Map<String, String> before = Optional.ofNullable(byKey.get(one.key()))
                    .map(PartsList.PartLine::values)
                    .orElse(Map.of());
            Map<String, RowBlock.Said> row = new LinkedHashMap<>();
            tags.forEach(tag -> row.put(tag, new RowBlock.Said(one.says(tag, before.getOrDefault(tag, "")), 0)));
            rows.add(row);
        }
        RowBlock.Shape shape =
                new RowBlock.Shape(list.block(), List.of(), ROW_MM * millimetre, 2.5 * millimetre, upwards, 0, 0, "0");
        Outcome<Integer> written = RowBlock.write(drawing, edit, shape, rows, true);
        if (!written.isGranted()) return Outcome.refused(written.refusal().orElseThrow());
        balloons(drawing, list, wanted, byKey, edit);
        byte[] bytes = edit.bytes();
        return proved(bytes, wanted, millimetre)
                ? Outcome.granted(bytes)
                : Outcome.refused(
                        "partslist.differs",
                        "The sheet as written does not read as it should.",
                        "Write the list in the program that draws it; nothing was changed.");
    }

    /** Which way the rows run: the way of their find numbers. */
    private static boolean upwards(List<SheetContent.Row> rows) {
        SheetContent.Row first = null;
        SheetContent.Row last = null;
        for (SheetContent.Row row : rows) {
            String find = find(row);
            if (find.isEmpty()) continue;
            if (first == null || FindNumbers.compare(find, find(first)) < 0) first = row;
            if (last == null || FindNumbers.compare(find, find(last)) > 0) last = row;
        }
        return first != null && last != null && last.y() > first.y();
    }

    private static String find(SheetContent.Row row) {
        return PartsList.FIND.stream()
                .map(tag -> row.values().getOrDefault(tag, ""))
                .filter(v -> !v.isBlank())
                .findFirst()
                .orElse("");
    }

    /** The numbers in balloons of parts that stand under another number now. */
    private static void balloons(
            DxfDrawing drawing,
            PartsList list,
            List<Wanted> wanted,
            Map<String, PartsList.PartLine> byKey,
            DxfEdit edit) {
        Map<String, String> anew = new HashMap<>();
        for (Wanted one : wanted) {
            PartsList.PartLine before = byKey.get(one.key());
            if (before != null && !before.find().equals(one.find())) anew.put(before.find(), one.find());
        }
        if (anew.isEmpty()) return;
        List<Lettered> texts = lettered(drawing);
        list.balloons().forEach((find, boxes) -> {
            String now = anew.get(find);
            if (now == null) return;
            for (Box box : boxes) {
                texts.stream()
                        .filter(t -> t.text().equals(find) && within(t, box))
                        .findFirst()
                        .ifPresent(t -> t.sites().forEach(site -> edit.replace(site, now)));
            }
        });
    }

    private static boolean within(Lettered text, Box box) {
        return Math.hypot(text.x() - box.middleX(), text.y() - box.middleY()) <= (box.maxX() - box.minX()) / 2;
    }

    /** Texts and values of blocks that stand on the sheet, with the points that they are lettered at. */
    private static List<Lettered> lettered(DxfDrawing drawing) {
        List<Lettered> all = new ArrayList<>();
        SheetContent.labels(drawing)
                .forEach(l -> l.site()
                        .ifPresent(site -> all.add(new Lettered(l.value().strip(), l.x(), l.y(), List.of(site)))));
        Map<Integer, SheetContent.Lettered> at = SheetContent.lettered(drawing);
        for (Attribute a : drawing.attributes()) {
            if (a.sites().isEmpty()) continue;
            SheetContent.Lettered point = at.get(a.sites().get(0).from());
            if (point != null) all.add(new Lettered(a.value().strip(), point.x(), point.y(), a.sites()));
        }
        return all;
    }

    private static boolean proved(byte[] bytes, List<Wanted> wanted, double millimetre) {
        if (!(DxfDrawing.read(bytes) instanceof Outcome.Granted<DxfDrawing> read)
                || !(read.value().scene() instanceof Outcome.Granted<Scene> scene)) return false;
        Map<String, PartsList.PartLine> lines =
                PartsList.of(read.value(), scene.value(), millimetre).lines();
        return lines.size() == wanted.size()
                && wanted.stream().allMatch(w -> {
                    PartsList.PartLine line = lines.get(w.find());
                    return line != null
                            && line.quantity().equals(w.quantity())
                            && (line.values().keySet().stream().noneMatch(PartsList.NUMBER::contains)
                                    || line.number().equals(w.number()));
                });
    }
}
