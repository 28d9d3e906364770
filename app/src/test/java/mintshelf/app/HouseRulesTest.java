package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.house.Edition;
import mintshelf.app.store.house.FilingRuleStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.record.RecordQuestionStore;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.house.KeepRules;
import mintshelf.app.use.house.ReadRules;
import mintshelf.app.use.house.Tried;
import mintshelf.app.use.house.TryIt;
import mintshelf.app.use.record.ReadRecord;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.FileName;
import mintshelf.core.fact.FactForm;
import mintshelf.core.fact.FactType;
import mintshelf.core.fact.FactUse;
import mintshelf.core.fact.RequiredAt;
import mintshelf.core.filing.FilingRule;
import mintshelf.core.house.FactRule;
import mintshelf.core.house.FilingOrder;
import mintshelf.core.house.KindRule;
import mintshelf.core.house.RouteRule;
import mintshelf.core.house.RuleDifference;
import mintshelf.core.house.SeriesRule;
import mintshelf.core.house.Subject;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.Route;
import mintshelf.core.route.RouteEdit;
import mintshelf.core.route.RouteProof;
import org.junit.jupiter.api.Test;

/** A house sets itself up: kinds, series, facts, filing, routes, each with its editions. */
class HouseRulesTest extends InAHouse {
    /** A kind with its own letters, series, fact and route of five stops; the next dropped file follows all of them to release. */
    /** Whatever a house has one of alone: what an earlier edition said is in force again. */
    @Test
    void everythingThatIsOneAloneIsSetBack() {
        Web ines = Web.as(server, "ines");
        for (Subject subject : Subject.values()) {
            if (!subject.isOne()) continue;
            int now = latest(subject, subject.code()).number();
            String page = KeepRules.address(latest(subject, subject.code()).rule());
            Map<String, String> back = Map.of("actKey", Server.key(), "number", "1", "edition", "" + now);
            assertThat(ines.post(page + "/set-back", back).statusCode())
                    .as(page)
                    .isEqualTo(302);
            assertThat(ines.get(page).statusCode()).isEqualTo(200);
        }
    }

    @Test
    void aNewKindIsMadeAndTheNextFileFollowsItToRelease() {
        var ines = server.actor("ines");
        keep(
                new SeriesRule(
                        "welds-" + mark,
                        "Welds " + mark,
                        "W" + mark.toUpperCase(Locale.ROOT) + "-{n:3:10}",
                        SeriesRule.Counts.SERVER),
                0,
                "");
        keep(
                new FactRule(
                        "heat_" + mark,
                        "Heat " + mark,
                        FactForm.of(FactType.TEXT).like("H\\d{3}"),
                        FactUse.USUAL),
                0,
                "");
        keep.copy(ines, Server.key(), Subject.ROUTE, "reviewed", "Welded " + mark);
        String route = "welded-" + mark;
        step("ines", route, r -> RouteEdit.pullStop(r, "release", "Inspection", StageClass.DECIDING, "read"));
        assertThat(code(() -> draw.keep(ines, Server.key(), route, "half")))
                .as("from Inspection there is no way back yet")
                .isEqualTo("route.no_way_back");
        step("ines", route, r -> RouteEdit.wayBack(r, "inspection"));
        draw.keep(ines, Server.key(), route, "welds are inspected");
        Edition kept = latest(Subject.ROUTE, route);
        assertThat(kept.number()).isEqualTo(2);
        assertThat(kept.by()).isEqualTo("Ines Kallmar");
        assertThat(kept.why()).isEqualTo("welds are inspected");

        keep.copy(ines, Server.key(), Subject.KIND, "drawing", "weld sheet " + mark);
        String kind = "weld-sheet-" + mark;
        KindRule sheet = (KindRule) latest(Subject.KIND, kind).rule();
        keep(
                with(
                        sheet,
                        "welds-" + mark,
                        "list P|Q|R",
                        route,
                        List.of(new KindRule.OnSheet("heat_" + mark, RequiredAt.RELEASE))),
                1,
                "");
        FilingOrder order = (FilingOrder) latest(Subject.FILING, "filing").rule();
        List<FilingOrder.Sentence> sentences = new ArrayList<>(order.sentences());
        sentences.add(0, new FilingOrder.Sentence(List.of(ContentKind.DXF), "^weld" + mark, kind));
        keep(new FilingOrder(sentences), latest(Subject.FILING, "filing").number(), "");

        String name = "weld" + mark + " bracket.dxf";
        FilingRule first = FilingRule.first(server.bean(FilingRuleStore.class).all(), FileName.of(name), "DXF")
                .orElseThrow();
        assertThat(first.kindName()).isEqualTo("weld sheet " + mark);
        long shelf = server.shelf();
        long item = server.file("priya", shelf, kind, name, Review.sheet("weld " + Server.key()), true);
        server.checkIn("priya", item, Review.sheet("seam " + Server.key()), false);
        var document = server.document(item);
        assertThat(document.current().shown()).isEqualTo("P");
        assertThat(document.current().stage().name()).isEqualTo("In preparation");
        Review review = new Review(server);
        assertThat(code(() -> review.send("priya", item)))
                .as("its fact is required")
                .isEqualTo("send.refused");
        server.bean(KeepFacts.class)
                .keep(
                        server.actor("priya"),
                        item,
                        Server.key(),
                        document.title(),
                        Map.of("heat_" + mark, "H123"),
                        Map.of());
        long round = review.send("priya", item);
        review.sign("hedda", round);
        review.sign("oluwaseun", round);
        assertThat(server.document(item).current().stage().name()).isEqualTo("Inspection");
        long second = review.store().openRound(item).orElseThrow();
        review.sign("hedda", second);
        assertThat(server.document(item).released().orElseThrow().shown()).isEqualTo("P");
        server.bean(StartRevisions.class)
                .start(server.actor("priya"), List.of(item), Server.key(), "longer seam", "", true);
        assertThat(server.document(item).pending().orElseThrow().shown()).isEqualTo("Q");
    }

