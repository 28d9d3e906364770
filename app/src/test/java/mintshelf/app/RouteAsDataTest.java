package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowable;

import java.nio.charset.Charset;
import java.time.Instant;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.Contents;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.CheckRuleStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.RouteStore;
import mintshelf.app.store.house.RuleStore;
import mintshelf.app.store.house.SheetMapStore;
import mintshelf.app.store.output.OutputStore;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.revision.MoveDocument;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.core.access.Right;
import mintshelf.core.base.Outcome;
import mintshelf.core.document.Stage;
import mintshelf.core.drawing.check.CheckRules;
import mintshelf.core.drawing.check.CheckRules.Rule;
import mintshelf.core.drawing.check.CheckRules.Severity;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.titleblock.SheetMap;
import mintshelf.core.drawing.titleblock.SheetMap.Field;
import mintshelf.core.drawing.titleblock.SheetMap.Way;
import mintshelf.core.house.DistributionRule;
import mintshelf.core.house.SignOffRule;
import mintshelf.core.notice.MailTime;
import mintshelf.core.notice.Moment;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Gates;
import mintshelf.core.route.Move;
import mintshelf.core.signoff.Asked;
import mintshelf.core.signoff.Decision;
import mintshelf.core.signoff.Policy;
import mintshelf.core.signoff.SignOffLine;
import org.junit.jupiter.api.Test;

/** A route that nobody of the shelf has thought of, loaded as data, is gone from end to end. */
class RouteAsDataTest {
    private static final Charset WINDOWS = Charset.forName("windows-1252");
    private static final List<Effect> OUT =
            List.of(Effect.FIX_LABEL, Effect.SUPERSEDE_FORMER, Effect.WRITE_SHEET, Effect.MAKE_OUTPUTS);

    private final Server server = Server.shared();
    private final Review review = new Review(server);
    private final String mark = Server.key().substring(0, 6);
    private final HouseStore house = server.bean(HouseStore.class);
    private final RouteStore routes = server.bean(RouteStore.class);

    private void asks(String code, SignOffLine... lines) {
        server.bean(RuleStore.class)
                .add(
                        new SignOffRule(code, code, List.of(lines), Policy.FIRST_RETURN),
                        new RouteStore.Made(OptionalLong.empty(), Instant.now(), ""));
    }

    /** Three sign, the checks are asked at the release, and who keeps the shelf has a shorter way. */
    private Kind weldment() {
        List<Stage> stages = List.of(
                new Stage(0, "shop", "In the shop", StageClass.PREPARING, 1),
                new Stage(0, "looked-at", "Looked at", StageClass.DECIDING, 2),
                new Stage(0, "good", "Good to weld", StageClass.RELEASED, 3),
                new Stage(0, "old", "Superseded", StageClass.SUPERSEDED, 4),
                new Stage(0, "dropped", "Dropped", StageClass.CLOSED, 5));
        List<Move> moves = List.of(
                new Move(
                        "look",
                        "Have it looked at",
                        "shop",
                        "looked-at",
                        Right.CHANGE,
                        List.of(Gates.HELD_BY_NOBODY, Gates.OWN_VERSION),
                        List.of(Effect.OPEN_ROUND)),
                new Move(
                        "good",
                        "Good to weld",
                        "looked-at",
                        "good",
                        Right.SIGN,
                        List.of(Gates.HELD_BY_NOBODY, Gates.CHECKS_PASSED, Gates.SIGNED_OFF),
                        OUT,
                        "weld-" + mark),
                new Move("back", "Back", "looked-at", "shop", Right.CHANGE, List.of(), List.of(Effect.END_ROUND)),
                new Move(
                        "short",
                        "Good as before",
                        "shop",
                        "good",
                        Right.KEEP_SHELF,
                        List.of(Gates.HELD_BY_NOBODY, Gates.OWN_VERSION),
                        OUT));
        return server.bean(UnitOfWork.class).run(() -> {
            asks(
                    "weld-" + mark,
                    new SignOffLine(1, "checker", 1, "checked", "checked_by", "checked", 1),
                    new SignOffLine(2, "board-member", 1, "approved", "approved_by", "approved", 1),
                    new SignOffLine(3, "checker", 1, "welded a sample", "welded_by", "welded", 1));
            long route = routes.addRoute("weld-" + mark, "Welded " + mark, stages, moves);
            Kind drawing = house.kind("drawing");
            Kind kind = house.addKind(
                    new Kind(
                            0,
                            "weldment-" + mark,
                            "weldment " + mark,
                            drawing.aspect(),
                            drawing.glyph(),
                            drawing.numberSeries(),
                            drawing.revisionSeries(),
                            true,
                            route,
                            Optional.empty()),
                    90);
            server.bean(SheetMapStore.class)
                    .add(new SheetMap(
                            "Weldments " + mark,
                            "WELD" + mark,
                            "",
                            List.of(
                                    new Field("TITLE", "title", Way.READ),
                                    new Field("REV", "revision", Way.WRITTEN),
                                    new Field("CHECKED_BY", "checked_by", Way.WRITTEN),
                                    new Field("WELDED_BY", "welded_by", Way.WRITTEN)),
                            Optional.empty()));
            return kind;
        });
    }

