package mintshelf.app.store.notice;

import static mintshelf.database.schema.Tables.NOTICE;
import static mintshelf.database.schema.Tables.REVISION;

import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import mintshelf.app.store.Times;
import mintshelf.core.base.Texts;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** What a person is told on Today. */
@Repository
public class NoticeStore {
    private final DSLContext db;

    public NoticeStore(DSLContext db) {
        this.db = db;
    }

    /** A notice that is not put away yet. */
    public record Notice(long id, Instant at, String code, Optional<Long> item, String says, String target) {}

    public void tell(long person, String code, Optional<Long> item, long by, String says, String target, Instant now) {
        db.insertInto(NOTICE)
                .set(NOTICE.PERSON, person)
                .set(NOTICE.AT, Times.utc(now))
                .set(NOTICE.CODE, code)
                .set(NOTICE.ITEM, item.orElse(null))
                .set(NOTICE.BY_PERSON, by)
                .set(NOTICE.SAYS, Texts.shorten(says, 500))
                .set(NOTICE.TARGET, target)
                .execute();
    }

    /** Whom the distribution told of the revision of a document that is in force; by document, one statement. */
    public Map<Long, Set<Long>> toldOfReleased(Collection<Long> items) {
        if (items.isEmpty()) return Map.of();
        Map<Long, Set<Long>> told = new HashMap<>();
        db.selectDistinct(NOTICE.ITEM, NOTICE.PERSON)
                .from(NOTICE)
                .join(REVISION)
                .on(REVISION.ITEM.eq(NOTICE.ITEM), REVISION.RELEASED_MARK.eq((short) 1))
                .where(NOTICE.ITEM.in(items))
                .and(NOTICE.CODE.startsWith("followed."))
                .and(NOTICE.AT.ge(REVISION.RELEASED_AT))
                .forEach(row ->
                        told.computeIfAbsent(row.value1(), i -> new TreeSet<>()).add(row.value2()));
        return told;
    }

    public List<Notice> open(long person, int most) {
        return db.selectFrom(NOTICE)
                .where(NOTICE.PERSON.eq(person), NOTICE.DONE_AT.isNull())
                .orderBy(NOTICE.AT.desc(), NOTICE.ID.desc())
                .limit(most)
                .fetch(row -> new Notice(
                        row.getId(),
                        Times.instant(row.getAt()),
                        row.getCode(),
                        Optional.ofNullable(row.getItem()),
                        row.getSays(),
                        row.getTarget()));
    }

    /** The latest notice of each person, by person; one statement. */
    public Map<Long, Long> latest(Collection<Long> people) {
        if (people.isEmpty()) return Map.of();
        return db.select(NOTICE.PERSON, DSL.max(NOTICE.ID))
                .from(NOTICE)
                .where(NOTICE.PERSON.in(people), NOTICE.DONE_AT.isNull())
                .groupBy(NOTICE.PERSON)
                .fetchMap(row -> row.value1(), row -> row.value2());
    }

    /** Whether somebody was told anything after a moment. */
    public boolean isSince(long person, Instant after) {
        return db.fetchExists(db.selectFrom(NOTICE)
                .where(NOTICE.PERSON.eq(person), NOTICE.DONE_AT.isNull(), NOTICE.AT.gt(Times.utc(after))));
    }

    /** Whether somebody has a notice of this sort with this target that is not put away. */
    public boolean isOpen(long person, String code, String target) {
        return db.fetchExists(db.selectFrom(NOTICE)
                .where(
                        NOTICE.PERSON.eq(person),
                        NOTICE.DONE_AT.isNull(),
                        NOTICE.CODE.eq(code),
                        NOTICE.TARGET.eq(target)));
    }

    public void putAway(long person, long notice, Instant now) {
        db.update(NOTICE)
                .set(NOTICE.DONE_AT, Times.utc(now))
                .where(NOTICE.ID.eq(notice), NOTICE.PERSON.eq(person))
                .execute();
    }
}
