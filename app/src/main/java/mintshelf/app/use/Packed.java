package mintshelf.app.use;

import java.util.regex.Pattern;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.Spine;

/** A file of an archive: its path in it, with slashes, and its bytes. */
public record Packed(String path, StoredContent content) {
    private static final Pattern NOT_IN_PATHS = Pattern.compile("[/\\\\:*?\"<>|]");

    /** The folders of a document from its shelf down, with slashes: where it lies on a desk. */
    public static String folders(Spine spine) {
        StringBuilder path = new StringBuilder();
        for (int i = spine.path().size() - 1; i >= 0; i--) {
            path.append(NOT_IN_PATHS.matcher(spine.path().get(i).name()).replaceAll("_"))
                    .append('/');
        }
        return path.toString();
    }
}
