package mintshelf.app.use.swap;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import mintshelf.app.effect.AskHolder;
import mintshelf.app.effect.Bundles;
import mintshelf.app.effect.deed.Setting;
import mintshelf.app.effect.run.SetAct;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.Spine;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.document.SuccessorStore;
import mintshelf.app.store.run.Run;
import mintshelf.app.use.swap.Parents.All;
import mintshelf.app.use.swap.Parents.Both;
import mintshelf.app.use.swap.Parents.Choice;
import mintshelf.app.use.swap.Parents.Parent;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Holder;
import mintshelf.core.reuse.Swaps.Fate;
import mintshelf.core.reuse.Swaps.Pair;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.By;
import mintshelf.core.route.Way;
import org.springframework.stereotype.Service;

/**
 * Puts documents in the place of others in all that they stand in: files are rewritten, who holds one is asked, what cannot be written
 * becomes a job, what is not used any more is withdrawn. All of it or nothing.
 */
@Service
public class SwapDocuments implements SetAct {
    private final Parents parents;
    private final Sight sight;
    private final Exchange exchange;
    private final AskHolder ask;
    private final Bundles bundles;
    private final SuccessorStore successors;
    private final SpineStore spines;
    private final Clock clock;

    public SwapDocuments(
            Parents parents,
            Sight sight,
            Exchange exchange,
            AskHolder ask,
            Bundles bundles,
            SuccessorStore successors,
            SpineStore spines,
            Clock clock) {
        this.spines = spines;
        this.parents = parents;
        this.sight = sight;
        this.exchange = exchange;
        this.ask = ask;
        this.bundles = bundles;
        this.successors = successors;
        this.clock = clock;
    }

    @Override
    public Run.What what() {
        return Run.What.SWAP;
    }

    @Override
    public boolean isWhole() {
        return true;
    }

    private static Wish.Swap swap(Wish wish) {
        return wish.swap().orElseThrow(NotThere::new);
    }

    @Override
    public String says(List<PlanLine> going, Wish wish) {
        List<Pair> pairs = swap(wish).pairs();
        Map<Long, Spine> known = spines.spines(
                pairs.stream().flatMap(p -> List.of(p.old(), p.now()).stream()).toList());
        Pair first = pairs.get(0);
        String more = pairs.size() == 1 ? "" : " and " + Numbers.count(pairs.size() - 1, "other pair", "other pairs");
        return "Put " + number(known, first.now()) + " in the place of " + number(known, first.old()) + more + " in "
                + Numbers.count(going.size(), "document", "documents");
    }

    private static String number(Map<Long, Spine> known, long item) {
        return Optional.ofNullable(known.get(item))
                .map(s -> s.document().number())
                .orElse("another one");
    }

    /** Who is meant by pairs, of which the actor sees both whole. */
    public Both both(Actor actor, List<Pair> pairs) {
        return parents.both(actor, pairs);
    }

    /** All that they stand in, with what would become of it by itself. */
    public All parents(Actor actor, Both both) {
        return parents.of(actor, both);
    }

    /** All that they stand in and that can be written now. */
    public List<Long> written(Actor actor, Both both) {
        return parents.of(actor, both).parents().stream()
                .filter(p -> p.fate().isWritten())
                .map(p -> p.seen().spine().id())
                .toList();
    }

    /** What keeps each of those that go out from being withdrawn in the same act, where all goes as it goes by itself. */
    public Map<Long, Optional<Refusal>> withdrawals(Actor actor, Both both, All all) {
        Set<Long> rewritten = new LinkedHashSet<>();
        for (Parent p : all.parents())
            if (p.choices().contains(Choice.FOLLOWS))
                rewritten.add(p.seen().spine().id());
        Map<Long, Set<Long>> still = parents.stillUsed(both.olds(), rewritten);
        Map<Long, Optional<Refusal>> found = new HashMap<>();
        for (Pair pair : both.pairs()) {
            Optional<Refusal> parent = all.of(pair.old()).map(p -> followsItself(p.seen()));
            found.put(
                    pair.old(),
                    parent.or(() ->
                            withdrawn(actor, both, pair, still.getOrDefault(pair.old(), Set.of()), Wish.NONE)
                                    .refusals()
                                    .stream()
                                    .findFirst()));
        }
        return found;
    }

    /** What goes out and is a parent of another one is written, not withdrawn. */
    private static Refusal followsItself(Seen old) {
        return Refusal.of(
                "swap.parent",
                old.document().number() + " has another one of them in it and follows itself.",
                "Withdraw it by a swap of its own.");
    }

