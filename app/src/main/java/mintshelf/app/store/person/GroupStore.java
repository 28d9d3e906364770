package mintshelf.app.store.person;

import static mintshelf.database.schema.Tables.GROUP_MEMBER;
import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.PERSON_GROUP;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.core.base.Texts;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** Groups and who is in them. */
@Repository
public class GroupStore {
    private final DSLContext db;
    private final GrantStore grants;

    public GroupStore(DSLContext db, GrantStore grants) {
        this.db = db;
        this.grants = grants;
    }

    /** A group with the people in it, by name. */
    public record Group(long id, String name, Map<Long, String> people) {}

    /** All groups with their people; two statements. */
    public List<Group> groups() {
        Map<Long, Map<Long, String>> members = new LinkedHashMap<>();
        db.select(GROUP_MEMBER.PERSON_GROUP, PERSON.ID, PERSON.NAME)
                .from(GROUP_MEMBER)
                .join(PERSON)
                .on(PERSON.ID.eq(GROUP_MEMBER.PERSON))
                .where(PERSON.LEFT_AT.isNull())
                .orderBy(PERSON.NAME)
                .forEach(row -> members.computeIfAbsent(row.value1(), g -> new LinkedHashMap<>())
                        .put(row.value2(), row.value3()));
        return db.select(PERSON_GROUP.ID, PERSON_GROUP.NAME)
                .from(PERSON_GROUP)
                .orderBy(PERSON_GROUP.NAME)
                .fetch(row -> new Group(row.value1(), row.value2(), members.getOrDefault(row.value1(), Map.of())));
    }

    /** What a group is called. */
    public String name(long group) {
        return db.select(PERSON_GROUP.NAME)
                .from(PERSON_GROUP)
                .where(PERSON_GROUP.ID.eq(group))
                .fetchSingle(PERSON_GROUP.NAME);
    }

    /** Puts somebody into the groups of {@code model}. */
    public void copy(long model, long to) {
        db.insertInto(GROUP_MEMBER, GROUP_MEMBER.PERSON_GROUP, GROUP_MEMBER.PERSON)
                .select(DSL.select(GROUP_MEMBER.PERSON_GROUP, DSL.val(to))
                        .from(GROUP_MEMBER)
                        .where(GROUP_MEMBER.PERSON.eq(model)))
                .execute();
        grants.moveStamp();
    }

    /** Takes somebody out of a group; whether they were in it. */
    public boolean leave(long group, long person) {
        boolean there = db.deleteFrom(GROUP_MEMBER)
                        .where(GROUP_MEMBER.PERSON_GROUP.eq(group), GROUP_MEMBER.PERSON.eq(person))
                        .execute()
                > 0;
        grants.moveStamp();
        return there;
    }

    public long addGroup(String name) {
        return db.insertInto(PERSON_GROUP)
                .set(PERSON_GROUP.NAME, name)
                .set(PERSON_GROUP.NAME_KEY, Texts.key(name))
                .returningResult(PERSON_GROUP.ID)
                .fetchSingle()
                .value1();
    }

    public void join(long group, long person) {
        db.insertInto(GROUP_MEMBER)
                .set(GROUP_MEMBER.PERSON_GROUP, group)
                .set(GROUP_MEMBER.PERSON, person)
                .execute();
        grants.moveStamp();
    }

    /** The groups in which the house's sign-on put somebody. */
    public Set<Long> bySignOn(long person) {
        return db.select(GROUP_MEMBER.PERSON_GROUP)
                .from(GROUP_MEMBER)
                .where(GROUP_MEMBER.PERSON.eq(person), GROUP_MEMBER.BY_SIGN_ON.isTrue())
                .fetchSet(GROUP_MEMBER.PERSON_GROUP);
    }

    /** Puts somebody into a group as the house's sign-on says; where they were put by hand, that stays. */
    public void joinBySignOn(long group, long person) {
        db.insertInto(GROUP_MEMBER)
                .set(GROUP_MEMBER.PERSON_GROUP, group)
                .set(GROUP_MEMBER.PERSON, person)
                .set(GROUP_MEMBER.BY_SIGN_ON, true)
                .onDuplicateKeyIgnore()
                .execute();
        grants.moveStamp();
    }

    public List<String> groupsOf(long person) {
        return db.select(PERSON_GROUP.NAME)
                .from(PERSON_GROUP)
                .join(GROUP_MEMBER)
                .on(GROUP_MEMBER.PERSON_GROUP.eq(PERSON_GROUP.ID))
                .where(GROUP_MEMBER.PERSON.eq(person))
                .orderBy(PERSON_GROUP.NAME)
                .fetch(PERSON_GROUP.NAME);
    }

    /** Groups of many people at once; one statement. */
    public Map<Long, List<String>> groupsOf(List<Long> people) {
        return db.select(GROUP_MEMBER.PERSON, PERSON_GROUP.NAME)
                .from(PERSON_GROUP)
                .join(GROUP_MEMBER)
                .on(GROUP_MEMBER.PERSON_GROUP.eq(PERSON_GROUP.ID))
                .where(GROUP_MEMBER.PERSON.in(people))
                .orderBy(PERSON_GROUP.NAME)
                .fetchGroups(GROUP_MEMBER.PERSON, PERSON_GROUP.NAME);
    }
}