    @Test
    void whatIsUnderWayFinishesOnTheEditionThatItStartedWith() {
        long shelf = server.shelf();
        Review review = new Review(server);
        keep.copy(server.actor("ines"), Server.key(), Subject.ROUTE, "reviewed", "Slow " + mark);
        keep.copy(server.actor("ines"), Server.key(), Subject.KIND, "drawing", "slow sheet " + mark);
        String kind = "slow-sheet-" + mark;
        keep(onRoute((KindRule) latest(Subject.KIND, kind).rule(), "slow-" + mark), 1, "");
        KindRule of = (KindRule) latest(Subject.KIND, kind).rule();
        keep(with(of, of.series(), of.revisions(), of.route(), List.of()), 2, "no facts");
        long before =
                server.file("priya", shelf, kind, "before " + mark + ".dxf", Review.sheet("b" + Server.key()), true);
        server.checkIn("priya", before, Review.sheet("c" + Server.key()), false);
        long round = review.send("priya", before);
        step("ines", "slow-" + mark, r -> RouteEdit.takeStop(r, "review"));
        draw.keep(server.actor("ines"), Server.key(), "slow-" + mark, "nobody reads them");
        ReadRules.OnRoute on =
                read.onRoute(server.actor("ines"), ReadRules.route(latest(Subject.ROUTE, "slow-" + mark)));
        assertThat(on.earlier()).as("under way on the first edition").isEqualTo(1);
        Web ines = Web.as(server, "ines");
        String page = "/house/routes/slow-" + mark + "/move-over";
        assertThat(ines.get(page).body())
                .as("what is decided on finishes where it is")
                .contains("It is being decided on", "Back");
        review.sign("hedda", round);
        review.sign("oluwaseun", round);
        assertThat(server.document(before).released()).isPresent();
        long after =
                server.file("priya", shelf, kind, "after " + mark + ".dxf", Review.sheet("a" + Server.key()), false);
        assertThat(code(() -> review.send("priya", after))).isEqualTo("send.refused");
    }

