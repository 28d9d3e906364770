package mintshelf.app.use.revision;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import mintshelf.app.effect.FactValues;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Document;
import mintshelf.core.document.Revision;
import mintshelf.core.revision.StageClass;
import org.springframework.stereotype.Service;

/** Drops a pending revision: the released one is what everybody works from again. */
@Service
public class DropRevision {
    private final Sight sight;
    private final HoldStore holds;
    private final PaperStore orders;
    private final BackToReleased back;
    private final Acts acts;
    private final Recorder recorder;
    private final Clock clock;

    public DropRevision(
            Sight sight,
            HoldStore holds,
            PaperStore orders,
            BackToReleased back,
            Acts acts,
            Recorder recorder,
            Clock clock) {
        this.sight = sight;
        this.holds = holds;
        this.orders = orders;
        this.back = back;
        this.acts = acts;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** Drops the pending revision: the released one is what everybody works from again; the versions stay in history. */
    public String drop(Actor actor, long item, String key, int expectedVersion, String reason) {
        String why = Texts.required("The reason", reason, 500).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            Seen seen = sight.locked(actor, item);
            if (!seen.all()) throw new NotThere();
            Sight.expectVersion(seen, expectedVersion);
            Document document = seen.document();
            Optional.ofNullable(orders.open(List.of(item)).get(item)).ifPresent(on -> {
                throw Refused.because(
                        "order.goes_with",
                        document.number() + " is on " + on.number() + ".",
                        "Stop the order first; nothing was dropped.");
            });
            dropRefusal(actor, document).ifPresent(r -> {
                throw new Refused(r);
            });
            Instant now = clock.instant();
            Revision pending = document.pending().orElseThrow();
            document.holder().ifPresent(h -> holds.end(h.hold(), HoldStore.Ending.DROPPED, actor.person(), why, now));
            boolean free = back.drop(item, document.line(), pending);
            recorder.note(
                    actor,
                    item,
                    "revision.dropped",
                    "dropped revision " + pending.shown()
                            + (free ? "; its label is free again" : "; its label stays used"),
                    why);
            return "/documents/" + item;
        });
    }

    /** What is in the way of dropping the pending revision. */
    public static Optional<Refusal> dropRefusal(Actor actor, Document document) {
        Optional<Refusal> missing = actor.access().ask(Right.CHANGE, document.place());
        if (missing.isPresent()) return missing;
        if (document.pending().isEmpty()) {
            return Optional.of(Refusal.of("revision.none", "No revision of " + document.number() + " is pending.", ""));
        }
        if (document.released().isEmpty()) {
            return Optional.of(Refusal.of(
                    "revision.first",
                    document.number() + " has no released revision to go back to.",
                    "Drop the document instead, if it was filed by mistake."));
        }
        if (document.pending().get().stage().stageClass() != StageClass.PREPARING) {
            return Optional.of(
                    Refusal.of("stage.deciding", document.number() + " is being decided on.", "Take it back first."));
        }
        return FactValues.heldByAnother(actor, document);
    }
}
