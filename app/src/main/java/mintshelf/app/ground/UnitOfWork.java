package mintshelf.app.ground;

import java.util.concurrent.ThreadLocalRandom;
import java.util.function.Supplier;
import org.springframework.dao.TransientDataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * One use case in one transaction: whole or not at all. The database's own "try again" (deadlock, lock wait) repeats the whole
 * use case, a bounded number of times; no deadlock reaches a person.
 *
 * <p>Read committed: what is read after the lines are locked is what stands there now, not what stood there at the first read.
 * Every connection is opened so; to say it in each transaction would cost trips to the database.
 */
@Component
public class UnitOfWork {
    private static final int TRIES = 6;

    private final TransactionTemplate write;

    public UnitOfWork(PlatformTransactionManager transactions) {
        this.write = new TransactionTemplate(transactions);
    }

    /** Runs {@code work} in a transaction and gives its result. */
    public <T> T run(Supplier<T> work) {
        // Within another one it is a part of it: what the database wants tried again is tried again as a whole.
        if (TransactionSynchronizationManager.isActualTransactionActive()) return work.get();
        for (int attempt = 1; ; attempt++) {
            try {
                return write.execute(status -> work.get());
            } catch (TransientDataAccessException e) {
                if (attempt == TRIES) throw e;
                pause(attempt);
            }
        }
    }

    public void run(Runnable work) {
        run(() -> {
            work.run();
            return true;
        });
    }

    private static void pause(int attempt) {
        try {
            Thread.sleep(ThreadLocalRandom.current().nextLong(5, 20L << attempt));
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
