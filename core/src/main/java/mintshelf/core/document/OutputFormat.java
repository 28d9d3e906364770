package mintshelf.core.document;

import java.util.Locale;
import mintshelf.core.content.ContentKind;

/** What a house can have made of a released version. */
public enum OutputFormat {
    /** A page of its own size, after ISO 19005-2 (PDF/A-2b), signed by the house after ETSI EN 319 142-1. */
    PDF("PDF for keeping, sealed", ContentKind.DXF),
    /** The drawing itself with the line in its margin. */
    DXF("DXF copy with its margin line", ContentKind.DXF),
    SVG("SVG", ContentKind.DXF),
    PNG("picture (PNG)", ContentKind.DXF),
    STEP("STEP copy", ContentKind.STEP);

    private final String words;
    private final ContentKind of;

    OutputFormat(String words, ContentKind of) {
        this.words = words;
        this.of = of;
    }

    public String words() {
        return words;
    }

    /** Whether it can be made of a content. */
    public boolean isOf(ContentKind content) {
        return content == of;
    }

    /** As file names end: "pdf", "step". */
    public String ending() {
        return name().toLowerCase(Locale.ROOT);
    }
}
