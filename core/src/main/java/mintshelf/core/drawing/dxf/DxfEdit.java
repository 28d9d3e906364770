package mintshelf.core.drawing.dxf;

import java.io.ByteArrayOutputStream;
import java.nio.charset.CharsetEncoder;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import mintshelf.core.drawing.dxf.Attributes.Place;

/** Changes to an exchange drawing that leave every other byte as it was. */
public final class DxfEdit {
    private final DxfDrawing drawing;
    private final List<Change> changes = new ArrayList<>();

    private record Change(Place place, byte[] bytes) {}

    public DxfEdit(DxfDrawing drawing) {
        this.drawing = drawing;
    }

    /** Puts another text at the place of a value; what the file's code page lacks is written as \U+XXXX. */
    public DxfEdit replace(Place place, String text) {
        changes.add(new Change(place, encode(text)));
        return this;
    }

    /** The file with the changes; places must not overlap. O(bytes). */
    public byte[] bytes() {
        byte[] bytes = drawing.source.bytes;
        ByteArrayOutputStream out = new ByteArrayOutputStream(bytes.length + 64 * changes.size());
        changes.sort(Comparator.comparingInt(c -> c.place().from()));
        int at = 0;
        for (Change change : changes) {
            out.write(bytes, at, change.place().from() - at);
            out.writeBytes(change.bytes());
            at = change.place().to();
        }
        out.write(bytes, at, bytes.length - at);
        return out.toByteArray();
    }

    /** How many bytes a text takes in this file. */
    public int length(String text) {
        return encode(text).length;
    }

    /** A text as a line of this file: signs that begin a code and characters that the code page lacks are escaped. */
    private byte[] encode(String text) {
        CharsetEncoder encoder = drawing.source.charset().newEncoder();
        StringBuilder safe = new StringBuilder();
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            boolean pair = Character.isHighSurrogate(c) && i + 1 < text.length();
            boolean code = text.startsWith("%%", i) || text.startsWith("\\U+", i) || text.startsWith("\\M+", i);
            if (pair && encoder.canEncode(text.substring(i, i + 2))) {
                safe.append(c).append(text.charAt(++i));
            } else if (c < ' ' || code || Character.isSurrogate(c) || !encoder.canEncode(c)) {
                safe.append(String.format(Locale.ROOT, "\\U+%04X", (int) c));
            } else {
                safe.append(c);
            }
        }
        return safe.toString().getBytes(drawing.source.charset());
    }
}
