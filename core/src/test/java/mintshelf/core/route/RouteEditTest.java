package mintshelf.core.route;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.core.access.Right;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Stage;
import mintshelf.core.revision.StageClass;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class RouteEditTest {
    private static final Route REVIEWED = Routes.reviewed();

    private static Route done(Outcome<Route> step) {
        assertThat(step.refusal()).isEmpty();
        return ((Outcome.Granted<Route>) step).value();
    }

    private static List<String> wrong(Route route) {
        return RouteProof.ask(route).stream().map(Refusal::reason).toList();
    }

    @Test
    void aStopIsPulledOutOfALineAndTheProofAsksForItsWayBack() {
        Route pulled = done(RouteEdit.pullStop(REVIEWED, "release", "With quality", StageClass.DECIDING, "checker"));
        assertThat(pulled.stages().stream().map(Stage::name))
                .startsWith("In preparation", "In review", "With quality", "Released");
        Move first = pulled.move("to-with-quality").orElseThrow();
        assertThat(first.signOff())
                .isEqualTo(REVIEWED.move("release").orElseThrow().signOff());
        assertThat(first.effects()).containsExactly(Effect.OPEN_ROUND);
        Move second = pulled.move("release").orElseThrow();
        assertThat(second.from()).isEqualTo("with-quality");
        assertThat(second.effects()).contains(Effect.SUPERSEDE_FORMER);
        assertThat(wrong(pulled)).containsExactly("What is in With quality cannot be returned.");
        Route back = done(RouteEdit.wayBack(pulled, "with-quality"));
        assertThat(wrong(back)).isEmpty();
        assertThat(done(RouteEdit.wayBack(back, "with-quality")))
                .as("once is enough")
                .isEqualTo(back);
    }

    @Test
    void aStopThatIsTakenOutClosesItsLine() {
        Route pulled = done(RouteEdit.pullStop(REVIEWED, "release", "With quality", StageClass.DECIDING, "checker"));
        Route closed = done(RouteEdit.takeStop(pulled, "with-quality"));
        assertThat(wrong(closed)).isEmpty();
        assertThat(closed.move("release").orElseThrow()).satisfies(m -> {
            assertThat(m.from()).isEqualTo("review");
            assertThat(m.signOff())
                    .isEqualTo(REVIEWED.move("release").orElseThrow().signOff());
            assertThat(m.effects()).contains(Effect.FIX_LABEL, Effect.SUPERSEDE_FORMER);
        });
        Route straight = done(RouteEdit.takeStop(REVIEWED, "review"));
        assertThat(straight.move("release").orElseThrow().from()).isEqualTo("preparation");
        assertThat(straight.move("release").orElseThrow().signOff())
                .as("nobody decides any more")
                .isEmpty();
        assertThat(wrong(straight)).isEmpty();
    }

    @Test
    void theUsualMoveComesFirst() {
        Route more = done(RouteEdit.addMove(REVIEWED, "Release at once", "preparation", "released", Right.LIBRARIAN));
        assertThat(more.from("preparation"))
                .extracting(Move::name)
                .containsExactly("Send to review", "Release at once");
        assertThat(wrong(more)).containsExactly("Release at once would leave two revisions in force.");
        Route usual = done(RouteEdit.usual(more, "release-at-once"));
        assertThat(usual.from("preparation"))
                .extracting(Move::name)
                .containsExactly("Release at once", "Send to review");
    }

    @Test
    void aSentenceIsWrittenAnew() {
        Route said = done(RouteEdit.say(
                REVIEWED,
                "send",
                "Ask for review",
                Right.FILE,
                List.of(Gates.CHECKS_PASSED),
                List.of(Effect.OPEN_ROUND),
                ""));
        assertThat(RouteWords.says(said, said.move("send").orElseThrow(), Map.of()))
                .isEqualTo("Whoever may file documents may take it from In preparation to In review,"
                        + " when no binding rule is broken; then ask for sign-offs.");
        assertThat(said.move("send").orElseThrow().name()).isEqualTo("Ask for review");
    }

    @Test
    void whatIsNotThereAndWhatIsTooMuchIsRefusedInWords() {
        assertThat(RouteEdit.takeMove(REVIEWED, "gone").refusal()).isPresent();
        assertThat(RouteEdit.takeStop(REVIEWED, "gone").refusal()).isPresent();
        assertThat(RouteEdit.wayBack(REVIEWED, "gone").refusal()).isPresent();
        assertThat(RouteEdit.renameStop(REVIEWED, "review", " ", StageClass.DECIDING)
                        .refusal())
                .isPresent();
        assertThat(RouteEdit.addMove(REVIEWED, "Round", "review", "review", Right.SIGN)
                        .refusal())
                .isPresent();
        Route full = REVIEWED;
        while (full.stages().size() < RouteEdit.MOST_STOPS) {
            full = done(RouteEdit.addStop(full, "Stop", StageClass.CLOSED));
        }
        assertThat(RouteEdit.addStop(full, "One more", StageClass.CLOSED)
                        .refusal()
                        .orElseThrow()
                        .code())
                .isEqualTo("route.full");
        assertThat(RouteMap.of(full).byActs()).hasSizeGreaterThan(30);
    }

    @Test
    void theMapOfAReviewIsALineWithAWayBackAndTwoEnds() {
        RouteMap map = RouteMap.of(REVIEWED);
        assertThat(map.lines())
                .extracting(RouteMap.Line::kind)
                .containsExactly(
                        RouteMap.Kind.USUAL,
                        RouteMap.Kind.USUAL,
                        RouteMap.Kind.BACK,
                        RouteMap.Kind.END,
                        RouteMap.Kind.ACT);
        assertThat(map.stops().stream()
                        .filter(RouteMap.Stop::last)
                        .map(s -> s.stage().name()))
                .containsExactly("Superseded", "Withdrawn");
        assertThat(map.stops().subList(0, 3))
                .extracting(RouteMap.Stop::y)
                .containsOnly(map.stops().get(0).y());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "<html/>",
                "<scxml/>",
                "<!DOCTYPE scxml [<!ENTITY x SYSTEM 'file:///etc/passwd'>]><scxml xmlns='http://www.w3.org/2005/07/scxml'><state id='&x;'/></scxml>",
                "<!DOCTYPE scxml [<!ENTITY a 'b'>]><scxml xmlns='http://www.w3.org/2005/07/scxml'><state id='a'>&a;</state></scxml>",
                "<scxml xmlns='http://www.w3.org/2005/07/scxml'><state/></scxml>",
                "<scxml xmlns='http://www.w3.org/2005/07/scxml'><state id='a'><state id='b'/></state></scxml>",
                "<scxml xmlns='http://www.w3.org/2005/07/scxml'><state id='a'><transition xmlns:m='urn:mint-shelf:route:1' m:order='x' target='a'/></state></scxml>",
                "<scxml xmlns='http://www.w3.org/2005/07/scxml'><state id='a'"
            })
    void chartsThatAreNoneAreRefusedAndNothingIsFetched(String text) {
        Refusal refusal = Scxml.read("r", text).refusal().orElseThrow();
        assertThat(refusal.code()).isEqualTo("route.scxml");
        assertThat(refusal.reason()).doesNotContain("root:");
    }

    @Test
    void tenThousandStatesAreRefusedAndScriptsAreKeptUnread() {
        StringBuilder many = new StringBuilder("<scxml xmlns='http://www.w3.org/2005/07/scxml'>");
        for (int i = 0; i < 10_000; i++) many.append("<state id='s").append(i).append("'/>");
        assertThat(Scxml.read("r", many + "</scxml>").refusal()).isPresent();
        Scxml.Read read = ((Outcome.Granted<Scxml.Read>) Scxml.read(
                        "r",
                        "<scxml xmlns='http://www.w3.org/2005/07/scxml' initial='b' name='Theirs'><script>alert(1)</script>"
                                + "<datamodel><data id='d' src='http://example.org/x'/></datamodel><state id='a'>"
                                + "<onentry><log expr=\"'x'\"/></onentry><transition event='go' target='c'/></state>"
                                + "<state id='b'><transition event='on' target='a'/></state><final id='c'/></scxml>"))
                .value();
        assertThat(read.passed())
                .contains(
                        "<script> is kept for other readers.",
                        "<datamodel> is kept for other readers.",
                        "<onentry> is kept for other readers.");
        assertThat(read.route().stages().stream().map(Stage::code)).containsExactly("b", "a", "c");
        assertThat(read.route().stages().stream().map(Stage::stageClass))
                .as("of a chart that knows no classes")
                .containsExactly(StageClass.DECIDING, StageClass.PREPARING, StageClass.RELEASED);
        assertThat(read.route().moves()).extracting(Move::code).containsExactly("go", "on");
    }

    @Test
    void whatIsNotOursIsKeptWhereItStoodAndGivenBack() {
        String chart = "<scxml xmlns='http://www.w3.org/2005/07/scxml' xmlns:x='urn:theirs' initial='a'>"
                + "<datamodel><data id='d' expr=\"1 &lt; 2 &amp;&amp; true\"/></datamodel>"
                + "<x:layout x:grid='4' plain='p'><note xmlns=''>two &lt;words&gt;</note><![CDATA[raw & ready]]></x:layout>"
                + "<state id='a'><onentry><x:colour>red</x:colour></onentry>"
                + "<transition event='go' target='b'><x:sound name='ping'/><log expr=\"'x'\"/></transition></state>"
                + "<state id='b'><transition event='back' target='a'/></state></scxml>";
        Route first = read(chart);
        String given = Scxml.write(first);
        assertThat(given)
                .contains("urn:theirs", "grid=\"4\"", "plain=\"p\"", "two &lt;words&gt;", "raw &amp; ready")
                .contains("1 &lt; 2 &amp;&amp; true", ">red<", "name=\"ping\"");
        Route again = read(given);
        assertThat(again.foreign()).isEqualTo(first.foreign());
        assertThat(Scxml.write(again))
                .as("the same however often it is given out")
                .isEqualTo(given);
        assertThat(first.foreign()).containsOnlyKeys("", "stop a", "move go");
        // What belonged to a move goes with it; the rest stays.
        Route without = RouteEdit.takeMove(first, "go").orElseThrow(r -> new IllegalStateException(r.says()));
        assertThat(without.foreign()).containsOnlyKeys("", "stop a");
        assertThat(RouteEdit.rename(first, "Other")
                        .orElseThrow(r -> new IllegalStateException(r.says()))
                        .foreign())
                .isEqualTo(first.foreign());
    }

    @Test
    void moreThanAChartNeedsForOthersIsRefused() {
        String much = "<scxml xmlns='http://www.w3.org/2005/07/scxml'><x:y xmlns:x='urn:x'>" + "z".repeat(100_001)
                + "</x:y><state id='a'/></scxml>";
        assertThat(Scxml.read("r", much).refusal().orElseThrow().reason()).contains("for other readers");
        assertThat(Scxml.read("r", "<scxml xmlns='http://www.w3.org/2005/07/scxml'><x>&e;</x><state id='a'/></scxml>")
                        .refusal())
                .isPresent();
    }

    @Test
    void whatAStopSaysBesideItsClassIsPartOfTheChart() {
        Route route = Routes.reviewed();
        String stop = route.stages().get(1).code();
        Route ruled = RouteEdit.ruleStop(route, stop, new StopRule(Optional.of(Right.CHANGE), false))
                .orElseThrow(r -> new IllegalStateException(r.says()));
        assertThat(ruled.rule(stop).says())
                .isEqualTo("its files are fetched by those who may change documents; its facts do not change");
        assertThat(read(Scxml.write(ruled)).rules()).isEqualTo(ruled.rules());
        assertThat(RouteEdit.ruleStop(ruled, stop, StopRule.USUAL)
                        .orElseThrow(r -> new IllegalStateException(r.says()))
                        .rules())
                .as("the usual is not said")
                .isEmpty();
        assertThat(RouteEdit.takeStop(ruled, stop)
                        .orElseThrow(r -> new IllegalStateException(r.says()))
                        .rules())
                .isEmpty();
        assertThat(RouteEdit.ruleStop(route, "nowhere", StopRule.USUAL).refusal())
                .isPresent();
    }

    private static Route read(String chart) {
        return Scxml.read("r", chart)
                .orElseThrow(r -> new IllegalStateException(r.says()))
                .route();
    }
}
