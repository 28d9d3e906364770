package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.icegreen.greenmail.util.GreenMailUtil;
import jakarta.mail.internet.MimeMessage;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.notice.NoticeStore;
import mintshelf.app.use.person.SetAway;
import mintshelf.app.use.round.ReadRounds;
import mintshelf.app.use.round.RemindRounds;
import mintshelf.app.use.round.SendToReview;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.titleblock.SheetMap;
import mintshelf.core.signoff.WorkingDays;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** Who is away has a deputy who signs for them; what is late is said again, once each, and raised. Two nodes on one house. */
class AwayAndLateTest {
    private static Server server;
    private static Server other;
    private final Review review = new Review(server);
    private final String mark = Server.key().substring(0, 6);
    private final RemindRounds remind = server.bean(RemindRounds.class);
    private final LocalDate today = LocalDate.now(ZoneId.of("UTC"));

    @BeforeAll
    static void twoNodes() {
        server = Server.with();
        other = Server.on(server.schema());
    }

    @AfterAll
    static void end() {
        other.stop();
        server.stop();
    }

    private long person(String login) {
        return server.actor(login).person();
    }

    private void away(String login, int from, int until, String deputy) {
        server.bean(SetAway.class)
                .away(
                        server.actor(login),
                        Server.key(),
                        person(login),
                        today.plusDays(from),
                        today.plusDays(until),
                        deputy.isEmpty() ? Optional.empty() : Optional.of(person(deputy)));
    }

    private void back(String login) {
        server.bean(SetAway.class).back(server.actor(login), Server.key(), person(login));
    }

    /** Sent with both lines named: Hedda checks, Oluwaseun approves. */
    private long sent(String named, long item) {
        String to = server.bean(SendToReview.class)
                .send(
                        server.actor("priya"),
                        List.of(item),
                        Server.key(),
                        named + " " + mark,
                        Map.of(0, person("hedda"), 1, person("oluwaseun")),
                        Map.of());
        return Long.parseLong(to.substring("/rounds/".length()));
    }

    /** Mails about a document of this name, whoever of the two nodes sends them. */
    private List<String> mails(String named) throws Exception {
        CompletableFuture.allOf(CompletableFuture.runAsync(server::post), CompletableFuture.runAsync(other::post))
                .join();
        List<String> all = new ArrayList<>();
        for (MimeMessage m : Server.mail().getReceivedMessages()) {
            // Bodies are folded wherever a line is full.
            if (!GreenMailUtil.getBody(m).replace("=\r\n", "").contains(named + " " + mark)) continue;
            String to = m.getAllRecipients()[0].toString();
            all.add(to.substring(0, to.indexOf('@')) + ": " + m.getSubject());
        }
        return all;
    }

    @Test
    void aDeputySignsForWhoIsAwayAndTheSheetAndTheTrailSaySo() throws Exception {
        String carmen = "carmen" + mark;
        server.add(carmen, "Carmen Uribe", "checker");
        long item = review.drawing(server.shelf(), "deputy " + mark + ".dxf");
        long round = sent("Deputy", item);
        assertThat(server.bean(ReadRounds.class).inTray(server.actor(carmen))).isEmpty();
        away("hedda", 0, 3, carmen);
        assertThat(server.bean(NoticeStore.class).open(person(carmen), 5))
                .anyMatch(n -> n.says().contains("you stand in"));
        Web web = Web.as(server, carmen);
        assertThat(web.get("/in-tray").body()).contains("for Hedda Lysgaard?");
        assertThat(web.get("/rounds/" + round).body())
                .contains("You sign it as checked, for Hedda Lysgaard", "Carmen Uribe stands in");
        review.sign(carmen, round);
        review.sign("oluwaseun", round);
        assertThat(server.document(item).released()).isPresent();
        assertThat(Web.as(server, "priya").get("/rounds/" + round).body()).contains("Carmen Uribe for Hedda Lysgaard");
        assertThat(Web.as(server, "ines").get("/documents/" + item + "/record").body())
                .contains("as checked, for Hedda Lysgaard");
        var sheet = ((Outcome.Granted<DxfDrawing>) DxfDrawing.read(server.bytes(item))).value();
        assertThat(SheetMap.readyMade().read(sheet)).containsEntry("checked_by", "Carmen Uribe for Hedda Lysgaard");
        long again = sent("Deputy", review.drawing(server.shelf(), "again " + mark + ".dxf"));
        assertThat(mails("Deputy"))
                .as("who stands in is mailed the question too")
                .anyMatch(m -> m.startsWith(carmen) && m.contains(" for Hedda Lysgaard as checked"));
        back("hedda");
        assertThat(server.bean(ReadRounds.class).inTray(server.actor(carmen)))
                .as("there again: nothing is asked of the deputy")
                .noneMatch(w -> w.view().round().id() == again);
    }

