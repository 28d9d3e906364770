package mintshelf.app.use.round;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import mintshelf.app.effect.run.SetAct;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.RoundSight;
import mintshelf.app.sight.RoundSight.RoundView;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.round.RoundStore;
import mintshelf.app.store.run.Run;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Refusal;
import mintshelf.core.signoff.Decision;
import org.springframework.stereotype.Service;

/** Answers many rounds alike. What was sent together is answered together, so a row is a round. */
@Service
public class SignMany implements SetAct {
    private final Sight sight;
    private final RoundSight views;
    private final RoundStore rounds;
    private final SignRound sign;

    public SignMany(Sight sight, RoundSight views, RoundStore rounds, SignRound sign) {
        this.sight = sight;
        this.views = views;
        this.rounds = rounds;
        this.sign = sign;
    }

    @Override
    public Run.What what() {
        return Run.What.SIGN;
    }

    @Override
    public String says(List<PlanLine> going, Wish wish) {
        String what = Numbers.count(going.size(), "round", "rounds");
        return switch (decision(wish)) {
            case SIGNED -> "Sign " + what;
            case REMARKED -> "Sign " + what + " with remarks";
            case RETURNED -> "Return " + what;
            case ABSTAINED -> "Abstain from " + what;
        };
    }

    private static Decision decision(Wish wish) {
        return wish.decision().orElseThrow(NotThere::new);
    }

    @Override
    public Plan<PlanLine> plan(Actor actor, Collection<Long> items, Wish wish) {
        SignRound.words(decision(wish), wish.words());
        Map<Long, Seen> seen = sight.of(actor, items);
        Map<Long, Long> open = rounds.openRounds(seen.keySet());
        Map<Long, RoundView> byId = new HashMap<>();
        views.rounds(actor, new LinkedHashSet<>(open.values()))
                .forEach(v -> byId.put(v.round().id(), v));
        List<Plan.Row<PlanLine>> rows = new ArrayList<>();
        Set<Long> told = new LinkedHashSet<>();
        for (Seen one : seen.values()) {
            Optional<RoundView> view =
                    Optional.ofNullable(open.get(one.spine().id())).map(byId::get);
            if (view.isEmpty()) rows.add(Plan.Row.asked(PlanLine.of(one), List.of(none(one))));
            else if (told.add(view.get().round().id())) rows.add(row(actor, one, view.get(), wish));
        }
        return new Plan<>(rows);
    }

    private static Refusal none(Seen seen) {
        return Refusal.of("round.none", seen.document().number() + " is in no open round.", "Leave it out.");
    }

    private Plan.Row<PlanLine> row(Actor actor, Seen one, RoundView view, Wish wish) {
        List<String> says = new ArrayList<>();
        view.mine().ifPresent(a -> says.add("as " + a.line().meaning()));
        view.lines().stream()
                .map(l -> l.seen().document())
                .filter(d -> d.id() != one.spine().id())
                .forEach(d -> says.add("with " + d.number() + ", which was sent with it"));
        PlanLine line = new PlanLine(
                one,
                view.digest().hex(),
                Optional.empty(),
                Optional.empty(),
                one.document().current().label(),
                says);
        Optional<Refusal> inTheWay = SignRound.refusal(actor, view, views.today())
                .or(() -> view.mine().flatMap(a -> SignRound.passwordMissing(a, decision(wish), wish.again())));
        return Plan.Row.asked(line, inTheWay.stream().toList());
    }

    @Override
    public List<Run.Row> carryOut(Actor actor, List<Run.Due> due, Wish wish) {
        String words = SignRound.words(decision(wish), wish.words());
        Map<Long, Long> open = rounds.openRounds(due.stream().map(Run.Due::item).toList());
        // All of a portion in one order: no two of them wait for each other.
        Set<Long> together = new TreeSet<>();
        rounds.items(open.values()).values().forEach(items -> items.forEach(i -> together.add(i.item())));
        sight.lockedWithPapers(actor, together);
        List<Run.Row> became = new ArrayList<>();
        for (Run.Due one : due) {
            long round = Optional.ofNullable(open.get(one.item())).orElseThrow(NotThere::new);
            sign.answer(actor, round, one.expected(), decision(wish), words, wish.again());
            became.add(new Run.Row(one.item(), decision(wish).name().toLowerCase(Locale.ROOT), round));
        }
        return became;
    }
}
