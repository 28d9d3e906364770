package mintshelf.app;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import mintshelf.app.effect.Asking;
import mintshelf.app.effect.Habits;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.round.SendToReview;
import mintshelf.core.Dxf;
import mintshelf.core.signoff.Ask;
import org.junit.jupiter.api.Test;

/** What a sender may change on the page before it goes, and what the pages on the way there say. */
class SendTest {
    private final Server server = Server.shared();
    private final Review review = new Review(server);
    private final long shelf = server.shelf();

    private String checker() {
        String login = "c" + Server.key().substring(0, 8);
        server.add(login, "Person " + login, "checker");
        return login;
    }

    private long send(long item, Asking.Wishes wishes) {
        String to = server.bean(SendToReview.class)
                .send(server.actor("priya"), List.of(item), Server.key(), "", wishes, Map.of());
        return Long.parseLong(to.substring("/rounds/".length()));
    }

    private String refused(long item, Asking.Wishes wishes) {
        return catchThrowableOfType(Refused.class, () -> send(item, wishes))
                .refusal()
                .code();
    }

    @Test
    void anotherDayAndOneMoreSignerAreTheSendersToSay() {
        long item = review.drawing(shelf, "two checkers " + Server.key() + ".dxf");
        long hedda = server.actor("hedda").person();
        String second = checker();
        long other = server.actor(second).person();
        LocalDate day = LocalDate.now(ZoneId.of("UTC")).plusDays(40);
        long round = send(item, new Asking.Wishes(Map.of(0, hedda), Map.of(0, other), Map.of(0, day)));
        List<Ask> asks = review.store().round(round).orElseThrow().asks();
        assertThat(asks).filteredOn(a -> a.due().equals(day)).hasSize(2);
        review.sign("hedda", round);
        assertThat(review.store().round(round).orElseThrow().openStep())
                .as("the second checker is waited for")
                .contains(1);
        review.sign(second, round);
        assertThat(review.store().round(round).orElseThrow().openStep()).contains(2);
    }

    @Test
    void onePersonSignsOnceAndNoDayIsOver() {
        long item = review.drawing(shelf, "wishes " + Server.key() + ".dxf");
        long hedda = server.actor("hedda").person();
        assertThat(refused(item, new Asking.Wishes(Map.of(0, hedda), Map.of(0, hedda), Map.of())))
                .isEqualTo("round.twice");
        assertThat(refused(item, new Asking.Wishes(Map.of(), Map.of(), Map.of(0, LocalDate.of(2020, 1, 1)))))
                .isEqualTo("round.due");
        assertThat(refused(
                        item,
                        new Asking.Wishes(
                                Map.of(), Map.of(0, server.actor("rafael").person()), Map.of())))
                .isEqualTo("round.person");
        Web priya = Web.as(server, "priya");
        assertThat(priya.post("/send-to-review", Map.of("items", "" + item, "actKey", Server.key(), "due.0", "soon"))
                        .body())
                .contains("“soon” is no day");
        assertThat(server.document(item).head().number()).isEqualTo(2);
    }

    @Test
    void theSendPlanAndTheMoveSayThatNothingWillBeWrittenIntoTheSheet() {
        byte[] line = Dxf.of(
                "\n",
                StandardCharsets.UTF_8,
                "0 SECTION",
                "2 ENTITIES",
                "0 LINE",
                "8 0",
                "10 1",
                "11 9",
                "0 ENDSEC",
                "0 EOF");
        long bare = server.file("priya", shelf, "drawing", "bare " + Server.key() + ".dxf", line, false);
        server.bean(KeepFacts.class)
                .keep(server.actor("priya"), bare, Server.key(), "Bare", Map.of("material", "316L"), Map.of());
        Web priya = Web.as(server, "priya");
        assertThat(priya.get("/send-to-review?items=" + bare).body())
                .contains("will write nothing into its sheet: No sheet map has a place on it.");
        long drawing = review.drawing(shelf, "mapless " + Server.key() + ".dxf");
        assertThat(priya.get("/send-to-review?items=" + drawing).body())
                .contains("And also")
                .doesNotContain("will write nothing");
    }

