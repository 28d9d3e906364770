package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.run.PlanMoved;
import mintshelf.app.effect.run.SetAct;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.run.Run;
import mintshelf.app.store.run.RunStore;
import mintshelf.app.use.change.AskForChange;
import mintshelf.app.use.hold.CheckOut;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.run.ActOverSet;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Refusal;
import mintshelf.core.signoff.Decision;
import org.junit.jupiter.api.Test;

/** Acts over sets: the plan that was seen is what is done, in portions that are whole, by whoever is there to go on. */
class ActOverSetTest {
    private static final Wish RELEASE = Wish.move("release", "");
    private static final String RELEASE_JSON =
            "{\"move\":\"release\",\"decision\":null,\"words\":\"\",\"version\":null,\"above\":false}";

    private final Server server = Server.shared();
    private final Review review = new Review(server);
    private final ActOverSet over = server.bean(ActOverSet.class);
    private final RunStore runs = server.bean(RunStore.class);
    private final UnitOfWork unit = server.bean(UnitOfWork.class);
    private final String login = designer();

    private String designer() {
        String name = "s" + Server.key().substring(0, 8);
        server.add(name, "Setter " + name, "designer");
        return name;
    }

    private long text(long shelf, String name) {
        return server.file(login, shelf, name + Server.key() + ".txt", "text " + Server.key(), false);
    }

    private Plan<SetAct.PlanLine> plan(List<Long> items, Wish wish) {
        return over.plan(server.actor(login), Run.What.MOVE, items, wish);
    }

    private boolean released(long item) {
        return server.document(item).released().isPresent();
    }

    @Test
    void aPlanSaysWhatItWouldDoAndARunDoesThatAndNothingElse() {
        long shelf = server.shelf();
        List<Long> items = List.of(text(shelf, "one"), text(shelf, "two"));
        Plan<SetAct.PlanLine> plan = plan(items, RELEASE);
        assertThat(plan.opens()).isTrue();
        assertThat(plan.sentence()).isEqualTo("2 go.");
        assertThat(plan.rows().get(0).of().from()).contains("In preparation");
        assertThat(plan.rows().get(0).of().to()).contains("Released");
        assertThat(items).noneMatch(this::released);

        String key = Server.key();
        String digest = ActOverSet.digest(plan);
        long run = over.begin(server.actor(login), Run.What.MOVE, items, RELEASE, Optional.of(digest), key);
        assertThat(items).allMatch(this::released);
        assertThat(runs.run(run).orElseThrow().state()).isEqualTo(Run.State.DONE);
        assertThat(runs.rows(run, 0, 10))
                .containsExactlyInAnyOrder(
                        new Run.Row(items.get(0), "moved", 1), new Run.Row(items.get(1), "moved", 1));
        assertThat(over.begin(server.actor(login), Run.What.MOVE, items, RELEASE, Optional.of(digest), key))
                .as("sent twice it is done once")
                .isEqualTo(run);
        assertThat(Web.as(server, login).get("/runs/" + run).body())
                .contains("Move 2 documents to Released", "Done", "2 of 2", "moved with version 1");
        assertThat(Web.as(server, login).get("/runs").body()).contains("/runs/" + run);
    }

    @Test
    void whenTheWorldHasChangedTheAnswerIsTheNewPlanAndNothingIsDone() {
        long shelf = server.shelf();
        long free = text(shelf, "free");
        long taken = text(shelf, "taken");
        String digest = ActOverSet.digest(plan(List.of(free, taken), RELEASE));
        server.checkOut("tomasz", taken);
        assertThatThrownBy(() -> over.begin(
                        server.actor(login),
                        Run.What.MOVE,
                        List.of(free, taken),
                        RELEASE,
                        Optional.of(digest),
                        Server.key()))
                .isInstanceOfSatisfying(PlanMoved.class, moved -> {
                    assertThat(moved.plan().opens()).isFalse();
                    assertThat(moved.plan().refusals())
                            .extracting(Refusal::code)
                            .containsExactly("gate.held");
                });
        assertThat(released(free)).isFalse();
        String closed = ActOverSet.digest(plan(List.of(free, taken), RELEASE));
        assertThatThrownBy(() -> over.begin(
                        server.actor(login),
                        Run.What.MOVE,
                        List.of(free, taken),
                        RELEASE,
                        Optional.of(closed),
                        Server.key()))
                .as("a plan that does not open is not done")
                .isInstanceOf(Refused.class);
        assertThat(released(free)).isFalse();
    }

