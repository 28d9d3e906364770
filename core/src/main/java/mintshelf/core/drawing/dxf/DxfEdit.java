package mintshelf.core.drawing.dxf;

import java.io.ByteArrayOutputStream;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import mintshelf.core.drawing.dxf.Attributes.Place;

/** Changes to an exchange drawing that leave every other byte as it was. */
public final class DxfEdit {
    private final DxfDrawing drawing;
    private final TagWriter writer;
    private final List<Change> changes = new ArrayList<>();

    private record Change(Place place, byte[] bytes) {}

    public DxfEdit(DxfDrawing drawing) {
        this.drawing = drawing;
        this.writer = new TagWriter(drawing.source);
    }

    /** Puts another text at the place of a value; what the file's code page lacks is written as \U+XXXX. */
    public DxfEdit replace(Place place, String text) {
        return replace(place, writer.encode(text));
    }

    DxfEdit replace(Place place, byte[] bytes) {
        changes.add(new Change(place, bytes));
        return this;
    }

    /** Puts whole tags before a tag; several at one place follow each other. */
    DxfEdit insert(int at, byte[] tags) {
        return replace(new Place(at, at), tags);
    }

    /** A tag of a length or a factor, as this file writes it. */
    byte[] real(int code, double value) {
        return new TagWriter(drawing.source).real(code, value).bytes();
    }

    /** Puts another width of letters; whether anything changes. */
    public boolean letters(LetterWidth width, double factor) {
        return width.set(this, factor);
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
        return writer.encode(text).length;
    }
}
