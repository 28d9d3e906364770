package mintshelf.app.effect;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.ContentInput;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.sight.StructureMirror;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore.Added;
import mintshelf.app.store.structure.Reference;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.content.ContentKind;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.hold.HoldRules;
import mintshelf.core.model.step.StepTakeOut;
import mintshelf.core.model.step.StepTexts.Called;
import mintshelf.core.reference.Resolution.Filed;
import mintshelf.core.reference.Rewrite;
import mintshelf.core.reference.SheetNames;
import mintshelf.core.reference.Written;
import mintshelf.core.reference.WrittenAnew;
import mintshelf.core.structure.StructureGraph;

/** Writes other names of what a file refers to into it, as its next version; every other byte stays, and both are read to prove it. */
@org.springframework.stereotype.Component
public class RewriteReferences {
    /** Bytes that a file may have to be rewritten here. */
    public static final long MOST_BYTES = 32L << 20;

    private final Sight sight;
    private final References references;
    private final NewVersions versions;
    private final ContentStore contents;
    private final KeepContent keep;
    private final ReadingRoom room;
    private final Recorder recorder;
    private final StructureMirror mirror;

    public RewriteReferences(
            Sight sight,
            References references,
            NewVersions versions,
            ContentStore contents,
            KeepContent keep,
            ReadingRoom room,
            Recorder recorder,
            StructureMirror mirror) {
        this.mirror = mirror;
        this.sight = sight;
        this.references = references;
        this.versions = versions;
        this.contents = contents;
        this.keep = keep;
        this.room = room;
        this.recorder = recorder;
    }

    /** Why a document's file cannot be rewritten now; nothing when it can. */
    public static Optional<Refusal> refusal(Actor actor, Seen seen) {
        return form(seen).or(() -> HoldRules.between(seen.document(), actor.access()));
    }

    /** Why a content cannot be written here, only by the program that it is of; nothing where it can. */
    public static Optional<Refusal> form(StoredContent content) {
        if (content.kind() != ContentKind.DXF && content.kind() != ContentKind.STEP) return Optional.of(FORM);
        return content.size() > MOST_BYTES ? Optional.of(LARGE) : Optional.empty();
    }

    /** The bytes of a content with other names in it, which are kept nowhere. */
    public Outcome<byte[]> packed(StoredContent content, Map<String, String> paths) {
        return room.apart(() -> content.kind() == ContentKind.DXF
                ? Rewrite.drawing(bytes(content), paths)
                : Rewrite.model(bytes(content), paths));
    }

    /** Why a document's file can be written only by the program that it is of; nothing where it can be written here. */
    public static Optional<Refusal> form(Seen seen) {
        StoredContent content = seen.spine().content();
        String number = seen.document().number();
        if (content.kind() != ContentKind.DXF && content.kind() != ContentKind.STEP) {
            return Optional.of(Refusal.of(
                    "rewrite.form",
                    "Only the program that wrote " + number + " can write names into its file.",
                    "Change the name there; until then the former one leads to the same document."));
        }
        if (content.size() > MOST_BYTES) {
            return Optional.of(Refusal.of(
                    "rewrite.large",
                    "The file of " + number + " is larger than " + Numbers.size(MOST_BYTES) + ".",
                    "Change the name in the program that wrote it."));
        }
        return Optional.empty();
    }

    /**
     * Names in files that are not those that their documents' files have now; of documents that the actor may see.
     *
     * @param parents whose latest versions are asked
     * @return by parent the names of now by those that are written; parents without any are left out
     */
    public Map<Long, Map<String, String>> former(Actor actor, Map<Long, Seen> parents) {
        Map<Long, Long> heads = new HashMap<>();
        parents.forEach((id, seen) -> {
            if (seen.all()) heads.put(seen.document().head().version(), id);
        });
        Map<Long, List<Reference>> all = references.of(heads.keySet());
        Set<Long> components = new HashSet<>();
        all.values().forEach(list -> list.forEach(r -> r.component().ifPresent(c -> components.add(c.item()))));
        components.retainAll(sight.of(actor, components).keySet());
        Set<Long> lie = new HashSet<>(components);
        lie.addAll(heads.values());
        Map<Long, Filed> filed = references.filed(lie);
        Map<Long, Map<String, String>> former = new LinkedHashMap<>();
        all.forEach((version, list) -> {
            long parent = heads.get(version);
            for (Reference r : list) {
                if (r.component().isEmpty()
                        || !components.contains(r.component().get().item())) continue;
                String path = r.written().path();
                WrittenAnew.path(
                                path,
                                filed.get(parent),
                                filed.get(r.component().get().item()))
                        .ifPresent(anew -> former.computeIfAbsent(parent, p -> new LinkedHashMap<>())
                                .put(path, anew));
            }
        });
        return former;
    }

    /** A document whose latest version names another one, with the path that stands there. */
    public record Naming(Seen parent, long component, String path) {}

