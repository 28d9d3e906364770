package mintshelf.app.sight;

import java.util.Optional;
import java.util.function.Supplier;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.Spine;
import mintshelf.core.document.FileName;

/**
 * A file of an archive: its path in it, with slashes, and its bytes.
 *
 * @param made when it is its turn, in the place of the content
 * @param drawn whether it is another form of the content: without it, where it cannot be made; else the content goes as it is
 */
public record Packed(String path, StoredContent content, Optional<Supplier<Optional<byte[]>>> made, boolean drawn) {
    public Packed(String path, StoredContent content) {
        this(path, content, Optional.empty(), false);
    }

    /** The folders of a document from its shelf down, with slashes: where it lies on a desk. */
    public static String folders(Spine spine) {
        StringBuilder path = new StringBuilder();
        for (int i = spine.path().size() - 1; i >= 0; i--) {
            path.append(FileName.of(spine.path().get(i).name()).name()).append('/');
        }
        return path.toString();
    }
}
