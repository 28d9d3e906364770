package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import mintshelf.app.effect.Asking;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.RoundSight.RoundLine;
import mintshelf.app.sight.RoundSight.RoundView;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.round.LayBeside;
import mintshelf.app.use.round.ReadRounds;
import mintshelf.app.use.round.SendToReview;
import mintshelf.app.use.round.SignRound;
import mintshelf.app.use.round.WalkRound;
import mintshelf.core.base.Refusal;
import mintshelf.core.signoff.Decision;
import mintshelf.core.signoff.Round;
import org.junit.jupiter.api.Test;

/** A round gone through sheet by sheet: signed one by one, the rest together; what lies beside; what was found as it was sent. */
class SheetBySheetTest {
    private final Server server = Server.shared();
    private final Review review = new Review(server);

    private List<Long> three() {
        List<Long> items = new ArrayList<>();
        for (int i = 0; i < 3; i++) {
            items.add(review.drawing(server.shelf(), "sheet " + i + " " + Server.key() + ".dxf"));
        }
        return items;
    }

    private long send(List<Long> items) {
        return review.send("priya", items.toArray(Long[]::new));
    }

    private RoundView view(String login, long round) {
        return server.bean(ReadRounds.class).round(server.actor(login), round);
    }

    private RoundLine line(RoundView view, long item) {
        return view.lines().stream()
                .filter(l -> l.item().item() == item)
                .findFirst()
                .orElseThrow();
    }

    private String one(String login, long round, long item, Decision decision, String remark) {
        String seen = line(view(login, round), item).item().digest().hex();
        return server.bean(SignRound.class)
                .answerOne(server.actor(login), round, item, Server.key(), seen, decision, remark, "");
    }

    private Round round(long id) {
        return review.store().round(id).orElseThrow();
    }

    private String number(long item) {
        return server.document(item).number();
    }

    private List<WalkRound.State> states(String login, long round, long shown) {
        RoundView view = view(login, round);
        return server.bean(WalkRound.class).walk(server.actor(login), view, line(view, shown)).rows().stream()
                .map(WalkRound.Row::state)
                .toList();
    }

    @Test
    void sheetsAreSignedOneByOneAndTheLastAnswersWhatWasAsked() {
        List<Long> items = three();
        long round = send(items);
        assertThat(one("hedda", round, items.get(1), Decision.SIGNED, ""))
                .as("those behind it come next")
                .isEqualTo("/rounds/" + round + "?document=" + items.get(2) + "&one=" + items.get(1));
        assertThat(round(round).signOffs()).isEmpty();
        assertThat(one("hedda", round, items.get(2), Decision.REMARKED, "Round the edge."))
                .as("then what was passed over")
                .contains("document=" + items.get(0));
        assertThat(one("hedda", round, items.get(0), Decision.SIGNED, "")).isEqualTo("/rounds/" + round + "?answered");
        assertThat(round(round).signOffs()).singleElement().satisfies(s -> {
            assertThat(s.decision()).isEqualTo(Decision.REMARKED);
            assertThat(s.remark()).isEqualTo("Round the edge.");
        });
        review.sign("oluwaseun", round);
        for (long item : items) assertThat(server.document(item).released()).isPresent();
    }

    @Test
    void theRestIsSignedTogetherAndNothingTwice() {
        List<Long> items = three();
        long round = send(items);
        one("hedda", round, items.get(0), Decision.SIGNED, "");
        assertThatThrownBy(() -> one("hedda", round, items.get(0), Decision.SIGNED, ""))
                .isInstanceOfSatisfying(
                        Refused.class, r -> assertThat(r.refusal().code()).isEqualTo("sign.one"));
        review.sign("hedda", round);
        assertThat(round(round).signOffs()).hasSize(1);
        assertThat(round(round).begun()).isEmpty();
        assertThatThrownBy(() -> one("hedda", round, items.get(1), Decision.SIGNED, ""))
                .isInstanceOf(Refused.class);
    }

    @Test
    void whoHasBegunMayReturnAllOfIt() {
        List<Long> items = three();
        long round = send(items);
        one("hedda", round, items.get(0), Decision.SIGNED, "");
        review.answer("hedda", round, Decision.RETURNED, "The third does not fit.");
        assertThat(round(round).state()).isEqualTo(Round.State.RETURNED);
        assertThat(round(round).returning().orElseThrow().remark()).isEqualTo("The third does not fit.");
        for (long item : items)
            assertThat(server.document(item).current().stage().code()).isEqualTo("preparation");
        // And the second round begins with nothing signed.
        server.checkOut("priya", items.get(2));
        server.checkIn("priya", items.get(2), Review.sheet("mended " + Server.key()), false);
        long again = send(items);
        assertThat(states("hedda", again, items.get(0)))
                .containsExactly(WalkRound.State.LOOKED, WalkRound.State.UNOPENED, WalkRound.State.UNOPENED);
    }

