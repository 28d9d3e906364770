package mintshelf.app.use.run;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.EnumMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import mintshelf.app.effect.run.PlanMoved;
import mintshelf.app.effect.run.SetAct;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.Grants;
import mintshelf.app.store.document.Spine;
import mintshelf.app.store.notice.NoticeStore;
import mintshelf.app.store.run.Run;
import mintshelf.app.store.run.RunStore;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Plan;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;

/**
 * Acts over sets: the plan first, then a run. A run goes in portions, each whole or not at all; a short one ends within the request, a
 * long one is gone on with by whatever node is free, also after a kill. Whoever goes on has a lease, and its portion counts only while
 * the lease is still theirs.
 */
@Service
public class ActOverSet {
    /** Documents in one act. */
    public static final int MOST = 5_000;

    /** Documents in one portion: one transaction. */
    public static final int PORTION = 100;

    private static final Logger LOG = LoggerFactory.getLogger(ActOverSet.class);
    private static final Duration LEASE = Duration.ofSeconds(20);
    private static final Duration REQUEST = Duration.ofSeconds(5);
    private static final Duration TURN = Duration.ofMinutes(1);
    private static final Duration KEPT = Duration.ofDays(180);
    private static final int TRIES = 5;

    private final Map<Run.What, SetAct> known = new EnumMap<>(Run.What.class);
    private final RunStore runs;
    private final Grants people;
    private final NoticeStore notices;
    private final Acts once;
    private final UnitOfWork unit;
    private final JsonMapper json;
    private final Clock clock;

    public ActOverSet(
            List<SetAct> known,
            RunStore runs,
            Grants people,
            NoticeStore notices,
            Acts once,
            UnitOfWork unit,
            JsonMapper json,
            Clock clock) {
        known.forEach(act -> this.known.put(act.what(), act));
        this.runs = runs;
        this.people = people;
        this.notices = notices;
        this.once = once;
        this.unit = unit;
        this.json = json;
        this.clock = clock;
    }

    /** What the act would do; nothing is changed. */
    public Plan<SetAct.PlanLine> plan(Actor actor, Run.What what, Collection<Long> items, Wish wish) {
        Collection<Long> asked = new LinkedHashSet<>(items);
        if (asked.size() > MOST) {
            throw Refused.because(
                    "plan.many",
                    asked.size() + " documents are more than one act takes.",
                    "Take up to " + MOST + " at once; nothing was changed.");
        }
        Plan<SetAct.PlanLine> plan =
                asked.isEmpty() ? new Plan<>(List.of()) : act(what).plan(actor, asked, wish);
        if (plan.rows().isEmpty()) throw new NotThere();
        return plan;
    }

    private SetAct act(Run.What what) {
        return Optional.ofNullable(known.get(what)).orElseThrow(NotThere::new);
    }

    /** By which a plan is known: the same rows, that stand the same, seen at the same versions. */
    public static String digest(Plan<SetAct.PlanLine> plan) {
        StringBuilder all = new StringBuilder();
        for (Plan.Row<SetAct.PlanLine> row : plan.rows()) {
            SetAct.PlanLine line = row.of();
            all.append(line.seen().spine().id()).append(' ').append(row.stand()).append(' ');
            all.append(line.expected())
                    .append(' ')
                    .append(line.from().orElse(""))
                    .append('>');
            all.append(line.to().orElse("")).append(' ').append(line.label().orElse(""));
            row.refusals().forEach(r -> all.append(' ').append(r.code()));
            all.append('\n');
        }
        return ContentHash.compute(all.toString().getBytes(StandardCharsets.UTF_8))
                .hex();
    }

    /**
     * Does the act, as far as its plan is still the one that was seen.
     *
     * @param digest of the plan that was seen; none where the rows that were asked for are the plan
     * @param key of the act, a UUID: sent twice it is done once
     * @return the run's id
     * @throws PlanMoved with the plan that has become true, when it is another one
     */
    public long begin(
            Actor actor, Run.What what, Collection<Long> items, Wish wish, Optional<String> digest, String key) {
        if (runs.of(actor.person(), key).isPresent()) return Long.parseLong(once.once(actor, key, () -> "0"));
        Plan<SetAct.PlanLine> plan = plan(actor, what, items, wish);
        if (digest.isPresent() && !digest.get().equals(digest(plan))) throw new PlanMoved(plan);
        Refused.unlessOpen(plan, "plan.closed", "Nothing was changed.");
        AtomicReference<RunStore.Work> begun = new AtomicReference<>();
        String id;
        try {
            id = once.once(actor, key, () -> {
                RunStore.Work work = begin(actor, what, plan, wish, key);
                // What goes as one and is long is not waited for by a page.
                boolean waits = act(what).isWhole() && work.total() > PORTION;
                if (waits) runs.letGo(work, clock.instant());
                else begun.set(portion(actor, work));
                return Long.toString(work.id());
            });
        } catch (Refused e) {
            // What was open a moment ago: the plan that has become true says more than what was refused first.
            Plan<SetAct.PlanLine> now = plan(actor, what, items, wish);
            if (digest.isPresent() && !digest(now).equals(digest(plan))) throw new PlanMoved(now);
            throw e;
        }
        // Sent again meanwhile, it is the first one's to go on with.
        if (begun.get() != null) goOn(actor, begun.get(), clock.instant().plus(REQUEST));
        return Long.parseLong(id);
    }

