package mintshelf.core.route;

import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import mintshelf.core.document.Stage;
import mintshelf.core.revision.StageClass;

/**
 * An edition of a route: its stages in order and its moves; of several moves from a stage the first is the usual one.
 *
 * @param rules what stops say beside their classes, by stage; those that say the usual are left out
 * @param foreign what a state chart held for other readers, as text: of the whole under an empty key, of a stage under {@code stop CODE}, of
 *     a move under {@code move CODE}
 */
public record Route(
        long edition,
        String code,
        String name,
        List<Stage> stages,
        List<Move> moves,
        Map<String, StopRule> rules,
        Map<String, String> foreign) {
    public Route {
        stages = List.copyOf(stages);
        moves = List.copyOf(moves);
        Set<String> kept = new HashSet<>(Set.of(""));
        Map<String, StopRule> said = new TreeMap<>();
        for (Stage stage : stages) {
            kept.add("stop " + stage.code());
            StopRule rule = rules.get(stage.code());
            if (rule != null && !rule.equals(StopRule.USUAL)) said.put(stage.code(), rule);
        }
        moves.forEach(m -> kept.add("move " + m.code()));
        // What belonged to a stop or a move that is gone goes with it.
        Map<String, String> theirs = new TreeMap<>(foreign);
        theirs.keySet().retainAll(kept);
        rules = Collections.unmodifiableMap(said);
        foreign = Collections.unmodifiableMap(theirs);
    }

    /** A route whose stops say nothing beside their classes. */
    public Route(long edition, String code, String name, List<Stage> stages, List<Move> moves) {
        this(edition, code, name, stages, moves, Map.of(), Map.of());
    }

    /** The same route under other names. */
    public Route named(String otherCode, String otherName) {
        return new Route(edition, otherCode, otherName, stages, moves, rules, foreign);
    }

    /** The same route with other stops and moves. */
    public Route with(List<Stage> otherStages, List<Move> otherMoves) {
        return new Route(edition, code, name, otherStages, otherMoves, rules, foreign);
    }

    /** What a stop says beside its class. */
    public StopRule rule(String stage) {
        return rules.getOrDefault(stage, StopRule.USUAL);
    }

    public Stage stage(String code) {
        return stages.stream().filter(s -> s.code().equals(code)).findFirst().orElseThrow();
    }

    /** Where work on a revision begins. */
    public Stage firstStage() {
        return stages.get(0);
    }

    public Optional<Stage> firstOf(StageClass stageClass) {
        return stages.stream().filter(s -> s.stageClass() == stageClass).findFirst();
    }

    public List<Move> from(String stage) {
        return moves.stream().filter(m -> m.from().equals(stage)).toList();
    }

    public Optional<Move> move(String code) {
        return moves.stream().filter(m -> m.code().equals(code)).findFirst();
    }

    /** The move that a round in this stage decides: by its last signature, or by opening it to somebody's hand. */
    public Optional<Move> decided(String stage) {
        return from(stage).stream().filter(Move::asksSignOffs).findFirst();
    }

    /** The move from a stage that brings a revision into force. */
    public Optional<Move> releases(String stage) {
        return from(stage).stream()
                .filter(m -> stage(m.to()).stageClass() == StageClass.RELEASED)
                .findFirst();
    }

    /** The move from a stage that does this. */
    public Optional<Move> doing(Effect effect, String stage) {
        return from(stage).stream().filter(m -> m.does(effect)).findFirst();
    }

    /** The way back to work from a stage in which is decided. */
    public Optional<Move> back(String stage) {
        return from(stage).stream()
                .filter(m -> stage(m.to()).stageClass() == StageClass.PREPARING)
                .findFirst();
    }

    /** The move from a stage that opens a round. */
    public Optional<Move> opensRound(String stage) {
        return from(stage).stream().filter(m -> m.does(Effect.OPEN_ROUND)).findFirst();
    }
}