    @Test
    void oneCannotBeReturnedAloneNorWhatIsNotThere() {
        List<Long> items = three();
        long round = send(items);
        long other = review.drawing(server.shelf(), "other " + Server.key() + ".dxf");
        assertThatThrownBy(() -> one("hedda", round, items.get(0), Decision.RETURNED, "no"))
                .isInstanceOf(mintshelf.app.ground.NotThere.class);
        assertThatThrownBy(() -> server.bean(SignRound.class)
                        .answerOne(server.actor("hedda"), round, other, Server.key(), "", Decision.SIGNED, "", ""))
                .isInstanceOf(mintshelf.app.ground.NotThere.class);
        assertThatThrownBy(() -> one("priya", round, items.get(0), Decision.SIGNED, ""))
                .as("her own work")
                .isInstanceOf(Refused.class);
        assertThatThrownBy(() -> server.bean(SignRound.class)
                        .answerOne(
                                server.actor("hedda"),
                                round,
                                items.get(0),
                                Server.key(),
                                "00",
                                Decision.SIGNED,
                                "",
                                ""))
                .as("an old page")
                .isInstanceOf(Refused.class);
        assertThat(round(round).begun()).isEmpty();
    }

    @Test
    void aChangeLetsFallWhatWasBegunAndSaysSo() {
        List<Long> items = three();
        long round = send(items);
        one("hedda", round, items.get(0), Decision.SIGNED, "");
        assertThat(states("hedda", round, items.get(1)))
                .containsExactly(WalkRound.State.SIGNED, WalkRound.State.LOOKED, WalkRound.State.UNOPENED);
        server.bean(KeepFacts.class)
                .keep(
                        server.actor("ines"),
                        items.get(2),
                        Server.key(),
                        "Another title " + Server.key(),
                        Map.of(),
                        Map.of());
        assertThat(round(round).begun()).isEmpty();
        assertThat(Web.as(server, "hedda").get("/today").body())
                .contains("Your sign-off on " + number(items.get(2)) + " fell");
        assertThat(states("hedda", round, items.get(0))).doesNotContain(WalkRound.State.SIGNED);
    }

    @Test
    void theLastSheetAndTheRestAtOnceAreOneAnswer() throws Exception {
        for (int i = 0; i < 4; i++) {
            List<Long> items = three();
            long round = send(items);
            one("hedda", round, items.get(0), Decision.SIGNED, "");
            one("hedda", round, items.get(1), Decision.SIGNED, "");
            ExecutorService two = Executors.newFixedThreadPool(2);
            String digest = review.digest("hedda", round);
            String last =
                    line(view("hedda", round), items.get(2)).item().digest().hex();
            List<Callable<String>> both = List.of(
                    () -> server.bean(SignRound.class)
                            .answerOne(
                                    server.actor("hedda"),
                                    round,
                                    items.get(2),
                                    Server.key(),
                                    last,
                                    Decision.SIGNED,
                                    "",
                                    ""),
                    () -> server.bean(SignRound.class)
                            .answer(server.actor("hedda"), round, Server.key(), digest, Decision.SIGNED, ""));
            int refused = 0;
            for (Future<String> one : two.invokeAll(both)) {
                try {
                    one.get();
                } catch (java.util.concurrent.ExecutionException e) {
                    assertThat(e.getCause()).isInstanceOf(Refused.class);
                    refused++;
                }
            }
            two.shutdown();
            assertThat(refused).isEqualTo(1);
            assertThat(round(round).signOffs()).hasSize(1);
        }
    }

    @Test
    void thePageWalksTheSheetsAndSaysHowFarItIs() {
        List<Long> items = three();
        long round = send(items);
        Web hedda = Web.as(server, "hedda");
        String page =
                hedda.get("/rounds/" + round + "?document=" + items.get(1)).body();
        assertThat(page)
                .contains("2 of 3", "Sign this", "Sign all 3 together", "before you", "not opened", "The way")
                .contains("The rest: 2 not opened");
        one("hedda", round, items.get(1), Decision.SIGNED, "");
        page = hedda.get("/rounds/" + round + "?document=" + items.get(2) + "&one=" + items.get(1))
                .body();
        assertThat(page)
                .contains(
                        number(items.get(1)) + " is signed.", "2 sheets are left", "Hedda Lysgaard has signed 1 of 3");
        page = hedda.get("/rounds/" + round + "?document=" + items.get(1)).body();
        assertThat(page)
                .contains("You signed this sheet.", "Sign the rest together: 2")
                .doesNotContain("Sign this<");
        // Who sent it sees the walk and no buttons.
        assertThat(Web.as(server, "priya").get("/rounds/" + round).body())
                .contains("1 of 3", "has signed 1 of 3")
                .doesNotContain("Sign this", "not opened");
    }

