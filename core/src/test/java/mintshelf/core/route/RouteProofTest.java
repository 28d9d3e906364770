package mintshelf.core.route;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Stage;
import mintshelf.core.revision.StageClass;
import org.junit.jupiter.api.Test;

class RouteProofTest {
    private static Stage stage(String code, StageClass is, int position) {
        return new Stage(1, code, "Stage " + code, is, position);
    }

    private static final List<Stage> STAGES = List.of(
            stage("work", StageClass.PREPARING, 1),
            stage("review", StageClass.DECIDING, 2),
            stage("out", StageClass.RELEASED, 3),
            stage("old", StageClass.SUPERSEDED, 4),
            stage("withdrawn", StageClass.WITHDRAWN, 5),
            stage("dropped", StageClass.CLOSED, 6));
    private static final Move SEND =
            new Move("send", "Send", "work", "review", Right.CHANGE, List.of(), List.of(Effect.OPEN_ROUND));
    private static final Move RELEASE = new Move(
            "release",
            "Release",
            "review",
            "out",
            Right.SIGN,
            List.of(Gates.SIGNED_OFF),
            List.of(Effect.SUPERSEDE_FORMER),
            "check");
    private static final Move BACK =
            new Move("back", "Back", "review", "work", Right.CHANGE, List.of(), List.of(Effect.END_ROUND));
    private static final Move WITHDRAW =
            new Move("withdraw", "Withdraw", "out", "withdrawn", Right.KEEP_SHELF, List.of(), List.of());

    private static Route route(List<Stage> stages, Move... moves) {
        return new Route(1, "r", "R", stages, List.of(moves));
    }

    private static List<String> codes(Route route) {
        return RouteProof.ask(route).stream().map(Refusal::code).toList();
    }

    private static List<Stage> without(String code) {
        return STAGES.stream().filter(s -> !s.code().equals(code)).toList();
    }

    private static Move signing(Move move, String rule) {
        return new Move(
                move.code(), move.name(), move.from(), move.to(), move.who(), move.gates(), move.effects(), rule);
    }

    @Test
    void aRouteThatCanBeGoneIsProved() {
        assertThat(codes(route(STAGES, SEND, RELEASE, BACK, WITHDRAW))).isEmpty();
    }

    @Test
    void aPaperThatAnActIssuesNeedsNoMoves() {
        assertThat(codes(route(
                        List.of(stage("written", StageClass.PREPARING, 1), stage("issued", StageClass.RELEASED, 2)))))
                .isEmpty();
    }

    @Test
    void stagesThatNothingLeadsToAndMovesThatLeadNowhereAreNamed() {
        assertThat(codes(route(STAGES, SEND, RELEASE, BACK))).containsExactly("route.unreached");
        assertThat(codes(route(without("withdrawn"), SEND, RELEASE, BACK, WITHDRAW)))
                .containsExactly("route.nowhere");
        assertThat(codes(route(List.of()))).containsExactly("route.empty");
    }

    @Test
    void workThatCannotEndIsNamed() {
        List<Stage> stages = List.of(stage("work", StageClass.PREPARING, 1), stage("more", StageClass.PREPARING, 2));
        Move on = new Move("on", "On", "work", "more", Right.CHANGE, List.of(), List.of());
        Move off = new Move("off", "Off", "more", "work", Right.CHANGE, List.of(), List.of());
        assertThat(codes(route(stages, on, off))).containsExactly("route.endless", "route.endless");
    }

    @Test
    void whatIsDecidedOnCanBeReturnedAndSomebodyIsAsked() {
        assertThat(codes(route(STAGES, SEND, RELEASE, WITHDRAW))).containsExactly("route.no_way_back");
        assertThat(codes(route(STAGES, SEND, signing(RELEASE, ""), BACK, WITHDRAW)))
                .containsExactlyInAnyOrder("route.undecided", "route.signatures");
        Move silent = new Move("send", "Send", "work", "review", Right.CHANGE, List.of(), List.of());
        assertThat(codes(route(STAGES, silent, RELEASE, BACK, WITHDRAW))).containsExactly("route.no_round");
    }

    @Test
    void twoRevisionsAreNeverInForceAndTheFormerOneHasAPlace() {
        Move bare = new Move(
                "release", "Release", "review", "out", Right.SIGN, List.of(Gates.SIGNED_OFF), List.of(), "check");
        assertThat(codes(route(STAGES, SEND, bare, BACK, WITHDRAW))).containsExactly("route.two_in_force");
        assertThat(codes(route(without("old"), SEND, RELEASE, BACK, WITHDRAW))).containsExactly("route.no_superseded");
    }

    @Test
    void namesThatStandTwiceAreNamed() {
        List<Stage> twice = new ArrayList<>(STAGES);
        twice.add(stage("work", StageClass.PREPARING, 7));
        assertThat(codes(route(twice, SEND, RELEASE, BACK, WITHDRAW))).containsExactly("route.twice");
        assertThat(codes(route(STAGES, SEND, SEND, RELEASE, BACK, WITHDRAW))).containsExactly("route.twice");
    }
}
