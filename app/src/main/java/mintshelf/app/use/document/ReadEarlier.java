package mintshelf.app.use.document;

import java.util.List;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.EarlierStore;
import mintshelf.app.store.document.EarlierStore.Earlier;
import org.springframework.stereotype.Service;

/** The revisions of a document that were made before it came here, as the table on its sheet said them. */
@Service
public class ReadEarlier {
    private final EarlierStore earlier;

    public ReadEarlier(EarlierStore earlier) {
        this.earlier = earlier;
    }

    /** Those of which no file was taken in, the oldest first; each one was in force before the first that was. */
    public List<Earlier> of(Seen seen) {
        return earlier.of(seen.spine().id()).stream().filter(e -> !e.own()).toList();
    }
}
