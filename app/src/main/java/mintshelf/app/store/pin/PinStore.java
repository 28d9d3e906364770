package mintshelf.app.store.pin;

import static mintshelf.database.schema.Tables.PIN;

import java.util.List;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** Pins, in the sequence that their owners gave them. */
@Repository
public class PinStore {
    private final DSLContext db;

    public PinStore(DSLContext db) {
        this.db = db;
    }

    /** What may be pinned. */
    public enum Kind {
        ITEM,
        FOLDER,
        SHELF,
        SEARCH
    }

    /** A pin: of what, and its id. */
    public record Pin(Kind kind, long target) {}

    public List<Pin> of(long person) {
        return db.select(PIN.KIND, PIN.TARGET)
                .from(PIN)
                .where(PIN.PERSON.eq(person))
                .orderBy(PIN.POSITION, PIN.KIND, PIN.TARGET)
                .fetch(row -> new Pin(Kind.valueOf(row.value1()), row.value2()));
    }

    public boolean isPinned(long person, Pin pin) {
        return db.fetchExists(PIN, PIN.PERSON.eq(person), PIN.KIND.eq(pin.kind().name()), PIN.TARGET.eq(pin.target()));
    }

    /** Puts a pin behind the others; one that is there stays where it is. */
    public void add(long person, Pin pin) {
        int last = db.select(DSL.coalesce(DSL.max(PIN.POSITION), 0))
                .from(PIN)
                .where(PIN.PERSON.eq(person))
                .fetchSingle(0, Integer.class);
        db.insertInto(PIN)
                .set(PIN.PERSON, person)
                .set(PIN.KIND, pin.kind().name())
                .set(PIN.TARGET, pin.target())
                .set(PIN.POSITION, last + 1)
                .onDuplicateKeyIgnore()
                .execute();
    }

    public void remove(long person, Pin pin) {
        db.deleteFrom(PIN)
                .where(PIN.PERSON.eq(person), PIN.KIND.eq(pin.kind().name()), PIN.TARGET.eq(pin.target()))
                .execute();
    }

    /** Gives the pins a sequence; those that are not named stand behind. */
    public void order(long person, List<Pin> sequence) {
        for (int i = 0; i < sequence.size(); i++) {
            db.update(PIN)
                    .set(PIN.POSITION, i + 1)
                    .where(
                            PIN.PERSON.eq(person),
                            PIN.KIND.eq(sequence.get(i).kind().name()),
                            PIN.TARGET.eq(sequence.get(i).target()))
                    .execute();
        }
    }
}
