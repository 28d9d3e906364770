package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Sheets;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.run.Run;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.app.use.design.MakeDesign;
import mintshelf.app.use.design.Outline;
import mintshelf.app.use.design.ReadDesign;
import mintshelf.app.use.design.ReadDesign.Asked;
import mintshelf.app.use.design.ReadDesign.View;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.job.ReadJobs;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.reuse.Design;
import mintshelf.core.reuse.Design.Becomes;
import mintshelf.core.structure.StructureView;
import org.junit.jupiter.api.Test;

/** A new design from another one: its numbers, its files, what it shares, and that it is made whole. */
class NewDesignTest extends InDesign {
    @Test
    void aDesignIsMadeByTheRuleWithItsSheetsAndItsReferencesRewritten() {
        String before = text(top);
        View view = read.of(priya, asked(Map.of()));
        assertThat(view.outline().count(Becomes.NEW)).isEqualTo(4);
        assertThat(view.outline().tree().missing()).isEqualTo(1);
        assertThat(view.outline().copies().stream().map(Outline.Copy::fileName))
                .contains(to.toLowerCase(java.util.Locale.ROOT) + "1010 part.stp");
        Map<Long, Document> made = make(priya, asked(Map.of()));
        assertThat(made).containsOnlyKeys(part, screw, group, top, topSheet);
        assertThat(of(made, part).number()).isEqualTo(to + "1010");
        assertThat(of(made, topSheet).number()).isEqualTo(to + "1000");
        assertThat(of(made, top).head().number()).isEqualTo(1);
        assertThat(meant(refersTo(of(made, top))))
                .containsExactly(of(made, part).id(), of(made, group).id());
        assertThat(meant(refersTo(of(made, group))))
                .containsExactly(of(made, screw).id(), of(made, part).id());
        assertThat(refersTo(of(made, top)).get(0).written().quantity()).isEqualTo(2);
        String small = to.toLowerCase(java.util.Locale.ROOT);
        assertThat(text(of(made, top).id()))
                .isEqualTo(before.replace(name(1010, ""), small + "1010").replace(name(1100, ""), small + "1100"));
        assertThat(text(top)).as("the other one stays as it is").isEqualTo(before);
        assertThat(made.values())
                .allSatisfy(d -> assertThat(d.holder())
                        .hasValueSatisfying(h -> assertThat(h.person()).isEqualTo(priya.person())));
        // Its sheet shows its model and says its number, and each comes from what it was made of.
        List<String> links = server
                .bean(LinkStore.class)
                .around(List.of(of(made, topSheet).id()))
                .stream()
                .map(l -> l.kind() + " " + l.item() + " " + l.target())
                .toList();
        assertThat(links)
                .contains(
                        "SHOWS " + of(made, topSheet).id() + " " + of(made, top).id(),
                        "DERIVED_FROM " + of(made, topSheet).id() + " " + topSheet);
        assertThat(server.bean(Sheets.class)
                        .said(server.bean(VersionStore.class)
                                .version(of(made, topSheet).id(), 1)
                                .orElseThrow()
                                .content()))
                .containsEntry("number", to + "1000");
    }

    @Test
    void aSecondDesignByTheSameRuleGetsTheNextNumbersAndSaysSo() {
        make(priya, asked(Map.of()));
        View view = read.of(priya, asked(Map.of()));
        assertThat(view.outline().settled()).hasSize(4);
        Map<Long, Document> made = make(priya, asked(Map.of()));
        assertThat(of(made, part).number()).isEqualTo(to + "1011");
        assertThat(of(made, top).number()).isEqualTo(to + "1001");
        // From the first new one a third one begins.
        assertThat(of(made, top).title()).isEqualTo(server.document(top).title());
    }

