package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Cases;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.redline.RemarkStore;
import mintshelf.app.use.person.KeepGrants;
import mintshelf.app.use.redline.MakeRemark;
import mintshelf.app.use.redline.ReadRemarks;
import mintshelf.app.use.redline.TalkOfRemarks;
import mintshelf.app.use.today.ReadToday;
import mintshelf.core.base.Refusal;
import mintshelf.core.drawing.Box;
import mintshelf.core.redline.Colour;
import mintshelf.core.redline.Followed;
import mintshelf.core.redline.Look;
import mintshelf.core.redline.Point;
import mintshelf.core.redline.RedlineSvg.Placed;
import mintshelf.core.redline.Remark;
import mintshelf.core.redline.Remark.State;
import mintshelf.core.redline.Tool;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.By;
import mintshelf.core.route.Gates;
import org.junit.jupiter.api.Test;

/** Marks on sheets: who makes them, what becomes of them, who is told and who learns nothing. */
class RedlineTest {
    private static final Look BRICK = new Look(Colour.BRICK, 3.5);
    private final Server server = Server.shared();
    private final Review review = new Review(server);
    private final long shelf = server.shelf();
    private final MakeRemark make = server.bean(MakeRemark.class);
    private final TalkOfRemarks talk = server.bean(TalkOfRemarks.class);

    static String sheet(double radius) {
        return "0\nSECTION\n2\nENTITIES\n"
                + "0\nLWPOLYLINE\n5\nA1\n8\nFRAME\n90\n4\n70\n1\n10\n0\n20\n0\n10\n420\n20\n0\n10\n420\n20\n297\n10\n0\n20\n297\n"
                + "0\nCIRCLE\n5\nA2\n8\nOUTLINE\n10\n120\n20\n120\n40\n" + radius + "\n"
                + "0\nLINE\n5\nA3\n8\nOUTLINE\n10\n100\n20\n100\n11\n260\n21\n100\n"
                + "0\nTEXT\n5\nA4\n8\nTEXT\n10\n300\n20\n60\n40\n5\n1\nnote " + Server.key() + "\n"
                + "0\nENDSEC\n0\nEOF\n";
    }

    private long drawing() {
        return server.file(
                "priya",
                shelf,
                "drawing",
                "marked " + Server.key() + ".dxf",
                sheet(2.75).getBytes(StandardCharsets.US_ASCII),
                true);
    }

    static MakeRemark.Draft cloud(String line) {
        return draft(Tool.CLOUD, line, new Point(112, 112), new Point(128, 128));
    }

    static MakeRemark.Draft draft(Tool tool, String line, Point... points) {
        String text = tool == Tool.STAMP ? "Seen" : "";
        return new MakeRemark.Draft(
                "",
                tool,
                List.of(List.of(points)),
                text,
                Remark.Kind.CHANGE,
                line,
                "",
                BRICK,
                new Box(0, 0, 420, 297),
                Optional.empty());
    }

    /** Puts a note on a version and gives its address. */
    static String noted(Server server, String login, long item, int version, String line) {
        return server.bean(MakeRemark.class)
                .make(server.actor(login), item, version, Server.key(), draft(Tool.NOTE, line, new Point(20, 20)));
    }

    private Remark mark(String login, long item, MakeRemark.Draft draft) {
        String to = make.make(server.actor(login), item, 1, Server.key(), draft);
        return server.bean(RemarkStore.class)
                .remark(Long.parseLong(to.substring(to.lastIndexOf('/') + 1)))
                .orElseThrow();
    }

    private Placed on(long item, int version) {
        return server.bean(ReadRemarks.class)
                .on(server.actor("hedda"), item, version, "")
                .placed()
                .get(0);
    }

    private void set(String login, Remark remark, State to, String why) {
        talk.set(server.actor(login), remark.item(), List.of(remark.id()), Server.key(), to, why);
    }

    private State state(Remark remark) {
        return server.bean(RemarkStore.class).remark(remark.id()).orElseThrow().state();
    }

    private List<String> told(String login) {
        return server.bean(ReadToday.class).today(server.actor(login)).notices().stream()
                .map(n -> n.says())
                .toList();
    }

