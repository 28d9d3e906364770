package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.References;
import mintshelf.app.effect.run.SetAct;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.document.SuccessorStore;
import mintshelf.app.store.job.JobStore;
import mintshelf.app.store.run.Run;
import mintshelf.app.store.run.RunStore;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.app.store.structure.Reference;
import mintshelf.app.use.run.ActOverSet;
import mintshelf.app.use.structure.KeepLinks;
import mintshelf.app.use.swap.Parents;
import mintshelf.app.use.swap.SwapDocuments;
import mintshelf.app.use.swap.TakeSwapBack;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Refusal;
import mintshelf.core.reuse.Swaps;
import mintshelf.core.reuse.Swaps.Fate;
import mintshelf.core.reuse.Swaps.Pair;
import mintshelf.core.revision.StageClass;
import org.junit.jupiter.api.Test;

/** One document in the place of another, wherever it stands. */
class SwapTest {
    private final Server server = Server.shared();
    private final ActOverSet over = server.bean(ActOverSet.class);
    private final SwapDocuments swap = server.bean(SwapDocuments.class);
    private final RunStore runs = server.bean(RunStore.class);
    private final Actor priya = server.actor("priya");
    private final Actor ines = server.actor("ines");
    private final long shelf = server.shelf();
    private final String mark = Server.key().substring(0, 8);
    private final String thin = "thin" + mark + ".stp";
    private final String thick = "thick" + mark + ".stp";
    private final long old = file(thin, StructureTest.assembly("thin " + mark));
    private final long now = file(thick, StructureTest.assembly("thick " + mark));

    private long file(String name, byte[] bytes) {
        return server.file("priya", shelf, Server.PLAIN, name, bytes, false);
    }

    private long head(String name, Object... filesAndCounts) {
        return file(name + mark + ".stp", StructureTest.assembly(name + " " + mark, filesAndCounts));
    }

    private Wish wish(Pair... pairs) {
        return Wish.swap(new Wish.Swap(List.of(pairs), Set.of(), Set.of()), "wept at berth 3");
    }

    private final Pair pair = new Pair(old, now);

    private Map<Long, Parents.Parent> parents(Pair... pairs) {
        Map<Long, Parents.Parent> all = new LinkedHashMap<>();
        swap.parents(priya, swap.both(priya, List.of(pairs)))
                .parents()
                .forEach(p -> all.put(p.seen().spine().id(), p));
        return all;
    }

    private Run carryOut(Actor actor, Wish wish, Long... items) {
        String key = Server.key();
        return runs.run(over.begin(actor, Run.What.SWAP, List.of(items), wish, Optional.empty(), key))
                .orElseThrow();
    }

    private List<Run.Row> rows(Run run) {
        return runs.rows(run.id(), 0, 10_000);
    }

    private String text(long item) {
        return new String(server.bytes(item), StandardCharsets.US_ASCII);
    }

    private long meant(long item, int at) {
        Reference reference = server.bean(References.class)
                .of(server.document(item).head().version())
                .get(at);
        return reference.component().orElseThrow().item();
    }

    private String refused(Wish wish, Long... items) {
        try {
            carryOut(priya, wish, items);
            return "";
        } catch (Refused e) {
            return e.refusal().code() + " " + e.refusal().says();
        }
    }

    @Test
    void allThatItStandsInIsRewrittenAndEveryOtherByteStays() {
        long mast = head("mast", ".\\\\" + thin, 2, "no.stp", 1);
        long well = head("well", thin, 1, thick + "x", 1);
        String before = text(mast);
        assertThat(parents(pair))
                .containsOnlyKeys(mast, well)
                .allSatisfy((id, p) -> assertThat(p.fate()).isEqualTo(Fate.GOES));
        Run run = carryOut(priya, wish(pair), mast, well);
        assertThat(rows(run)).extracting(Run.Row::became).containsExactly("version", "version");
        assertThat(text(mast)).isEqualTo(before.replace(thin, thick));
        assertThat(meant(mast, 0)).isEqualTo(now);
        assertThat(server.bean(References.class)
                        .of(server.document(mast).head().version())
                        .get(0)
                        .written()
                        .quantity())
                .isEqualTo(2);
        assertThat(parents(pair)).isEmpty();
        assertThat(refused(wish(pair), mast)).startsWith("swap.elsewhere").contains("any more");
        // And the other way round it is as it was.
        carryOut(priya, wish(new Pair(now, old)), mast);
        assertThat(text(mast)).isEqualTo(before);
        assertThat(server.document(mast).head().number()).isEqualTo(3);
    }

