package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicInteger;
import mintshelf.app.effect.Habits;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.filing.FilingStore;
import mintshelf.app.store.hold.StrayStore;
import mintshelf.app.store.notice.NoticeStore;
import mintshelf.app.use.filing.FileDocuments;
import mintshelf.app.use.filing.FilingSheets;
import mintshelf.app.use.hold.BreakHold;
import mintshelf.app.use.hold.CheckIn;
import mintshelf.app.use.hold.CheckOut;
import mintshelf.app.use.hold.Strays;
import mintshelf.app.use.verify.Verify;
import mintshelf.core.hold.Became;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

class HoldTest {
    private final Server server = Server.shared();
    private final BreakHold breakHold = server.bean(BreakHold.class);
    private final CheckOut checkOut = server.bean(CheckOut.class);
    private final CheckIn checkIn = server.bean(CheckIn.class);
    private final Strays strays = server.bean(Strays.class);

    @Test
    void aRoundTripMakesTheNextVersion() {
        long item = server.file("priya", server.shelf(), "cone.txt", "one", false);
        server.checkOut("priya", item);
        assertThat(server.checkIn("priya", item, "two", false)).isEqualTo(item + "v2");
        assertThat(server.document(item).head().number()).isEqualTo(2);
        assertThat(server.document(item).holder()).isEmpty();
    }

    @Test
    void keepingTheHoldStandsItOnTheNewVersion() {
        long item = server.file("priya", server.shelf(), "ring.txt", "one", true);
        server.checkIn("priya", item, "two", true);
        assertThat(server.document(item).holder().orElseThrow().baseVersion())
                .isEqualTo(server.document(item).head().version());
        assertThat(server.checkIn("priya", item, "three", false)).endsWith("v3");
    }

    @Test
    void theSameBytesMakeNoVersionAndEndTheCheckOut() {
        long item = server.file("priya", server.shelf(), "lid.txt", "same", true);
        assertThat(server.checkIn("priya", item, "same", false)).isEqualTo(item + "u1");
        assertThat(server.document(item).head().number()).isEqualTo(1);
        assertThat(server.document(item).holder()).isEmpty();
    }

    @Test
    void plansPassUnseenOnceThreeWereTakenAsProposedAndNeverOverOthersWork() {
        String login = "q" + Server.key().substring(0, 8);
        server.add(login, "Quiet " + login, "designer");
        Web web = Web.as(server, login);
        Habits habits = server.bean(Habits.class);
        for (int i = 0; i < 3; i++) {
            assertThat(habits.couldBeQuiet(server.actor(login), "check-out")).isFalse();
            habits.tookAsProposed(server.actor(login), "check-out");
        }
        assertThat(habits.couldBeQuiet(server.actor(login), "check-out")).isTrue();
        habits.choseQuiet(server.actor(login), "check-out", true);
        assertThat(habits.couldBeQuiet(server.actor(login), "check-out")).isFalse();
        long mine = server.file(login, server.shelf(), "quiet.txt", "mine", false);
        long others = server.file("priya", server.shelf(), "loud.txt", "theirs", true);
        assertThat(web.get("/check-out?items=" + mine).body()).contains("data-unseen");
        assertThat(web.get("/check-out?items=" + mine + "," + others).body())
                .contains("held by")
                .doesNotContain("data-unseen");
    }

    @Test
    void aSetIsGrantedWholeOrNotAtAll() {
        long shelf = server.shelf();
        long a = server.file("priya", shelf, "a.txt", "a", false);
        long b = server.file("tomasz", shelf, "b.txt", "b", true);
        assertThatThrownBy(() -> checkOut.take(server.actor("priya"), List.of(a, b), Server.key(), "", ""))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("Tomasz Okrent");
        assertThat(server.document(a).holder()).isEmpty();
    }