    @Test
    void whatIsDoneOnAPageOfItsOwnIsRefusedWithItsPage() {
        long sheet = review.drawing(server.shelf(), "asks.dxf");
        assertThat(over.plan(server.actor("priya"), Run.What.MOVE, List.of(sheet), Wish.move("send", ""))
                        .refusals())
                .extracting(Refusal::code)
                .contains("move.asks");
        assertThatThrownBy(() -> over.plan(server.actor("rafael"), Run.What.MOVE, List.of(sheet), RELEASE))
                .as("what somebody may not know of is not there")
                .isInstanceOf(NotThere.class);
        assertThatThrownBy(() -> over.plan(server.actor(login), Run.What.CHECK_IN, List.of(sheet), Wish.NONE))
                .isInstanceOf(NotThere.class);
    }

    @Test
    void aReadersPlanSaysTheSameWhateverIsPreparedHeldOrOnAnOrder() {
        long shelf = server.shelf();
        long item = review.drawing(shelf, "read.dxf");
        review.release(item);
        Actor rafael = server.actor("rafael");
        List<Wish> wishes = List.of(Wish.move("withdraw", "x"), Wish.move("send", ""), Wish.takeUp(true));
        List<String> before = wishes.stream().map(w -> said(rafael, item, w)).toList();
        assertThat(before).allMatch(s -> s.contains("[access.missing]"));
        server.bean(AskForChange.class)
                .ask(server.actor("priya"), List.of(item), Server.key(), "Hush", "because", Map.of());
        assertThat(wishes.stream().map(w -> said(rafael, item, w)).toList()).isEqualTo(before);

        long other = review.drawing(shelf, "read too.dxf");
        review.release(other);
        List<String> quiet = wishes.stream().map(w -> said(rafael, other, w)).toList();
        server.bean(StartRevisions.class).start(server.actor("priya"), List.of(other), Server.key(), "hush", "", true);
        assertThat(wishes.stream().map(w -> said(rafael, other, w)).toList()).isEqualTo(quiet);
    }

    private String said(Actor actor, long item, Wish wish) {
        Run.What what = wish.move().isPresent() ? Run.What.MOVE : Run.What.TAKE_UP;
        Plan<SetAct.PlanLine> plan = over.plan(actor, what, List.of(item), wish);
        Plan.Row<SetAct.PlanLine> row = plan.rows().get(0);
        return ActOverSet.digest(plan)
                + row.stand()
                + row.of().says()
                + row.refusals().stream().map(Refusal::code).toList()
                + row.refusals();
    }

    /** As a node leaves it that dies right after it was asked. */
    private long abandoned(List<Long> items, List<String> expected) {
        List<Run.Due> due = new ArrayList<>();
        for (int i = 0; i < items.size(); i++) due.add(new Run.Due(items.get(i), expected.get(i)));
        Instant past = Instant.now().minusSeconds(60);
        return unit.run(() -> runs.begin(
                        server.actor(login).person(),
                        Server.key(),
                        Run.What.MOVE,
                        "Move them",
                        RELEASE_JSON,
                        due,
                        past,
                        past)
                .id());
    }

