package mintshelf.app.use.house;

import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.store.house.FilingRuleStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.RouteStore;
import mintshelf.app.store.house.RouteStore.Made;
import mintshelf.app.store.house.RuleStore;
import mintshelf.app.store.house.SeriesStore;
import mintshelf.app.store.person.GrantStore;
import mintshelf.app.store.person.GroupStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.core.content.ContentKind;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.house.FactRule;
import mintshelf.core.house.FilingOrder;
import mintshelf.core.house.House;
import mintshelf.core.house.KindRule;
import mintshelf.core.house.RouteRule;
import mintshelf.core.house.Rule;
import mintshelf.core.house.SeriesRule;
import mintshelf.core.house.SignOffRule;
import org.springframework.stereotype.Component;

/**
 * Writes an edition of a rule, and what acts read of it: tables of kinds, series, facts and filing rules always say what the latest
 * editions say. Within the caller's transaction.
 */
@Component
class RuleWriter {
    private final HouseStore house;
    private final RouteStore routes;
    private final SeriesStore series;
    private final FilingRuleStore filing;
    private final RuleStore editions;
    private final GrantStore grants;
    private final GroupStore groups;
    private final PersonStore people;
    private final ShelfStore shelves;

    RuleWriter(
            HouseStore house,
            RouteStore routes,
            SeriesStore series,
            FilingRuleStore filing,
            RuleStore editions,
            GrantStore grants,
            GroupStore groups,
            PersonStore people,
            ShelfStore shelves) {
        this.house = house;
        this.routes = routes;
        this.series = series;
        this.filing = filing;
        this.editions = editions;
        this.grants = grants;
        this.groups = groups;
        this.people = people;
        this.shelves = shelves;
    }

    /** What rules may name now. */
    House house() {
        Map<String, String> kinds = new LinkedHashMap<>();
        Set<String> parts = new HashSet<>();
        house.kinds().stream().filter(k -> !k.isChangePaper()).forEach(k -> {
            kinds.put(k.code(), k.name());
            if (k.isPart()) parts.add(k.code());
        });
        Map<String, String> numbers =
                series.all().values().stream().collect(Collectors.toMap(SeriesRule::code, SeriesRule::name));
        Map<String, FactRule> facts =
                house.facts().stream().map(RuleWriter::rule).collect(Collectors.toMap(FactRule::code, f -> f));
        return new House(
                kinds,
                numbers,
                routes.inForce(),
                facts,
                editions.signOffs().stream().collect(Collectors.toMap(SignOffRule::code, r -> r)),
                grants.roleNames(),
                groups.groups().stream().collect(Collectors.toMap(g -> Long.toString(g.id()), GroupStore.Group::name)),
                people.names(),
                shelves.shelves().stream()
                        .collect(Collectors.toMap(s -> Long.toString(s.id()), ShelfStore.Shelf::name)),
                parts);
    }

    static FactRule rule(FactDefinition fact) {
        return new FactRule(fact.name(), fact.label(), fact.form(), fact.use());
    }

    /** The number of the rule's latest edition, 0 for a new one; locked until the transaction ends. */
    int latest(Rule rule) {
        return rule instanceof RouteRule
                ? routes.latestNumber(rule.code())
                : editions.latestNumber(rule.subject(), rule.code());
    }

    /** Keeps a rule, asked before, as its next edition. */
    void write(Rule rule, Made made) {
        boolean fresh = latest(rule) == 0;
        if (rule instanceof RouteRule route) {
            if (fresh) routes.newRoute(route.code(), route.name());
            routes.addEdition(route.route(), made);
            return;
        }
        editions.add(rule, made);
        if (rule instanceof SeriesRule s) {
            if (fresh)
                series.addSeries(s.code(), s.name(), s.pattern(), s.counts().name());
            else series.change(s);
        } else if (rule instanceof FactRule f) {
            if (fresh) house.addFact(f);
            else house.change(f);
        } else if (rule instanceof FilingOrder order) {
            filing(order);
        } else if (rule instanceof KindRule k) {
            kind(k, fresh);
        }
    }

    private void filing(FilingOrder order) {
        Map<String, Long> kinds = new HashMap<>();
        house.kinds().forEach(k -> kinds.put(k.code(), k.id()));
        filing.clear();
        int position = 1;
        for (FilingOrder.Sentence s : order.sentences()) {
            List<String> contents = s.contents().isEmpty()
                    ? List.of("")
                    : s.contents().stream().map(ContentKind::name).toList();
            for (String content : contents) filing.add(position, content, s.named(), kinds.get(s.kind()));
            position++;
        }
    }

    private void kind(KindRule k, boolean fresh) {
        long numbers = series.all().entrySet().stream()
                .filter(s -> s.getValue().code().equals(k.series()))
                .map(Map.Entry::getKey)
                .findFirst()
                .orElseThrow();
        Kind kind = new Kind(
                fresh ? 0 : house.kind(k.code()).id(),
                k.code(),
                k.name(),
                k.aspect(),
                k.glyph(),
                numbers,
                k.revisions(),
                k.labelAtStart(),
                routes.route(k.route()).orElseThrow(),
                k.paper(),
                k.outputs());
        long id = kind.id();
        if (fresh) id = house.addKind(kind, house.kinds().size() + 1).id();
        else house.change(kind);
        house.clearFacts(id);
        Map<String, Long> facts = new HashMap<>();
        house.facts().forEach(f -> facts.put(f.name(), f.id()));
        int position = 1;
        for (KindRule.OnSheet fact : k.facts()) {
            house.giveFact(id, facts.get(fact.fact()), fact.required(), fact.cleared(), position++);
        }
    }
}
