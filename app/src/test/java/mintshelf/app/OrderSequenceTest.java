package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import mintshelf.app.ground.Refused;
import mintshelf.app.use.change.EditOrder;
import mintshelf.app.use.change.KeepImpact;
import mintshelf.core.change.PaperLine;
import org.assertj.core.api.ThrowableAssert.ThrowingCallable;
import org.junit.jupiter.api.Test;

/** Open orders on one document go one after the other. */
class OrderSequenceTest {
    private final Server server = Server.shared();
    private final Orders orders = new Orders(server);
    private final long shelf = server.shelf();

    private String number(long item) {
        return server.document(item).number();
    }

    private static void refused(ThrowingCallable act, String... says) {
        assertThatThrownBy(act)
                .isInstanceOfSatisfying(
                        Refused.class, e -> assertThat(e.refusal().says()).contains(says));
    }

    private String paper(long order) {
        return new String(server.bytes(order), StandardCharsets.UTF_8);
    }

    @Test
    void theSecondOrderGoesAfterTheFirstOnlyWhereThatIsSaid() {
        long a = orders.released(shelf, "cone");
        long first = orders.ask("priya", a);
        refused(() -> orders.ask("tomasz", a), number(a) + " is on " + number(first) + " already.");
        long second = orders.askAfter("tomasz", first, a);
        assertThat(orders.line(second, a).turn()).isEqualTo(2);
        refused(() -> orders.askAfter("priya", first, a), number(a) + " is on " + number(second) + " already.");
        assertThat(orders.view("priya", second).lines().get(0).state().says()).isEqualTo("waits for another order");
        assertThat(Web.as(server, "priya").get("/orders/" + second).body()).contains("after", "/orders/" + first);
        assertThat(Web.as(server, "priya").get("/ask-for-change?items=" + a).body())
                .contains("it goes after " + number(first) + ", then " + number(second));
    }

    @Test
    void theSecondStartsFromWhatTheFirstReleases() {
        long a = orders.released(shelf, "ring");
        long first = orders.ask("priya", a);
        long second = orders.askAfter("tomasz", first, a);
        long third = orders.askAfter("priya", second, a);
        refused(() -> orders.start(second), number(a) + " goes after " + number(first) + ".");
        refused(() -> orders.start(third), number(first) + " and " + number(second));
        String page = Web.as(server, "priya")
                .get("/documents/" + a)
                .body()
                .replaceAll("<[^>]+>|\\s+", " ")
                .replaceAll(" +", " ");
        assertThat(page)
                .contains("Go on in " + number(first), "later by " + number(second), "next by " + number(first));
        orders.through(first);
        long b = server.document(a).released().orElseThrow().id();
        assertThat(orders.line(second, a).turn()).isEqualTo(1);
        assertThat(orders.line(second, a).fromRevision()).contains(b);
        assertThat(orders.line(third, a).turn()).isEqualTo(2);
        assertThat(paper(second)).contains("\"from\" : \"B\"");
        assertThat(orders.told("tomasz"))
                .anyMatch(s -> s.equals(
                        number(second) + " waits for no other order any more: " + number(first) + " is carried out"));
        assertThat(orders.told("priya")).noneMatch(s -> s.contains(number(third) + " waits for no other"));
        assertThat(Web.as(server, "oluwaseun").get("/orders/" + third).body())
                .contains("It waits for the orders before it")
                .doesNotContain("Start the work on");
        assertThat(Web.as(server, "oluwaseun").get("/today").body())
                .contains("/orders/" + second)
                .doesNotContain("/orders/" + third + "\"");
        orders.through(second);
        assertThat(server.document(a).released().orElseThrow().label()).contains("C");
        assertThat(orders.view("priya", third).lines().get(0).from()).isEqualTo("C");
        String after = Web.as(server, "rafael")
                .get("/documents/" + a)
                .body()
                .replaceAll("<[^>]+>|\\s+", " ")
                .replaceAll(" +", " ");
        assertThat(after)
                .contains("B by " + number(first), "C by " + number(second))
                .doesNotContain(number(third));
    }

    @Test
    void whereTheFirstIsStoppedTheSecondTakesItsRevisionAlong() {
        long a = orders.released(shelf, "axle");
        long first = orders.ask("priya", a);
        long second = orders.askAfter("tomasz", first, a);
        orders.start(first);
        long pending = server.document(a).pending().orElseThrow().id();
        orders.stop(first);
        assertThat(orders.line(second, a).turn()).isEqualTo(1);
        orders.start(second);
        assertThat(orders.line(second, a).toRevision()).contains(pending);
    }

