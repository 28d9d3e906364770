package mintshelf.app.ground;

import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import mintshelf.app.setup.Settings;
import org.springframework.stereotype.Component;

/**
 * One budget of memory for drawings that are being read and scenes in the making, in bytes. Some readers at once have a small share
 * each, one at a time may go beyond it; who comes later waits, for a bounded time. Nobody waits while holding more than a small share,
 * so that no two wait for each other.
 *
 * <p>What is taken on a thread is held until its request, or its portion of a run, ends. Threads that opened no account, those of
 * tests, have no limit.
 */
@Component
public class ReadingRoom {
    /** Who reads with a small share at once. */
    private static final int READERS = 6;
    /** Parts of the heap: of all small shares together, and of the one reader beyond. */
    private static final double SMALL = 0.15;

    private static final double LARGE = 0.35;

    private final long small;
    private final long large;
    private final long waitMillis;
    private final Semaphore readers = new Semaphore(READERS, true);
    private final Semaphore beyond = new Semaphore(1, true);
    private static final ThreadLocal<Account> NOW = new ThreadLocal<>();

    private static final class Account {
        private long used;
        private boolean reads;
        private boolean goesBeyond;
        private boolean soon;
    }

    /** It is to be made later: a page does not wait for it. */
    private static final class Later extends RuntimeException {
        Later() {
            super("", null, false, false);
        }
    }

    public ReadingRoom(Settings settings) {
        long heap = settings.readingMemory() > 0
                ? settings.readingMemory()
                : Runtime.getRuntime().maxMemory();
        this.small = (long) (heap * SMALL / READERS);
        this.large = (long) (heap * LARGE);
        this.waitMillis = 12_000;
    }

    /** The most that one drawing may take, in bytes. */
    public long most() {
        return large;
    }

    /** Opens an account for this thread; what is taken from now on is held until {@link #close}. */
    public void open() {
        NOW.set(new Account());
    }

    public void close() {
        Account account = NOW.get();
        NOW.remove();
        if (account == null) return;
        if (account.goesBeyond) beyond.release();
        if (account.reads) readers.release();
    }

    /** Work of a run: what it takes is given back when it ends. Within an account it is part of it. */
    public <T> T within(Supplier<T> work) {
        if (NOW.get() != null) return apart(work);
        open();
        try {
            return work.get();
        } finally {
            close();
        }
    }

    /** One of many things that are read one after the other: what it took is let go when it ends. */
    public <T> T apart(Supplier<T> work) {
        Account account = NOW.get();
        if (account == null) return work.get();
        long before = account.used;
        try {
            return work.get();
        } finally {
            account.used = before;
            if (account.goesBeyond && before <= small) {
                account.goesBeyond = false;
                beyond.release();
            }
        }
    }

    /** What can be read at once, with a small share; {@code otherwise} where it takes more or others are reading. No page waits. */
    public <T> T soon(Supplier<T> work, T otherwise) {
        Account account = NOW.get();
        if (account == null) return work.get();
        boolean before = account.soon;
        long used = account.used;
        account.soon = true;
        try {
            return work.get();
        } catch (Later e) {
            account.used = used;
            return otherwise;
        } finally {
            account.soon = before;
        }
    }

    /**
     * Takes room for that many bytes more.
     *
     * @return false when that is more than there ever is
     * @throws Refused when others read for too long: "room.busy"
     */
    public boolean takes(long bytes) {
        Account account = NOW.get();
        if (account == null) return true;
        if (!account.reads) account.reads = enter(account, readers);
        if (account.used + bytes > small && !account.goesBeyond) {
            if (account.used + bytes > large) return false;
            account.goesBeyond = enter(account, beyond);
        }
        if (account.used + bytes > large) return false;
        account.used += bytes;
        return true;
    }

    private boolean enter(Account account, Semaphore door) {
        if (account.soon) {
            if (door == beyond || !door.tryAcquire()) throw new Later();
            return true;
        }
        try {
            if (door.tryAcquire(waitMillis, TimeUnit.MILLISECONDS)) return true;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        throw Refused.because(
                "room.busy", "Many large drawings are being read at this moment.", "Try again in a little while.");
    }
}
