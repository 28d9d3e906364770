package mintshelf.app.effect;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mintshelf.app.sight.Sheets;
import mintshelf.app.store.content.StoredContent;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.pdf.PdfMark;
import mintshelf.core.drawing.pdf.PdfPicture;
import mintshelf.core.drawing.pdf.PdfWhere;
import mintshelf.core.drawing.pdf.PdfWriter;
import mintshelf.core.drawing.pdf.SystemFonts;
import mintshelf.core.redline.RedlineSvg.Placed;
import mintshelf.core.redline.exchange.PdfAnnotations;
import org.springframework.core.io.ClassPathResource;
import org.springframework.stereotype.Component;

/** Draws a sheet as a page of PDF, with the font that is shipped. */
@Component
public class SheetPdf {
    private final Sheets sheets;
    private final List<byte[]> fonts = new ArrayList<>();

    public SheetPdf(Sheets sheets) throws IOException {
        this.sheets = sheets;
        try (InputStream in = new ClassPathResource("static/fonts/dejavu-sans.ttf").getInputStream()) {
            fonts.add(in.readAllBytes());
        }
        fonts.addAll(SystemFonts.below(Path.of("/usr/share/fonts")));
    }

    /** The page, or why there is none. */
    public Outcome<PdfWriter.Written> write(StoredContent content, String title, String margin) {
        Optional<DxfDrawing> opened = sheets.opened(content);
        if (opened.isEmpty()) {
            return Outcome.refused("pdf.none", sheets.whyUnread(content).orElse("The drawing cannot be read."), "");
        }
        Outcome<Scene> scene = opened.get().scene();
        if (!(scene instanceof Outcome.Granted<Scene> read)) {
            return Outcome.refused(scene.refusal().orElseThrow());
        }
        return Outcome.granted(PdfWriter.write(read.value(), fonts, title, margin));
    }

    /** Pages that the shelf laid out itself. */
    public byte[] write(List<Scene> pages, String title) {
        return PdfWriter.write(pages, fonts, title, "").bytes();
    }

    /** Pages that were made here, with words across their margins. */
    public byte[] marked(byte[] pdf, String says) {
        return PdfMark.across(pdf, fonts.get(0), says);
    }

    /** A page with remarks as annotations over it. */
    public byte[] annotated(byte[] page, List<Placed> remarks, PdfWhere where, double millimetre) {
        return PdfAnnotations.write(page, remarks, where, millimetre, fonts);
    }

    /** A small picture as PNG, for mails. */
    public Optional<byte[]> png(StoredContent content, int width) {
        return write(content, "", "") instanceof Outcome.Granted<PdfWriter.Written> page
                ? Optional.of(PdfPicture.png(page.value().bytes(), width))
                : Optional.empty();
    }
}