    @Test
    void whereTheMiddleOneGoesTheLastMovesUp() {
        long a = orders.released(shelf, "stud");
        long other = orders.released(shelf, "nut");
        long first = orders.ask("priya", a);
        long second = orders.askAfter("priya", first, a, other);
        long third = orders.askAfter("priya", second, a);
        server.bean(EditOrder.class)
                .edit(
                        server.actor("priya"),
                        second,
                        Server.key(),
                        EditOrder.Written.of(
                                "not the stud",
                                Map.of(),
                                List.of(orders.line(second, a).id())));
        assertThat(orders.line(third, a).turn()).isEqualTo(2);
        orders.stop(first);
        assertThat(orders.line(third, a).turn()).isEqualTo(1);
        orders.start(third);
    }

    @Test
    void anOrderThatWouldWaitForItselfIsRefusedByName() {
        long x = orders.released(shelf, "x");
        long y = orders.released(shelf, "y");
        long z = orders.released(shelf, "z");
        long one = orders.ask("priya", x);
        long two = orders.ask("priya", y);
        long three = orders.ask("priya", z);
        orders.addAfter("priya", one, two, y);
        orders.addAfter("priya", two, three, z);
        refused(
                () -> orders.addAfter("priya", three, one, x),
                number(three) + " would wait for itself: " + number(three) + " after " + number(one) + " after "
                        + number(two) + " after " + number(three));
        assertThat(orders.lines(three)).hasSize(1);
        orders.through(three);
        orders.through(two);
        orders.through(one);
    }

    @Test
    void ofTwoThatWouldCloseARingAtOnceOneIsRefused() throws Exception {
        for (int i = 0; i < 6; i++) {
            long x = orders.released(shelf, "x" + i);
            long y = orders.released(shelf, "y" + i);
            long one = orders.ask("priya", x);
            long two = orders.ask("tomasz", y);
            var both = Executors.newFixedThreadPool(2);
            List<Callable<Void>> acts = List.of(
                    () -> {
                        orders.addAfter("priya", one, two, y);
                        return null;
                    },
                    () -> {
                        orders.addAfter("tomasz", two, one, x);
                        return null;
                    });
            int refused = 0;
            for (Future<Void> act : both.invokeAll(acts)) {
                try {
                    act.get();
                } catch (ExecutionException e) {
                    assertThat(e.getCause())
                            .isInstanceOfSatisfying(
                                    Refused.class,
                                    r -> assertThat(r.refusal().code()).isEqualTo("order.ring"));
                    refused++;
                }
            }
            both.shutdown();
            assertThat(refused).isEqualTo(1);
            List<PaperLine> lines = new ArrayList<>(orders.lines(one));
            lines.addAll(orders.lines(two));
            assertThat(lines).hasSize(3);
        }
    }

    @Test
    void whatGoesAlongIsTakenInBehindTheOrderThatItIsOn() {
        long part = server.released(shelf, "part " + Server.key() + ".txt");
        long over = server.file("priya", shelf, "over " + Server.key() + ".txt", "over " + Server.key(), false);
        server.refer(server.document(over).head().version(), part, "part.txt");
        server.release("priya", over);
        long first = orders.ask("priya", over);
        long second = orders.ask("tomasz", part);
        server.bean(KeepImpact.class)
                .say(server.actor("tomasz"), second, part, Server.key(), KeepImpact.Says.NEW_NUMBER, "");
        Web tomasz = Web.as(server, "tomasz");
        String page = tomasz.get("/changes/" + second + "/reach").body();
        assertThat(page)
                .contains(
                        number(over) + " goes after " + number(first), "name=\"after." + over + "\" value=\"" + first);
        tomasz.post(
                "/ask-for-change",
                Map.of("actKey", Server.key(), "items", "" + over, "order", "" + second, "after." + over, "" + first));
        assertThat(orders.line(second, over).turn()).isEqualTo(2);
    }

    @Test
    void theNewOneIsLookedAtBesideTheOldOneFromItsLine() {
        long a = orders.released(shelf, "hub");
        int old = server.document(a).head().number();
        long order = orders.ask("priya", a);
        assertThat(orders.view("priya", order).lines().get(0).compared()).isEmpty();
        orders.start(order);
        orders.work(a);
        String at = orders.view("priya", order)
                .lines()
                .get(0)
                .compared()
                .orElseThrow()
                .page();
        assertThat(at).endsWith("/compare?old=" + old);
        assertThat(Web.as(server, "priya").get(at).statusCode()).isEqualTo(200);
        orders.signed(order);
        orders.carryOut(order);
        assertThat(Web.as(server, "priya")
                        .get(orders.view("priya", order)
                                .lines()
                                .get(0)
                                .compared()
                                .orElseThrow()
                                .page())
                        .statusCode())
                .isEqualTo(200);
        assertThat(orders.view("rafael", order).lines().get(0).compared()).isEmpty();
    }
}
