package mintshelf.app.store.content;

import java.util.Optional;
import mintshelf.core.base.ContentHash;
import mintshelf.core.content.ContentKind;

/**
 * Bytes on their way in.
 *
 * @param received how many bytes are kept; the sender goes on from there
 * @param hash of the whole, once all bytes are there
 */
public record Upload(
        long id,
        String token,
        long person,
        long content,
        String fileName,
        long size,
        long received,
        State state,
        Optional<ContentHash> hash,
        Optional<ContentKind> kind) {
    /** As it is once all bytes are there. */
    public Upload complete(ContentHash whole, ContentKind what) {
        return new Upload(
                id,
                token,
                person,
                content,
                fileName,
                size,
                size,
                State.COMPLETE,
                Optional.of(whole),
                Optional.of(what));
    }

    /** How far an upload is. */
    public enum State {
        RECEIVING,
        COMPLETE,
        USED,
        DROPPED
    }
}
