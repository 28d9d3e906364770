package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.run.Run;
import mintshelf.app.store.run.RunStore;
import mintshelf.app.use.run.ActOverSet;
import mintshelf.app.use.verify.Verify;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** A swap on a node that is killed with -9: all of it is done or nothing, and no file has half a name. */
class KillSwapTest {
    private final Server server = Server.shared();

    @Test
    void aNodeKilledInASwapLeavesAllOrNothing() throws Exception {
        killedSwapping(1, 60);
    }

    @Test
    @Tag("long")
    void twentyKillsOfASwapOverTwoHundred() throws Exception {
        killedSwapping(20, 200);
    }

    /** A component is exchanged in many files on a node that dies at some moment of it: all of them or none, no file with half a name. */
    private void killedSwapping(int times, int parents) throws Exception {
        Random random = new Random(45);
        RunStore runs = server.bean(RunStore.class);
        ActOverSet over = server.bean(ActOverSet.class);
        long shelf = server.shelf();
        String mark = Server.key().substring(0, 8);
        long[] two = new long[2];
        for (int i = 0; i < 2; i++)
            two[i] = server.file(
                    "priya", shelf, Server.PLAIN, "swap" + i + mark + ".stp", StructureTest.assembly("s"), false);
        List<Long> items = new ArrayList<>();
        for (int i = 0; i < parents; i++)
            items.add(server.file(
                    "priya",
                    shelf,
                    Server.PLAIN,
                    "parent" + i + mark + ".stp",
                    StructureTest.assembly("p" + i, "swap0" + mark + ".stp", 1),
                    false));
        int done = 0;
        for (int i = 0; i < times; i++) {
            String body = "{\"act\":\"swap\",\"note\":\"wept\",\"pairs\":[{\"old\":" + two[done % 2] + ",\"new\":"
                    + two[(done + 1) % 2] + "}]";
            Web web = Web.as(server, "priya");
            String plan = web.json("/api/v1/plans", Server.key(), body + "}").body();
            String digest = plan.replaceAll("(?s).*\"digest\":\"([0-9a-f]+)\".*", "$1");
            String key = Server.key();
            KillTest.killedPosting(
                    server,
                    "priya",
                    node -> () -> node.json("/api/v1/runs", key, body + ",\"plan\":\"" + digest + "\"}"),
                    random.nextInt(2_500));
            Optional<Run> run = runs.of(server.actor("priya").person(), key);
            String before = "swap" + done % 2 + mark;
            assertThat(swapped(items, before)).as("all or nothing").isIn(0L, (long) parents);
            if (run.isPresent()) {
                // Asked for like any other act: whoever goes on with it may hold the row.
                long id = run.get().id();
                server.bean(UnitOfWork.class)
                        .run(() -> server.db()
                                .execute(
                                        "update run set lease_until = '2020-01-01' where id = ? and state = 'WORKING'",
                                        id));
                while (runs.run(run.get().id()).orElseThrow().isWorking()) over.goOnWithNext();
                assertThat(swapped(items, before)).isEqualTo(parents);
                done++;
            }
        }
        if (times > 10) assertThat(done).as("some were carried out").isPositive();
        assertThat(server.bean(Verify.class).verify().problems()).isEmpty();
    }

    /** How many do not name a file any more. */
    private long swapped(List<Long> items, String name) {
        return items.stream()
                .filter(i -> !new String(server.bytes(i), StandardCharsets.US_ASCII).contains(name))
                .count();
    }
}
