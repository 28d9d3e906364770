package mintshelf.bench;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.Server;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.run.Run;
import mintshelf.app.store.run.RunStore;
import mintshelf.app.use.run.ActOverSet;
import mintshelf.core.reuse.Swaps.Pair;

/** One component exchanged in two thousand files: the plan, the run. */
final class SwapBench {
    private static final int PARENTS = 2_000;

    private SwapBench() {}

    private static byte[] assembly(String name, String component) {
        return ("ISO-10303-21;\nHEADER;\nFILE_NAME('" + name
                        + "','2026-01-01',(''),(''),'','','');\nFILE_SCHEMA(('AP242'));\nENDSEC;\nDATA;\n"
                        + "#1=PRODUCT('" + name + "','','',());\n#2=DOCUMENT_FILE('" + component + "','','',#3,'',$);\n"
                        + "#9=CARTESIAN_POINT('',(1.,2.,3.));\n".repeat(500) + "ENDSEC;\nEND-ISO-10303-21;\n")
                .getBytes(StandardCharsets.US_ASCII);
    }

    static void swap() {
        Server server = Server.shared();
        ActOverSet over = server.bean(ActOverSet.class);
        RunStore runs = server.bean(RunStore.class);
        Actor priya = server.actor("priya");
        long shelf = server.shelf();
        String mark = Server.key().substring(0, 8);
        long old = server.file("priya", shelf, Server.PLAIN, "old" + mark + ".stp", assembly("o", "none.stp"), false);
        long now = server.file("priya", shelf, Server.PLAIN, "new" + mark + ".stp", assembly("n", "none.stp"), false);
        List<Long> parents = new ArrayList<>();
        for (int i = 0; i < PARENTS; i++)
            parents.add(server.file(
                    "priya",
                    shelf,
                    Server.PLAIN,
                    "parent" + i + mark + ".stp",
                    assembly("p" + i, "old" + mark + ".stp"),
                    false));
        Wish wish = Wish.swap(new Wish.Swap(List.of(new Pair(old, now)), Set.of(), Set.of()), "bench");
        double[] plan = new double[7];
        for (int i = -3; i < plan.length; i++) {
            long start = System.nanoTime();
            int going = over.plan(priya, Run.What.SWAP, parents, wish).going().size();
            if (going != PARENTS) throw new IllegalStateException(going + " go");
            if (i >= 0) plan[i] = (System.nanoTime() - start) / 1e9;
        }
        long start = System.nanoTime();
        long run = over.begin(priya, Run.What.SWAP, parents, wish, Optional.empty(), Server.key());
        double answered = (System.nanoTime() - start) / 1e9;
        while (runs.run(run).orElseThrow().isWorking()) over.goOnWithNext();
        double done = (System.nanoTime() - start) / 1e9;
        if (runs.run(run).orElseThrow().done() != PARENTS) throw new IllegalStateException("the swap stopped");
        Bench.say(
                "a swap over %d parents planned in %.2f s (asked: under 1), the page answered in %.2f s, done at %.0f files a second (asked: 40)",
                PARENTS, Bench.percentile(plan, 0.5), answered, PARENTS / done);
    }
}
