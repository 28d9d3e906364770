package mintshelf.app.use.document;

import java.time.Clock;
import java.util.List;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.RoundSight;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.ListStore;
import mintshelf.app.store.document.RevisionRow;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.hold.StrayStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.output.OutputStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.next.NextStep;
import mintshelf.core.route.Move;
import mintshelf.core.route.Route;
import org.springframework.stereotype.Service;

/** A document as its pages show it, and the bytes of its versions. */
@Service
public class ReadDocument {
    private final Sight sight;
    private final ReadFacts facts;
    private final VersionStore versions;
    private final RevisionStore revisions;
    private final HouseStore house;
    private final AroundDocument around;
    private final ListStore lists;
    private final UnitOfWork unit;
    private final Clock clock;

    public ReadDocument(
            Sight sight,
            ReadFacts facts,
            VersionStore versions,
            RevisionStore revisions,
            HouseStore house,
            AroundDocument around,
            ListStore lists,
            UnitOfWork unit,
            Clock clock) {
        this.sight = sight;
        this.facts = facts;
        this.versions = versions;
        this.revisions = revisions;
        this.house = house;
        this.around = around;
        this.lists = lists;
        this.unit = unit;
        this.clock = clock;
    }

    /** A move that the route offers now, and what is in its way. */
    public record Offered(Move move, List<Refusal> inTheWay) {
        public boolean opens() {
            return inTheWay.isEmpty();
        }
    }

    /** All that the document page shows. */
    public record View(
            Seen seen,
            List<RevisionRow> revisions,
            List<VersionRow> versions,
            List<ReadFacts.Line> facts,
            List<ReadFacts.Typed> typed,
            Route route,
            NextStep next,
            List<Offered> moves,
            List<StrayStore.Stray> strays,
            Optional<RoundSight.RoundView> round,
            Optional<RoundSight.RoundView> returned,
            List<OutputStore.Output> outputs,
            Optional<Refusal> fetch) {
        public VersionRow shownVersion() {
            return versions.stream()
                    .filter(v -> v.number() == seen.version())
                    .findFirst()
                    .orElseThrow();
        }
    }

    /** The view, and a note that the actor opened the document. */
    public View open(Actor actor, long item) {
        View view = view(actor, item);
        unit.run(() -> lists.noteRecent(actor.person(), item, "opened", clock.instant()));
        return view;
    }

    public View view(Actor actor, long item) {
        Seen seen = sight.of(actor, item);
        List<RevisionRow> revisions = this.revisions.revisions(item);
        List<VersionRow> versions = this.versions.versions(item);
        if (!seen.all()) {
            revisions = revisions.stream()
                    .filter(r -> r.releasedVersion().isPresent())
                    .toList();
            List<Integer> out =
                    revisions.stream().map(r -> r.releasedVersion().orElse(0)).toList();
            versions = versions.stream().filter(v -> out.contains(v.number())).toList();
        }
        Route route = house.edition(seen.current().stage().edition());
        Optional<RoundSight.RoundView> round = around.round(actor, seen);
        Optional<RoundSight.RoundView> returned = around.returned(actor, seen);
        return new View(
                seen,
                revisions,
                versions,
                facts.lines(actor, seen),
                facts.typed(seen),
                route,
                around.next(actor, seen, route, versions, round, returned, around.order(seen)),
                seen.all() ? around.moves(actor, seen, route) : List.of(),
                seen.all() ? around.strays(actor, item) : List.of(),
                round,
                returned,
                around.outputs(seen, versions),
                around.fetch(actor, seen, versions));
    }
}
