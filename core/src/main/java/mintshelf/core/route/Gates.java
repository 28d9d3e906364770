package mintshelf.core.route;

import java.util.List;
import java.util.Optional;

/** The gates that there are, by the codes under which editions of routes keep them. */
public final class Gates {
    public static final Gate HELD_BY_NOBODY = new Gate.HeldByNobody();
    public static final Gate FACTS_FILLED = new Gate.FactsFilled();
    public static final Gate OWN_VERSION = new Gate.OwnVersion();
    public static final Gate REFERENCES_FOUND = new Gate.ReferencesFound();
    public static final Gate CHECKS_PASSED = new Gate.ChecksPassed();
    public static final Gate SHEET_PASSED = new Gate.SheetPassed();
    public static final Gate COMPONENTS_RELEASED = new Gate.ComponentsReleased();
    public static final Gate DRAWING_NOT_OLDER = new Gate.DrawingNotOlderThanModel();
    public static final Gate NEUTRAL_CURRENT = new Gate.NeutralCopyCurrent();
    public static final Gate NO_OPEN_CHANGE_REMARK = new Gate.NoOpenChangeRemark();
    public static final Gate NOT_ON_AN_ORDER = new Gate.NotOnAnOrder();
    public static final Gate DECIDED_WITH_ORDER = new Gate.DecidedWithOrder();
    public static final Gate LINES_READY = new Gate.LinesReady();
    public static final Gate GOALS_REACHED = new Gate.GoalsReached();
    public static final Gate SIGNED_OFF = new Gate.SignedOff();
    public static final Gate BOARD_SIGNED = new Gate.BoardSigned();
    public static final Gate REASON_GIVEN = new Gate.ReasonGiven();

    /** All of them, in the order in which a page offers them. */
    public static final List<Gate> ALL = List.of(
            HELD_BY_NOBODY,
            FACTS_FILLED,
            OWN_VERSION,
            REFERENCES_FOUND,
            CHECKS_PASSED,
            SHEET_PASSED,
            COMPONENTS_RELEASED,
            DRAWING_NOT_OLDER,
            NEUTRAL_CURRENT,
            NO_OPEN_CHANGE_REMARK,
            NOT_ON_AN_ORDER,
            DECIDED_WITH_ORDER,
            LINES_READY,
            GOALS_REACHED,
            SIGNED_OFF,
            BOARD_SIGNED,
            REASON_GIVEN);

    private Gates() {}

    /** The gate of a code; empty for one that this release does not know. */
    public static Optional<Gate> of(String code) {
        return ALL.stream().filter(g -> g.code().equals(code)).findFirst();
    }
}
