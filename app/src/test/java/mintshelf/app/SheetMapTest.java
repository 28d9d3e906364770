package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Contents;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.SheetMapStore;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.sheetmap.KeepSheetMaps;
import mintshelf.app.use.sheetmap.PlanSheets;
import mintshelf.app.use.sheetmap.ReadBlocks;
import mintshelf.app.use.sheetmap.WriteSheets;
import mintshelf.app.use.sheetmap.WriteSheets.How;
import mintshelf.app.use.verify.Verify;
import mintshelf.core.Dxf;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.titleblock.RevisionBlock;
import mintshelf.core.drawing.titleblock.SheetMap;
import org.junit.jupiter.api.Test;

/** Record and sheet side by side; what the shelf writes into title block and revision block. */
class SheetMapTest {
    private final Server server = Server.shared();
    private final long shelf = server.shelf();
    private final Review review = new Review(server);
    private final ReadBlocks blocks = server.bean(ReadBlocks.class);
    private final PlanSheets plans = server.bean(PlanSheets.class);
    private final WriteSheets write = server.bean(WriteSheets.class);

    /** An A3 sheet; a title block with the tags of the ready-made map; a revision block with one empty row, or none. */
    static byte[] sheet(String title, boolean rows, double hole) {
        List<String> tags = new ArrayList<>(List.of("999 " + Server.key(), "0 SECTION", "2 BLOCKS"));
        tags.addAll(List.of("0 BLOCK", "8 0", "2 TITLE", "10 0", "20 0", "0 ENDBLK"));
        if (rows) {
            tags.addAll(List.of("0 BLOCK", "8 0", "2 REVISION_ROW", "10 0", "20 0", "0 ENDBLK"));
        }
        tags.addAll(List.of("0 ENDSEC", "0 SECTION", "2 ENTITIES", "0 LWPOLYLINE", "8 0", "90 4", "70 1"));
        tags.addAll(List.of("10 0", "20 0", "10 420", "20 0", "10 420", "20 297", "10 0", "20 297"));
        tags.addAll(List.of("0 CIRCLE", "8 OUTLINE", "10 85", "20 235", "40 " + hole));
        tags.addAll(List.of("0 INSERT", "66 1", "2 TITLE", "10 230", "20 10"));
        Map<String, String> values = new LinkedHashMap<>();
        for (String tag : List.of("NUMBER", "REV", "STATUS", "APPROVED_BY")) values.put(tag, "");
        values.put("TITLE", title);
        values.put("MATERIAL", "316L");
        values.forEach((tag, value) ->
                tags.addAll(List.of("0 ATTRIB", "10 240", "20 20", "40 3.5", "1 " + value, "2 " + tag)));
        tags.add("0 SEQEND");
        if (rows) {
            tags.addAll(List.of("0 INSERT", "66 1", "2 REVISION_ROW", "10 230", "20 60"));
            for (String tag : List.of("REV", "ZONE", "DESCRIPTION", "DATE", "BY", "APPROVED")) {
                tags.addAll(List.of("0 ATTRIB", "10 232", "20 61", "40 2.5", "1 ", "2 " + tag));
            }
            tags.add("0 SEQEND");
        }
        tags.addAll(List.of("0 ENDSEC", "0 EOF"));
        return Dxf.of("\r\n", StandardCharsets.ISO_8859_1, tags.toArray(String[]::new));
    }

    private long drawing(String name, boolean rows, boolean hold) {
        return server.file("priya", shelf, "drawing", name, sheet("Float", rows, 4), hold);
    }

    private VersionRow head(long item) {
        int number = server.document(item).head().number();
        return server.bean(VersionStore.class).version(item, number).orElseThrow();
    }

    private DxfDrawing read(long item) {
        byte[] bytes = server.bean(Contents.class).bytes(head(item).content(), 1 << 20);
        return ((Outcome.Granted<DxfDrawing>) DxfDrawing.read(bytes)).value();
    }

    private List<Map<String, String>> rows(long item) {
        return RevisionBlock.readyMade().read(read(item));
    }

