package mintshelf.core.route;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import mintshelf.core.access.Right;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Stage;
import mintshelf.core.revision.StageClass;

/**
 * Steps of drawing a route. Each gives the next state, sound or not: {@link RouteProof} speaks of it, and what is unsound cannot be kept.
 * Names that are there already, and stops or moves that are not, are refused.
 */
public final class RouteEdit {
    public static final int MOST_STOPS = 40;
    public static final int MOST_MOVES = 120;

    private RouteEdit() {}

    public static Outcome<Route> rename(Route route, String name) {
        return named(name, 100, n -> route.named(route.code(), n));
    }

    /**
     * Pulls a stop out of a move's line: the move then ends there, and a second one goes on to where it led, with what it demanded,
     * did and asked.
     *
     * @param rule code of the sign-off rule by which is asked what is to be decided in the new stop
     */
    public static Outcome<Route> pullStop(Route route, String move, String name, StageClass stageClass, String rule) {
        Optional<Move> line = route.move(move);
        if (line.isEmpty()) return gone("move", move);
        if (route.stages().size() >= MOST_STOPS) return full("stops", MOST_STOPS);
        return named(name, 60, n -> {
            Move on = line.get();
            String code = fresh(n, route.stages().stream().map(Stage::code).toList());
            boolean decides = stageClass == StageClass.DECIDING;
            Move to = new Move(
                    fresh("to " + n, codes(route)),
                    "Send to " + n,
                    on.from(),
                    code,
                    on.isMadeByRound() ? on.who() : Right.CHANGE,
                    on.isMadeByRound() ? on.gates() : List.of(Gates.HELD_BY_NOBODY),
                    decides ? List.of(Effect.OPEN_ROUND) : List.of(),
                    on.isMadeByRound() ? on.signOff() : "");
            List<Gate> gates = new ArrayList<>(on.gates());
            String lines = "";
            if (decides) {
                if (!gates.contains(Gates.SIGNED_OFF)) gates.add(Gates.SIGNED_OFF);
                lines = rule;
            } else {
                gates.remove(Gates.SIGNED_OFF);
                gates.remove(Gates.BOARD_SIGNED);
            }
            Move second = new Move(
                    on.code(),
                    on.name(),
                    code,
                    on.to(),
                    decides ? Right.SIGN : Right.CHANGE,
                    gates,
                    on.effects(),
                    lines);
            List<Stage> stages = new ArrayList<>(route.stages());
            int at = stages.indexOf(route.stage(on.from())) + 1;
            stages.add(at, new Stage(route.edition(), code, n, stageClass, 0));
            List<Move> moves = new ArrayList<>();
            for (Move m : route.moves()) {
                if (m.equals(on)) moves.add(to);
                moves.add(m.equals(on) ? second : m);
            }
            return with(route, stages, moves);
        });
    }

    /** Adds a stop at the end, which nothing leads to yet. */
    public static Outcome<Route> addStop(Route route, String name, StageClass stageClass) {
        if (route.stages().size() >= MOST_STOPS) return full("stops", MOST_STOPS);
        return named(name, 60, n -> {
            List<Stage> stages = new ArrayList<>(route.stages());
            String code = fresh(n, stages.stream().map(Stage::code).toList());
            stages.add(new Stage(route.edition(), code, n, stageClass, 0));
            return with(route, stages, route.moves());
        });
    }

    public static Outcome<Route> renameStop(Route route, String stop, String name, StageClass stageClass) {
        if (route.stages().stream().noneMatch(s -> s.code().equals(stop))) return gone("stop", stop);
        return named(
                name,
                60,
                n -> with(
                        route,
                        route.stages().stream()
                                .map(s -> s.code().equals(stop)
                                        ? new Stage(s.edition(), s.code(), n, stageClass, s.position())
                                        : s)
                                .toList(),
                        route.moves()));
    }

    /** Says of a stop who fetches its files and whether facts change there. */
    public static Outcome<Route> ruleStop(Route route, String stop, StopRule rule) {
        if (route.stages().stream().noneMatch(s -> s.code().equals(stop))) return gone("stop", stop);
        Map<String, StopRule> rules = new HashMap<>(route.rules());
        rules.put(stop, rule);
        return Outcome.granted(new Route(
                route.edition(), route.code(), route.name(), route.stages(), route.moves(), rules, route.foreign()));
    }

    /** Takes a stop out. Where it stood on the way from one to another, the line closes again, with what led out of it. */
    public static Outcome<Route> takeStop(Route route, String stop) {
        if (route.stages().stream().noneMatch(s -> s.code().equals(stop))) return gone("stop", stop);
        if (route.stages().size() == 1) {
            return Outcome.refused("route.empty", "A route has at least one stop.", "Nothing was changed.");
        }
        Optional<Move> in = route.moves().stream()
                .filter(m -> m.to().equals(stop) && !m.from().equals(stop))
                .findFirst();
        Optional<Move> out = route.from(stop).stream()
                .filter(m -> !m.to().equals(stop)
                        && in.filter(i -> i.from().equals(m.to())).isEmpty())
                .findFirst();
        List<Move> moves = new ArrayList<>();
        for (Move m : route.moves()) {
            boolean touches = m.from().equals(stop) || m.to().equals(stop);
            if (!touches) moves.add(m);
            else if (in.isPresent() && out.filter(m::equals).isPresent()) moves.add(closed(in.get(), m));
        }
        List<Stage> stages =
                route.stages().stream().filter(s -> !s.code().equals(stop)).toList();
        return Outcome.granted(with(route, stages, moves));
    }

