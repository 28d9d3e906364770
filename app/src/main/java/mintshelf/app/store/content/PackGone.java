package mintshelf.app.store.content;

import org.springframework.dao.ConcurrencyFailureException;

/** A pack that pieces were found in was let go before they were stored: they are to be laid anew. */
final class PackGone extends ConcurrencyFailureException {
    PackGone() {
        super("A pack was let go meanwhile");
    }
}
