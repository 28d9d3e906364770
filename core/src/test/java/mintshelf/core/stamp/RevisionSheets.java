package mintshelf.core.stamp;

import static java.nio.charset.StandardCharsets.UTF_8;

import java.util.ArrayList;
import java.util.List;
import mintshelf.core.Dxf;

/** Sheets with rows of a revision block, for tests. */
final class RevisionSheets {
    private RevisionSheets() {}

    /** An A3 frame in a file of a release, with all tables that it asks for. */
    static byte[] sheet(String version, String... entities) {
        return Dxf.of("\r\n", UTF_8, tags(version, entities).toArray(String[]::new));
    }

    static List<String> tags(String version, String... entities) {
        List<String> tags = new ArrayList<>(List.of("0 SECTION", "2 HEADER", "9 $ACADVER", "1 " + version));
        boolean marked = version.compareTo("AC1012") >= 0;
        if (marked) tags.addAll(List.of("9 $HANDSEED", "5 30"));
        tags.addAll(List.of("0 ENDSEC", "0 SECTION", "2 TABLES"));
        if (marked) {
            tags.addAll(List.of("0 TABLE", "2 BLOCK_RECORD", "5 1", "100 AcDbSymbolTable", "70 1"));
            tags.addAll(List.of("0 BLOCK_RECORD", "5 1F", "330 1", "100 AcDbSymbolTableRecord"));
            tags.addAll(List.of("100 AcDbBlockTableRecord", "2 *Model_Space", "0 ENDTAB"));
        }
        tags.addAll(List.of("0 ENDSEC", "0 SECTION", "2 BLOCKS"));
        if (entities.length > 0) {
            tags.addAll(List.of("0 BLOCK", "8 0", "2 REVISION_ROW", "70 2", "10 0", "20 0"));
            for (String tag : List.of("REV", "DESCRIPTION", "BY")) {
                tags.addAll(List.of("0 ATTDEF", "8 0", "10 2", "20 1", "40 2.5", "1 ", "3 " + tag, "2 " + tag, "70 0"));
            }
            tags.addAll(List.of("0 ENDBLK", "8 0"));
        }
        tags.addAll(List.of("0 ENDSEC", "0 SECTION", "2 ENTITIES", "0 LWPOLYLINE", "5 20", "8 0", "90 4", "70 1"));
        tags.addAll(List.of("10 0", "20 0", "10 420", "20 0", "10 420", "20 297", "10 0", "20 297"));
        tags.addAll(List.of(entities));
        tags.addAll(List.of("0 ENDSEC", "0 EOF"));
        return tags;
    }

    static String[] row(String handle, double y, String rev, String text) {
        return new String[] {
            "0 INSERT",
            "5 " + handle + "0",
            "8 0",
            "66 1",
            "2 REVISION_ROW",
            "10 230",
            "20 " + y,
            "0 ATTRIB",
            "5 " + handle + "1",
            "330 " + handle + "0",
            "8 0",
            "10 232",
            "20 " + (y + 1),
            "40 2.5",
            "1 " + rev,
            "2 REV",
            "70 0",
            "0 ATTRIB",
            "5 " + handle + "2",
            "330 " + handle + "0",
            "8 0",
            "10 250",
            "20 " + (y + 1),
            "40 2.5",
            "1 " + text,
            "2 DESCRIPTION",
            "70 0",
            "0 SEQEND",
            "5 " + handle + "3",
            "8 0"
        };
    }
}
