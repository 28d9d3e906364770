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
import mintshelf.core.drawing.dxf.DxfTags;
import mintshelf.core.drawing.titleblock.SheetMap;

/**
 * What a page shows of a version's content.
 *
 * @param face PICTURE, TEXT, TITLE_BLOCK or CARD
 * @param lines of a text
 * @param cut whether the text goes on
 * @param said what a title block says
 */
public record Sheet(String face, List<String> lines, boolean cut, Map<String, String> said) {
    private static final int TEXT = 48 << 10;
    private static final long LARGEST_DRAWING = 16L << 20;

    static Sheet of(StoredContent content, ReadDocument read) throws IOException {
        if (content.kind().isPicture()) return new Sheet("PICTURE", List.of(), false, Map.of());
        if (content.kind() == ContentKind.TEXT) return text(content, read);
        if (content.kind() == ContentKind.DXF && content.size() <= LARGEST_DRAWING) {
            byte[] bytes = bytes(content, read, content.size());
            if (DxfTags.read(bytes) instanceof Outcome.Granted<DxfTags> tags) {
                return new Sheet(
                        "TITLE_BLOCK", List.of(), false, SheetMap.readyMade().read(tags.value()));
            }
        }
        return new Sheet("CARD", List.of(), false, Map.of());
    }

    private static Sheet text(StoredContent content, ReadDocument read) throws IOException {
        byte[] bytes = bytes(content, read, Math.min(content.size(), TEXT));
        String text = new String(bytes, StandardCharsets.UTF_8).replace("\uFFFD", "·");
        return new Sheet("TEXT", text.lines().limit(600).toList(), content.size() > TEXT, Map.of());
    }

    private static byte[] bytes(StoredContent content, ReadDocument read, long size) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream((int) size);
        read.send(content, 0, size, out);
        return out.toByteArray();
    }
}
