package mintshelf.core.stamp;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.drawing.dxf.DxfTags;
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
        if (!(DxfTags.read(signed) instanceof Outcome.Granted<DxfTags> read)) {
            return Outcome.refused("stamp.unreadable", "The sheet cannot be read.", "It is released as it is.");
        }
        DxfTags tags = read.value();
        TreeMap<Integer, String> replaced = new TreeMap<>();
        List<Edit> edits = new ArrayList<>();
        for (SheetMap.Site site : map.sites(tags)) {
            String value = values.get(site.fact());
            if (value == null || value.equals(site.now())) continue;
            if (value.length() * 7 > LONGEST && value.getBytes(tags.charset()).length > LONGEST) {
                return Outcome.refused(
                        "stamp.long",
                        "“" + site.fact() + "” is too long for the sheet's field " + site.tag() + ".",
                        "Shorten it.");
            }
            site.tags().forEach(tag -> replaced.put(tag, value));
            edits.add(new Edit(site.tag(), site.fact(), site.now(), value));
        }
        byte[] bytes = tags.with(replaced);
        return Outcome.granted(
                new Stamped(bytes, List.copyOf(edits), ContentHash.compute(signed), ContentHash.compute(bytes)));
    }

    /**
     * Proves that a written sheet is the signed one but for what the record says: writing again gives the same hash, and every tag
     * that differs is a mapped place. Nothing when it holds, else what differs.
     */
    public static Optional<Refusal> prove(byte[] signed, byte[] stamped, SheetMap map, Map<String, String> values) {
        if (!(write(signed, map, values) instanceof Outcome.Granted<Stamped> again)) {
            return differs("writing it again is refused");
        }
        if (!again.value().hash().equals(ContentHash.compute(stamped))) return differs("writing it again gives others");
        if (!(DxfTags.read(signed) instanceof Outcome.Granted<DxfTags> before)
                || !(DxfTags.read(stamped) instanceof Outcome.Granted<DxfTags> after)) {
            return differs("it cannot be read");
        }
        DxfTags old = before.value();
        DxfTags now = after.value();
        if (old.size() != now.size()) return differs("it has " + now.size() + " tags, the signed one " + old.size());
        Set<Integer> mapped = new HashSet<>();
        map.sites(old).forEach(site -> mapped.addAll(site.tags()));
        for (int tag = 0; tag < old.size(); tag++) {
            if (!old.sameAs(now, tag) && !mapped.contains(tag)) {
                return differs(
                        "tag " + (tag + 1) + " is “" + now.value(tag) + "”, signed was “" + old.value(tag) + "”");
            }
        }
        return Optional.empty();
    }

    private static Optional<Refusal> differs(String how) {
        return Optional.of(Refusal.of(
                "stamp.differs",
                "The written sheet differs from the signed one: " + how + ".",
                "It is not released; the sign-offs stand for the signed one."));
    }
}
