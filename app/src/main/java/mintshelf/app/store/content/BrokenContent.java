package mintshelf.app.store.content;

/** Stored bytes that are not the ones that were stored. Nothing of them is sent on. */
public final class BrokenContent extends RuntimeException {
    public BrokenContent(String message) {
        super(message);
    }
}
