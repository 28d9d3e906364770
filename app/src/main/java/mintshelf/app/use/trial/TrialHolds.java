package mintshelf.app.use.trial;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.sight.Trials;
import mintshelf.app.sight.Trials.Tried;
import mintshelf.app.sight.Trials.Whole;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Document;
import mintshelf.core.document.Holder;
import mintshelf.core.document.VersionName;
import mintshelf.core.hold.HoldRules;
import org.springframework.stereotype.Service;

/** Check-outs on the lines of a trial, beside whatever is held on the main lines. */
@Service
public class TrialHolds {
    private final Sight sight;
    private final Trials trials;
    private final HoldStore holds;
    private final Telling telling;
    private final Acts acts;
    private final Recorder recorder;
    private final Clock clock;

    public TrialHolds(
            Sight sight, Trials trials, HoldStore holds, Telling telling, Acts acts, Recorder recorder, Clock clock) {
        this.sight = sight;
        this.trials = trials;
        this.holds = holds;
        this.telling = telling;
        this.acts = acts;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** What is in the way of checking a document out on the line of a trial. */
    public static Optional<Refusal> refusal(Actor actor, Whole whole, Tried tried) {
        if (!whole.trial().isOpen()) return Optional.of(ended(whole));
        return HoldRules.checkOut(tried.tried().document(), actor.access());
    }

    /** Why nothing is changed on a trial that is over. */
    static Refusal ended(Whole whole) {
        return Refusal.of(
                "trial.ended",
                "Trial " + whole.of() + " was " + whole.trial().state().words() + " by "
                        + whole.trial().endedByName() + ".",
                "It stays readable; start another one to try more.");
    }

    /** Checks documents of a trial out: all of them, or none with what is in the way of each. */
    public String take(Actor actor, long trial, Collection<Long> items, String key, String desk, String purpose) {
        String cleanDesk = Texts.optional("The desk", desk, 100).orElseThrow(Refused::new);
        String cleanPurpose = Texts.optional("The purpose", purpose, 200).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            Whole whole = trials.locked(actor, trial);
            List<Tried> chosen = chosen(whole, items);
            List<String> reasons = new ArrayList<>();
            for (Tried tried : chosen) refusal(actor, whole, tried).ifPresent(r -> reasons.add(r.says()));
            if (!reasons.isEmpty())
                throw Refused.because(
                        "check_out.refused",
                        String.join(" ", reasons),
                        chosen.size() == 1 ? "" : "Nothing was checked out; leave those rows out.");
            Instant now = clock.instant();
            List<Document> documents =
                    chosen.stream().map(t -> t.tried().document()).toList();
            holds.take(documents, actor.person(), cleanDesk, cleanPurpose, now);
            for (Tried tried : chosen) {
                recorder.recent(actor, tried.item(), "checked out");
                recorder.note(
                        actor,
                        tried.item(),
                        "trial.hold.taken",
                        "checked out " + whole.trial().line() + " at version "
                                + tried.line().gets().says(),
                        cleanPurpose);
            }
            return "/trials/" + trial + "?taken";
        });
    }

    /**
     * As {@link #take}, by what the line is called on the documents: "t1".
     *
     * @return the documents on it, as they are held now
     */
    public List<Seen> takeOn(
            Actor actor, String line, Collection<Long> items, String key, String desk, String purpose) {
        take(actor, named(actor, line, items), items, key, desk, purpose);
        return onLine(actor, line, items);
    }

    /** As {@link #undo}, by what the line is called on the documents. */
    public void undoOn(Actor actor, String line, Collection<Long> items, String key) {
        undo(actor, named(actor, line, items), items, key);
    }

    /** Documents on the line of a trial under way, by what it is called on them; not there where one has none of that name. */
    public List<Seen> onLine(Actor actor, String line, Collection<Long> items) {
        return tried(actor, line, items).stream().map(Tried::tried).toList();
    }

    private List<Tried> tried(Actor actor, String line, Collection<Long> items) {
        int number = VersionName.line(line).orElseThrow(NotThere::new);
        Map<Long, Seen> seen = sight.of(actor, items);
        List<Tried> tried = new ArrayList<>();
        for (long item : items)
            tried.add(trials.onTrial(Optional.ofNullable(seen.get(item)).orElseThrow(NotThere::new), number)
                    .orElseThrow(NotThere::new));
        return tried;
    }

    /** The trial of a line; several documents have to be on one, for another can be called so on another document. */
    public long named(Actor actor, String line, Collection<Long> items) {
        List<Long> ids = tried(actor, line, items).stream()
                .map(t -> t.line().trial())
                .distinct()
                .toList();
        if (ids.size() > 1)
            throw Refused.because(
                    "trial.several",
                    "These documents are on " + ids.size() + " trials that are called " + line + ".",
                    "Take those of one trial at a time.");
        return ids.get(0);
    }

    private static List<Tried> chosen(Whole whole, Collection<Long> items) {
        List<Tried> chosen =
                whole.lines().stream().filter(t -> items.contains(t.item())).toList();
        if (chosen.isEmpty() || chosen.size() != Set.copyOf(items).size()) throw new NotThere();
        return chosen;
    }

    /** Gives check-outs back unchanged. */
    public String undo(Actor actor, long trial, Collection<Long> items, String key) {
        return acts.once(actor, key, () -> {
            Whole whole = trials.locked(actor, trial);
            for (Tried tried : chosen(whole, items)) {
                HoldRules.useHold(tried.tried().document(), actor.access()).ifPresent(r -> {
                    throw new Refused(Refusal.of(r.code(), r.reason(), "Nothing was changed."));
                });
                end(actor, tried, HoldStore.Ending.UNDONE, "");
                note(actor, whole, tried, "hold.undone", "undid the check-out of ", "");
            }
            return "/trials/" + trial + "?undone";
        });
    }

    /** Ends somebody else's check-out; the holder is told, and what they bring is kept as a stray. */
    public String breakHold(Actor actor, long trial, long item, String key, long hold, String reason) {
        String why = Texts.required("The reason", reason, 500).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            Whole whole = trials.locked(actor, trial);
            Tried tried = chosen(whole, List.of(item)).get(0);
            HoldRules.breakHold(tried.tried().document(), actor.access(), why).ifPresent(r -> {
                throw new Refused(r);
            });
            Holder holder = tried.line().holder().orElseThrow();
            if (holder.hold() != hold)
                throw Refused.because(
                        "page.old",
                        tried.tried().document().number() + " is held anew, by " + holder.name() + ".",
                        "Look again before you break that hold.");
            end(actor, tried, HoldStore.Ending.BROKEN, why);
            note(actor, whole, tried, "hold.broken", "broke the hold of " + holder.name() + " on ", why);
            telling.tell(
                    actor,
                    List.of(holder.person()),
                    "hold.broken",
                    Optional.empty(),
                    item,
                    actor.name() + " ended your check-out of "
                            + tried.tried().document().number() + ": " + why
                            + " What you changed is kept as a stray when you bring it back.",
                    "/trials/" + trial);
            return "/trials/" + trial + "?broken";
        });
    }

    private void end(Actor actor, Tried tried, HoldStore.Ending how, String why) {
        holds.end(tried.line().holder().orElseThrow().hold(), how, actor.person(), why, clock.instant());
    }

    private void note(Actor actor, Whole whole, Tried tried, String act, String says, String why) {
        recorder.note(actor, tried.item(), "trial." + act, says + whole.trial().line(), why);
    }
}
