package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDateTime;
import java.time.ZoneOffset;
import mintshelf.app.ground.NotThere;
import mintshelf.app.use.today.ReadOrder;
import mintshelf.database.schema.Tables;
import org.junit.jupiter.api.Test;

/** What is out of order stands on Today of who keeps order, and of nobody else. */
class OutOfOrderTest extends InAHouse {
    private final ReadOrder order = server.bean(ReadOrder.class);

    @Test
    void whatIsHeldForLongAndWhatCameBackWithoutAHoldIsShownToWhoKeepsOrder() {
        long shelf = server.shelf();
        long held = server.file("priya", shelf, "held" + mark + ".txt", "one", true);
        long fresh = server.file("priya", shelf, "fresh" + mark + ".txt", "two", true);
        long stray = server.file("priya", shelf, "stray" + mark + ".txt", "three", false);
        server.db()
                .update(Tables.HOLD)
                .set(Tables.HOLD.AT, LocalDateTime.now(ZoneOffset.UTC).minusDays(10))
                .where(Tables.HOLD.ITEM.eq(held))
                .execute();
        server.checkIn("tomasz", stray, "unheld " + mark, false);
        ReadOrder.Order out = order.order(server.actor("ines"));
        assertThat(out.held())
                .filteredOn(l -> l.seen().spine().id() == held)
                .singleElement()
                .satisfies(l -> {
                    assertThat(l.who()).isEqualTo("Priya Malhan");
                    assertThat(l.days()).isBetween(6, 8);
                });
        assertThat(out.held()).noneMatch(l -> l.seen().spine().id() == fresh);
        assertThat(out.strays()).anyMatch(l -> l.seen().spine().id() == stray);
        assertThatThrownBy(() -> order.order(server.actor("priya"))).isInstanceOf(NotThere.class);

        Web ines = Web.as(server, "ines");
        assertThat(ines.get("/today").body()).contains("hx-get=\"/today/order\"");
        String page = ines.get("/today/order").body();
        assertThat(page)
                .contains("Out of order", "held by Priya Malhan since", "came back from Tomasz Okrent without a hold")
                .contains("Backup");
        assertThat(Web.as(server, "priya").get("/today").body()).doesNotContain("/today/order");
        assertThat(Web.as(server, "rafael").get("/today").body()).doesNotContain("/today/order");
    }
}
