package mintshelf.core.route;

import static mintshelf.core.Documents.PRIYA;
import static mintshelf.core.Documents.TOMASZ;
import static mintshelf.core.Documents.document;
import static mintshelf.core.Documents.heldBy;
import static mintshelf.core.Documents.person;
import static mintshelf.core.Documents.preparing;
import static mintshelf.core.Documents.revision;
import static mintshelf.core.Documents.withHead;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import mintshelf.core.access.Access;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.document.NeutralRules;
import mintshelf.core.revision.StageClass;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** Each gate alone: what closes it, what opens it, and what an act settles itself. */
class GatesTest {
    private static final Access DESIGNER = person(PRIYA, Right.SEE_ALL, Right.CHANGE);
    private static final Known FREE = Known.of(preparing(Optional.empty()), DESIGNER);
    private static final Known MINE = Known.of(preparing(Optional.of(heldBy(PRIYA))), DESIGNER);
    private static final Known THEIRS = Known.of(preparing(Optional.of(heldBy(TOMASZ))), DESIGNER);
    private static final Refusal FINDING = Refusal.of("gate.checks", "A layer is empty.", "Draw on it.");
    private static final Refusal UNREAD = Refusal.of("gate.checks", "Nobody can read the sheet.", "Save it anew.");
    private static final By SAYS_NOTHING = By.handSaying(" ");

    /** What only the shelf wrote is no work of the revision. */
    private static Known startedOnly() {
        Document d = document(
                Optional.of(revision("B", StageClass.PREPARING)),
                Optional.of(revision("A", StageClass.RELEASED)),
                Optional.empty());
        return Known.of(withHead(d, d.released().orElseThrow(), false), DESIGNER);
    }

    private static Case.Within part(long item, boolean released) {
        return new Case.Within(item, "TG40-" + item, released);
    }

