package mintshelf.app.store.notice;

import static mintshelf.database.schema.Tables.FOLLOW;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.store.Times;
import mintshelf.core.notice.Moment;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.springframework.stereotype.Repository;

/** What people follow. */
@Repository
public class FollowStore {
    private static final long FRESH_NANOS = 10_000_000_000L;

    private final DSLContext db;
    private volatile boolean any = true;
    private volatile long askedAt = System.nanoTime() - 2 * FRESH_NANOS;

    public FollowStore(DSLContext db) {
        this.db = db;
    }

    /** What can be followed. */
    public enum Kind {
        ITEM,
        FOLDER,
        SHELF
    }

    public record Follow(long person, Kind kind, long target, Set<Moment> moments) {}

    /**
     * Whether anybody follows anything: where nobody does, acts ask no further. What another node was told counts after ten seconds at
     * the latest.
     */
    public boolean any() {
        if (System.nanoTime() - askedAt > FRESH_NANOS) {
            any = db.fetchExists(FOLLOW);
            askedAt = System.nanoTime();
        }
        return any;
    }

    /** Keeps what somebody follows; without moments they follow it no more. */
    public void keep(Follow follow, Instant now) {
        db.deleteFrom(FOLLOW)
                .where(
                        FOLLOW.PERSON.eq(follow.person()),
                        FOLLOW.KIND.eq(follow.kind().name()),
                        FOLLOW.TARGET.eq(follow.target()))
                .execute();
        if (follow.moments().isEmpty()) return;
        db.insertInto(FOLLOW)
                .set(FOLLOW.PERSON, follow.person())
                .set(FOLLOW.KIND, follow.kind().name())
                .set(FOLLOW.TARGET, follow.target())
                .set(FOLLOW.MOMENTS, Moment.keep(follow.moments()))
                .set(FOLLOW.AT, Times.utc(now))
                .execute();
        any = true;
    }

    public Optional<Follow> of(long person, Kind kind, long target) {
        return db.selectFrom(FOLLOW)
                .where(FOLLOW.PERSON.eq(person), FOLLOW.KIND.eq(kind.name()), FOLLOW.TARGET.eq(target))
                .fetchOptional()
                .map(FollowStore::follow);
    }

    /** What somebody follows, the latest first. */
    public List<Follow> of(long person, int most) {
        return db.selectFrom(FOLLOW)
                .where(FOLLOW.PERSON.eq(person))
                .orderBy(FOLLOW.AT.desc())
                .limit(most)
                .fetch(FollowStore::follow);
    }

    /** Who follows one of these, whatever the moments; one statement. */
    public List<Follow> followers(Collection<Long> items, Collection<Long> folders, Collection<Long> shelves) {
        return db.selectFrom(FOLLOW)
                .where(FOLLOW.KIND
                        .eq(Kind.ITEM.name())
                        .and(FOLLOW.TARGET.in(items))
                        .or(FOLLOW.KIND.eq(Kind.FOLDER.name()).and(FOLLOW.TARGET.in(folders)))
                        .or(FOLLOW.KIND.eq(Kind.SHELF.name()).and(FOLLOW.TARGET.in(shelves))))
                .fetch(FollowStore::follow);
    }

    private static Follow follow(Record row) {
        return new Follow(
                row.get(FOLLOW.PERSON),
                Kind.valueOf(row.get(FOLLOW.KIND)),
                row.get(FOLLOW.TARGET),
                Moment.kept(row.get(FOLLOW.MOMENTS)));
    }
}
