package mintshelf.core.takein;

import java.util.List;
import java.util.Map;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.FileName;

/**
 * A file as it was found, once it was read.
 *
 * @param at its place among the files, from 0
 * @param path its folders and its name, with slashes, made safe
 * @param raw as it came; differs from {@code path} where something in it no file system takes
 * @param content its SHA-256 in hexadecimal digits; empty for an empty file
 * @param says what its sheet or model says of itself, by fact ("number", "title", "revision", "material" …)
 * @param refersTo the paths of files that it names
 * @param unread why it could not be brought whole; mostly empty
 */
public record Found(
        int at,
        String path,
        String raw,
        String content,
        long size,
        ContentKind kind,
        Map<String, String> says,
        List<String> refersTo,
        String unread) {
    public FileName name() {
        return FileName.of(path);
    }

    /** The folders in which it lies, with slashes; empty at the top. */
    public String folder() {
        int end = path.lastIndexOf('/');
        return end < 0 ? "" : path.substring(0, end);
    }
}
