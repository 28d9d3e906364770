package mintshelf.core.stamp;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.drawing.dxf.Attributes.Place;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.dxf.DxfEdit;
import mintshelf.core.drawing.dxf.RowBlock;
import mintshelf.core.drawing.titleblock.HandTable;
import mintshelf.core.drawing.titleblock.RevisionBlock;
import mintshelf.core.drawing.titleblock.SheetMap;

/**
 * Writes what the record says into a sheet's title block and revision block. A pure function of the signed bytes, the values and
 * the sheet map: the same three give the same bytes, today and in ten years, which is what lets sign-offs carry over to the
 * written sheet.
 */
public final class SheetStamp {
    /** Values of exchange drawings before 2000 end at this many bytes. */
    private static final int LONGEST = 250;

    private SheetStamp() {}

    /** One value that was replaced; rows of the revision block as one edit. */
    public record Edit(String tag, String fact, String before, String after) {}

    /**
     * What the record says.
     *
     * @param values of the title block, by fact name, each one line
     * @param rows of the revision block, the first revision first, by the names of {@link RevisionBlock#FACTS}
     * @param place whether a sheet without a revision block gets one
     * @param recipe how it is written: a proof names the one that it was made with, for writing again must give the same bytes
     */
    public record Values(Map<String, String> values, List<Map<String, String>> rows, boolean place, int recipe) {
        /** As it was before texts were fitted into their cells. */
        public static final int UNFITTED = 1;

        public static final int FITTED = 2;

        /** Fitted, on a sheet that becomes another document's: rows that stand on it go. */
        public static final int ANEW = 3;

        /** Fitted, on a sheet with a revision table that was drawn by hand: the block takes its place and its rows. */
        public static final int REPLACED = 4;

        public Values(Map<String, String> values, List<Map<String, String>> rows, boolean place) {
            this(values, rows, place, FITTED);
        }

        public Values {
            values = Map.copyOf(values);
            rows = rows.stream().map(Map::copyOf).toList();
        }

        /** Values of a title block alone. */
        public static Values of(Map<String, String> values) {
            return new Values(values, List.of(), false);
        }
    }

    /** A written sheet, what was replaced in it, and the two hashes that a proof names. */
    public record Stamped(byte[] bytes, List<Edit> edits, ContentHash signed, ContentHash hash) {}

    /** Replaces the mapped values for which {@code values} has one, and nothing else. */
    public static Outcome<Stamped> write(byte[] signed, SheetMap map, Map<String, String> values) {
        return write(signed, map, Values.of(values));
    }

    /**
     * Replaces the mapped values for which the record has one, and the rows of the revision block; O(bytes).
     *
     * @param signed an exchange drawing
     */
    public static Outcome<Stamped> write(byte[] signed, SheetMap map, Values record) {
        if (!(DxfDrawing.read(signed) instanceof Outcome.Granted<DxfDrawing> read)
                || !read.value().said().isEmpty()) {
            return Outcome.refused("stamp.unreadable", "The sheet cannot be read.", "It is released as it is.");
        }
        DxfDrawing drawing = read.value();
        DxfEdit edit = new DxfEdit(drawing);
        List<Edit> edits = new ArrayList<>();
        List<SheetMap.Site> sites = map.sites(drawing);
        TitleBlockRoom room = new TitleBlockRoom(drawing, sites);
        for (SheetMap.Site site : sites) {
            String wanted = record.values().get(site.fact());
            if (wanted == null) continue;
            if (edit.length(wanted) > LONGEST) return tooLong(site.fact(), site.tag());
            Optional<TitleBlockRoom.Fit> fit =
                    record.recipe() >= Values.FITTED ? room.fit(site, wanted) : Optional.empty();
            String value = fit.map(TitleBlockRoom.Fit::text).orElse(wanted);
            boolean narrowed =
                    fit.filter(f -> edit.letters(f.width(), f.factor())).isPresent();
            if (value.equals(site.now()) && !narrowed) continue;
            if (!value.equals(site.now())) site.places().forEach(place -> edit.replace(place, value));
            edits.add(new Edit(site.tag(), site.fact(), site.now(), value));
        }
        if (map.revisions().isPresent()) {
            Optional<Refusal> refused = rows(drawing, edit, map.revisions().get(), record, edits);
            if (refused.isPresent()) return Outcome.refused(refused.get());
        }
        byte[] bytes = edits.isEmpty() ? signed : edit.bytes();
        if (!edits.isEmpty()) {
            Optional<Refusal> differs = compare(signed, bytes, map, record);
            boolean withRows = !record.rows().isEmpty();
            // A file built so oddly that rows end up elsewhere than they are looked for: better none than unproven
            // ones.
            if (differs.isPresent() && withRows && !record.place()) return write(signed, map, record.values());
            if (differs.isPresent()) return Outcome.refused(differs.get());
        }
        return Outcome.granted(
                new Stamped(bytes, List.copyOf(edits), ContentHash.compute(signed), ContentHash.compute(bytes)));
    }

    private static <T> Outcome<T> tooLong(String fact, String field) {
        return Outcome.refused(
                "stamp.long", "“" + fact + "” is too long for the sheet's field " + field + ".", "Shorten it.");
    }

