package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.Sheets;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.use.change.EditOrder;
import mintshelf.app.use.change.LineFacts;
import mintshelf.app.use.change.MoveOrder;
import mintshelf.app.use.change.NewOnOrder;
import mintshelf.app.use.change.PreviewOrder;
import mintshelf.app.use.change.ReadOrders;
import mintshelf.app.use.change.ShowGoal;
import mintshelf.app.use.change.WriteRequest;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.structure.KeepVariants;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.bom.Variant;
import mintshelf.core.change.Goal;
import mintshelf.core.change.PaperLine;
import mintshelf.core.fact.FactForm;
import mintshelf.core.fact.FactHands;
import mintshelf.core.fact.FactType;
import mintshelf.core.fact.FactUse;
import mintshelf.core.fact.RequiredAt;
import mintshelf.core.house.FactRule;
import mintshelf.core.house.KindRule;
import mintshelf.core.house.KindRule.OnSheet;
import mintshelf.core.house.Subject;
import org.junit.jupiter.api.Test;

/** Lines of orders that revise nothing that is there: facts alone, documents that the order makes; goals that an order reaches. */
class OrderLineKindsTest extends InAHouse {
    private final Orders orders = new Orders(server);
    private final Review review = new Review(server);
    private final LineFacts facts = server.bean(LineFacts.class);
    private final NewOnOrder fresh = server.bean(NewOnOrder.class);
    private final ShowGoal goals = server.bean(ShowGoal.class);
    private final String price = "price_" + mark;
    private final String fixed = "fixed_" + mark;

    /** A released document with a price that those who keep the shelf change, and a fact that nobody changes then. */
    private long priced(String value) {
        String code = "priced-" + mark;
        if (server.bean(HouseStore.class).kinds().stream()
                .noneMatch(k -> k.code().equals(code))) {
            FactHands hands =
                    new FactHands(Optional.of(Right.CHANGE), Optional.of(Right.CHANGE), Optional.of(Right.KEEP_SHELF));
            keep(
                    new FactRule(
                            price, "Price " + mark, FactForm.of(FactType.NUMBER).in("EUR"), FactUse.USUAL.by(hands)),
                    0,
                    "");
            keep(new FactRule(fixed, "Fixed " + mark, FactForm.of(FactType.TEXT), FactUse.USUAL), 0, "");
            keep.copy(server.actor("ines"), Server.key(), Subject.KIND, "drawing", "priced " + mark);
            KindRule rule = (KindRule) latest(Subject.KIND, code).rule();
            keep(
                    with(
                            rule,
                            rule.series(),
                            rule.revisions(),
                            "straight",
                            List.of(new OnSheet(price, RequiredAt.NEVER), new OnSheet(fixed, RequiredAt.NEVER))),
                    1,
                    "");
        }
        long item = server.file("priya", server.shelf(), code, "p.dxf", Review.sheet("p " + Server.key()), false);
        server.bean(KeepFacts.class)
                .keep(
                        server.actor("priya"),
                        item,
                        Server.key(),
                        server.document(item).title(),
                        Map.of(price, value, fixed, "as drawn"),
                        Map.of());
        server.release("priya", item);
        return item;
    }

    private Map<String, String> values(long item) {
        return server.bean(FactStore.class)
                .facts(server.document(item).released().orElseThrow().id());
    }

    private void say(long order, long item, String what) {
        long line = orders.line(order, item).id();
        server.bean(EditOrder.class)
                .edit(
                        server.actor("priya"),
                        order,
                        Server.key(),
                        new EditOrder.Written(
                                "cheaper",
                                Map.of(),
                                List.of(),
                                Map.of(),
                                what.equals("FACTS") ? List.of(line) : List.of(),
                                what.equals("KEEP") ? List.of(line) : List.of(),
                                Map.of(),
                                "",
                                ""));
    }

    private String paper(long order) {
        return new String(server.bytes(order), StandardCharsets.UTF_8);
    }

