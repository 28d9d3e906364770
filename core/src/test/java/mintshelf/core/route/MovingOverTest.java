package mintshelf.core.route;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Stage;
import mintshelf.core.revision.StageClass;
import org.junit.jupiter.api.Test;

class MovingOverTest {
    private static final Route LATEST = new Route(
            9,
            "r",
            "R",
            List.of(
                    stage(9, "draft", StageClass.PREPARING),
                    stage(9, "rework", StageClass.PREPARING),
                    stage(9, "review", StageClass.DECIDING),
                    stage(9, "released", StageClass.RELEASED)),
            List.of());

    private static Stage stage(long edition, String code, StageClass stageClass) {
        return new Stage(edition, code, code, stageClass, 1);
    }

    private static String to(Stage now) {
        Outcome<Optional<Stage>> to = MovingOver.to(now, LATEST);
        return to.refusal()
                .map(Refusal::code)
                .orElseGet(() -> ((Outcome.Granted<Optional<Stage>>) to)
                        .value()
                        .map(Stage::code)
                        .orElse("stays"));
    }

    @Test
    void aRevisionGoesToTheStopOfItsNameElseOfItsPurpose() {
        assertThat(to(stage(9, "rework", StageClass.PREPARING))).isEqualTo("stays");
        assertThat(to(stage(4, "rework", StageClass.PREPARING))).isEqualTo("rework");
        assertThat(to(stage(4, "preparation", StageClass.PREPARING))).isEqualTo("draft");
        assertThat(to(stage(4, "review", StageClass.PREPARING)))
                .as("a stop of its name that is for something else is none")
                .isEqualTo("draft");
        assertThat(to(stage(4, "released", StageClass.RELEASED))).isEqualTo("released");
        assertThat(to(stage(4, "review", StageClass.DECIDING))).isEqualTo("move.over_deciding");
        assertThat(to(stage(4, "gone", StageClass.WITHDRAWN))).isEqualTo("move.over_nowhere");
    }
}