    @Test
    void aStrayIsFiledAsADocumentOfItsOwnThatSaysWhatItWasDerivedFrom() {
        long item =
                server.file("priya", server.shelf(), "bush " + server.shelf() + ".txt", "bush" + Server.key(), false);
        server.checkOut("priya", item);
        server.checkIn("tomasz", item, "wider bush " + item, false);
        StrayStore.Stray stray = server.bean(StrayStore.class).kept(item).get(0);
        Web web = Web.as(server, "tomasz");
        String to = web.post("/strays/" + stray.id() + "/file-as-new", Map.of())
                .headers()
                .firstValue("Location")
                .orElseThrow();
        long sheet = Long.parseLong(to.replaceAll(".*/", ""));
        FilingSheets filing = server.bean(FilingSheets.class);
        FilingSheets.Sheet open = filing.sheet(server.actor("tomasz"), sheet);
        assertThat(open.derivedFrom().orElseThrow().spine().id()).isEqualTo(item);
        FilingStore.Row row = open.lines().get(0).row();
        assertThat(row.number()).isEmpty();
        assertThat(open.lines().get(0).upload().fileName()).endsWith("derived.txt");
        filing.keep(
                server.actor("tomasz"),
                sheet,
                List.of(new FilingStore.Row(
                        row.id(),
                        row.upload(),
                        true,
                        Optional.of(server.kind(Server.PLAIN)),
                        "",
                        "",
                        "",
                        "Wider bush",
                        "",
                        row.revision(),
                        "",
                        row.folder(),
                        Map.of("material", "POM"),
                        row.sameAs(),
                        row.item())));
        assertThat(server.bean(FileDocuments.class)
                        .file(server.actor("tomasz"), sheet, Server.key(), false)
                        .problems())
                .isEmpty();
        long made = filing.sheet(server.actor("tomasz"), sheet)
                .lines()
                .get(0)
                .row()
                .item()
                .orElseThrow();
        assertThat(web.get("/documents/" + made + "/refers-to").body())
                .contains("derived from")
                .contains(server.document(item).number());
        assertThat(new String(server.bytes(made), StandardCharsets.UTF_8)).isEqualTo("wider bush " + item);
    }

    @Test
    void theNextRevisionBeginsWithAStray() {
        long item = server.released(server.shelf(), "cam " + server.shelf() + ".txt");
        server.checkIn("tomasz", item, "faster cam " + item, false);
        StrayStore.Stray stray = server.bean(StrayStore.class).kept(item).get(0);
        Web web = Web.as(server, "tomasz");
        assertThat(web.get("/strays/" + stray.id()).body()).contains("Start the next revision with it");
        web.get("/start-revision?items=" + item + "&stray=" + stray.id());
        web.post(
                "/start-revision",
                Map.of("items", "" + item, "stray", "" + stray.id(), "actKey", Server.key(), "reason", "speed"));
        assertThat(server.document(item).pending().orElseThrow().shown()).isEqualTo("B");
        assertThat(server.document(item).holder().orElseThrow().name()).isEqualTo("Tomasz Okrent");
        assertThat(new String(server.bytes(item), StandardCharsets.UTF_8)).isEqualTo("faster cam " + item);
        assertThat(server.bean(StrayStore.class).kept(item)).isEmpty();
    }

