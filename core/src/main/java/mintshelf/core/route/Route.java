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
}