    @Test
    void anOrderChangesFactsOfWhatIsInForceAndNothingElse() {
        long item = priced("84");
        long other = orders.released(server.shelf(), "goes along " + Server.key() + ".dxf");
        long order = orders.ask("priya", item, other);
        say(order, item, "FACTS");
        assertThat(orders.line(order, item).factsOnly()).isTrue();
        assertThat(code(() -> facts.keep(server.actor("priya"), order, item, Server.key(), Map.of(fixed, "other"))))
                .isEqualTo("fact.closed");
        assertThat(code(() -> facts.keep(server.actor("priya"), order, item, Server.key(), Map.of(price, "cheap"))))
                .isEqualTo("fact.form");
        facts.keep(server.actor("priya"), order, item, Server.key(), Map.of(price, "79", fixed, "as drawn"));
        assertThat(paper(order)).contains("\"from\" : \"84\"").contains("\"to\" : \"79\"");
        int versions = server.document(item).head().number();
        orders.start(order);
        assertThat(server.document(item).pending())
                .as("no revision of it starts")
                .isEmpty();
        assertThat(orders.view("priya", order).lines().get(0).facts())
                .containsExactly("Price " + mark + " 84 → 79 EUR");
        orders.work(other);
        orders.signed(order);
        PreviewOrder.Preview preview = server.bean(PreviewOrder.class).preview(server.actor("oluwaseun"), order);
        assertThat(preview.steps().get(0).effects()).containsExactly("Price " + mark + " 84 → 79 EUR.");
        assertThat(values(item)).as("not before").containsEntry(price, "84");
        orders.carryOut(order);
        assertThat(values(item)).containsEntry(price, "79").containsEntry(fixed, "as drawn");
        assertThat(server.document(item).head().number()).isEqualTo(versions);
        ReadOrders.View done = orders.view("priya", order);
        assertThat(done.done()).isEqualTo(2);
        long notice = done.notice().orElseThrow().spine().id();
        assertThat(new String(
                        Web.as(server, "priya")
                                .bytes("/documents/" + notice + "/versions/1/csv")
                                .body(),
                        StandardCharsets.UTF_8))
                .contains("84 → 79");
    }

    @Test
    void aLineThatSaysNoFactKeepsItsOrderAndOneThatIsUnderWayIsNoFactsLine() {
        long item = priced("10");
        long order = orders.ask("priya", item);
        say(order, item, "FACTS");
        orders.start(order);
        assertThat(orders.view("priya", order).lines().get(0).state().says()).isEqualTo("no fact is said to change");
        assertThat(code(() -> Long.toString(orders.board(order)))).isEqualTo("order.line");
        assertThat(values(item)).containsEntry(price, "10");
        long draft = review.drawing(server.shelf(), "draft " + Server.key() + ".dxf");
        long second = orders.ask("priya", draft);
        assertThat(code(() -> {
                    say(second, draft, "FACTS");
                    return "";
                }))
                .isEqualTo("order.facts");
    }

    @Test
    void anOrderMakesADocumentThatBeginsAsACopy() {
        long item = priced("84");
        long order = orders.ask("priya", item);
        String number = server.document(item).number();
        NewOnOrder.View view = fresh.view(server.actor("priya"), order, number);
        assertThat(view.refusal()).isEmpty();
        fresh.make(server.actor("priya"), order, Server.key(), number, "", "Intake cone, duplex", "a second material");
        PaperLine line = orders.lines(order).get(1);
        assertThat(line.what()).isEqualTo(PaperLine.What.NEW);
        var made = server.document(line.item());
        assertThat(made.number()).isEqualTo(view.number().orElseThrow()).isNotEqualTo(number);
        assertThat(made.title()).isEqualTo("Intake cone, duplex");
        assertThat(server.bean(FactStore.class).facts(made.current().id())).containsEntry(price, "84");
        assertThat(server.bean(Sheets.class)
                        .said(server.bean(VersionStore.class)
                                .version(line.item(), 1)
                                .orElseThrow()
                                .content()))
                .as("its title block is its own")
                .containsEntry("title", "Intake cone, duplex");
        assertThat(code(() -> fresh.make(server.actor("priya"), order, Server.key(), "no such", "", "x", "")))
                .isEqualTo("number.unknown");
        assertThat(code(() -> fresh.make(
                        server.actor("priya"),
                        order,
                        Server.key(),
                        server.document(order).number(),
                        "",
                        "x",
                        "")))
                .isEqualTo("copy.nothing");
        assertThat(code(() -> fresh.make(server.actor("hedda"), order, Server.key(), number, "", "x", "")))
                .isIn("access.missing", "right.missing", "not there");
        assertThat(code(() -> fresh.make(server.actor("priya"), order, Server.key(), number, number, "x", "")))
                .isEqualTo("number.used");
        String typed = "N-" + mark;
        fresh.make(server.actor("priya"), order, Server.key(), number, typed, "Named", "");
        long named = orders.lines(order).get(2).item();
        assertThat(server.document(named).number()).isEqualTo(typed);
        orders.start(order);
        assertThat(orders.view("priya", order).lines().get(1).state().says())
                .as("a copy is no work yet")
                .isEqualTo("nothing checked in yet");
        orders.work(item);
        orders.work(line.item());
        orders.work(named);
        orders.signed(order);
        orders.carryOut(order);
        assertThat(server.document(line.item()).released()).isPresent();
        assertThat(orders.view("priya", order).done()).isEqualTo(3);
    }

