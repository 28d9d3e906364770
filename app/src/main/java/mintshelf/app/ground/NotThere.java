package mintshelf.app.ground;

/** What was asked for does not exist, or not for this person: the two are answered alike. */
public final class NotThere extends RuntimeException {
    public NotThere() {
        super("not there", null, false, false);
    }
}
