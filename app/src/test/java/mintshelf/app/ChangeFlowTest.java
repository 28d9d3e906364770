package mintshelf.app;

import static mintshelf.database.schema.Tables.ASK;
import static mintshelf.database.schema.Tables.PAPER_STAND;
import static mintshelf.database.schema.Tables.PAPER_STAY;
import static mintshelf.database.schema.Tables.REVISION;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Refused;
import mintshelf.app.use.change.AskForChange;
import mintshelf.app.use.change.MoveRequest;
import mintshelf.app.use.change.ReadChanges;
import mintshelf.app.use.change.ReadChanges.Which;
import mintshelf.app.use.change.WriteRequest;
import mintshelf.core.change.Cause;
import mintshelf.core.change.Flow;
import mintshelf.core.change.Pace;
import mintshelf.core.change.PaperType;
import mintshelf.core.change.Priority;
import mintshelf.core.revision.StageClass;
import org.jooq.DatePart;
import org.jooq.impl.DSL;
import org.junit.jupiter.api.Test;

/** Where papers of change stand, as the triggers keep it and as the list and the flow say it. */
class ChangeFlowTest {
    private final Server server = Server.shared();
    private final Review review = new Review(server);
    private final long shelf = server.shelf();
    private final ReadChanges read = server.bean(ReadChanges.class);
    private final MoveRequest move = server.bean(MoveRequest.class);

    private long asked() {
        long item = review.drawing(shelf, "flow " + Server.key() + ".dxf");
        review.release(item);
        return RequestTest.asked(server, "priya", item);
    }

    private Optional<String> stands(long paper) {
        return server.db()
                .select(PAPER_STAND.CLASS)
                .from(PAPER_STAND)
                .where(PAPER_STAND.PAPER.eq(paper), PAPER_STAND.DROPPED.isFalse())
                .fetchOptional(PAPER_STAND.CLASS);
    }

    private List<String> left(long paper) {
        return server.db()
                .select(PAPER_STAY.STAGE)
                .from(PAPER_STAY)
                .where(PAPER_STAY.PAPER.eq(paper))
                .orderBy(PAPER_STAY.ID)
                .fetch(PAPER_STAY.STAGE);
    }

    private List<Long> listed(String login, Which which) {
        return read.list(server.actor(login), which, 0, 500).groups().stream()
                .flatMap(g -> g.rows().stream())
                .map(r -> r.seen().spine().id())
                .toList();
    }

    @Test
    void whatStandsWhereIsWhatTheirRevisionsSay() {
        long request = asked();
        assertThat(stands(request)).contains("PREPARING");
        assertThat(left(request)).isEmpty();
        move.toBoard(server.actor("priya"), request, Server.key(), "please");
        assertThat(stands(request)).contains("DECIDING");
        move.decide(server.actor("oluwaseun"), request, Server.key(), "decline", "no", Optional.empty());
        assertThat(stands(request)).contains("CLOSED");
        assertThat(left(request)).hasSize(2);
        // Against the revisions themselves, over all papers of the house.
        assertThat(server.db()
                        .fetchOne(
                                "select count(*) from paper p join item i on i.id = p.item join revision r on r.item = p.item join stage g on g.edition = r.edition and g.code = r.stage left join paper_stand s on s.paper = p.item where r.ordinal = (select max(x.ordinal) from revision x where x.item = r.item) and not (s.class <=> g.class and s.stage <=> g.name and s.since <=> r.stage_since and s.shelf <=> i.shelf and s.cause <=> p.cause and s.type <=> p.type and s.dropped = (i.dropped_at is not null or r.dropped_at is not null))")
                        .get(0, Integer.class))
                .isZero();
    }

