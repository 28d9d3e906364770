package mintshelf.app.use.structure;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.structure.BomLineStore;
import mintshelf.app.store.structure.BomLineStore.Kept;
import mintshelf.app.store.structure.Reference;
import mintshelf.app.store.structure.ReferenceStore;
import mintshelf.core.document.Head;
import mintshelf.core.document.Revision;
import mintshelf.core.reference.Written;
import mintshelf.core.structure.StructureView;

/** The lines that are kept of the revisions of versions, read level by level as they are met. */
final class HandLines {
    private final VersionStore versions;
    private final BomLineStore lines;
    private final ReferenceStore references;
    private final Map<Long, Long> revisionOf = new HashMap<>();
    private final Map<Long, List<Kept>> kept = new HashMap<>();
    private final IdentityHashMap<Reference, String> variants = new IdentityHashMap<>();
    private final Map<Long, Seen> seen;
    private final StructureView view;
    private final long top;

    HandLines(
            VersionStore versions,
            BomLineStore lines,
            ReferenceStore references,
            Map<Long, Seen> seen,
            StructureView view,
            long top) {
        this.versions = versions;
        this.lines = lines;
        this.references = references;
        this.seen = seen;
        this.view = view;
        this.top = top;
    }

    /**
     * The revisions of latest versions, without asking for them. A revision that has begun has the version of the one before
     * until something is checked in: what people write of it is read with that version, by who sees it.
     */
    private Map<Long, Long> heads() {
        Map<Long, Long> heads = new HashMap<>();
        for (Seen one : seen.values()) {
            Head head = one.document().head();
            boolean begun = one.all()
                    && (view == StructureView.LATEST || (view == StructureView.AS_SAVED && head.version() == top));
            heads.put(
                    head.version(), begun ? one.pending().map(Revision::id).orElse(head.revision()) : head.revision());
        }
        return heads;
    }

    /** The revisions of all versions that were met. */
    Set<Long> revisions() {
        return new HashSet<>(revisionOf.values());
    }

    long revision(long version) {
        return revisionOf.getOrDefault(version, 0L);
    }

    List<Kept> of(long version) {
        return kept.getOrDefault(revision(version), List.of());
    }

    void meet(Collection<Long> ids) {
        Set<Long> unknown = new HashSet<>(ids);
        unknown.removeAll(revisionOf.keySet());
        if (unknown.isEmpty()) return;
        Map<Long, Long> heads = heads();
        heads.keySet().retainAll(unknown);
        unknown.removeAll(heads.keySet());
        Map<Long, Long> met = versions.revisionsOf(unknown);
        met.putAll(heads);
        revisionOf.putAll(met);
        Set<Long> fresh = new HashSet<>(met.values());
        fresh.removeAll(kept.keySet());
        kept.putAll(lines.of(fresh));
    }

    /** Documents that are named by hand, as references that no file has: their places are below 0. */
    Map<Long, List<Reference>> beside(Collection<Long> ids) {
        meet(ids);
        Set<Long> items = new HashSet<>();
        ids.forEach(id -> named(id).forEach(k -> k.component().ifPresent(items::add)));
        Map<Long, Reference.Component> heads = items.isEmpty() ? Map.of() : references.heads(items);
        Map<Long, List<Reference>> beside = new HashMap<>();
        for (long id : ids) {
            for (Kept one : named(id)) {
                Reference.Component head = heads.get(one.component().orElse(0L));
                if (head == null) continue;
                Reference named = new Reference(
                        -one.seq(),
                        new Written(Written.Role.COMPONENT, one.find(), 1),
                        Reference.State.FOUND,
                        Optional.of(head));
                variants.put(named, one.variant());
                beside.computeIfAbsent(id, i -> new ArrayList<>()).add(named);
            }
        }
        return beside;
    }

    /** The variant that a document is named by hand as; empty for the document itself. */
    String variant(Reference byHand) {
        return variants.getOrDefault(byHand, "");
    }

    private List<Kept> named(long version) {
        return of(version).stream()
                .filter(k -> !k.ofFile() && k.component().isPresent())
                .toList();
    }
}
