package mintshelf.app.store.round;

import static mintshelf.database.schema.Tables.ROUND_BESIDE;
import static mintshelf.database.schema.Tables.ROUND_FINDING;
import static mintshelf.database.schema.Tables.ROUND_OPENED;
import static mintshelf.database.schema.Tables.VERSION;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** What lies beside the documents of a round: what the checks said when they were sent, papers to look at, what somebody has opened. */
@Repository
public class BesideStore {
    private final DSLContext db;

    public BesideStore(DSLContext db) {
        this.db = db;
    }

    /**
     * What a check said of a version when it was sent.
     *
     * @param version number of the version
     * @param says empty where every rule was kept
     * @param waived in which words it was let pass
     */
    public record Found(int version, boolean binding, String zone, String says, Optional<String> waived) {}

    /** Keeps findings of a document, in their order. */
    public void keep(long round, long item, long version, List<Found> all) {
        int seq = 0;
        for (Found found : all) {
            db.insertInto(ROUND_FINDING)
                    .set(ROUND_FINDING.ROUND, round)
                    .set(ROUND_FINDING.ITEM, item)
                    .set(ROUND_FINDING.SEQ, seq++)
                    .set(ROUND_FINDING.VERSION, version)
                    .set(ROUND_FINDING.BINDING, found.binding())
                    .set(ROUND_FINDING.ZONE, found.zone())
                    .set(ROUND_FINDING.SAYS, found.says())
                    .set(ROUND_FINDING.WAIVED, found.waived().orElse(null))
                    .execute();
        }
    }

    /** What the checks said of a document when it was sent; empty where none were asked. */
    public List<Found> found(long round, long item) {
        return db.select(ROUND_FINDING.fields())
                .select(VERSION.NUMBER)
                .from(ROUND_FINDING)
                .join(VERSION)
                .on(VERSION.ID.eq(ROUND_FINDING.VERSION))
                .where(ROUND_FINDING.ROUND.eq(round), ROUND_FINDING.ITEM.eq(item))
                .orderBy(ROUND_FINDING.SEQ)
                .fetch(row -> new Found(
                        row.get(VERSION.NUMBER),
                        row.get(ROUND_FINDING.BINDING),
                        row.get(ROUND_FINDING.ZONE),
                        row.get(ROUND_FINDING.SAYS),
                        Optional.ofNullable(row.get(ROUND_FINDING.WAIVED))));
    }

    /** A version that lies beside, and the one that it is compared with. */
    public record Paper(long item, long version, Optional<Long> old) {}

    public void lay(long round, List<Paper> papers) {
        int seq = 0;
        for (Paper paper : papers) {
            db.insertInto(ROUND_BESIDE)
                    .set(ROUND_BESIDE.ROUND, round)
                    .set(ROUND_BESIDE.SEQ, seq++)
                    .set(ROUND_BESIDE.VERSION, paper.version())
                    .set(ROUND_BESIDE.OLD_VERSION, paper.old().orElse(null))
                    .execute();
        }
    }

    public List<Paper> papers(long round) {
        return db.select(VERSION.ITEM, ROUND_BESIDE.VERSION, ROUND_BESIDE.OLD_VERSION)
                .from(ROUND_BESIDE)
                .join(VERSION)
                .on(VERSION.ID.eq(ROUND_BESIDE.VERSION))
                .where(ROUND_BESIDE.ROUND.eq(round))
                .orderBy(ROUND_BESIDE.SEQ)
                .fetch(row -> new Paper(row.value1(), row.value2(), Optional.ofNullable(row.value3())));
    }

    /** Notes that somebody opened a sheet of a round. */
    public void opened(long person, long round, long item, long version) {
        db.insertInto(ROUND_OPENED)
                .set(ROUND_OPENED.PERSON, person)
                .set(ROUND_OPENED.ROUND, round)
                .set(ROUND_OPENED.ITEM, item)
                .set(ROUND_OPENED.VERSION, version)
                .onDuplicateKeyUpdate()
                .set(ROUND_OPENED.VERSION, version)
                .execute();
    }

    /** The documents of a round that somebody has opened, each with the version that they saw. */
    public Map<Long, Long> opened(long person, long round) {
        return db.select(ROUND_OPENED.ITEM, ROUND_OPENED.VERSION)
                .from(ROUND_OPENED)
                .where(ROUND_OPENED.ROUND.eq(round), ROUND_OPENED.PERSON.eq(person))
                .fetchMap(ROUND_OPENED.ITEM, ROUND_OPENED.VERSION);
    }

    /** The version of a document that somebody signed last, in rounds before one. */
    public Optional<Integer> signedLast(long person, long item, long round) {
        var s = mintshelf.database.schema.Tables.SIGN_OFF;
        return db.select(VERSION.NUMBER)
                .from(s)
                .join(VERSION)
                .on(VERSION.ID.eq(s.VERSION))
                .where(s.ITEM.eq(item), s.PERSON.eq(person), s.ROUND.lt(round), s.DECISION.in("SIGNED", "REMARKED"))
                .orderBy(DSL.field(s.ID).desc())
                .limit(1)
                .fetchOptional(VERSION.NUMBER);
    }
}
