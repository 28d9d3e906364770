package mintshelf.app.use.document;

import java.io.IOException;
import java.io.OutputStream;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.Cases;
import mintshelf.app.sight.RoundSight;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.OrderStore;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.ListStore;
import mintshelf.app.store.document.RevisionRow;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.hold.StrayStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.KindFact;
import mintshelf.app.store.output.OutputStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.next.Act;
import mintshelf.core.next.NextStep;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.By;
import mintshelf.core.route.Case;
import mintshelf.core.route.Move;
import mintshelf.core.route.MoveRules;
import mintshelf.core.route.Route;
import org.springframework.stereotype.Service;

/** A document as its pages show it, and the bytes of its versions. */
@Service
public class ReadDocument {
    private final Sight sight;
    private final Cases cases;
    private final FactStore facts;
    private final VersionStore versions;
    private final RevisionStore revisions;
    private final HouseStore house;
    private final StrayStore strays;
    private final ContentStore contents;
    private final ListStore lists;
    private final OutputStore outputs;
    private final RoundSight rounds;
    private final OrderStore orders;
    private final UnitOfWork unit;
    private final Clock clock;

    public ReadDocument(
            Sight sight,
            Cases cases,
            FactStore facts,
            VersionStore versions,
            RevisionStore revisions,
            HouseStore house,
            StrayStore strays,
            ContentStore contents,
            ListStore lists,
            OutputStore outputs,
            RoundSight rounds,
            OrderStore orders,
            UnitOfWork unit,
            Clock clock) {
        this.sight = sight;
        this.cases = cases;
        this.facts = facts;
        this.versions = versions;
        this.revisions = revisions;
        this.house = house;
        this.strays = strays;
        this.contents = contents;
        this.lists = lists;
        this.outputs = outputs;
        this.rounds = rounds;
        this.orders = orders;
        this.unit = unit;
        this.clock = clock;
    }

    /** A move that the route offers now, and what is in its way. */
    public record Offered(Move move, List<Refusal> inTheWay) {
        public boolean opens() {
            return inTheWay.isEmpty();
        }
    }

    /** A fact with its value as text. */
    public record FactLine(KindFact fact, String value) {}

    /** All that the document page shows. */
    public record View(
            Seen seen,
            List<RevisionRow> revisions,
            List<VersionRow> versions,
            List<FactLine> facts,
            Route route,
            NextStep next,
            List<Offered> moves,
            List<StrayStore.Stray> strays,
            Optional<RoundSight.RoundView> round,
            Optional<RoundSight.RoundView> returned,
            List<OutputStore.Output> outputs) {
        public VersionRow shownVersion() {
            return versions.stream()
                    .filter(v -> v.number() == seen.version())
                    .findFirst()
                    .orElseThrow();
        }
    }

    private List<StrayStore.Stray> strays(Actor actor, long item) {
        List<StrayStore.Stray> all = new ArrayList<>(strays.kept(item));
        all.addAll(strays.savedBy(actor.person(), item, clock.instant()));
        return all;
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
        List<KindFact> sheet =
                house.factSheets().getOrDefault(seen.document().place().kind(), List.of());
        Map<String, String> values = facts.facts(seen.current().id());
        List<FactLine> facts = sheet.stream()
                .map(f -> new FactLine(f, values.getOrDefault(f.fact().name(), "")))
                .toList();
        Route route = house.edition(seen.current().stage().edition());
        Optional<RoundSight.RoundView> round =
                seen.all() && seen.current().stage().stageClass() == StageClass.DECIDING
                        ? rounds.ofDocument(actor, item)
                        : Optional.empty();
        boolean preparing = seen.all()
                && seen.pending().isPresent()
                && seen.current().stage().stageClass() == StageClass.PREPARING;
        Optional<RoundSight.RoundView> returned = preparing ? rounds.returned(actor, item) : Optional.empty();
        Optional<OrderStore.On> order =
                seen.all() ? Optional.ofNullable(orders.open(List.of(item)).get(item)) : Optional.empty();
        return new View(
                seen,
                revisions,
                versions,
                facts,
                route,
                next(actor, seen, route, versions, round, returned, order),
                seen.all() ? moves(actor, seen, route) : List.of(),
                seen.all() ? strays(actor, item) : List.of(),
                round,
                returned,
                outputs(seen, versions));
    }

    private static NextStep next(
            Actor actor,
            Seen seen,
            Route route,
            List<VersionRow> versions,
            Optional<RoundSight.RoundView> round,
            Optional<RoundSight.RoundView> returned,
            Optional<OrderStore.On> order) {
        if (seen.spine().isChangePaper()) return new NextStep(Act.LOOK, Optional.empty());
        boolean asked = round.filter(r -> r.mine().isPresent()).isPresent();
        VersionRow latest = versions.get(versions.size() - 1);
        boolean ownWork = latest.author() == actor.person()
                && latest.madeBy() != VersionRow.MadeBy.STAMPED
                && latest.madeBy() != VersionRow.MadeBy.FILED;
        boolean review = order.isEmpty()
                && route.opensRound(seen.current().stage().code()).isPresent();
        // What came back is corrected before it is sent again: nothing new to send until another version is there.
        boolean asReturned = returned.filter(r -> r.lines().stream()
                        .anyMatch(l ->
                                l.item().item() == seen.spine().id() && l.item().number() == latest.number()))
                .isPresent();
        return NextStep.of(seen.document(), actor.access(), asked, ownWork && review && !asReturned);
    }

    /** What was made of the version that is in force. */
    private List<OutputStore.Output> outputs(Seen seen, List<VersionRow> versions) {
        return seen.spine()
                .releasedVersion()
                .flatMap(n -> versions.stream().filter(v -> v.number() == n).findFirst())
                .map(v -> outputs.of(v.id()))
                .orElse(List.of());
    }

    private List<Offered> moves(Actor actor, Seen seen, Route route) {
        Case known = cases.soon(actor, List.of(seen)).get(seen.spine().id());
        return route.from(seen.current().stage().code()).stream()
                .map(move -> new Offered(move, MoveRules.ask(move, known, By.HAND)))
                .toList();
    }

    /** A version that the actor may fetch: any, or only those that were released. */
    public VersionRow version(Actor actor, long item, int number) {
        Seen seen = sight.of(actor, item);
        VersionRow version = versions.version(item, number).orElseThrow(NotThere::new);
        if (seen.all()) return version;
        boolean out = revisions.revisions(item).stream()
                .anyMatch(r -> r.releasedVersion().filter(n -> n == number).isPresent());
        if (!out) throw new NotThere();
        return version;
    }

    /** What was made of a version that the actor may fetch. */
    public StoredContent output(Actor actor, long item, int number, String format) {
        return outputs.of(version(actor, item, number).id()).stream()
                .filter(o -> o.format().equals(format))
                .flatMap(o -> o.content().stream())
                .findFirst()
                .orElseThrow(NotThere::new);
    }

    /** A stray of a document; only who sees work in preparation sees strays. */
    public StrayStore.Stray stray(Actor actor, long id) {
        StrayStore.Stray stray = strays.stray(id).orElseThrow(NotThere::new);
        if (!sight.of(actor, stray.item()).all()) throw new NotThere();
        // What was only saved once more is its author's alone.
        if (stray.isSaved() && !stray.isOpen(actor.person(), clock.instant())) throw new NotThere();
        return stray;
    }

    /** Sends bytes; asked for after {@link #version} or {@link #stray} granted the content. */
    public void send(StoredContent content, long from, long to, OutputStream out) throws IOException {
        contents.send(content.id(), from, to, out);
    }
}
