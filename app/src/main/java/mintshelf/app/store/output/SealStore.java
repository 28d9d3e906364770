package mintshelf.app.store.output;

import static mintshelf.database.schema.Tables.HOUSE_SEAL;

import java.time.Instant;
import java.util.Optional;
import mintshelf.app.store.Times;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** The seal that the shelf made for a house which has none of its own: one for all nodes. */
@Repository
public class SealStore {
    private static final byte ONE = 1;

    private final DSLContext db;

    public SealStore(DSLContext db) {
        this.db = db;
    }

    /** As PKCS #12. */
    public Optional<byte[]> seal() {
        return db.select(HOUSE_SEAL.PKCS12).from(HOUSE_SEAL).fetchOptional(HOUSE_SEAL.PKCS12);
    }

    /** Keeps a seal; where another node was first, that one stays. Gives the one that is kept. */
    public byte[] keep(byte[] made, Instant now) {
        db.insertInto(HOUSE_SEAL)
                .set(HOUSE_SEAL.ID, ONE)
                .set(HOUSE_SEAL.PKCS12, made)
                .set(HOUSE_SEAL.MADE_AT, Times.utc(now))
                .onDuplicateKeyIgnore()
                .execute();
        return seal().orElseThrow();
    }
}
