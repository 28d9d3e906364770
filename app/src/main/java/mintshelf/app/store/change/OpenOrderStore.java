package mintshelf.app.store.change;

import static mintshelf.database.schema.Tables.ITEM;
import static mintshelf.database.schema.Tables.PAPER;
import static mintshelf.database.schema.Tables.PAPER_LINE;
import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.REVISION;

import java.time.Instant;
import java.util.List;
import mintshelf.app.store.Times;
import mintshelf.core.change.PaperType;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** Orders that have not ended, as Today lists them. */
@Repository
public class OpenOrderStore {
    private static final short MARK = 1;

    private final DSLContext db;

    public OpenOrderStore(DSLContext db) {
        this.db = db;
    }

    /** Orders that a person opened and that have not ended, the latest first. */
    public List<Long> openOf(long person, int most) {
        return db.select(ITEM.ID)
                .from(PAPER)
                .join(ITEM)
                .on(ITEM.ID.eq(PAPER.ITEM), ITEM.DROPPED_AT.isNull())
                .where(
                        ITEM.AUTHOR.eq(person),
                        PAPER.TYPE.eq(PaperType.ORDER.name()),
                        PAPER.CARRIED_OUT_AT.isNull(),
                        PAPER.ENDED_WHY.isNull())
                .orderBy(ITEM.ID.desc())
                .limit(most)
                .fetch(ITEM.ID);
    }

    /**
     * An order that was asked for, whose turn it is and whose work nobody has started or stopped.
     *
     * @param by who asked for it
     */
    public record Asked(long item, String by, Instant at) {}

    /** The latest orders whose work waits to be started. */
    public List<Asked> asked(int most) {
        return db.select(ITEM.ID, PERSON.NAME, ITEM.CREATED_AT)
                .from(PAPER)
                .join(ITEM)
                .on(ITEM.ID.eq(PAPER.ITEM), ITEM.DROPPED_AT.isNull())
                .join(PERSON)
                .on(PERSON.ID.eq(ITEM.AUTHOR))
                .where(PAPER.TYPE.eq(PaperType.ORDER.name()), PAPER.CARRIED_OUT_AT.isNull(), PAPER.ENDED_WHY.isNull())
                .andNotExists(DSL.selectOne()
                        .from(PAPER_LINE)
                        .where(PAPER_LINE.PAPER.eq(PAPER.ITEM))
                        .and(PAPER_LINE.TO_REVISION.isNotNull().or(PAPER_LINE.TURN.gt((short) 1))))
                .orderBy(ITEM.ID.desc())
                .limit(most)
                .fetch(row -> new Asked(row.value1(), row.value2(), Times.instant(row.value3())));
    }

    /** Documents in force of which the next revision was started by hand: no order has them, no request started them. */
    public List<Long> startedByHand(int most) {
        var released = REVISION.as("released");
        return db.select(REVISION.ITEM)
                .from(REVISION)
                .join(ITEM)
                .on(ITEM.ID.eq(REVISION.ITEM), ITEM.DROPPED_AT.isNull())
                .join(released)
                .on(released.ITEM.eq(REVISION.ITEM), released.RELEASED_MARK.eq(MARK))
                .where(REVISION.PENDING_MARK.eq(MARK))
                .andNotExists(DSL.selectOne().from(PAPER).where(PAPER.ITEM.eq(REVISION.ITEM)))
                .andNotExists(DSL.selectOne()
                        .from(PAPER_LINE)
                        .where(PAPER_LINE.ITEM.eq(REVISION.ITEM))
                        .and(PAPER_LINE.TURN.isNotNull().or(PAPER_LINE.TO_REVISION.eq(REVISION.ID))))
                .orderBy(REVISION.ITEM)
                .limit(most)
                .fetch(REVISION.ITEM);
    }
}
