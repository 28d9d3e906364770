package mintshelf.app.use.house;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.run.SetAct;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.RevisionStore.Standing;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.RouteStore;
import mintshelf.app.store.run.Run;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Revision;
import mintshelf.core.document.Stage;
import mintshelf.core.route.MovingOver;
import mintshelf.core.route.Route;
import org.springframework.stereotype.Service;

/** Lets documents under way go on with the latest edition of their route, stage by stage; the others finish where they are. */
@Service
public class MoveOver implements SetAct {
    /** As many as one plan takes. */
    private static final int MOST = 5_000;

    private final Sight sight;
    private final RevisionStore revisions;
    private final RouteStore routes;
    private final HouseStore house;
    private final Recorder recorder;

    public MoveOver(Sight sight, RevisionStore revisions, RouteStore routes, HouseStore house, Recorder recorder) {
        this.sight = sight;
        this.revisions = revisions;
        this.routes = routes;
        this.house = house;
        this.recorder = recorder;
    }

    @Override
    public Run.What what() {
        return Run.What.MOVE_OVER;
    }

    @Override
    public String says(List<PlanLine> going, Wish wish) {
        return "Move " + Numbers.count(going.size(), "document", "documents") + " over to the latest edition";
    }

    /** Documents under way on earlier editions of a route. */
    public List<Long> earlier(Actor actor, String route) {
        HouseRules.ask(actor);
        long latest =
                routes.latest(routes.route(route).orElseThrow(NotThere::new)).edition();
        List<Long> editions = revisions.standings().stream()
                .filter(Standing::pending)
                .map(Standing::edition)
                .distinct()
                .filter(e -> e != latest && routes.edition(e).code().equals(route))
                .toList();
        return editions.isEmpty() ? List.of() : revisions.underWayOn(editions, MOST);
    }

    /** The latest edition of the route that a document's next revision would go, kept for one plan. */
    private Route latest(Seen seen, Map<List<Long>, Route> known) {
        long kind = seen.document().place().kind();
        long shelf = seen.document().place().shelf();
        return known.computeIfAbsent(List.of(kind, shelf), k -> {
            Kind of = house.kind(kind);
            return house.latest(of, shelf);
        });
    }

    @Override
    public Plan<PlanLine> plan(Actor actor, Collection<Long> items, Wish wish) {
        HouseRules.ask(actor);
        Map<List<Long>, Route> known = new HashMap<>();
        List<Plan.Row<PlanLine>> rows = new ArrayList<>();
        for (Seen seen : sight.of(actor, items).values()) {
            if (!seen.all()) {
                rows.add(Plan.Row.asked(PlanLine.of(seen), List.of(SetAct.notShown(seen))));
                continue;
            }
            Revision current = seen.document().current();
            Route latest = latest(seen, known);
            Outcome<Optional<Stage>> to = MovingOver.to(current.stage(), latest);
            Optional<Stage> stage = to instanceof Outcome.Granted<Optional<Stage>> g ? g.value() : Optional.empty();
            PlanLine line = new PlanLine(
                    seen,
                    current.id() + " " + current.stage().edition() + " "
                            + current.stage().code(),
                    Optional.of(current.stage().name()),
                    stage.map(Stage::name),
                    current.label(),
                    stage.map(s -> "stands in " + s.name() + " of " + latest.name()).stream()
                            .toList());
            List<Refusal> inTheWay = to.refusal().stream().toList();
            boolean stays = inTheWay.isEmpty() && stage.isEmpty();
            rows.add(stays ? Plan.Row.stays(line) : Plan.Row.asked(line, inTheWay));
        }
        return new Plan<>(rows);
    }

    @Override
    public List<Run.Row> carryOut(Actor actor, List<Run.Due> due, Wish wish) {
        HouseRules.ask(actor);
        Map<Long, String> expected = new LinkedHashMap<>();
        due.forEach(d -> expected.put(d.item(), d.expected()));
        Map<List<Long>, Route> known = new HashMap<>();
        Map<Long, Integer> versions = new HashMap<>();
        for (Seen seen : sight.locked(actor, expected.keySet())) {
            Revision current = seen.document().current();
            String now = current.id() + " " + current.stage().edition() + " "
                    + current.stage().code();
            if (!now.equals(expected.get(seen.spine().id()))) {
                throw Refused.because(
                        "page.old",
                        seen.document().number() + " has moved on since the plan was made.",
                        "Look at it as it stands now; it was left as it is.");
            }
            Route latest = latest(seen, known);
            Optional<Stage> to = MovingOver.to(current.stage(), latest).orElseThrow(Refused::new);
            to.ifPresent(stage -> {
                revisions.moveOver(current.id(), stage);
                recorder.note(
                        actor,
                        seen.spine().id(),
                        "revision.moved_over",
                        seen.version(),
                        "moved revision " + current.shown() + " over to the latest edition of " + latest.name()
                                + ", in " + stage.name(),
                        "");
            });
            versions.put(seen.spine().id(), seen.version());
        }
        return due.stream()
                .map(d -> new Run.Row(d.item(), "moved", versions.getOrDefault(d.item(), 0)))
                .toList();
    }
}