    @Test
    void rowsAreWrittenOnReleaseAndWhenARevisionStarts() {
        long item = drawing("rows.dxf", true, true);
        server.checkIn("priya", item, sheet("Float", true, 5), false);
        review.release(item);
        assertThat(rows(item))
                .singleElement()
                .satisfies(a -> assertThat(a)
                        .containsEntry("revision", "A")
                        .containsEntry("by", "Priya Malhan")
                        .containsEntry("approved", "O. Adebari")
                        .containsKey("date")
                        .doesNotContainKey("zone"));
        server.bean(StartRevisions.class)
                .start(server.actor("priya"), List.of(item), Server.key(), "holes for M6 glands", "", true);
        assertThat(rows(item))
                .hasSize(2)
                .last()
                .satisfies(b -> assertThat(b)
                        .containsEntry("revision", "B")
                        .containsEntry("description", "holes for M6 glands")
                        .doesNotContainKey("date"));
        byte[] started = server.bean(Contents.class).bytes(head(item).content(), 1 << 20);
        String changed = new String(started, StandardCharsets.ISO_8859_1).replaceFirst("40\r\n5.0", "40\r\n6.6");
        server.checkIn("priya", item, changed.getBytes(StandardCharsets.ISO_8859_1), false);
        review.release(item);
        assertThat(rows(item))
                .hasSize(2)
                .last()
                .satisfies(b -> assertThat(b).containsEntry("zone", "B2").containsKeys("date", "approved"));
        assertThat(server.bean(Verify.class).verify().problems()).isEmpty();
    }

    @Test
    void aRevisionBlockIsPlacedOnManySheetsAtOnceOrOnNone() {
        long one = drawing("place one.dxf", false, false);
        long two = drawing("place two.dxf", false, false);
        long held = drawing("place held.dxf", false, true);
        How place = new How(Optional.empty(), true);
        assertThat(plans.plan(server.actor("tomasz"), List.of(one, two, held), place))
                .extracting(WriteSheets.Row::opens)
                .containsExactly(true, true, false);
        assertThatThrownBy(() -> write.write(server.actor("tomasz"), List.of(one, held), place, Server.key()))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("held by Priya Malhan");
        assertThat(head(one).number()).isEqualTo(1);
        var preview = write.preview(server.actor("tomasz"), one, place).orElseThrow();
        assertThat(preview.comparison().differences()).isNotEmpty();
        assertThat(head(one).number()).as("a preview keeps nothing").isEqualTo(1);
        String to = write.write(server.actor("tomasz"), List.of(one, two), place, Server.key());
        assertThat(to).isEqualTo("/write-sheets?items=" + one + "," + two);
        assertThat(head(two).madeBy()).isEqualTo(VersionRow.MadeBy.STAMPED);
        assertThat(rows(two)).extracting(r -> r.get("revision")).containsExactly("A");
        assertThat(plans.plan(server.actor("tomasz"), List.of(one), How.USUAL))
                .singleElement()
                .satisfies(row -> assertThat(row.refusal().orElseThrow().code()).isEqualTo("sheet.same"));
        assertThat(server.bean(Verify.class).verify().problems()).isEmpty();
    }

    @Test
    void recordAndSheetStandSideBySideAndEitherSideCanFollow() {
        long item = drawing("side.dxf", true, true);
        server.checkIn("priya", item, sheet("Float body", true, 5), false);
        ReadBlocks.Block block = blocks.block(server.actor("priya"), item);
        assertThat(block.lines())
                .filteredOn(ReadBlocks.FieldLine::differs)
                .extracting(l -> l.field().fact())
                .contains("number", "revision", "status", "title");
        Web web = Web.as(server, "priya");
        String page = web.get("/documents/" + item + "/title-block").body();
        assertThat(page).contains("Take over").contains("Write the record into the sheet");
        Map<String, String> form = new LinkedHashMap<>(Map.of("title", block.title(), "actKey", Server.key()));
        assertThat(web.post("/documents/" + item + "/facts", form).statusCode()).isEqualTo(302);
        assertThat(server.document(item).title()).isEqualTo("Float body");
        web.post("/write-sheets", Map.of("items", "" + item, "place", "false", "map", "", "actKey", Server.key()));
        ReadBlocks.Block after = blocks.block(server.actor("priya"), item);
        assertThat(after.lines()).noneMatch(l -> l.differs() && l.isWritten());
    }

