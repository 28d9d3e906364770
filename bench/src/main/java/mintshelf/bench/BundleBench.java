package mintshelf.bench;

import java.nio.charset.Charset;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import mintshelf.app.ManyDocuments;
import mintshelf.app.Server;
import mintshelf.app.effect.Bundles;
import mintshelf.app.effect.deed.Setting;
import mintshelf.app.ground.Acts;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.use.release.ReadReleasePlan;
import mintshelf.app.use.release.ReleasePlan;
import mintshelf.app.use.round.ReadRounds;
import mintshelf.app.use.round.SendToReview;
import mintshelf.app.use.round.SignRound;
import mintshelf.core.Dxf;
import mintshelf.core.base.Plan;
import mintshelf.core.route.By;
import mintshelf.core.route.Way;
import mintshelf.core.signoff.Decision;

/** Acts over thousands: planning them, moving them. */
final class BundleBench {
    private static final int SHEETS = 120;
    private static final Charset WINDOWS = Charset.forName("windows-1252");

    private BundleBench() {}

    static void bundles() {
        Server server = Server.shared();
        plans(server);
        sheets(server);
    }

    private static void plans(Server server) {
        long shelf = server.shelf();
        ManyDocuments.fill(
                server.db(), shelf, server.file("priya", shelf, "model.txt", "model " + shelf, false), 9_000);
        server.db()
                .execute(
                        "insert into fact_value (revision, fact, text_value) select r.id, f.id, '316L' from revision r"
                                + " join item i on i.id = r.item join fact f on f.name = 'material'"
                                + " where i.shelf = ? and not exists"
                                + " (select 1 from fact_value v where v.revision = r.id and v.fact = f.id)",
                        shelf);
        server.db().execute("analyze table item, line, version, revision, reference");
        List<Long> preparing = server.db()
                .fetch(
                        "select i.id from item i join revision r on r.item = i.id and r.pending_mark = 1"
                                + " where i.shelf = ? order by i.id",
                        shelf)
                .map(r -> r.get(0, Long.class));
        // Ten blocks, as a real structure has them: held by others.
        for (int i = 0; i < 10; i++) server.checkOut("tomasz", preparing.get(i * 500));
        Bundles bundles = server.bean(Bundles.class);
        Sight sight = server.bean(Sight.class);
        List<Long> five = preparing.subList(0, 5000);
        double[] times = new double[7];
        for (int i = -3; i < times.length; i++) {
            long start = System.nanoTime();
            Plan<Bundles.Going> plan = bundles.plan(
                    server.actor("priya"),
                    List.copyOf(sight.of(server.actor("priya"), five).values()),
                    Way.named("release"),
                    By.HAND);
            if (plan.rows().size() != 5000 || plan.opens()) throw new IllegalStateException(plan.sentence());
            if (i >= 0) times[i] = (System.nanoTime() - start) / 1e9;
        }
        Bench.say(
                "a plan over 5,000 documents: median %.2f s, largest %.2f s (asked: under 2 s)",
                Bench.percentile(times, 0.5), Bench.percentile(times, 1));
        releasePlan(server, five);
        List<Long> thousand = preparing.subList(5000, 6000);
        long start = System.nanoTime();
        server.bean(Acts.class).once(server.actor("priya"), Server.key(), () -> {
            List<Seen> all = sight.locked(server.actor("priya"), thousand);
            Plan<Bundles.Going> plan = bundles.plan(server.actor("priya"), all, Way.named("release"), By.HAND);
            if (!plan.opens()) throw new IllegalStateException(plan.refusals().toString());
            bundles.carryOut(plan, Setting.of(server.actor("priya"), By.HAND, "", Instant.now(), all));
            return "done";
        });
        Bench.say(
                "1,000 documents released together, no sheets written: %.1f s (asked: under 10 s)",
                (System.nanoTime() - start) / 1e9);
    }

    /** Asked for one assembly: all five thousand stand in it, in three levels of seventeen a node. */
    private static void releasePlan(Server server, List<Long> five) {
        StringBuilder rows = new StringBuilder();
        for (int i = 1; i < five.size(); i++) {
            rows.append(i == 1 ? "" : " union all ")
                    .append("select ")
                    .append(five.get((i - 1) / 17))
                    .append(" as parent, ")
                    .append(five.get(i))
                    .append(" as component");
            if (i % 500 == 0 || i == five.size() - 1) {
                server.db()
                        .execute(
                                "insert into version_reference (version, seq, role, path, quantity, state, component, captured, source)"
                                        + " select l.head_version, "
                                        + "u.component, 'COMPONENT', concat('p', u.component), 1, 'FOUND',"
                                        + " u.component, k.head_version, 'ASSUMED' from ("
                                        + rows.toString().replaceFirst("^ union all ", "") + ") u"
                                        + " join line l on l.item = u.parent and l.main_mark = 1"
                                        + " join line k on k.item = u.component and k.main_mark = 1");
                rows.setLength(0);
            }
        }
        ReadReleasePlan plans = server.bean(ReadReleasePlan.class);
        double[] times = new double[5];
        for (int i = -2; i < times.length; i++) {
            long start = System.nanoTime();
            ReleasePlan plan = plans.plan(server.actor("priya"), List.of(five.get(0)));
            if (plan.lines().size() != five.size() || plan.opens()) throw new IllegalStateException(plan.sentence());
            if (i >= 0) times[i] = (System.nanoTime() - start) / 1e9;
        }
        Bench.say(
                "a release plan of 5,000 documents found from one assembly: median %.2f s, largest %.2f s (asked: under 2 s)",
                Bench.percentile(times, 0.5), Bench.percentile(times, 1));
    }

    private static void sheets(Server server) {
        long shelf = server.shelf();
        List<Long> items = new ArrayList<>();
        for (int i = 0; i < SHEETS; i++) {
            byte[] sheet = new String(Dxf.sheet("\r\n", WINDOWS, "AC1015", "ANSI_1252"), WINDOWS)
                    .replace("a comment that stays", "sheet " + i + " of " + shelf)
                    .replace("old number", "")
                    .getBytes(WINDOWS);
            items.add(server.file("priya", shelf, "drawing", "s" + i + ".dxf", sheet, false));
        }
        String to = server.bean(SendToReview.class)
                .send(server.actor("priya"), items, Server.key(), "", Map.of(), Map.of());
        long round = Long.parseLong(to.substring("/rounds/".length()));
        sign(server, "hedda", round);
        double took = sign(server, "oluwaseun", round);
        Bench.say(
                "%d drawings released by the last sign-off, sheets written and proved: %.1f s, %.0f a second (asked: over 60)",
                SHEETS, took, SHEETS / took);
    }

    private static double sign(Server server, String login, long round) {
        String digest = server.bean(ReadRounds.class)
                .round(server.actor(login), round)
                .digest()
                .hex();
        long start = System.nanoTime();
        server.bean(SignRound.class).answer(server.actor(login), round, Server.key(), digest, Decision.SIGNED, "");
        return (System.nanoTime() - start) / 1e9;
    }
}
