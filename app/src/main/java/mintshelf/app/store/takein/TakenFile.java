package mintshelf.app.store.takein;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.core.content.ContentKind;
import mintshelf.core.reference.Written;
import mintshelf.core.takein.Column;
import mintshelf.core.takein.Found;
import mintshelf.core.takein.Taking;

/**
 * A file of a taking-in.
 *
 * @param raw its path as it came, {@code path} made safe
 * @param upload its bytes; none for an empty file
 * @param content its SHA-256 in hexadecimal digits, once it was read
 * @param taking what becomes of it; none before the dry run
 * @param trouble why it was not filed when it was its turn
 * @param item the document that was made of it, and {@code version} its version
 */
public record TakenFile(
        int at,
        String raw,
        String path,
        Optional<Long> upload,
        String unread,
        long size,
        String content,
        ContentKind kind,
        Map<String, String> says,
        List<Written> refersTo,
        Map<Column, String> mended,
        Optional<Taking> taking,
        String trouble,
        Optional<Long> item,
        Optional<Long> version) {
    public Found found() {
        return new Found(
                at,
                path,
                raw,
                content,
                size,
                kind,
                says,
                refersTo.stream().map(Written::path).toList(),
                unread);
    }
}