    @Test
    void aQuestionThatIsLateIsRemindedRaisedAndSignedWithOneMailEachFromTwoNodes() throws Exception {
        long item = review.drawing(server.shelf(), "late " + mark + ".dxf");
        long round = sent("Late", item);
        String number = server.document(item).number();
        LocalDate due = review.store().round(round).orElseThrow().asks().get(0).due();
        int before = mails("Late").size();
        both(due.minusDays(40));
        assertThat(mails("Late")).as("not yet").hasSize(before);
        both(WorkingDays.USUAL.due(due, 1));
        both(WorkingDays.USUAL.due(due, 1));
        // Mails are counted by what they say: a mail server keeps them by receiver, not in the order in which they
        // came.
        String again = "hedda: It still waits: will you sign " + number;
        assertThat(mails("Late"))
                .hasSize(before + 1)
                .filteredOn(m -> m.startsWith(again))
                .hasSize(1);
        both(WorkingDays.USUAL.due(due, 2));
        both(WorkingDays.USUAL.due(due, 5));
        List<String> raised = mails("Late");
        assertThat(raised).filteredOn(m -> m.startsWith(again)).hasSize(2);
        assertThat(raised)
                .filteredOn(m -> m.startsWith("priya: ") && m.contains("waits to be signed as checked"))
                .hasSize(1);
        assertThat(raised).filteredOn(m -> m.startsWith("ines: ")).hasSize(1);
        assertThat(raised).hasSize(before + 4);
        assertThat(server.bean(NoticeStore.class).open(person("ines"), 20))
                .filteredOn(n -> n.says().startsWith(number))
                .hasSize(1);
        review.sign("hedda", round);
        both(WorkingDays.USUAL.due(due, 6));
        assertThat(mails("Late"))
                .filteredOn(m -> m.startsWith("hedda"))
                .as("who signed is left alone")
                .hasSize(3);
    }

    /** Both nodes look at the calendar at the same moment. */
    private void both(LocalDate day) throws Exception {
        ExecutorService two = Executors.newFixedThreadPool(2);
        Future<?> one = two.submit(() -> remind.remindToday(day));
        Future<?> more = two.submit(() -> other.bean(RemindRounds.class).remindToday(day));
        one.get();
        more.get();
        two.shutdown();
    }

    @Test
    void whoKeepsOrderSeesOpenRoundsAndRemindsOnceADay() throws Exception {
        long item = review.drawing(server.shelf(), "open " + mark + ".dxf");
        long round = sent("Open", item);
        server.db().execute("update ask set due = ? where round = ?", today.minusDays(9), round);
        Web ines = Web.as(server, "ines");
        String page = ines.get("/open-rounds").body();
        assertThat(page)
                .contains("Open rounds", "Overdue", server.document(item).number(), "waits for Hedda Lysgaard")
                .contains("days over");
        assertThat(ines.get("/open-rounds?only=overdue").body())
                .contains(server.document(item).number());
        int before = mails("Open").size();
        assertThat(ines.post("/open-rounds", Map.of("actKey", Server.key(), "round", "" + round))
                        .headers()
                        .firstValue("Location")
                        .orElseThrow())
                .endsWith("?reminded=1");
        assertThat(ines.post("/open-rounds", Map.of("actKey", Server.key(), "round", "" + round))
                        .headers()
                        .firstValue("Location")
                        .orElseThrow())
                .endsWith("?reminded=0&before=1");
        assertThat(mails("Open")).hasSize(before + 1);
        assertThat(ines.get("/open-rounds").body()).contains("reminded", "by Ines Kallmar");
        assertThat(ines.get("/in-tray").body()).contains("/open-rounds");
        for (String login : List.of("priya", "hedda", "rafael")) {
            Web web = Web.as(server, login);
            assertThat(web.get("/open-rounds").statusCode()).as(login).isEqualTo(404);
            assertThat(web.post("/open-rounds", Map.of("actKey", Server.key(), "round", "" + round))
                            .statusCode())
                    .isEqualTo(404);
            assertThat(web.get("/in-tray").body()).doesNotContain("/open-rounds");
        }
        review.sign("hedda", round);
        review.sign("oluwaseun", round);
        assertThat(ines.get("/open-rounds").body()).doesNotContain("/rounds/" + round + "\"");
    }

    @Test
    void oneSaysOneselfWhenOneIsAwayAndACircleIsRefused() {
        Web hedda = Web.as(server, "hedda");
        String card = "/people/" + person("hedda");
        assertThat(hedda.get(card).body()).contains("I am away from");
        Map<String, String> form = Map.of(
                "actKey", Server.key(),
                "from", today.plusDays(20).toString(),
                "until", today.plusDays(30).toString(),
                "standsin", "" + person("oluwaseun"));
        assertThat(hedda.post(card + "/away", form).statusCode()).isEqualTo(302);
        assertThat(hedda.get(card).body()).contains("Oluwaseun Adebari", "I am there again");
        assertThat(code(() -> away("oluwaseun", 25, 26, "hedda"))).isEqualTo("away.deputy");
        assertThat(code(() -> away("oluwaseun", 31, 32, "hedda"))).isEmpty();
        assertThat(code(() -> away("oluwaseun", 5, 2, ""))).isEqualTo("away.days");
        assertThat(Web.as(server, "priya").post(card + "/away", form).statusCode())
                .isEqualTo(403);
        assertThat(Web.as(server, "ines").get(card).body()).contains("Hedda Lysgaard is away from");
        back("hedda");
        back("oluwaseun");
        assertThat(hedda.get(card).body()).doesNotContain("I am there again");
    }

    private static String code(Runnable act) {
        try {
            act.run();
            return "";
        } catch (Refused e) {
            return e.refusal().code();
        }
    }
}
