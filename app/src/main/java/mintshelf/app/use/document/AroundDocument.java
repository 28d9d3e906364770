package mintshelf.app.use.document;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Cases;
import mintshelf.app.sight.ChangeControl;
import mintshelf.app.sight.MayFetch;
import mintshelf.app.sight.RoundSight;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.hold.StrayStore;
import mintshelf.app.store.output.OutputStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.next.Act;
import mintshelf.core.next.NextStep;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.By;
import mintshelf.core.route.Case;
import mintshelf.core.route.MoveRules;
import mintshelf.core.route.Route;
import org.springframework.stereotype.Component;

/** What hangs on a document: strays, outputs, its round, its order, the moves that it may make. */
@Component
class AroundDocument {
    private final Cases cases;
    private final StrayStore strays;
    private final OutputStore outputs;
    private final RoundSight rounds;
    private final PaperStore orders;
    private final ChangeControl control;
    private final MayFetch may;
    private final Clock clock;

    AroundDocument(
            Cases cases,
            StrayStore strays,
            OutputStore outputs,
            RoundSight rounds,
            PaperStore orders,
            ChangeControl control,
            MayFetch may,
            Clock clock) {
        this.cases = cases;
        this.strays = strays;
        this.outputs = outputs;
        this.rounds = rounds;
        this.orders = orders;
        this.control = control;
        this.may = may;
        this.clock = clock;
    }

    /** What came back without a hold, and what the actor's own saves left. */
    List<StrayStore.Stray> strays(Actor actor, long item) {
        List<StrayStore.Stray> all = new ArrayList<>(strays.kept(item));
        all.addAll(strays.savedBy(actor.person(), item, clock.instant()));
        return all;
    }

    /** The round that decides on a document now. */
    Optional<RoundSight.RoundView> round(Actor actor, Seen seen) {
        return seen.all() && seen.current().stage().stageClass() == StageClass.DECIDING
                ? rounds.ofDocument(actor, seen.spine().id())
                : Optional.empty();
    }

    /** The round that returned a document which is prepared again. */
    Optional<RoundSight.RoundView> returned(Actor actor, Seen seen) {
        boolean preparing = seen.all()
                && seen.pending().isPresent()
                && seen.current().stage().stageClass() == StageClass.PREPARING;
        return preparing ? rounds.returned(actor, seen.spine().id()) : Optional.empty();
    }

    /** The order that a document goes with. */
    Optional<PaperStore.On> order(Seen seen) {
        long item = seen.spine().id();
        return seen.all() ? Optional.ofNullable(orders.open(List.of(item)).get(item)) : Optional.empty();
    }

    /** The one act that is proposed to the actor. */
    NextStep next(
            Actor actor,
            Seen seen,
            Route route,
            List<VersionRow> versions,
            Optional<RoundSight.RoundView> round,
            Optional<RoundSight.RoundView> returned,
            Optional<PaperStore.On> order) {
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
        Optional<Refusal> kept =
                seen.pending().isEmpty() ? control.now().refusal(actor, seen.spine()) : Optional.empty();
        return NextStep.of(seen.document(), actor.access(), asked, ownWork && review && !asReturned, kept);
    }

    /** What was made of the version that is in force. */
    List<OutputStore.Output> outputs(Seen seen, List<VersionRow> versions) {
        return seen.spine()
                .releasedVersion()
                .flatMap(n -> versions.stream().filter(v -> v.number() == n).findFirst())
                .map(v -> outputs.of(v.id()))
                .orElse(List.of());
    }

    /** Why the actor may not fetch the version that they see; nothing when they may. */
    Optional<Refusal> fetch(Actor actor, Seen seen, List<VersionRow> versions) {
        return versions.stream()
                .filter(v -> v.number() == seen.version())
                .findFirst()
                .flatMap(v -> may.refusal(actor, seen, v));
    }

    /** The moves that the route offers now. */
    List<ReadDocument.Offered> moves(Actor actor, Seen seen, Route route) {
        Case known = cases.soon(actor, List.of(seen)).get(seen.spine().id());
        return route.from(seen.current().stage().code()).stream()
                .map(move -> new ReadDocument.Offered(move, MoveRules.ask(move, known, By.HAND)))
                .toList();
    }
}
