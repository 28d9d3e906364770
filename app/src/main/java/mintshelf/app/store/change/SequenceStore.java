package mintshelf.app.store.change;

import static mintshelf.database.schema.Tables.ITEM;
import static mintshelf.database.schema.Tables.PAPER_LINE;
import static mintshelf.database.schema.Tables.SEQUENCE_GATE;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.core.change.PaperLine;
import mintshelf.core.change.Sequence;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.springframework.stereotype.Repository;

/** Which open orders follow which on the same documents. */
@Repository
public class SequenceStore {
    private final DSLContext db;

    public SequenceStore(DSLContext db) {
        this.db = db;
    }

    /** The open orders on each of the documents that is on one, in their turn; one statement. */
    public Map<Long, List<Sequence.Ahead>> on(Collection<Long> items) {
        if (items.isEmpty()) return Map.of();
        Map<Long, List<Sequence.Ahead>> on = new HashMap<>();
        for (Record row : db.select(PAPER_LINE.ITEM, PAPER_LINE.PAPER, PAPER_LINE.WHAT, ITEM.NUMBER)
                .from(PAPER_LINE)
                .join(ITEM)
                .on(ITEM.ID.eq(PAPER_LINE.PAPER))
                .where(PAPER_LINE.ITEM.in(items), PAPER_LINE.TURN.isNotNull())
                .orderBy(PAPER_LINE.ITEM, PAPER_LINE.TURN)
                .fetch()) {
            on.computeIfAbsent(row.get(PAPER_LINE.ITEM), i -> new ArrayList<>())
                    .add(new Sequence.Ahead(
                            row.get(PAPER_LINE.PAPER),
                            row.get(ITEM.NUMBER),
                            PaperLine.What.valueOf(row.get(PAPER_LINE.WHAT))));
        }
        return on;
    }

    /** As {@link #on}, of those only that go before the lines of an order that wait. */
    public Map<Long, List<Sequence.Ahead>> before(Collection<PaperLine> lines) {
        Map<Long, List<Sequence.Ahead>> on = new HashMap<>(
                on(lines.stream().filter(PaperLine::waits).map(PaperLine::item).toList()));
        lines.forEach(l ->
                on.computeIfPresent(l.item(), (i, all) -> all.subList(0, Math.min(all.size(), l.turn() - 1))));
        return on;
    }

    /** Until the transaction ends, nobody else lets an order wait for another one. */
    public void lock() {
        db.selectFrom(SEQUENCE_GATE).forUpdate().fetch();
    }

    /** Whom each open order waits for; one statement over those that wait. */
    public Map<Long, Set<Long>> waits() {
        var first = PAPER_LINE.as("first");
        Map<Long, Set<Long>> waits = new HashMap<>();
        db.selectDistinct(PAPER_LINE.PAPER, first.PAPER)
                .from(PAPER_LINE)
                .join(first)
                .on(first.ITEM.eq(PAPER_LINE.ITEM), first.TURN.lt(PAPER_LINE.TURN))
                .where(PAPER_LINE.TURN.gt((short) 1))
                .forEach(row -> waits.computeIfAbsent(row.value1(), o -> new HashSet<>())
                        .add(row.value2()));
        return waits;
    }
}
