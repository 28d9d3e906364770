package mintshelf.app.page.document;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.core.base.Outcome;
import mintshelf.core.content.ContentKind;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.dxf.DxfTags;
import mintshelf.core.drawing.dxf.SceneReader;
import mintshelf.core.drawing.svg.SvgWriter;
import mintshelf.core.drawing.titleblock.SheetMap;

/**
 * What a page shows of a version's content.
 *
 * @param face DRAWING, PICTURE, TEXT, TITLE_BLOCK or CARD
 * @param lines of a text
 * @param cut whether the text goes on
 * @param said what a title block says
 */
public record Sheet(String face, List<String> lines, boolean cut, Map<String, String> said, Drawn drawn) {
    /**
     * A drawing as shown.
     *
     * @param svg made by us from the scene, nothing of the file passes into it but escaped text
     * @param layers with whether they are shown at first
     * @param notDrawn how many entities of each type the picture lacks
     * @param refusal why there is no picture, empty where there is one
     */
    public record Drawn(String svg, Map<String, Boolean> layers, Map<String, Integer> notDrawn, String refusal) {
        static final Drawn NOTHING = new Drawn("", Map.of(), Map.of(), "");

        public String lacks() {
            return notDrawn.entrySet().stream()
                    .map(e -> e.getValue() + " " + e.getKey())
                    .collect(java.util.stream.Collectors.joining(", "));
        }
    }

    private static final int TEXT = 48 << 10;
    private static final long LARGEST_DRAWING = 16L << 20;

    static Sheet of(StoredContent content, ReadDocument read) throws IOException {
        if (content.kind().isPicture()) return new Sheet("PICTURE", List.of(), false, Map.of(), Drawn.NOTHING);
        if (content.kind() == ContentKind.TEXT) return text(content, read);
        if (content.kind() == ContentKind.DXF && content.size() <= LARGEST_DRAWING) {
            byte[] bytes = bytes(content, read, content.size());
            if (DxfTags.read(bytes) instanceof Outcome.Granted<DxfTags> tags) return drawing(tags.value());
        }
        return new Sheet("CARD", List.of(), false, Map.of(), Drawn.NOTHING);
    }

    private static Sheet drawing(DxfTags tags) {
        Map<String, String> said = SheetMap.readyMade().read(tags);
        Outcome<Scene> read = SceneReader.read(tags);
        if (!(read instanceof Outcome.Granted<Scene> granted)
                || granted.value().primitives().isEmpty()) {
            String why = read.refusal().map(r -> r.says()).orElse("Its model space is empty.");
            return new Sheet("TITLE_BLOCK", List.of(), false, said, new Drawn("", Map.of(), Map.of(), why));
        }
        Scene scene = granted.value();
        String svg = SvgWriter.write(scene, said.getOrDefault("title", "Drawing"));
        return new Sheet("DRAWING", List.of(), false, said, new Drawn(svg, scene.layers(), scene.notDrawn(), ""));
    }

    private static Sheet text(StoredContent content, ReadDocument read) throws IOException {
        byte[] bytes = bytes(content, read, Math.min(content.size(), TEXT));
        String text = new String(bytes, StandardCharsets.UTF_8).replace("\uFFFD", "·");
        return new Sheet("TEXT", text.lines().limit(600).toList(), content.size() > TEXT, Map.of(), Drawn.NOTHING);
    }

    private static byte[] bytes(StoredContent content, ReadDocument read, long size) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream((int) size);
        read.send(content, 0, size, out);
        return out.toByteArray();
    }
}
