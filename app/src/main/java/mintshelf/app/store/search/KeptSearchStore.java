package mintshelf.app.store.search;

import static mintshelf.database.schema.Tables.GROUP_MEMBER;
import static mintshelf.database.schema.Tables.KEPT_SEARCH;
import static mintshelf.database.schema.Tables.KEPT_SEARCH_LOOK;
import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.PERSON_GROUP;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.Times;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.SelectJoinStep;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** Kept searches, who looked at them when, and who is told of new hits. */
@Repository
public class KeptSearchStore {
    private final DSLContext db;

    public KeptSearchStore(DSLContext db) {
        this.db = db;
    }

    /**
     * A kept search, as one person has it.
     *
     * @param group id of the group that it is kept for; empty for its owner alone
     * @param columns names of the facts that are columns of its list; empty for those that each has
     * @param looked when this person looked at it last; empty for never
     * @param told whether this person is mailed of new hits
     */
    public record Kept(
            long id,
            long owner,
            String ownerName,
            Optional<Long> group,
            String groupName,
            String name,
            String q,
            Ask.Order order,
            boolean versions,
            List<String> columns,
            Instant keptAt,
            Optional<Instant> looked,
            boolean told) {
        public boolean isOf(long person) {
            return owner == person;
        }
    }

    private SelectJoinStep<Record> all(long person) {
        return db.select(KEPT_SEARCH.fields())
                .select(PERSON.NAME, PERSON_GROUP.NAME, KEPT_SEARCH_LOOK.LOOKED_AT, KEPT_SEARCH_LOOK.TOLD)
                .from(KEPT_SEARCH)
                .join(PERSON)
                .on(PERSON.ID.eq(KEPT_SEARCH.OWNER))
                .leftJoin(PERSON_GROUP)
                .on(PERSON_GROUP.ID.eq(KEPT_SEARCH.PERSON_GROUP))
                .leftJoin(KEPT_SEARCH_LOOK)
                .on(KEPT_SEARCH_LOOK.SEARCH.eq(KEPT_SEARCH.ID), KEPT_SEARCH_LOOK.PERSON.eq(person));
    }

    /** Those of a person and of the groups that they are in. */
    private static Condition theirs(long person) {
        return KEPT_SEARCH
                .OWNER
                .eq(person)
                .or(KEPT_SEARCH.PERSON_GROUP.in(DSL.select(GROUP_MEMBER.PERSON_GROUP)
                        .from(GROUP_MEMBER)
                        .where(GROUP_MEMBER.PERSON.eq(person))));
    }

    /** By name; at most {@code most}. */
    public List<Kept> of(long person, int most) {
        return all(person)
                .where(theirs(person))
                .orderBy(KEPT_SEARCH.NAME, KEPT_SEARCH.ID)
                .limit(most)
                .fetch(KeptSearchStore::kept);
    }

    /** One that is theirs. */
    public Optional<Kept> one(long person, long id) {
        return all(person).where(KEPT_SEARCH.ID.eq(id), theirs(person)).fetchOptional(KeptSearchStore::kept);
    }

    private static Kept kept(Record row) {
        return new Kept(
                row.get(KEPT_SEARCH.ID),
                row.get(KEPT_SEARCH.OWNER),
                row.get(PERSON.NAME),
                Optional.ofNullable(row.get(KEPT_SEARCH.PERSON_GROUP)),
                Optional.ofNullable(row.get(PERSON_GROUP.NAME)).orElse(""),
                row.get(KEPT_SEARCH.NAME),
                row.get(KEPT_SEARCH.Q),
                Ask.Order.valueOf(row.get(KEPT_SEARCH.BY_ORDER)),
                row.get(KEPT_SEARCH.VERSIONS),
                columns(row.get(KEPT_SEARCH.FACT_COLUMNS)),
                Times.instant(row.get(KEPT_SEARCH.KEPT_AT)),
                Optional.ofNullable(row.get(KEPT_SEARCH_LOOK.LOOKED_AT)).map(Times::instant),
                Boolean.TRUE.equals(row.get(KEPT_SEARCH_LOOK.TOLD)));
    }

    private static List<String> columns(String kept) {
        return kept.isEmpty() ? List.of() : List.of(kept.split(","));
    }

    /** What is kept of a search. */
    public record New(
            String name, String q, Ask.Order order, boolean versions, Optional<Long> group, List<String> columns) {
        /** One whose list has the columns that each has. */
        public New(String name, String q, Ask.Order order, boolean versions, Optional<Long> group) {
            this(name, q, order, versions, group, List.of());
        }
    }