    private byte[] sheet(String note) {
        return new String(Review.sheet(note), WINDOWS)
                .replace("2\r\nTITLE\r\n 10", "2\r\nWELD" + mark + "\r\n 10")
                .replace("  2\r\nNUMBER", "  2\r\nWELDED_BY")
                .getBytes(WINDOWS);
    }

    private Map<String, String> says(long item) {
        VersionRow head = server.bean(VersionStore.class)
                .version(item, server.document(item).head().number())
                .orElseThrow();
        byte[] bytes =
                server.bean(Contents.class).bytes(head.content(), head.content().size());
        DxfDrawing drawing = ((Outcome.Granted<DxfDrawing>) DxfDrawing.read(bytes)).value();
        SheetMap map = server.bean(SheetMapStore.class).latest().stream()
                .map(SheetMapStore.Edition::map)
                .filter(m -> m.name().equals("Weldments " + mark))
                .findFirst()
                .orElseThrow();
        return map.read(drawing);
    }

    private void toRafael(String kind, DistributionRule.Way way) {
        Asked rafael = new Asked(
                Asked.Kind.PERSON, Long.toString(server.actor("rafael").person()));
        List<DistributionRule.Sentence> sentences = way == null
                ? List.of()
                : List.of(new DistributionRule.Sentence(
                        Moment.RELEASE, kind, "", rafael, way, Optional.of(MailTime.AT_ONCE)));
        server.bean(UnitOfWork.class)
                .run(() -> server.bean(RuleStore.class)
                        .add(
                                new DistributionRule(sentences),
                                new RouteStore.Made(OptionalLong.empty(), Instant.now(), "for a test")));
    }

    @Test
    void threeSignTheChecksWaitForTheReleaseAndAShorterWayShowsNobodysSignature() {
        Kind kind = weldment();
        String welder = "w" + mark;
        server.add(welder, "Wim Welder", "checker");
        long item = server.file(
                "priya", server.shelf(), kind.code(), "bracket " + mark + ".dxf", sheet("first " + mark), false);
        Map<Rule, Severity> severities = new EnumMap<>(CheckRules.hints().severities());
        severities.put(Rule.TITLE_BLOCK, Severity.BINDING);
        CheckRules demanding = new CheckRules(severities, List.of("colour"), 2.5, Set.of());
        CheckRuleStore rules = server.bean(CheckRuleStore.class);
        server.bean(UnitOfWork.class).run(() -> {
            rules.add(kind.id(), new CheckRuleStore.Edition(1, demanding, "checker"));
            return "";
        });

        long round = review.send("priya", item);
        review.sign("hedda", round);
        review.sign("oluwaseun", round);
        assertThat(server.document(item).current().stage().name()).isEqualTo("Looked at");
        assertThat(catchThrowable(() -> review.sign(welder, round)))
                .as("the checks are asked where this route asks them")
                .hasMessageContaining("has no colour");
        server.bean(UnitOfWork.class).run(() -> {
            rules.add(kind.id(), new CheckRuleStore.Edition(2, CheckRules.hints(), "checker"));
            return "";
        });
        toRafael(kind.code(), DistributionRule.Way.FILE);
        review.sign(welder, round);
        toRafael("", null);
        assertThat(server.document(item).current().stage().name()).isEqualTo("Good to weld");
        // No move of this route says that files are mailed: who is told gets a link.
        assertThat(server.db()
                        .fetch(
                                "select encloses from delivery d join outbox_event e on e.id = d.event"
                                        + " where e.item = ? and e.code = 'followed.release' and d.receiver = ?",
                                item,
                                server.actor("rafael").person())
                        .getValues(0, String.class))
                .containsExactly("LINK");
        assertThat(says(item))
                .containsEntry("revision", "A")
                .containsEntry("checked_by", "Hedda Lysgaard")
                .containsEntry("welded_by", "Wim Welder");

        server.bean(StartRevisions.class)
                .start(server.actor("priya"), List.of(item), Server.key(), "thinner", "", true);
        assertThat(says(item)).containsEntry("revision", "B").doesNotContainKeys("checked_by", "welded_by");
        server.checkIn("priya", item, sheet("second " + mark), false);
        int version = server.document(item).head().number();
        assertThat(catchThrowable(() -> server.bean(MoveDocument.class)
                        .move(server.actor("priya"), item, Server.key(), "short", version, "")))
                .as("the shorter way is not everybody's")
                .isNotNull();
        server.bean(MoveDocument.class).move(server.actor("ines"), item, Server.key(), "short", version, "");
        assertThat(server.document(item).released().orElseThrow().label()).contains("B");
        assertThat(says(item)).containsEntry("revision", "B").doesNotContainKeys("checked_by", "welded_by");
        assertThat(server.bean(RevisionStore.class).revisions(item))
                .extracting(r -> r.revision().stage().stageClass())
                .containsExactly(StageClass.SUPERSEDED, StageClass.RELEASED);
    }

