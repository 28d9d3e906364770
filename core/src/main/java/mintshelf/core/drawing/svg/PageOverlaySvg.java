package mintshelf.core.drawing.svg;

import java.util.List;
import mintshelf.core.drawing.Box;

/** Two pages of paper one over the other: pictures of what both have, only the old one, only the new one, and a ring at each difference. */
public final class PageOverlaySvg {
    private PageOverlaySvg() {}

    /**
     * Groups of class same, old, now and ring, as those of two sheets.
     *
     * @param box the page, in millimetres from its lower left corner
     * @param address of the pictures, to which "same", "old" or "now" is added
     */
    public static String of(Box box, String address, List<Box> places) {
        StringBuilder inside = new StringBuilder();
        for (String part : List.of("same", "old", "now")) {
            inside.append("<g class=\"")
                    .append(part)
                    .append("\">")
                    .append(SvgWriter.image(box, address + part))
                    .append("</g>");
        }
        return SvgWriter.frame(
                box,
                "Both pages, one over the other",
                inside.append(RingedSvg.rings(places, box)).toString());
    }
}
