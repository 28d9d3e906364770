package mintshelf.core.stamp;

import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.drawing.Lettering;
import mintshelf.core.drawing.dxf.Attributes.Place;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.dxf.LetterWidth;
import mintshelf.core.drawing.dxf.SheetContent;
import mintshelf.core.drawing.dxf.SheetContent.Lettered;
import mintshelf.core.drawing.dxf.SheetRoom;
import mintshelf.core.drawing.titleblock.SheetMap;

/** How much room the fields of a title block have that the shelf writes. */
final class TitleBlockRoom {
    /** What is known by every letter of it is narrowed, never shortened. */
    private static final Set<String> WHOLE = Set.of("number", "revision");

    private final DxfDrawing drawing;
    private final Map<Integer, Lettered> lettered;
    private final List<SheetMap.Site> sites;
    /** Flattened when the first text is measured. */
    private Optional<SheetRoom> room = Optional.empty();

    TitleBlockRoom(DxfDrawing drawing, List<SheetMap.Site> sites) {
        this.drawing = drawing;
        this.sites = sites;
        this.lettered = sites.isEmpty() ? Map.of() : SheetContent.lettered(drawing);
    }

    /** A value as it fits into its field, and where the width of its letters goes. */
    record Fit(String text, LetterWidth width, double factor) {}

    /** A value fitted into its field; nothing where the file does not tell how the field is drawn. */
    Optional<Fit> fit(SheetMap.Site site, String value) {
        Lettered text = lettered.get(site.from());
        if (text == null || site.places().size() > 1) return Optional.empty();
        double own = text.width().own();
        if (value.isEmpty()) return Optional.of(new Fit(value, text.width(), own));
        if (room.isEmpty()) room = Optional.of(SheetRoom.of(drawing, written()));
        double wide = room.get().of(text);
        Lettering.Fitted fitted = site.fact().endsWith("_by")
                ? Lettering.fitNames(value, wide, own)
                : Lettering.fit(value, wide, own, 1, WHOLE.contains(site.fact()));
        return Optional.of(new Fit(fitted.lines().get(0), text.width(), fitted.factor()));
    }

    private Set<Lettered> written() {
        Set<Lettered> written = new HashSet<>();
        for (SheetMap.Site site : sites)
            Optional.ofNullable(lettered.get(site.from())).ifPresent(written::add);
        return written;
    }

    /** Where the file says how wide the letters of these fields are: that is the shelf's to write too. */
    List<Place> widths() {
        return sites.stream()
                .filter(s -> s.places().size() == 1)
                .flatMap(s -> Optional.ofNullable(lettered.get(s.from())).stream())
                .flatMap(text -> text.width().tag().stream())
                .toList();
    }
}
