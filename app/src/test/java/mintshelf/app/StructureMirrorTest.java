package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.StructureMirror;
import mintshelf.app.store.structure.ReferenceStore;
import mintshelf.app.store.structure.StructureLogStore;
import mintshelf.core.structure.StructureGraph.Use;
import mintshelf.database.schema.Tables;
import org.junit.jupiter.api.Test;

/** The law of the mirror: what was kept up by the log is what would be loaded anew, whatever was committed in which order. */
class StructureMirrorTest {
    private final Server server = Server.shared();
    private final UnitOfWork unit = server.bean(UnitOfWork.class);

    private StructureMirror fresh() {
        return new StructureMirror(server.bean(ReferenceStore.class), server.bean(StructureLogStore.class));
    }

    private Map<Long, Set<Use>> uses(StructureMirror.Snapshot snapshot, List<Long> items) {
        Map<Long, Set<Use>> uses = new HashMap<>();
        for (long item : items) uses.put(item, new HashSet<>(snapshot.graph().usesOf(item)));
        return uses;
    }

    private void same(StructureMirror kept, List<Long> items) {
        StructureMirror.Snapshot is = kept.now();
        StructureMirror.Snapshot wanted = fresh().now();
        assertThat(uses(is, items)).isEqualTo(uses(wanted, items));
        for (long item : items) {
            assertThat(sorted(is.graph().whereUsed(item)))
                    .isEqualTo(sorted(wanted.graph().whereUsed(item)));
            assertThat(is.outOfDate().get(item))
                    .as("out of date: " + item)
                    .isEqualTo(wanted.outOfDate().get(item));
        }
    }

    private static long[] sorted(long[] ids) {
        Arrays.sort(ids);
        return ids;
    }

    private List<Long> documents(int count) {
        long shelf = server.shelf();
        List<Long> items = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            items.add(server.file("priya", shelf, "mirror " + i + " " + shelf + ".txt", "m" + i + shelf, false));
        }
        return items;
    }

    /** Another list of components of a document, and its line in the log; components have larger places, so no ring closes. */
    private void move(List<Long> items, int parent, Random random) {
        long version = server.document(items.get(parent)).head().version();
        server.db()
                .deleteFrom(Tables.VERSION_REFERENCE)
                .where(Tables.VERSION_REFERENCE.VERSION.eq(version))
                .execute();
        for (int c = parent + 1; c < items.size(); c++) {
            if (random.nextInt(3) == 0) server.refer(version, items.get(c), "c" + c);
        }
        log(items.get(parent));
    }

    private void log(long item) {
        server.db()
                .insertInto(Tables.STRUCTURE_LOG)
                .set(Tables.STRUCTURE_LOG.ITEM, item)
                .execute();
    }

    @Test
    void whatIsKeptUpIsWhatIsLoadedAnewAfterAnySequence() {
        List<Long> items = documents(10);
        StructureMirror kept = fresh();
        kept.now();
        Random random = new Random(20);
        for (int step = 0; step < 40; step++) {
            int parent = random.nextInt(items.size() - 1);
            if (random.nextInt(4) == 0) {
                long item = items.get(1 + random.nextInt(items.size() - 1));
                server.checkOut("priya", item);
                server.checkIn("priya", item, "step " + step + " of " + item, false);
            } else {
                unit.run(() -> move(items, parent, random));
            }
            if (random.nextInt(3) == 0) same(kept, items);
        }
        same(kept, items);
    }

    @Test
    void whatIsRolledBackWasNever() {
        List<Long> items = documents(4);
        StructureMirror kept = fresh();
        Map<Long, Set<Use>> before = uses(kept.now(), items);
        assertThatThrownBy(() -> unit.run(() -> {
                    move(items, 0, new Random(1));
                    throw new IllegalStateException("no");
                }))
                .hasMessage("no");
        assertThat(uses(kept.now(), items)).isEqualTo(before);
        same(kept, items);
    }

    @Test
    void aLineWithASmallerNumberThatIsCommittedLaterIsNotMissed() throws Exception {
        List<Long> items = documents(5);
        StructureMirror kept = fresh();
        kept.now();
        CountDownLatch written = new CountDownLatch(1);
        CountDownLatch go = new CountDownLatch(1);
        Thread slow = new Thread(() -> unit.run(() -> {
            move(items, 0, new Random(2));
            written.countDown();
            try {
                assertThat(go.await(30, TimeUnit.SECONDS)).isTrue();
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        }));
        slow.start();
        assertThat(written.await(30, TimeUnit.SECONDS)).isTrue();
        unit.run(() -> move(items, 1, new Random(3)));
        same(kept, items);
        go.countDown();
        slow.join();
        same(kept, items);
    }

    @Test
    void manyWritersAndReadersAtOnceEndInTheSameStructure() throws Exception {
        List<Long> items = documents(8);
        StructureMirror kept = fresh();
        kept.now();
        List<Thread> threads = new ArrayList<>();
        List<Throwable> failed = new ArrayList<>();
        for (int t = 0; t < 4; t++) {
            int place = t;
            threads.add(new Thread(() -> {
                Random random = new Random(place);
                for (int i = 0; i < 12; i++) {
                    unit.run(() -> move(items, place, random));
                    kept.now();
                }
            }));
        }
        threads.forEach(t -> t.setUncaughtExceptionHandler((thread, e) -> {
            synchronized (failed) {
                failed.add(e);
            }
        }));
        threads.forEach(Thread::start);
        for (Thread thread : threads) thread.join();
        assertThat(failed).isEmpty();
        same(kept, items);
    }

    @Test
    void itIsNotAskedWithinATransaction() {
        StructureMirror kept = fresh();
        assertThatThrownBy(() -> unit.run(() -> kept.now())).hasMessageContaining("within a transaction");
    }
}
