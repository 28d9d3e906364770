package mintshelf.app.use.structure;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.References;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.app.store.structure.Reference;
import mintshelf.app.store.structure.ReferenceStore;
import mintshelf.core.access.Right;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.document.FileName;
import mintshelf.core.reference.Resolution.Filed;
import mintshelf.core.revision.StageClass;
import mintshelf.core.structure.StructureGraph;
import org.springframework.stereotype.Service;

/** What a document's file refers to: shown, and put right where the shelf did not know. */
@Service
public class KeepReferences {
    private final Sight sight;
    private final VersionStore versions;
    private final ReferenceStore store;
    private final References references;
    private final KeepLinks keepLinks;
    private final Redigest redigest;
    private final LinkStore links;
    private final Acts acts;
    private final Recorder recorder;

    public KeepReferences(
            Sight sight,
            VersionStore versions,
            ReferenceStore store,
            References references,
            KeepLinks keepLinks,
            Redigest redigest,
            LinkStore links,
            Acts acts,
            Recorder recorder) {
        this.sight = sight;
        this.versions = versions;
        this.store = store;
        this.references = references;
        this.keepLinks = keepLinks;
        this.redigest = redigest;
        this.links = links;
        this.acts = acts;
        this.recorder = recorder;
    }

    /** A reference with what it means, and where that is not known the documents of its file name. */
    public record ReferenceLine(Reference reference, Optional<Seen> seen, List<Seen> candidates) {
        /** How the captured version is known, in words. */
        public String source() {
            return reference
                    .component()
                    .map(c -> switch (c.source()) {
                        case DESK -> "as its author's desk had it";
                        case ASSUMED -> "the latest then";
                        case PICKED -> "chosen by hand";
                    })
                    .orElse("");
        }
    }

    /**
     * What a document refers to.
     *
     * @param refusal why this person may not put references right
     */
    public record RefersTo(
            Seen of, List<ReferenceLine> lines, List<ReadWhereUsed.Linked> links, Optional<Refusal> refusal) {
        public long lost() {
            return lines.stream().filter(l -> !l.reference().isFound()).count();
        }
    }

    public RefersTo of(Actor actor, long item) {
        Seen of = sight.of(actor, item);
        int number = of.version();
        List<Reference> all = store.of(
                versions.version(item, number).orElseThrow(NotThere::new).id());
        Set<Long> wanted = new HashSet<>();
        all.forEach(r -> r.component().ifPresent(c -> wanted.add(c.item())));
        Map<String, List<Filed>> named = references.lying(all.stream()
                .filter(r -> !r.isFound())
                .map(r -> FileName.of(r.written().path()).key())
                .toList());
        named.values().forEach(list -> list.forEach(f -> wanted.add(f.document())));
        List<LinkStore.Link> around = links.around(List.of(item));
        around.forEach(l -> wanted.add(l.item() == item ? l.target() : l.item()));
        Map<Long, Seen> seen = sight.of(actor, wanted);
        List<ReferenceLine> lines = new ArrayList<>();
        for (Reference r : all) {
            List<Seen> candidates = r.isFound()
                    ? List.of()
                    : named.getOrDefault(FileName.of(r.written().path()).key(), List.of()).stream()
                            .filter(f -> f.document() != item && seen.containsKey(f.document()))
                            .map(f -> seen.get(f.document()))
                            .limit(20)
                            .toList();
            lines.add(new ReferenceLine(r, r.component().map(c -> seen.get(c.item())), candidates));
        }
        List<ReadWhereUsed.Linked> linked = around.stream()
                .filter(l -> l.item() == item && seen.containsKey(l.target()))
                .map(l -> new ReadWhereUsed.Linked(l, seen.get(l.target()), true))
                .toList();
        return new RefersTo(of, lines, linked, refusal(actor, of));
    }

    private static Optional<Refusal> refusal(Actor actor, Seen seen) {
        if (!seen.all()) return Optional.of(Refusal.of("access.missing", "You see released versions of it only.", ""));
        Document document = seen.document();
        Optional<Refusal> right = actor.access().ask(Right.CHANGE, document.place());
        if (right.isPresent()) return right;
        boolean preparing = document.pending()
                .filter(r -> r.stage().stageClass() == StageClass.PREPARING)
                .isPresent();
        return preparing
                ? Optional.empty()
                : Optional.of(Refusal.of(
                        "stage.closed",
                        document.number() + " is in a stage in which it does not change.",
                        "Start the next revision; the check-in looks for the files anew."));
    }

    /** Says which document a reference means: chosen from the list, or told by its number. */
    public String pick(Actor actor, long item, String key, int seq, Optional<Long> chosen, String number) {
        return acts.once(actor, key, () -> {
            Seen seen = changeable(actor, item);
            Reference reference = store.of(seen.document().head().version()).stream()
                    .filter(r -> r.seq() == seq)
                    .findFirst()
                    .orElseThrow(NotThere::new);
            Seen target =
                    chosen.map(id -> sight.of(actor, id)).orElseGet(() -> keepLinks.byNumber(actor, item, number));
            long component = target.spine().id();
            store.closeGate();
            StructureGraph.of(store.usesBelow(List.of(component)))
                    .cycle(item, component)
                    .ifPresent(ring -> {
                        throw Refused.because(
                                "reference.ring",
                                seen.document().number() + " would stand in itself.",
                                "Choose another document.");
                    });
            long captured = target.document().head().version();
            store.pick(versions.substance(seen.document().head().version()), seq, component, captured);
            redigest.of(seen);
            recorder.note(
                    actor,
                    item,
                    "reference.picked",
                    seen.document().head().number(),
                    "said that “" + reference.written().path() + "” means "
                            + target.document().number(),
                    "");
            return "/documents/" + item + "/refers-to";
        });
    }

    /** Looks for the files that were not found: perhaps they were filed since. */
    public String lookAgain(Actor actor, long item, String key) {
        return acts.once(actor, key, () -> {
            Seen seen = changeable(actor, item);
            long head = seen.document().head().version();
            List<Reference> before = store.of(head);
            List<Reference> now = references
                    .resolve(item, before.stream().map(Reference::written).toList(), Optional.of(head), Map.of())
                    .orElseThrow(Refused::new);
            int found = 0;
            long owner = versions.substance(head);
            for (int i = 0; i < before.size(); i++) {
                if (before.get(i).isFound() || !now.get(i).isFound()) continue;
                Reference.Component c = now.get(i).component().orElseThrow();
                store.pick(owner, before.get(i).seq(), c.item(), c.version());
                found++;
            }
            if (found == 0) {
                throw Refused.because(
                        "reference.still_missing",
                        "They are still not to be found.",
                        "File them, or say which documents are meant.");
            }
            redigest.of(seen);
            recorder.note(
                    actor,
                    item,
                    "reference.picked",
                    seen.document().head().number(),
                    "found " + Numbers.count(found, "file", "files") + " that it refers to",
                    "");
            return "/documents/" + item + "/refers-to";
        });
    }

    private Seen changeable(Actor actor, long item) {
        Seen seen = sight.locked(actor, item);
        refusal(actor, seen).ifPresent(r -> {
            throw new Refused(r);
        });
        return seen;
    }
}
