package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import mintshelf.app.ground.NotThere;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.notice.NoticeStore;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.hold.CheckOut;
import mintshelf.app.use.revision.MoveDocument;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.round.ReadRounds;
import mintshelf.app.use.round.SendToReview;
import mintshelf.core.signoff.Decision;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** The second time: after everybody abstained, after taking back, after a return, since which revision. */
class RoundAgainTest {
    private static final Server SERVER = Server.shared();
    private final Server server = SERVER;
    private final Review review = new Review(server);

    @BeforeAll
    static void anotherChecker() {
        SERVER.add("jens", "Jens Møller", "checker");
    }

    @Test
    void whenEverybodyAbstainedTheSenderIsToldAndAsksAgain() {
        Server own = Server.with();
        try {
            Review there = new Review(own);
            long item = there.drawing(own.shelf(), "nobody left.dxf");
            long round = there.send("priya", item);
            there.answer("hedda", round, Decision.ABSTAINED, "");
            long hedda = own.actor("hedda").person();
            assertThat(own.bean(NoticeStore.class).open(own.actor("priya").person(), 10))
                    .anyMatch(n -> n.says().contains("Nobody is left who could sign"));
            Web priya = Web.as(own, "priya");
            String page = priya.get("/rounds/" + round).body();
            assertThat(page).contains("Nobody is left who could answer").contains("Ask somebody else");
            long ask = there.store().round(round).orElseThrow().asks().get(0).id();
            String due = LocalDate.now(ZoneOffset.UTC).plusDays(9).toString();
            assertThat(Web.as(own, "tomasz")
                            .post(
                                    "/rounds/" + round + "/asks/" + ask,
                                    Map.of("actKey", Server.key(), "person", "" + hedda, "due", due))
                            .statusCode())
                    .isEqualTo(403);
            priya.post(
                    "/rounds/" + round + "/asks/" + ask,
                    Map.of("actKey", Server.key(), "person", "" + hedda, "due", due));
            assertThat(there.store().round(round).orElseThrow().asks().get(0).due())
                    .hasToString(due);
            there.sign("hedda", round);
            there.sign("oluwaseun", round);
            assertThat(own.document(item).released()).isPresent();
        } finally {
            own.stop();
        }
    }

    @Test
    void takingBackTellsEverybodyWhoWasAsked() {
        long item = review.drawing(server.shelf(), "taken back " + Server.key() + ".dxf");
        long round = review.send("priya", item);
        server.bean(MoveDocument.class).move(server.actor("priya"), item, Server.key(), "take-back", 2, "wrong sheet");
        assertThat(server.bean(NoticeStore.class).open(server.actor("hedda").person(), 10))
                .anyMatch(n -> n.says().contains("took " + server.document(item).number() + " back"));
        assertThat(Web.as(server, "hedda").get("/rounds/" + round).body()).contains("taken back");
    }

    @Test
    void afterAReturnThePageSaysWhyAndTheSamePeopleAreOffered() {
        long item = review.drawing(server.shelf(), "returned " + Server.key() + ".dxf");
        long jens = server.actor("jens").person();
        String to = server.bean(SendToReview.class)
                .send(server.actor("priya"), List.of(item), Server.key(), "", Map.of(0, jens), Map.of());
        long round = Long.parseLong(to.substring("/rounds/".length()));
        review.answer("jens", round, Decision.RETURNED, "the seat is 0.2 too deep");
        Web priya = Web.as(server, "priya");
        assertThat(priya.get("/documents/" + item).body())
                .contains("Jens Møller returned it")
                .contains("the seat is 0.2 too deep")
                .contains("/rounds/" + round)
                // Nothing new to send yet: it is corrected first.
                .contains("data-key=\"o\"")
                .doesNotContain("data-key=\"r\"");
        assertThat(priya.get("/send-to-review?items=" + item).body())
                .containsPattern("value=\"" + jens + "\"[^>]*selected");
        long shelf = server.document(item).place().shelf();
        assertThat(priya.get("/shelves/" + shelf).body()).contains("· returned");
        assertThat(Web.as(server, "rafael").get("/shelves/" + shelf).body()).doesNotContain("returned");
        server.bean(CheckOut.class).take(server.actor("priya"), List.of(item), List.of(), Server.key(), "", "");
        server.checkIn("priya", item, Review.sheet("seat mended " + Server.key()), false);
        long second = review.send("priya", item);
        String body = Web.as(server, "jens").get("/rounds/" + second).body();
        assertThat(body).contains("You returned version 2", "the seat is 0.2 too deep", "since your return (v2)");
        assertThat(body).contains("to version 2");
        assertThat(Web.as(server, "hedda").get("/rounds/" + second).body()).contains("since the return (v2)");
        assertThat(Web.as(server, "jens")
                        .get("/rounds/" + second + "?since=release")
                        .statusCode())
                .isEqualTo(200);
        assertThat(priya.get("/shelves/" + shelf).body()).doesNotContain("· returned");
        server.bean(MoveDocument.class)
                .move(server.actor("priya"), item, Server.key(), "take-back", 3, "to be sent anew");
        // Once it is signed the return is history.
        review.release(item);
        assertThat(priya.get("/documents/" + item).body()).doesNotContain("returned it");
    }