    @Override
    public Plan<PlanLine> plan(Actor actor, Collection<Long> items, Wish wish) {
        Both both = parents.both(actor, swap(wish).pairs());
        return plan(actor, items, wish, both, parents.of(actor, both));
    }

    private Plan<PlanLine> plan(Actor actor, Collection<Long> items, Wish wish, Both both, All all) {
        Set<Long> asked = new LinkedHashSet<>(items);
        List<Plan.Row<PlanLine>> rows = new ArrayList<>();
        Set<Long> rewritten = new LinkedHashSet<>();
        for (Parent parent : all.parents()) {
            long id = parent.seen().spine().id();
            if (!asked.remove(id)) continue;
            Plan.Row<PlanLine> row = row(parent, swap(wish), both);
            if (row.goes() && become(parent, swap(wish)) == Choice.FOLLOWS) rewritten.add(id);
            rows.add(row);
        }
        Map<Long, Set<Long>> still = asked.isEmpty() ? Map.of() : parents.stillUsed(both.olds(), rewritten);
        for (Pair pair : both.pairs()) {
            if (!asked.remove(pair.old())) continue;
            rows.add(withdrawn(actor, both, pair, still.getOrDefault(pair.old(), Set.of()), wish));
        }
        // What does not name them any more: it moved on since the page was made.
        for (Seen seen : sight.of(actor, asked).values())
            rows.add(Plan.Row.asked(
                    PlanLine.of(seen),
                    List.of(Refusal.of(
                            "swap.elsewhere",
                            "None of them stands in " + seen.document().number() + " any more.",
                            "Leave it out."))));
        return new Plan<>(rows);
    }

    /** What becomes of a parent, of what may: what was chosen for it, else that its file is written, else nothing. */
    private static Choice become(Parent parent, Wish.Swap swap) {
        long id = parent.seen().spine().id();
        if (swap.asks().contains(id) && parent.choices().contains(Choice.ASK)) return Choice.ASK;
        if (swap.jobs().contains(id) && parent.choices().contains(Choice.JOB)) return Choice.JOB;
        return parent.choices().contains(Choice.FOLLOWS) ? Choice.FOLLOWS : Choice.OUT;
    }

    private Plan.Row<PlanLine> row(Parent parent, Wish.Swap swap, Both both) {
        Seen seen = parent.seen();
        if (parent.fate() == Fate.STAYS)
            return Plan.Row.stays(PlanLine.of(seen, refusal(parent).reason()));
        Choice become = become(parent, swap);
        if (become == Choice.ASK)
            return Plan.Row.asked(PlanLine.of(seen, holder(seen).name() + " is asked for it"), List.of());
        if (become == Choice.JOB)
            return Plan.Row.asked(PlanLine.of(seen, "becomes a job: " + exchange.says(parent, both)), List.of());
        if (become == Choice.OUT) return Plan.Row.asked(PlanLine.of(seen), List.of(refusal(parent)));
        String says = parent.sheetOf()
                .map(of -> "its list says the number: a version with "
                        + of.document().number())
                .orElse("references in the file rewritten: a new version");
        return Plan.Row.asked(
                new PlanLine(
                        seen,
                        Integer.toString(seen.version()),
                        Optional.empty(),
                        Optional.empty(),
                        Optional.empty(),
                        parent.fate() == Fate.REVISED
                                ? List.of("starts the next revision; what is released stays released", says)
                                : List.of(says)),
                List.of());
    }

    private static Refusal refusal(Parent parent) {
        return parent.verdict()
                .refusal()
                .orElseGet(
                        () -> Refusal.of("swap.stays", parent.seen().document().number() + " stays as it is.", ""));
    }

    private static Holder holder(Seen seen) {
        return seen.document().holder().orElseThrow(NotThere::new);
    }

    private Plan.Row<PlanLine> withdrawn(Actor actor, Both both, Pair pair, Set<Long> users, Wish wish) {
        Seen old = both.of(pair.old());
        PlanLine line = PlanLine.of(old, "is withdrawn; " + both.number(pair.now()) + " takes its place");
        if (!users.isEmpty()) return Plan.Row.asked(line, List.of(stillUsed(actor, old, users)));
        if (old.current().stage().stageClass() != StageClass.RELEASED)
            return Plan.Row.asked(line, List.of(notInForce(old)));
        Plan<Bundles.Going> plan = bundles.plan(actor, List.of(old), Way.withdrawn(), By.handSaying(reason(wish)));
        return Plan.Row.asked(line, plan.refusals());
    }

