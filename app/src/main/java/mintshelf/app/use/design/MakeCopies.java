package mintshelf.app.use.design;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.effect.FreshCopy;
import mintshelf.app.effect.NewDocuments.Made;
import mintshelf.app.effect.References;
import mintshelf.app.effect.RewriteReferences;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.app.store.structure.Reference;
import mintshelf.app.use.design.DesignTree.Node;
import mintshelf.app.use.design.DesignTree.Row;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.FileName;
import mintshelf.core.model.step.StepTexts.Called;
import mintshelf.core.reference.Resolution.Filed;
import mintshelf.core.reference.Written;
import mintshelf.core.reference.WrittenAnew;
import mintshelf.core.reuse.Design.Becomes;
import mintshelf.core.reuse.Design.Verdict;
import org.springframework.stereotype.Component;

/** Makes the documents of a new design, one after the other, each with what it refers to; within the transaction of the act. */
@Component
class MakeCopies {
    private final FreshCopy copies;
    private final DesignFacts facts;
    private final RewriteReferences rewrite;
    private final References references;
    private final HouseStore house;
    private final ShelfStore shelves;
    private final Sight sight;

    MakeCopies(
            FreshCopy copies,
            DesignFacts facts,
            RewriteReferences rewrite,
            References references,
            HouseStore house,
            ShelfStore shelves,
            Sight sight) {
        this.copies = copies;
        this.facts = facts;
        this.rewrite = rewrite;
        this.references = references;
        this.house = house;
        this.shelves = shelves;
        this.sight = sight;
    }

    /**
     * A document that was made.
     *
     * @param left what of its file has to follow by hand
     */
    record Done(Outline.Copy copy, Made made, List<Refusal> left) {}

    /** Makes all of them. */
    List<Done> make(Actor actor, Wish.Design wish, Outline outline, Map<Long, Folder> folders) {
        Making making = new Making(actor, wish, outline, folders);
        List<Done> done = new ArrayList<>();
        for (Outline.Copy copy : outline.copies()) done.add(making.make(copy));
        return done;
    }

    private final class Making {
        private final Actor actor;
        private final Map<Long, Map<String, String>> said;
        private final Outline outline;
        private final Map<Long, Folder> folders;
        private final Map<Long, Kind> kinds = house.kinds().stream().collect(Collectors.toMap(Kind::id, k -> k));
        private final Map<Long, Made> made = new HashMap<>();
        private final Set<Long> fresh = new HashSet<>();
        private final Map<Long, Reference.Component> exchanged;
        private final Map<Long, Reference.Component> shared;
        private final Map<String, Called> called = new HashMap<>();
        private final Set<String> gone = new HashSet<>();
        private final Map<Long, Filed> lie;
        private final Map<Long, List<Folder>> up;
        private final Map<Long, Boolean> libraries = new HashMap<>();

        Making(Actor actor, Wish.Design wish, Outline outline, Map<Long, Folder> folders) {
            this.actor = actor;
            this.said = facts.said(wish, outline.copies());
            this.outline = outline;
            this.folders = folders;
            Map<Long, Long> versions = new HashMap<>();
            Set<Long> others = new HashSet<>();
            for (Row row : outline.tree().rows()) {
                outline.verdict(row).other().ifPresent(others::add);
                row.nodes().forEach(n -> versions.put(n.id(), n.version().id()));
            }
            exchanged = references.heads(others);
            shared = references.versions(versions);
            Set<Long> there = new HashSet<>(versions.keySet());
            there.addAll(others);
            lie = new HashMap<>(references.filed(there));
            up = shelves.pathsUp(
                    folders.values().stream().map(Folder::shelf).distinct().toList());
            shelves.shelves().forEach(s -> libraries.put(s.id(), s.library()));
            call(others);
        }

        /** What stands under a number in files, by the number. */
        private void call(Set<Long> others) {
            Map<Long, Seen> in = sight.of(actor, others);
            Map<Long, String> titles = new HashMap<>();
            outline.copies().forEach(c -> titles.putIfAbsent(c.from().id(), c.title()));
            for (Row row : outline.tree().rows()) {
                Verdict verdict = outline.verdict(row);
                Node main = row.main();
                if (verdict.becomes() == Becomes.LEFT_OUT) gone.add(main.number());
                if (verdict.isNew())
                    called.put(
                            main.number(),
                            new Called(verdict.number(), main.title(), titles.getOrDefault(main.id(), main.title())));
                verdict.other()
                        .flatMap(o -> Optional.ofNullable(in.get(o)))
                        .ifPresent(o -> called.put(
                                main.number(),
                                new Called(
                                        o.document().number(),
                                        main.title(),
                                        o.document().title())));
            }
        }

