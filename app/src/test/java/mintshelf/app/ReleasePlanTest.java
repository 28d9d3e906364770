package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.use.hold.CheckOut;
import mintshelf.app.use.release.ReadReleasePlan;
import mintshelf.app.use.release.ReleasePlan;
import mintshelf.app.use.release.ReleasePlan.Verdict;
import mintshelf.app.use.release.ReleaseTogether;
import mintshelf.app.use.today.ReadToday;
import org.junit.jupiter.api.Test;

/** Releasing whole structures: what goes along, what is in the way, whole or not at all. */
class ReleasePlanTest {
    private final Server server = Server.shared();
    private final Review review = new Review(server);
    private final long shelf = server.shelf();
    private final ReadReleasePlan plans = server.bean(ReadReleasePlan.class);
    private final ReleaseTogether together = server.bean(ReleaseTogether.class);

    private long part(String name) {
        String own = name + " " + Server.key() + ".txt";
        return server.file("priya", shelf, Server.PLAIN, own, own.getBytes(StandardCharsets.UTF_8), false);
    }

    private long over(long... components) {
        long item = part("assembly");
        for (long c : components) server.refer(server.document(item).head().version(), c, "part " + c + ".txt");
        return item;
    }

    private ReleasePlan plan(long item) {
        return plans.plan(server.actor("priya"), List.of(item));
    }

    private List<Long> order(ReleasePlan plan) {
        return plan.lines().stream().map(ReleasePlan.Line::item).toList();
    }

    private boolean released(long item) {
        return server.document(item).released().isPresent();
    }

    private Optional<Integer> release(String login, long item, String seen) {
        return together.release(server.actor(login), List.of(item), Server.key(), seen, "");
    }

    @Test
    void componentsGoAlongFirstAndAllIsReleasedTogether() {
        long done = server.released(shelf, "done " + Server.key() + ".txt");
        long deep = part("deep");
        long middle = over(deep, done);
        long top = over(middle);
        ReleasePlan plan = plan(top);
        assertThat(order(plan)).containsExactly(deep, middle, top);
        assertThat(plan.enough()).extracting(s -> s.spine().id()).containsExactly(done);
        assertThat(plan.sentence()).isEqualTo("3 move together");
        assertThat(plan.opens()).isTrue();
        Web priya = Web.as(server, "priya");
        assertThat(priya.get("/release-plan?items=" + top).body())
                .contains("Release these 3 together", "Fine already", "3 move together");
        Map<String, String> form = Map.of("actKey", Server.key(), "items", "" + top, "seen", plan.digest());
        priya.post("/release-plan", form);
        assertThat(List.of(deep, middle, top)).allMatch(this::released);
        // The same form twice does it once.
        assertThat(priya.post("/release-plan", form).statusCode()).isEqualTo(302);
        assertThat(plan(top).sentence()).isEqualTo("Nothing is left to release");
        assertThat(priya.get("/release-plan?items=" + top + "&released=3").body())
                .contains("3 documents are released.");
    }

    @Test
    void whatStaysIsShownByItsNumberAtEachLook() {
        long[] done = new long[12];
        for (int i = 0; i < done.length; i++)
            done[(i * 5) % 12] = server.released(shelf, "done " + Server.key() + ".txt");
        assertThat(plan(over(done)).enough())
                .hasSize(12)
                .extracting(s -> s.document().number())
                .isSorted();
    }

    @Test
    void whatIsHeldIsInTheWayAndItsHolderIsAsked() {
        long held = part("held");
        server.checkOut("tomasz", held);
        long top = over(held, part("free"));
        ReleasePlan plan = plan(top);
        assertThat(plan.opens()).isFalse();
        assertThat(plan.sentence()).isEqualTo("3 move together, 1 is in the way");
        assertThat(plan.blocks()).singleElement().satisfies(b -> {
            assertThat(b.code()).isEqualTo("gate.held");
            assertThat(b.items()).containsExactly(held);
        });
        Web priya = Web.as(server, "priya");
        assertThat(priya.get("/release-plan?items=" + top).body())
                .contains("Ask for 1", "Why can this not be released?", "held by Tomasz");
        priya.post("/release-plan/ask", Map.of("actKey", Server.key(), "items", "" + top, "held", "" + held));
        assertThat(server.bean(ReadToday.class).today(server.actor("tomasz")).notices())
                .anyMatch(n ->
                        n.says().contains("asks for " + server.document(held).number()));
        assertThat(Web.as(server, "ines").get("/documents/" + held + "/record").body())
                .contains("asked Tomasz Okrent for it");
        assertThat(release("priya", top, plan.digest())).isEmpty();
        assertThat(released(top)).isFalse();
        // Who is no holder of any of it is not asked, whatever a form says.
        assertThat(together.ask(server.actor("priya"), List.of(top), List.of(top), Server.key()))
                .isZero();
    }