    @Test
    void aBrokenHoldTellsItsHolderAndTheirFileBecomesAStray() {
        long item = server.file("tomasz", server.shelf(), "clamp.txt", "one", true);
        long hold = server.document(item).holder().orElseThrow().hold();
        assertThatThrownBy(() -> breakHold.breakHold(server.actor("priya"), item, Server.key(), hold, "away"))
                .isInstanceOf(Refused.class);
        breakHold.breakHold(server.actor("ines"), item, Server.key(), hold, "away until Monday");
        assertThat(server.bean(NoticeStore.class).open(server.actor("tomasz").person(), 50))
                .anySatisfy(n -> assertThat(n.says())
                        .contains("away until Monday")
                        .contains(server.document(item).number()));
        String token = server.bring("tomasz", "clamp.txt", "work of tomasz".getBytes(StandardCharsets.UTF_8));
        List<Became> result = checkIn.take(
                server.actor("tomasz"), List.of(new CheckIn.Row(item, token, hold)), Server.key(), "slot", false);
        assertThat(result)
                .singleElement()
                .satisfies(b -> assertThat(b.fate()).isEqualTo(Became.Fate.STRAY))
                .satisfies(b -> assertThat(b.document()).isEqualTo(item));
        StrayStore.Stray stray = server.bean(StrayStore.class).kept(item).get(0);
        assertThat(stray.comment()).isEqualTo("slot");
        strays.adopt(server.actor("priya"), stray.id(), Server.key(), 1, "");
        assertThat(server.document(item).head().number()).isEqualTo(2);
        assertThat(server.document(item).head().content())
                .isEqualTo(stray.content().hash());
        assertThatThrownBy(() -> strays.drop(server.actor("tomasz"), stray.id(), Server.key()))
                .isInstanceOf(Refused.class);
    }

    @Test
    void aStrayIsDroppedByItsAuthorOrAKeeperOnly() {
        long item = server.file("tomasz", server.shelf(), "guide.txt", "one", false);
        server.checkIn("tomasz", item, "unheld", false);
        StrayStore.Stray stray = server.bean(StrayStore.class).kept(item).get(0);
        assertThatThrownBy(() -> strays.drop(server.actor("priya"), stray.id(), Server.key()))
                .isInstanceOf(Refused.class);
        strays.drop(server.actor("tomasz"), stray.id(), Server.key());
        assertThat(server.bean(StrayStore.class).kept(item)).isEmpty();
    }

    @Test
    void theSameFormPostedTwiceMakesOneVersionAndTheSameAnswer() throws Exception {
        long item = server.file("priya", server.shelf(), "twice.txt", "one", true);
        long hold = server.document(item).holder().orElseThrow().hold();
        String token = server.bring("priya", "twice.txt", "two".getBytes(StandardCharsets.UTF_8));
        String key = Server.key();
        var pool = Executors.newFixedThreadPool(4);
        try {
            List<Future<List<Became>>> answers = new ArrayList<>();
            for (int i = 0; i < 4; i++) {
                answers.add(pool.submit(() -> checkIn.take(
                        server.actor("priya"), List.of(new CheckIn.Row(item, token, hold)), key, "", false)));
            }
            for (Future<List<Became>> answer : answers)
                assertThat(answer.get())
                        .containsExactly(new Became(
                                item,
                                Became.Fate.VERSION,
                                2,
                                answer.get().get(0).version()));
        } finally {
            pool.shutdown();
        }
        assertThat(server.document(item).head().number()).isEqualTo(2);
    }

    @Test
    void anUploadIsUsedOnceAndItsBytesStayWholeThoughTwoActsTakeItAtOnce() throws Exception {
        long shelf = server.shelf();
        long one = server.file("priya", shelf, "first.txt", "one", true);
        long other = server.file("priya", shelf, "second.txt", "other", true);
        byte[] bytes = "both want these bytes".getBytes(StandardCharsets.UTF_8);
        String token = server.bring("priya", "first.txt", bytes);
        List<Future<List<Became>>> answers = new ArrayList<>();
        var pool = Executors.newFixedThreadPool(2);
        try {
            for (long item : List.of(one, other)) {
                long hold = server.document(item).holder().orElseThrow().hold();
                answers.add(pool.submit(() -> checkIn.take(
                        server.actor("priya"), List.of(new CheckIn.Row(item, token, hold)), Server.key(), "", false)));
            }
            int refused = 0;
            for (Future<List<Became>> answer : answers) {
                try {
                    answer.get();
                } catch (ExecutionException e) {
                    assertThat(e.getCause()).isInstanceOf(Refused.class);
                    refused++;
                }
            }
            assertThat(refused).isEqualTo(1);
        } finally {
            pool.shutdown();
        }
        long taken = server.document(one).head().number() == 2 ? one : other;
        assertThat(server.document(one).head().number()
                        + server.document(other).head().number())
                .isEqualTo(3);
        assertThat(server.bytes(taken)).isEqualTo(bytes);
    }