    /** What names some documents in its latest version, as far as the actor sees both whole. */
    public List<Naming> naming(Actor actor, Collection<Long> items) {
        Set<Long> named = sight.of(actor, items).keySet();
        StructureGraph graph = mirror.now().graph();
        Set<Long> above = new HashSet<>();
        for (long id : named) for (long parent : graph.usedIn(id)) above.add(parent);
        return naming(actor, named, above);
    }

    /**
     * As {@link #naming(Actor, Collection)}; within a transaction too.
     *
     * @param above what stands above them, seen or not
     */
    public List<Naming> naming(Actor actor, Collection<Long> named, Collection<Long> above) {
        Map<Long, Seen> heads = new HashMap<>();
        sight.of(actor, above).values().stream()
                .filter(Seen::all)
                .forEach(s -> heads.put(s.document().head().version(), s));
        if (heads.isEmpty()) return List.of();
        return references.naming(heads.keySet(), named).stream()
                .map(n -> new Naming(heads.get(n.version()), n.component(), n.path()))
                .toList();
    }

    /** Documents whose files name some documents otherwise than these are called now, as far as the actor sees both. */
    public Set<Long> namingOtherwise(Actor actor, Collection<Long> items) {
        List<Naming> all = naming(actor, items);
        Set<Long> lie = new HashSet<>(items);
        all.forEach(n -> lie.add(n.parent().spine().id()));
        Map<Long, Filed> filed = all.isEmpty() ? Map.of() : references.filed(lie);
        return all.stream()
                .filter(n -> WrittenAnew.path(
                                n.path(), filed.get(n.parent().spine().id()), filed.get(n.component()))
                        .isPresent())
                .map(n -> n.parent().spine().id())
                .collect(Collectors.toCollection(TreeSet::new));
    }

    /**
     * Writes names into the file of a document; within the caller's transaction, under the document's lock, asked before.
     *
     * @param names new paths by those that are written
     * @return refused where the file itself does not let it: it is signed, or would not read as it should; then nothing was changed
     */
    public Outcome<Added> write(Actor actor, Seen seen, Map<String, String> names, String comment) {
        return write(
                actor,
                seen,
                bytes -> seen.spine().content().kind() == ContentKind.DXF
                        ? Rewrite.drawing(bytes, names)
                        : Rewrite.model(bytes, names),
                r -> new Reference(
                        r.seq(),
                        new Written(
                                r.written().role(),
                                names.getOrDefault(
                                        r.written().path(), r.written().path()),
                                r.written().quantity()),
                        r.state(),
                        r.component()),
                says(names),
                comment);
    }

    /**
     * Puts other documents in the place of those that a file refers to, or says; within the caller's transaction, under the document's
     * lock, asked before.
     *
     * @param paths how what comes in is written, by the paths that are written now; none where its sheet only says their numbers
     * @param comesIn what is meant from then on, by the documents that are meant now
     * @param called what stands in the file under a number, by that number
     * @param says what was done, in words
     */
    public Outcome<Added> exchange(
            Actor actor,
            Seen seen,
            Map<String, String> paths,
            Map<Long, Reference.Component> comesIn,
            Map<String, Called> called,
            String says,
            String comment) {
        return write(
                actor,
                seen,
                bytes -> exchanged(bytes, seen.spine().content().kind(), paths, called),
                r -> {
                    Reference.Component now =
                            r.component().map(c -> comesIn.get(c.item())).orElse(null);
                    if (now == null) return r;
                    String path = r.written().path();
                    return new Reference(
                            r.seq(),
                            new Written(
                                    r.written().role(),
                                    paths.getOrDefault(path, path),
                                    r.written().quantity()),
                            Reference.State.FOUND,
                            Optional.of(now));
                },
                says,
                comment);
    }

    /**
     * What is to be another one in the copy of a file.
     *
     * @param paths new ones by those that are written
     * @param out paths of what is left out
     * @param called what stands in it under a number
     * @param gone numbers of what is left out, which a sheet may say
     */
    public record Otherwise(Map<String, String> paths, Set<String> out, Map<String, Called> called, Set<String> gone) {}

    /**
     * A copy's content.
     *
     * @param paths whether all paths are written, and {@code out} whether all that is left out is
     * @param left what could not be written and why, in sentences
     */
    public record Copied(StoredContent content, boolean paths, boolean out, List<Refusal> left) {}

