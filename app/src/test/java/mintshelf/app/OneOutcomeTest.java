package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.CyclicBarrier;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.round.SignRound;
import mintshelf.core.document.Document;
import mintshelf.core.revision.StageClass;
import mintshelf.core.signoff.Decision;
import mintshelf.core.signoff.Round;
import mintshelf.core.signoff.SignOff;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** The last sign-off, a return and a change of what is signed, all at once: one of them happens, and all of it. */
class OneOutcomeTest {
    private static final Server SERVER = Server.shared();
    private final Server server = SERVER;
    private final Review review = new Review(server);

    @BeforeAll
    static void aSecondHeadOfDesign() {
        SERVER.add("carmen", "Carmen Uribe", "board-member");
    }

    @Test
    void aFewTimes() throws Exception {
        race(10);
    }

    @Test
    @Tag("long")
    void aThousandTimes() throws Exception {
        race(1000);
    }

    private void race(int times) throws Exception {
        ExecutorService three = Executors.newFixedThreadPool(3);
        int signed = 0;
        int returned = 0;
        int changed = 0;
        try {
            for (int i = 0; i < times; i++) {
                long item = review.drawing(server.shelf(), "raced " + Server.key() + ".dxf");
                long round = review.send("priya", item);
                review.sign("hedda", round);
                String seen = review.digest("oluwaseun", round);
                CyclicBarrier together = new CyclicBarrier(3);
                List<Boolean> did = results(three.invokeAll(List.of(
                        at(together, () -> answer("oluwaseun", round, seen, Decision.SIGNED)),
                        at(together, () -> answer("carmen", round, seen, Decision.RETURNED)),
                        at(together, () -> retitle(item)))));
                Round now = review.store().round(round).orElseThrow();
                Document document = server.document(item);
                assertThat(did.get(0) && did.get(1)).as("signed and returned").isFalse();
                if (did.get(0)) {
                    signed++;
                    assertThat(now.state()).isEqualTo(Round.State.SIGNED);
                    assertThat(document.released()).isPresent();
                    assertThat(now.signOffs()).filteredOn(SignOff::stands).hasSize(2);
                } else if (did.get(1)) {
                    returned++;
                    assertThat(now.state()).isEqualTo(Round.State.RETURNED);
                    assertThat(document.current().stage().stageClass()).isEqualTo(StageClass.PREPARING);
                    assertThat(document.released()).isEmpty();
                } else {
                    changed++;
                    assertThat(did.get(2)).as("something happened").isTrue();
                    assertThat(now.isOpen()).isTrue();
                    assertThat(now.signOffs())
                            .as("what was signed stands no more")
                            .noneMatch(SignOff::stands);
                    assertThat(document.released()).isEmpty();
                }
            }
        } finally {
            three.shutdown();
        }
        assertThat(signed + returned + changed).isEqualTo(times);
        if (times > 100) assertThat(List.of(signed, returned, changed)).allMatch(n -> n > 0);
    }

    private static Callable<Boolean> at(CyclicBarrier together, Callable<String> act) {
        return () -> {
            together.await();
            try {
                act.call();
                return true;
            } catch (Refused | NotThere e) {
                return false;
            }
        };
    }

    private static List<Boolean> results(List<Future<Boolean>> all) throws InterruptedException, ExecutionException {
        List<Boolean> did = new ArrayList<>();
        for (Future<Boolean> one : all) did.add(one.get());
        return did;
    }

    private String answer(String login, long round, String seen, Decision decision) {
        return server.bean(SignRound.class)
                .answer(server.actor(login), round, Server.key(), seen, decision, "said " + decision);
    }

    private String retitle(long item) {
        return server.bean(KeepFacts.class)
                .keep(server.actor("ines"), item, Server.key(), "Title " + Server.key(), Map.of(), Map.of());
    }
}
