package mintshelf.app.store.search;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Function;
import mintshelf.core.access.Access;
import org.apache.lucene.store.AlreadyClosedException;
import org.apache.lucene.store.ByteBuffersDirectory;
import org.apache.lucene.store.FSDirectory;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * This node's index: kept up to date from the tail of the record, made anew while the old one serves. What it lacks is read on before a
 * question is answered, as far as that is little; it is never asked for what a document is, only for which one.
 */
public final class NodeIndex implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(NodeIndex.class);
    private static final int PORTION = 200;
    private static final int AT_ONCE = 1000;
    private static final long OVERLAP = 10_000;
    private static final Duration LONGEST = Duration.ofSeconds(2);

    private final IndexSource source;
    private final Optional<Path> folder;
    private final Clock clock;
    private final ReentrantLock making = new ReentrantLock();
    private final ReentrantLock feeding = new ReentrantLock();
    private final AtomicLong begun = new AtomicLong();
    private volatile long ended;
    private final CountDownLatch ready = new CountDownLatch(1);
    private volatile Optional<Serving> serving = Optional.empty();
    private volatile Optional<Progress> progress = Optional.empty();
    private volatile boolean closed;

    /** @param folder where it is kept; empty: in the memory of the process, for what is small */
    public NodeIndex(IndexSource source, Optional<Path> folder, Clock clock) {
        this.source = source;
        this.folder = folder;
        this.clock = clock;
    }

    /** @param due documents that moved and that the index has not taken yet: of what breaks off nothing is lost */
    private record Serving(SearchIndex index, Optional<Path> path, Tail recorded, Tail read, Set<Long> due) {
        Serving(SearchIndex index, Optional<Path> path, Tail recorded, Tail read) {
            this(index, path, recorded, read, new HashSet<>());
        }
    }

    /** How far one is that is being made. */
    public record Progress(long done, long of) {}

    /** How far the next one is; empty where none is being made. */
    public Optional<Progress> progress() {
        return progress;
    }

    /** Whether questions can be answered. */
    public boolean isReady() {
        return serving.isPresent();
    }

    /** How many entries it has. */
    public int size() {
        return answered(SearchIndex::size).orElse(0);
    }

    /**
     * Answers a question as things stand, or as they stood a moment ago where very much has moved since.
     *
     * @return empty while the first index is being made
     */
    public Optional<Ask.Answer> ask(Ask ask) {
        feedSome();
        return answered(index -> index.ask(ask));
    }

    /** Documents that have most of some traits in common, those with the most first; see {@link SearchIndex#alike}. */
    public List<Long> alike(Access access, List<String> traits, List<String> title, long except, int most) {
        feedSome();
        return answered(index -> index.alike(access, traits, title, except, most))
                .orElse(List.of());
    }

    /** Asks the index that serves; the next one where that was put away at this moment. */
    private <T> Optional<T> answered(Function<SearchIndex, T> question) {
        try {
            return serving.map(s -> question.apply(s.index()));
        } catch (AlreadyClosedException e) {
            return serving.map(s -> question.apply(s.index()));
        }
    }

    /** Reads on what was there when it was asked for, or waits for who does; not for long. */
    private void feedSome() {
        long before = begun.get();
        try {
            // Just started: a small index is there in a moment.
            if (serving.isEmpty() && !ready.await(LONGEST.toMillis(), TimeUnit.MILLISECONDS)) return;
            if (!feeding.tryLock(LONGEST.toMillis(), TimeUnit.MILLISECONDS)) return;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return;
        }
        try {
            // What began after this was asked for has read all that it is about.
            if (ended <= before) serving.ifPresent(this::feedIfMoved);
        } finally {
            feeding.unlock();
        }
    }

    /** How many hits each question has, as things stand; none while the first index is being made. Costs one look at what moved. */
    public List<Integer> counts(List<Ask> asks) {
        feedSome();
        return asks.stream()
                .map(a -> a.question().isEmpty()
                        ? 0
                        : answered(index -> index.count(a)).orElse(0))
                .toList();
    }

    /** Reads on all that has moved; makes the index where there is none. */
    public void catchUp() {
        if (serving.isEmpty()) {
            making.lock();
            try {
                if (serving.isEmpty() && !closed) open();
            } finally {
                making.unlock();
            }
        }
        boolean more = true;
        while (more) {
            feeding.lock();
            try {
                more = !closed && serving.map(this::feed).orElse(false);
                if (!more && !closed) serving.ifPresent(this::keep);
            } finally {
                feeding.unlock();
            }
        }
    }

    /** Makes it anew, from the database alone. The old one serves meanwhile. */
    public void rebuild() {
        making.lock();
        try {
            if (!closed) make();
        } finally {
            making.unlock();
        }
    }

    private void open() {
        if (folder.isPresent()) {
            try {
                Files.createDirectories(folder.get());
                Path latest = latest(folder.get());
                SearchIndex index = new SearchIndex(FSDirectory.open(latest), false);
                Map<String, String> kept = index.kept();
                long at = Long.parseLong(kept.getOrDefault("recorded", "0"));
                boolean ours = Fields.FORM.equals(kept.get("form"))
                        && at > 0
                        && source.mark(at).equals(Optional.ofNullable(kept.get("mark")));
                if (ours) {
                    index.refresh();
                    serve(new Serving(
                            index, Optional.of(latest), new Tail(at), new Tail(Long.parseLong(kept.get("read")))));
                    return;
                }
                index.close();
                delete(latest);
            } catch (IOException | RuntimeException e) {
                LOG.info("The index that was kept is not used: {}", e.toString());
            }
        }
        make();
    }

    private static Path latest(Path folder) throws IOException {
        try (var all = Files.list(folder)) {
            return all.filter(p -> p.getFileName().toString().matches("\\d+"))
                    .max((a, b) -> Long.compare(number(a), number(b)))
                    .orElse(folder.resolve("0"));
        }
    }

    private static long number(Path path) {
        return Long.parseLong(path.getFileName().toString());
    }

    private void make() {
        Instant begun = clock.instant();
        try {
            Optional<Path> path = fresh();
            SearchIndex index =
                    new SearchIndex(path.isPresent() ? FSDirectory.open(path.get()) : new ByteBuffersDirectory(), true);
            // What moves from now on is read on afterwards, with what is under way at this moment.
            Tail recorded = new Tail(Math.max(0, source.lastRecorded() - OVERLAP));
            Tail read = new Tail(Math.max(0, source.lastRead() - OVERLAP));
            long of = source.count();
            long done = 0;
            long after = 0;
            for (List<Long> items = source.items(after, PORTION);
                    !items.isEmpty();
                    items = source.items(after, PORTION)) {
                if (closed) {
                    index.close();
                    path.ifPresent(NodeIndex::delete);
                    return;
                }
                progress = Optional.of(new Progress(done, of));
                index.put(items, source.entries(items));
                after = items.get(items.size() - 1);
                done += items.size();
            }
            index.refresh();
            serve(new Serving(index, path, recorded, read));
            if (done > PORTION) LOG.info("The index of {} documents was made since {}", done, begun);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } finally {
            progress = Optional.empty();
        }
    }

    private Optional<Path> fresh() throws IOException {
        if (folder.isEmpty()) return Optional.empty();
        Files.createDirectories(folder.get());
        return Optional.of(folder.get().resolve(Long.toString(number(latest(folder.get())) + 1)));
    }

    private void serve(Serving next) throws IOException {
        feeding.lock();
        try {
            Optional<Serving> before = serving;
            serving = Optional.of(next);
            ready.countDown();
            keep(next);
            if (before.isPresent()) {
                before.get().index().close();
                before.get().path().ifPresent(NodeIndex::delete);
            }
        } finally {
            feeding.unlock();
        }
    }

    private final Tail.Rows recorded = new Tail.Rows() {
        @Override
        public List<IndexSource.Moved> after(long place, int most) {
            return source.recorded(place, most);
        }

        @Override
        public List<IndexSource.Moved> at(Collection<Long> places) {
            return source.recorded(places);
        }
    };

    private final Tail.Rows read = new Tail.Rows() {
        @Override
        public List<IndexSource.Moved> after(long place, int most) {
            return source.read(place, most);
        }

        @Override
        public List<IndexSource.Moved> at(Collection<Long> places) {
            return source.read(places);
        }
    };

    /** One small question tells whether there is anything to read on. */
    private void feedIfMoved(Serving s) {
        if (!s.due().isEmpty()
                || s.recorded().waits()
                || s.read().waits()
                || source.isBehind(s.recorded().at(), s.read().at())) feed(s);
        else ended = begun.incrementAndGet();
    }

    /** Reads on some; whether something was there. */
    private boolean feed(Serving s) {
        long mine = begun.incrementAndGet();
        boolean some = readOn(s);
        ended = mine;
        return some;
    }

    private boolean readOn(Serving s) {
        Instant now = clock.instant();
        s.recorded().next(recorded, AT_ONCE, now, s.due());
        s.read().next(read, AT_ONCE, now, s.due());
        if (s.due().isEmpty()) return false;
        List<Long> items = new ArrayList<>(s.due());
        for (int from = 0; from < items.size(); from += PORTION) {
            List<Long> some = items.subList(from, Math.min(items.size(), from + PORTION));
            s.index().put(some, source.entries(some));
            some.forEach(s.due()::remove);
        }
        s.index().refresh();
        return true;
    }

    private void keep(Serving s) {
        if (folder.isEmpty()) return;
        long at = s.recorded().safe();
        Map<String, String> data = new HashMap<>();
        data.put("form", Fields.FORM);
        data.put("recorded", Long.toString(at));
        data.put("read", Long.toString(s.read().safe()));
        source.mark(at).ifPresent(mark -> data.put("mark", mark));
        if (!data.equals(s.index().kept())) s.index().keep(data);
    }

    private static void delete(Path path) {
        if (!Files.exists(path)) return;
        try (var all = Files.list(path)) {
            for (Path file : all.toList()) Files.deleteIfExists(file);
            Files.deleteIfExists(path);
        } catch (IOException e) {
            LOG.info("An old index was not deleted: {}", e.toString());
        }
    }

    @Override
    public void close() {
        feeding.lock();
        try {
            closed = true;
            if (serving.isEmpty()) return;
            Serving last = serving.get();
            serving = Optional.empty();
            last.index().close();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } finally {
            feeding.unlock();
        }
    }
}
