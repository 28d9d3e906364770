package mintshelf.app.use.record;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.record.RecordQuestionStore;
import mintshelf.app.store.record.RecordQuestionStore.Question;
import mintshelf.app.store.record.RecordQuestionStore.Spot;
import mintshelf.app.store.record.RecordStore;
import mintshelf.app.store.record.RecordStore.Shown;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.dao.QueryTimeoutException;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/** The record of a document and of the house, and the anchor that chains all ends each minute. */
@Service
public class ReadRecord {
    private static final int PORTION = 1000;

    private final RecordStore record;
    private final RecordQuestionStore questions;
    private final Recorder recorder;
    private final Sight sight;
    private final UnitOfWork unit;
    private final Clock clock;

    public ReadRecord(
            RecordStore record,
            RecordQuestionStore questions,
            Recorder recorder,
            Sight sight,
            UnitOfWork unit,
            Clock clock) {
        this.record = record;
        this.questions = questions;
        this.recorder = recorder;
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

    /** The record of the house, for data managers: what a question asks for, the latest first. */
    public List<Shown> ofHouse(Actor actor, Question question, Optional<Spot> before, int most) {
        ask(actor);
        Spot spot =
                before.orElseGet(() -> new Spot(clock.instant().plusSeconds(60), Long.MAX_VALUE, Integer.MAX_VALUE));
        return answered(() -> questions.before(question, spot, most));
    }

    /** As {@link #ofHouse}, the earliest first: to be read on from where one stopped. */
    public List<Shown> after(Actor actor, Question question, Optional<Spot> after, int most) {
        ask(actor);
        return answered(() -> questions.after(question, after.orElse(new Spot(Instant.EPOCH, -1, 0)), most));
    }

    /** Gives all that a question asks for, the earliest first, portion by portion; that it was given out is recorded before. */
    public void giveOut(Actor actor, Question question, Consumer<List<Shown>> to) {
        ask(actor);
        unit.run(() -> recorder.noteHouse(actor, "record.given_out", "took an export of the record", ""));
        Optional<Spot> spot = Optional.empty();
        Instant until = clock.instant();
        while (true) {
            List<Shown> portion = after(actor, question, spot, PORTION).stream()
                    .filter(s -> !s.entry().at().isAfter(until))
                    .toList();
            if (portion.isEmpty()) return;
            to.accept(portion);
            spot = Optional.of(Spot.of(portion.get(portion.size() - 1)));
        }
    }

    private static void ask(Actor actor) {
        if (!HouseRules.keeps(actor)) {
            throw Refused.because(
                    "access.missing", "Only who keeps the house rules reads the whole record.", "Ask a data manager.");
        }
    }

    private static List<Shown> answered(Supplier<List<Shown>> question) {
        try {
            return question.get();
        } catch (QueryTimeoutException e) {
            throw Refused.because(
                    "record.long",
                    "Looking for this takes too long.",
                    "Say between which days, who, or which document.");
        }
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
