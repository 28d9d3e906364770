package mintshelf.app.effect;

import java.time.Clock;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.NumberStore;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.KindFact;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.core.document.FileName;
import mintshelf.core.document.Stage;
import mintshelf.core.document.VersionDigest;
import mintshelf.core.fact.FactValue;
import mintshelf.core.numbering.NumberKey;
import org.springframework.stereotype.Component;

/** Adds documents: files that are filed, papers that changes write. Within the caller's transaction. */
@Component
public class NewDocuments {
    private final DocumentStore documents;
    private final RevisionStore revisions;
    private final VersionStore versions;
    private final FactStore facts;
    private final NumberStore numbers;
    private final HouseStore house;
    private final Clock clock;

    public NewDocuments(
            DocumentStore documents,
            RevisionStore revisions,
            VersionStore versions,
            FactStore facts,
            NumberStore numbers,
            HouseStore house,
            Clock clock) {
        this.documents = documents;
        this.revisions = revisions;
        this.versions = versions;
        this.facts = facts;
        this.numbers = numbers;
        this.house = house;
        this.clock = clock;
    }

    /**
     * What is added.
     *
     * @param label of its first revision; none where it comes with the release
     * @param why its first revision is what it is; mostly empty
     * @param comment on its first version
     */
    public record New(
            Kind kind,
            Folder folder,
            NumberKey number,
            String title,
            FileName file,
            Optional<String> label,
            String why,
            Map<KindFact, FactValue> facts,
            StoredContent content,
            String comment,
            VersionRow.MadeBy madeBy) {
        /** What is filed. */
        public New(
                Kind kind,
                Folder folder,
                NumberKey number,
                String title,
                FileName file,
                Optional<String> label,
                String why,
                Map<KindFact, FactValue> facts,
                StoredContent content,
                String comment) {
            this(kind, folder, number, title, file, label, why, facts, content, comment, VersionRow.MadeBy.FILED);
        }
    }

    /** @param number of its first version */
    public record Made(long item, long revision, long version, int number) {}

    /** Adds a document with its number, its first revision at the begin of its route, its facts and its first version. */
    public Made add(Actor actor, New one) {
        Instant now = clock.instant();
        Kind kind = one.kind();
        long item = documents.add(
                new DocumentStore.NewDocument(
                        kind.aspect().name(),
                        kind.id(),
                        one.folder().shelf(),
                        one.folder().id(),
                        one.number(),
                        one.title(),
                        one.file(),
                        actor.person()),
                now);
        numbers.claim(kind.aspect(), one.number(), item, now);
        Stage first = house.latest(kind, one.folder().shelf()).firstStage();
        long revision = revisions.startRevision(item, one.label(), first, actor.person(), one.why(), "", now);
        Map<String, String> texts = new LinkedHashMap<>();
        one.facts().forEach((fact, value) -> {
            facts.setFact(revision, fact.fact().id(), Optional.of(value));
            texts.put(fact.fact().name(), value.text());
        });
        VersionStore.Added version = versions.addVersion(
                new VersionStore.NewVersion(
                        item,
                        revision,
                        one.content().id(),
                        one.file().name(),
                        VersionDigest.of(one.content().hash(), texts),
                        one.comment(),
                        actor.person(),
                        one.madeBy(),
                        Optional.empty(),
                        Optional.empty(),
                        texts),
                now);
        return new Made(item, revision, version.version(), version.number());
    }
}