    @Test
    void aMarkIsNumberedByItsZoneKeptAndDrawn() {
        long item = drawing();
        Remark first = mark("hedda", item, cloud("Does the M6 gland clear?"));
        Remark second = mark("oluwaseun", item, cloud("And here?"));
        assertThat(first.number()).matches("[A-Z]\\d+-1");
        assertThat(second.number()).isEqualTo(first.number().replace("-1", "-2"));
        assertThat(first.mark().anchors()).extracting(a -> a.handle()).containsExactly(0xA2L);
        assertThat(first.view()).isEqualTo(new Box(0, 0, 420, 297));
        String part = Web.as(server, "hedda")
                .get("/documents/" + item + "/versions/1/remarks")
                .body();
        assertThat(part)
                .contains(first.number(), "Does the M6 gland clear?", "data-remark=\"" + first.id() + "\"", "2 open");
        assertThat(server.bean(Sight.class)
                        .of(server.actor("priya"), item)
                        .spine()
                        .remarks())
                .isEqualTo(2);
    }

    @Test
    void itFollowsWhatItMarksToTheNextVersion() {
        long item = drawing();
        mark("hedda", item, cloud("Larger"));
        server.checkIn("priya", item, sheet(3.3).getBytes(StandardCharsets.US_ASCII), true);
        Placed now = on(item, 2);
        assertThat(now.followed().fate()).isEqualTo(Followed.Fate.CHANGED);
        assertThat(now.followed().says()).isEqualTo("moved with ⌀ 5.5 → ⌀ 6.6");
        assertThat(on(item, 1).followed().says()).isEmpty();
        server.checkIn("priya", item, sheet(3.3).replace("CIRCLE", "POINT").getBytes(StandardCharsets.US_ASCII), false);
        assertThat(on(item, 3).followed().says()).isEqualTo("what it marked is gone");
        String part = Web.as(server, "hedda")
                .get("/documents/" + item + "/versions/3/remarks")
                .body();
        assertThat(part).contains("what it marked is gone", "on version 1");
    }

    @Test
    void whoSeesOnlyWhatIsReleasedLearnsNothing() {
        long item = review.drawing(shelf, "read " + Server.key() + ".dxf");
        review.release(item);
        int version = server.document(item).head().number();
        Web rafael = Web.as(server, "rafael");
        List<String> pages = List.of("/documents/" + item + "/versions/" + version + "/sheet");
        List<String> before = pages.stream()
                .map(p -> NonInterferenceTest.masked(rafael.get(p).body()))
                .toList();
        String to = make.make(
                server.actor("hedda"),
                item,
                version,
                Server.key(),
                draft(Tool.NOTE, "secret words", new Point(50, 50)));
        assertThat(pages.stream()
                        .map(p -> NonInterferenceTest.masked(rafael.get(p).body()))
                        .toList())
                .isEqualTo(before);
        for (String path : List.of("/documents/" + item + "/versions/" + version + "/remarks", to, to + "/thread")) {
            assertThat(rafael.get(path).statusCode()).as(path).isEqualTo(404);
        }
        assertThatThrownBy(() -> make.make(
                        server.actor("rafael"), item, version, Server.key(), draft(Tool.NOTE, "x", new Point(50, 50))))
                .isInstanceOf(Refused.class);
        long id = Long.parseLong(to.substring(to.lastIndexOf('/') + 1));
        assertThatThrownBy(() -> talk.reply(server.actor("rafael"), item, id, Server.key(), "x"))
                .isInstanceOf(NotThere.class);
        assertThatThrownBy(() -> talk.set(server.actor("rafael"), item, List.of(id), Server.key(), State.DONE, ""))
                .isInstanceOf(NotThere.class);
    }

