package mintshelf.app.use.revision;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.RevisionRow;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.record.RecordStore;
import mintshelf.app.store.round.RoundStore;
import mintshelf.core.document.Revision;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.Route;
import org.springframework.stereotype.Component;

/** Takes a pending revision away from a document, within the act that drops it. */
@Component
class BackToReleased {
    private final DocumentStore documents;
    private final VersionStore versions;
    private final RevisionStore revisions;
    private final HouseStore house;
    private final RoundStore rounds;
    private final PaperStore orders;
    private final RecordStore record;
    private final Clock clock;

    BackToReleased(
            DocumentStore documents,
            VersionStore versions,
            RevisionStore revisions,
            HouseStore house,
            RoundStore rounds,
            PaperStore orders,
            RecordStore record,
            Clock clock) {
        this.documents = documents;
        this.versions = versions;
        this.revisions = revisions;
        this.house = house;
        this.rounds = rounds;
        this.orders = orders;
        this.record = record;
        this.clock = clock;
    }

    /**
     * Drops a pending revision; the released version is the latest again.
     *
     * @param line the document's main line
     * @return whether its label is free again
     */
    boolean drop(long item, long line, Revision pending) {
        Instant now = clock.instant();
        Route route = house.edition(pending.stage().edition());
        boolean free = labelIsFree(item, pending);
        revisions.dropRevision(pending.id(), route.firstOf(StageClass.CLOSED).orElseThrow(), free, now);
        long released = revisions.revisions(item).stream()
                .filter(r -> r.revision().released())
                .map(r -> r.releasedVersion().orElseThrow())
                .map(n -> versions.version(item, n).orElseThrow().id())
                .findFirst()
                .orElseThrow();
        documents.setHead(item, line, released);
        documents.touch(item, now);
        return free;
    }

    /** A label is free again when nobody but who started the revision has made, fetched or been asked about a version of it. */
    private boolean labelIsFree(long item, Revision pending) {
        RevisionRow row = revisions.revisions(item).stream()
                .filter(r -> r.revision().id() == pending.id())
                .findFirst()
                .orElseThrow();
        List<Integer> numbers = versions.versions(item).stream()
                .filter(v -> v.revision() == pending.id())
                .map(v -> v.number())
                .toList();
        return !rounds.named(pending.id())
                && !orders.names(pending.id())
                && !revisions.othersWorkedOn(pending.id(), row.startedById())
                && !record.wasFetchedByOthers(item, numbers, row.startedById());
    }
}
