package mintshelf.core;

import java.nio.charset.Charset;

/** Small exchange drawings for tests. */
public final class Dxf {
    private Dxf() {}

    /** Tags "code value" joined by a line end, each code and value on a line of its own. */
    public static byte[] of(String eol, Charset charset, String... tags) {
        StringBuilder text = new StringBuilder();
        for (String tag : tags) {
            int blank = tag.indexOf(' ');
            text.append(String.format("%3s", tag.substring(0, blank)))
                    .append(eol)
                    .append(tag.substring(blank + 1))
                    .append(eol);
        }
        return text.toString().getBytes(charset);
    }

    /** A sheet with a title block, an entity and a section that no reader knows. */
    public static byte[] sheet(String eol, Charset charset, String version, String codePage) {
        return of(
                eol,
                charset,
                "999 a comment that stays",
                "0 SECTION",
                "2 HEADER",
                "9 $ACADVER",
                "1 " + version,
                "9 $DWGCODEPAGE",
                "3 " + codePage,
                "0 ENDSEC",
                "0 SECTION",
                "2 HARBOUR_NOTES",
                "1   odd blanks stay   ",
                "310 00FF",
                "0 ENDSEC",
                "0 SECTION",
                "2 ENTITIES",
                "0 LINE",
                "8 OUTLINE",
                "10 20.0",
                "20 30.0",
                "11 400.0",
                "21 30.0",
                "0 INSERT",
                "66 1",
                "2 TITLE",
                "10 0.0",
                "20 0.0",
                "0 ATTRIB",
                "8 TEXT",
                "10 20.0",
                "20 12.0",
                "40 3.5",
                "1 Gland plate",
                "2 TITLE",
                "0 ATTRIB",
                "10 20.0",
                "20 12.0",
                "40 3.5",
                "1 316L",
                "2 MATERIAL",
                "0 ATTRIB",
                "10 20.0",
                "20 20.0",
                "40 3.5",
                "1 old number",
                "2 NUMBER",
                "0 ATTRIB",
                "10 60.0",
                "20 20.0",
                "40 3.5",
                "1 ",
                "2 rev",
                "0 ATTRIB",
                "10 80.0",
                "20 20.0",
                "40 3.5",
                "1   ",
                "2 CHECKED_BY",
                "0 SEQEND",
                "0 ENDSEC",
                "0 EOF");
    }
}
