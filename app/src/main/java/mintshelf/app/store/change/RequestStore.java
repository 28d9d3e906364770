package mintshelf.app.store.change;

import static mintshelf.database.schema.Tables.ITEM;
import static mintshelf.database.schema.Tables.ORDER_REQUEST;
import static mintshelf.database.schema.Tables.PAPER;
import static mintshelf.database.schema.Tables.PAPER_EVIDENCE;
import static mintshelf.database.schema.Tables.PAPER_GOAL;
import static mintshelf.database.schema.Tables.PAPER_LINE;
import static mintshelf.database.schema.Tables.REVISION;
import static mintshelf.database.schema.Tables.STAGE;
import static mintshelf.database.schema.Tables.VERSION;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.core.change.Goal;
import mintshelf.core.change.PaperSpot;
import mintshelf.core.change.PaperType;
import mintshelf.core.change.Similar;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.revision.StageClass;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** What requests go by: goals and evidence; the orders that take them up; which are open on what. */
@Repository
public class RequestStore {
    private static final short MARK = 1;
    private final DSLContext db;

    public RequestStore(DSLContext db) {
        this.db = db;
    }

    /**
     * A version that a paper goes by.
     *
     * @param against an older version of the same document that it is held against
     * @param spot where in it, of a paper
     */
    public record Evidence(
            long id, long item, long version, Optional<Long> against, String note, Optional<PaperSpot> spot) {}

    /** What a paper is to go by. */
    public record NewEvidence(long version, Optional<Long> against, Optional<PaperSpot> spot, String note) {}

    /** In the order in which it was added. */
    public List<Evidence> evidence(long paper) {
        return db.select(PAPER_EVIDENCE.fields())
                .select(VERSION.ITEM)
                .from(PAPER_EVIDENCE)
                .join(VERSION)
                .on(VERSION.ID.eq(PAPER_EVIDENCE.VERSION))
                .where(PAPER_EVIDENCE.PAPER.eq(paper))
                .orderBy(PAPER_EVIDENCE.ID)
                .fetch(row -> new Evidence(
                        row.get(PAPER_EVIDENCE.ID),
                        row.get(VERSION.ITEM),
                        row.get(PAPER_EVIDENCE.VERSION),
                        Optional.ofNullable(row.get(PAPER_EVIDENCE.AGAINST)),
                        row.get(PAPER_EVIDENCE.NOTE),
                        Optional.of(new PaperSpot(row.get(PAPER_EVIDENCE.CHAPTER), row.get(PAPER_EVIDENCE.PAGE)))
                                .filter(s -> s.page() > 0)));
    }

    public void addEvidence(long paper, NewEvidence added, long person) {
        db.insertInto(PAPER_EVIDENCE)
                .set(PAPER_EVIDENCE.PAPER, paper)
                .set(PAPER_EVIDENCE.VERSION, added.version())
                .set(PAPER_EVIDENCE.AGAINST, added.against().orElse(null))
                .set(PAPER_EVIDENCE.NOTE, added.note())
                .set(PAPER_EVIDENCE.CHAPTER, added.spot().map(PaperSpot::title).orElse(""))
                .set(PAPER_EVIDENCE.PAGE, added.spot().map(PaperSpot::page).orElse(0))
                .set(PAPER_EVIDENCE.ADDED_BY, person)
                .execute();
    }

    public void removeEvidence(long paper, long id) {
        db.deleteFrom(PAPER_EVIDENCE)
                .where(PAPER_EVIDENCE.PAPER.eq(paper), PAPER_EVIDENCE.ID.eq(id))
                .execute();
    }

    /** In the order in which they were set. */
    public List<Goal> goals(long paper, Collection<FactDefinition> facts) {
        Map<Long, FactDefinition> byId = new LinkedHashMap<>();
        facts.forEach(f -> byId.put(f.id(), f));
        List<Goal> goals = new ArrayList<>();
        for (Record row : db.selectFrom(PAPER_GOAL)
                .where(PAPER_GOAL.PAPER.eq(paper))
                .orderBy(PAPER_GOAL.ID)
                .fetch()) {
            FactDefinition fact = byId.get(row.get(PAPER_GOAL.FACT));
            if (fact == null) continue;
            goals.add(new Goal(
                    row.get(PAPER_GOAL.ID),
                    row.get(PAPER_GOAL.ITEM),
                    fact,
                    Goal.Relation.valueOf(row.get(PAPER_GOAL.RELATION)),
                    row.get(PAPER_GOAL.WANTED),
                    row.get(PAPER_GOAL.PERCENT)));
        }
        return goals;
    }

