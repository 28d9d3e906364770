package mintshelf.app.use.house;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.RevisionStore.Standing;
import mintshelf.app.store.house.Edition;
import mintshelf.app.store.house.FilingRuleStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.RouteStore;
import mintshelf.app.store.house.RuleStore;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.core.filing.FilingRule;
import mintshelf.core.house.House;
import mintshelf.core.house.KindRule;
import mintshelf.core.house.RouteRule;
import mintshelf.core.house.RuleDifference;
import mintshelf.core.house.Subject;
import mintshelf.core.route.Route;
import org.springframework.stereotype.Service;

/** The rules of the house as its keepers read them: what is in force, its editions, how they differ, whom they concern. */
@Service
public class ReadRules {
    /** Editions that a page lists. */
    private static final int MOST = 50;

    private final RuleWriter rules;
    private final RuleStore editions;
    private final RouteStore routes;
    private final HouseStore house;
    private final FilingRuleStore filing;
    private final RevisionStore revisions;
    private final ShelfStore shelves;

    ReadRules(
            RuleWriter rules,
            RuleStore editions,
            RouteStore routes,
            HouseStore house,
            FilingRuleStore filing,
            RevisionStore revisions,
            ShelfStore shelves) {
        this.rules = rules;
        this.editions = editions;
        this.routes = routes;
        this.house = house;
        this.filing = filing;
        this.revisions = revisions;
        this.shelves = shelves;
    }

    /** What rules may name. */
    public House house(Actor actor) {
        HouseRules.ask(actor);
        return rules.house();
    }

    /** The latest edition of every rule of a subject. */
    public List<Edition> all(Actor actor, Subject subject) {
        HouseRules.ask(actor);
        if (subject == Subject.ROUTE) {
            return routes.inForce().keySet().stream()
                    .map(code -> routes.editions(code, 1).get(0))
                    .toList();
        }
        return editions.latest(subject);
    }

    /** The editions of a rule, the latest first. */
    public List<Edition> editions(Actor actor, Subject subject, String code) {
        HouseRules.ask(actor);
        List<Edition> all =
                subject == Subject.ROUTE ? routes.editions(code, MOST) : editions.editions(subject, code, MOST);
        if (all.isEmpty()) throw new NotThere();
        return all;
    }

    /** What the later of two editions says otherwise. */
    public List<RuleDifference> between(House house, Edition was, Edition now) {
        return RuleDifference.between(was.rule().lines(house), now.rule().lines(house));
    }

    /** How many documents a kind has. */
    public Map<String, Integer> documents(Actor actor) {
        HouseRules.ask(actor);
        Map<Long, Integer> counted = revisions.documentsByKind();
        return house.kinds().stream().collect(Collectors.toMap(Kind::code, k -> counted.getOrDefault(k.id(), 0)));
    }

    /** The filing rules that give a kind, with their places in the order. */
    public List<FilingRule> filedAs(Actor actor, String kind) {
        HouseRules.ask(actor);
        long id = house.kind(kind).id();
        return filing.all().stream().filter(r -> r.kind() == id).toList();
    }

    /**
     * How documents stand on a route.
     *
     * @param here documents by the stop that they stand in, those on the latest edition
     * @param earlier how many are under way on an earlier edition; they finish on it
     * @param kinds names of the kinds that go this way
     * @param replaced shelf and kind for which it stands in the place of the kind's own
     */
    public record OnRoute(Map<String, Integer> here, int earlier, List<String> kinds, List<String> replaced) {}

    public OnRoute onRoute(Actor actor, Route route) {
        HouseRules.ask(actor);
        Map<String, Integer> here = new HashMap<>();
        int earlier = 0;
        for (Standing s : revisions.standings()) {
            boolean latest = s.edition() == route.edition();
            boolean ours = latest || routes.edition(s.edition()).code().equals(route.code());
            if (ours && (latest || !s.pending())) here.merge(s.stage(), s.documents(), Integer::sum);
            else if (ours) earlier += s.documents();
        }
        long id = routes.route(route.code()).orElseThrow(NotThere::new);
        Map<Long, Kind> kinds = house.kinds().stream().collect(Collectors.toMap(Kind::id, Function.identity()));
        List<String> replaced = new ArrayList<>();
        Map<Long, String> names = shelfNames();
        for (HouseStore.ShelfRoute r : house.shelfRoutes()) {
            Kind kind = kinds.get(r.kind());
            if (r.route() == id && kind != null) replaced.add(kind.name() + " on " + names.get(r.shelf()));
        }
        return new OnRoute(
                here,
                earlier,
                kinds.values().stream()
                        .filter(k -> k.route() == id)
                        .map(Kind::name)
                        .sorted()
                        .toList(),
                replaced);
    }

    /** Names of all shelves, for who keeps the house's rules. */
    Map<Long, String> shelfNames() {
        return shelves.shelves().stream().collect(Collectors.toMap(ShelfStore.Shelf::id, ShelfStore.Shelf::name));
    }

    /** A shelf with the route that a kind's documents go there; empty for the kind's own. */
    public record OnShelf(long shelf, String name, Optional<String> route) {}

    public List<OnShelf> onShelves(Actor actor, String kind) {
        HouseRules.ask(actor);
        long id = house.kind(kind).id();
        Map<Long, String> replaced = new HashMap<>();
        Map<Long, String> codes = new HashMap<>();
        routes.inForce().keySet().forEach(code -> codes.put(routes.route(code).orElseThrow(), code));
        house.shelfRoutes().stream()
                .filter(r -> r.kind() == id)
                .forEach(r -> replaced.put(r.shelf(), codes.get(r.route())));
        return shelves.shelves().stream()
                .map(s -> new OnShelf(s.id(), s.name(), Optional.ofNullable(replaced.get(s.id()))))
                .toList();
    }

    /** Sentences of the change control that are about a kind, in words. */
    public List<String> control(Actor actor, String kind) {
        HouseRules.ask(actor);
        House house = rules.house();
        return editions.changeControl().lines(house, kind);
    }

    /** A kind's route in force. */
    public Route route(House house, KindRule kind) {
        return Optional.ofNullable(house.routes().get(kind.route())).orElseThrow(NotThere::new);
    }

    /** A route's edition, by its rule. */
    public static Route route(Edition edition) {
        return ((RouteRule) edition.rule()).route();
    }
}
