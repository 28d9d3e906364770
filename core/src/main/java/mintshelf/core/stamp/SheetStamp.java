package mintshelf.core.stamp;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.drawing.dxf.Attributes.Place;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.dxf.DxfEdit;
import mintshelf.core.drawing.titleblock.SheetMap;

/**
 * Writes what the record says into a sheet's title block. A pure function of the signed bytes, the values and the sheet map: the
 * same three give the same bytes, today and in ten years, which is what lets sign-offs carry over to the written sheet.
 */
public final class SheetStamp {
    /** Values of exchange drawings before 2000 end at this many bytes. */
    private static final int LONGEST = 250;

    private SheetStamp() {}

    /** One value that was replaced. */
    public record Edit(String tag, String fact, String before, String after) {}

    /** A written sheet, what was replaced in it, and the two hashes that a proof names. */
    public record Stamped(byte[] bytes, List<Edit> edits, ContentHash signed, ContentHash hash) {}

    /**
     * Replaces the mapped values for which {@code values} has one; O(bytes).
     *
     * @param signed an ASCII exchange drawing
     * @param values by fact name, each one line
     */
    public static Outcome<Stamped> write(byte[] signed, SheetMap map, Map<String, String> values) {
        if (!(DxfDrawing.read(signed) instanceof Outcome.Granted<DxfDrawing> read)
                || !read.value().said().isEmpty()) {
            return Outcome.refused("stamp.unreadable", "The sheet cannot be read.", "It is released as it is.");
        }
        DxfEdit edit = new DxfEdit(read.value());
        List<Edit> edits = new ArrayList<>();
        for (SheetMap.Site site : map.sites(read.value())) {
            String value = values.get(site.fact());
            if (value == null || value.equals(site.now())) continue;
            if (edit.length(value) > LONGEST) {
                return Outcome.refused(
                        "stamp.long",
                        "“" + site.fact() + "” is too long for the sheet's field " + site.tag() + ".",
                        "Shorten it.");
            }
            site.places().forEach(place -> edit.replace(place, value));
            edits.add(new Edit(site.tag(), site.fact(), site.now(), value));
        }
        byte[] bytes = edit.bytes();
        return Outcome.granted(
                new Stamped(bytes, List.copyOf(edits), ContentHash.compute(signed), ContentHash.compute(bytes)));
    }

    /**
     * Proves that a written sheet is the signed one but for what the record says: writing again gives the same hash, and every byte
     * outside the mapped places is the signed one. Nothing when it holds, else what differs.
     */
    public static Optional<Refusal> prove(byte[] signed, byte[] stamped, SheetMap map, Map<String, String> values) {
        if (!(write(signed, map, values) instanceof Outcome.Granted<Stamped> again)) {
            return differs("writing it again is refused");
        }
        if (!again.value().hash().equals(ContentHash.compute(stamped))) return differs("writing it again gives others");
        if (!(DxfDrawing.read(signed) instanceof Outcome.Granted<DxfDrawing> before)
                || !(DxfDrawing.read(stamped) instanceof Outcome.Granted<DxfDrawing> after)) {
            return differs("it cannot be read");
        }
        List<Place> old = places(map, before.value());
        List<Place> now = places(map, after.value());
        if (old.size() != now.size()) return differs("it has " + now.size() + " places, the signed one " + old.size());
        int a = 0;
        int b = 0;
        for (int i = 0; i <= old.size(); i++) {
            int oldEnd = i < old.size() ? old.get(i).from() : signed.length;
            int newEnd = i < now.size() ? now.get(i).from() : stamped.length;
            int at = Arrays.mismatch(signed, a, oldEnd, stamped, b, newEnd);
            if (at >= 0) return differs("byte " + (b + at + 1) + " is not as it was signed");
            if (i < old.size()) {
                a = old.get(i).to();
                b = now.get(i).to();
            }
        }
        return Optional.empty();
    }

    private static List<Place> places(SheetMap map, DxfDrawing drawing) {
        return map.sites(drawing).stream()
                .flatMap(site -> site.places().stream())
                .distinct()
                .sorted(Comparator.comparingInt(Place::from))
                .toList();
    }

    private static Optional<Refusal> differs(String how) {
        return Optional.of(Refusal.of(
                "stamp.differs",
                "The written sheet differs from the signed one: " + how + ".",
                "It is not released; the sign-offs stand for the signed one."));
    }
}