    @Test
    void whatIsUnderWayIsMovedOverByAPlanAndARun() {
        long shelf = server.shelf();
        keep.copy(server.actor("ines"), Server.key(), Subject.ROUTE, "reviewed", "Over " + mark);
        keep.copy(server.actor("ines"), Server.key(), Subject.KIND, "drawing", "over sheet " + mark);
        String kind = "over-sheet-" + mark;
        keep(onRoute((KindRule) latest(Subject.KIND, kind).rule(), "over-" + mark), 1, "");
        List<Long> items = new ArrayList<>();
        for (int i = 0; i < 5; i++) {
            items.add(server.file(
                    "priya", shelf, kind, "o" + i + " " + mark + ".dxf", Review.sheet(Server.key()), false));
        }
        step("ines", "over-" + mark, r -> RouteEdit.renameStop(r, "preparation", "On the board", StageClass.PREPARING));
        draw.keep(server.actor("ines"), Server.key(), "over-" + mark, "as we say");
        Web ines = Web.as(server, "ines");
        String page = "/house/routes/over-" + mark;
        assertThat(ines.get(page).body()).contains("5 documents are under way on an earlier edition", "Move them over");
        assertThat(ines.get(page + "/move-over").body())
                .contains("In preparation → On the board", "Move 5 documents over", "5 go.");
        String joined = String.join(",", items.stream().map(String::valueOf).toList());
        String run = ines.post(page + "/move-over", Map.of("actKey", Server.key(), "items", joined))
                .headers()
                .firstValue("Location")
                .orElseThrow();
        assertThat(ines.get(run.substring(run.indexOf("/runs"))).body()).contains("Done", "5 of 5");
        for (long item : items) {
            assertThat(server.document(item).current().stage().name()).isEqualTo("On the board");
        }
        assertThat(ines.get(page).body()).doesNotContain("Move them over");
        assertThat(ines.get(page + "/move-over").body()).contains("Nothing is under way on an earlier edition");
        assertThat(ines.get("/documents/" + items.get(0) + "/record").body())
                .contains("over to the latest edition of Over " + mark + ", in On the board");
        assertThat(Web.as(server, "priya")
                        .post(page + "/move-over", Map.of("actKey", Server.key(), "items", joined))
                        .statusCode())
                .isEqualTo(403);
    }

    @Test
    void ofTwoKeepersAtOnceOneKeepsAndTheOtherIsTold() throws Exception {
        server.add("ada" + mark, "Ada Brandt", "data-manager");
        keep(new SeriesRule("race-" + mark, "Race " + mark, "R{n:4}", SeriesRule.Counts.SERVER), 0, "");
        for (int round = 0; round < 5; round++) {
            int shown = latest(Subject.SERIES, "race-" + mark).number();
            String pattern = "R" + round;
            ExecutorService two = Executors.newFixedThreadPool(2);
            var mine = two.submit(() -> code(() -> keep.keep(
                    server.actor("ines"),
                    Server.key(),
                    new SeriesRule("race-" + mark, "Race " + mark, pattern + "A{n:4}", SeriesRule.Counts.SERVER),
                    shown,
                    "")));
            var theirs = two.submit(() -> code(() -> keep.keep(
                    server.actor("ada" + mark),
                    Server.key(),
                    new SeriesRule("race-" + mark, "Race " + mark, pattern + "B{n:4}", SeriesRule.Counts.SERVER),
                    shown,
                    "")));
            assertThat(List.of(mine.get(), theirs.get())).containsExactlyInAnyOrder("", "page.old");
            two.shutdown();
            assertThat(latest(Subject.SERIES, "race-" + mark).number()).isEqualTo(shown + 1);
        }
    }

    @Test
    void anEditionIsLaidBesideAnotherAndSetBackInOneAct() {
        String fact = "colour_" + mark;
        keep(new FactRule(fact, "Colour " + mark, FactForm.oneOf(List.of("grey", "blue")), FactUse.USUAL), 0, "");
        keep(
                new FactRule(fact, "Colour " + mark, FactForm.oneOf(List.of("grey", "blue", "red")), FactUse.USUAL),
                1,
                "flags");
        assertThat(keep(
                        new FactRule(
                                fact, "Colour " + mark, FactForm.oneOf(List.of("grey", "blue", "red")), FactUse.USUAL),
                        2,
                        "again"))
                .as("what says the same is no edition")
                .isEqualTo("/house/facts/" + fact);
        List<Edition> editions = read.editions(server.actor("ines"), Subject.FACT, fact);
        assertThat(editions).hasSize(2);
        assertThat(read.between(read.house(server.actor("ines")), editions.get(1), editions.get(0)))
                .containsExactly(
                        new RuleDifference(RuleDifference.What.CHANGED, "Values", "grey or blue", "grey, blue or red"));
        keep.setBack(server.actor("ines"), Server.key(), Subject.FACT, fact, 1, 2);
        assertThat(latest(Subject.FACT, fact).number()).isEqualTo(3);
        assertThat(latest(Subject.FACT, fact).why()).isEqualTo("as edition 1 had it");
        assertThat(server.bean(HouseStore.class).facts())
                .filteredOn(f -> f.name().equals(fact))
                .singleElement()
                .satisfies(f -> assertThat(f.choices()).containsExactly("grey", "blue"));
        assertThat(code(() -> keep.setBack(server.actor("ines"), Server.key(), Subject.FACT, fact, 1, 2)))
                .isEqualTo("page.old");
    }

