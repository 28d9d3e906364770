package mintshelf.app.store;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/**
 * Lines that an act writes one after the other and nobody reads before it ends: gathered, and written together as the last thing
 * of its transaction. An act over many documents then takes a few statements where it took some for each of them, and rows that
 * others wait for are locked for a shorter while. Outside a transaction each line is written at once.
 */
public final class AtCommit<T> {
    /** Lines in one statement. */
    private static final int AT_ONCE = 500;

    private final Consumer<List<T>> write;

    /** @param write writes lines of one transaction, in the order in which they were added; a few hundred at a time */
    public AtCommit(Consumer<List<T>> write) {
        this.write = write;
    }

    /** Keeps a line until the transaction ends. A transaction that is rolled back writes none. */
    @SuppressWarnings("unchecked") // what is bound under this key is always the list that was made here
    public void add(T line) {
        if (!TransactionSynchronizationManager.isSynchronizationActive()) {
            write.accept(List.of(line));
            return;
        }
        List<T> lines = (List<T>) TransactionSynchronizationManager.getResource(this);
        if (lines == null) {
            List<T> fresh = new ArrayList<>();
            TransactionSynchronizationManager.bindResource(this, fresh);
            TransactionSynchronizationManager.registerSynchronization(new TransactionSynchronization() {
                @Override
                public void beforeCommit(boolean readOnly) {
                    for (int from = 0; from < fresh.size(); from += AT_ONCE) {
                        write.accept(List.copyOf(fresh.subList(from, Math.min(fresh.size(), from + AT_ONCE))));
                    }
                }

                @Override
                public void afterCompletion(int status) {
                    TransactionSynchronizationManager.unbindResourceIfPossible(AtCommit.this);
                }
            });
            lines = fresh;
        }
        lines.add(line);
    }
}
