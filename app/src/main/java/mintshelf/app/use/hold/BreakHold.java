package mintshelf.app.use.hold;

import java.time.Clock;
import java.util.List;
import java.util.Optional;
import mintshelf.app.effect.AskHolder;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Document;
import mintshelf.core.document.Holder;
import mintshelf.core.hold.HoldRules;
import org.springframework.stereotype.Service;

/** Holds of others: asking for a document, and breaking a hold with a reason. */
@Service
public class BreakHold {
    private final Sight sight;
    private final HoldStore holds;
    private final Telling telling;
    private final AskHolder askHolder;
    private final Acts acts;
    private final Recorder recorder;
    private final Clock clock;

    public BreakHold(
            Sight sight,
            HoldStore holds,
            Telling telling,
            AskHolder askHolder,
            Acts acts,
            Recorder recorder,
            Clock clock) {
        this.sight = sight;
        this.holds = holds;
        this.telling = telling;
        this.askHolder = askHolder;
        this.acts = acts;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** Ends somebody else's hold; the holder is told. What the holder still has comes back as a stray. */
    public String breakHold(Actor actor, long item, String key, long hold, String reason) {
        String why = Texts.required("The reason", reason, 500).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            Document document = sight.locked(actor, item).document();
            HoldRules.breakHold(document, actor.access(), why).ifPresent(r -> {
                throw new Refused(r);
            });
            Holder holder = document.holder().orElseThrow();
            if (holder.hold() != hold) {
                throw Refused.because(
                        "page.old",
                        document.number() + " is held anew, by " + holder.name() + ".",
                        "Look again before you break that hold.");
            }
            holds.end(hold, HoldStore.Ending.BROKEN, actor.person(), why, clock.instant());
            recorder.note(
                    actor, item, "hold.broken", document.head().number(), "broke the hold of " + holder.name(), why);
            telling.tell(
                    actor,
                    List.of(holder.person()),
                    "hold.broken",
                    Optional.empty(),
                    item,
                    actor.name() + " ended your check-out of " + document.number() + ": " + why
                            + " What you changed is kept as a stray when you bring it back.",
                    "/documents/" + item);
            return "/documents/" + item + "?broken";
        });
    }

    /** Asks the holder to check a document in. */
    public String ask(Actor actor, long item, String key, String message) {
        String words = Texts.optional("The message", message, 300).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            Seen seen = sight.locked(actor, item);
            Holder holder = seen.document()
                    .holder()
                    .filter(h -> seen.all())
                    .orElseThrow(() -> Refused.because(
                            "hold.none",
                            "Nobody holds " + seen.document().number() + " any more.",
                            "Check it out now."));
            askHolder.ask(actor, holder, List.of(seen), words);
            return "/documents/" + item + "?asked";
        });
    }
}
