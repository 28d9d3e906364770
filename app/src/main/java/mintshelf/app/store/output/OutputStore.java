package mintshelf.app.store.output;

import static mintshelf.database.schema.Tables.CONTENT;
import static mintshelf.database.schema.Tables.OUTPUT;
import static mintshelf.database.schema.Tables.STAMP;
import static mintshelf.database.schema.Tables.VERSION;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import mintshelf.app.store.Leased;
import mintshelf.app.store.Times;
import mintshelf.app.store.content.StoredContent;
import mintshelf.core.base.ContentHash;
import mintshelf.core.content.ContentKind;
import mintshelf.core.stamp.SheetStamp;
import mintshelf.database.schema.tables.records.OutputRecord;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** What the shelf made of versions: the proofs of stamps, and the outputs that runs make once each. */
@Repository
public class OutputStore {
    private static final Leased<OutputRecord> WAITING =
            new Leased<>(OUTPUT.STATE.eq(State.WAITING.name()), OUTPUT.ASKED_AT, OUTPUT.LEASE_UNTIL, OUTPUT.TRIES);

    private final DSLContext db;
    private final JsonMapper json;

    public OutputStore(DSLContext db, JsonMapper json) {
        this.db = db;
        this.json = json;
    }

    /** A proof as kept. */
    public record Proof(
            long version,
            long signedVersion,
            long sheetMap,
            ContentHash signed,
            ContentHash stamped,
            SheetStamp.Values values) {}

    /** As kept; of sheets that were written before there were recipes it is null. */
    record BlockRows(List<Map<String, String>> rows, boolean place, Integer recipe) {}

    public void prove(Proof proof, List<SheetStamp.Edit> edits) {
        db.insertInto(STAMP)
                .set(STAMP.VERSION, proof.version())
                .set(STAMP.SIGNED_VERSION, proof.signedVersion())
                .set(STAMP.SHEET_MAP, proof.sheetMap())
                .set(STAMP.SIGNED_HASH, proof.signed().bytes())
                .set(STAMP.STAMPED_HASH, proof.stamped().bytes())
                .set(
                        STAMP.FACT_VALUES,
                        json.writeValueAsString(new TreeMap<>(proof.values().values())))
                .set(
                        STAMP.BLOCK_ROWS,
                        json.writeValueAsString(new BlockRows(
                                proof.values().rows(),
                                proof.values().place(),
                                proof.values().recipe())))
                .set(STAMP.EDITS, json.writeValueAsString(edits))
                .execute();
    }

    /** The proof of a version that the shelf wrote. */
    public Optional<Proof> proof(long version) {
        return db.selectFrom(STAMP).where(STAMP.VERSION.eq(version)).fetchOptional(this::proof);
    }

    /** Proofs after a version, in order, for {@code verify}. */
    public List<Proof> proofsAfter(long version, int most) {
        return db.selectFrom(STAMP)
                .where(STAMP.VERSION.gt(version))
                .orderBy(STAMP.VERSION)
                .limit(most)
                .fetch(this::proof);
    }

    @SuppressWarnings("unchecked")
    private Proof proof(org.jooq.Record row) {
        BlockRows rows = row.get(STAMP.BLOCK_ROWS) == null
                ? new BlockRows(List.of(), false, null)
                : json.readValue(row.get(STAMP.BLOCK_ROWS), BlockRows.class);
        return new Proof(
                row.get(STAMP.VERSION),
                row.get(STAMP.SIGNED_VERSION),
                row.get(STAMP.SHEET_MAP),
                ContentHash.of(row.get(STAMP.SIGNED_HASH)),
                ContentHash.of(row.get(STAMP.STAMPED_HASH)),
                new SheetStamp.Values(
                        json.readValue(row.get(STAMP.FACT_VALUES), Map.class),
                        rows.rows(),
                        rows.place(),
                        rows.recipe() == null ? SheetStamp.Values.UNFITTED : rows.recipe()));
    }

    /** What became of an output that was asked for. */
    public enum State {
        WAITING,
        MADE,
        FAILED
    }

    /** An output to be made. */
    public record Wanted(long version, long item, int number, String format, String recipe, int tries) {}

    /** An output as a page shows it. */
    public record Output(String format, State state, Optional<StoredContent> content, String says) {
        public boolean isMade() {
            return content.isPresent();
        }

        public boolean isWaiting() {
            return state == State.WAITING;
        }