    @Test
    void afterACheckInThePageWithTheSignersComesUnlessOnesHabitIsAnother() {
        Habits habits = server.bean(Habits.class);
        assertThat(habits.sendsStraight(server.actor("priya"))).isFalse();
        Web priya = Web.as(server, "priya");
        assertThat(priya.post("/habits/straight", Map.of("straight", "yes")).statusCode())
                .isEqualTo(302);
        assertThat(habits.sendsStraight(server.actor("priya"))).isTrue();
        assertThat(priya.get("/habits").body()).contains("goes straight to those whom the rule asks");
        priya.post("/habits/forget", Map.of());
        assertThat(habits.sendsStraight(server.actor("priya"))).isFalse();
    }

    @Test
    void plansThatWereTakenThreeTimesAsProposedMayPassUnseen() {
        String login = "q" + Server.key().substring(0, 8);
        server.add(login, "Person " + login, "designer");
        Habits habits = server.bean(Habits.class);
        for (int i = 0; i < 3; i++) {
            assertThat(habits.couldBeQuiet(server.actor(login), "check-out")).isFalse();
            habits.tookAsProposed(server.actor(login), "check-out");
        }
        assertThat(habits.couldBeQuiet(server.actor(login), "check-out")).isTrue();
        habits.choseQuiet(server.actor(login), "check-out", false);
        assertThat(habits.couldBeQuiet(server.actor(login), "check-out"))
                .as("asked once")
                .isFalse();
    }

    @Test
    void whoTriesWhatTheirRolesDoNotLetThemIsInTheRecordOnce() {
        // Somebody of their own: what others tried in other tests is in the record already, and said once.
        String nosy = "nosy" + Server.key().substring(0, 8);
        server.add(nosy, "Nosy Reader", "reader");
        Web reader = Web.as(server, nosy);
        for (int i = 0; i < 3; i++) reader.post("/shelves", Map.of("name", "mine " + i));
        String record = Web.as(server, "ines").get("/record?acts=access.").body();
        assertThat(record).contains("was refused POST /shelves");
        assertThat(record.split("was refused POST /shelves(?!/)", -1)).hasSize(2);
    }

    @Test
    void whoKeepsAShelfSaysWhetherReadersAreToldOfRevisions() {
        Web ines = Web.as(server, "ines");
        assertThat(ines.get("/shelves/" + shelf).body()).contains("Keep it from them");
        assertThat(Web.as(server, "priya")
                        .post("/shelves/" + shelf + "/being-revised", Map.of("hide", "true"))
                        .body())
                .contains("Only who keeps a shelf");
        ines.post("/shelves/" + shelf + "/being-revised", Map.of("hide", "true"));
        assertThat(ines.get("/shelves/" + shelf).body()).contains("Readers are not told");
        ines.post("/shelves/" + shelf + "/being-revised", Map.of("hide", "false"));
        assertThat(ines.get("/shelves/" + shelf).body()).contains("Keep it from them");
    }

    @Test
    void whoKeepsTheHouseSaysSoOfAKind() {
        Kind kind = server.bean(HouseStore.class).kind("report");
        Web ines = Web.as(server, "ines");
        String page = "/check-rules/report";
        assertThat(ines.get(page).body()).contains("beside a report that is about to be replaced");
        assertThat(Web.as(server, "priya")
                        .post(page + "/being-revised", Map.of("hide", "true", "actKey", Server.key()))
                        .statusCode())
                .isEqualTo(403);
        ines.post(page + "/being-revised", Map.of("hide", "true", "actKey", Server.key()));
        assertThat(server.bean(HouseStore.class).hidesRevising(kind.id())).isTrue();
        assertThat(ines.get(page).body()).contains("Readers are not told when a report is being revised.");
        long item = server.file("priya", shelf, "report", "r " + Server.key() + ".txt", "one".getBytes(UTF_8), false);
        server.release("priya", item);
        server.bean(StartRevisions.class).start(server.actor("priya"), List.of(item), Server.key(), "more", "", false);
        Web rafael = Web.as(server, "rafael");
        assertThat(rafael.get("/documents/" + item).body()).doesNotContain("being revised");
        ines.post(page + "/being-revised", Map.of("hide", "false", "actKey", Server.key()));
        assertThat(rafael.get("/documents/" + item).body()).contains("being revised");
    }
}