    /**
     * Does the act where all that goes stands as a page showed it: what has moved on since is not done unseen, neither before this plan
     * nor after it.
     *
     * @param shown what a row was expected to be at, by document
     */
    public long beginAsShown(
            Actor actor, Run.What what, Collection<Long> items, Wish wish, Map<Long, String> shown, String key) {
        if (runs.of(actor.person(), key).isPresent()) return Long.parseLong(once.once(actor, key, () -> "0"));
        Plan<SetAct.PlanLine> plan = plan(actor, what, items, wish);
        for (SetAct.PlanLine line : plan.going()) {
            Spine spine = line.seen().spine();
            if (!line.expected().equals(shown.get(spine.id())))
                throw movedOn(spine.document().number());
        }
        try {
            return begin(actor, what, items, wish, Optional.of(digest(plan)), key);
        } catch (PlanMoved e) {
            throw movedOn("What you chose");
        }
    }

    private static Refused movedOn(String what) {
        return Refused.because(
                "page.old",
                what + " has moved on since your page was made.",
                "Look at it as it stands now; nothing was changed.");
    }

    private RunStore.Work begin(Actor actor, Run.What what, Plan<SetAct.PlanLine> plan, Wish wish, String key) {
        List<Run.Due> due = plan.going().stream()
                .map(l -> new Run.Due(l.seen().spine().id(), l.expected()))
                .toList();
        Instant now = clock.instant();
        return runs.begin(
                actor.person(),
                key,
                what,
                act(what).says(plan.going(), wish),
                json.writeValueAsString(wish),
                due,
                now,
                now.plus(LEASE));
    }

    /** Asks anew for what a run that stopped has left; a run of its own. */
    public long rest(Actor actor, long run, String key) {
        Run stopped = runs.run(run)
                .filter(r -> r.person() == actor.person() && r.isStopped())
                .orElseThrow(NotThere::new);
        List<Long> left =
                runs.rows(run, stopped.done(), MOST).stream().map(Run.Row::item).toList();
        // A password that was said for what is done already is not said for the rest.
        Wish wish = json.readValue(runs.wish(run).orElseThrow(NotThere::new), Wish.class)
                .saidAgain(false);
        return begin(actor, stopped.what(), left, wish, Optional.empty(), key);
    }

    private RunStore.Work portion(Actor actor, RunStore.Work work) {
        SetAct act = act(work.what());
        List<Run.Due> due = runs.due(work, act.isWhole() ? MOST : PORTION);
        List<Run.Row> rows = act.carryOut(actor, due, json.readValue(work.wish(), Wish.class));
        if (rows.size() != due.size()) throw new IllegalStateException(work.what() + " left rows out");
        Instant now = clock.instant();
        return runs.did(work, rows, now, now.plus(LEASE));
    }

    /** Portion after portion until the run has ended, the time is used up, or it is another's. */
    private Ended goOn(Actor actor, RunStore.Work begun, Instant until) {
        RunStore.Work work = begun;
        while (work.done() < work.total()) {
            RunStore.Work mine = work;
            if (clock.instant().isAfter(until)) {
                unit.run(() -> runs.letGo(mine, clock.instant()));
                return Ended.NOT_YET;
            }
            try {
                Optional<RunStore.Work> next = unit.run(() -> runs.locked(mine).map(w -> portion(actor, w)));
                if (next.isEmpty()) return Ended.NOT_YET;
                work = next.get();
            } catch (Refused e) {
                return stop(mine, e.refusal().says());
            } catch (NotThere e) {
                return stop(mine, "A document of it is not there any more.");
            } catch (RuntimeException e) {
                LOG.warn("A portion of run {} failed, try {}", mine.id(), mine.tries(), e);
                if (mine.tries() >= TRIES) return stop(mine, "It could not be done; the log of the server says why.");
                unit.run(() -> runs.letGo(mine, clock.instant().plusSeconds(1L << mine.tries())));
                return Ended.NOT_YET;
            }
        }
        return Ended.DONE;
    }

    private enum Ended {
        NOT_YET,
        DONE,
        STOPPED
    }

    private Ended stop(RunStore.Work work, String why) {
        return unit.run(() -> runs.stop(work, why, clock.instant())) ? Ended.STOPPED : Ended.NOT_YET;
    }

    /** Goes on with all that waits: long runs, and those whose node has died. */
    @Scheduled(initialDelayString = "PT2S", fixedDelayString = "PT1S")
    public void run() {
        while (goOnWithNext()) {
            // until nothing waits
        }
    }

    /** Whether something waited. */
    public boolean goOnWithNext() {
        Instant now = clock.instant();
        Optional<RunStore.Work> next = unit.run(() -> runs.take(now, now.plus(LEASE)));
        if (next.isEmpty()) return false;
        RunStore.Work work = next.get();
        Optional<Actor> actor = people.actor(work.person());
        Ended ended = actor.isEmpty() || work.tries() > TRIES
                ? stop(work, actor.isEmpty() ? "Who asked for it has left." : "It could not be done.")
                : goOn(actor.get(), work, clock.instant().plus(TURN));
        if (ended != Ended.NOT_YET) tell(work, ended);
        return true;
    }

    /** The request is answered long since: who asked for it is told on Today. */
    private void tell(RunStore.Work work, Ended ended) {
        Run run = runs.run(work.id()).orElseThrow();
        String says = ended == Ended.DONE ? run.says() + ": done" : run.says();
        unit.run(() -> notices.tell(
                run.person(), "run.ended", Optional.empty(), run.person(), says, "/runs/" + run.id(), clock.instant()));
    }

    /** Forgets reports of long ago; what was done stands in the record. */
    @Scheduled(initialDelayString = "PT7M", fixedDelayString = "PT6H")
    public void forget() {
        while (unit.run(() -> runs.forget(clock.instant().minus(KEPT), 500)) == 500) {
            // until none is that old
        }
    }
}