    static Stream<Arguments> table() {
        return Stream.of(
                Arguments.of(Gates.HELD_BY_NOBODY, FREE, By.HAND, ""),
                Arguments.of(Gates.HELD_BY_NOBODY, MINE, By.HAND, "You hold TG40-3030."),
                Arguments.of(Gates.HELD_BY_NOBODY, MINE, By.SENDING, ""),
                Arguments.of(Gates.HELD_BY_NOBODY, THEIRS, By.SENDING, "TG40-3030 is held by Person 6."),
                Arguments.of(Gates.HELD_BY_NOBODY, THEIRS, By.ORDER, "TG40-3030 is held by Person 6."),
                Arguments.of(Gates.FACTS_FILLED, FREE, By.HAND, ""),
                Arguments.of(
                        Gates.FACTS_FILLED,
                        FREE.lacking(List.of("Material", "Mass")),
                        By.LAST_SIGN_OFF,
                        "Not filled: Material, Mass."),
                Arguments.of(Gates.OWN_VERSION, FREE, By.HAND, ""),
                Arguments.of(Gates.OWN_VERSION, startedOnly(), By.ORDER, "Nothing was checked in for revision B yet."),
                Arguments.of(Gates.REFERENCES_FOUND, FREE, By.HAND, ""),
                Arguments.of(Gates.REFERENCES_FOUND, FREE.lost(UNREAD), By.HAND, UNREAD.reason()),
                Arguments.of(Gates.CHECKS_PASSED, FREE.found(List.of(FINDING), List.of()), By.HAND, FINDING.reason()),
                Arguments.of(Gates.CHECKS_PASSED, FREE.found(List.of(), List.of(UNREAD)), By.HAND, ""),
                Arguments.of(Gates.SHEET_PASSED, FREE.found(List.of(), List.of(UNREAD)), By.HAND, UNREAD.reason()),
                Arguments.of(Gates.SHEET_PASSED, FREE, By.SENDING, ""),
                Arguments.of(
                        Gates.COMPONENTS_RELEASED,
                        FREE.consisting(List.of(part(8, true), part(9, false)), Set.of()),
                        By.LAST_SIGN_OFF,
                        "Not released: TG40-9."),
                Arguments.of(
                        Gates.COMPONENTS_RELEASED,
                        FREE.consisting(List.of(part(8, true), part(9, false)), Set.of(9L)),
                        By.LAST_SIGN_OFF,
                        ""),
                Arguments.of(
                        Gates.COMPONENTS_RELEASED,
                        FREE.consisting(
                                Stream.of(1L, 2L, 3L, 4L, 5L, 5L)
                                        .map(i -> part(i, false))
                                        .toList(),
                                Set.of()),
                        By.HAND,
                        "Not released: TG40-1, TG40-2, TG40-3 and 2 more."),
                Arguments.of(Gates.DRAWING_NOT_OLDER, FREE, By.HAND, ""),
                Arguments.of(
                        Gates.DRAWING_NOT_OLDER,
                        FREE.showing("TG40-3030"),
                        By.LAST_SIGN_OFF,
                        "The model TG40-3030 was changed after this sheet."),
                Arguments.of(Gates.NEUTRAL_CURRENT, FREE, By.HAND, ""),
                Arguments.of(
                        Gates.NEUTRAL_CURRENT,
                        FREE.behind(NeutralRules.notCurrent("TG40-3030", 4, Optional.of(3))),
                        By.LAST_SIGN_OFF,
                        "The neutral copy of TG40-3030 shows version 3, the file is at 4."),
                Arguments.of(Gates.NO_OPEN_CHANGE_REMARK, FREE, By.LAST_SIGN_OFF, ""),
                Arguments.of(
                        Gates.NO_OPEN_CHANGE_REMARK,
                        FREE.marked("C4-1"),
                        By.LAST_SIGN_OFF,
                        "A change is wanted on TG40-3030: remark C4-1 is open."),
                Arguments.of(
                        Gates.NO_OPEN_CHANGE_REMARK,
                        FREE.marked("A1-1", "B2-1", "C4-1", "D1-1", "D1-2"),
                        By.HAND,
                        "Changes are wanted on TG40-3030: remarks A1-1, B2-1, C4-1 and 2 more are open."),
                Arguments.of(Gates.NOT_ON_AN_ORDER, FREE, By.HAND, ""),
                Arguments.of(Gates.NOT_ON_AN_ORDER, FREE.on("CO 26-007"), By.HAND, "TG40-3030 goes with CO 26-007."),
                Arguments.of(Gates.NOT_ON_AN_ORDER, FREE.on("CO 26-007"), By.ORDER, ""),
                Arguments.of(Gates.DECIDED_WITH_ORDER, FREE, By.HAND, "TG40-3030 is decided with an order."),
                Arguments.of(Gates.DECIDED_WITH_ORDER, FREE, By.LAST_SIGN_OFF, "TG40-3030 is decided with an order."),
                Arguments.of(Gates.DECIDED_WITH_ORDER, FREE, By.ORDER, ""),
                Arguments.of(Gates.LINES_READY, FREE.lines(FINDING), By.HAND, FINDING.reason()),
                Arguments.of(Gates.LINES_READY, FREE, By.HAND, ""),
                Arguments.of(Gates.GOALS_REACHED, FREE.goals(FINDING), By.HAND, FINDING.reason()),
                Arguments.of(Gates.GOALS_REACHED, FREE, By.ORDER, ""),
                Arguments.of(Gates.SIGNED_OFF, FREE.unsigned("checked"), By.HAND, "Not signed yet: checked."),
                Arguments.of(Gates.SIGNED_OFF, FREE.unsigned("checked"), By.LAST_SIGN_OFF, ""),
                Arguments.of(Gates.BOARD_SIGNED, FREE.unsigned("decided"), By.HAND, "Not signed yet: decided."),
                Arguments.of(Gates.BOARD_SIGNED, FREE, By.HAND, ""),
                Arguments.of(Gates.REASON_GIVEN, FREE, By.HAND, ""),
                Arguments.of(Gates.REASON_GIVEN, FREE, By.handSaying("too thin"), ""),
                Arguments.of(Gates.REASON_GIVEN, FREE, SAYS_NOTHING, "It needs a reason."));
    }

    @ParameterizedTest
    @MethodSource("table")
    void aGateSaysWhatClosesIt(Gate gate, Case one, By by, String reason) {
        assertThat(gate.ask(one, by))
                .extracting(Refusal::reason)
                .isEqualTo(reason.isEmpty() ? List.of() : List.of(reason));
    }

    @Test
    void everyGateIsKeptUnderACodeOfItsOwnAndFoundByIt() {
        assertThat(Gates.ALL).extracting(Gate::code).doesNotHaveDuplicates();
        assertThat(Gates.ALL).allSatisfy(gate -> {
            assertThat(Gates.of(gate.code())).contains(gate);
            assertThat(gate.words()).isNotBlank();
        });
        assertThat(Gates.of("WELDED")).isEmpty();
        assertThat(Gates.ALL).hasSize(Gate.class.getPermittedSubclasses().length);
    }

    @Test
    void everyGateHasItsRowsInTheTable() {
        assertThat(table().map(a -> a.get()[0])).containsAll(Gates.ALL);
    }
}
