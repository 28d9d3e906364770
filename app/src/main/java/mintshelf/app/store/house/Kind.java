package mintshelf.app.store.house;

import java.util.Optional;
import mintshelf.core.change.PaperType;
import mintshelf.core.document.Aspect;

/**
 * A kind of document: what it fixes.
 *
 * @param glyph name of its picture
 * @param paper what it is in a change; empty for what people bring
 * @param labelAtStart whether a revision's label is taken when work starts, not at release
 */
public record Kind(
        long id,
        String code,
        String name,
        Aspect aspect,
        String glyph,
        long numberSeries,
        String revisionSeries,
        boolean labelAtStart,
        long route,
        Optional<PaperType> paper) {
    /** Whether documents of this kind are made by changes, not filed, checked out or moved by hand. */
    public boolean isChangePaper() {
        return paper.isPresent();
    }
}
