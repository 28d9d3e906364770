package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import mintshelf.app.store.filing.FilingStore;
import mintshelf.app.store.hold.StrayStore;
import mintshelf.app.use.filing.FilingSheets;
import mintshelf.app.use.person.ReadReach;
import mintshelf.core.house.FilingOrder;
import mintshelf.core.house.Subject;
import org.junit.jupiter.api.Test;

/** What a kind's card says, and what kind a changed copy gets. */
class KindCardTest extends InAHouse {
    @Test
    void aChangedCopyKeepsItsKindOrGoesByTheRulesAsTheHouseSays() {
        keep.copy(server.actor("ines"), Server.key(), Subject.KIND, "drawing", "copied sheet " + mark);
        String kind = "copied-sheet-" + mark;
        long item = server.file("priya", server.shelf(), kind, "c.dxf", Review.sheet("copy " + Server.key()), false);
        server.checkOut("priya", item);
        server.checkIn("tomasz", item, Review.sheet("unheld " + Server.key()), false);
        long stray = server.bean(StrayStore.class).kept(item).get(0).id();
        FilingOrder order = (FilingOrder) latest(Subject.FILING, "filing").rule();
        assertThat(order.copies()).as("as shipped").isEqualTo(FilingOrder.Copies.KEEP_KIND);
        var kept = row(stray);
        assertThat(kept.kind()).contains(server.kind(kind));
        assertThat(kept.kindWhy()).contains(server.document(item).number());
        keep(
                new FilingOrder(order.sentences(), FilingOrder.Copies.BY_RULE),
                latest(Subject.FILING, "filing").number(),
                "copies are looked at anew");
        assertThat(row(stray).kind()).as("the rule for drawings").contains(server.kind("drawing"));
        Web ines = Web.as(server, "ines");
        assertThat(ines.get("/house/filing").body()).contains("goes by the sentences above");
        keep(order, latest(Subject.FILING, "filing").number(), "");
    }

    private FilingStore.Row row(long stray) {
        String to = Web.as(server, "tomasz")
                .post("/strays/" + stray + "/file-as-new", Map.of())
                .headers()
                .firstValue("Location")
                .orElseThrow();
        return server.bean(FilingSheets.class)
                .sheet(server.actor("tomasz"), Long.parseLong(to.replaceAll(".*/", "")))
                .lines()
                .get(0)
                .row();
    }

    @Test
    void theCardSaysWhoMayDoWhatWithItsDocuments() {
        String card = Web.as(server, "ines").get("/house/kinds/drawing").body();
        assertThat(card).contains("Who may", "starts the next revision", ", everywhere.");
        // Other tests of this house add people: the page shows the first eight.
        assertThat(server.bean(ReadReach.class).ofKind(server.actor("ines"), "drawing"))
                .contains("Priya Malhan is Designer, everywhere", "Ines Kallmar is Data manager, everywhere");
    }
}