    @Test
    void whatIsTypedSharesExchangesLeavesOutAndRenames() {
        long other = model(2000);
        Map<Long, String> typed = new HashMap<>();
        typed.put(part, from + "1010");
        typed.put(screw, from + "2000");
        typed.put(top, "K" + mark);
        Map<Long, Document> made = make(priya, asked(typed));
        assertThat(made).containsOnlyKeys(group, top, topSheet);
        assertThat(of(made, top).number()).isEqualTo("K" + mark);
        assertThat(meant(refersTo(of(made, group)))).containsExactly(other, part);
        assertThat(text(of(made, group).id())).contains(name(2000, " part.stp")).doesNotContain(name(1110, ""));
        // Left out: taken out of the file; what stood in it alone is not made.
        Map<Long, Document> without = make(priya, asked(Map.of(group, "", top, "L" + mark)));
        assertThat(without).containsOnlyKeys(part, top, topSheet);
        assertThat(text(of(without, top).id()))
                .doesNotContain("1100")
                .contains("1010 part.stp")
                .doesNotContain("#200=");
        assertThat(refersTo(of(without, top)))
                .extracting(r -> r.written().path())
                .hasSize(2)
                .contains("no.stp");
    }

    @Test
    void factsTitlesAndAFolderOfItsOwn() {
        server.bean(KeepFacts.class)
                .keep(priya, topSheet, Server.key(), "Encoder head", Map.of("surface", "bead"), Map.of());
        Wish.Design wish = new Wish.Design(
                top,
                StructureView.LATEST,
                Map.of(),
                Optional.empty(),
                "Short " + mark,
                List.of(new Design.Words("Encoder", "Sensor")),
                List.of(
                        new Wish.Design.Fact("surface", "bead", "ground"),
                        new Wish.Design.Fact("material", "other", "1.4404")),
                false);
        Asked asked = new Asked(from + "*", to + "*", false, wish);
        View view = read.of(priya, asked);
        assertThat(view.said()).extracting(ReadDesign.Said::documents).containsExactly(1L, 0L);
        assertThat(view.block()).anyMatch(f -> f.value().equals("Sensor head") && f.anew());
        Map<Long, Document> made = make(priya, asked);
        Document sheet = of(made, topSheet);
        assertThat(sheet.title()).isEqualTo("Sensor head");
        assertThat(sheet.holder()).isEmpty();
        assertThat(server.bean(FactStore.class).facts(sheet.current().id()))
                .containsEntry("surface", "ground")
                .containsEntry("material", "316L");
        long folder = sheet.place().folders().get(0);
        assertThat(server.bean(ShelfStore.class).folder(folder).orElseThrow().name())
                .isEqualTo("Short " + mark);
        assertThat(made.values()).allMatch(d -> d.place().folders().get(0) == folder);
        assertThat(meant(refersTo(of(made, top)))).hasSize(2);
        // A second one goes into the same folder.
        Map<Long, Document> second = make(priya, asked);
        assertThat(of(second, top).place().folders().get(0)).isEqualTo(folder);
    }

    @Test
    void whatCannotBeKeepsAllFromBeingMade() {
        assertThat(refused(Map.of(top, ""))).isEqualTo("design.top");
        assertThat(refused(Map.of(part, "a|b"))).isEqualTo("number.form");
        assertThat(refused(Map.of(part, "X" + mark, screw, "x" + mark))).isEqualTo("design.twice");
        assertThat(refused(Map.of(part, from + "1110", screw, from + "1110"))).isEqualTo("design.both");
        assertThat(read.of(priya, new Asked(from + "##", to + "#", false, wish(Map.of())))
                        .rule())
                .hasValueSatisfying(r -> assertThat(r.code()).isEqualTo("rule.signs"));
        assertThat(read.of(priya, new Asked("", "", false, wish(Map.of()))).refusals())
                .extracting(Refusal::code)
                .containsExactly("design.top");
        // Nobody sees what is in preparation who may not; who files nowhere makes nothing.
        assertThatThrownBy(() -> read.of(server.actor("rafael"), asked(Map.of())))
                .isInstanceOf(NotThere.class);
        Outline outline = read.of(priya, asked(Map.of())).outline();
        List<Long> items = outline.copies().stream().map(c -> c.from().id()).toList();
        Wish said = Wish.design(MakeDesign.said(wish(Map.of()), outline));
        // One of them less, or somebody takes one of the numbers meanwhile: nothing is made.
        assertThatThrownBy(() -> over.begin(
                        priya,
                        Run.What.NEW_DESIGN,
                        items.subList(1, items.size()),
                        said,
                        Optional.empty(),
                        Server.key()))
                .isInstanceOf(Refused.class);
        server.file(
                "priya",
                shelf,
                "part-model",
                "x" + mark + ".stp",
                to + "1010",
                StructureTest.assembly("x" + mark),
                false);
        assertThatThrownBy(() -> over.begin(priya, Run.What.NEW_DESIGN, items, said, Optional.empty(), Server.key()))
                .isInstanceOf(Refused.class);
        assertThat(server.bean(mintshelf.app.sight.Numbered.class).all(priya, to + "1000"))
                .isEmpty();
    }

