package mintshelf.app.effect;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.sight.ContentInput;
import mintshelf.app.sight.FileFacts;
import mintshelf.app.sight.Sheets;
import mintshelf.app.sight.Trials;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.document.Spine;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.structure.FiledStore;
import mintshelf.app.store.structure.Reference;
import mintshelf.app.store.structure.Reference.Component;
import mintshelf.app.store.structure.Reference.State;
import mintshelf.app.store.structure.ReferenceStore;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.FileName;
import mintshelf.core.model.step.StepModel;
import mintshelf.core.model.step.StepReader;
import mintshelf.core.reference.Resolution;
import mintshelf.core.reference.Resolution.Filed;
import mintshelf.core.reference.Written;
import mintshelf.core.structure.StructureGraph;

/** What contents refer to: read from their bytes, looked up on the shelves, kept with the version that is made of them. */
@org.springframework.stereotype.Component
public class References {
    private final ContentStore contents;
    private final Sheets sheets;
    private final FileFacts said;
    private final ReadingRoom room;
    private final ReferenceStore store;
    private final SpineStore spines;
    private final FiledStore filed;
    private final Trials trials;

    public References(
            ContentStore contents,
            Sheets sheets,
            FileFacts said,
            ReadingRoom room,
            ReferenceStore store,
            SpineStore spines,
            FiledStore filed,
            Trials trials) {
        this.trials = trials;
        this.filed = filed;
        this.said = said;
        this.contents = contents;
        this.sheets = sheets;
        this.room = room;
        this.store = store;
        this.spines = spines;
    }

    /**
     * What a complete upload refers to. Reads it all, so before the transaction that takes it. What cannot be read refers to
     * nothing.
     */
    public List<Written> read(Upload upload) {
        return read(upload.content(), upload.size(), upload.kind().orElse(ContentKind.OTHER));
    }

    public List<Written> read(StoredContent content) {
        return read(content.id(), content.size(), content.kind());
    }

