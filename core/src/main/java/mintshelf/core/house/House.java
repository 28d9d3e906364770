package mintshelf.core.house;

import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.core.route.Route;
import mintshelf.core.signoff.Asked;

/**
 * What rules of a house may name, by codes: names of kinds, series, roles, groups, people and shelves, routes, sign-off rules and facts in force.
 *
 * @param parts codes of the kinds whose documents have no file
 */
public record House(
        Map<String, String> kinds,
        Map<String, String> series,
        Map<String, Route> routes,
        Map<String, FactRule> facts,
        Map<String, SignOffRule> signOffs,
        Map<String, String> roles,
        Map<String, String> groups,
        Map<String, String> people,
        Map<String, String> shelves,
        Set<String> parts) {
    public House {
        kinds = Map.copyOf(kinds);
        series = Map.copyOf(series);
        routes = Map.copyOf(routes);
        facts = Map.copyOf(facts);
        signOffs = Map.copyOf(signOffs);
        roles = Map.copyOf(roles);
        groups = Map.copyOf(groups);
        people = Map.copyOf(people);
        shelves = Map.copyOf(shelves);
        parts = Set.copyOf(parts);
    }

    /** The names of the kinds as which files are filed. */
    public Map<String, String> filed() {
        Map<String, String> filed = new HashMap<>(kinds);
        filed.keySet().removeAll(parts);
        return filed;
    }

    /** The name of a code, or the code where nothing is called so any more. */
    static String name(Map<String, String> names, String code) {
        return names.getOrDefault(code, code);
    }

    String fact(String code) {
        FactRule fact = facts.get(code);
        return fact == null ? code : fact.label();
    }

    String route(String code) {
        Route route = routes.get(code);
        return route == null ? code : route.name();
    }

    /** The names of the sign-off rules. */
    public Map<String, String> signOffNames() {
        return signOffs.values().stream().collect(Collectors.toMap(SignOffRule::code, SignOffRule::name));
    }

    /** The house with one sign-off rule as another edition has it. */
    House with(SignOffRule rule) {
        Map<String, SignOffRule> rules = new HashMap<>(signOffs);
        rules.put(rule.code(), rule);
        return new House(kinds, series, routes, facts, rules, roles, groups, people, shelves, parts);
    }

    private Map<String, String> named(Asked.Kind kind) {
        return switch (kind) {
            case ROLE -> roles;
            case GROUP -> groups;
            case PERSON -> people;
        };
    }

    /** What somebody who is asked or told is called; the code where nobody is called so any more. */
    String name(Asked who) {
        return name(named(who.kind()), who.code());
    }

    boolean knows(Asked who) {
        return named(who.kind()).containsKey(who.code());
    }
}
