package mintshelf.core.route;

import java.util.ArrayList;
import java.util.List;
import mintshelf.core.revision.StageClass;

/** Editions of routes as they were first kept: what every move demanded without saying so is said here as gates. */
public final class FirstForm {
    private FirstForm() {}

    /** The route with the gates that the code asked beside those that its moves named. */
    public static Route completed(Route route) {
        return new Route(
                route.edition(),
                route.code(),
                route.name(),
                route.stages(),
                route.moves().stream().map(m -> completed(route, m)).toList());
    }

    private static Move completed(Route route, Move move) {
        StageClass from = route.stage(move.from()).stageClass();
        StageClass to = route.stage(move.to()).stageClass();
        List<Gate> gates = new ArrayList<>(move.gates());
        boolean ofOrder = gates.contains(Gates.LINES_READY) || gates.contains(Gates.BOARD_SIGNED);
        boolean asks = move.does(Effect.OPEN_ROUND);
        if (!ofOrder && (asks || to == StageClass.RELEASED)) {
            gates.add(Gates.OWN_VERSION);
            gates.add(Gates.NOT_ON_AN_ORDER);
            if (from == StageClass.PREPARING) {
                gates.add(Gates.REFERENCES_FOUND);
                gates.add(asks ? Gates.SHEET_PASSED : Gates.CHECKS_PASSED);
            }
        }
        if (to == StageClass.WITHDRAWN || move.does(Effect.END_ROUND)) gates.add(Gates.REASON_GIVEN);
        return new Move(
                move.code(), move.name(), move.from(), move.to(), move.who(), gates, move.effects(), move.signOffs());
    }
}
