package mintshelf.app.store.change;

import static mintshelf.database.schema.Tables.PAPER_REACH;
import static mintshelf.database.schema.Tables.PERSON;

import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.Times;
import mintshelf.core.change.Impact;
import mintshelf.core.change.Impact.Verdict;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** What people say of documents that a change reaches. */
@Repository
public class ImpactStore {
    /** Kept in place of a verdict: not touched. */
    private static final String SPARED = "SPARED";

    private final DSLContext db;

    public ImpactStore(DSLContext db) {
        this.db = db;
    }

    /**
     * What somebody said.
     *
     * @param interchangeable whether it keeps its number once it is revised
     * @param against the rule's verdict
     */
    public record Said(
            Optional<Boolean> interchangeable,
            Optional<Impact.Against> against,
            String why,
            String person,
            Instant at) {}

    /** By document; one statement. */
    public Map<Long, Said> said(long paper) {
        return db.select(PAPER_REACH.fields())
                .select(PERSON.NAME)
                .from(PAPER_REACH)
                .join(PERSON)
                .on(PERSON.ID.eq(PAPER_REACH.PERSON))
                .where(PAPER_REACH.PAPER.eq(paper))
                .fetchMap(
                        PAPER_REACH.ITEM,
                        row -> new Said(
                                Optional.ofNullable(row.get(PAPER_REACH.INTERCHANGEABLE)),
                                Optional.ofNullable(row.get(PAPER_REACH.VERDICT))
                                        .map(ImpactStore::against),
                                row.get(PAPER_REACH.WHY),
                                row.get(PERSON.NAME),
                                Times.instant(row.get(PAPER_REACH.SAID_AT))));
    }

    private static Impact.Against against(String kept) {
        return new Impact.Against(kept.equals(SPARED) ? Optional.empty() : Optional.of(Verdict.valueOf(kept)));
    }

    /** Says one thing of a document, in place of what was said before. */
    public void say(
            long paper,
            long item,
            Optional<Boolean> interchangeable,
            Optional<Impact.Against> against,
            String why,
            long person,
            Instant now) {
        db.insertInto(PAPER_REACH)
                .set(PAPER_REACH.PAPER, paper)
                .set(PAPER_REACH.ITEM, item)
                .set(PAPER_REACH.INTERCHANGEABLE, interchangeable.orElse(null))
                .set(
                        PAPER_REACH.VERDICT,
                        against.map(o -> o.verdict().map(Verdict::name).orElse(SPARED))
                                .orElse(null))
                .set(PAPER_REACH.WHY, why)
                .set(PAPER_REACH.PERSON, person)
                .set(PAPER_REACH.SAID_AT, Times.utc(now))
                .onDuplicateKeyUpdate()
                .setAllToExcluded()
                .execute();
    }

    /** The rule stands again. Whether anything had been said. */
    public boolean takeBack(long paper, long item) {
        return db.deleteFrom(PAPER_REACH)
                        .where(PAPER_REACH.PAPER.eq(paper), PAPER_REACH.ITEM.eq(item))
                        .execute()
                > 0;
    }
}
