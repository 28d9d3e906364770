package mintshelf.app.effect;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import mintshelf.app.effect.deed.Deed;
import mintshelf.app.effect.deed.Mover;
import mintshelf.app.effect.deed.Setting;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Cases;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.round.BundleStore;
import mintshelf.core.base.Plan;
import mintshelf.core.document.Document;
import mintshelf.core.route.By;
import mintshelf.core.route.Case;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Move;
import mintshelf.core.route.MoveRules;
import mintshelf.core.route.Route;
import mintshelf.core.route.Way;
import org.springframework.stereotype.Component;

/**
 * Documents that move together along their routes: what would happen, and that it happens. Every move of every act goes through
 * here, so that a gate that is asked before is the gate that is asked under the lock, and a deed is done once for all.
 */
@Component
public class Bundles {
    private final Cases cases;
    private final VersionStore versions;
    private final HouseStore house;
    private final HoldStore holds;
    private final Arrivals arrivals;
    private final BundleStore bundles;
    private final Recorder recorder;
    private final Map<Effect, Deed> deeds = new EnumMap<>(Effect.class);

    public Bundles(
            Cases cases,
            VersionStore versions,
            HouseStore house,
            HoldStore holds,
            Arrivals arrivals,
            BundleStore bundles,
            Recorder recorder,
            List<Deed> deeds) {
        this.cases = cases;
        this.versions = versions;
        this.house = house;
        this.holds = holds;
        this.arrivals = arrivals;
        this.bundles = bundles;
        this.recorder = recorder;
        deeds.forEach(deed -> this.deeds.put(deed.effect(), deed));
        for (Effect effect : Effect.values()) {
            if (effect.isDeed() && !this.deeds.containsKey(effect))
                throw new IllegalStateException("Nobody does " + effect);
        }
    }

    /** A document and the move that is meant; none where it stays. */
    public record Going(Seen seen, Route route, Optional<Move> move) {
        public Document document() {
            return seen.document();
        }
    }

    /** The move that a round on a document decides. */
    public Move decided(Document document) {
        return house.edition(document.current().stage().edition())
                .decided(document.current().stage().code())
                .orElseThrow();
    }

    /** What an act would do with these documents. Nothing is changed; no row is left out. */
    public Plan<Going> plan(Actor actor, Collection<Seen> all, Way way, By by) {
        return plan(actor, all, seen -> way, seen -> by);
    }

    /** As {@link #plan(Actor, Collection, Way, By)}, for documents that go different ways in one act. */
    public Plan<Going> plan(Actor actor, Collection<Seen> all, Function<Seen, Way> ways, Function<Seen, By> bys) {
        Map<Long, Case> known = cases.of(actor, all);
        Map<Long, Route> routes = new HashMap<>();
        List<Plan.Row<Going>> rows = new ArrayList<>();
        for (Seen seen : all) {
            Document document = seen.document();
            Route route = routes.computeIfAbsent(document.current().stage().edition(), house::edition);
            Way.Found found = ways.apply(seen).of(route, document);
            Going going = new Going(seen, route, found.move());
            if (found.refusal().isPresent())
                rows.add(Plan.Row.asked(going, List.of(found.refusal().get())));
            else if (found.move().isEmpty()) rows.add(Plan.Row.stays(going));
            else
                rows.add(Plan.Row.asked(
                        going, MoveRules.ask(found.move().get(), known.get(document.id()), bys.apply(seen))));
        }
        return new Plan<>(rows);
    }

    /**
     * Does what a plan that opens says, under the locks of the caller: deeds in the order of the routes, then the stages, the record.
     *
     * @return those that moved, with what deeds made of them
     */
    public List<Mover> carryOut(Plan<Going> plan, Setting setting) {
        Map<Long, VersionRow> heads = versions.versionsById(
                plan.going().stream().map(g -> g.document().head().version()).toList());
        List<Mover> movers = plan.going().stream()
                .map(g -> new Mover(
                        g.seen(),
                        g.route(),
                        g.move().orElseThrow(),
                        heads.get(g.document().head().version())))
                .toList();
        if (setting.by().endsOwnHold()) movers.forEach(m -> endHold(setting, m.document()));
        Set<Effect> effects = new LinkedHashSet<>();
        movers.forEach(m -> effects.addAll(m.move().effects()));
        effects.removeIf(e -> !e.isDeed());
        for (Effect effect : effects) {
            deeds.get(effect)
                    .carryOut(
                            setting,
                            movers.stream().filter(m -> m.move().does(effect)).toList());
        }
        movers.forEach(m -> arrivals.arrive(setting, m));
        return movers;
    }

    private void endHold(Setting setting, Document document) {
        document.holder().ifPresent(h -> {
            holds.end(h.hold(), HoldStore.Ending.REVIEW, setting.actor().person(), "", setting.now());
            recorder.note(
                    setting.actor(),
                    document.id(),
                    "hold.undone",
                    document.head().number(),
                    "ended the check-out by sending it to review",
                    "");
        });
    }

    /** What was decided together goes its own ways from now on. */
    public void close(long bundle, Instant now) {
        bundles.closeBundle(bundle, now);
    }
}
