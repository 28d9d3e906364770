package mintshelf.app.use.record;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.record.RecordStore;
import mintshelf.app.store.record.RecordStore.Shown;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/** The record of a document and of the house, and the anchor that chains all ends each minute. */
@Service
public class ReadRecord {
    private final RecordStore record;
    private final Sight sight;
    private final UnitOfWork unit;
    private final Clock clock;

    public ReadRecord(RecordStore record, Sight sight, UnitOfWork unit, Clock clock) {
        this.record = record;
        this.sight = sight;
        this.unit = unit;
        this.clock = clock;
    }

    /** A document's record, for who sees work in preparation: newest first, before entry {@code before}. */
    public List<Shown> ofDocument(Actor actor, long item, int before, int most) {
        Seen seen = sight.of(actor, item);
        if (!seen.all()) throw new NotThere();
        return record.ofItem(item, before, most);
    }

    /** The last entry of an act in a document's record before a moment, for who sees work in preparation. */
    public Optional<Shown> lastBefore(Actor actor, long item, String act, Instant before) {
        if (!sight.of(actor, item).all()) throw new NotThere();
        return record.lastOf(item, act, before);
    }

    /** The record of the house, for data managers. */
    public List<Shown> ofHouse(Actor actor, Instant before, long beforeStream, Optional<String> acts, int most) {
        if (!HouseRules.keeps(actor)) {
            throw Refused.because(
                    "access.missing", "Only who keeps the house rules reads the whole record.", "Ask a data manager.");
        }
        return record.ofHouse(before, beforeStream, acts, most);
    }

    /** Chains the ends that grew; runs on every node, one at a time wins. */
    @Scheduled(initialDelayString = "PT1M", fixedDelayString = "PT1M")
    public void anchor() {
        try {
            unit.run(() -> record.anchor(clock.instant(), 5000));
        } catch (DuplicateKeyException e) {
            LoggerFactory.getLogger(ReadRecord.class).debug("another node anchored at this moment");
        }
    }
}