    private void weighs(long item, String mass) {
        server.bean(KeepFacts.class)
                .keep(
                        server.actor("priya"),
                        item,
                        Server.key(),
                        server.document(item).title(),
                        Map.of("mass", mass),
                        Map.of());
    }

    @Test
    void anOrderWaitsUntilTheGoalsOfItsRequestsAreMetOrShown() {
        long item = orders.released(server.shelf(), "goal " + Server.key() + ".dxf");
        long report = orders.released(server.shelf(), "report " + Server.key() + ".dxf");
        long request = RequestTest.asked(server, "priya", item);
        server.bean(WriteRequest.class)
                .addGoal(server.actor("priya"), request, Server.key(), item, "mass", Goal.Relation.AT_MOST, "3");
        long order = orders.askFor("priya", request, item);
        orders.start(order);
        orders.work(item);
        MoveOrder move = server.bean(MoveOrder.class);
        assertThat(move.boardPlan(server.actor("priya"), order).inTheWay())
                .extracting(Refusal::code)
                .containsExactly("goal.open");
        long goal = orders.goals("priya", order).get(0).goal().id();
        weighs(item, "2");
        assertThat(move.boardPlan(server.actor("priya"), order).inTheWay()).isEmpty();
        KeepVariants variants = server.bean(KeepVariants.class);
        variants.keep(server.actor("priya"), item, Server.key(), List.of(new Variant("wide", "", Map.of("mass", "5"))));
        assertThat(move.boardPlan(server.actor("priya"), order).inTheWay())
                .as("each variant has to meet it")
                .singleElement()
                .satisfies(r -> assertThat(r.says()).contains("wide: ", "5 kg after"));
        variants.keep(server.actor("priya"), item, Server.key(), List.of());
        weighs(item, "4");
        assertThat(move.boardPlan(server.actor("priya"), order).inTheWay())
                .extracting(Refusal::code)
                .containsExactly("goal.not_met");
        assertThatThrownBy(() -> goals.show(server.actor("rafael"), order, Server.key(), goal, "", ""))
                .isInstanceOf(NotThere.class);
        assertThat(code(() -> goals.show(server.actor("priya"), order, Server.key(), goal + 1000, "x", "")))
                .isEqualTo("goal.none");
        String number = server.document(report).number();
        goals.show(server.actor("priya"), order, Server.key(), goal, number + " v1", "weighed twice");
        assertThat(move.boardPlan(server.actor("priya"), order).inTheWay()).isEmpty();
        assertThat(paper(order)).contains("weighed twice").contains(number);
        // Another order over another document, on which the request goes once this one is stopped, shows nothing yet.
        long stopped = RequestTest.asked(server, "priya", report);
        server.bean(WriteRequest.class)
                .addGoal(server.actor("priya"), stopped, Server.key(), report, "mass", Goal.Relation.AT_MOST, "3");
        long former = orders.askFor("priya", stopped, report);
        long its = orders.goals("priya", former).get(0).goal().id();
        goals.show(server.actor("priya"), former, Server.key(), its, number + " v1", "");
        assertThat(orders.goals("priya", former).get(0).shown()).isPresent();
        orders.stop(former);
        long next = orders.askFor("priya", stopped, report);
        assertThat(orders.goals("priya", next).get(0).shown()).isEmpty();
        goals.show(server.actor("priya"), order, Server.key(), goal, "", "");
        assertThat(move.boardPlan(server.actor("priya"), order).inTheWay()).hasSize(1);
        server.bean(KeepFacts.class)
                .keep(
                        server.actor("priya"),
                        item,
                        Server.key(),
                        server.document(item).title(),
                        Map.of("mass", "2.5"),
                        Map.of());
        assertThat(move.boardPlan(server.actor("priya"), order).inTheWay()).isEmpty();
        orders.board(order);
        assertThat(code(() -> goals.show(server.actor("priya"), order, Server.key(), goal, number, "")))
                .isEqualTo("order.frozen");
    }
}