    @Test
    void repliesAnswerAndTellWhoIsInTheThread() {
        long item = drawing();
        Remark remark = mark("hedda", item, cloud("Round this edge"));
        assertThat(told("priya")).anyMatch(s -> s.contains("Hedda Lysgaard marked") && s.contains(remark.number()));
        talk.reply(server.actor("priya"), item, remark.id(), Server.key(), "How far?");
        assertThat(state(remark)).isEqualTo(State.ANSWERED);
        assertThat(told("hedda")).anyMatch(s -> s.contains("replied to " + remark.number()) && s.contains("How far?"));
        talk.reply(server.actor("hedda"), item, remark.id(), Server.key(), "0.5 mm");
        assertThat(state(remark)).isEqualTo(State.OPEN);
        assertThat(told("priya")).anyMatch(s -> s.endsWith("0.5 mm"));
        assertThatThrownBy(() -> talk.reply(server.actor("priya"), item, remark.id(), Server.key(), "  "))
                .hasMessageContaining("empty");
        String thread = Web.as(server, "priya")
                .get("/documents/" + item + "/remarks/" + remark.id() + "/thread")
                .body();
        assertThat(thread).contains("How far?", "0.5 mm", "Set done", "Decline", "Reply to " + remark.number());
        assertThat(thread).doesNotContain("Withdraw", "Word it anew");
    }

    @Test
    void whoSeesItNoMoreIsNotTold() {
        long item = drawing();
        String guest = "guest" + Server.key().substring(0, 8);
        server.add(guest, "Guest Checker", "checker");
        Remark remark = mark(guest, item, cloud("private words"));
        talk.reply(server.actor("priya"), item, remark.id(), Server.key(), "answer seen");
        assertThat(told(guest)).anyMatch(s -> s.contains("answer seen"));
        server.actor(guest)
                .access()
                .grants()
                .forEach(g -> server.bean(KeepGrants.class).takeAway(server.actor("ines"), Server.key(), g.id()));
        talk.reply(server.actor("priya"), item, remark.id(), Server.key(), "answer unseen");
        assertThat(told(guest)).noneMatch(s -> s.contains("answer unseen"));
    }

    @Test
    void manyAreSetAtOnceAllOrNone() {
        long item = drawing();
        Remark hers = mark("hedda", item, cloud("one"));
        Remark other = mark("oluwaseun", item, cloud("two"));
        List<Long> both = List.of(hers.id(), other.id());
        assertThatThrownBy(() -> talk.set(server.actor("hedda"), item, both, Server.key(), State.WITHDRAWN, ""))
                .hasMessageContaining("Oluwaseun");
        assertThat(state(hers)).as("none of them").isEqualTo(State.OPEN);
        talk.set(server.actor("priya"), item, both, Server.key(), State.DONE, "in version 2");
        assertThat(state(hers)).isEqualTo(State.DONE);
        assertThat(state(other)).isEqualTo(State.DONE);
        assertThat(told("oluwaseun")).anyMatch(s -> s.contains("set remark " + other.number() + " done"));
        assertThatThrownBy(() -> talk.set(server.actor("priya"), item, both, Server.key(), State.DONE, ""))
                .hasMessageContaining("done already");
        set("hedda", hers, State.OPEN, "not quite");
        set("hedda", hers, State.WITHDRAWN, "");
        assertThat(Web.as(server, "ines").get("/documents/" + item + "/record").body())
                .contains("made remark " + hers.number(), "withdrew remark " + hers.number(), "opened remark");
        assertThat(server.bean(Sight.class)
                        .of(server.actor("priya"), item)
                        .spine()
                        .remarks())
                .isZero();
    }

    @Test
    void remarksOfAnotherDocumentAreNotThere() {
        long item = drawing();
        long other = drawing();
        Remark remark = mark("hedda", item, cloud("one"));
        assertThatThrownBy(() -> talk.remark(server.actor("hedda"), other, remark.id()))
                .isInstanceOf(NotThere.class);
        assertThatThrownBy(() ->
                        talk.set(server.actor("priya"), other, List.of(remark.id()), Server.key(), State.DONE, ""))
                .isInstanceOf(NotThere.class);
        assertThatThrownBy(
                        () -> talk.look(server.actor("hedda"), other, List.of(remark.id()), Server.key(), BRICK, false))
                .isInstanceOf(NotThere.class);
        assertThatThrownBy(() -> make.make(server.actor("hedda"), item, 9, Server.key(), cloud("no such version")))
                .isInstanceOf(NotThere.class);
    }