    private Run awaitEnd(long run) {
        for (int i = 0; i < 600; i++) {
            over.goOnWithNext();
            Run now = runs.run(run).orElseThrow();
            if (!now.isWorking()) return now;
            try {
                Thread.sleep(50);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        }
        throw new AssertionError("It did not end");
    }

    @Test
    void aRunWhoseNodeHasDiedIsGoneOnWithAndItsPersonIsTold() {
        List<Long> items = ManyDocuments.preparing(server, 230);
        long run = abandoned(items, items.stream().map(i -> "1").toList());
        Run done = awaitEnd(run);
        assertThat(done.state()).as(done.says()).isEqualTo(Run.State.DONE);
        assertThat(done.done()).isEqualTo(230);
        assertThat(items).allMatch(this::released);
        assertThat(runs.rows(run, 0, 1000)).hasSize(230).noneMatch(Run.Row::waits);
        assertThat(Web.as(server, login).get("/today").body()).contains("Move them: done");
        String page = Web.as(server, login).get("/runs/" + run).body();
        assertThat(page).contains("From row 201").contains("230 of 230");
        assertThat(Web.as(server, login).get("/runs/" + run + "?from=200").body())
                .contains("From the first")
                .doesNotContain("From row 401");
    }

    @Test
    void aPortionThatIsRefusedStopsItWithWhatWasDoneBeforeAndTheRestGoesOnWhenItIsMended() {
        List<Long> items = ManyDocuments.preparing(server, 150);
        List<String> expected = new ArrayList<>(items.stream().map(i -> "1").toList());
        server.checkOut(login, items.get(140));
        long run = abandoned(items, expected);
        Run stopped = awaitEnd(run);
        assertThat(stopped.state()).isEqualTo(Run.State.STOPPED);
        assertThat(stopped.done()).as(stopped.says()).isEqualTo(ActOverSet.PORTION);
        assertThat(stopped.says())
                .contains("stopped: You hold " + server.document(items.get(140)).number());
        assertThat(items.stream().filter(this::released).count())
                .as("whole portions")
                .isEqualTo(ActOverSet.PORTION);
        String page = Web.as(server, login).get("/runs/" + run).body();
        assertThat(page).contains("Stopped", "Go on with the 50 that are left", "stays");
        assertThat(Web.as(server, "ines").get("/runs/" + run).body()).doesNotContain("Go on with");

        assertThatThrownBy(() -> over.rest(server.actor(login), run, Server.key()))
                .as("nothing was mended yet")
                .isInstanceOf(Refused.class);
        assertThatThrownBy(() -> over.rest(server.actor("ines"), run, Server.key()))
                .as("a run of somebody else")
                .isInstanceOf(NotThere.class);
        server.bean(CheckOut.class).undo(server.actor(login), List.of(items.get(140)), Server.key());
        long rest = over.rest(server.actor(login), run, Server.key());
        assertThat(awaitEnd(rest).state()).isEqualTo(Run.State.DONE);
        assertThat(items).allMatch(this::released);
    }

    @Test
    void whatHasMovedOnSinceItWasSeenIsNotDoneUnseen() {
        long item = text(server.shelf(), "moved");
        server.checkOut(login, item);
        server.checkIn(login, item, "second " + Server.key(), false);
        Run stopped = awaitEnd(abandoned(List.of(item), List.of("1")));
        assertThat(stopped.state()).isEqualTo(Run.State.STOPPED);
        assertThat(stopped.says()).contains("at version 2 now; your page showed version 1");
        assertThat(released(item)).isFalse();
    }

    @Test
    void aPortionCountsOnlyWhileItsLeaseIsStillItsOwn() {
        long item = text(server.shelf(), "lease");
        Instant future = Instant.now().plusSeconds(300);
        RunStore.Work first = unit.run(() -> runs.begin(
                server.actor(login).person(),
                Server.key(),
                Run.What.MOVE,
                "Move it",
                RELEASE_JSON,
                List.of(new Run.Due(item, "1")),
                Instant.now(),
                future));
        assertThat(unit.run(() -> runs.locked(first))).isPresent();
        server.db().execute("update run set lease_until = ? where id = ?", "2020-01-01 00:00:00", first.id());
        assertThat(unit.run(() -> runs.locked(first))).as("another one has it").isEmpty();
        assertThat(unit.run(() -> runs.stop(first, "late", Instant.now()))).isFalse();
        assertThat(awaitEnd(first.id()).state()).isEqualTo(Run.State.DONE);
    }

    @Test
    void aRunOfWhoHasLeftStops() {
        long item = text(server.shelf(), "left");
        long run = abandoned(List.of(item), List.of("1"));
        server.db().execute("update person set left_at = now(6) where login = ?", login);
        Run ended = awaitEnd(run);
        // Another worker may have been faster than the person who left.
        if (ended.isStopped()) assertThat(ended.says()).contains("Who asked for it has left.");
    }

    @Test
    void manyRoundsAreSignedAlikeARoundIsARow() {
        long shelf = server.shelf();
        long one = review.drawing(shelf, "many one.dxf");
        long two = review.drawing(shelf, "many two.dxf");
        long alone = review.drawing(shelf, "many alone.dxf");
        review.send("priya", one, two);
        review.send("priya", alone);
        Wish sign = Wish.sign(Decision.SIGNED, "");
        Plan<SetAct.PlanLine> plan = over.plan(server.actor("hedda"), Run.What.SIGN, List.of(one, two, alone), sign);
        assertThat(plan.rows()).hasSize(2);
        assertThat(plan.rows().get(0).of().says())
                .containsExactly("as checked", "with " + server.document(two).number() + ", which was sent with it");
        assertThat(over.plan(server.actor("priya"), Run.What.SIGN, List.of(alone), sign)
                        .opens())
                .as("who worked on it does not sign")
                .isFalse();
        long run = over.begin(
                server.actor("hedda"),
                Run.What.SIGN,
                List.of(one, two, alone),
                sign,
                Optional.of(ActOverSet.digest(plan)),
                Server.key());
        assertThat(runs.rows(run, 0, 10)).extracting(Run.Row::became).containsExactly("signed", "signed");
        over.begin(server.actor("oluwaseun"), Run.What.SIGN, List.of(one, alone), sign, Optional.empty(), Server.key());
        assertThat(List.of(one, two, alone)).allMatch(this::released);
        assertThatThrownBy(() ->
                        over.plan(server.actor("hedda"), Run.What.SIGN, List.of(one), Wish.sign(Decision.RETURNED, "")))
                .as("returning needs a word")
                .isInstanceOf(Refused.class);
    }

    @Test
    void anEarlierVersionOfManyBecomesCurrentAgain() {
        long shelf = server.shelf();
        long item = text(shelf, "again");
        long single = text(shelf, "single");
        server.checkOut(login, item);
        server.checkIn(login, item, "second " + Server.key(), false);
        Wish first = Wish.version(1, "back to it");
        Plan<SetAct.PlanLine> plan = over.plan(server.actor(login), Run.What.REINSTATE, List.of(item, single), first);
        assertThat(plan.refusals()).extracting(Refusal::code).containsExactly("version.latest");
        long run = over.begin(
                server.actor(login), Run.What.REINSTATE, List.of(item), first, Optional.empty(), Server.key());
        assertThat(runs.rows(run, 0, 10)).containsExactly(new Run.Row(item, "version", 3));
        assertThat(over.plan(server.actor(login), Run.What.REINSTATE, List.of(item), Wish.version(9, ""))
                        .refusals())
                .extracting(Refusal::code)
                .containsExactly("version.none");
    }

    @Test
    void reportsOfLongAgoAreForgottenAndWhatWasDoneStays() {
        long item = text(server.shelf(), "old");
        long run =
                over.begin(server.actor(login), Run.What.MOVE, List.of(item), RELEASE, Optional.empty(), Server.key());
        server.db().execute("update run set ended_at = '2020-01-01' where id = ?", run);
        over.forget();
        assertThat(runs.run(run)).isEmpty();
        assertThat(released(item)).isTrue();
    }
}
