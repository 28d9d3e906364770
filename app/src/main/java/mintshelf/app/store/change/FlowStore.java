package mintshelf.app.store.change;

import static mintshelf.database.schema.Tables.ASK;
import static mintshelf.database.schema.Tables.ITEM;
import static mintshelf.database.schema.Tables.PAPER_STAND;
import static mintshelf.database.schema.Tables.PAPER_STAY;
import static mintshelf.database.schema.Tables.ROUND;
import static mintshelf.database.schema.Tables.ROUND_ITEM;
import static mintshelf.database.schema.Tables.SHELF;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.Times;
import mintshelf.app.store.document.Visible;
import mintshelf.core.access.Access;
import mintshelf.core.change.Flow;
import mintshelf.core.change.Pace;
import mintshelf.core.change.PaperType;
import mintshelf.core.revision.StageClass;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.SelectConditionStep;
import org.jooq.SelectSelectStep;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** Papers of change by where they stand, and since when; what the triggers of the schema keep is only read here. */
@Repository
public class FlowStore {
    private static final Condition PENDING =
            PAPER_STAND.CLASS.in(StageClass.PREPARING.name(), StageClass.DECIDING.name());

    private final DSLContext db;

    public FlowStore(DSLContext db) {
        this.db = db;
    }

    /**
     * A paper in a list.
     *
     * @param since when it came to its stage
     */
    public record Listed(long item, StageClass stands, String stage, Instant since) {}

    /** A paper is seen where its documents are, and by who wrote it. */
    private static Condition seenBy(Access access) {
        return Visible.to(access)
                .or(PAPER_STAND.AUTHOR.eq(access.person()).and(PAPER_STAND.TYPE.eq(PaperType.REQUEST.name())));
    }

    /** What is selected of the papers that a person may see; their documents are asked only for who does not see everything. */
    private static <R extends Record> SelectConditionStep<R> seen(SelectSelectStep<R> selected, Access access) {
        var from = selected.from(PAPER_STAND);
        return Visible.seesAll(access)
                ? from.where(PAPER_STAND.DROPPED.isFalse())
                : from.join(ITEM)
                        .on(ITEM.ID.eq(PAPER_STAND.PAPER))
                        .where(PAPER_STAND.DROPPED.isFalse(), seenBy(access));
    }

    /** What is listed. */
    public sealed interface Chosen {
        /** Papers at a class of stage; all of them where it is empty. */
        record At(Collection<StageClass> stands) implements Chosen {}

        /** Open papers that somebody wrote. */
        record Of(long author) implements Chosen {}

        /** These, as far as they are before the board. */
        record These(Collection<Long> papers) implements Chosen {}
    }

    private static Condition which(Chosen chosen) {
        if (chosen instanceof Chosen.Of of) return PENDING.and(PAPER_STAND.AUTHOR.eq(of.author()));
        if (chosen instanceof Chosen.These these) {
            return PAPER_STAND.PAPER.in(these.papers()).and(PAPER_STAND.CLASS.eq(StageClass.DECIDING.name()));
        }
        Collection<StageClass> stands = ((Chosen.At) chosen).stands();
        return stands.isEmpty()
                ? DSL.trueCondition()
                : PAPER_STAND.CLASS.in(stands.stream().map(StageClass::name).toList());
    }

    /**
     * Papers that a person may see: those before the board first, then those that are prepared, stage by stage, of each the one that
     * waits longest first; what has ended last, the latest first.
     */
    public List<Listed> listed(Access access, Chosen chosen, int from, int most) {
        var rank = DSL.case_(PAPER_STAND.CLASS)
                .when(StageClass.DECIDING.name(), 0)
                .when(StageClass.PREPARING.name(), 1)
                .when(StageClass.RELEASED.name(), 2)
                .else_(3);
        var ended = DSL.when(rank.ge(2), PAPER_STAND.SINCE);
        return seen(db.select(PAPER_STAND.PAPER, PAPER_STAND.CLASS, PAPER_STAND.STAGE, PAPER_STAND.SINCE), access)
                .and(which(chosen))
                .orderBy(rank, PAPER_STAND.STAGE.desc(), ended.desc(), PAPER_STAND.SINCE, PAPER_STAND.PAPER)
                .limit(from, most)
                .fetch(row -> new Listed(
                        row.value1(), StageClass.valueOf(row.value2()), row.value3(), Times.instant(row.value4())));
    }

    /**
     * Papers that a person may see and of whose board somebody was to answer before this day: some of them have answered.
     *
     * @param most as many as are looked at
     */
    public List<Long> perhapsLate(Access access, LocalDate today, int most) {
        return seen(db.select(PAPER_STAND.PAPER), access)
                .and(PAPER_STAND.CLASS.eq(StageClass.DECIDING.name()))
                .andExists(DSL.selectOne()
                        .from(ROUND_ITEM)
                        .join(ROUND)
                        .on(ROUND.ID.eq(ROUND_ITEM.ROUND), ROUND.OPEN_MARK.isNotNull())
                        .join(ASK)
                        .on(ASK.ROUND.eq(ROUND.ID), ASK.DUE.lt(today))
                        .where(ROUND_ITEM.ITEM.eq(PAPER_STAND.PAPER)))
                .orderBy(PAPER_STAND.SINCE, PAPER_STAND.PAPER)
                .limit(most)
                .fetch(PAPER_STAND.PAPER);
    }

