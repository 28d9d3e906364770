package mintshelf.app.store.change;

import static mintshelf.database.schema.Tables.ITEM;
import static mintshelf.database.schema.Tables.PAPER;
import static mintshelf.database.schema.Tables.REVISION;
import static mintshelf.database.schema.Tables.STAGE;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import mintshelf.app.store.Times;
import mintshelf.app.store.document.Visible;
import mintshelf.core.access.Access;
import mintshelf.core.change.Flow;
import mintshelf.core.change.PaperType;
import mintshelf.core.revision.StageClass;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.SelectConditionStep;
import org.jooq.SelectSelectStep;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** Papers of change by where they stand, and since when. */
@Repository
public class FlowStore {
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
        return Visible.to(access).or(ITEM.AUTHOR.eq(access.person()).and(PAPER.TYPE.eq(PaperType.REQUEST.name())));
    }

    /** What is selected of the papers that a person may see, each with its revision and its stage. */
    private static <R extends Record> SelectConditionStep<R> seen(SelectSelectStep<R> selected, Access access) {
        return selected.from(PAPER)
                .join(ITEM)
                .on(ITEM.ID.eq(PAPER.ITEM), ITEM.DROPPED_AT.isNull())
                .join(REVISION)
                .on(REVISION.ITEM.eq(PAPER.ITEM), REVISION.DROPPED_AT.isNull())
                .join(STAGE)
                .on(STAGE.EDITION.eq(REVISION.EDITION), STAGE.CODE.eq(REVISION.STAGE))
                .where(seenBy(access));
    }

    /**
     * Papers that a person may see: those before the board first, then those that are prepared, stage by stage, of each the one that
     * waits longest first; what has ended last, the latest first.
     *
     * @param stands of which class of stage; all of them where it is empty
     * @param author whose they are; empty for everybody's
     */
    public List<Listed> listed(
            Access access, Collection<StageClass> stands, Optional<Long> author, int from, int most) {
        Condition which = stands.isEmpty()
                ? DSL.trueCondition()
                : STAGE.CLASS.in(stands.stream().map(StageClass::name).toList());
        if (author.isPresent()) which = which.and(ITEM.AUTHOR.eq(author.get()));
        var rank = DSL.case_(STAGE.CLASS)
                .when(StageClass.DECIDING.name(), 0)
                .when(StageClass.PREPARING.name(), 1)
                .when(StageClass.RELEASED.name(), 2)
                .else_(3);
        var ended = DSL.when(rank.ge(2), REVISION.STAGE_SINCE);
        return seen(db.select(ITEM.ID, STAGE.CLASS, STAGE.NAME, REVISION.STAGE_SINCE), access)
                .and(which)
                .orderBy(rank, STAGE.NAME.desc(), ended.desc(), REVISION.STAGE_SINCE, ITEM.ID)
                .limit(from, most)
                .fetch(row -> new Listed(
                        row.value1(), StageClass.valueOf(row.value2()), row.value3(), Times.instant(row.value4())));
    }

    /**
     * When papers that a person may see were begun and ended: those that were begun since, and those that ended since.
     *
     * @param zone in which days are reckoned
     */
    public List<Flow.Span> spans(Access access, Instant since, ZoneId zone) {
        Condition ended = STAGE.CLASS
                .notIn(StageClass.PREPARING.name(), StageClass.DECIDING.name())
                .and(REVISION.STAGE_SINCE.ge(Times.utc(since)));
        return seen(db.select(PAPER.TYPE, PAPER.CAUSE, ITEM.CREATED_AT, STAGE.CLASS, REVISION.STAGE_SINCE), access)
                .and(ITEM.CREATED_AT.ge(Times.utc(since)).or(ended))
                .fetch(row -> new Flow.Span(
                        PaperType.valueOf(row.value1()),
                        LocalDate.ofInstant(Times.instant(row.value3()), zone),
                        StageClass.valueOf(row.value4()).isPending()
                                ? Optional.empty()
                                : Optional.of(LocalDate.ofInstant(Times.instant(row.value5()), zone)),
                        row.value2()));
    }

    /** How many papers a person may see in each stage, and how many of them are their own. */
    public record Count(StageClass stands, String stage, int all, int mine) {}

    public List<Count> counts(Access access) {
        var mine = DSL.sum(DSL.when(ITEM.AUTHOR.eq(access.person()), 1).else_(0));
        return seen(db.select(STAGE.CLASS, STAGE.NAME, DSL.count(), mine), access)
                .groupBy(STAGE.CLASS, STAGE.NAME)
                .fetch(row -> new Count(
                        StageClass.valueOf(row.value1()),
                        row.value2(),
                        row.value3(),
                        row.value4().intValue()));
    }
}
