package mintshelf.bench;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import mintshelf.app.ManyDocuments;
import mintshelf.app.Server;
import mintshelf.app.Web;
import mintshelf.app.sight.RoundSight;
import mintshelf.app.use.change.AskForChange;
import mintshelf.app.use.change.CarryOutOrder;
import mintshelf.app.use.change.MoveOrder;
import mintshelf.app.use.change.OpenRequest;
import mintshelf.app.use.round.ReadRounds;
import mintshelf.app.use.round.SignRound;
import mintshelf.core.change.Impact;
import mintshelf.core.change.Priority;
import mintshelf.core.signoff.Decision;
import mintshelf.core.structure.StructureGraph;
import mintshelf.core.structure.StructureGraph.Use;

/** How fast a change's reach is found, and how fast changes are listed. */
final class ChangeBench {
    private static final int TOUCHED = 10_000;
    private static final int USES = 1_000_000;
    private static final int LEVELS = 8;
    private static final int PAPERS = 20_000;
    private static final int LINES = 500;

    private ChangeBench() {}

    /** One part from which ten thousand documents follow over eight levels, among a million uses; with a sentence for each. */
    static void impact() {
        Random random = new Random(5);
        List<Use> uses = new ArrayList<>();
        Map<Long, Boolean> declared = new HashMap<>();
        int wide = TOUCHED / LEVELS;
        for (long id = 1; id <= TOUCHED; id++) {
            long level = (id - 1) / wide;
            declared.put(id, false);
            for (int i = 0; i < 3; i++) {
                long below = level == 0 ? 0 : (level - 1) * wide + 1 + random.nextInt(wide);
                uses.add(new Use(id, below, 1, 1));
            }
        }
        while (uses.size() < USES) {
            long parent = 20_000L + random.nextInt(200_000);
            uses.add(new Use(parent, 300_000L + random.nextInt(100_000), 1, 1));
        }
        StructureGraph graph = StructureGraph.of(uses);
        double[] times = new double[40];
        int touched = 0;
        for (int i = -10; i < times.length; i++) {
            long start = System.nanoTime();
            Impact impact = Impact.of(
                    List.of(new Impact.Line(0, false)), declared, Map.of(), graph::usedIn, models -> List.of());
            int letters = 0;
            for (Impact.Node node : impact.nodes())
                letters += node.says(id -> "TG40-" + id).length();
            if (letters == 0) throw new IllegalStateException("nothing is said");
            touched = impact.nodes().size();
            if (i >= 0) times[i] = (System.nanoTime() - start) / 1e6;
        }
        Bench.say(
                "impact over %,d documents among a million uses, with words: median %.0f ms, p95 %.0f ms (asked: under 200 ms)",
                touched, Bench.percentile(times, 0.5), Bench.percentile(times, 0.95));
    }

    /** The page of changes with twenty thousand requests, over HTTP. */
    static void changes() {
        Server server = Server.shared();
        long shelf = server.shelf();
        long item = server.released(shelf, "changed.txt");
        String to = server.bean(OpenRequest.class)
                .open(
                        server.actor("priya"),
                        List.of(item),
                        Server.key(),
                        new OpenRequest.Says(
                                "Cone pits", "pits", Optional.empty(), Priority.USUAL, Map.of(), List.of()));
        long request = Long.parseLong(to.substring("/requests/".length()));
        long many = server.shelf();
        ManyDocuments.fill(server.db(), many, item, PAPERS);
        server.db()
                .execute(
                        "update item i join item r on r.id = ? set i.kind = r.kind where i.shelf = ? and i.title like 'Mooring%'",
                        request, shelf);
        server.db()
                .execute(
                        "insert into paper (item, type, reason) select id, 'REQUEST', 'pits' from item where shelf = ? and title like 'Mooring%'",
                        many);
        // Ten years of them; of forty one is open.
        server.db()
                .execute(
                        "update item i join revision r on r.item = i.id set i.created_at = date_sub(i.created_at, interval (i.id mod 3650) day), r.stage_since = date_sub(r.stage_since, interval (i.id mod 3650) day), r.stage = if(i.id mod 40 = 0, r.stage, 'withdrawn'), r.pending_mark = if(i.id mod 40 = 0, r.pending_mark, null) where i.shelf = ?",
                        many);
        server.db()
                .execute(
                        "insert ignore into paper_line (paper, position, item, what, reason) select item, 1, ?, 'REVISE', '' from paper",
                        item);
        server.db().execute("analyze table item, line, version, revision, paper, paper_line");
        Web web = Web.as(server, "priya");
        for (String path : List.of("/changes", "/changes?show=everything&page=400", "/changes/flow?weeks=522")) {
            double[] times = new double[80];
            for (int i = -20; i < times.length; i++) {
                long start = System.nanoTime();
                if (web.get(path).statusCode() != 200) throw new IllegalStateException(path);
                if (i >= 0) times[i] = (System.nanoTime() - start) / 1e6;
            }
            Bench.say(
                    "%s, 20,000 papers: median %.0f ms, p95 %.0f ms (asked: under 150 ms)",
                    path, Bench.percentile(times, 0.5), Bench.percentile(times, 0.95));
        }
    }

    /** An order over five hundred documents is carried out, with its notice; over the use case. */
    static void carryOut() {
        Server server = Server.shared();
        double[] times = new double[3];
        for (int i = 0; i < times.length; i++) {
            List<Long> items = ManyDocuments.preparing(server, LINES);
            long order = Long.parseLong(server.bean(AskForChange.class)
                    .ask(server.actor("priya"), items, Server.key(), "Many", "because", Map.of())
                    .substring("/orders/".length()));
            MoveOrder move = server.bean(MoveOrder.class);
            move.start(server.actor("oluwaseun"), order, Server.key());
            move.toBoard(server.actor("priya"), order, Server.key(), "", Map.of());
            for (String signer : List.of("hedda", "oluwaseun")) sign(server, signer, order);
            long start = System.nanoTime();
            server.bean(CarryOutOrder.class).carryOut(server.actor("oluwaseun"), order, Server.key());
            times[i] = (System.nanoTime() - start) / 1e9;
        }
        Bench.say(
                "an order of %d documents carried out with its notice: median %.1f s, slowest %.1f s (asked: under 20 s)",
                LINES, Bench.percentile(times, 0.5), Bench.percentile(times, 1));
    }

    private static void sign(Server server, String login, long order) {
        long round = server.bean(RoundSight.class)
                .ofDocument(server.actor(login), order)
                .orElseThrow()
                .round()
                .id();
        String seen = server.bean(ReadRounds.class)
                .round(server.actor(login), round)
                .digest()
                .hex();
        server.bean(SignRound.class).answer(server.actor(login), round, Server.key(), seen, Decision.SIGNED, "");
    }
}
