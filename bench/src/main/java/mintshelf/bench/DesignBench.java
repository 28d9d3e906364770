package mintshelf.bench;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.Server;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.run.Run;
import mintshelf.app.store.run.RunStore;
import mintshelf.app.use.design.MakeDesign;
import mintshelf.app.use.design.Outline;
import mintshelf.app.use.design.ReadDesign;
import mintshelf.app.use.design.ReadDesign.Asked;
import mintshelf.app.use.run.ActOverSet;
import mintshelf.core.structure.StructureView;

/** A design of a thousand documents from another one: the plan, the run. */
final class DesignBench {
    private static final int GROUPS = 33;
    private static final int PARTS = 30;

    private DesignBench() {}

    private static byte[] assembly(String name, List<String> components) {
        StringBuilder s = new StringBuilder("ISO-10303-21;\nHEADER;\nFILE_NAME('" + name
                + "','2026-01-01',(''),(''),'','','');\nFILE_SCHEMA(('AP242'));\nENDSEC;\nDATA;\n" + "#1=PRODUCT('"
                + name + "','','',());\n" + "#9=CARTESIAN_POINT('',(1.,2.,3.));\n".repeat(500));
        for (int i = 0; i < components.size(); i++)
            s.append("#%d=DOCUMENT_FILE('%s','','',#3,'',$);\n".formatted(100 + i, components.get(i)));
        return s.append("ENDSEC;\nEND-ISO-10303-21;\n").toString().getBytes(StandardCharsets.US_ASCII);
    }

    static void design() {
        Server server = Server.shared();
        ActOverSet over = server.bean(ActOverSet.class);
        ReadDesign read = server.bean(ReadDesign.class);
        RunStore runs = server.bean(RunStore.class);
        Actor priya = server.actor("priya");
        long shelf = server.shelf();
        String mark = "D" + Server.key().substring(0, 6) + "-";
        int number = 1000;
        List<String> groups = new ArrayList<>();
        for (int g = 0; g < GROUPS; g++) {
            List<String> parts = new ArrayList<>();
            for (int p = 0; p < PARTS; p++) parts.add(file(server, priya, shelf, mark, ++number, List.of()));
            groups.add(file(server, priya, shelf, mark, ++number, parts));
        }
        String top = file(server, priya, shelf, mark, ++number, groups);
        long root = server.bean(mintshelf.app.sight.Numbered.class)
                .named(priya, mark + number)
                .spine()
                .id();
        int documents = number - 1000;
        Asked asked = new Asked(
                mark + "####",
                mark.replace('D', 'E') + "####",
                false,
                new Wish.Design(
                        root, StructureView.LATEST, Map.of(), Optional.empty(), "", List.of(), List.of(), true));
        double[] plan = new double[7];
        Outline outline = read.of(priya, asked).outline();
        for (int i = -3; i < plan.length; i++) {
            long start = System.nanoTime();
            outline = read.of(priya, asked).outline();
            if (outline.copies().size() != documents)
                throw new IllegalStateException(outline.copies().size() + " of " + top);
            if (i >= 0) plan[i] = (System.nanoTime() - start) / 1e9;
        }
        List<Long> items = outline.copies().stream().map(c -> c.from().id()).toList();
        Wish wish = Wish.design(MakeDesign.said(asked.wish(), outline));
        long start = System.nanoTime();
        long run = over.begin(priya, Run.What.NEW_DESIGN, items, wish, Optional.empty(), Server.key());
        double answered = (System.nanoTime() - start) / 1e9;
        while (runs.run(run).orElseThrow().isWorking()) over.goOnWithNext();
        double done = (System.nanoTime() - start) / 1e9;
        if (runs.run(run).orElseThrow().done() != documents) throw new IllegalStateException("the design stopped");
        Bench.say(
                "a design of %d documents planned in %.2f s (asked: under 1), the page answered in %.2f s, made at %.0f documents a second",
                documents, Bench.percentile(plan, 0.5), answered, documents / done);
    }

    private static String file(
            Server server, Actor priya, long shelf, String mark, int number, List<String> components) {
        String name = mark + number + ".stp";
        server.file(
                priya.login(), shelf, Server.PLAIN, name, mark + number, assembly(mark + number, components), false);
        return name;
    }
}