    @Test
    void aDocumentStandsInACheckInOnce() {
        long item = server.file("priya", server.shelf(), "doubled.txt", "one", true);
        long hold = server.document(item).holder().orElseThrow().hold();
        CheckIn.Row a = new CheckIn.Row(item, server.bring("priya", "doubled.txt", new byte[] {'a'}), hold);
        CheckIn.Row b = new CheckIn.Row(item, server.bring("priya", "doubled.txt", new byte[] {'b'}), hold);
        assertThatThrownBy(() -> checkIn.take(server.actor("priya"), List.of(a, b), Server.key(), "", false))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("twice");
        assertThat(server.document(item).head().number()).isEqualTo(1);
    }

    @Test
    void aSetOfManyTakesAFewStatementsMoreThanOneAlone() {
        long shelf = server.shelf();
        List<Long> items = new ArrayList<>();
        for (int i = 0; i < 20; i++) items.add(server.file("priya", shelf, "m" + i + ".txt", "m" + i, false));
        int[] counts = new int[2];
        for (int turn = 0; turn < 2; turn++) {
            List<Long> set = items.subList(turn, turn == 0 ? 1 : 20);
            int before = Server.statements();
            checkOut.take(server.actor("priya"), set, Server.key(), "", "");
            counts[turn] = Server.statements() - before;
        }
        assertThat(counts[1]).as("the run and its rows").isLessThanOrEqualTo(counts[0] + 2);
    }

    @Test
    void sixteenThreadsOverOverlappingSetsLeaveOneHolderALine() throws Exception {
        race(60);
    }

    @Test
    @Tag("long")
    void aThousandRoundsOfOverlappingSets() throws Exception {
        race(1000);
    }

    /** Each round, a random overlapping set is checked out and given back; nothing but a refusal may come of it. */
    private void race(int rounds) throws Exception {
        long shelf = server.shelf();
        List<Long> items = new ArrayList<>();
        for (int i = 0; i < 12; i++) items.add(server.file("priya", shelf, "race" + i + ".txt", "r" + i, false));
        AtomicInteger left = new AtomicInteger(rounds);
        AtomicInteger granted = new AtomicInteger();
        var pool = Executors.newFixedThreadPool(16);
        try {
            List<Future<?>> all = new ArrayList<>();
            for (int t = 0; t < 16; t++) {
                int seed = t;
                all.add(pool.submit(() -> {
                    Random random = new Random(seed);
                    String who = seed % 2 == 0 ? "priya" : "tomasz";
                    while (left.decrementAndGet() >= 0) {
                        List<Long> set = new ArrayList<>(items);
                        Collections.shuffle(set, random);
                        set = List.copyOf(set.subList(0, 1 + random.nextInt(5)));
                        try {
                            checkOut.take(server.actor(who), set, Server.key(), "", "");
                            granted.incrementAndGet();
                            checkOut.undo(server.actor(who), set, Server.key());
                        } catch (Refused refused) {
                            assertThat(refused.refusal().code()).isEqualTo("check_out.refused");
                        }
                    }
                }));
            }
            for (Future<?> each : all) each.get();
        } finally {
            pool.shutdown();
        }
        assertThat(granted.get()).isPositive();
        assertThat(server.db()
                        .fetchSingle(
                                "select count(*) from hold where open_mark = 1 and item in (select id from item where shelf = ?)",
                                shelf)
                        .get(0, Long.class))
                .isZero();
        assertThat(server.bean(Verify.class).verify().problems()).isEmpty();
    }
}