    @Test
    void anotherWorldIsAnsweredWithItsPlan() {
        long part = part("moving");
        long top = over(part);
        String seen = plan(top).digest();
        server.checkOut("priya", part);
        server.checkIn("priya", part, "changed " + Server.key(), false);
        assertThat(release("priya", top, seen)).isEmpty();
        assertThat(released(part)).isFalse();
        String answer = Web.as(server, "priya")
                .post("/release-plan", Map.of("actKey", Server.key(), "items", "" + top, "seen", seen))
                .headers()
                .firstValue("Location")
                .orElse("");
        assertThat(answer).contains("moved");
        assertThat(release("priya", top, plan(top).digest())).contains(2);
        assertThat(released(part)).isTrue();
    }

    @Test
    void whatIsSignedGoesToItsSignersFirst() {
        long drawing = review.drawing(shelf, "signed " + Server.key() + ".dxf");
        long top = over(drawing);
        ReleasePlan plan = plan(top);
        assertThat(plan.of(Verdict.SEND)).extracting(ReleasePlan.Line::item).containsExactly(drawing);
        assertThat(Web.as(server, "priya").get("/release-plan?items=" + top).body())
                .contains("Send it to review…", "/send-to-review?items=" + drawing);
        long round = review.send("priya", drawing);
        ReleasePlan waits = plan(top);
        assertThat(waits.of(Verdict.WAITS)).hasSize(1);
        assertThat(waits.rounds()).extracting(v -> v.round().id()).containsExactly(round);
        assertThat(Web.as(server, "priya").get("/release-plan?items=" + top).body())
                .contains("Being signed", "/rounds/" + round);
        review.sign("hedda", round);
        review.sign("oluwaseun", round);
        assertThat(order(plan(top))).containsExactly(top);
        assertThat(plan(top).opens()).isTrue();
    }

    /** An assembly that is signed waits for its parts; they do not wait for it. */
    @Test
    void whatIsSentOffersWhatItsReleaseTakesBesides() {
        long part = review.drawing(shelf, "part " + Server.key() + ".dxf");
        long top = review.drawing(shelf, "over it " + Server.key() + ".dxf");
        server.refer(server.document(top).head().version(), part, "part " + part + ".dxf");
        Web priya = Web.as(server, "priya");
        assertThat(priya.get("/send-to-review?items=" + top).body())
                .contains("With 1 document more that the release takes", "items=" + top + "," + part);
        assertThat(priya.get("/send-to-review?items=" + top + "," + part).body())
                .contains("Send 2 documents to review")
                .doesNotContain("more that the release takes");
    }

    @Test
    void whatNeedsNothingMoreGoesFirst() {
        long part = part("first");
        long top = review.drawing(shelf, "top " + Server.key() + ".dxf");
        server.refer(server.document(top).head().version(), part, "first.txt");
        ReleasePlan plan = plan(top);
        assertThat(plan.opens()).isFalse();
        assertThat(plan.first()).extracting(ReleasePlan.Line::item).containsExactly(part);
        assertThat(Web.as(server, "priya").get("/release-plan?items=" + top).body())
                .contains("Release it first…", "/release-plan?items=" + part);
        assertThat(release("priya", part, plan(part).digest())).contains(1);
        long round = review.send("priya", top);
        review.sign("hedda", round);
        review.sign("oluwaseun", round);
        assertThat(released(top)).isTrue();
    }

    @Test
    void whoMayNotReleaseOrNotSeeLearnsSo() {
        long top = over(part("one"));
        assertThatThrownBy(() -> plans.plan(server.actor("rafael"), List.of(top)))
                .isInstanceOf(NotThere.class);
        ReleasePlan hedda = plans.plan(server.actor("hedda"), List.of(top));
        assertThat(hedda.opens()).isFalse();
        assertThat(hedda.blocks()).anyMatch(b -> b.code().startsWith("access."));
        assertThat(release("hedda", top, hedda.digest())).isEmpty();
        assertThat(released(top)).isFalse();
    }

    /** A component that is taken at the same moment: either it was released before, or nothing is. */
    @Test
    void aReleaseAndACheckOutAtOnceHaveOneOutcome() throws Exception {
        for (int i = 0; i < 12; i++) {
            long part = part("raced");
            long top = over(part);
            String seen = plan(top).digest();
            CountDownLatch start = new CountDownLatch(1);
            List<Throwable> failed = new ArrayList<>();
            List<Thread> threads = new ArrayList<>();
            for (Runnable act : List.<Runnable>of(
                    () -> release("priya", top, seen),
                    () -> server.bean(CheckOut.class)
                            .take(server.actor("tomasz"), List.of(part), Server.key(), "", ""))) {
                Thread thread = new Thread(() -> {
                    try {
                        start.await();
                        act.run();
                    } catch (Refused e) {
                        // one of the two
                    } catch (Throwable e) {
                        synchronized (failed) {
                            failed.add(e);
                        }
                    }
                });
                thread.start();
                threads.add(thread);
            }
            start.countDown();
            for (Thread thread : threads) thread.join();
            assertThat(failed).isEmpty();
            boolean held = server.document(part).holder().isPresent();
            assertThat(released(top)).as("all or none").isEqualTo(released(part));
            assertThat(released(part) && held && server.document(part).pending().isEmpty())
                    .as("held and in force at once")
                    .isFalse();
        }
    }
}
