package mintshelf.app.sight;

import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.Spine;
import mintshelf.core.document.FileName;

/** A file of an archive: its path in it, with slashes, and its bytes. */
public record Packed(String path, StoredContent content) {
    /** The folders of a document from its shelf down, with slashes: where it lies on a desk. */
    public static String folders(Spine spine) {
        StringBuilder path = new StringBuilder();
        for (int i = spine.path().size() - 1; i >= 0; i--) {
            path.append(FileName.of(spine.path().get(i).name()).name()).append('/');
        }
        return path.toString();
    }
}
