package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.Times;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.app.use.document.DropDocument;
import mintshelf.app.use.document.LetBytesGo;
import mintshelf.app.use.revision.MoveDocument;
import mintshelf.app.use.verify.Verify;
import mintshelf.database.schema.Tables;
import org.assertj.core.api.ThrowableAssert.ThrowingCallable;
import org.junit.jupiter.api.Test;

class DropTest {
    private final Server server = Server.shared();
    private final DropDocument drop = server.bean(DropDocument.class);
    private final long shelf = server.shelf();

    private Refused refused(ThrowingCallable act) {
        Refused refused = catchThrowableOfType(Refused.class, act);
        assertThat(refused).as("refused").isNotNull();
        return refused;
    }

    private String reason(ThrowingCallable act) {
        return refused(act).refusal().reason();
    }

    @Test
    void aDroppedDocumentOpensNoMove() {
        long item = server.file("priya", shelf, "drop a.txt", "a", false);
        drop.drop(server.actor("priya"), item, Server.key(), "wrong file");
        for (String who : List.of("ines")) {
            assertThat(refused(() -> server.release(who, item)).refusal().code())
                    .isEqualTo("document.dropped");
            assertThat(refused(() -> server.checkOut(who, item)).refusal().says())
                    .contains("dropped");
        }
        assertThat(Web.as(server, "ines")
                        .get("/documents/" + item + "/moves/release")
                        .statusCode())
                .isNotEqualTo(500);
    }

    @Test
    void whatOthersReferToIsNotDropped() {
        long clamp = server.file("priya", shelf, "clamp " + shelf + ".dxf", "clamp", false);
        long parent = server.file("priya", shelf, "well " + shelf + ".dxf", "well", false);
        var head = server.document(parent).head().version();
        server.refer(head, clamp, "clamp.dxf");
        assertThat(reason(() -> drop.drop(server.actor("priya"), clamp, Server.key(), "no")))
                .contains(server.document(parent).number());
        Web web = Web.as(server, "priya");
        assertThat(web.get("/documents/" + clamp).body()).doesNotContain("Drop the document");
        assertThat(web.get("/documents/" + parent).body()).contains("Drop the document");
        // Once the parent is gone, nobody names it any more.
        drop.drop(server.actor("priya"), parent, Server.key(), "no");
        drop.drop(server.actor("priya"), clamp, Server.key(), "no");
        assertThat(server.document(clamp).dropped()).isTrue();
    }

    @Test
    void whatARoundOrALinkNamesIsNotDropped() {
        Review review = new Review(server);
        long item = review.drawing(shelf, "named " + shelf + ".dxf");
        review.send("priya", item);
        server.bean(MoveDocument.class).move(server.actor("priya"), item, Server.key(), "take-back", 2, "not yet");
        assertThat(reason(() -> drop.drop(server.actor("priya"), item, Server.key(), "no")))
                .contains("the round of");
        long target = server.file("priya", shelf, "target " + shelf + ".txt", "t", false);
        long from = server.file("priya", shelf, "from " + shelf + ".txt", "f", false);
        server.bean(LinkStore.class)
                .add(
                        from,
                        LinkStore.Kind.EVIDENCE,
                        target,
                        false,
                        server.actor("priya").person(),
                        Instant.now());
        assertThat(reason(() -> drop.drop(server.actor("priya"), target, Server.key(), "no")))
                .contains(server.document(from).number() + ", which links to it");
    }

    @Test
    void aDataManagerBringsItBackForNinetyDaysWithItsNumberAndAFreeName() {
        String name = "brought " + shelf + ".txt";
        long item = server.file("priya", shelf, name, "b1", false);
        String number = server.document(item).number();
        drop.drop(server.actor("priya"), item, Server.key(), "wrong file");
        long other = server.file("priya", shelf, name, "b2", false);
        assertThat(server.document(other).fileName()).isEqualTo(name);
        assertThat(Web.as(server, "ines").get("/shelves/" + shelf).body())
                .contains("dropped in the last 90 days")
                .contains(number);
        Web ines = Web.as(server, "ines");
        assertThat(ines.get("/documents/" + item).body())
                .contains("Bring it back")
                .contains("wrong file");
        assertThat(ines.post("/documents/" + item + "/bring-back", Map.of("actKey", Server.key()))
                        .statusCode())
                .isEqualTo(302);
        assertThat(server.document(item).dropped()).isFalse();
        assertThat(server.document(item).number()).isEqualTo(number);
        assertThat(server.document(item).fileName()).isEqualTo("brought " + shelf + " (2).txt");
        server.checkOut("priya", item);
        assertThat(server.checkIn("priya", item, "b3", false)).isEqualTo(item + "v2");
        assertThat(refused(() -> drop.bringBack(server.actor("ines"), item, Server.key()))
                        .refusal()
                        .code())
                .isEqualTo("document.there");
    }

    @Test
    void aDesignerDoesNotBringBack() {
        long item = server.file("priya", shelf, "mine.txt", "m", false);
        drop.drop(server.actor("priya"), item, Server.key(), "wrong file");
        assertThat(Web.as(server, "priya")
                        .post("/documents/" + item + "/bring-back", Map.of("actKey", Server.key()))
                        .statusCode())
                .isEqualTo(404);
    }

    @Test
    void afterNinetyDaysTheBytesGoAndTheRecordSaysSo() {
        long item = server.file("priya", shelf, "old.txt", "nobody else has these bytes " + shelf, false);
        long shared = server.file("priya", shelf, "shared.txt", "these bytes are shared " + shelf, false);
        long keeps = server.file("priya", shelf, "keeps.txt", "keeps", true);
        server.checkIn("priya", keeps, "these bytes are shared " + shelf, false);
        long content = server.bean(SpineStore.class)
                .spine(item)
                .orElseThrow()
                .content()
                .id();
        for (long one : List.of(item, shared)) {
            drop.drop(server.actor("priya"), one, Server.key(), "wrong file");
            server.db()
                    .update(Tables.ITEM)
                    .set(Tables.ITEM.DROPPED_AT, Times.utc(Instant.now().minus(Duration.ofDays(91))))
                    .where(Tables.ITEM.ID.eq(one))
                    .execute();
        }
        assertThat(refused(() -> drop.bringBack(server.actor("ines"), item, Server.key()))
                        .refusal()
                        .code())
                .isEqualTo("document.freed");
        server.bean(LetBytesGo.class).letGo();
        assertThat(server.db().fetchExists(Tables.CONTENT, Tables.CONTENT.ID.eq(content)))
                .isFalse();
        assertThat(new String(server.bytes(keeps), StandardCharsets.UTF_8))
                .isEqualTo("these bytes are shared " + shelf);
        assertThat(server.db()
                        .fetchCount(
                                Tables.RECORD_ENTRY,
                                Tables.RECORD_ENTRY.ITEM.eq(item),
                                Tables.RECORD_ENTRY.ACT.eq("document.freed")))
                .isEqualTo(1);
        assertThat(server.bean(Verify.class).verify().problems()).isEmpty();
    }
}