    @Test
    void everyEditionStandsInTheRecordWithWhoAndWhy() {
        keep(new SeriesRule("said-" + mark, "Said " + mark, "S{n:4}", SeriesRule.Counts.SHELF), 0, "for the yard");
        assertThat(server.bean(ReadRecord.class)
                        .ofHouse(server.actor("ines"), RecordQuestionStore.Question.ALL, Optional.empty(), 50))
                .anySatisfy(e -> {
                    assertThat(e.entry().act()).isEqualTo("house.rule");
                    assertThat(e.entry().says()).isEqualTo("made the number series “Said " + mark + "”");
                    assertThat(e.entry().why()).isEqualTo("for the yard");
                    assertThat(e.personName()).isEqualTo("Ines Kallmar");
                });
    }

    @Test
    void namesAndCodesStayApart() {
        keep(new SeriesRule("one-" + mark, "One " + mark, "O{n:4}", SeriesRule.Counts.SERVER), 0, "");
        assertThat(code(() -> keep(new SeriesRule("one-" + mark, "Other", "P{n:4}", SeriesRule.Counts.SERVER), 0, "")))
                .isEqualTo("page.old");
        assertThat(code(() ->
                        keep(new SeriesRule("two-" + mark, "ONE " + mark, "P{n:4}", SeriesRule.Counts.SERVER), 0, "")))
                .isEqualTo("rule.named");
        assertThat(code(() -> keep.copy(server.actor("ines"), Server.key(), Subject.KIND, "drawing", "Drawing")))
                .isEqualTo("rule.named");
        // Letters that a code has not give other codes, not another rule's.
        String one = keep.copy(server.actor("ines"), Server.key(), Subject.KIND, "drawing", "чертёж");
        String two = keep.copy(server.actor("ines"), Server.key(), Subject.KIND, "drawing", "схема");
        assertThat(one).isEqualTo("/house/kinds/rule");
        assertThat(two).isEqualTo("/house/kinds/rule-2");
        assertThat(latest(Subject.KIND, "rule-2").rule().name()).isEqualTo("схема");
        assertThatThrownBy(() -> keep.copy(server.actor("ines"), Server.key(), Subject.FILING, "filing", "More"))
                .as("there is one order of filing rules")
                .isInstanceOf(NotThere.class);
    }

    @Test
    void aShelfGoesAnotherRouteForAKindAndOnlyThere() {
        long here = server.shelf();
        long there = server.shelf();
        keep.replaceRoute(server.actor("ines"), Server.key(), "drawing", here, "straight");
        long straight = server.file("priya", here, "drawing", "s " + mark + ".dxf", Review.sheet(Server.key()), false);
        long reviewed = server.file("priya", there, "drawing", "r " + mark + ".dxf", Review.sheet(Server.key()), false);
        HouseStore house = server.bean(HouseStore.class);
        assertThat(house.edition(server.document(straight).current().stage().edition())
                        .code())
                .isEqualTo("straight");
        assertThat(house.edition(server.document(reviewed).current().stage().edition())
                        .code())
                .isEqualTo("reviewed");
        assertThat(code(() -> keep.replaceRoute(server.actor("ines"), Server.key(), "drawing", here, "change-order")))
                .as("a route for orders is none for drawings")
                .isEqualTo("kind.route");
        keep.replaceRoute(server.actor("ines"), Server.key(), "drawing", here, "");
        long again = server.file("priya", here, "drawing", "a " + mark + ".dxf", Review.sheet(Server.key()), false);
        assertThat(house.edition(server.document(again).current().stage().edition())
                        .code())
                .isEqualTo("reviewed");
    }

