package mintshelf.core.route;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import mintshelf.core.access.Right;
import mintshelf.core.document.Stage;
import mintshelf.core.revision.StageClass;

/** Routes for tests: a sound one, and seeded random ones of all kinds. */
final class Routes {
    private static final List<StageClass> CLASSES = List.of(StageClass.values());

    private Routes() {}

    /** In preparation, one review, released, superseded, withdrawn. */
    static Route reviewed() {
        return new Route(
                0,
                "reviewed",
                "Reviewed",
                List.of(
                        stage("preparation", "In preparation", StageClass.PREPARING, 1),
                        stage("review", "In review", StageClass.DECIDING, 2),
                        stage("released", "Released", StageClass.RELEASED, 3),
                        stage("superseded", "Superseded", StageClass.SUPERSEDED, 4),
                        stage("withdrawn", "Withdrawn", StageClass.WITHDRAWN, 5)),
                List.of(
                        new Move(
                                "send",
                                "Send to review",
                                "preparation",
                                "review",
                                Right.CHANGE,
                                List.of(Gates.HELD_BY_NOBODY, Gates.FACTS_FILLED),
                                List.of(Effect.OPEN_ROUND)),
                        new Move(
                                "release",
                                "Release",
                                "review",
                                "released",
                                Right.SIGN,
                                List.of(Gates.SIGNED_OFF),
                                List.of(Effect.FIX_LABEL, Effect.SUPERSEDE_FORMER),
                                "check-twice"),
                        new Move(
                                "take-back",
                                "Take back",
                                "review",
                                "preparation",
                                Right.CHANGE,
                                List.of(Gates.REASON_GIVEN),
                                List.of(Effect.END_ROUND)),
                        new Move(
                                "withdraw",
                                "Withdraw",
                                "released",
                                "withdrawn",
                                Right.KEEP_SHELF,
                                List.of(Gates.REASON_GIVEN),
                                List.of())));
    }

    static Stage stage(String code, String name, StageClass stageClass, int position) {
        return new Stage(0, code, name, stageClass, position);
    }

    /** Anything that can be drawn: sound and unsound, with circles, doubles and islands. */
    static Route random(Random random) {
        int stops = 1 + random.nextInt(12);
        List<Stage> stages = new ArrayList<>();
        for (int i = 0; i < stops; i++) {
            StageClass stageClass = i == 0 ? StageClass.PREPARING : CLASSES.get(random.nextInt(CLASSES.size()));
            stages.add(stage("s" + i, "Stop " + i, stageClass, i + 1));
        }
        List<Move> moves = new ArrayList<>();
        int n = random.nextInt(2 * stops + 1);
        for (int i = 0; i < n; i++) {
            int from = random.nextInt(stops);
            int to = random.nextInt(stops);
            if (from == to) continue;
            boolean round = random.nextBoolean();
            moves.add(new Move(
                    "m" + i,
                    "Move " + i,
                    "s" + from,
                    "s" + to,
                    Right.CHANGE,
                    round ? List.of(Gates.SIGNED_OFF) : List.of(Gates.HELD_BY_NOBODY),
                    stages.get(to).stageClass() == StageClass.DECIDING ? List.of(Effect.OPEN_ROUND) : List.of(),
                    round ? "read" : ""));
        }
        return new Route(0, "random", "Random", stages, moves);
    }
}
