package mintshelf.app.store.person;

import static mintshelf.database.schema.Tables.GROUP_MEMBER;
import static mintshelf.database.schema.Tables.GROUP_SETTING;
import static mintshelf.database.schema.Tables.PERSON_GROUP;
import static mintshelf.database.schema.Tables.PERSON_SETTING;

import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** What people chose for their own pages. */
@Repository
public class SettingStore {
    private final DSLContext db;

    public SettingStore(DSLContext db) {
        this.db = db;
    }

    public Map<String, String> settings(long person) {
        return new HashMap<>(db.select(PERSON_SETTING.NAME, PERSON_SETTING.VALUE)
                .from(PERSON_SETTING)
                .where(PERSON_SETTING.PERSON.eq(person))
                .fetchMap(PERSON_SETTING.NAME, PERSON_SETTING.VALUE));
    }

    public void set(long person, String name, String value) {
        db.insertInto(PERSON_SETTING)
                .set(PERSON_SETTING.PERSON, person)
                .set(PERSON_SETTING.NAME, name)
                .set(PERSON_SETTING.VALUE, value)
                .onDuplicateKeyUpdate()
                .set(PERSON_SETTING.VALUE, value)
                .execute();
    }

    /** What the groups of somebody see: of the first of them by name that says it. */
    public Optional<String> ofGroups(long person, String name) {
        return db.select(GROUP_SETTING.VALUE)
                .from(GROUP_SETTING)
                .join(GROUP_MEMBER)
                .on(GROUP_MEMBER.PERSON_GROUP.eq(GROUP_SETTING.PERSON_GROUP))
                .join(PERSON_GROUP)
                .on(PERSON_GROUP.ID.eq(GROUP_SETTING.PERSON_GROUP))
                .where(GROUP_MEMBER.PERSON.eq(person), GROUP_SETTING.NAME.eq(name))
                .orderBy(PERSON_GROUP.NAME)
                .limit(1)
                .fetchOptional(GROUP_SETTING.VALUE);
    }

    /** What people of a group see who chose nothing; empty takes it back. */
    public void setForGroup(long group, String name, Optional<String> value) {
        if (value.isEmpty()) {
            db.deleteFrom(GROUP_SETTING)
                    .where(GROUP_SETTING.PERSON_GROUP.eq(group), GROUP_SETTING.NAME.eq(name))
                    .execute();
            return;
        }
        db.insertInto(GROUP_SETTING)
                .set(GROUP_SETTING.PERSON_GROUP, group)
                .set(GROUP_SETTING.NAME, name)
                .set(GROUP_SETTING.VALUE, value.get())
                .onDuplicateKeyUpdate()
                .set(GROUP_SETTING.VALUE, value.get())
                .execute();
    }

    /** Forgets a setting; with {@code prefix} all whose names begin so. */
    public void forget(long person, String name, boolean prefix) {
        db.deleteFrom(PERSON_SETTING)
                .where(
                        PERSON_SETTING.PERSON.eq(person),
                        prefix ? PERSON_SETTING.NAME.startsWith(name) : PERSON_SETTING.NAME.eq(name))
                .execute();
    }
}
