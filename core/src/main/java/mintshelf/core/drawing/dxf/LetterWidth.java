package mintshelf.core.drawing.dxf;

import java.util.Optional;
import mintshelf.core.drawing.dxf.Attributes.Place;

/**
 * How wide the letters of one text are, as a factor of its style's, and where the file says so (group 41).
 *
 * @param now as it stands
 * @param own as it is where nobody narrowed it: the factor of the block's definition, else of the text's style
 * @param tag the whole tag of it; empty where the file leaves it out
 * @param at where such a tag goes
 */
public record LetterWidth(double now, double own, Optional<Place> tag, int at) {
    /** Reads it of a TEXT or an ATTRIB. O(tags of it). */
    static LetterWidth of(DxfDrawing drawing, Entity e, double own) {
        TagCursor tags = new TagCursor(drawing.source, e.begin, 1);
        Optional<Place> tag = Optional.empty();
        int at = -1;
        while (tags.at < e.after && tags.next()) {
            if (tags.code == 41 && tag.isEmpty()) tag = Optional.of(new Place(tags.begin, tags.at));
            if (tags.code == 1 && at < 0) at = tags.at;
        }
        return new LetterWidth(e.real(41, own), own, tag, at);
    }

    /** The factor of letters where an entity does not say its own. */
    static double usual(DxfDrawing drawing, Entity e) {
        DxfDrawing.TextStyle style = drawing.textStyles.get(DxfDrawing.key(e.name(7, "STANDARD")));
        return style == null || style.width() <= 0 ? 1 : style.width();
    }

    /** Adds to {@code edit} what gives the letters another width; whether anything changes. */
    boolean set(DxfEdit edit, double factor) {
        if (isAs(factor) || at < 0) return false;
        byte[] bytes = edit.real(41, factor);
        tag.ifPresentOrElse(place -> edit.replace(place, bytes), () -> edit.insert(at, bytes));
        return true;
    }

    /** Whether the letters are as wide already. */
    public boolean isAs(double factor) {
        return Math.abs(factor - now) < 0.004;
    }
}
