package mintshelf.app.use.change;

import java.time.Clock;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.Bundles;
import mintshelf.app.effect.ChangePaper;
import mintshelf.app.effect.Telling;
import mintshelf.app.effect.deed.Setting;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.change.RequestStore;
import mintshelf.app.store.round.RoundStore;
import mintshelf.core.base.Plan;
import mintshelf.core.route.By;
import mintshelf.core.route.Way;
import mintshelf.core.signoff.Round;
import org.springframework.stereotype.Component;

/** What an order decides beside the revisions that it releases: its undecided requests are accepted, facts change. */
@Component
class DecideAlong {
    private final Sight sight;
    private final RequestStore requests;
    private final PaperStore papers;
    private final RoundStore rounds;
    private final Bundles bundles;
    private final Telling telling;
    private final LineFacts facts;
    private final Clock clock;

    DecideAlong(
            Sight sight,
            RequestStore requests,
            PaperStore papers,
            RoundStore rounds,
            Bundles bundles,
            Telling telling,
            LineFacts facts,
            Clock clock) {
        this.sight = sight;
        this.requests = requests;
        this.papers = papers;
        this.rounds = rounds;
        this.bundles = bundles;
        this.telling = telling;
        this.facts = facts;
        this.clock = clock;
    }

    /** The requests that an order has taken up, whom nobody has decided on, and that the actor sees whole. */
    List<Seen> undecided(Actor actor, long order) {
        return sight.of(actor, requests.requestsOf(order)).values().stream()
                .filter(s -> s.all() && s.current().stage().stageClass().isPending())
                .toList();
    }

    /** What deciding the order does to its requests; nothing is changed. */
    Plan<Bundles.Going> plan(Actor actor, List<Seen> undecided) {
        return bundles.plan(actor, undecided, Way.withOrder(), By.ORDER);
    }

    /** The lines of an order that change facts only. */
    LineFacts facts() {
        return facts;
    }

    /** Within the transaction of the order, under its locks, which hold its requests too. */
    void decide(Actor actor, ChangePaper.Locked locked) {
        long order = locked.paper().spine().id();
        String number = locked.paper().document().number();
        facts.carryOut(actor, locked.paper(), locked.lines(), locked.documents());
        String why = "decided with " + number;
        for (Seen seen : undecided(actor, order)) {
            Plan<Bundles.Going> plan = bundles.plan(actor, List.of(seen), Way.withOrder(), By.orderSaying(why));
            // On an edition of its route that knows no such way it stays, as the preview said.
            if (!plan.opens()) continue;
            Set<Long> told = new LinkedHashSet<>();
            told.add(seen.spine().author());
            Setting setting = Setting.of(actor, By.orderSaying(why), why, clock.instant(), List.of(seen));
            Optional<Round> round = rounds.openRound(seen.spine().id()).flatMap(rounds::round);
            if (round.isPresent()) {
                rounds.lock(round.get().id());
                told.add(round.get().by());
                setting = setting.ending(round.get(), Round.State.TAKEN_BACK);
            }
            bundles.carryOut(plan, setting);
            // A deferred one has no day any more on which it would come back.
            papers.defer(seen.spine().id(), Optional.empty());
            telling.tell(
                    actor,
                    told,
                    "request.decided",
                    Optional.empty(),
                    seen.spine().id(),
                    actor.name() + " accepted " + seen.document().number() + ", " + why,
                    "/requests/" + seen.spine().id());
        }
    }
}