    @Test
    void aDroppedOneLeavesTheFlowAndADifferentReasonIsCounted() {
        long request = asked();
        server.bean(WriteRequest.class)
                .say(
                        server.actor("priya"),
                        request,
                        Server.key(),
                        "cheaper",
                        Optional.of(Cause.COST),
                        Priority.USUAL,
                        Map.of(),
                        List.of());
        Flow flow = read.flow(server.actor("priya"), 12, Optional.of(shelf));
        assertThat(flow.causes()).anyMatch(c -> c.of().equals("COST") && c.entered() == 1 && c.open() == 1);
        assertThat(flow.products()).hasSize(1);
        int waiting = flow.weeks().get(11).waiting();
        move.decide(server.actor("priya"), request, Server.key(), "drop", "not needed", Optional.empty());
        assertThat(stands(request)).contains("CLOSED");
        assertThat(listed("priya", Which.ENDED)).contains(request);
        assertThat(read.flow(server.actor("priya"), 12, Optional.of(shelf))
                        .weeks()
                        .get(11)
                        .waiting())
                .isEqualTo(waiting - 1);
    }

    @Test
    void howLongTheyStayIsCountedByStageForWhoSeesThem() {
        long request = asked();
        server.db()
                .update(REVISION)
                .set(REVISION.STAGE_SINCE, DSL.localDateTimeSub(REVISION.STAGE_SINCE, 3, DatePart.DAY))
                .where(REVISION.ITEM.eq(request))
                .execute();
        assertThat(left(request)).as("a day that is put right is no stay").isEmpty();
        move.toBoard(server.actor("priya"), request, Server.key(), "please");
        List<Pace> pace = read.pace(server.actor("priya"), 12, 12, Optional.of(shelf));
        assertThat(pace).hasSize(1).allSatisfy(p -> {
            assertThat(p.type()).isEqualTo(PaperType.REQUEST);
            assertThat(p.median()).isEqualTo(3);
            assertThat(p.medians().get(11)).hasValue(3);
        });
        assertThat(read.pace(server.actor("nobody"), 12, 12, Optional.empty())).isEmpty();
        assertThat(read.flow(server.actor("nobody"), 12, Optional.empty()).products())
                .isEmpty();
        assertThat(read.products(server.actor("nobody"))).isEmpty();
    }

    @Test
    void whatIsOverItsDayIsListedUntilItIsAnswered() {
        long request = asked();
        move.toBoard(server.actor("priya"), request, Server.key(), "please");
        long round = review.store().openRound(request).orElseThrow();
        assertThat(listed("priya", Which.OVERDUE)).doesNotContain(request);
        server.db()
                .update(ASK)
                .set(ASK.DUE, LocalDate.now(ZoneId.of("UTC")).minusDays(4))
                .where(ASK.ROUND.eq(round))
                .execute();
        assertThat(listed("priya", Which.OVERDUE)).contains(request);
        assertThat(read.list(server.actor("priya"), Which.OPEN, 0, 40).counts().get(Which.OVERDUE))
                .isEqualTo(listed("priya", Which.OVERDUE).size());
        assertThat(listed("nobody", Which.OVERDUE)).isEmpty();
        review.sign("oluwaseun", round);
        assertThat(listed("priya", Which.OVERDUE)).doesNotContain(request);
        assertThat(stands(request)).contains(StageClass.RELEASED.name());
    }

    @Test
    void aChangeBeginsByNumbersToo() {
        AskForChange ask = server.bean(AskForChange.class);
        long first = review.drawing(shelf, "by number " + Server.key() + ".dxf");
        long second = review.drawing(shelf, "by number " + Server.key() + ".dxf");
        String numbers = server.document(first).number() + "\r\n "
                + server.document(second).number() + " ,"
                + server.document(first).number().toLowerCase(Locale.ROOT) + ";;";
        assertThat(ask.named(server.actor("priya"), numbers)).containsExactly(first, second);
        assertThatThrownBy(() -> ask.named(server.actor("rafael"), numbers))
                .as("what was never released is no document for a reader")
                .isInstanceOf(Refused.class)
                .hasMessageContaining(server.document(first).number());
        assertThatThrownBy(() -> ask.named(server.actor("priya"), " ;\n,")).isInstanceOf(Refused.class);
        assertThatThrownBy(() -> ask.named(server.actor("priya"), "NO-1\n" + "x,".repeat(3) + "a\nb"))
                .hasMessageContaining("NO-1, x, a, b");
    }
}
