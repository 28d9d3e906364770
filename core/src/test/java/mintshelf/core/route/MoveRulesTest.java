package mintshelf.core.route;

import static mintshelf.core.Documents.PRIYA;
import static mintshelf.core.Documents.TOMASZ;
import static mintshelf.core.Documents.document;
import static mintshelf.core.Documents.heldBy;
import static mintshelf.core.Documents.part;
import static mintshelf.core.Documents.person;
import static mintshelf.core.Documents.preparing;
import static mintshelf.core.Documents.released;
import static mintshelf.core.Documents.revision;
import static mintshelf.core.Documents.withHead;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import mintshelf.core.access.Access;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.document.Stage;
import mintshelf.core.next.Act;
import mintshelf.core.next.NextStep;
import mintshelf.core.revision.StageClass;
import org.junit.jupiter.api.Test;

class MoveRulesTest {
    private static final Move RELEASE = new Move(
            "release",
            "Release",
            "preparation",
            "released",
            Right.CHANGE,
            List.of(Gates.HELD_BY_NOBODY, Gates.OWN_VERSION, Gates.FACTS_FILLED),
            List.of(Effect.FIX_LABEL));
    private static final Access DESIGNER = person(PRIYA, Right.SEE_ALL, Right.CHANGE);

    private static List<String> codes(Document document, Access access, List<String> empty) {
        return MoveRules.ask(RELEASE, Known.of(document, access).lacking(empty), By.HAND).stream()
                .map(Refusal::code)
                .toList();
    }

    @Test
    void aMoveOpensWhenNothingIsInTheWay() {
        assertThat(codes(preparing(Optional.empty()), DESIGNER, List.of())).isEmpty();
    }

    @Test
    void allThatIsInTheWayIsToldAtOnce() {
        assertThat(codes(preparing(Optional.of(heldBy(TOMASZ))), person(PRIYA), List.of("Material")))
                .containsExactly("access.missing", "gate.held", "gate.facts");
        assertThat(codes(released(), DESIGNER, List.of())).containsExactly("move.stage");
    }

    @Test
    void aRevisionWithoutAVersionOfItsOwnDoesNotMove() {
        Document d = document(
                Optional.of(revision("B", StageClass.PREPARING)),
                Optional.of(revision("A", StageClass.RELEASED)),
                Optional.empty());
        Document started = withHead(d, d.released().orElseThrow(), false);
        assertThat(codes(started, DESIGNER, List.of())).containsExactly("move.no_version");
    }

    @Test
    void theNextStepFollowsStateAndRights() {
        assertThat(NextStep.of(preparing(Optional.empty()), DESIGNER).act()).isEqualTo(Act.CHECK_OUT);
        assertThat(NextStep.of(preparing(Optional.of(heldBy(PRIYA))), DESIGNER).act())
                .isEqualTo(Act.CHECK_IN);
        assertThat(NextStep.of(released(), DESIGNER).act()).isEqualTo(Act.START_REVISION);
        assertThat(NextStep.of(part(preparing(Optional.empty())), DESIGNER).act())
                .isEqualTo(Act.CHANGE_FACTS);
        assertThat(NextStep.of(part(released()), DESIGNER).act()).isEqualTo(Act.START_REVISION);
        Refusal kept = Refusal.of("revision.by_order", "An order starts it.", "Ask for a change.");
        assertThat(NextStep.of(released(), DESIGNER, false, false, Optional.of(kept)))
                .isEqualTo(new NextStep(Act.ASK_FOR_CHANGE, Optional.of(kept)));
        NextStep held = NextStep.of(preparing(Optional.of(heldBy(TOMASZ))), DESIGNER);
        assertThat(held.act()).isEqualTo(Act.LOOK);
        assertThat(held.instead().orElseThrow().code()).isEqualTo("hold.taken");
        NextStep reader = NextStep.of(released(), person(PRIYA, Right.SEE_RELEASED));
        assertThat(reader.act()).isEqualTo(Act.LOOK);
        assertThat(reader.instead()).isEmpty();
    }

    private static final Move SIGNED = new Move(
            "release",
            "Release",
            "preparation",
            "released",
            Right.SIGN,
            List.of(Gates.SIGNED_OFF),
            List.of(Effect.FIX_LABEL),
            "check");

    @Test
    void aMoveThatARoundMakesWaitsForItsSignOffsAndAsksNobodysHand() {
        Known one = Known.of(preparing(Optional.empty()), DESIGNER);
        assertThat(MoveRules.ask(SIGNED, one.unsigned("checked (a checker)"), By.HAND))
                .extracting(Refusal::reason)
                .containsExactly("Not signed yet: checked (a checker).");
        assertThat(MoveRules.ask(SIGNED, one.unsigned("checked (a checker)"), By.LAST_SIGN_OFF))
                .as("the asking act is the signature")
                .isEmpty();
        assertThat(MoveRules.ask(SIGNED, one, By.HAND)).isEmpty();
    }

    @Test
    void whatOnlyTheShelfWroteDoesNotMove() {
        Document d = document(
                Optional.of(revision("B", StageClass.PREPARING)),
                Optional.of(revision("A", StageClass.RELEASED)),
                Optional.empty());
        Document written = withHead(d, d.pending().orElseThrow(), true);
        assertThat(codes(written, DESIGNER, List.of())).containsExactly("move.no_version");
    }

    @Test
    void theNextStepIsToSignWhenAskedAndToSendOnesOwnWork() {
        Document document = preparing(Optional.empty());
        assertThat(NextStep.of(document, DESIGNER, true, false, Optional.empty())
                        .act())
                .isEqualTo(Act.SIGN);
        assertThat(NextStep.of(document, DESIGNER, false, true, Optional.empty())
                        .act())
                .isEqualTo(Act.SEND);
        assertThat(NextStep.of(preparing(Optional.of(heldBy(PRIYA))), DESIGNER, false, true, Optional.empty())
                        .act())
                .isEqualTo(Act.CHECK_IN);
        assertThat(NextStep.of(document, person(PRIYA, Right.SEE_ALL), false, true, Optional.empty())
                        .act())
                .isEqualTo(Act.LOOK);
    }

    @Test
    void aRouteTellsWhatARoundDecidesAndTheWayBack() {
        Route route = new Route(
                1,
                "reviewed",
                "Reviewed",
                List.of(
                        new Stage(1, "preparation", "In preparation", StageClass.PREPARING, 1),
                        new Stage(1, "review", "In review", StageClass.DECIDING, 2),
                        new Stage(1, "released", "Released", StageClass.RELEASED, 3)),
                List.of(
                        new Move(
                                "send",
                                "Send",
                                "preparation",
                                "review",
                                Right.CHANGE,
                                List.of(),
                                List.of(Effect.OPEN_ROUND)),
                        new Move(
                                "release",
                                "Release",
                                "review",
                                "released",
                                Right.SIGN,
                                List.of(Gates.SIGNED_OFF),
                                List.of(),
                                SIGNED.signOff()),
                        new Move(
                                "back",
                                "Take back",
                                "review",
                                "preparation",
                                Right.CHANGE,
                                List.of(Gates.REASON_GIVEN),
                                List.of(Effect.END_ROUND))));
        assertThat(route.opensRound("preparation").map(Move::code)).contains("send");
        assertThat(route.decided("review").map(Move::code)).contains("release");
        assertThat(route.back("review").map(Move::code)).contains("back");
        assertThat(route.releases("review").map(Move::code)).contains("release");
        assertThat(route.decided("preparation")).isEmpty();
        assertThat(route.move("back").orElseThrow().asksReason()).isTrue();
    }
}
