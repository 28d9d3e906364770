package mintshelf.app.use.change;

import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import mintshelf.app.effect.Asking;
import mintshelf.app.effect.Bundles;
import mintshelf.app.effect.Telling;
import mintshelf.app.effect.deed.Setting;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.setup.Settings;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.round.RoundStore;
import mintshelf.core.base.Days;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.change.RequestRules;
import mintshelf.core.route.By;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Way;
import mintshelf.core.signoff.Round;
import org.springframework.stereotype.Service;

/** Moves a request along: before the board, deferred, declined, dropped. The board accepts and returns by signing. */
@Service
public class MoveRequest {
    /** Requests that are decided on at once. */
    private static final int MOST = 200;

    /** Moves of the route of requests that people make here; the board accepts and returns by its round. */
    private static final Set<String> MOVES = Set.of("defer", "decline", "drop");

    private final Sight sight;
    private final PaperStore papers;
    private final RoundStore rounds;
    private final Bundles bundles;
    private final Asking asking;
    private final Telling telling;
    private final Settings settings;
    private final Acts acts;
    private final Clock clock;

    public MoveRequest(
            Sight sight,
            PaperStore papers,
            RoundStore rounds,
            Bundles bundles,
            Asking asking,
            Telling telling,
            Settings settings,
            Acts acts,
            Clock clock) {
        this.sight = sight;
        this.papers = papers;
        this.rounds = rounds;
        this.bundles = bundles;
        this.asking = asking;
        this.telling = telling;
        this.settings = settings;
        this.acts = acts;
        this.clock = clock;
    }

    private Seen locked(Actor actor, long request) {
        Seen seen = sight.lockedWithPapers(actor, List.of(request)).get(0);
        if (!seen.all() || papers.request(request).isEmpty()) throw new NotThere();
        return seen;
    }

    /** The board is asked; a deferred request comes back before its day. */
    public String toBoard(Actor actor, long request, String key, String note) {
        String words = Texts.optionalLines("The note", note, 1000).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            Seen seen = locked(actor, request);
            PaperStore.Paper paper = papers.request(request).orElseThrow();
            List<Refusal> inTheWay = new ArrayList<>(RequestRules.ask(paper.reason(), papers.lines(request)).stream()
                    .toList());
            Plan<Bundles.Going> plan = bundles.plan(actor, List.of(seen), Way.doing(Effect.OPEN_ROUND), By.HAND);
            inTheWay.addAll(plan.refusals());
            Refused.unlessEmpty(inTheWay, "request.refused", "The board was not asked.");
            Asking.Demand demand = asking.demand(plan.rows().get(0).of().move().stream()
                    .flatMap(m -> plan.rows().get(0).of().route().decided(m.to()).stream())
                    .toList());
            List<Asking.AskedLine> asked = asking.lines(List.of(seen), demand.lines());
            Refused.unlessEmpty(Asking.nobody(asked).stream().toList(), "request.refused", "The board was not asked.");
            papers.defer(request, Optional.empty());
            bundles.carryOut(
                    plan,
                    Setting.of(actor, By.HAND, words, clock.instant(), List.of(seen))
                            .asking(new Asking.Asks(asked, demand.policy(), words, Asking.Wishes.named(Map.of()))));
            return "/requests/" + request;
        });
    }

    /**
     * Ends a request, or puts it off, by the move of its route that is called so.
     *
     * @param until the day on which a deferred one comes back; later than today
     */
    public String decide(Actor actor, long request, String key, String move, String reason, Optional<LocalDate> until) {
        return decide(actor, List.of(request), key, move, reason, until);
    }

    /** As {@link #decide(Actor, long, String, String, String, Optional)}, several at once: all of them or none. */
    public String decide(
            Actor actor, Collection<Long> requests, String key, String move, String reason, Optional<LocalDate> until) {
        if (requests.isEmpty() || requests.size() > MOST || !MOVES.contains(move)) throw new NotThere();
        String why = Texts.required("The reason", reason, 500).orElseThrow(Refused::new);
        boolean defers = move.equals("defer");
        LocalDate today = LocalDate.ofInstant(clock.instant(), settings.zone());
        if (defers
                && until.filter(d -> d.isAfter(today) && d.isBefore(today.plusYears(5)))
                        .isEmpty()) {
            throw Refused.because(
                    "request.until",
                    "It is deferred to no day that is to come.",
                    "Say until when; nothing was changed.");
        }
        return acts.once(actor, key, () -> {
            // In one order: of two who decide on the same ones neither waits for the other.
            for (long request : new TreeSet<>(requests)) decideOne(actor, request, move, why, until, defers);
            return requests.size() == 1
                    ? "/requests/" + requests.iterator().next()
                    : "/changes?decided=" + requests.size();
        });
    }

    private void decideOne(
            Actor actor, long request, String move, String why, Optional<LocalDate> until, boolean defers) {
        Seen seen = locked(actor, request);
        Optional<Long> open = rounds.openRound(request);
        By by = By.handSaying(why);
        Plan<Bundles.Going> plan = bundles.plan(actor, List.of(seen), Way.named(move), by);
        Refused.unlessOpen(plan, "request.refused", "It stays where it is.");
        if (plan.going().get(0).move().orElseThrow().does(Effect.OPEN_ROUND)) throw new NotThere();
        Setting setting = Setting.of(actor, by, why, clock.instant(), List.of(seen));
        Set<Long> told = new LinkedHashSet<>();
        told.add(seen.spine().author());
        if (open.isPresent()) {
            rounds.lock(open.get());
            Round round = rounds.round(open.get()).orElseThrow();
            if (round.state() != Round.State.OPEN) {
                throw Refused.because("round.ended", "This round has ended meanwhile.", "Look at it again.");
            }
            told.add(round.by());
            setting = setting.ending(round, Round.State.TAKEN_BACK);
        }
        bundles.carryOut(plan, setting);
        if (defers) papers.defer(request, until);
        telling.tell(
                actor,
                told,
                "request.decided",
                Optional.empty(),
                request,
                actor.name() + " " + said(move) + " " + seen.document().number()
                        + until.filter(d -> defers)
                                .map(d -> " until " + Days.words(d))
                                .orElse("") + ": " + why,
                "/requests/" + request);
    }

    /** What of some requests the move would do, and what is in the way of the rest; nothing is changed. */
    public Plan<Bundles.Going> plan(Actor actor, Collection<Long> requests, String move) {
        List<Seen> all = sight.of(actor, requests).values().stream()
                .filter(s -> s.all() && s.spine().isRequest())
                .toList();
        if (all.isEmpty() || requests.size() > MOST) throw new NotThere();
        return bundles.plan(actor, all, Way.named(move), By.HAND);
    }

    private static String said(String move) {
        return switch (move) {
            case "defer" -> "deferred";
            case "decline" -> "declined";
            case "drop" -> "dropped";
            default -> "moved";
        };
    }
}