    @Test
    void aRoundSaysSinceWhichRevisionAlsoWhenItsOwnIsOut() {
        long item = review.drawing(server.shelf(), "since " + Server.key() + ".dxf");
        review.release(item);
        server.bean(StartRevisions.class).start(server.actor("priya"), List.of(item), Server.key(), "deeper", "", true);
        server.checkIn("priya", item, Review.sheet("deeper " + Server.key()), false);
        review.answer("jens", review.send("priya", item), Decision.RETURNED, "too deep");
        server.bean(CheckOut.class).take(server.actor("priya"), List.of(item), List.of(), Server.key(), "", "");
        server.checkIn("priya", item, Review.sheet("less deep " + Server.key()), false);
        long round = review.send("priya", item);
        Web priya = Web.as(server, "priya");
        assertThat(priya.get("/rounds/" + round).body()).contains("since A (v");
        review.sign("hedda", round);
        review.sign("oluwaseun", round);
        assertThat(priya.get("/rounds/" + round).body()).contains("since A (v").doesNotContain("since B (v");
    }

    @Test
    void whoSeesOnlyWhatIsReleasedFindsNoRoundAndNoPictureOfIt() {
        long item = review.drawing(server.shelf(), "hidden.dxf");
        long round = review.send("priya", item);
        assertThatThrownBy(() -> server.bean(ReadRounds.class).round(server.actor("rafael"), round))
                .isInstanceOf(NotThere.class);
        Web reader = Web.as(server, "rafael");
        for (String address : List.of(
                "/rounds/" + round,
                "/documents/" + item,
                "/documents/" + item + "/versions/2/thumbnail",
                "/documents/" + item + "/versions/2/pdf",
                "/documents/" + item + "/versions/2/sheet",
                "/documents/" + item + "/versions/2/file")) {
            assertThat(reader.get(address).statusCode()).as(address).isEqualTo(404);
        }
    }

    @Test
    void whoChangedAFactWorkedOnItAndDoesNotSign() {
        long item = review.drawing(server.shelf(), "own facts " + Server.key() + ".dxf");
        // Ines may change and sign alike; after changing the material she is no second pair of eyes.
        long round = review.send("priya", item);
        server.bean(KeepFacts.class)
                .keep(
                        server.actor("ines"),
                        item,
                        Server.key(),
                        server.document(item).title(),
                        Map.of("material", "1.4462"),
                        Map.of("material", "316L"));
        assertThat(server.bean(ReadRounds.class)
                        .round(server.actor("ines"), round)
                        .authors())
                .contains(server.actor("ines").person());
        server.bean(KeepFacts.class)
                .keep(server.actor("ines"), item, Server.key(), "Another title", Map.of(), Map.of());
        assertThat(server.bean(RevisionStore.class)
                        .authors(server.document(item).pending().orElseThrow().id()))
                .contains(server.actor("ines").person());
    }
}