    private Kind readTwice() {
        return server.bean(UnitOfWork.class).run(() -> {
            Kind drawing = house.kind("drawing");
            return house.addKind(
                    new Kind(
                            0,
                            "twice-" + mark,
                            "sheet read twice " + mark,
                            drawing.aspect(),
                            drawing.glyph(),
                            drawing.numberSeries(),
                            drawing.revisionSeries(),
                            true,
                            routes.route("reviewed-twice").orElseThrow(),
                            Optional.empty()),
                    91);
        });
    }

    private String stage(long item) {
        return server.document(item).current().stage().name();
    }

    @Test
    void aRoundThatOpensTheNextOneKeepsWhoSentItAndTheSheetShowsWhoSignedInEach() {
        Kind kind = readTwice();
        long item = server.file(
                "priya", server.shelf(), kind.code(), "twice " + mark + ".dxf", Review.sheet("twice " + mark), false);
        assertThat(Web.as(server, "priya").get("/send-to-review?items=" + item).body())
                .contains("takes what is sent here on to Second reading");
        long first = review.send("priya", item);
        assertThat(stage(item)).isEqualTo("First reading");
        review.sign("hedda", first);
        assertThat(stage(item)).isEqualTo("Second reading");
        long second = review.store().openRound(item).orElseThrow();
        assertThat(second).isNotEqualTo(first);
        assertThat(review.store().round(second).orElseThrow().by())
                .as("it stays the round of who sent it")
                .isEqualTo(server.actor("priya").person());
        assertThat(Web.as(server, "oluwaseun").get("/in-tray").body())
                .contains(server.document(item).number());
        assertThat(Web.as(server, "priya").get("/today").body()).contains("it is in Second reading now");
        assertThat(Web.as(server, "oluwaseun").get("/rounds/" + second).body())
                .contains("Signed before: checked by Hedda Lysgaard");

        review.answer("oluwaseun", second, Decision.RETURNED, "one more hole");
        assertThat(stage(item)).isEqualTo("In preparation");
        assertThat(Web.as(server, "priya").get("/today").body()).contains("one more hole");

        long again = review.send("priya", item);
        review.sign("hedda", again);
        long last = review.store().openRound(item).orElseThrow();
        assertThat(catchThrowable(() -> server.bean(KeepFacts.class)
                        .keep(
                                server.actor("priya"),
                                item,
                                Server.key(),
                                "Read once, named otherwise",
                                Map.of(),
                                Map.of())))
                .as("what was read once does not change under the second reading")
                .hasMessageContaining("round.read");
        review.sign("oluwaseun", last);
        assertThat(stage(item)).isEqualTo("Released");
        long written = server.document(item).head().version();
        assertThat(server.bean(OutputStore.class)
                        .proof(written)
                        .orElseThrow()
                        .values()
                        .values())
                .containsEntry("checked_by", "Hedda Lysgaard")
                .containsKey("approved_by")
                .doesNotContainEntry("approved_by", "");
    }

    @Test
    void aRouteThatCannotBeGoneIsNotKept() {
        List<Stage> stages = List.of(
                new Stage(0, "work", "Work", StageClass.PREPARING, 1),
                new Stage(0, "board", "Board", StageClass.DECIDING, 2));
        Move send = new Move("send", "Send", "work", "board", Right.CHANGE, List.of(), List.of(Effect.OPEN_ROUND));
        assertThat(catchThrowable(() -> routes.addRoute("dead-" + mark, "Dead end", stages, List.of(send))))
                .hasMessageContaining("cannot be gone")
                .hasMessageContaining("cannot be returned");
        assertThat(routes.route("dead-" + mark)).isEmpty();
    }
}