    /** The document has to be a line of the paper; the goal goes when the line does. */
    public void addGoal(long paper, Goal goal) {
        db.insertInto(PAPER_GOAL)
                .set(PAPER_GOAL.PAPER, paper)
                .set(PAPER_GOAL.ITEM, goal.item())
                .set(PAPER_GOAL.FACT, goal.fact().id())
                .set(PAPER_GOAL.RELATION, goal.relation().name())
                .set(PAPER_GOAL.WANTED, goal.wanted())
                .set(PAPER_GOAL.PERCENT, goal.percent())
                .execute();
    }

    public void removeGoal(long paper, long id) {
        db.deleteFrom(PAPER_GOAL)
                .where(PAPER_GOAL.PAPER.eq(paper), PAPER_GOAL.ID.eq(id))
                .execute();
    }

    public Optional<Long> orderOf(long request) {
        return db.select(ORDER_REQUEST.CHANGE_ORDER)
                .from(ORDER_REQUEST)
                .where(ORDER_REQUEST.REQUEST.eq(request))
                .fetchOptional(ORDER_REQUEST.CHANGE_ORDER);
    }

    /** Whether the order that has taken a request up is before its board. */
    public boolean isDecidedWithOrder(long request) {
        return db.fetchExists(DSL.selectOne()
                .from(ORDER_REQUEST)
                .join(REVISION)
                .on(REVISION.ITEM.eq(ORDER_REQUEST.CHANGE_ORDER), REVISION.PENDING_MARK.eq(MARK))
                .join(STAGE)
                .on(STAGE.EDITION.eq(REVISION.EDITION), STAGE.CODE.eq(REVISION.STAGE))
                .where(ORDER_REQUEST.REQUEST.eq(request), STAGE.CLASS.eq(StageClass.DECIDING.name())));
    }

    public List<Long> requestsOf(long order) {
        return db.select(ORDER_REQUEST.REQUEST)
                .from(ORDER_REQUEST)
                .where(ORDER_REQUEST.CHANGE_ORDER.eq(order))
                .orderBy(ORDER_REQUEST.REQUEST)
                .fetch(ORDER_REQUEST.REQUEST);
    }

    /** Requests that are written, deferred or before the board, by a document that they name, the latest first; one statement. */
    public Map<Long, List<Long>> openOn(Collection<Long> documents) {
        if (documents.isEmpty()) return Map.of();
        return db.select(PAPER_LINE.ITEM, PAPER.ITEM)
                .from(PAPER_LINE)
                .join(PAPER)
                .on(PAPER.ITEM.eq(PAPER_LINE.PAPER), PAPER.TYPE.eq(PaperType.REQUEST.name()))
                .join(REVISION)
                .on(REVISION.ITEM.eq(PAPER.ITEM), REVISION.PENDING_MARK.eq(MARK))
                .join(STAGE)
                .on(STAGE.EDITION.eq(REVISION.EDITION), STAGE.CODE.eq(REVISION.STAGE))
                .join(ITEM)
                .on(ITEM.ID.eq(PAPER.ITEM), ITEM.DROPPED_AT.isNull())
                .where(PAPER_LINE.ITEM.in(documents))
                .and(STAGE.CLASS.in(StageClass.PREPARING.name(), StageClass.DECIDING.name()))
                .orderBy(PAPER.ITEM.desc())
                .fetchGroups(PAPER_LINE.ITEM, PAPER.ITEM);
    }

    /** Open requests as they are compared with others: of the latest so many. */
    public List<Similar.Of> open(int most) {
        Map<Long, String[]> texts = new LinkedHashMap<>();
        db.select(PAPER.ITEM, ITEM.TITLE, PAPER.REASON, PAPER.CAUSE)
                .from(PAPER)
                .join(ITEM)
                .on(ITEM.ID.eq(PAPER.ITEM), ITEM.DROPPED_AT.isNull())
                .join(REVISION)
                .on(REVISION.ITEM.eq(PAPER.ITEM), REVISION.PENDING_MARK.eq(MARK))
                .join(STAGE)
                .on(STAGE.EDITION.eq(REVISION.EDITION), STAGE.CODE.eq(REVISION.STAGE))
                .where(PAPER.TYPE.eq(PaperType.REQUEST.name()))
                .and(STAGE.CLASS.in(StageClass.PREPARING.name(), StageClass.DECIDING.name()))
                .orderBy(PAPER.ITEM.desc())
                .limit(most)
                .forEach(row ->
                        texts.put(row.value1(), new String[] {row.value2() + " " + row.value3(), row.value4()}));
        Map<Long, List<Long>> lines = db.select(PAPER_LINE.PAPER, PAPER_LINE.ITEM)
                .from(PAPER_LINE)
                .where(PAPER_LINE.PAPER.in(texts.keySet()))
                .fetchGroups(PAPER_LINE.PAPER, PAPER_LINE.ITEM);
        List<Similar.Of> open = new ArrayList<>();
        texts.forEach((id, said) -> open.add(new Similar.Of(id, lines.getOrDefault(id, List.of()), said[0], said[1])));
        return open;
    }
}