    @Test
    void aMapOfTheHouseGetsEditionsAndOnlyItsKeepersChangeIt() {
        KeepSheetMaps keep = server.bean(KeepSheetMaps.class);
        SheetMap.Spot spot = new SheetMap.Spot(180, 20, 60, 12);
        SheetMap map = new SheetMap(
                "Old frames " + System.nanoTime(),
                "",
                "A3",
                List.of(new SheetMap.Field("", "subject", SheetMap.Way.READ, Optional.of(spot))),
                Optional.empty());
        assertThatThrownBy(() -> keep.keep(server.actor("priya"), Server.key(), map, true, 0, ""))
                .isInstanceOf(Refused.class);
        assertThat(Web.as(server, "priya").get("/sheet-maps").statusCode()).isEqualTo(403);
        keep.keep(server.actor("ines"), Server.key(), map, false, 0, "");
        SheetMapStore maps = server.bean(SheetMapStore.class);
        SheetMapStore.Edition first = maps.all().stream()
                .filter(e -> e.map().name().equals(map.name()))
                .findFirst()
                .orElseThrow();
        assertThat(first.map()).isEqualTo(map);
        assertThat(maps.latest()).as("out of use").doesNotContain(first);
        assertThatThrownBy(() -> keep.keep(server.actor("ines"), Server.key(), map, true, 0, ""))
                .hasMessageContaining("already");
        Web web = Web.as(server, "ines");
        Map<String, String> form = new LinkedHashMap<>(Map.of("name", map.name(), "block", "FRAME", "format", "A3"));
        form.putAll(Map.of("tag.0", "", "spot.0", "180, 20, 60 x 12", "fact.0", "subject", "way.0", "WRITTEN"));
        form.put("actKey", Server.key());
        form.put("edition", "7");
        assertThat(web.post("/sheet-maps", form).body()).as("an old page").contains("your page showed edition 7");
        form.put("edition", "1");
        form.put("actKey", Server.key());
        assertThat(web.post("/sheet-maps", form).statusCode()).isEqualTo(302);
        SheetMapStore.Edition second = maps.all().stream()
                .filter(e -> e.map().name().equals(map.name()))
                .findFirst()
                .orElseThrow();
        assertThat(second.edition()).isEqualTo(2);
        assertThat(second.map().fields().get(0).way()).isEqualTo(SheetMap.Way.WRITTEN);
        assertThat(maps.find(first.id())).as("kept for its proofs").contains(first);
        assertThat(second.note().by()).isEqualTo("Ines Kallmar");
        String there = "/sheet-maps/" + second.id();
        assertThat(web.get("/sheet-maps/" + first.id()).headers().firstValue("Location"))
                .as("an earlier edition is looked at beside the one in force")
                .hasValueSatisfying(to -> assertThat(to).endsWith(there + "?beside=1"));
        assertThat(web.get(there + "?beside=1").body())
                .contains("Edition 2 beside 1", "FRAME", "was: any block", "the record says it");
        assertThat(web.get(there + "?beside=9").statusCode()).isEqualTo(404);
        Map<String, String> back = Map.of("actKey", Server.key(), "number", "1", "edition", "2");
        assertThat(Web.as(server, "priya").post(there + "/set-back", back).statusCode())
                .isEqualTo(403);
        assertThat(web.post(there + "/set-back", back).statusCode()).isEqualTo(302);
        SheetMapStore.Edition third = maps.editions(second, 1).get(0);
        assertThat(third.map()).isEqualTo(first.map());
        assertThat(third.note().why()).isEqualTo("as edition 1 had it");
        form.put("edition", "3");
        form.put("spot.0", "nowhere");
        assertThat(web.post("/sheet-maps", form).body()).contains("is no place");
        assertThat(new SheetMap("x", "", "", List.of(), Optional.empty()).wrong())
                .isNotEmpty();
    }

    @Test
    void aMapIsTriedOnASheetBeforeItIsUsed() {
        long item = drawing("tried.dxf", true, false);
        String number = server.document(item).number();
        SheetMapStore.Edition ready = server.bean(SheetMapStore.class).all().get(0);
        String page = Web.as(server, "ines")
                .get("/sheet-maps/" + ready.id() + "?on=" + number)
                .body();
        assertThat(page).contains("Float").contains("316L");
        assertThatThrownBy(() -> server.bean(KeepSheetMaps.class).map(server.actor("ines"), 999_999))
                .isInstanceOf(NotThere.class);
    }
}