    @Test
    void tryingAFileSaysWhatWouldBecomeOfItAndStoresNothing() {
        long shelf = server.shelf();
        TryIt tryIt = server.bean(TryIt.class);
        var ines = server.actor("ines");
        long folder = tryIt.spots(ines, 500).stream()
                .filter(s -> s.path().equals(server.shelfName(shelf)))
                .findFirst()
                .orElseThrow()
                .folder();
        List<Tried> seen = new ArrayList<>();
        assertThat(Counting.writesOf(() -> {
                    seen.add(tryIt.of(
                            ines,
                            "hose guide.dxf",
                            Review.sheet("hose"),
                            server.actor("priya").person(),
                            folder));
                    seen.add(tryIt.of(
                            ines,
                            "well head.step",
                            new byte[0],
                            server.actor("rafael").person(),
                            folder));
                }))
                .as("nothing is written")
                .isEmpty();
        assertThat(Counting.writesOf(() -> server.shelf()))
                .as("what is written would be seen")
                .isNotEmpty();
        Tried tried = seen.get(0);
        assertThat(tried.kind().orElseThrow().name()).isEqualTo("drawing");
        assertThat(tried.kindWhy()).startsWith("filing rule");
        assertThat(tried.labels()).containsExactly("A", "B", "C", "D");
        assertThat(tried.facts())
                .filteredOn(f -> f.label().equals("Material"))
                .singleElement()
                .satisfies(f -> assertThat(f.value()).isEqualTo("316L"));
        assertThat(tried.may().rights()).containsEntry("change documents", "Designer");
        assertThat(tried.may().not()).contains("sign");
        assertThat(tried.asks().get(0).people()).contains("Hedda Lysgaard").doesNotContain("Priya Malhan");
        assertThat(tried.route().orElseThrow().code()).isEqualTo("reviewed");
        Tried named = seen.get(1);
        assertThat(named.kind().orElseThrow().name()).isEqualTo("part model");
        assertThat(named.numbers()).hasSize(3).doesNotHaveDuplicates();
        assertThat(named.may().not()).contains("file documents");
        assertThat(tryIt.of(ines, "what.xyz", new byte[0], server.actor("priya").person(), folder)
                        .kind())
                .isEmpty();
        String first = named.numbers().get(0);
        Web web = Web.as(server, "ines");
        assertThat(web.get("/house/try?name=well+head.step&person="
                                + server.actor("priya").person() + "&folder=" + folder)
                        .body())
                .contains(first);
    }

    /** Every shipped route, as every house gets it, is sound, said in words and drawn. */
    @Test
    void shippedRoutesAreRulesLikeAnyOther() {
        for (Edition e : read.all(server.actor("ines"), Subject.ROUTE)) {
            Route route = ReadRules.route(e);
            assertThat(RouteProof.ask(route)).as(route.name()).isEmpty();
            assertThat(new RouteRule(route).ask(read.house(server.actor("ines"))))
                    .as(route.name())
                    .isEmpty();
        }
        for (Edition e : read.all(server.actor("ines"), Subject.KIND)) {
            assertThat(e.rule().ask(read.house(server.actor("ines"))))
                    .as(e.rule().name())
                    .isEmpty();
        }
    }

    @Test
    void nobodyElseKeepsRules() {
        assertThatThrownBy(() -> keep.copy(server.actor("priya"), Server.key(), Subject.KIND, "drawing", "mine"))
                .isInstanceOf(Refused.class);
        assertThatThrownBy(() -> step("hedda", "reviewed", r -> RouteEdit.rename(r, "mine")))
                .isInstanceOf(Refused.class);
        assertThatThrownBy(() -> read.editions(server.actor("rafael"), Subject.ROUTE, "reviewed"))
                .isInstanceOf(Refused.class);
        assertThatThrownBy(() -> server.bean(TryIt.class).spots(server.actor("tomasz"), 5))
                .isInstanceOf(Refused.class);
    }
}
