package mintshelf.app.store.house;

import mintshelf.core.document.Aspect;

/**
 * A kind of document: what it fixes.
 *
 * @param glyph name of its picture
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
        long route) {}
