package mintshelf.app.sight;

import java.time.Duration;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import mintshelf.app.store.structure.ReferenceStore;
import mintshelf.app.store.structure.StructureLogStore;
import mintshelf.app.store.structure.StructureLogStore.Entry;
import mintshelf.core.structure.StructureGraph;
import mintshelf.core.structure.StructureGraph.OutOfDate;
import mintshelf.core.structure.StructureGraph.Use;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/**
 * What consists of what in the latest versions, in memory on each node and kept up by the log of what moved: one small statement a
 * question. A million references take about 60 MB.
 *
 * <p>Entries of the log become visible when their transactions end, not in the order of their ids: those of the last minutes are
 * read again and again, each applied once.
 */
@Component
public class StructureMirror {
    /** Entries at once beyond which everything is read anew. */
    private static final int MOST_ENTRIES = 5000;
    /** Entries of the log go after two days; a mirror that nobody asked for half of that is read anew. */
    private static final long OLDEST_NANOS = Duration.ofHours(24).toNanos();

    private final ReferenceStore references;
    private final StructureLogStore log;

    private volatile Snapshot snapshot;
    private long settled;
    private final Set<Long> applied = new HashSet<>();
    private long askedAt;

    public StructureMirror(ReferenceStore references, StructureLogStore log) {
        this.references = references;
        this.log = log;
    }

    /** The structure at one moment. */
    public static final class Snapshot {
        private final StructureGraph graph;
        private final int[] latest;
        private final Supplier<Map<Long, Boolean>> outOfDate;

        private Snapshot(StructureGraph graph, int[] latest) {
            this.graph = graph;
            this.latest = latest;
            this.outOfDate = new Supplier<>() {
                private Map<Long, Boolean> known;

                @Override
                public synchronized Map<Long, Boolean> get() {
                    if (known == null) {
                        Map<Long, Boolean> found = new HashMap<>();
                        for (OutOfDate o : graph.outOfDate(latest)) found.put(o.document(), o.direct());
                        known = found;
                    }
                    return known;
                }
            };
        }

        public StructureGraph graph() {
            return graph;
        }

        /** Documents that are out of date: true where one of their own components is newer, false where only one further below. */
        public Map<Long, Boolean> outOfDate() {
            return outOfDate.get();
        }
    }

    /**
     * The structure as it is committed now. Never within a transaction, for that would put into memory what may never be
     * committed.
     */
    public Snapshot now() {
        if (TransactionSynchronizationManager.isActualTransactionActive()) {
            throw new IllegalStateException("the mirror is asked within a transaction");
        }
        Snapshot known = snapshot;
        if (known != null && System.nanoTime() - askedAt < OLDEST_NANOS) {
            List<Entry> entries = log.after(settled, MOST_ENTRIES);
            synchronized (this) {
                if (entries.stream().allMatch(e -> applied.contains(e.id()))) return snapshot;
            }
        }
        return refresh();
    }

    private synchronized Snapshot refresh() {
        boolean old = snapshot == null || System.nanoTime() - askedAt >= OLDEST_NANOS;
        askedAt = System.nanoTime();
        List<Entry> entries = old ? List.of() : log.after(settled, MOST_ENTRIES);
        if (old || entries.size() == MOST_ENTRIES) {
            load();
            return snapshot;
        }
        List<Entry> fresh =
                entries.stream().filter(e -> !applied.contains(e.id())).toList();
        if (!fresh.isEmpty()) {
            apply(fresh.stream().map(Entry::item).distinct().toList());
            fresh.forEach(e -> applied.add(e.id()));
        }
        entries.stream().filter(Entry::settled).mapToLong(Entry::id).max().ifPresent(id -> {
            settled = Math.max(settled, id);
            applied.removeIf(a -> a <= settled);
        });
        return snapshot;
    }

    private void load() {
        // The log first: what commits while the rest is read is applied once more.
        settled = log.settled();
        applied.clear();
        List<Entry> known = log.after(settled, Integer.MAX_VALUE);
        StructureGraph graph = StructureGraph.of(references.allHeadUses());
        Map<Long, Integer> latest = references.allLatest();
        snapshot = new Snapshot(graph, latest(graph, latest));
        known.forEach(e -> applied.add(e.id()));
    }

    private void apply(List<Long> moved) {
        StructureGraph graph = snapshot.graph;
        List<Use> uses = references.headUses(moved);
        Map<Long, Set<Use>> byParent = new HashMap<>();
        uses.forEach(
                u -> byParent.computeIfAbsent(u.parent(), p -> new HashSet<>()).add(u));
        List<Long> changed = moved.stream()
                .filter(m -> !new HashSet<>(graph.usesOf(m)).equals(byParent.getOrDefault(m, Set.of())))
                .toList();
        StructureGraph next = changed.isEmpty() ? graph : graph.with(changed, uses);
        long[] ids = next.documents();
        int[] latest = Arrays.copyOf(snapshot.latest, ids.length);
        if (next != graph) {
            long[] before = graph.documents();
            int[] moving = new int[ids.length];
            Set<Long> unknown = new HashSet<>();
            for (int i = 0, j = 0; i < ids.length; i++) {
                if (j < before.length && before[j] == ids[i]) moving[i] = snapshot.latest[j++];
                else unknown.add(ids[i]);
            }
            latest = moving;
            set(latest, ids, references.latest(unknown));
        }
        set(latest, ids, references.latest(moved));
        snapshot = new Snapshot(next, latest);
    }

    private static int[] latest(StructureGraph graph, Map<Long, Integer> known) {
        long[] ids = graph.documents();
        int[] latest = new int[ids.length];
        set(latest, ids, known);
        return latest;
    }

    private static void set(int[] latest, long[] ids, Map<Long, Integer> known) {
        known.forEach((id, number) -> {
            int at = Arrays.binarySearch(ids, id);
            if (at >= 0) latest[at] = number;
        });
    }
}
