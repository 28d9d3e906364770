package mintshelf.app.store.change;

import static mintshelf.database.schema.Tables.GOAL_SHOWN;
import static mintshelf.database.schema.Tables.ORDER_REQUEST;
import static mintshelf.database.schema.Tables.PAPER_GOAL;
import static mintshelf.database.schema.Tables.VERSION;

import java.util.Collection;
import java.util.Map;
import java.util.Optional;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** What orders show for the goals of the requests that they have taken up. */
@Repository
public class GoalStore {
    private final DSLContext db;

    public GoalStore(DSLContext db) {
        this.db = db;
    }

    /**
     * A version that shows that a goal is reached.
     *
     * @param against an older version of the same document that it is held against
     */
    public record Shown(long goal, long item, long version, Optional<Long> against, String note) {}

    /** By goal; what a former order showed counts no more once the request has gone on another one. */
    public Map<Long, Shown> shown(Collection<Long> goals) {
        if (goals.isEmpty()) return Map.of();
        return db.select(GOAL_SHOWN.fields())
                .select(VERSION.ITEM)
                .from(GOAL_SHOWN)
                .join(VERSION)
                .on(VERSION.ID.eq(GOAL_SHOWN.VERSION))
                .join(PAPER_GOAL)
                .on(PAPER_GOAL.ID.eq(GOAL_SHOWN.GOAL))
                .join(ORDER_REQUEST)
                .on(ORDER_REQUEST.REQUEST.eq(PAPER_GOAL.PAPER), ORDER_REQUEST.CHANGE_ORDER.eq(GOAL_SHOWN.CHANGE_ORDER))
                .where(GOAL_SHOWN.GOAL.in(goals))
                .fetchMap(
                        GOAL_SHOWN.GOAL,
                        row -> new Shown(
                                row.get(GOAL_SHOWN.GOAL),
                                row.get(VERSION.ITEM),
                                row.get(GOAL_SHOWN.VERSION),
                                Optional.ofNullable(row.get(GOAL_SHOWN.AGAINST)),
                                row.get(GOAL_SHOWN.NOTE)));
    }

    /** In place of what was shown before. */
    public void show(long order, Shown shown, long person) {
        db.deleteFrom(GOAL_SHOWN).where(GOAL_SHOWN.GOAL.eq(shown.goal())).execute();
        db.insertInto(GOAL_SHOWN)
                .set(GOAL_SHOWN.GOAL, shown.goal())
                .set(GOAL_SHOWN.CHANGE_ORDER, order)
                .set(GOAL_SHOWN.VERSION, shown.version())
                .set(GOAL_SHOWN.AGAINST, shown.against().orElse(null))
                .set(GOAL_SHOWN.NOTE, shown.note())
                .set(GOAL_SHOWN.SHOWN_BY, person)
                .execute();
    }

    public void hide(long order, long goal) {
        db.deleteFrom(GOAL_SHOWN)
                .where(GOAL_SHOWN.GOAL.eq(goal), GOAL_SHOWN.CHANGE_ORDER.eq(order))
                .execute();
    }
}