    @Test
    void aReleasedOneGoesWithItsNextRevisionAHeldOneIsAskedForAndWhatCannotBeWrittenIsAJob() {
        long released = head("released", thin, 1);
        server.release("priya", old);
        server.release("priya", released);
        long held = head("held", thin, 1);
        server.checkOut("tomasz", held);
        long mine = head("mine", thin, 1);
        server.checkOut("priya", mine);
        long other = server.file(
                "priya", shelf, Server.PLAIN, "own" + mark + ".cad", "words".getBytes(StandardCharsets.UTF_8), false);
        server.refer(server.document(other).head().version(), old, thin);
        Map<Long, Parents.Parent> all = parents(pair);
        assertThat(all.get(released).fate()).isEqualTo(Fate.REVISED);
        assertThat(all.get(held).fate()).isEqualTo(Fate.HELD);
        assertThat(all.get(mine).fate()).isEqualTo(Fate.CANNOT);
        assertThat(all.get(other).fate()).isEqualTo(Fate.JOB);
        Wish wish = Wish.swap(new Wish.Swap(List.of(pair), Set.of(held), Set.of(other, mine)), "wept");
        Run run = carryOut(priya, wish, released, held, mine, other);
        assertThat(rows(run)).extracting(Run.Row::became).containsExactlyInAnyOrder("version", "asked", "job", "job");
        assertThat(server.document(released).pending()).isPresent();
        assertThat(server.document(released).released()).isPresent();
        assertThat(text(released)).contains(thick).doesNotContain(thin);
        assertThat(server.document(held).head().number()).isEqualTo(1);
        assertThat(server.bean(JobStore.class).mineOn(priya.person(), List.of(other)))
                .singleElement()
                .satisfies(j -> assertThat(j.what()).contains("xchange").contains("wept"));
        assertThat(Web.as(server, "tomasz").get("/today").body())
                .contains("asks for " + server.document(held).number())
                .contains(server.document(now).number());
    }

    @Test
    void pairsThatGoInCirclesOrContainEachOtherAreRefusedInWords() {
        assertThatThrownBy(() -> parents(new Pair(old, old))).hasMessageContaining("own place");
        assertThatThrownBy(() -> parents(pair, new Pair(old, now))).hasMessageContaining("two others");
        assertThatThrownBy(() -> parents(pair, new Pair(now, old))).hasMessageContaining("same swap");
        // What comes in has the old one in it: it goes on with what it has.
        long kit = head("kit", thin, 1);
        long top = head("top", "kit" + mark + ".stp", 1, thin, 1);
        Pair inside = new Pair(old, kit);
        assertThat(parents(inside).get(kit).fate()).isEqualTo(Fate.STAYS);
        assertThat(carryOutAndMeant(inside, top)).isEqualTo(kit);
        // A parent that stands in what comes in would contain itself.
        long body = head("body", thin, 1);
        long cover = head("cover", "body" + mark + ".stp", 1);
        assertThat(parents(new Pair(old, cover)).get(body).fate()).isEqualTo(Fate.STAYS);
        assertThat(rows(carryOutAll(new Pair(old, cover), body))).isEmpty();
    }

    private long carryOutAndMeant(Pair pair, long parent) {
        assertThat(refused(wish(pair), parent))
                .as("the file refers to it already")
                .contains("already");
        return meant(parent, 0);
    }

    private Run carryOutAll(Pair pair, long parent) {
        // Nothing goes: there is no run.
        assertThat(refused(wish(pair), parent)).startsWith("plan.closed");
        return new Run(0, 0, "", Run.What.SWAP, "", Run.State.DONE, 0, 0, Instant.EPOCH, Optional.empty());
    }

