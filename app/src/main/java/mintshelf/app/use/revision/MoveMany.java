package mintshelf.app.use.revision;

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
import mintshelf.app.effect.Bundles;
import mintshelf.app.effect.References;
import mintshelf.app.effect.deed.Mover;
import mintshelf.app.effect.deed.Setting;
import mintshelf.app.effect.run.SetAct;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.run.Run;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Document;
import mintshelf.core.document.Revision;
import mintshelf.core.route.By;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Move;
import mintshelf.core.route.MoveRules;
import mintshelf.core.route.Way;
import mintshelf.core.structure.StructureGraph;
import org.springframework.stereotype.Service;

/** Moves documents along their routes by hand, components before what they stand in. */
@Service
public class MoveMany implements SetAct {
    private final Sight sight;
    private final Bundles bundles;
    private final References references;
    private final Clock clock;

    public MoveMany(Sight sight, Bundles bundles, References references, Clock clock) {
        this.sight = sight;
        this.bundles = bundles;
        this.references = references;
        this.clock = clock;
    }

    @Override
    public Run.What what() {
        return Run.What.MOVE;
    }

    @Override
    public String says(List<PlanLine> going, Wish wish) {
        return "Move " + Numbers.count(going.size(), "document", "documents") + " to "
                + going.get(0).to().orElseThrow();
    }

    private static String code(Wish wish) {
        return wish.move().orElseThrow(NotThere::new);
    }

    private static By by(Wish wish) {
        return By.handSaying(Texts.optional("The remark", wish.words(), 500).orElseThrow(Refused::new));
    }

    @Override
    public Plan<PlanLine> plan(Actor actor, Collection<Long> items, Wish wish) {
        Map<Long, Seen> own = new LinkedHashMap<>();
        List<Plan.Row<PlanLine>> others = new ArrayList<>();
        sight.of(actor, items).forEach((id, seen) -> {
            if (seen.all()) own.put(id, seen);
            // Of what a reader sees no gate is asked: gates tell of work in preparation.
            else others.add(Plan.Row.asked(PlanLine.of(seen), List.of(SetAct.notShown(seen))));
        });
        List<Plan.Row<PlanLine>> rows = new ArrayList<>();
        for (Plan.Row<Bundles.Going> row : bundles.plan(actor, upwards(own), Way.named(code(wish)), by(wish))
                .rows()) {
            List<Refusal> inTheWay =
                    new ArrayList<>(elsewhere(row.of()).stream().toList());
            // Of one that stands elsewhere nothing else is asked: it is another move's turn.
            if (inTheWay.isEmpty()) {
                inTheWay.addAll(row.refusals());
                ownPage(row.of()).ifPresent(inTheWay::add);
            }
            rows.add(Plan.Row.asked(line(row.of()), inTheWay));
        }
        rows.addAll(others);
        return new Plan<>(rows);
    }

    /** Each after its own components, so that a gate that asks for them finds them where they are to be. */
    private List<Seen> upwards(Map<Long, Seen> seen) {
        long[] ids = seen.keySet().stream().mapToLong(i -> i).toArray();
        Set<Long> order = new LinkedHashSet<>();
        for (long id : StructureGraph.of(references.usesOf(seen.keySet())).upwards(ids)) order.add(id);
        order.retainAll(seen.keySet());
        order.addAll(seen.keySet());
        return order.stream().map(seen::get).toList();
    }

    private static Optional<Refusal> elsewhere(Bundles.Going going) {
        Document document = going.document();
        return going.move()
                .filter(m -> MoveRules.revision(m, document).isEmpty())
                .map(m -> Refusal.of(
                        "move.stage",
                        document.number() + " is “" + document.current().stage().name() + "”, and “" + m.name()
                                + "” begins at “"
                                + going.route().stage(m.from()).name() + "”.",
                        "Leave it out."));
    }

    /** What asks for more than a word is done on its own page. */
    private static Optional<Refusal> ownPage(Bundles.Going going) {
        Document document = going.document();
        if (going.seen().spine().isChangePaper()) {
            return Optional.of(Refusal.of(
                    "change.paper",
                    document.number() + " is a " + going.seen().spine().kindName() + "; changes write it.",
                    "Its own page says what can be done."));
        }
        Optional<Move> move = going.move();
        if (move.filter(m -> m.does(Effect.OPEN_ROUND)).isPresent()) {
            return Optional.of(Refusal.of(
                    "move.asks", document.number() + " goes to who signs it.", "Send it to review, and say who."));
        }
        if (move.filter(Move::isMadeByRound).isPresent()) {
            return Optional.of(Refusal.of(
                    "move.signed", "The last signature moves " + document.number() + ".", "It is asked for already."));
        }
        if (move.filter(m -> m.does(Effect.END_ROUND)).isPresent()) {
            return Optional.of(Refusal.of(
                    "move.together",
                    document.number() + " comes back with all that was sent with it.",
                    "Take it back on its own page."));
        }
        return Optional.empty();
    }

    private static PlanLine line(Bundles.Going going) {
        Revision revision = going.document().current();
        return new PlanLine(
                going.seen(),
                Integer.toString(going.seen().version()),
                Optional.of(revision.stage().name()),
                going.move().map(m -> going.route().stage(m.to()).name()),
                revision.label(),
                List.of());
    }

    @Override
    public List<Run.Row> carryOut(Actor actor, List<Run.Due> due, Wish wish) {
        Map<Long, String> expected = new LinkedHashMap<>();
        due.forEach(d -> expected.put(d.item(), d.expected()));
        List<Seen> all = sight.locked(actor, expected.keySet());
        for (Seen seen : all) {
            if (!seen.all()) throw new NotThere();
            Sight.expectVersion(seen, Integer.parseInt(expected.get(seen.spine().id())));
        }
        By by = by(wish);
        Plan<Bundles.Going> plan = bundles.plan(actor, all, Way.named(code(wish)), by);
        plan.going()
                .forEach(g -> ownPage(g).ifPresent(r -> {
                    throw new Refused(r);
                }));
        Refused.unlessOpen(plan, "move.refused", "They stay where they are.");
        Map<Long, Mover> moved = new HashMap<>();
        bundles.carryOut(plan, Setting.of(actor, by, by.reason().orElse(""), clock.instant(), all))
                .forEach(m -> moved.put(m.document().id(), m));
        return due.stream()
                .map(d ->
                        new Run.Row(d.item(), "moved", moved.get(d.item()).out().number()))
                .toList();
    }
}
