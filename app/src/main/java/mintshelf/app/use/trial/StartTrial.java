package mintshelf.app.use.trial;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.sight.TakeAlong;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.trial.TrialStore;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.VersionName;
import mintshelf.core.trial.TrialRules;
import org.springframework.stereotype.Service;

/** Begins a trial: a line of its own beside each of one or several documents. Their main lines are not touched by it. */
@Service
public class StartTrial {
    private final Sight sight;
    private final TakeAlong along;
    private final TrialStore trials;
    private final DocumentStore documents;
    private final Acts acts;
    private final Recorder recorder;
    private final Clock clock;

    public StartTrial(
            Sight sight,
            TakeAlong along,
            TrialStore trials,
            DocumentStore documents,
            Acts acts,
            Recorder recorder,
            Clock clock) {
        this.sight = sight;
        this.along = along;
        this.trials = trials;
        this.documents = documents;
        this.acts = acts;
        this.recorder = recorder;
        this.clock = clock;
    }

    /**
     * A document that a trial could have.
     *
     * @param asked whether it was asked for; else it belongs to what was
     * @param open trials that are under way on it
     */
    public record Row(Seen seen, boolean asked, int open, Optional<Refusal> refusal) {
        public boolean isOpen() {
            return refusal.isEmpty();
        }
    }

    /** What a trial of documents would have, and what belongs to them: the model of a drawing, the drawings of a model; nothing is changed. */
    public List<Row> plan(Actor actor, Collection<Long> items) {
        if (items.isEmpty() || items.size() > TrialRules.MOST_TOGETHER) throw new NotThere();
        Set<Long> asked = new LinkedHashSet<>(items);
        List<Seen> all = along.gather(actor, asked, EnumSet.of(TakeAlong.With.DRAWINGS)).stream()
                .map(TakeAlong.Along::seen)
                .filter(s ->
                        s.all() && !s.spine().isChangePaper() && !s.document().dropped())
                .limit(TrialRules.MOST_TOGETHER)
                .toList();
        if (all.stream().noneMatch(s -> asked.contains(s.spine().id()))) throw new NotThere();
        Map<Long, Integer> open =
                trials.open(all.stream().map(s -> s.spine().id()).toList());
        List<Row> rows = new ArrayList<>();
        for (Seen seen : all) {
            int n = open.getOrDefault(seen.spine().id(), 0);
            rows.add(new Row(
                    seen, asked.contains(seen.spine().id()), n, TrialRules.start(seen.document(), actor.access(), n)));
        }
        return rows;
    }

    /** Whether somebody may begin one on a document. */
    public static boolean offers(Actor actor, Seen seen) {
        return seen.all()
                && !seen.spine().isChangePaper()
                && actor.access().may(Right.CHANGE, seen.document().place())
                && TrialRules.start(seen.document(), actor.access(), 0).isEmpty();
    }

    /**
     * Begins it on all of the documents, or on none.
     *
     * @param title what is tried
     * @return the address of the trial
     */
    public String start(Actor actor, Collection<Long> items, String title, String key) {
        String what = Texts.required("What is tried", title, 200).orElseThrow(Refused::new);
        if (items.isEmpty())
            throw Refused.because("trial.none", "No document is chosen.", "Choose what is tried; nothing was begun.");
        if (items.size() > TrialRules.MOST_TOGETHER)
            throw Refused.because(
                    "trial.many",
                    "A trial has " + TrialRules.MOST_TOGETHER + " documents at most.",
                    "Choose fewer; nothing was begun.");
        return acts.once(actor, key, () -> {
            List<Seen> all = sight.locked(actor, new LinkedHashSet<>(items));
            Map<Long, Integer> open =
                    trials.open(all.stream().map(s -> s.spine().id()).toList());
            Map<Long, Long> from = new HashMap<>();
            for (Seen seen : all) {
                if (!seen.all()) throw new NotThere();
                long id = seen.spine().id();
                TrialRules.start(seen.document(), actor.access(), open.getOrDefault(id, 0))
                        .ifPresent(r -> {
                            throw new Refused(r);
                        });
                from.put(id, seen.document().head().version());
            }
            Instant now = clock.instant();
            int number = trials.highest(from.keySet()) + 1;
            long trial = trials.add(number, what, actor.person(), now);
            documents.addTrialLines(trial, number, from);
            for (Seen seen : all)
                recorder.note(
                        actor,
                        seen.spine().id(),
                        "trial.started",
                        "started trial " + VersionName.line(number) + " from version "
                                + seen.document().head().number(),
                        what);
            return "/trials/" + trial;
        });
    }
}