    public long keep(long owner, New kept, Instant now) {
        return db.insertInto(KEPT_SEARCH)
                .set(KEPT_SEARCH.OWNER, owner)
                .set(KEPT_SEARCH.PERSON_GROUP, kept.group().orElse(null))
                .set(KEPT_SEARCH.NAME, kept.name())
                .set(KEPT_SEARCH.Q, kept.q())
                .set(KEPT_SEARCH.BY_ORDER, kept.order().name())
                .set(KEPT_SEARCH.VERSIONS, kept.versions())
                .set(KEPT_SEARCH.FACT_COLUMNS, String.join(",", kept.columns()))
                .set(KEPT_SEARCH.KEPT_AT, Times.utc(now))
                .returningResult(KEPT_SEARCH.ID)
                .fetchSingle()
                .value1();
    }

    public void change(long id, New kept) {
        db.update(KEPT_SEARCH)
                .set(KEPT_SEARCH.PERSON_GROUP, kept.group().orElse(null))
                .set(KEPT_SEARCH.NAME, kept.name())
                .set(KEPT_SEARCH.Q, kept.q())
                .set(KEPT_SEARCH.BY_ORDER, kept.order().name())
                .set(KEPT_SEARCH.VERSIONS, kept.versions())
                .set(KEPT_SEARCH.FACT_COLUMNS, String.join(",", kept.columns()))
                .where(KEPT_SEARCH.ID.eq(id))
                .execute();
    }

    public void drop(long id) {
        db.deleteFrom(KEPT_SEARCH).where(KEPT_SEARCH.ID.eq(id)).execute();
    }

    /** Notes that somebody looks at its hits now. */
    public void look(long id, long person, Instant now) {
        db.insertInto(KEPT_SEARCH_LOOK)
                .set(KEPT_SEARCH_LOOK.SEARCH, id)
                .set(KEPT_SEARCH_LOOK.PERSON, person)
                .set(KEPT_SEARCH_LOOK.LOOKED_AT, Times.utc(now))
                .set(KEPT_SEARCH_LOOK.TOLD, false)
                .set(KEPT_SEARCH_LOOK.TOLD_AT, Times.utc(now))
                .onDuplicateKeyUpdate()
                .set(KEPT_SEARCH_LOOK.LOOKED_AT, Times.utc(now))
                .execute();
    }

    /** Whether somebody is mailed of new hits; what is there already is not new. */
    public void tell(long id, long person, boolean told, Instant now) {
        db.insertInto(KEPT_SEARCH_LOOK)
                .set(KEPT_SEARCH_LOOK.SEARCH, id)
                .set(KEPT_SEARCH_LOOK.PERSON, person)
                .set(KEPT_SEARCH_LOOK.LOOKED_AT, Times.utc(now))
                .set(KEPT_SEARCH_LOOK.TOLD, told)
                .set(KEPT_SEARCH_LOOK.TOLD_AT, Times.utc(now))
                .onDuplicateKeyUpdate()
                .set(KEPT_SEARCH_LOOK.TOLD, told)
                .set(KEPT_SEARCH_LOOK.TOLD_AT, Times.utc(now))
                .execute();
    }

    /** Somebody who is to be told of a search's new hits, and of what they were told last. */
    public record ToTell(long search, long person, Instant since) {}

    /** Who was told last before a moment, the longest ago first. */
    public List<ToTell> toTell(Instant before, int most) {
        return db.select(KEPT_SEARCH_LOOK.SEARCH, KEPT_SEARCH_LOOK.PERSON, KEPT_SEARCH_LOOK.TOLD_AT)
                .from(KEPT_SEARCH_LOOK)
                .where(KEPT_SEARCH_LOOK.TOLD.isTrue(), KEPT_SEARCH_LOOK.TOLD_AT.lt(Times.utc(before)))
                .orderBy(KEPT_SEARCH_LOOK.TOLD_AT)
                .limit(most)
                .fetch(row -> new ToTell(row.value1(), row.value2(), Times.instant(row.value3())));
    }

    /** Takes it that somebody is told now; false where another node has told them meanwhile. */
    public boolean told(ToTell who, Instant now) {
        return db.update(KEPT_SEARCH_LOOK)
                        .set(KEPT_SEARCH_LOOK.TOLD_AT, Times.utc(now))
                        .where(
                                KEPT_SEARCH_LOOK.SEARCH.eq(who.search()),
                                KEPT_SEARCH_LOOK.PERSON.eq(who.person()),
                                KEPT_SEARCH_LOOK.TOLD_AT.eq(Times.utc(who.since())))
                        .execute()
                == 1;
    }

    /** The groups that somebody is in, by id. */
    public Map<Long, String> groups(long person) {
        return db.select(PERSON_GROUP.ID, PERSON_GROUP.NAME)
                .from(PERSON_GROUP)
                .join(GROUP_MEMBER)
                .on(GROUP_MEMBER.PERSON_GROUP.eq(PERSON_GROUP.ID))
                .where(GROUP_MEMBER.PERSON.eq(person))
                .orderBy(PERSON_GROUP.NAME)
                .fetchMap(PERSON_GROUP.ID, PERSON_GROUP.NAME);
    }
}
