package mintshelf.core.drawing.dxf;

import java.security.MessageDigest;
import java.util.Set;
import mintshelf.core.base.ContentHash;

/**
 * What a drawing says of its own saving: times, editing time, counters and marks of the save (header variables). Two files that
 * differ in nothing else are the same drawing.
 */
public final class SaveMarks {
    private static final Set<String> VARIABLES = Set.of(
            "$TDUPDATE",
            "$TDUUPDATE",
            "$TDINDWG",
            "$TDUSRTIMER",
            "$LASTSAVEDBY",
            "$VERSIONGUID",
            "$FINGERPRINTGUID",
            "$SAVECOUNT");

    private SaveMarks() {}

    /**
     * SHA-256 of the file without those marks. A mark is the one value that follows its variable's name in the header: whatever comes
     * after it, whatever stands outside the header, counts. O(bytes).
     */
    public static ContentHash without(DxfDrawing drawing) {
        DxfSource source = drawing.source;
        MessageDigest digest = ContentHash.digest();
        TagCursor tags = new TagCursor(source);
        int from = 0;
        boolean sectionBegins = false;
        boolean header = false;
        boolean mark = false;
        while (tags.next()) {
            if (mark && tags.code != 0 && tags.code != 9) {
                digest.update(source.bytes, from, tags.start - from);
                from = tags.end;
            }
            if (sectionBegins && tags.code == 2) header = tags.is("HEADER");
            if (tags.code == 0) header &= !tags.is("ENDSEC");
            sectionBegins = tags.code == 0 && tags.is("SECTION");
            mark = header && tags.code == 9 && VARIABLES.contains(source.ascii(tags.start, tags.end));
        }
        digest.update(source.bytes, from, source.bytes.length - from);
        return ContentHash.of(digest.digest());
    }
}