    private static Asking.Wishes wishes(String typed) {
        return new Asking.Wishes(Map.of(), Map.of(), Map.of(), new Asking.Beside(typed, Map.of()));
    }

    @Test
    void papersLieBesideForThoseWhoSeeThem() {
        long sent = review.drawing(server.shelf(), "with papers " + Server.key() + ".dxf");
        long other = review.drawing(server.shelf(), "report " + Server.key() + ".dxf");
        String typed = number(other) + " v1, " + number(sent) + " v1 to v2";
        String to = server.bean(SendToReview.class)
                .send(server.actor("priya"), List.of(sent), Server.key(), "", wishes(typed), Map.of());
        String page = Web.as(server, "hedda").get(to).body();
        assertThat(page)
                .contains("To look at, not decided", number(other), "version 1 and version 2 compared")
                .contains("/documents/" + other + "?version=1", "/compare?old=1");
        List<LayBeside.Laid> laid = server.bean(WalkRound.class)
                .papers(server.actor("hedda"), view("hedda", Long.parseLong(to.substring("/rounds/".length()))));
        assertThat(laid).hasSize(2);
    }

    @Test
    void aPaperThatNobodyKnowsIsNamedAndNothingIsSent() {
        long sent = review.drawing(server.shelf(), "no papers " + Server.key() + ".dxf");
        for (String typed : List.of("NOT-THERE-1", number(sent), number(sent) + " v9", number(sent) + " v1 to v9")) {
            assertThatThrownBy(() -> server.bean(SendToReview.class)
                            .send(server.actor("priya"), List.of(sent), Server.key(), "", wishes(typed), Map.of()))
                    .as(typed)
                    .isInstanceOfSatisfying(Refused.class, r -> {
                        Refusal why = r.refusal();
                        assertThat(why.code()).isEqualTo("beside.unknown");
                        assertThat(why.remedy()).contains("nothing was sent");
                    });
        }
        assertThat(review.store().openRound(sent)).isEmpty();
    }

    @Test
    void whatISignedLastIsWhatIsHeldAgainst() {
        long item = review.drawing(server.shelf(), "again " + Server.key() + ".dxf");
        long first = review.send("priya", item);
        review.sign("hedda", first);
        review.answer("oluwaseun", first, Decision.RETURNED, "Thinner, please.");
        server.checkOut("priya", item);
        server.checkIn("priya", item, Review.sheet("thinner " + Server.key()), false);
        long second = review.send("priya", item);
        assertThat(Web.as(server, "hedda").get("/rounds/" + second).body())
                .as("what came back says more than that she signed it")
                .contains("since the return (v2)", "since the version before")
                .doesNotContain("since you signed");
        review.answer("hedda", second, Decision.RETURNED, "Too thin.");
        server.checkOut("priya", item);
        server.checkIn("priya", item, Review.sheet("not so thin " + Server.key()), false);
        long third = review.send("priya", item);
        assertThat(Web.as(server, "hedda").get("/rounds/" + third).body())
                .contains("since your return (v3)", "since you signed (v2)");
        assertThat(Web.as(server, "hedda")
                        .get("/rounds/" + third + "?since=signed")
                        .body())
                .contains("compare?old=2");
        assertThat(Web.as(server, "oluwaseun").get("/rounds/" + third).body()).doesNotContain("since you signed");
    }

    @Test
    void whatWasSignedBeforeWhatIsInForceComesBehindIt() {
        long item = review.drawing(server.shelf(), "twice " + Server.key() + ".dxf");
        review.release(item);
        server.bean(mintshelf.app.use.revision.StartRevisions.class)
                .start(server.actor("priya"), List.of(item), Server.key(), "thicker", "", true);
        server.checkIn("priya", item, Review.sheet("thicker " + Server.key()), false);
        long round = review.send("priya", item);
        String page = Web.as(server, "hedda").get("/rounds/" + round).body();
        assertThat(page).contains("to version 2").doesNotContain("since you signed");
    }

    @Test
    void whatIsReleasedSaysWhoSignedIt() {
        long item = review.drawing(server.shelf(), "signed " + Server.key() + ".dxf");
        review.release(item);
        String page = Web.as(server, "priya").get("/documents/" + item).body();
        assertThat(page).contains("Hedda Lysgaard</b> as checked", "the round");
        assertThat(Web.as(server, "rafael").get("/documents/" + item).body()).doesNotContain("the round</a>");
    }
}
