package mintshelf.app.use.hold;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.Habits;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.sight.TakeAlong;
import mintshelf.app.sight.TakeAlong.With;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.app.store.run.Run;
import mintshelf.app.store.run.RunStore;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Document;
import mintshelf.core.hold.AlongRules;
import mintshelf.core.hold.AlongRules.Fate;
import mintshelf.core.hold.AlongRules.Verdict;
import mintshelf.core.hold.AlongRules.Via;
import mintshelf.core.hold.HoldRules;
import org.springframework.stereotype.Service;

/** Takes holds, gives them back, breaks them, asks for them. A set is granted whole or not at all. */
@Service
public class CheckOut {
    /** Documents in one check-out. */
    public static final int MOST = 500;

    private final Sight sight;
    private final TakeAlong along;
    private final Habits habits;
    private final HoldStore holds;
    private final Acts acts;
    private final RunStore runs;
    private final Recorder recorder;
    private final Clock clock;

    public CheckOut(
            Sight sight,
            TakeAlong along,
            Habits habits,
            HoldStore holds,
            Acts acts,
            RunStore runs,
            Recorder recorder,
            Clock clock) {
        this.sight = sight;
        this.along = along;
        this.habits = habits;
        this.holds = holds;
        this.acts = acts;
        this.runs = runs;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** A row of the plan: a document, why it is in it, and what may become of it. */
    public record Row(Seen seen, Via via, Verdict verdict) {
        /** Why the row is here and of which kind it is; one word where both have one name. */
        public String words() {
            String kind = seen.spine().kindName();
            return via == Via.ASKED || via.words().equals(kind) ? kind : via.words() + ", " + kind;
        }

        public boolean opens() {
            return verdict.proposed() == Fate.HOLD;
        }
    }

    /**
     * What a check-out would do.
     *
     * @param with what goes along
     * @param offered what could go along
     * @param remembered whether the choice is the one that the person made last
     * @param drawings what taking drawings along is called here
     */
    public record Plan(List<Row> rows, Set<With> with, Set<With> offered, boolean remembered, String drawings) {
        /** What a choice is called. */
        public String words(With one) {
            return one == With.DRAWINGS ? drawings : one.words();
        }

        public boolean isQuiet() {
            return rows.stream().allMatch(r -> r.opens() && !r.verdict().isChoice());
        }

        public String sentence() {
            long held = count(Fate.HOLD);
            return AlongRules.sentence(held, count(Fate.COPY), count(Fate.STAY));
        }

        private long count(Fate fate) {
            return rows.stream().filter(r -> r.verdict().proposed() == fate).count();
        }
    }

    /**
     * What a check-out of these documents would do; nothing is changed.
     *
     * @param asked what goes along; empty for what the person chose last for this kind, for a newcomer its drawing
     */
    public Plan plan(Actor actor, Collection<Long> items, Optional<Set<With>> asked) {
        if (items.isEmpty() || items.size() > MOST) throw new NotThere();
        Map<Long, Seen> all = sight.of(actor, items);
        if (all.isEmpty()) throw new NotThere();
        String kind = all.values().iterator().next().spine().kindCode();
        Set<With> offered = along.offered(actor, all.keySet());
        Optional<Set<With>> habit = habits.along(actor, "check-out", kind);
        Set<With> with = EnumSet.noneOf(With.class);
        with.addAll(asked.or(() -> habit).orElse(EnumSet.of(With.DRAWINGS)));
        with.retainAll(offered);
        boolean holds = habits.holds(actor, kind);
        List<Row> rows = along.gather(actor, all.keySet(), with).stream()
                .map(a -> new Row(a.seen(), a.via(), verdict(actor, a, holds)))
                .toList();
        return new Plan(rows, with, offered, asked.isEmpty() && habit.isPresent(), along.drawingsOf(all.keySet()));
    }

    private static Verdict verdict(Actor actor, TakeAlong.Along a, boolean holds) {
        Optional<Refusal> unseen = a.seen().all() ? Optional.empty() : refusal(actor, a.seen());
        if (unseen.isPresent()) {
            List<Fate> fates = a.via() == Via.ASKED ? List.of(Fate.STAY) : List.of(Fate.COPY, Fate.STAY);
            return new Verdict(fates, unseen);
        }
        return AlongRules.verdict(a.seen().document(), actor.access(), a.via(), a.library(), holds);
    }

    private static Optional<Refusal> refusal(Actor actor, Seen seen) {
        if (!seen.all()) {
            return Optional.of(Refusal.of(
                    "access.missing", "You see released versions of it only.", "A data manager can change that."));
        }
        return HoldRules.checkOut(seen.document(), actor.access());
    }

    /** As {@link #take(Actor, Collection, Collection, String, String, String)}, with nothing that goes along. */
    public String take(Actor actor, Collection<Long> items, String key, String desk, String purpose) {
        return take(actor, items, List.of(), key, desk, purpose);
    }

    /** Remembers what a person took along with documents of this kind. */
    public void remember(Actor actor, long item, Set<With> with, boolean holds) {
        String kind = sight.of(actor, item).spine().kindCode();
        habits.choseAlong(actor, "check-out", kind, with);
        habits.choseHolds(actor, kind, holds);
    }

    /**
     * Checks the documents out to the actor: all of them, or none with what is in the way of each.
     *
     * @param copies documents that come along as copies; nothing happens to them here
     */
    /** In one sentence: "TG40-3030 and 1 more checked out, 1 copy along". */
    private static String says(Document first, List<Run.Row> rows) {
        long held = rows.stream().filter(r -> r.became().equals("held")).count();
        long copied = rows.size() - held;
        return first.number() + (held == 1 ? "" : " and " + (held - 1) + " more") + " checked out"
                + (copied == 0 ? "" : ", " + Numbers.count(copied, "copy", "copies") + " along");
    }

    public String take(
            Actor actor, Collection<Long> items, Collection<Long> copies, String key, String desk, String purpose) {
        String cleanDesk = Texts.optional("The desk", desk, 100).orElseThrow(Refused::new);
        String cleanPurpose = Texts.optional("The purpose", purpose, 200).orElseThrow(Refused::new);
        if (items.isEmpty() || items.size() > MOST) throw new NotThere();
        return acts.once(actor, key, () -> {
            List<Seen> all = sight.locked(actor, items);
            List<String> reasons = new ArrayList<>();
            for (Seen seen : all) refusal(actor, seen).ifPresent(r -> reasons.add(r.says()));
            if (!reasons.isEmpty()) {
                throw Refused.because(
                        "check_out.refused",
                        reasons.size() == 1
                                ? reasons.get(0)
                                : Numbers.count(reasons.size(), "document", "documents") + " cannot be checked out: "
                                        + String.join(" ", reasons),
                        all.size() == 1 ? "" : "Nothing was checked out; leave those rows out.");
            }
            Instant now = clock.instant();
            List<Document> documents = all.stream().map(Seen::document).toList();
            holds.take(documents, actor.person(), cleanDesk, cleanPurpose, now);
            for (Document document : documents) {
                recorder.recent(actor, document.id(), "checked out");
                int head = document.head().number();
                recorder.note(actor, document.id(), "hold.taken", head, "checked out version " + head, cleanPurpose);
            }
            if (all.size() == 1 && copies.isEmpty())
                return "/documents/" + all.get(0).spine().id() + "?taken";
            List<Run.Row> rows = new ArrayList<>();
            for (Document document : documents)
                rows.add(new Run.Row(document.id(), "held", document.head().number()));
            sight.of(actor, copies)
                    .values()
                    .forEach(s -> rows.add(new Run.Row(s.spine().id(), "copy", s.version())));
            long run = runs.done(actor.person(), key, Run.What.CHECK_OUT, says(documents.get(0), rows), rows, now);
            return "/runs/" + run;
        });
    }

    /** What could be given back together with documents: what the actor holds of what goes along with them. */
    public List<Seen> undoPlan(Actor actor, Collection<Long> items) {
        Map<Long, Seen> asked = sight.of(actor, items);
        if (asked.isEmpty()) throw new NotThere();
        return along.gather(actor, asked.keySet(), EnumSet.of(With.DRAWINGS, With.ALL_LEVELS, With.PARENTS)).stream()
                .map(TakeAlong.Along::seen)
                .filter(s -> s.document()
                        .holder()
                        .filter(h -> h.person() == actor.person())
                        .isPresent())
                .toList();
    }

    /** Gives holds back unchanged. */
    public String undo(Actor actor, Collection<Long> items, String key) {
        return acts.once(actor, key, () -> {
            List<Seen> all = sight.locked(actor, items);
            for (Seen seen : all) {
                Document document = seen.document();
                HoldRules.useHold(document, actor.access()).ifPresent(r -> {
                    throw new Refused(Refusal.of(r.code(), r.reason(), "Nothing was changed."));
                });
                holds.end(
                        document.holder().orElseThrow().hold(),
                        HoldStore.Ending.UNDONE,
                        actor.person(),
                        "",
                        clock.instant());
                recorder.note(
                        actor, document.id(), "hold.undone", document.head().number(), "undid the check-out", "");
            }
            return all.size() == 1 ? "/documents/" + all.get(0).spine().id() + "?undone" : "/today?undone";
        });
    }
}