    /**
     * When papers that a person may see were begun and ended: those that are open, and those that ended since.
     *
     * @param zone in which days are reckoned
     * @param shelf of which shelf; empty for all
     */
    public List<Flow.Span> spans(Access access, Instant since, ZoneId zone, Optional<Long> shelf) {
        var days = new DaysOf(zone);
        return seen(
                        db.select(
                                PAPER_STAND.TYPE,
                                PAPER_STAND.CAUSE,
                                PAPER_STAND.ENTERED,
                                PAPER_STAND.CLASS,
                                PAPER_STAND.SINCE,
                                PAPER_STAND.SHELF),
                        access)
                .and(PENDING.or(PAPER_STAND.SINCE.ge(Times.utc(since))))
                .and(shelf.map(PAPER_STAND.SHELF::eq).orElse(DSL.trueCondition()))
                .fetch(row -> new Flow.Span(
                        PaperType.valueOf(row.value1()),
                        days.of(Times.instant(row.value3())),
                        StageClass.valueOf(row.value4()).isPending()
                                ? Optional.empty()
                                : Optional.of(days.of(Times.instant(row.value5()))),
                        row.value2(),
                        Long.toString(row.value6())));
    }

    /** Days of instants: one and the same object for a day that many papers share. */
    private static final class DaysOf {
        private final ZoneId zone;
        private final Map<Long, LocalDate> known = new HashMap<>();

        private DaysOf(ZoneId zone) {
            this.zone = zone;
        }

        private LocalDate of(Instant at) {
            // Offsets of zones are whole minutes: instants of one minute have one day.
            return known.computeIfAbsent(at.getEpochSecond() / 60, minute -> LocalDate.ofInstant(at, zone));
        }
    }

    /**
     * How long papers that a person may see stayed at stages that they left in these days, counted by whole days.
     *
     * @param first the day with which the first part begins
     * @param part how many days a part has
     */
    public List<Pace.Stays> stays(Access access, Instant first, int part, Optional<Long> shelf) {
        var days = DSL.field("timestampdiff(day, {0}, {1})", Integer.class, PAPER_STAY.ENTERED, PAPER_STAY.PASSED);
        var parts = DSL.field(
                "timestampdiff(day, {0}, {1}) div {2}",
                Integer.class, DSL.val(Times.utc(first)), PAPER_STAY.PASSED, DSL.inline(part));
        var from = db.select(PAPER_STAND.TYPE, PAPER_STAY.STAGE, parts, days, DSL.count())
                .from(PAPER_STAY)
                .join(PAPER_STAND)
                .on(PAPER_STAND.PAPER.eq(PAPER_STAY.PAPER), PAPER_STAND.DROPPED.isFalse());
        var seen = Visible.seesAll(access)
                ? from.where(PAPER_STAY.PASSED.ge(Times.utc(first)))
                : from.join(ITEM)
                        .on(ITEM.ID.eq(PAPER_STAND.PAPER))
                        .where(PAPER_STAY.PASSED.ge(Times.utc(first)), seenBy(access));
        return seen.and(shelf.map(PAPER_STAND.SHELF::eq).orElse(DSL.trueCondition()))
                .groupBy(PAPER_STAND.TYPE, PAPER_STAY.STAGE, parts, days)
                .fetch(row -> new Pace.Stays(
                        PaperType.valueOf(row.value1()), row.value2(), row.value3(), row.value4(), row.value5()));
    }

    /** How many papers a person may see at each class of stage, and how many of them are their own. */
    public record Count(StageClass stands, int all, int mine) {}

    public List<Count> counts(Access access) {
        var mine = DSL.sum(DSL.when(PAPER_STAND.AUTHOR.eq(access.person()), 1).else_(0));
        return seen(db.select(PAPER_STAND.CLASS, DSL.count(), mine), access)
                .groupBy(PAPER_STAND.CLASS)
                .fetch(row -> new Count(
                        StageClass.valueOf(row.value1()),
                        row.value2(),
                        row.value3().intValue()));
    }

    /** The kind of the paper of a type that somebody began last. */
    public Optional<Long> lastKind(long person, PaperType type) {
        return db.select(ITEM.KIND)
                .from(PAPER_STAND)
                .join(ITEM)
                .on(ITEM.ID.eq(PAPER_STAND.PAPER))
                .where(PAPER_STAND.AUTHOR.eq(person), PAPER_STAND.TYPE.eq(type.name()))
                .orderBy(PAPER_STAND.ENTERED.desc(), PAPER_STAND.PAPER.desc())
                .limit(1)
                .fetchOptional(ITEM.KIND);
    }

    /** The names of shelves of papers that a person may see, by id. */
    public Map<Long, String> products(Access access) {
        List<Long> shelves = seen(db.selectDistinct(PAPER_STAND.SHELF), access).fetch(PAPER_STAND.SHELF);
        return db.select(SHELF.ID, SHELF.NAME)
                .from(SHELF)
                .where(SHELF.ID.in(shelves))
                .orderBy(SHELF.NAME)
                .fetchMap(SHELF.ID, SHELF.NAME);
    }
}
