package mintshelf.core.route;

import java.util.List;
import java.util.Optional;
import mintshelf.core.document.Stage;
import mintshelf.core.revision.StageClass;

/** An edition of a route: its stages in order and its moves; of several moves from a stage the first is the usual one. */
public record Route(long edition, String code, String name, List<Stage> stages, List<Move> moves) {
    public Route {
        stages = List.copyOf(stages);
        moves = List.copyOf(moves);
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
