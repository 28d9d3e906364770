package mintshelf.app.use.revision;

import java.time.Clock;
import java.time.Instant;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import mintshelf.app.effect.Arrivals;
import mintshelf.app.effect.Bundles;
import mintshelf.app.effect.Telling;
import mintshelf.app.effect.deed.Setting;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.round.RoundStore;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Texts;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.By;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Move;
import mintshelf.core.route.Route;
import mintshelf.core.route.Way;
import mintshelf.core.signoff.Round;
import mintshelf.core.signoff.SignOff;
import org.springframework.stereotype.Service;

/** Moves a document along its route, or takes it back from its signers. */
@Service
public class MoveDocument {
    private final Sight sight;
    private final RoundStore rounds;
    private final Bundles bundles;
    private final Arrivals arrivals;
    private final Telling telling;
    private final HouseStore house;
    private final Withdrawals withdrawals;
    private final Acts acts;
    private final Clock clock;

    public MoveDocument(
            Sight sight,
            RoundStore rounds,
            Bundles bundles,
            Arrivals arrivals,
            Telling telling,
            HouseStore house,
            Withdrawals withdrawals,
            Acts acts,
            Clock clock) {
        this.sight = sight;
        this.rounds = rounds;
        this.bundles = bundles;
        this.arrivals = arrivals;
        this.telling = telling;
        this.house = house;
        this.withdrawals = withdrawals;
        this.acts = acts;
        this.clock = clock;
    }

    /** Why a move of a document writes nothing into its sheet, though it is meant to; else empty. */
    public Optional<String> silent(Seen seen, Route route, Move move) {
        return arrivals.silent(route, move, seen.spine().content());
    }

    /** Moves a document along its route, with all effects of the move. */
    public String move(Actor actor, long item, String key, String moveCode, int expectedVersion, String remark) {
        return move(actor, item, key, moveCode, expectedVersion, remark, "", List.of());
    }

    /**
     * As {@link #move(Actor, long, String, String, int, String)}.
     *
     * @param inItsPlace number of what takes its place where it is withdrawn; empty for nothing
     * @param along what is withdrawn with it, in the same act: all or nothing
     */
    public String move(
            Actor actor,
            long item,
            String key,
            String moveCode,
            int expectedVersion,
            String remark,
            String inItsPlace,
            Collection<Long> along) {
        String said = Texts.optional("The remark", remark, 500).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            // What was sent together is locked together, in one order.
            Optional<Long> open = rounds.openRound(item);
            Set<Long> together = new TreeSet<>(along);
            together.add(item);
            open.ifPresent(r -> rounds.items(r).forEach(i -> together.add(i.item())));
            List<Seen> all = open.isPresent() ? sight.lockedWithPapers(actor, together) : sight.locked(actor, together);
            Seen seen =
                    all.stream().filter(s -> s.spine().id() == item).findFirst().orElseThrow();
            if (!seen.all()) throw new NotThere();
            Sight.expectVersion(seen, expectedVersion);
            // A reason is asked of who withdraws, whatever takes the place.
            By by = By.handSaying(said);
            withdrawals.expectAlong(actor, seen, moveCode, along);
            List<Seen> moved = all.stream()
                    .filter(s ->
                            s.spine().id() == item || along.contains(s.spine().id()))
                    .toList();
            Plan<Bundles.Going> plan = bundles.plan(actor, moved, Way.named(moveCode), by);
            Refused.unlessOpen(
                    plan, "move.refused", moved.size() == 1 ? "It stays where it is." : "All stay where they are.");
            Move move = plan.going().get(moved.indexOf(seen)).move().orElseThrow();
            boolean withdraws = house.edition(seen.current().stage().edition())
                            .stage(move.to())
                            .stageClass()
                    == StageClass.WITHDRAWN;
            // Only a withdrawal takes others along.
            if (!withdraws && !along.isEmpty()) throw new NotThere();
            Optional<Seen> successor = withdraws && !inItsPlace.isBlank()
                    ? Optional.of(withdrawals.named(actor, item, inItsPlace))
                    : Optional.empty();
            String why = said
                    + successor
                            .map(s -> "; " + s.document().number() + " in its place")
                            .orElse("");
            // Sending goes by its own page, which says who is asked; what a round decides its last signature makes.
            if (move.does(Effect.OPEN_ROUND) || move.isMadeByRound()) throw new NotThere();
            if (move.does(Effect.END_ROUND)) {
                takeBack(actor, seen, all, open.orElseThrow(NotThere::new), why);
                return "/documents/" + item + "?taken-back";
            }
            Optional<Round> signed = open.flatMap(rounds::round).filter(r -> r.state() == Round.State.SIGNED);
            if (signed.isPresent()) carryOutSigned(actor, all, moveCode, by, signed.get());
            else bundles.carryOut(plan, Setting.of(actor, by, why, clock.instant(), all));
            successor.ifPresent(s -> withdrawals.keep(actor, seen, s));
            return "/documents/" + item;
        });
    }

    /** A hand makes what a round has signed, as the last sign-off else would: all that was sent together moves together. */
    private void carryOutSigned(Actor actor, List<Seen> all, String moveCode, By by, Round signed) {
        Plan<Bundles.Going> plan = bundles.plan(actor, all, Way.named(moveCode), by);
        Refused.unlessOpen(plan, "move.refused", "All that was sent together stays where it is.");
        Instant now = clock.instant();
        bundles.close(signed.bundle(), now);
        bundles.carryOut(
                plan, Setting.of(actor, by, by.reason().orElse(""), now, all).signed(signed));
        Set<Long> told =
                new LinkedHashSet<>(rounds.authors(List.of(signed.id())).getOrDefault(signed.id(), Set.of()));
        told.add(signed.by());
        String first = all.get(0).document().number();
        telling.tell(
                actor,
                told,
                "round.signed",
                Optional.of(signed.id()),
                all.get(0).spine().id(),
                actor.name() + " let " + (all.size() == 1 ? first : first + " and " + (all.size() - 1) + " more")
                        + " go, as it was signed",
                "/rounds/" + signed.id());
    }

    /** Takes the bundle of a document back from its signers: all of it, for it was sent together. */
    private void takeBack(Actor actor, Seen seen, List<Seen> all, long open, String why) {
        rounds.lock(open);
        Round round = rounds.round(open).orElseThrow();
        if (round.state() != Round.State.OPEN && round.state() != Round.State.SIGNED) {
            throw Refused.because("round.ended", "This round has ended meanwhile.", "Look at the document again.");
        }
        By by = By.handSaying(why);
        Plan<Bundles.Going> plan = bundles.plan(actor, all, Way.back(), by);
        Refused.unlessOpen(plan, "move.refused", "It stays where it is.");
        bundles.carryOut(plan, Setting.of(actor, by, why, clock.instant(), all).ending(round, Round.State.TAKEN_BACK));
        Set<Long> asked = new LinkedHashSet<>(
                round.signOffs().stream().map(SignOff::person).toList());
        Set<Long> authors = rounds.authors(List.of(round.id())).getOrDefault(round.id(), Set.of());
        asked.addAll(telling.asked(
                round, authors, all.stream().map(s -> s.document().place()).toList()));
        telling.tell(
                actor,
                asked,
                "round.taken_back",
                Optional.of(round.id()),
                seen.spine().id(),
                actor.name() + " took " + seen.document().number() + " back from review: " + why,
                "/rounds/" + round.id());
    }
}
