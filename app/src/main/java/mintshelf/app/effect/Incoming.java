package mintshelf.app.effect;

import java.io.IOException;
import java.io.InputStream;
import java.time.Duration;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.content.Upload;

/** The way in for bytes that belong to a taking-in: not counted among what a person has under way, and kept longer. */
public interface Incoming {
    /** An upload that was opened. */
    record Opened(long id, String token) {}

    /**
     * Opens an upload.
     *
     * @param kept how long it waits to be used
     */
    Opened open(Actor actor, String fileName, long size, Duration kept);

    /** Takes bytes that come from the server itself, out of an archive: all of them, or an {@link IOException}. */
    Upload receive(Actor actor, Opened opened, InputStream bytes) throws IOException;
}