    @Test
    void aLookIsOnesOwnForTheseOrFromNowOn() {
        long item = drawing();
        Remark hers = mark("hedda", item, cloud("one"));
        Remark other = mark("oluwaseun", item, cloud("two"));
        Look teal = new Look(Colour.TEAL, 7);
        talk.look(server.actor("hedda"), item, List.of(hers.id(), other.id()), Server.key(), teal, true);
        assertThat(talk.look(server.actor("hedda"))).isEqualTo(teal);
        RemarkStore store = server.bean(RemarkStore.class);
        assertThat(store.remark(hers.id()).orElseThrow().mark().look()).isEqualTo(teal);
        assertThat(store.remark(other.id()).orElseThrow().mark().look()).isEqualTo(BRICK);
    }

    @Test
    void wordsAreOnesOwnWhileNobodyAnswered() {
        long item = drawing();
        Remark hers = mark("hedda", item, cloud("one"));
        talk.edit(server.actor("hedda"), item, hers.id(), Server.key(), Remark.Kind.QUESTION, "two", "more");
        Remark now = server.bean(RemarkStore.class).remark(hers.id()).orElseThrow();
        assertThat(now.line() + now.kind() + now.description()).isEqualTo("twoQUESTIONmore");
        assertThat(now.mark()).isEqualTo(hers.mark());
        assertThatThrownBy(() ->
                        talk.edit(server.actor("priya"), item, hers.id(), Server.key(), Remark.Kind.NOTE, "x", ""))
                .hasMessageContaining("Hedda");
        talk.reply(server.actor("priya"), item, hers.id(), Server.key(), "why");
        assertThatThrownBy(() ->
                        talk.edit(server.actor("hedda"), item, hers.id(), Server.key(), Remark.Kind.NOTE, "x", ""))
                .hasMessageContaining("answered");
    }

    @Test
    void aFormThatIsNoMarkIsRefusedInWords() {
        long item = drawing();
        String path = "/documents/" + item + "/versions/1/remarks";
        Web hedda = Web.as(server, "hedda");
        for (Map<String, String> form : List.of(
                form("pen", "1,1", "change"),
                form("note", "", "change"),
                form("note", "1", "change"),
                form("note", "NaN,1", "change"),
                form("note", "1,1", "wish"),
                form("note", "1,99999999", "change"),
                form("ink", "1,1 ".repeat(5000), "change"),
                form("cloud", "1,1;2,2", "change"))) {
            var answer = hedda.post(path, form);
            assertThat(answer.statusCode()).as(form.toString()).isBetween(400, 409);
        }
        assertThat(server.bean(RemarkStore.class).of(item)).isEmpty();
        hedda.post(path, form("ink", "10,10 20,20;30,30 40,40", "note"));
        assertThat(server.bean(RemarkStore.class).of(item))
                .singleElement()
                .satisfies(r -> assertThat(r.mark().strokes()).hasSize(2));
    }

    private static Map<String, String> form(String tool, String points, String kind) {
        return Map.of(
                "actKey", Server.key(), "tool", tool, "points", points, "kind", kind, "colour", "teal", "letters", "5");
    }

    @Test
    void twoWhoMarkOneZoneAtOnceHaveNumbersOfTheirOwn() throws Exception {
        long item = drawing();
        List<Thread> threads = new ArrayList<>();
        for (String login : List.of("hedda", "oluwaseun", "priya", "ines")) {
            Thread thread = new Thread(() -> {
                for (int i = 0; i < 5; i++) mark(login, item, cloud("at once"));
            });
            thread.start();
            threads.add(thread);
        }
        for (Thread thread : threads) thread.join();
        assertThat(server.bean(RemarkStore.class).of(item))
                .hasSize(20)
                .extracting(Remark::number)
                .doesNotHaveDuplicates();
    }

