package mintshelf.core.house;

import java.util.Map;
import mintshelf.core.route.Route;

/** What rules of a house may name, by codes: names of kinds, series and roles, routes in force, facts. */
public record House(
        Map<String, String> kinds,
        Map<String, String> series,
        Map<String, Route> routes,
        Map<String, FactRule> facts,
        Map<String, String> roles) {
    public House {
        kinds = Map.copyOf(kinds);
        series = Map.copyOf(series);
        routes = Map.copyOf(routes);
        facts = Map.copyOf(facts);
        roles = Map.copyOf(roles);
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
}