    @Test
    void oneFileThatDoesNotLetItselfBeWrittenKeepsAllBack() {
        long free = head("free", thin, 1);
        String signed = new String(StructureTest.assembly("sealed " + mark, thin, 1), StandardCharsets.US_ASCII)
                .replace("END-ISO", "SIGNATURE;\nabc\nENDSEC;\nEND-ISO");
        long seal = file("sealed" + mark + ".stp", signed.getBytes(StandardCharsets.US_ASCII));
        assertThat(refused(wish(pair), free, seal)).contains("signed").contains("nothing was changed");
        assertThat(server.document(free).head().number()).isEqualTo(1);
        assertThat(text(free)).contains(thin);
        Wish wish = Wish.swap(new Wish.Swap(List.of(pair), Set.of(), Set.of(seal)), "wept");
        assertThat(rows(carryOut(priya, wish, free, seal)))
                .extracting(Run.Row::became)
                .containsExactlyInAnyOrder("version", "job");
    }

    @Test
    void whatGoesOutIsWithdrawnOnceNothingUsesItAndItsSuccessorIsKnown() {
        long one = head("one", thin, 1);
        long two = head("two", thin, 1);
        server.release("priya", old);
        server.release("priya", now);
        server.release("priya", two);
        assertThat(refusals(ines, one, old))
                .singleElement()
                .satisfies(r -> assertThat(r.code()).isEqualTo("swap.used"));
        // The released one has it in force even when its next revision does not.
        assertThat(refusals(ines, one, two, old))
                .singleElement()
                .satisfies(r -> assertThat(r.reason()).contains("still used"));
        carryOut(ines, wish(pair), one, two);
        server.release("ines", two);
        assertThat(refusals(ines, old)).isEmpty();
        Run run = carryOut(ines, wish(pair), old);
        assertThat(rows(run)).extracting(Run.Row::became).containsExactly("withdrawn");
        assertThat(server.document(old).current().stage().stageClass()).isEqualTo(StageClass.WITHDRAWN);
        assertThat(server.bean(SuccessorStore.class).of(old)).contains(now);
        // Withdrawn, it does not come in again; its successor is proposed.
        assertThatThrownBy(() -> parents(new Pair(now, old))).hasMessageContaining("withdrawn");
        assertThat(Web.as(server, "priya").get("/swap?items=" + old).body())
                .contains("value=\"" + server.document(now).number());
    }

    private List<Refusal> refusals(Actor actor, Long... items) {
        return over.plan(actor, Run.What.SWAP, List.of(items), wish(pair)).refusals();
    }

    @Test
    void itIsTakenBackWhereNothingMovedOn() {
        long stays = head("stays", thin, 1);
        long moves = head("moves", thin, 1);
        String before = text(stays);
        Run run = carryOut(priya, wish(pair), stays, moves);
        server.checkOut("priya", moves);
        server.checkIn("priya", moves, StructureTest.assembly("on " + mark, thick, 3), false);
        assertThat(server.bean(TakeSwapBack.class).written(priya, run.id())).containsOnlyKeys(stays, moves);
        Plan<SetAct.PlanLine> plan = over.plan(priya, Run.What.SWAP_BACK, List.of(stays, moves), Wish.back(run.id()));
        assertThat(plan.going()).hasSize(1);
        assertThat(plan.refusals())
                .singleElement()
                .satisfies(r -> assertThat(r.code()).isEqualTo("swap.moved_on"));
        over.begin(priya, Run.What.SWAP_BACK, List.of(stays), Wish.back(run.id()), Optional.empty(), Server.key());
        assertThat(text(stays)).isEqualTo(before);
        assertThat(meant(stays, 0)).isEqualTo(old);
        assertThat(text(moves)).contains(thick);
        // The second time there is nothing to take back; another one's run is not there.
        assertThat(over.plan(priya, Run.What.SWAP_BACK, List.of(stays), Wish.back(run.id()))
                        .going())
                .isEmpty();
        assertThatThrownBy(() -> server.bean(TakeSwapBack.class).written(server.actor("tomasz"), run.id()))
                .isInstanceOf(NotThere.class);
    }