    @Test
    void aReturnCitesRemarksAndTheNextVersionCarriesThem() {
        long item = review.drawing(shelf, "cited " + Server.key() + ".dxf");
        long round = review.send("priya", item);
        Web hedda = Web.as(server, "hedda");
        String to = make.make(
                server.actor("hedda"), item, 2, Server.key(), draft(Tool.NOTE, "Break this edge", new Point(50, 50)));
        Remark remark = server.bean(RemarkStore.class)
                .remark(Long.parseLong(to.substring(to.lastIndexOf('/') + 1)))
                .orElseThrow();
        assertThat(remark.round()).contains(round);
        assertThat(told("priya")).as("its decision tells").noneMatch(s -> s.contains("Break this edge"));
        String page = hedda.get("/rounds/" + round).body();
        assertThat(page).contains(remark.number(), "Break this edge", "1 open remark", "name=\"cite\"", "checked");
        assertThat(page).contains("data-remark=\"" + remark.id() + "\"");
        String seen = review.digest("hedda", round);
        hedda.post(
                "/rounds/" + round + "/answer",
                Map.of(
                        "actKey",
                        Server.key(),
                        "seen",
                        seen,
                        "decision",
                        "returned",
                        "remark",
                        "",
                        "cite",
                        "" + remark.id()));
        assertThat(server.document(item).pending().orElseThrow().stage().stageClass())
                .isEqualTo(StageClass.PREPARING);
        assertThat(Web.as(server, "priya").get("/documents/" + item).body())
                .contains(remark.number() + ": Break this edge", "1 open remark");
        // Without words and without a remark it is not returned.
        long again = review.send("priya", item);
        var refused = hedda.post(
                "/rounds/" + again + "/answer",
                Map.of(
                        "actKey",
                        Server.key(),
                        "seen",
                        review.digest("hedda", again),
                        "decision",
                        "returned",
                        "remark",
                        "",
                        "cite",
                        "999999"));
        assertThat(refused.body()).contains("Returning needs a word why.");
    }

    @Test
    void checkingInAsksOfEachOpenRemark() {
        long item = drawing();
        Remark made = mark("hedda", item, cloud("Larger"));
        Remark not = mark("hedda", item, cloud("Chamfer"));
        Remark later = mark("hedda", item, cloud("Perhaps"));
        Web priya = Web.as(server, "priya");
        assertThat(priya.get("/check-in?items=" + item).body())
                .contains("3 open remarks", "name=\"remark." + item + "." + made.id() + "\"", "Chamfer");
        String token = server.bring("priya", "marked.dxf", sheet(3.3).getBytes(StandardCharsets.US_ASCII));
        Map<String, String> form = new HashMap<>(Map.of("actKey", Server.key(), "upload." + item, token));
        form.put(
                "hold." + item,
                "" + server.document(item).holder().orElseThrow().hold());
        form.put("remark." + item + "." + made.id(), "done");
        form.put("remark." + item + "." + not.id(), "declined");
        // A decision that would be lost is refused before anything is checked in.
        assertThat(priya.post("/check-in", form).body()).contains("A remark is declined without words.");
        assertThat(server.document(item).head().number()).isEqualTo(1);
        form.put("why." + not.id(), "The rim hides it.");
        form.put("remark." + item + "." + later.id(), "later");
        priya.post("/check-in", form);
        assertThat(server.document(item).head().number()).isEqualTo(2);
        assertThat(state(made)).isEqualTo(State.DONE);
        assertThat(state(not)).isEqualTo(State.DECLINED);
        assertThat(state(later)).isEqualTo(State.OPEN);
        assertThat(told("hedda"))
                .anyMatch(s -> s.endsWith("With version 2"))
                .anyMatch(s -> s.endsWith("The rim hides it."));
        assertThat(priya.get("/documents/" + item).body()).contains("1 open remark");
    }

    @Test
    void aRouteCanDemandThatNoChangeIsWanted() {
        long item = drawing();
        Remark change = mark("hedda", item, cloud("Larger"));
        var seen = List.of(server.bean(Sight.class).of(server.actor("priya"), item));
        Supplier<List<Refusal>> gate = () -> Gates.NO_OPEN_CHANGE_REMARK.ask(
                server.bean(Cases.class).of(server.actor("priya"), seen).get(item), By.HAND);
        assertThat(gate.get())
                .singleElement()
                .satisfies(r -> assertThat(r.reason()).contains(change.number()));
        set("priya", change, State.DONE, "");
        assertThat(gate.get()).isEmpty();
    }
}