    private List<Written> read(long content, long size, ContentKind kind) {
        try {
            if (kind == ContentKind.DXF) {
                StoredContent file = new StoredContent(content, ContentHash.compute(new byte[0]), size, kind);
                return room.apart(() -> sheets.opened(file).map(Written::of).orElse(List.of()));
            }
            if (kind == ContentKind.STEP) {
                Outcome<StepModel> model = StepReader.read(new ContentInput(contents, content, size));
                if (!(model instanceof Outcome.Granted<StepModel> read)) return List.of();
                said.keep(content, read.value());
                return Written.of(read.value());
            }
            return List.of();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Documents in the order in which what stands in others comes before them, by what their versions refer to. */
    public static List<Long> componentsFirst(Map<Long, List<Reference>> refersTo) {
        List<StructureGraph.Use> uses = new ArrayList<>();
        refersTo.forEach((item, all) -> all.forEach(r -> r.component()
                .ifPresent(c -> uses.add(
                        new StructureGraph.Use(item, c.item(), r.written().quantity(), c.substance())))));
        long[] items = refersTo.keySet().stream().mapToLong(i -> i).sorted().toArray();
        // What is in no structure has nothing before it.
        Set<Long> inside = new LinkedHashSet<>();
        for (long item : StructureGraph.of(uses).upwards(items)) if (refersTo.containsKey(item)) inside.add(item);
        List<Long> order = new ArrayList<>();
        for (long item : items) if (!inside.contains(item)) order.add(item);
        order.addAll(inside);
        return order;
    }

    /** The digest of each captured component by path, for the digest of the version. */
    public static Map<String, ContentHash> digests(Collection<Reference> references) {
        Map<String, ContentHash> digests = new HashMap<>();
        references.forEach(
                r -> r.component().ifPresent(c -> digests.put(r.written().path(), c.digest())));
        return digests;
    }

    /**
     * Looks up what a document's new content refers to; within the caller's transaction, under the document's lock.
     *
     * @param former version before, whose picks are remembered; empty for the first one
     * @param worked ids of the versions of components that the author worked with, by document; else the latest is assumed
     * @return refused when the document would contain itself, with the ring spelled out
     */
    public Outcome<List<Reference>> resolve(
            long document, List<Written> written, Optional<Long> former, Map<Long, Long> worked) {
        return resolve(document, written, former, worked, Optional.empty());
    }

    /** As {@link #resolve(long, List, Optional, Map)}, on the line of a trial: what else it tries stands in the place of its original. */
    public Outcome<List<Reference>> resolve(
            long document, List<Written> written, Optional<Long> former, Map<Long, Long> worked, Optional<Long> trial) {
        if (written.isEmpty()) return Outcome.granted(List.of());
        Filed parent = filed.filed(document);
        Map<String, Long> picked = new HashMap<>();
        former.map(store::of)
                .orElse(List.of())
                .forEach(
                        r -> r.component().ifPresent(c -> picked.put(r.written().path(), c.item())));
        Map<String, List<Filed>> named = named(written);
        List<Resolution> meant = written.stream()
                .map(w -> Resolution.of(
                        w.path(),
                        parent,
                        named.getOrDefault(FileName.of(w.path()).key(), List.of()),
                        Optional.ofNullable(picked.get(w.path()))))
                .toList();
        Set<Long> components = new HashSet<>();
        for (Resolution r : meant) if (r instanceof Resolution.Found found) components.add(found.document());
        Optional<Refusal> ring = ring(document, components, new HashSet<>(picked.values()));
        if (ring.isPresent()) return Outcome.refused(ring.get());
        Map<Long, Component> captured = new HashMap<>(store.heads(components));
        Map<Long, Long> known = new HashMap<>(trial.map(trials::heads).orElse(Map.of()));
        known.putAll(worked);
        known.keySet().retainAll(components);
        if (!known.isEmpty())
            captured.putAll(trial.map(t -> store.worked(known, t)).orElseGet(() -> store.worked(known)));
        List<Reference> references = new ArrayList<>();
        for (int i = 0; i < written.size(); i++) {
            references.add(reference(i + 1, written.get(i), meant.get(i), captured));
        }
        return Outcome.granted(references);
    }

    /** By the names that files have; of a name that none has, by those that they had. */
    private Map<String, List<Filed>> named(List<Written> written) {
        Set<String> keys =
                written.stream().map(w -> FileName.of(w.path()).key()).collect(Collectors.toSet());
        Map<String, List<Filed>> named = filed.named(keys);
        keys.removeAll(named.keySet());
        if (!keys.isEmpty()) named.putAll(filed.formerlyNamed(keys));
        return named;
    }

    private static Reference reference(int seq, Written written, Resolution meant, Map<Long, Component> captured) {
        if (meant instanceof Resolution.Found found) {
            return new Reference(seq, written, State.FOUND, Optional.of(captured.get(found.document())));
        }
        State state = meant instanceof Resolution.Missing ? State.MISSING : State.AMBIGUOUS;
        return new Reference(seq, written, state, Optional.empty());
    }

    /** The ring that a reference which was not there before would close. */
    private Optional<Refusal> ring(long document, Set<Long> components, Set<Long> before) {
        List<Long> fresh =
                components.stream().filter(c -> !before.contains(c)).sorted().toList();
        if (fresh.isEmpty()) return Optional.empty();
        store.closeGate();
        StructureGraph graph = StructureGraph.of(store.usesBelow(fresh));
        return fresh.stream()
                .map(c -> graph.cycle(document, c))
                .flatMap(Optional::stream)
                .findFirst()
                .map(this::refusal);
    }

    private Refusal refusal(List<Long> ring) {
        Map<Long, Spine> spines = this.spines.spines(ring);
        List<String> numbers =
                ring.stream().map(id -> spines.get(id).document().number()).toList();
        return Refusal.of(
                "reference.ring",
                numbers.get(0) + " would stand in itself: " + String.join(" › ", numbers) + ".",
                "Take one of these references out of its file.");
    }

    /** What the references of versions are when their components' latest versions are captured anew; one statement. */
    public Map<Long, List<Reference>> takenUp(Map<Long, List<Reference>> references) {
        Map<Long, Component> heads = store.heads(references.values().stream()
                .flatMap(List::stream)
                .flatMap(r -> r.component().stream())
                .map(Component::item)
                .distinct()
                .toList());
        Map<Long, List<Reference>> taken = new HashMap<>();
        references.forEach((version, all) ->
                taken.put(version, all.stream().map(r -> takenUp(r, heads)).toList()));
        return taken;
    }

    /** As {@link #takenUp(Map)}, of one version. */
    public List<Reference> takenUp(List<Reference> references) {
        return takenUp(Map.of(0L, references)).get(0L);
    }

    private static Reference takenUp(Reference reference, Map<Long, Component> heads) {
        return new Reference(
                reference.seq(),
                reference.written(),
                reference.state(),
                reference
                        .component()
                        .map(c ->
                                heads.getOrDefault(c.item(), c).substance() > c.substance() ? heads.get(c.item()) : c));
    }

    /** What a version did that only takes up newer components, in words. */
    public static String tookUp(int components) {
        return "took up " + Numbers.count(components, "newer component", "newer components");
    }

    /** How many components of one list are captured at another version than in the other. */
    public static int moved(List<Reference> before, List<Reference> now) {
        Map<String, Integer> was = new HashMap<>();
        before.forEach(r -> r.component().ifPresent(c -> was.put(r.written().path(), c.substance())));
        return (int) now.stream()
                .filter(r -> r.component()
                        .filter(c -> !Optional.of(c.substance())
                                .equals(Optional.ofNullable(was.get(r.written().path()))))
                        .isPresent())
                .count();
    }

    /** What the latest versions of documents refer to. */
    public List<StructureGraph.Use> usesOf(Collection<Long> items) {
        return store.headUses(items);
    }

    /**
     * A structure with the lines that people wrote into BOMs, as far as they lead to what stands above some documents: each step up is a statement for
     * each few hundred of them.
     */
    public StructureGraph withLines(StructureGraph files, Collection<Long> from) {
        StructureGraph graph = files;
        Set<Long> asked = new HashSet<>();
        Set<Long> next = new HashSet<>(from);
        while (!next.isEmpty()) {
            for (long above : graph.whereUsed(next.stream().mapToLong(i -> i).toArray())) next.add(above);
            next.removeAll(asked);
            asked.addAll(next);
            List<StructureGraph.Use> written = store.usersByHand(next);
            Set<Long> parents = written.stream().map(StructureGraph.Use::parent).collect(Collectors.toSet());
            if (!parents.isEmpty()) {
                Map<Long, Map<Long, StructureGraph.Use>> all = new HashMap<>();
                for (long parent : parents) {
                    Map<Long, StructureGraph.Use> mine = new HashMap<>();
                    graph.usesOf(parent).forEach(u -> mine.put(u.component(), u));
                    all.put(parent, mine);
                }
                // What the file refers to as well is there already.
                written.forEach(u ->
                        Optional.ofNullable(all.get(u.parent())).ifPresent(mine -> mine.putIfAbsent(u.component(), u)));
                graph = graph.with(
                        parents,
                        all.values().stream().flatMap(m -> m.values().stream()).toList());
            }
            next = new HashSet<>(parents);
            next.removeAll(asked);
        }
        return graph;
    }

    /** The latest versions of documents, ready to be captured. */
    public Map<Long, Component> heads(Collection<Long> items) {
        return store.heads(items);
    }

    /** Versions of documents, ready to be captured: by document, of the ids of versions by document. */
    public Map<Long, Reference.Component> versions(Map<Long, Long> versions) {
        return versions.isEmpty() ? Map.of() : store.worked(versions);
    }

    /** What stands below documents, down to the last. */
    public StructureGraph below(Collection<Long> items) {
        return StructureGraph.of(store.usesBelow(items));
    }

    /** Nobody makes a document stand in another one until the caller's transaction ends. */
    public void closeGate() {
        store.closeGate();
    }

    /** What documents stand in by its latest version, by document; seen or not. */
    public Map<Long, Set<Long>> users(Collection<Long> items) {
        Map<Long, Set<Long>> users = new HashMap<>();
        store.headUsers(items)
                .forEach(u -> users.computeIfAbsent(u.component(), c -> new HashSet<>())
                        .add(u.parent()));
        return users;
    }

    /** As {@link #users}, by the version that is in force. */
    public Map<Long, Set<Long>> usersInForce(Collection<Long> items) {
        Map<Long, Set<Long>> users = new HashMap<>();
        store.releasedUses(items)
                .forEach(u -> users.computeIfAbsent(u.component(), c -> new HashSet<>())
                        .add(u.parent()));
        return users;
    }

    /** Where files of versions name some documents. */
    public List<ReferenceStore.Naming> naming(Collection<Long> versions, Collection<Long> components) {
        return store.naming(versions, components);
    }

    /** Where documents with these file names lie, by the names' keys. */
    public Map<String, List<Filed>> lying(Collection<String> fileKeys) {
        return filed.named(fileKeys);
    }

    /** Where documents lie, by id. */
    public Map<Long, Filed> filed(Collection<Long> items) {
        return filed.filed(items);
    }

    /** What versions refer to, by version; one statement. */
    public Map<Long, List<Reference>> of(Collection<Long> versions) {
        return store.of(versions);
    }

    public List<Reference> of(long version) {
        return store.of(version);
    }

    /** Keeps the references of a version that was just made. */
    public void keep(long version, List<Reference> references) {
        store.keep(version, references);
    }
}
