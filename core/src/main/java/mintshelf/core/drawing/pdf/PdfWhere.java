package mintshelf.core.drawing.pdf;

import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.pdf.PdfWriter.Fit;

/** On which page notes lie, and how: a sheet that {@link PdfWriter} wrote, or a page that somebody brought, in its millimetres. */
public final class PdfWhere {
    private final int index;
    private final Fit fit;

    private PdfWhere(int index, Fit fit) {
        this.index = index;
        this.fit = fit;
    }

    int index() {
        return index;
    }

    Fit fit() {
        return fit;
    }

    /** @param extents of what is drawn on the sheet */
    public static PdfWhere sheet(Box extents) {
        return new PdfWhere(0, Fit.of(extents));
    }

    /** @param index from 0 on; refused for a page that is shown turned, whose notes would lie elsewhere */
    public static Outcome<PdfWhere> page(int index, PdfPages.Page page) {
        if (page.turned()) {
            return Outcome.refused(
                    "pdf.turned",
                    "This page is shown turned; notes would lie elsewhere on it.",
                    "Send its remarks as a page for a browser.");
        }
        return Outcome.granted(new PdfWhere(index, page.fit()));
    }
}
