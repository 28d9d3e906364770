package mintshelf.app.store.person;

import static mintshelf.database.schema.Tables.PERSON_SETTING;

import java.util.HashMap;
import java.util.Map;
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

    /** Forgets a setting; with {@code prefix} all whose names begin so. */
    public void forget(long person, String name, boolean prefix) {
        db.deleteFrom(PERSON_SETTING)
                .where(
                        PERSON_SETTING.PERSON.eq(person),
                        prefix ? PERSON_SETTING.NAME.startsWith(name) : PERSON_SETTING.NAME.eq(name))
                .execute();
    }
}