    @Test
    void whoDoesNotSeeBothWholeSwapsNothingAndLearnsNothing() {
        long one = head("one", thin, 1);
        for (String login : List.of("rafael", "nobody")) {
            Actor actor = server.actor(login);
            assertThatThrownBy(() -> swap.both(actor, List.of(pair))).isInstanceOf(NotThere.class);
            assertThatThrownBy(() -> over.plan(actor, Run.What.SWAP, List.of(one), wish(pair)))
                    .isInstanceOf(NotThere.class);
        }
        // Who may look and not change sees what it reaches, and cannot.
        Parents.Parent seen = swap.parents(server.actor("hedda"), swap.both(server.actor("hedda"), List.of(pair)))
                .parents()
                .get(0);
        assertThat(seen.fate()).isEqualTo(Fate.CANNOT);
        assertThat(seen.choices()).extracting(Parents.Choice::code).containsExactly("out");
    }

    @Test
    void aLongSwapIsNotWaitedForAndGoesAsOneOrNotAtAll() {
        List<Long> many = new ArrayList<>();
        for (int i = 0; i < ActOverSet.PORTION + 20; i++) many.add(head("many" + i, thin, 1));
        Run run = carryOut(priya, wish(pair), many.toArray(new Long[0]));
        assertThat(run.isWorking()).isTrue();
        assertThat(run.done()).isZero();
        // One of them moves on before it is its turn: nothing is done, and the report says why.
        server.checkOut("priya", many.get(7));
        server.checkIn("priya", many.get(7), StructureTest.assembly("on " + mark, thin, 5), false);
        while (runs.run(run.id()).orElseThrow().isWorking()) over.goOnWithNext();
        assertThat(runs.run(run.id()).orElseThrow().isStopped()).isTrue();
        assertThat(many).allSatisfy(id -> assertThat(meant(id, 0)).isEqualTo(old));
        Run again = carryOut(priya, wish(pair), many.toArray(new Long[0]));
        while (runs.run(again.id()).orElseThrow().isWorking()) over.goOnWithNext();
        assertThat(runs.run(again.id()).orElseThrow().done()).isEqualTo(many.size());
        assertThat(many).allSatisfy(id -> assertThat(meant(id, 0)).isEqualTo(now));
    }

    @Test
    void thePageSaysWhatDiffersAndWhatBecomesOfEach() {
        long one = head("page", thin, 1);
        Web web = Web.as(server, "priya");
        String page = web.get("/swap?pairs=" + old + "-" + now).body();
        assertThat(page)
                .contains("Swap everywhere")
                .contains("Goes 1")
                .contains(server.document(one).number());
        assertThat(web.get("/swap?old=" + old + "&number=nowhere").body()).contains("No other document that you see");
        String go = one + ":go:1";
        Map<String, String> fields =
                new HashMap<>(Map.of("pairs", old + "-" + now, "become", go, "reason", "", "actKey", Server.key()));
        assertThat(web.post("/swap", fields).body()).contains("A swap needs a reason");
        fields.put("become", one + ":out:1");
        fields.put("reason", "wept");
        assertThat(web.post("/swap", fields).body()).contains("All of them were left out");
        fields.put("become", one + ":go:9");
        assertThat(web.post("/swap", fields).body()).contains("moved on since your page was made");
        fields.put("become", "x");
        assertThat(web.post("/swap", fields).statusCode()).isEqualTo(404);
        fields.put("become", go);
        web.post("/swap", fields);
        long run = runs.of(priya.person(), Long.MAX_VALUE, 1).get(0).id();
        assertThat(web.get("/runs/" + run).body()).contains("new version 2").contains("Take it back");
        assertThat(web.get("/swap/back?run=" + run).body()).contains("as version 1 was");
        assertThat(Swaps.Pair.many("1-2,x,3-,4-5")).containsExactly(new Pair(1, 2), new Pair(4, 5));
    }