    private static Optional<Refusal> rows(
            DxfDrawing drawing, DxfEdit edit, RevisionBlock block, Values record, List<Edit> edits) {
        boolean there = block.isOn(drawing);
        Optional<HandTable> hand = there ? Optional.empty() : hand(drawing, record);
        boolean anew = record.recipe() == Values.ANEW;
        if ((record.rows().isEmpty() && !anew) || (!there && !record.place() && !block.drawn()))
            return Optional.empty();
        for (Map<String, String> row : record.rows()) {
            for (Map.Entry<String, String> cell : row.entrySet()) {
                if (edit.length(cell.getValue()) > LONGEST) {
                    return tooLong(cell.getKey(), "in the revision block").refusal();
                }
            }
        }
        boolean fitted = record.recipe() >= Values.FITTED;
        List<Map<String, String>> before = hand.map(HandTable::rows).orElseGet(() -> block.read(drawing));
        List<Map<String, RowBlock.Said>> after = anew
                ? block.anew(drawing, record.rows())
                : hand.isPresent()
                        ? block.laidOut(drawing, record.rows(), before)
                        : fitted
                                ? block.laidOut(drawing, record.rows())
                                : block.tagged(block.merged(before, record.rows()));
        RowBlock.Shape usual = block.shape(drawing, "0");
        Outcome<Integer> written =
                RowBlock.write(drawing, edit, hand.map(h -> h.place(usual)).orElse(usual), after, fitted);
        if (written instanceof Outcome.Granted<Integer> changed) {
            hand.ifPresent(h -> h.entities().forEach(place -> edit.replace(place, "")));
            if (changed.value() > 0) named(before, block.said(after), edits);
            return Optional.empty();
        }
        // A sheet that cannot carry a block is released without one; only who asked for it is told.
        return record.place() ? written.refusal() : Optional.empty();
    }

    private static Optional<HandTable> hand(DxfDrawing drawing, Values record) {
        return record.recipe() == Values.REPLACED ? HandTable.of(drawing) : Optional.empty();
    }

    /** One edit for each row that is not as it was. */
    private static void named(List<Map<String, String>> before, List<Map<String, String>> after, List<Edit> edits) {
        int had = edits.size();
        for (Map<String, String> row : after) {
            String label = row.getOrDefault("revision", "");
            Map<String, String> was = before.stream()
                    .filter(r -> label.equals(r.get("revision")))
                    .findFirst()
                    .orElse(Map.of());
            if (!says(was).equals(says(row))) {
                edits.add(new Edit("revision block", "row " + label, says(was), says(row)));
            }
        }
        if (edits.size() == had) edits.add(new Edit("revision block", "rows", "", "in another order"));
    }

    private static String says(Map<String, String> row) {
        return RevisionBlock.FACTS.stream()
                .skip(1)
                .map(fact -> row.getOrDefault(fact, ""))
                .filter(v -> !v.isBlank())
                .collect(Collectors.joining(", "));
    }

    /** As {@link #prove(byte[], byte[], SheetMap, Values)} for a title block alone. */
    public static Optional<Refusal> prove(byte[] signed, byte[] stamped, SheetMap map, Map<String, String> values) {
        return prove(signed, stamped, map, Values.of(values));
    }

    /**
     * Proves that a written sheet is the signed one but for what the record says: writing again gives the same hash, and what is
     * left of both without the mapped places and the shelf's own blocks is the same, byte for byte. Nothing when it holds, else
     * what differs.
     */
    public static Optional<Refusal> prove(byte[] signed, byte[] stamped, SheetMap map, Values record) {
        if (!(write(signed, map, record) instanceof Outcome.Granted<Stamped> again)) {
            return differs("writing it again is refused");
        }
        if (!again.value().hash().equals(ContentHash.compute(stamped))) return differs("writing it again gives others");
        return compare(signed, stamped, map, record);
    }

    /** Whether two sheets are the same but for what the shelf may write. */
    private static Optional<Refusal> compare(byte[] signed, byte[] stamped, SheetMap map, Values record) {
        if (!(DxfDrawing.read(signed) instanceof Outcome.Granted<DxfDrawing> before)
                || !(DxfDrawing.read(stamped) instanceof Outcome.Granted<DxfDrawing> after)) {
            return differs("it cannot be read");
        }
        byte[] old = rest(
                signed,
                map,
                before.value(),
                hand(before.value(), record).map(HandTable::entities).orElse(List.of()));
        byte[] now = rest(stamped, map, after.value(), List.of());
        int at = Arrays.mismatch(old, now);
        return at < 0
                ? Optional.empty()
                : differs("byte " + (at + 1) + " of what the shelf must not touch is not as it was signed");
    }

    /** A sheet without what the shelf may write in it. */
    private static byte[] rest(byte[] bytes, SheetMap map, DxfDrawing drawing, List<Place> gone) {
        List<Place> owned = new ArrayList<>(gone);
        List<SheetMap.Site> sites = map.sites(drawing);
        sites.forEach(site -> owned.addAll(site.places()));
        owned.addAll(new TitleBlockRoom(drawing, sites).widths());
        map.revisions().ifPresent(r -> owned.addAll(RowBlock.owned(drawing, r.block())));
        owned.sort(Comparator.comparingInt(Place::from).thenComparing(Place::to, Comparator.reverseOrder()));
        byte[] rest = new byte[bytes.length];
        int length = 0;
        int at = 0;
        for (Place place : owned) {
            if (place.from() > at) {
                System.arraycopy(bytes, at, rest, length, place.from() - at);
                length += place.from() - at;
            }
            at = Math.max(at, place.to());
        }
        System.arraycopy(bytes, at, rest, length, bytes.length - at);
        return Arrays.copyOf(rest, length + bytes.length - at);
    }

    private static Optional<Refusal> differs(String how) {
        return Optional.of(Refusal.of(
                "stamp.differs",
                "The written sheet differs from the signed one: " + how + ".",
                "It is not released; the sign-offs stand for the signed one."));
    }
}
