package mintshelf.app.store.content;

/** Another sender of the same upload was faster; the bytes so far are at {@link #received}. */
public final class UploadMoved extends RuntimeException {
    private final long received;

    UploadMoved(long received) {
        super("The upload is at " + received);
        this.received = received;
    }

    public long received() {
        return received;
    }
}