        public boolean isFailed() {
            return state == State.FAILED;
        }
    }

    /** Asks for an output; asked twice it is made once. */
    public void want(long version, String format, String recipe, Instant now) {
        db.insertInto(OUTPUT)
                .set(OUTPUT.VERSION, version)
                .set(OUTPUT.FORMAT, format)
                .set(OUTPUT.RECIPE, recipe)
                .set(OUTPUT.STATE, State.WAITING.name())
                .set(OUTPUT.ASKED_AT, Times.utc(now))
                .onDuplicateKeyUpdate()
                .set(OUTPUT.VERSION, version)
                .execute();
    }

    /** Keeps an output that was made with the act itself. */
    public void keep(long version, String format, String recipe, long content, Instant now) {
        db.insertInto(OUTPUT)
                .set(OUTPUT.VERSION, version)
                .set(OUTPUT.FORMAT, format)
                .set(OUTPUT.RECIPE, recipe)
                .set(OUTPUT.STATE, State.MADE.name())
                .set(OUTPUT.CONTENT, content)
                .set(OUTPUT.ASKED_AT, Times.utc(now))
                .set(OUTPUT.MADE_AT, Times.utc(now))
                .execute();
    }

    /** Takes the next output to make, under a lease: a node that dies lets it go when the lease ends. */
    public Optional<Wanted> take(Instant now, Instant leaseUntil) {
        return WAITING.take(db, now, leaseUntil)
                .map(row -> db.select(VERSION.ITEM, VERSION.NUMBER)
                        .from(VERSION)
                        .where(VERSION.ID.eq(row.getVersion()))
                        .fetchSingle(v -> new Wanted(
                                row.getVersion(),
                                v.value1(),
                                v.value2(),
                                row.getFormat(),
                                row.getRecipe(),
                                row.getTries())));
    }

    public void made(Wanted wanted, long content, String says, Instant now) {
        db.update(OUTPUT)
                .set(OUTPUT.STATE, State.MADE.name())
                .set(OUTPUT.CONTENT, content)
                .set(OUTPUT.SAYS, says)
                .set(OUTPUT.MADE_AT, Times.utc(now))
                .setNull(OUTPUT.LEASE_UNTIL)
                .where(
                        OUTPUT.VERSION.eq(wanted.version()),
                        OUTPUT.FORMAT.eq(wanted.format()),
                        OUTPUT.RECIPE.eq(wanted.recipe()),
                        OUTPUT.STATE.eq(State.WAITING.name()))
                .execute();
    }

    public void failed(Wanted wanted, String says) {
        db.update(OUTPUT)
                .set(OUTPUT.STATE, State.FAILED.name())
                .set(OUTPUT.SAYS, says)
                .setNull(OUTPUT.LEASE_UNTIL)
                .where(
                        OUTPUT.VERSION.eq(wanted.version()),
                        OUTPUT.FORMAT.eq(wanted.format()),
                        OUTPUT.RECIPE.eq(wanted.recipe()))
                .execute();
    }

    /** The outputs of a version. */
    /** Lets outputs that could not be made wait again; how many. */
    public int again(Instant now) {
        return db.update(OUTPUT)
                .set(OUTPUT.STATE, State.WAITING.name())
                .set(OUTPUT.TRIES, 0)
                .set(OUTPUT.ASKED_AT, Times.utc(now))
                .where(OUTPUT.STATE.eq(State.FAILED.name()))
                .execute();
    }

    public List<Output> of(long version) {
        return db.select(OUTPUT.fields())
                .select(CONTENT.fields())
                .from(OUTPUT)
                .leftJoin(CONTENT)
                .on(CONTENT.ID.eq(OUTPUT.CONTENT))
                .where(OUTPUT.VERSION.eq(version))
                .orderBy(OUTPUT.FORMAT)
                .fetch(row -> new Output(
                        row.get(OUTPUT.FORMAT),
                        State.valueOf(row.get(OUTPUT.STATE)),
                        row.get(CONTENT.ID) == null
                                ? Optional.empty()
                                : Optional.of(new StoredContent(
                                        row.get(CONTENT.ID),
                                        ContentHash.of(row.get(CONTENT.SHA256)),
                                        row.get(CONTENT.SIZE),
                                        ContentKind.valueOf(row.get(CONTENT.CONTENT_KIND)))),
                        row.get(OUTPUT.SAYS)));
    }
}
