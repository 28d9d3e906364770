package mintshelf.core.route;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Stage;
import mintshelf.core.revision.StageClass;

/**
 * That a route can be gone: asked when an edition is saved and when it is loaded, so that no act finds itself on a road without an
 * end. O(stages × moves).
 */
public final class RouteProof {
    private static final Set<StageClass> ENDS =
            Set.of(StageClass.RELEASED, StageClass.SUPERSEDED, StageClass.WITHDRAWN, StageClass.CLOSED);

    private RouteProof() {}

    /** What is wrong, each in words for the person who draws the route; empty for one that can be gone. */
    public static List<Refusal> ask(Route route) {
        List<Refusal> wrong = new ArrayList<>();
        if (route.stages().isEmpty()) return List.of(no("route.empty", "It has no stage.", "Begin with one."));
        Set<String> codes = new HashSet<>();
        for (Stage stage : route.stages()) {
            if (!codes.add(stage.code()))
                wrong.add(no("route.twice", "The stage " + stage.name() + " stands twice.", "Take one away."));
        }
        Set<String> moves = new HashSet<>();
        for (Move move : route.moves()) {
            if (!moves.add(move.code()))
                wrong.add(no("route.twice", "The move " + move.name() + " stands twice.", "Give one another code."));
            for (String end : List.of(move.from(), move.to())) {
                if (!codes.contains(end))
                    wrong.add(no(
                            "route.nowhere",
                            "The move " + move.name() + " names a stage that is not there: " + end + ".",
                            "Choose one of the stages."));
            }
        }
        // What follows asks stages by their codes.
        if (!wrong.isEmpty()) return List.copyOf(wrong);
        if (route.firstStage().stageClass() != StageClass.PREPARING) {
            wrong.add(no(
                    "route.first",
                    "Work begins in its first stage; " + route.firstStage().name() + " is none for work.",
                    "Put one first in which things are prepared."));
        }
        reachable(route, wrong);
        ends(route, wrong);
        rounds(route, wrong);
        superseding(route, wrong);
        return List.copyOf(wrong);
    }

    /** Stages that moves lead to; superseding and dropping are done by other acts than moves. */
    private static void reachable(Route route, List<Refusal> wrong) {
        Set<String> reached = walk(route, route.firstStage().code());
        for (Stage stage : route.stages()) {
            boolean byActs = stage.stageClass() == StageClass.SUPERSEDED
                    || stage.stageClass() == StageClass.CLOSED
                    // A paper that an act issues has no moves of its own.
                    || (route.moves().isEmpty() && stage.stageClass() == StageClass.RELEASED);
            if (!byActs && !reached.contains(stage.code())) {
                wrong.add(no(
                        "route.unreached",
                        "Nothing leads to " + stage.name() + ".",
                        "Draw a move to it, or take it away."));
            }
        }
    }

    private static void ends(Route route, List<Refusal> wrong) {
        if (route.moves().isEmpty()) return;
        for (Stage stage : route.stages()) {
            if (ENDS.contains(stage.stageClass())) continue;
            boolean ends = walk(route, stage.code()).stream()
                    .anyMatch(code -> ENDS.contains(route.stage(code).stageClass()));
            if (!ends)
                wrong.add(no(
                        "route.endless",
                        "From " + stage.name() + " no way leads to an end.",
                        "Draw one that releases or closes."));
        }
    }

    private static void rounds(Route route, List<Refusal> wrong) {
        for (Stage stage : route.stages()) {
            if (stage.stageClass() != StageClass.DECIDING) continue;
            if (route.back(stage.code()).isEmpty()) {
                wrong.add(no(
                        "route.no_way_back",
                        "What is in " + stage.name() + " cannot be returned.",
                        "Draw a way back to where it is prepared."));
            }
            if (route.decided(stage.code()).isEmpty()) {
                wrong.add(no(
                        "route.undecided",
                        "In " + stage.name() + " nobody is asked to sign.",
                        "Give the move out of it a sign-off rule."));
            }
        }
        for (Move move : route.moves()) {
            boolean deciding = route.stage(move.to()).stageClass() == StageClass.DECIDING;
            if (move.does(Effect.OPEN_ROUND) != deciding) {
                wrong.add(
                        deciding
                                ? no(
                                        "route.no_round",
                                        move.name() + " leads to where is decided and asks nobody.",
                                        "Let it ask for sign-offs.")
                                : no(
                                        "route.stray_round",
                                        move.name() + " asks for sign-offs and leads to no stage of deciding.",
                                        "Lead it to one."));
            }
            boolean signs =
                    move.gates().contains(Gates.SIGNED_OFF) || move.gates().contains(Gates.BOARD_SIGNED);
            if (signs != move.asksSignOffs()) {
                wrong.add(no(
                        "route.signatures",
                        signs
                                ? move.name() + " waits for signatures and nobody is asked."
                                : move.name() + " asks people to sign and does not wait for them.",
                        "A sign-off rule and its gate go together."));
            }
        }
    }

    private static void superseding(Route route, List<Refusal> wrong) {
        for (Move move : route.moves()) {
            boolean brings = route.stage(move.to()).stageClass() == StageClass.RELEASED;
            if (move.does(Effect.SUPERSEDE_FORMER)
                    && route.firstOf(StageClass.SUPERSEDED).isEmpty()) {
                wrong.add(no(
                        "route.no_superseded",
                        move.name() + " supersedes the former revision, and no stage is there for it.",
                        "Add a superseded stage."));
            }
            if (brings && route.firstOf(StageClass.SUPERSEDED).isPresent() && !move.does(Effect.SUPERSEDE_FORMER)) {
                wrong.add(no(
                        "route.two_in_force",
                        move.name() + " would leave two revisions in force.",
                        "Let it supersede the former one."));
            }
        }
    }

    /** The moves that decide the rounds which a move opens one after the other; their signatures stand on one sheet. */
    public static List<Move> later(Route route, Move move) {
        List<Move> later = new ArrayList<>();
        Set<String> seen = new HashSet<>();
        Move next = move;
        while (next.does(Effect.OPEN_ROUND) && next.asksSignOffs() && seen.add(next.to())) {
            Optional<Move> decided = route.decided(next.to());
            if (decided.isEmpty()) break;
            next = decided.get();
            later.add(next);
        }
        return later;
    }

    private static Set<String> walk(Route route, String from) {
        Set<String> seen = new HashSet<>(Set.of(from));
        Deque<String> open = new ArrayDeque<>(seen);
        while (!open.isEmpty()) {
            for (Move move : route.from(open.pop())) {
                if (seen.add(move.to())) open.push(move.to());
            }
        }
        return seen;
    }

    private static Refusal no(String code, String reason, String remedy) {
        return Refusal.of(code, reason, remedy);
    }
}
