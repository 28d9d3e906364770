package mintshelf.app.use.round;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.Arrivals;
import mintshelf.app.effect.Asking;
import mintshelf.app.effect.Bundles;
import mintshelf.app.effect.deed.Setting;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.round.RoundStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Document;
import mintshelf.core.document.Stage;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.By;
import mintshelf.core.route.Move;
import mintshelf.core.route.Route;
import mintshelf.core.route.Way;
import mintshelf.core.signoff.Policy;
import org.springframework.stereotype.Service;

/** Sends documents to review together: who will be asked is seen before, then it happens whole or not at all. */
@Service
public class SendToReview {
    private final Sight sight;
    private final HouseStore house;
    private final RoundStore rounds;
    private final Bundles bundles;
    private final Arrivals arrivals;
    private final Asking asking;
    private final LayBeside beside;
    private final Acts acts;
    private final Clock clock;

    public SendToReview(
            Sight sight,
            HouseStore house,
            RoundStore rounds,
            Bundles bundles,
            Arrivals arrivals,
            Asking asking,
            LayBeside beside,
            Acts acts,
            Clock clock) {
        this.sight = sight;
        this.house = house;
        this.rounds = rounds;
        this.bundles = bundles;
        this.arrivals = arrivals;
        this.asking = asking;
        this.beside = beside;
        this.acts = acts;
        this.clock = clock;
    }

    /**
     * A document of the plan.
     *
     * @param endsHold whether the actor holds it: sending ends that check-out
     * @param silent why its release will write nothing into its sheet; empty where something is written, and where nothing is meant
     *     to be
     */
    public record Row(Seen seen, boolean endsHold, List<Refusal> inTheWay, Optional<String> silent) {
        Row(Seen seen, boolean endsHold, List<Refusal> inTheWay) {
            this(seen, endsHold, inTheWay, Optional.empty());
        }

        Row saying(Optional<String> why) {
            return new Row(seen, endsHold, inTheWay, why);
        }

        /** What happens besides, in words; nothing while something is in the way. */
        public List<String> says() {
            List<String> says = new ArrayList<>();
            if (!inTheWay.isEmpty()) return says;
            if (endsHold) says.add("your check-out ends with it");
            silent.ifPresent(why -> says.add("Its release will write nothing into its sheet: " + why));
            return says;
        }
    }

    /** What will happen. It opens when no row and no line has anything in the way. */
    public record Plan(
            List<Row> rows,
            List<Asking.AskedLine> lines,
            Policy policy,
            Optional<Refusal> refusal,
            mintshelf.core.base.Plan<Bundles.Going> way) {
        public boolean opens() {
            return refusal.isEmpty() && way.opens();
        }

        /** The stage to which the last sign-off takes what is sent; empty where it releases it. */
        public Optional<String> next() {
            return way.going().stream()
                    .flatMap(g -> g.move().flatMap(m -> g.route().decided(m.to())).stream()
                            .map(m -> g.route().stage(m.to())))
                    .filter(s -> s.stageClass() != StageClass.RELEASED)
                    .map(Stage::name)
                    .findFirst();
        }
    }

    public Plan plan(Actor actor, Collection<Long> items) {
        List<Seen> all = List.copyOf(sight.of(actor, items).values());
        if (all.isEmpty() || all.stream().anyMatch(s -> !s.all())) throw new NotThere();
        Plan plan = plan(actor, all);
        return new Plan(
                plan.rows().stream().map(this::told).toList(), plan.lines(), plan.policy(), plan.refusal(), plan.way());
    }

    private Row told(Row row) {
        Document document = row.seen().document();
        Route route = house.edition(document.current().stage().edition());
        return row.saying(route.opensRound(document.current().stage().code())
                .flatMap(send -> route.decided(send.to()))
                .flatMap(release ->
                        arrivals.silent(route, release, row.seen().spine().content())));
    }

    private Plan plan(Actor actor, List<Seen> all) {
        var way = bundles.plan(actor, all, Way.toReview(), By.SENDING);
        List<Row> rows = new ArrayList<>();
        List<Move> decided = new ArrayList<>();
        for (var row : way.rows()) {
            Bundles.Going going = row.of();
            boolean mine = going.document()
                    .holder()
                    .filter(h -> h.person() == actor.person())
                    .isPresent();
            rows.add(new Row(going.seen(), mine, row.refusals()));
            going.move().flatMap(m -> going.route().decided(m.to())).ifPresent(decided::add);
        }
        Asking.Demand demand = asking.demand(decided);
        List<Asking.AskedLine> lines = asking.lines(all, demand.lines());
        return new Plan(rows, lines, demand.policy(), Asking.nobody(lines), way);
    }

    /**
     * Sends the documents.
     *
     * @param wishes what the sender wants otherwise than the rule says
     * @param expected the head versions that the page showed, by document
     * @return the address of the round
     */
    public String send(
            Actor actor,
            Collection<Long> items,
            String key,
            String note,
            Asking.Wishes wishes,
            Map<Long, Integer> expected) {
        String words = Texts.optionalLines("The note", note, 1000).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            List<Seen> all = sight.locked(actor, items);
            for (Seen seen : all) {
                if (!seen.all()) throw new NotThere();
                Integer version = expected.get(seen.spine().id());
                if (version != null) Sight.expectVersion(seen, version);
            }
            Plan plan = plan(actor, all);
            refuseUnlessOpen(plan);
            bundles.carryOut(
                    plan.way(),
                    Setting.of(actor, By.SENDING, words, clock.instant(), all)
                            .asking(new Asking.Asks(
                                    plan.lines(),
                                    plan.policy(),
                                    words,
                                    wishes,
                                    beside.read(actor, wishes.beside(), items))));
            long id = rounds.openRound(all.get(0).spine().id()).orElseThrow();
            return "/rounds/" + id;
        });
    }

    /** As {@link #send(Actor, Collection, String, String, Asking.Wishes, Map)}, with people named alone. */
    public String send(
            Actor actor,
            Collection<Long> items,
            String key,
            String note,
            Map<Integer, Long> named,
            Map<Long, Integer> expected) {
        return send(actor, items, key, note, Asking.Wishes.named(named), expected);
    }

    private static void refuseUnlessOpen(Plan plan) {
        if (plan.opens()) return;
        List<String> why = new ArrayList<>();
        plan.refusal().ifPresent(r -> why.add(r.says()));
        plan.rows().forEach(row -> row.inTheWay().forEach(r -> why.add(r.says())));
        throw Refused.because("send.refused", String.join(" ", why), "Nothing was sent.");
    }
}