    @Test
    void whatIsInForceIsBegunFromWhileTheNextRevisionIsInWork() {
        server.release("priya", part);
        server.bean(StartRevisions.class).start(priya, List.of(part), Server.key(), "longer", "", true);
        server.checkIn("priya", part, StructureTest.assembly("moved on " + mark), false);
        Wish.Design released = new Wish.Design(
                top, StructureView.LATEST_RELEASED, Map.of(), Optional.empty(), "", List.of(), List.of(), false);
        Outline outline = read.of(priya, new Asked(from + "####", to + "####", false, released))
                .outline();
        Outline.Copy copy = outline.copies().stream()
                .filter(c -> c.from().id() == part)
                .findFirst()
                .orElseThrow();
        assertThat(copy.from().version().number()).isEqualTo(1);
        assertThat(copy.from().isBehind()).isTrue();
        Map<Long, Document> made = make(priya, new Asked(from + "####", to + "####", false, released));
        assertThat(text(of(made, part).id())).doesNotContain("moved on");
        // What became of the original since is told at the new one, and stays told when that goes on.
        LinkStore links = server.bean(LinkStore.class);
        long mine = of(made, part).id();
        assertThat(links.around(List.of(mine))).anyMatch(l -> l.kind() == LinkStore.Kind.DERIVED_FROM && l.isBehind());
        server.checkOut("priya", mine);
        server.checkIn("priya", mine, StructureTest.assembly("my own " + mark), false);
        assertThat(links.around(List.of(mine))).anyMatch(l -> l.kind() == LinkStore.Kind.DERIVED_FROM && l.isBehind());
    }

    @Test
    void whatOnlyItsOwnProgramWritesIsMadeAndLeavesAJob() {
        // A part of its own in the assembly's file: the component cannot be taken out without guessing.
        String text = new String(
                        StructureTest.assembly("own " + mark, name(1010, " part.stp"), 1, name(1110, " part.stp"), 1),
                        StandardCharsets.US_ASCII)
                .replace("#12,#202,$", "#102,#202,$");
        long own = server.file(
                "priya",
                shelf,
                "part-model",
                name(3000, " own.stp"),
                from + "3000",
                text.getBytes(StandardCharsets.US_ASCII),
                false);
        Wish.Design wish = new Wish.Design(
                own, StructureView.LATEST, Map.of(part, ""), Optional.empty(), "", List.of(), List.of(), true);
        Map<Long, Document> made = make(priya, new Asked(from + "####", to + "####", false, wish));
        // It still stands in its file, and so it is told: the former one.
        assertThat(meant(refersTo(of(made, own)))).contains(part);
        assertThat(server.bean(ReadJobs.class)
                        .mineOn(priya, List.of(of(made, own).id())))
                .isNotEmpty();
    }

    @Test
    void aListThatSaysTheNumberOfWhatIsLeftOutIsAJob() {
        byte[] list = plate("5", from + "1010");
        long sheet = server.file("priya", shelf, "drawing", name(1100, " list.dxf"), from + "1100", list, false);
        Wish.Design wish = new Wish.Design(
                group, StructureView.LATEST, Map.of(part, ""), Optional.empty(), "", List.of(), List.of(), false);
        Map<Long, Document> made = make(priya, new Asked(from + "####", to + "####", false, wish));
        assertThat(server.bean(ReadJobs.class)
                        .mineOn(priya, List.of(of(made, sheet).id())))
                .isNotEmpty();
        // Where it only gets another number, the list says that.
        Map<Long, Document> all = make(
                priya,
                new Asked(
                        from + "####",
                        to + "####",
                        false,
                        new Wish.Design(
                                group,
                                StructureView.LATEST,
                                Map.of(),
                                Optional.empty(),
                                "",
                                List.of(),
                                List.of(),
                                false)));
        assertThat(text(of(all, sheet).id())).contains(of(all, part).number()).doesNotContain(from + "1010");
        assertThat(server.bean(ReadJobs.class)
                        .mineOn(priya, List.of(of(all, sheet).id())))
                .isEmpty();
    }

