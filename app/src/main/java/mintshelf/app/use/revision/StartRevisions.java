package mintshelf.app.use.revision;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.StartRevision;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.ChangeControl;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Document;
import org.springframework.stereotype.Service;

/** Starts the next revisions of documents. */
@Service
public class StartRevisions {
    private final Sight sight;
    private final SpineStore spines;
    private final HoldStore holds;
    private final StartRevision start;
    private final ChangeControl control;
    private final Acts acts;
    private final Recorder recorder;
    private final Clock clock;

    public StartRevisions(
            Sight sight,
            SpineStore spines,
            HoldStore holds,
            StartRevision start,
            ChangeControl control,
            Acts acts,
            Recorder recorder,
            Clock clock) {
        this.sight = sight;
        this.spines = spines;
        this.holds = holds;
        this.start = start;
        this.control = control;
        this.acts = acts;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** The label that the next revision of a document gets, or why there is none. */
    public String nextLabel(Document document) {
        return start.nextLabel(document);
    }

    /** The labels that are usual next where the label is taken now; none where it is taken at the release. */
    public List<String> steps(Document document) {
        return start.isLabelAtStart(document) ? start.steps(document) : List.of();
    }

    /** What is in the way of starting the next revision. */
    public Optional<Refusal> startRefusal(Actor actor, Seen seen) {
        return StartRevision.refusal(actor, seen, control.now());
    }

    /** Starts the next revision of the documents and, in the same act, checks out those that have a file. All of them or none. */
    public String start(
            Actor actor, Collection<Long> items, String key, String reason, String details, boolean checkOut) {
        return start(actor, items, key, reason, details, checkOut, Map.of());
    }

    /**
     * As {@link #start(Actor, Collection, String, String, String, boolean)}, some of them skipping ahead.
     *
     * @param labels by document, where another label than the next one is wanted
     */
    public String start(
            Actor actor,
            Collection<Long> items,
            String key,
            String reason,
            String details,
            boolean checkOut,
            Map<Long, String> labels) {
        String why = Texts.required("The reason", reason, 200).orElseThrow(Refused::new);
        String more = Texts.optionalLines("The details", details, 10_000).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            List<Seen> all = sight.locked(actor, items);
            List<String> refused = new ArrayList<>();
            ChangeControl.Now now = control.now();
            for (Seen seen : all) {
                if (!seen.all()) throw new NotThere();
                StartRevision.refusal(actor, seen, now).ifPresent(r -> refused.add(r.says()));
            }
            if (!refused.isEmpty()) {
                throw Refused.because("revision.refused", String.join(" ", refused), "No revision was started.");
            }
            for (Seen seen : all) {
                Optional<String> wanted =
                        Optional.ofNullable(labels.get(seen.spine().id()));
                startOne(actor, seen.document(), why, more, checkOut, wanted);
            }
            return all.size() == 1
                    ? "/documents/" + all.get(0).spine().id()
                            + (checkOut && !all.get(0).document().part() ? "?taken" : "")
                    : "/today" + (checkOut ? "?taken" : "");
        });
    }

    private void startOne(
            Actor actor, Document document, String why, String details, boolean checkOut, Optional<String> wanted) {
        start.start(actor, document, why, details, wanted);
        if (!checkOut || document.part()) return;
        Document started = spines.spine(document.id()).orElseThrow().document();
        holds.take(List.of(started), actor.person(), "", why, clock.instant());
        recorder.note(
                actor,
                document.id(),
                "hold.taken",
                started.head().number(),
                "checked out version " + started.head().number(),
                why);
    }
}