    private static Refusal notInForce(Seen old) {
        boolean over = old.current().stage().stageClass() == StageClass.WITHDRAWN;
        return Refusal.of(
                "swap.not_in_force",
                old.document().number()
                        + (over ? " is withdrawn already." : " is not in force: there is nothing to withdraw."),
                over ? "" : "Drop it, or its pending revision, where nobody needs it.");
    }

    private Refusal stillUsed(Actor actor, Seen old, Set<Long> users) {
        List<String> seen = sight.of(actor, users).values().stream()
                .map(s -> s.document().number())
                .distinct()
                .sorted()
                .limit(3)
                .toList();
        int more = users.size() - seen.size();
        return Refusal.of(
                "swap.used",
                old.document().number() + " is still used"
                        + (seen.isEmpty() ? "" : " in " + String.join(", ", seen))
                        + (more == 0 ? "" : seen.isEmpty() ? " in " + more : " and " + more + " more")
                        + ", in force or in work.",
                "Withdraw it when they have followed; swap again then, this page finds what is left.");
    }

    private static String reason(Wish wish) {
        // Before it is written nothing else is known of why: what asks for a reason asks when it is done.
        return wish.words().isBlank() ? "swapped" : wish.words();
    }

    @Override
    public List<Run.Row> carryOut(Actor actor, List<Run.Due> due, Wish wish) {
        String why = Texts.required("The reason", wish.words(), 500).orElseThrow(Refused::new);
        Map<Long, Seen> locked = new HashMap<>();
        Set<Long> lock = new LinkedHashSet<>(due.stream().map(Run.Due::item).toList());
        // What comes in is not dropped or withdrawn meanwhile.
        swap(wish).pairs().forEach(p -> lock.add(p.now()));
        sight.locked(actor, lock).forEach(s -> locked.put(s.spine().id(), s));
        parents.closeGate();
        Both both = parents.both(actor, swap(wish).pairs());
        All all = parents.of(actor, both);
        List<Long> items = due.stream().map(Run.Due::item).toList();
        Refused.unlessOpen(plan(actor, items, wish, both, all), "swap.refused", "Nothing was changed.");
        Map<Long, Run.Row> done = new LinkedHashMap<>();
        Map<Holder, List<Seen>> asked = new TreeMap<>((a, b) -> Long.compare(a.person(), b.person()));
        for (Run.Due one : due) {
            Seen seen = locked.get(one.item());
            if (!seen.all()) throw new Refused(SetAct.notShown(seen));
            Sight.expectVersion(seen, Integer.parseInt(one.expected()));
            Optional<Parent> parent = all.of(one.item());
            if (parent.isEmpty()) continue;
            Choice become = become(parent.get(), swap(wish));
            if (become == Choice.ASK) {
                asked.computeIfAbsent(holder(seen), h -> new ArrayList<>()).add(seen);
                done.put(one.item(), new Run.Row(one.item(), "asked", seen.version()));
            } else if (become == Choice.JOB) {
                long job = exchange.job(actor, parent.get(), both, why);
                done.put(one.item(), new Run.Row(one.item(), "job", job));
            } else {
                done.put(
                        one.item(), new Run.Row(one.item(), "version", exchange.write(actor, parent.get(), both, why)));
            }
        }
        asked.forEach(
                (holder, seen) -> ask.ask(actor, holder, seen, Texts.shorten(exchange.pairs(both) + ": " + why, 300)));
        for (Pair pair : both.pairs()) {
            if (!items.contains(pair.old()) || done.containsKey(pair.old())) continue;
            withdraw(actor, both, pair, why);
            done.put(
                    pair.old(),
                    new Run.Row(pair.old(), "withdrawn", both.of(pair.old()).version()));
        }
        return due.stream()
                .map(d -> done.getOrDefault(d.item(), new Run.Row(d.item(), "unchanged", 0)))
                .toList();
    }

    private void withdraw(Actor actor, Both both, Pair pair, String why) {
        Seen old = both.of(pair.old());
        String says = why + "; " + both.number(pair.now()) + " in its place";
        By by = By.handSaying(why);
        Plan<Bundles.Going> plan = bundles.plan(actor, List.of(old), Way.withdrawn(), by);
        Refused.unlessOpen(plan, "swap.refused", "Nothing was changed.");
        bundles.carryOut(plan, Setting.of(actor, by, says, clock.instant(), List.of(old)));
        successors.keep(pair.old(), pair.now(), actor.person(), clock.instant());
    }
}