    /** The content of a copy: as much of it as the file lets itself be written, with what is left. Nothing is made of it yet. */
    public Copied copied(StoredContent content, Otherwise otherwise) {
        Optional<Refusal> form = form(content);
        if (form.isPresent()) {
            boolean asked = !otherwise.paths().isEmpty() || !otherwise.out().isEmpty();
            return new Copied(content, !asked, !asked, asked ? List.of(form.get()) : List.of());
        }
        return room.apart(() -> {
            List<Refusal> left = new ArrayList<>();
            byte[] read = bytes(content);
            byte[] now = read;
            boolean out = otherwise.out().isEmpty();
            boolean paths = otherwise.paths().isEmpty();
            if (content.kind() == ContentKind.STEP) {
                Outcome<byte[]> without = out ? Outcome.granted(now) : StepTakeOut.without(now, otherwise.out());
                out = without instanceof Outcome.Granted;
                now = kept(without, now, left);
                Outcome<byte[]> model = Rewrite.model(now, otherwise.paths(), otherwise.called());
                paths |= model instanceof Outcome.Granted;
                now = kept(model, now, left);
            } else {
                if (!paths) {
                    Outcome<byte[]> drawing = Rewrite.drawing(now, otherwise.paths());
                    paths = drawing instanceof Outcome.Granted;
                    now = kept(drawing, now, left);
                }
                // A sheet need not say any number.
                if (DxfDrawing.read(now) instanceof Outcome.Granted<DxfDrawing> sheet) {
                    if (SheetNames.says(sheet.value(), otherwise.called().keySet()))
                        now = kept(SheetNames.exchange(now, otherwise.called()), now, left);
                    if (!out || SheetNames.says(sheet.value(), otherwise.gone())) left.add(STAYS_ON_SHEET);
                }
            }
            return new Copied(Arrays.equals(now, read) ? content : keep.keep(now), paths, out, left);
        });
    }

    private static byte[] kept(Outcome<byte[]> written, byte[] before, List<Refusal> left) {
        written.refusal().ifPresent(left::add);
        return written.toOptional().orElse(before);
    }

    private static final Refusal FORM = Refusal.of(
            "rewrite.form", "Only the program that wrote it can write names into its file.", "Write them there.");
    private static final Refusal LARGE = Refusal.of(
            "rewrite.large",
            "The file is larger than " + Numbers.size(MOST_BYTES) + ".",
            "Write the names in the program that wrote it.");
    private static final Refusal STAYS_ON_SHEET = Refusal.of(
            "rewrite.sheet", "What is left out is still on the sheet.", "Take it out in the program that drew it.");

    private static Outcome<byte[]> exchanged(
            byte[] bytes, ContentKind kind, Map<String, String> paths, Map<String, Called> called) {
        if (kind != ContentKind.DXF) return Rewrite.model(bytes, paths, called);
        Outcome<byte[]> written = paths.isEmpty() ? Outcome.granted(bytes) : Rewrite.drawing(bytes, paths);
        if (!(written instanceof Outcome.Granted<byte[]> drawing)) return written;
        // A sheet that shows the other one need not say its number, too.
        Outcome<byte[]> said = SheetNames.exchange(drawing.value(), called);
        return said instanceof Outcome.Granted<byte[]> || paths.isEmpty() ? said : written;
    }

    /**
     * Writes something else into a drawing, as its next version, which refers to what it did; within the caller's transaction, under the
     * document's lock, asked before.
     */
    public Outcome<Added> sheet(
            Actor actor, Seen seen, Function<byte[], Outcome<byte[]>> anew, String says, String comment) {
        return write(actor, seen, anew, UnaryOperator.identity(), says, comment);
    }

    private Outcome<Added> write(
            Actor actor,
            Seen seen,
            Function<byte[], Outcome<byte[]>> anew,
            UnaryOperator<Reference> means,
            String says,
            String comment) {
        StoredContent content = seen.spine().content();
        long head = seen.document().head().version();
        Outcome<StoredContent> kept =
                room.apart(() -> anew.apply(bytes(content)).map(keep::keep));
        if (!(kept instanceof Outcome.Granted<StoredContent> written))
            return Outcome.refused(kept.refusal().orElseThrow());
        Added added = versions.add(
                actor,
                seen.document(),
                new NewVersions.Made(
                        written.value(),
                        references.of(head).stream().map(means).toList(),
                        comment.isEmpty() ? says : comment,
                        VersionRow.MadeBy.REWRITTEN,
                        Optional.of(head),
                        Optional.empty(),
                        ""));
        recorder.note(actor, seen.document().id(), "version.added", added.number(), says, comment);
        return Outcome.granted(added);
    }

    private static String says(Map<String, String> names) {
        Map.Entry<String, String> first = names.entrySet().iterator().next();
        String says = "wrote " + first.getValue() + " in place of " + first.getKey() + " into its file";
        return names.size() == 1
                ? says
                : says + ", and " + Numbers.count(names.size() - 1, "other name", "other names");
    }

    private byte[] bytes(StoredContent content) {
        if (!room.takes(3 * content.size())) {
            // Not of the file: the run stops, and goes on when there is room.
            throw Refused.because(
                    "rewrite.memory",
                    "There is no room to rewrite a file of this size at this moment.",
                    "Try it again later; nothing was changed.");
        }
        try (ContentInput in = new ContentInput(contents, content.id(), content.size())) {
            return in.readAllBytes();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