    private static byte[] sheet(String path, String... texts) {
        StringBuilder dxf = new StringBuilder("0\nSECTION\n2\nBLOCKS\n");
        if (!path.isEmpty())
            dxf.append("0\nBLOCK\n2\nB0\n70\n4\n1\n").append(path).append("\n0\nENDBLK\n");
        dxf.append("0\nENDSEC\n0\nSECTION\n2\nENTITIES\n");
        if (!path.isEmpty()) dxf.append("0\nINSERT\n2\nB0\n10\n1.0\n20\n2.0\n");
        for (int i = 0; i < texts.length; i++)
            dxf.append("0\nTEXT\n8\n0\n10\n%d.0\n20\n20.0\n40\n2.5\n1\n%s\n".formatted(20 * i, texts[i]));
        return dxf.append("0\nENDSEC\n0\nEOF\n").toString().getBytes(StandardCharsets.US_ASCII);
    }

    @Test
    void aDrawingThatShowsAParentFollowsWhereItsListSaysTheNumber() {
        long one = head("one", thin, 1);
        String number = server.document(old).number();
        long says = file("says" + mark + ".dxf", sheet("", "1", number, number + " left"));
        long silent = file("silent" + mark + ".dxf", sheet("", "1", number + " left"));
        for (long drawing : List.of(says, silent))
            server.bean(KeepLinks.class)
                    .link(
                            priya,
                            drawing,
                            Server.key(),
                            LinkStore.Kind.SHOWS,
                            server.document(one).number());
        assertThat(parents(pair)).containsOnlyKeys(one, says);
        assertThat(parents(pair).get(says).sheetOf().orElseThrow().spine().id()).isEqualTo(one);
        carryOut(priya, wish(pair), one, says);
        assertThat(text(says))
                .isEqualTo(new String(
                        sheet("", "1", server.document(now).number(), number + " left"), StandardCharsets.US_ASCII));
        assertThat(server.document(silent).head().number()).isEqualTo(1);
    }

    @Test
    void aDrawingThatPlacesAnotherOneIsAParentAsWell() {
        long plan = file("plan" + mark + ".dxf", sheet("thin.dxf", "text"));
        long thinSheet = server.file("priya", shelf, Server.PLAIN, "thin" + mark + ".dxf", sheet("", "a"), false);
        long thickSheet = server.file("priya", shelf, Server.PLAIN, "thick" + mark + ".dxf", sheet("", "b"), false);
        long placed = file("placed" + mark + ".dxf", sheet("thin" + mark + ".dxf", "text"));
        Pair sheets = new Pair(thinSheet, thickSheet);
        assertThat(parents(sheets)).containsOnlyKeys(placed);
        carryOut(priya, wish(sheets), placed);
        assertThat(text(placed))
                .isEqualTo(new String(sheet("thick" + mark + ".dxf", "text"), StandardCharsets.US_ASCII));
        assertThat(meant(placed, 0)).isEqualTo(thickSheet);
        assertThat(server.document(plan).head().number()).isEqualTo(1);
    }

    @Test
    void aProgramSwapsByPlanAndRun() {
        long one = head("api", thin, 2);
        Web web = Web.as(server, "priya");
        String body = "{\"act\":\"swap\",\"note\":\"wept\",\"pairs\":[{\"old\":" + old + ",\"new\":" + now + "}]";
        String plan = web.json("/api/v1/plans", Server.key(), body + "}").body();
        assertThat(plan).contains("\"opens\":true").contains("references in the file rewritten");
        String digest = plan.replaceAll("(?s).*\"digest\":\"([0-9a-f]+)\".*", "$1");
        String key = Server.key();
        String asked = body + ",\"plan\":\"" + digest + "\"}";
        assertThat(web.json("/api/v1/runs", key, asked).statusCode()).isEqualTo(201);
        assertThat(web.json("/api/v1/runs", key, asked).statusCode())
                .as("sent twice it is done once")
                .isEqualTo(201);
        assertThat(server.document(one).head().number()).isEqualTo(2);
        assertThat(meant(one, 0)).isEqualTo(now);
        assertThat(web.json("/api/v1/plans", Server.key(), "{\"act\":\"swap\"}").statusCode())
                .isEqualTo(409);
        assertThat(web.json(
                                "/api/v1/plans",
                                Server.key(),
                                "{\"act\":\"swap back\",\"documents\":[" + one + "],\"move\":\"x\"}")
                        .statusCode())
                .isEqualTo(404);
    }
}