        /** What a reference of the former one means in the new one: a new document, another one, or the same. */
        private Optional<Long> target(Reference reference) {
            return reference.component().map(c -> {
                Made one = made.get(c.item());
                return one != null
                        ? one.item()
                        : verdict(c).flatMap(Verdict::other).orElse(c.item());
            });
        }

        private Optional<Verdict> verdict(Reference.Component component) {
            return Optional.ofNullable(outline.tree().thingOf().get(component.item()))
                    .flatMap(id -> Optional.ofNullable(outline.verdicts().get(id)));
        }

        private boolean isOut(Reference reference) {
            return reference
                    .component()
                    .flatMap(this::verdict)
                    .filter(v -> v.becomes() == Becomes.LEFT_OUT)
                    .isPresent();
        }

        Done make(Outline.Copy copy) {
            Node from = copy.from();
            Folder folder = Optional.ofNullable(folders.get(from.id())).orElseThrow();
            Filed here = new Filed(0, copy.fileName(), folder.shelf(), names(folder), library(folder));
            Map<String, String> paths = new LinkedHashMap<>();
            Set<String> out = new HashSet<>();
            for (Reference r : from.refersTo()) {
                if (isOut(r)) out.add(r.written().path());
                else
                    target(r)
                            .flatMap(t -> Optional.ofNullable(lie.get(t)))
                            .flatMap(t -> WrittenAnew.path(r.written().path(), here, t))
                            .ifPresent(p -> paths.put(r.written().path(), p));
            }
            RewriteReferences.Copied content =
                    rewrite.copied(from.version().content(), new RewriteReferences.Otherwise(paths, out, called, gone));
            Kind kind = Optional.ofNullable(
                            kinds.get(from.seen().document().place().kind()))
                    .orElseThrow();
            Made one = copies.make(
                    actor,
                    from.seen(),
                    from.version(),
                    new FreshCopy.As(
                            kind,
                            folder,
                            copy.number(),
                            copy.title(),
                            Optional.ofNullable(said.get(from.id())).orElse(Map.of()),
                            "Of the new design from "
                                    + outline.tree().top().main().number() + ": "
                                    + from.number() + " version "
                                    + from.version().number()),
                    new FreshCopy.Inside(
                            content.content(),
                            Optional.of(FileName.of(copy.fileName())),
                            Optional.of(refersTo(from, content, paths)),
                            true));
            made.put(from.id(), one);
            fresh.add(one.item());
            lie.put(one.item(), new Filed(one.item(), copy.fileName(), folder.shelf(), names(folder), library(folder)));
            return new Done(copy, one, content.left());
        }

        private List<String> names(Folder folder) {
            List<String> names = new ArrayList<>();
            up.getOrDefault(folder.id(), List.of(folder)).forEach(f -> names.add(0, f.name()));
            return names;
        }

        private boolean library(Folder folder) {
            return libraries.getOrDefault(folder.shelf(), false);
        }

        private List<Reference> refersTo(Node from, RewriteReferences.Copied content, Map<String, String> paths) {
            Map<Long, Reference.Component> heads = references.heads(from.refersTo().stream()
                    .map(this::target)
                    .flatMap(Optional::stream)
                    .filter(fresh::contains)
                    .distinct()
                    .toList());
            List<Reference> all = new ArrayList<>();
            for (Reference r : from.refersTo()) {
                if (isOut(r) && content.out()) continue;
                String path = r.written().path();
                Written written = new Written(
                        r.written().role(),
                        content.paths() ? paths.getOrDefault(path, path) : path,
                        r.written().quantity());
                // What could not be written leads to what it led to.
                boolean leads = content.paths() || !paths.containsKey(path);
                all.add(new Reference(all.size() + 1, written, r.state(), leads ? component(r, heads) : r.component()));
            }
            return all;
        }

        private Optional<Reference.Component> component(Reference reference, Map<Long, Reference.Component> heads) {
            if (isOut(reference)) return reference.component();
            return target(reference)
                    .map(t -> Optional.ofNullable(heads.get(t))
                            .or(() -> Optional.ofNullable(exchanged.get(t)))
                            .or(() -> Optional.ofNullable(shared.get(t)))
                            .or(reference::component)
                            .orElseThrow());
        }
    }
}
