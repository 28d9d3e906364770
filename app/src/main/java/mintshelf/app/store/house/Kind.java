package mintshelf.app.store.house;

import java.util.Optional;
import mintshelf.core.change.PaperType;
import mintshelf.core.document.Aspect;
import mintshelf.core.document.Outputs;

/**
 * A kind of document: what it fixes.
 *
 * @param glyph name of its picture
 * @param paper what it is in a change; empty for what people bring
 * @param outputs what is made of its released versions
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
        Optional<PaperType> paper,
        Outputs outputs) {
    /** A kind that makes what is usual of its released versions. */
    public Kind(
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
        this(id, code, name, aspect, glyph, numberSeries, revisionSeries, labelAtStart, route, paper, Outputs.USUAL);
    }

    /** Whether what is of this kind has no file: a part that is bought, with neither drawing nor model. */
    public boolean isPart() {
        return aspect == Aspect.PART;
    }

    /** Whether files are filed as documents of this kind. */
    public boolean isFiled() {
        return !isChangePaper() && !isPart();
    }

    /** Whether documents of this kind are made by changes, not filed, checked out or moved by hand. */
    public boolean isChangePaper() {
        return paper.isPresent();
    }
}
