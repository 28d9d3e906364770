package mintshelf.core;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;

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

    /** The same tags in the binary form, with codes of two bytes or, as before release 13, of one. */
    public static byte[] binary(List<String> tags, boolean wide) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.writeBytes("Harbour Binary DXF\r\n\u001a\0".getBytes(StandardCharsets.ISO_8859_1));
        for (String tag : tags) {
            int blank = tag.indexOf(' ');
            int code = Integer.parseInt(tag.substring(0, blank));
            String value = tag.substring(blank + 1);
            ByteBuffer bytes = ByteBuffer.allocate(400).order(ByteOrder.LITTLE_ENDIAN);
            if (wide) bytes.putShort((short) code);
            else if (code < 255) bytes.put((byte) code);
            else bytes.put((byte) 255).putShort((short) code);
            if (code >= 10 && code < 60) bytes.putDouble(Double.parseDouble(value));
            else if (code >= 60 && code < 80) bytes.putShort(Short.parseShort(value));
            else if (code >= 90 && code < 100) bytes.putInt(Integer.parseInt(value));
            else bytes.put(value.getBytes(StandardCharsets.UTF_8)).put((byte) 0);
            out.write(bytes.array(), 0, bytes.position());
        }
        return out.toByteArray();
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
