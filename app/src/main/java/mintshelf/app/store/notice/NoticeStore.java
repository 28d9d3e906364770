package mintshelf.app.store.notice;

import static mintshelf.database.schema.Tables.NOTICE;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import mintshelf.app.store.Times;
import mintshelf.core.base.Texts;
import org.jooq.DSLContext;
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

    public void putAway(long person, long notice, Instant now) {
        db.update(NOTICE)
                .set(NOTICE.DONE_AT, Times.utc(now))
                .where(NOTICE.ID.eq(notice), NOTICE.PERSON.eq(person))
                .execute();
    }
}
