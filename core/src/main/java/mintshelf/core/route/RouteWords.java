package mintshelf.core.route;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import mintshelf.core.revision.StageClass;

/** Routes as sentences. */
public final class RouteWords {
    private RouteWords() {}

    /** What stands in a stop of a class: "is worked on". */
    public static String stands(StageClass stageClass) {
        return switch (stageClass) {
            case PREPARING -> "is worked on; content and facts change";
            case DECIDING -> "is decided on; content stays as it is";
            case RELEASED -> "is in force, for everybody";
            case SUPERSEDED -> "was in force until the next revision was";
            case WITHDRAWN -> "was taken out of force";
            case CLOSED -> "ended without having been in force";
        };
    }

    /** "Whoever may change documents makes it, from In preparation to In review, when …; then …. It asks …" */
    public static String says(Route route, Move move, Map<String, String> rules) {
        StringBuilder says = new StringBuilder();
        says.append(
                        move.isMadeByRound()
                                ? "The last sign-off"
                                : "Whoever may " + move.who().words())
                .append(move.isMadeByRound() ? " takes it from " : " may take it from ")
                .append(name(route, move.from()))
                .append(" to ")
                .append(name(route, move.to()));
        List<String> demands = move.gates().stream().map(Gate::words).toList();
        if (!demands.isEmpty()) says.append(", when ").append(joined(demands));
        List<String> effects = move.effects().stream().map(Effect::words).toList();
        if (!effects.isEmpty()) says.append("; then ").append(joined(effects));
        says.append('.');
        if (move.asksSignOffs()) {
            says.append(" It asks by the sign-off rule “")
                    .append(rules.getOrDefault(move.signOff(), move.signOff()))
                    .append("”.");
        }
        return says.toString();
    }

    private static String name(Route route, String stage) {
        return route.stages().stream()
                .filter(s -> s.code().equals(stage))
                .map(s -> s.name())
                .findFirst()
                .orElse(stage);
    }

    /** "a, b and c". */
    static String joined(List<String> words) {
        List<String> all = new ArrayList<>(words);
        if (all.size() < 2) return String.join("", all);
        String last = all.remove(all.size() - 1);
        return String.join(", ", all) + " and " + last;
    }
}
