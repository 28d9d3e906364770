package mintshelf.app.use.document;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/**
 * What a page shows of a version's content.
 *
 * @param face DRAWING, PICTURE, PAGE (of a PDF or a scan), TEXT, TABLE, TITLE_BLOCK or CARD
 * @param lines of a text
 * @param cut whether the text goes on
 * @param said what a title block says
 * @param layouts of a drawing, model space first, or pages; one alone where there is no choice, none where nothing fills the window
 * @param layout the one that is shown
 * @param table rows of a spreadsheet, each with its cells
 */
public record Sheet(
        String face,
        List<String> lines,
        boolean cut,
        Map<String, String> said,
        Drawn drawn,
        List<String> layouts,
        String layout,
        List<List<String>> table) {
    Sheet(
            String face,
            List<String> lines,
            boolean cut,
            Map<String, String> said,
            Drawn drawn,
            List<String> layouts,
            String layout) {
        this(face, lines, cut, said, drawn, layouts, layout, List.of());
    }

    Sheet(String face, List<String> lines, boolean cut, Map<String, String> said, Drawn drawn) {
        this(face, lines, cut, said, drawn, List.of(), "");
    }

    /** Whether it can fill the window, to be looked at closely and marked. */
    public boolean isWhole() {
        return face.equals("DRAWING") || face.equals("PAGE") || (face.equals("PICTURE") && !layouts.isEmpty());
    }

    /** Whether it is drawn of things that can be measured and picked. */
    public boolean isDrawing() {
        return face.equals("DRAWING");
    }

    /**
     * A drawing as shown.
     *
     * @param svg made by us from the scene, nothing of the file passes into it but escaped text
     * @param layers with whether they are shown at first
     * @param notDrawn how many entities of each type the picture lacks
     * @param cannot what of the file could not be read, a sentence each
     * @param refusal why there is no picture, empty where there is one
     * @param rest how many lines and texts the picture lacks that come by themselves; 0 where it is whole
     */
    public record Drawn(
            String svg,
            Map<String, Boolean> layers,
            Map<String, Integer> notDrawn,
            List<String> cannot,
            String refusal,
            int rest) {
        Drawn(
                String svg,
                Map<String, Boolean> layers,
                Map<String, Integer> notDrawn,
                List<String> cannot,
                String refusal) {
            this(svg, layers, notDrawn, cannot, refusal, 0);
        }

        static final Drawn NOTHING = new Drawn("", Map.of(), Map.of(), List.of(), "");

        /** What the picture lacks, in words; empty where it lacks nothing. */
        public String lacks() {
            String lacks = notDrawn.entrySet().stream()
                    .map(e -> e.getValue() + " " + e.getKey())
                    .collect(Collectors.joining(", "));
            List<String> all = new ArrayList<>(cannot);
            if (!lacks.isEmpty()) all.add("Not drawn: " + lacks + ".");
            return String.join(" ", all);
        }
    }
}
