package mintshelf.app.store.hold;

import static mintshelf.database.schema.Tables.CONTENT;
import static mintshelf.database.schema.Tables.LINE;
import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.STRAY;
import static mintshelf.database.schema.Tables.VERSION;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import mintshelf.app.store.Times;
import mintshelf.app.store.content.StoredContent;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.Document;
import mintshelf.core.document.VersionName;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** Strays: content that came back without a valid hold. */
@Repository
public class StrayStore {
    private final DSLContext db;

    public StrayStore(DSLContext db) {
        this.db = db;
    }

    /**
     * A stray as shown beside its document.
     *
     * @param line that it came back to: the main one of its document, or that of a trial
     */
    public record Stray(
            long id,
            long item,
            String fileName,
            StoredContent content,
            Optional<VersionName> base,
            long author,
            String authorName,
            Instant at,
            String comment,
            String refusal,
            State state,
            long line) {
        /** Whether it was taken for only saved once more: its author may still adopt it until then. */
        public boolean isSaved() {
            return state == State.SAVED;
        }

        /** Whether somebody may still decide on it. */
        public boolean isOpen(long person, Instant now) {
            return state == State.KEPT
                    || (isSaved() && author == person && at.plus(SAVED_FOR).isAfter(now));
        }
    }

    /** What became of a stray. */
    public enum State {
        /** It waits for a decision. */
        KEPT,
        /** Kept for its author alone, in case more than the saving differed. */
        SAVED,
        ADOPTED,
        DROPPED
    }

    /** How long what was taken for only saved once more is kept. */
    public static final Duration SAVED_FOR = Duration.ofDays(30);

    public long keep(
            Document document,
            long content,
            String fileName,
            Optional<Long> base,
            long author,
            String comment,
            Refusal refusal,
            State state,
            Instant now) {
        return db.insertInto(STRAY)
                .set(STRAY.ITEM, document.id())
                .set(STRAY.LINE, document.line())
                .set(STRAY.CONTENT, content)
                .set(STRAY.FILE_NAME, fileName)
                .set(STRAY.BASE_VERSION, base.orElse(null))
                .set(STRAY.AUTHOR, author)
                .set(STRAY.AT, Times.utc(now))
                .set(STRAY.COMMENT, comment)
                .set(STRAY.REFUSAL_CODE, refusal.code())
                .set(STRAY.REFUSAL, Texts.shorten(refusal.says(), 500))
                .set(STRAY.STATE, state.name())
                .returningResult(STRAY.ID)
                .fetchSingle()
                .value1();
    }

    /** The strays of a document that are neither adopted nor dropped, newest first. */
    public List<Stray> kept(long item) {
        return strays(STRAY.ITEM.eq(item).and(STRAY.STATE.eq(State.KEPT.name())));
    }

    /** A stray that nobody decided on. */
    public record Left(long id, long item, String name, Instant at) {}

    /** Strays that are neither adopted nor dropped, the oldest first; at most {@code most}. */
    public List<Left> left(int most) {
        return db.select(STRAY.ID, STRAY.ITEM, PERSON.NAME, STRAY.AT)
                .from(STRAY)
                .join(PERSON)
                .on(PERSON.ID.eq(STRAY.AUTHOR))
                .where(STRAY.STATE.eq(State.KEPT.name()))
                .orderBy(STRAY.AT, STRAY.ID)
                .limit(most)
                .fetch(row -> new Left(row.value1(), row.value2(), row.value3(), Times.instant(row.value4())));
    }

    /** What of a person was taken for only saved once more, not older than {@link #SAVED_FOR}. */
    public List<Stray> savedBy(long person, long item, Instant now) {
        return strays(STRAY.ITEM
                .eq(item)
                .and(STRAY.STATE.eq(State.SAVED.name()))
                .and(STRAY.AUTHOR.eq(person))
                .and(STRAY.AT.gt(Times.utc(now.minus(SAVED_FOR)))));
    }

    /** Lets go what was kept in case more than the saving differed; the contents, which something else may hold too. */
    public List<Long> forgetSaved(Instant now, int most) {
        var old = db.select(STRAY.ID, STRAY.CONTENT)
                .from(STRAY)
                .where(STRAY.STATE.eq(State.SAVED.name()), STRAY.AT.lt(Times.utc(now.minus(SAVED_FOR))))
                .orderBy(STRAY.ID)
                .limit(most)
                .forUpdate()
                .skipLocked()
                .fetch();
        db.deleteFrom(STRAY).where(STRAY.ID.in(old.getValues(STRAY.ID))).execute();
        return old.getValues(STRAY.CONTENT);
    }

    /** The contents of a document's strays. */
    public List<Long> contents(long item) {
        return db.select(STRAY.CONTENT).from(STRAY).where(STRAY.ITEM.eq(item)).fetch(STRAY.CONTENT);
    }

    public void removeAll(long item) {
        db.deleteFrom(STRAY).where(STRAY.ITEM.eq(item)).execute();
    }

    public Optional<Stray> stray(long id) {
        return strays(STRAY.ID.eq(id)).stream().findFirst();
    }

    private List<Stray> strays(Condition where) {
        return db.select(STRAY.fields())
                .select(
                        PERSON.NAME,
                        VERSION.NUMBER,
                        LINE.TRIAL_NUMBER,
                        CONTENT.SHA256,
                        CONTENT.SIZE,
                        CONTENT.CONTENT_KIND)
                .from(STRAY)
                .join(PERSON)
                .on(PERSON.ID.eq(STRAY.AUTHOR))
                .join(CONTENT)
                .on(CONTENT.ID.eq(STRAY.CONTENT))
                .leftJoin(VERSION)
                .on(VERSION.ID.eq(STRAY.BASE_VERSION))
                .leftJoin(LINE)
                .on(LINE.ID.eq(VERSION.LINE))
                .where(where)
                .orderBy(STRAY.ID.desc())
                .fetch(row -> new Stray(
                        row.get(STRAY.ID),
                        row.get(STRAY.ITEM),
                        row.get(STRAY.FILE_NAME),
                        new StoredContent(
                                row.get(STRAY.CONTENT),
                                ContentHash.of(row.get(CONTENT.SHA256)),
                                row.get(CONTENT.SIZE),
                                ContentKind.valueOf(row.get(CONTENT.CONTENT_KIND))),
                        Optional.ofNullable(row.get(VERSION.NUMBER))
                                .map(n -> new VersionName(
                                        Optional.ofNullable(row.get(LINE.TRIAL_NUMBER))
                                                .orElse(0),
                                        n)),
                        row.get(STRAY.AUTHOR),
                        row.get(PERSON.NAME),
                        Times.instant(row.get(STRAY.AT)),
                        row.get(STRAY.COMMENT),
                        row.get(STRAY.REFUSAL),
                        State.valueOf(row.get(STRAY.STATE)),
                        row.get(STRAY.LINE)));
    }

    public void decide(long id, State state, long by, Optional<Long> adopted, Instant now) {
        db.update(STRAY)
                .set(STRAY.STATE, state.name())
                .set(STRAY.DECIDED_BY, by)
                .set(STRAY.DECIDED_AT, Times.utc(now))
                .set(STRAY.ADOPTED_VERSION, adopted.orElse(null))
                .where(STRAY.ID.eq(id))
                .execute();
    }
}