    /** One line of two: with what both demanded and did, but for the round of the stop that is gone. */
    private static Move closed(Move in, Move out) {
        Set<Gate> gates = new LinkedHashSet<>(in.gates());
        gates.addAll(out.gates());
        Set<Effect> effects = new LinkedHashSet<>(out.effects());
        in.effects().stream().filter(e -> e != Effect.OPEN_ROUND).forEach(effects::add);
        boolean asked = in.isMadeByRound() || in.asksSignOffs();
        if (!asked) {
            gates.remove(Gates.SIGNED_OFF);
            gates.remove(Gates.BOARD_SIGNED);
        }
        return new Move(
                out.code(),
                out.name(),
                in.from(),
                out.to(),
                in.who(),
                List.copyOf(gates),
                List.copyOf(effects),
                in.signOff());
    }

    public static Outcome<Route> addMove(Route route, String name, String from, String to, Right who) {
        for (String stop : List.of(from, to)) {
            if (route.stages().stream().noneMatch(s -> s.code().equals(stop))) return gone("stop", stop);
        }
        if (from.equals(to)) {
            return Outcome.refused("route.circle", "A move leads to another stop.", "Choose where it leads.");
        }
        if (route.moves().size() >= MOST_MOVES) return full("moves", MOST_MOVES);
        return named(name, 60, n -> {
            List<Move> moves = new ArrayList<>(route.moves());
            boolean decides = route.stage(to).stageClass() == StageClass.DECIDING;
            List<Effect> effects = decides ? List.of(Effect.OPEN_ROUND) : List.of();
            moves.add(new Move(fresh(n, codes(route)), n, from, to, who, List.of(), effects));
            return with(route, route.stages(), moves);
        });
    }

    /** The way back from a stop in which is decided, to where work is done: with a reason, and its round ends. */
    public static Outcome<Route> wayBack(Route route, String stop) {
        if (route.stages().stream().noneMatch(s -> s.code().equals(stop))) return gone("stop", stop);
        Optional<Stage> work = route.firstOf(StageClass.PREPARING);
        if (work.isEmpty() || route.back(stop).isPresent()) return Outcome.granted(route);
        List<Move> moves = new ArrayList<>(route.moves());
        moves.add(new Move(
                fresh("take back from " + stop, codes(route)),
                "Take back",
                stop,
                work.get().code(),
                Right.CHANGE,
                List.of(Gates.REASON_GIVEN),
                List.of(Effect.END_ROUND)));
        return Outcome.granted(with(route, route.stages(), moves));
    }

    public static Outcome<Route> takeMove(Route route, String move) {
        if (route.move(move).isEmpty()) return gone("move", move);
        return Outcome.granted(with(
                route,
                route.stages(),
                route.moves().stream().filter(m -> !m.code().equals(move)).toList()));
    }

    /** Makes a move the usual one of those from its stop. */
    public static Outcome<Route> usual(Route route, String move) {
        Optional<Move> usual = route.move(move);
        if (usual.isEmpty()) return gone("move", move);
        List<Move> moves = new ArrayList<>();
        boolean placed = false;
        for (Move m : route.moves()) {
            if (!placed && m.from().equals(usual.get().from())) {
                moves.add(usual.get());
                placed = true;
            }
            if (!m.equals(usual.get())) moves.add(m);
        }
        return Outcome.granted(with(route, route.stages(), moves));
    }

    /** Rewrites a move's sentence: what it is called, who makes it, what it demands, does and asks. */
    public static Outcome<Route> say(
            Route route, String move, String name, Right who, List<Gate> gates, List<Effect> effects, String signOff) {
        if (route.move(move).isEmpty()) return gone("move", move);
        return named(
                name,
                60,
                n -> with(
                        route,
                        route.stages(),
                        route.moves().stream()
                                .map(m -> m.code().equals(move)
                                        ? new Move(m.code(), n, m.from(), m.to(), who, gates, effects, signOff)
                                        : m)
                                .toList()));
    }

    private static List<String> codes(Route route) {
        return route.moves().stream().map(Move::code).toList();
    }

    /** Stages are numbered anew in their order. */
    private static Route with(Route route, List<Stage> stages, List<Move> moves) {
        List<Stage> numbered = new ArrayList<>();
        for (Stage s : stages) {
            numbered.add(new Stage(s.edition(), s.code(), s.name(), s.stageClass(), numbered.size() + 1));
        }
        return route.with(numbered, moves);
    }

    private static String fresh(String name, List<String> taken) {
        return Texts.code(name, "stop", taken::contains);
    }

    private static Outcome<Route> named(String name, int most, Function<String, Route> then) {
        Outcome<String> said = Texts.required("The name", name, most);
        if (!(said instanceof Outcome.Granted<String> granted)) {
            return Outcome.refused(said.refusal().orElseThrow());
        }
        return Outcome.granted(then.apply(granted.value()));
    }

    private static Outcome<Route> gone(String what, String code) {
        return Outcome.refused(
                "route.gone",
                "The " + what + " " + Texts.shorten(code, 40) + " is not there any more.",
                "Look at it again.");
    }

    private static Outcome<Route> full(String what, int most) {
        return Outcome.refused("route.full", "A route has at most " + most + " " + what + ".", "Take some away first.");
    }
}