    @Test
    void whatIsSentAgainIsDoneOnceAndItsReportIsShown() {
        Web web = Web.as(server, "priya");
        String page = web.get("/documents/" + top + "/new-design").body();
        assertThat(page).contains("Nothing yet", from + "####").doesNotContain("In the way");
        String key = Server.key();
        Map<String, String> form = new LinkedHashMap<>();
        form.put("from", from + "*");
        form.put("to", to + "*");
        form.put("view", "latest");
        String planned =
                web.post("/documents/" + top + "/new-design/plan", form).body();
        assertThat(planned).contains("Make 5 documents");
        form.put("actKey", key);
        form.put("seen", "other");
        assertThat(web.post("/documents/" + top + "/new-design", form).body()).contains("something else by now");
        form.put("seen", planned.replaceAll("(?s).*name=\"seen\" value=\"([0-9a-f]+)\".*", "$1"));
        String run = web.post("/documents/" + top + "/new-design", form)
                .headers()
                .firstValue("Location")
                .orElseThrow();
        assertThat(web.post("/documents/" + top + "/new-design", form).headers().firstValue("Location"))
                .contains(run);
        assertThat(web.get(run.replaceAll("^https?://[^/]+", "")).body()).contains(to + "1000", "5 of 5");
    }

    @Test
    void aSheetBeginsFromItsModelAndNumbersComeFromTheSeries() {
        Wish.Design sheet = new Wish.Design(
                topSheet,
                StructureView.LATEST,
                Map.of(part, from + "1010"),
                Optional.empty(),
                "",
                List.of(),
                List.of(),
                true);
        Asked series = new Asked("", "", true, sheet);
        View view = read.of(priya, series);
        assertThat(view.outline().tree().top().id()).isEqualTo(top);
        Map<Long, Document> made = make(priya, series);
        assertThat(made).containsOnlyKeys(screw, group, top, topSheet);
        assertThat(of(made, topSheet).number()).isEqualTo(of(made, top).number());
        assertThat(made.values().stream().map(Document::number).distinct()).hasSize(3);
    }

    @Test
    void aProgramPlansAndMakesItOnceAndNotWhatHasBecomeAnother() throws Exception {
        Web web = Web.as(server, "priya");
        String body = "{\"act\":\"new-design\",\"design\":{\"root\":" + top + ",\"rule\":{\"from\":\"" + from
                + "*\",\"to\":\"" + to + "*\"},\"rows\":[{\"document\":" + group + ",\"number\":\"\"}],\"hold\":true}";
        String planned = web.json("/api/v1/plans", Server.key(), body + "}").body();
        assertThat(planned)
                .contains("\"opens\":true", "\"to\":\"" + to + "1000\"")
                .doesNotContain("1100");
        String digest = planned.replaceAll("(?s).*\"digest\":\"([0-9a-f]+)\".*", "$1");
        String key = Server.key();
        String run = body + ",\"plan\":\"" + digest + "\"}";
        server.file(
                "priya",
                shelf,
                "part-model",
                "y" + mark + ".stp",
                to + "1010",
                StructureTest.assembly("y" + mark),
                false);
        var other = web.json("/api/v1/runs", key, run);
        assertThat(other.statusCode()).isEqualTo(409);
        assertThat(other.body()).contains(to + "1011");
        String again =
                body + ",\"plan\":\"" + other.body().replaceAll("(?s).*\"digest\":\"([0-9a-f]+)\".*", "$1") + "\"}";
        var made = web.json("/api/v1/runs", key, again);
        assertThat(made.statusCode()).isEqualTo(201);
        assertThat(web.json("/api/v1/runs", key, again).body()).isEqualTo(made.body());
        assertThat(server.bean(mintshelf.app.sight.Numbered.class).all(priya, to + "1000"))
                .hasSize(2);
        assertThat(web.json("/api/v1/plans", Server.key(), body.replace("\"rule\"", "\"view\":\"any\",\"rule\"") + "}")
                        .statusCode())
                .isEqualTo(409);
        assertThat(web.json("/api/v1/plans", Server.key(), "{\"act\":\"new-design\"}")
                        .statusCode())
                .isEqualTo(409);
    }
}
