package mintshelf.app.effect;

import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.EarlierStore;
import mintshelf.app.store.document.EarlierStore.Earlier;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.KindFact;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.app.store.structure.Reference;
import mintshelf.core.base.Texts;
import mintshelf.core.document.FileName;
import mintshelf.core.document.Stage;
import mintshelf.core.document.VersionDigest;
import mintshelf.core.drawing.titleblock.RevisionBlock;
import mintshelf.core.fact.FactValue;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.reference.Written;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.Route;
import mintshelf.core.takein.TakeRules.Stands;
import org.springframework.stereotype.Component;

/**
 * Files a document with revisions that were made before it came here: each as it stood, nobody asked, nothing written into its file.
 * Within the caller's transaction.
 */
@Component
public class PastRevisions {
    /** Letters of what a row says: more fits into no cell. */
    private static final int LONGEST = 120;

    private final NewDocuments documents;
    private final DocumentStore items;
    private final RevisionStore revisions;
    private final VersionStore versions;
    private final FactStore facts;
    private final References references;
    private final FreezeBom bom;
    private final HouseStore house;
    private final EarlierStore earlier;

    public PastRevisions(
            NewDocuments documents,
            DocumentStore items,
            RevisionStore revisions,
            VersionStore versions,
            FactStore facts,
            References references,
            FreezeBom bom,
            HouseStore house,
            EarlierStore earlier) {
        this.earlier = earlier;
        this.documents = documents;
        this.items = items;
        this.revisions = revisions;
        this.versions = versions;
        this.facts = facts;
        this.references = references;
        this.bom = bom;
        this.house = house;
    }

    /**
     * A revision as it was.
     *
     * @param label none for what gets it with its release
     * @param out since when it was in force, where it was
     * @param why it was made, as its sheet says
     */
    public record Past(
            Optional<String> label,
            String title,
            FileName file,
            StoredContent content,
            List<Written> refersTo,
            Map<KindFact, FactValue> facts,
            Stands stands,
            Instant out,
            String comment,
            String why) {}

    /** @param versions their ids, in the order of the revisions */
    public record Made(long item, List<Long> versions) {}

    /**
     * Files a document.
     *
     * @param past its revisions, the oldest first, at least one; only the last can be in preparation
     * @param table what its sheet says of its revisions, by {@link RevisionBlock#FACTS}
     * @param now when it comes here
     */
    public Made file(
            Actor actor,
            Kind kind,
            Folder folder,
            NumberKey number,
            List<Past> past,
            List<Map<String, String>> table,
            Instant now) {
        Route route = house.latest(kind, folder.shelf());
        Past first = past.get(0);
        NewDocuments.Made made = documents.add(
                actor,
                new NewDocuments.New(
                        kind,
                        folder,
                        number,
                        first.title(),
                        // The latest one's name is that of the document; one of before could be another's by now.
                        past.get(past.size() - 1).file(),
                        first.label(),
                        first.why(),
                        first.facts(),
                        first.content(),
                        first.comment(),
                        VersionRow.MadeBy.TAKEN_IN));
        List<Long> all = new ArrayList<>(List.of(made.version()));
        Optional<Long> inForce = settle(route, made.item(), made.revision(), made.version(), first, Optional.empty());
        for (Past next : past.subList(1, past.size())) {
            long revision = revisions.startRevision(
                    made.item(), next.label(), route.firstStage(), actor.person(), next.why(), "", next.out());
            revisions.setTitle(made.item(), revision, next.title(), now);
            Map<String, String> texts = new LinkedHashMap<>();
            next.facts().forEach((fact, value) -> {
                facts.setFact(revision, fact.fact().id(), Optional.of(value));
                texts.put(fact.fact().name(), value.text());
            });
            long version = versions.addVersion(
                            new VersionStore.NewVersion(
                                    made.item(),
                                    revision,
                                    next.content().id(),
                                    next.file().name(),
                                    VersionDigest.of(next.content().hash(), texts),
                                    next.comment(),
                                    actor.person(),
                                    VersionRow.MadeBy.TAKEN_IN,
                                    Optional.of(all.get(all.size() - 1)),
                                    Optional.empty(),
                                    texts),
                            now)
                    .version();
            all.add(version);
            inForce = settle(route, made.item(), revision, version, next, inForce);
        }
        keep(made.item(), past, table);
        items.touch(made.item(), now);
        return new Made(made.item(), all);
    }

    private void keep(long item, List<Past> past, List<Map<String, String>> table) {
        Set<String> own =
                past.stream().flatMap(p -> p.label().stream()).map(Texts::key).collect(Collectors.toSet());
        List<Earlier> rows = new ArrayList<>();
        int last = 0;
        for (Map<String, String> row : table) {
            String label = row.getOrDefault("revision", "");
            if (label.isEmpty()) continue;
            Map<String, String> said = new LinkedHashMap<>();
            row.forEach((fact, value) -> said.put(fact, Texts.shorten(value, LONGEST)));
            boolean here = own.contains(Texts.key(label));
            rows.add(new Earlier(label, said, here));
            if (here) last = rows.size();
        }
        // What a sheet says of later revisions than were taken in is work that is not out: nobody is told of it here.
        earlier.keep(item, last == 0 ? rows : rows.subList(0, last));
    }

    /** Puts the first revision of a document that was just filed in force, as it was released elsewhere. */
    public void release(Kind kind, Folder folder, long item, long revision, long version, Instant out) {
        revisions.setStage(revision, stop(house.latest(kind, folder.shelf()), StageClass.RELEASED), out);
        revisions.noteRelease(revision, version, out);
        bom.freeze(revision, version);
        items.touch(item, out);
    }

    /** What it refers to, and how it stands; gives the revision that is in force now. */
    private Optional<Long> settle(
            Route route, long item, long revision, long version, Past past, Optional<Long> inForce) {
        if (!past.refersTo().isEmpty()) {
            List<Reference> refersTo = references
                    .resolve(item, past.refersTo(), Optional.empty(), Map.of())
                    .orElseThrow(Refused::new);
            references.keep(version, refersTo);
            versions.setDigest(
                    version,
                    VersionDigest.of(past.content().hash(), facts.facts(revision), References.digests(refersTo)));
        }
        if (!past.stands().wasOut()) return inForce;
        inForce.ifPresent(before -> {
            revisions.setStage(before, stop(route, StageClass.SUPERSEDED), past.out());
            bom.goesOn(before, revision);
        });
        revisions.setStage(revision, stop(route, StageClass.RELEASED), past.out());
        revisions.noteRelease(revision, version, past.out());
        bom.freeze(revision, version);
        if (past.stands() != Stands.WITHDRAWN) return Optional.of(revision);
        revisions.setStage(revision, stop(route, StageClass.WITHDRAWN), past.out());
        return Optional.empty();
    }

    private static Stage stop(Route route, StageClass which) {
        return route.firstOf(which)
                .orElseThrow(() -> Refused.because(
                        "take.route",
                        "The route " + route.name() + " has no such stop any more.",
                        "Look at the dry run again."));
    }
}
