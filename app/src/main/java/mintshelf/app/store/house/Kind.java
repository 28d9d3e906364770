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
        long route) {
    public static final String CHANGE_ORDER = "change-order";
    public static final String CHANGE_NOTICE = "change-notice";

    /** Whether documents of this kind are made by changes, not filed, checked out or moved by hand. */
    public boolean isChangePaper() {
        return isChangePaper(code);
    }

    public static boolean isChangePaper(String code) {
        return code.equals(CHANGE_ORDER) || code.equals(CHANGE_NOTICE);
    }
}
