package mintshelf.app.store.filing;

import static mintshelf.database.schema.Tables.FILING;
import static mintshelf.database.schema.Tables.FILING_ROW;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import mintshelf.app.store.Times;
import mintshelf.core.base.Texts;
import mintshelf.database.schema.tables.records.FilingRecord;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Filing sheets: from the drop to their report. */
@Repository
public class FilingStore {
    private static final TypeReference<TreeMap<String, String>> FACTS = new TypeReference<>() {};
    private final DSLContext db;
    private final JsonMapper json;

    public FilingStore(DSLContext db, JsonMapper json) {
        this.db = db;
        this.json = json;
    }

    /** What became of a filing sheet. */
    public enum State {
        OPEN,
        FILED,
        DROPPED
    }

    /**
     * A filing sheet.
     *
     * @param derivedFrom the document of which its files are changed copies, where they are
     * @param comment what is said of all versions that are made of it; empty for the usual words
     */
    public record Filing(
            long id,
            long person,
            long shelf,
            long folder,
            Optional<Long> derivedFrom,
            String comment,
            State state,
            Instant createdAt,
            Optional<Instant> endedAt) {
        public boolean isOpen() {
            return state == State.OPEN;
        }

        public boolean isDropped() {
            return state == State.DROPPED;
        }
    }

    /**
     * Where the file of a row comes from.
     *
     * @param released whether it was released elsewhere, and stands here as it is
     * @param startedFrom the document that it began as a copy of
     */
    public record Origin(boolean released, Optional<Long> startedFrom) {
        public static final Origin NONE = new Origin(false, Optional.empty());
    }

    /**
     * A row of a sheet.
     *
     * @param sameAs a document on the shelf that has this content already
     * @param item the document that was made of it
     * @param uses whether the one that has this content already does in its place
     * @param words what is said of its version in place of the sheet's comment
     * @param path of a folder below {@code folder} that is made when it is filed; empty for none
     * @param beside the row beside whose file it lies as a neutral copy; empty for a document of its own
     * @param origin where it comes from, as far as somebody said it
     */
    public record Row(
            long id,
            long upload,
            boolean included,
            Optional<Long> kind,
            String kindWhy,
            String number,
            String numberWhy,
            String title,
            String titleWhy,
            String revision,
            String revisionWhy,
            long folder,
            Map<String, String> facts,
            Optional<Long> sameAs,
            Optional<Long> item,
            boolean uses,
            String words,
            String path,
            Optional<Long> beside,
            Origin origin) {
        /** A row of which nothing else is said. */
        public Row(
                long id,
                long upload,
                boolean included,
                Optional<Long> kind,
                String kindWhy,
                String number,
                String numberWhy,
                String title,
                String titleWhy,
                String revision,
                String revisionWhy,
                long folder,
                Map<String, String> facts,
                Optional<Long> sameAs,
                Optional<Long> item) {
            this(
                    id,
                    upload,
                    included,
                    kind,
                    kindWhy,
                    number,
                    numberWhy,
                    title,
                    titleWhy,
                    revision,
                    revisionWhy,
                    folder,
                    facts,
                    sameAs,
                    item,
                    false,
                    "",
                    "",
                    Optional.empty(),
                    Origin.NONE);
        }

        /** Whether a document is made of it. */
        public boolean isDocument() {
            return included && beside.isEmpty();
        }

        /** The same row with another number and why. */
        public Row withNumber(String other, String why) {
            return with(kind, kindWhy, other, why, facts);
        }

        /** The same row with another kind and why. */
        public Row withKind(long other, String why) {
            return with(Optional.of(other), why, number, numberWhy, facts);
        }

        /** The same row that says this of its facts. */
        public Row withFacts(Map<String, String> said) {
            return with(kind, kindWhy, number, numberWhy, said);
        }

        /** The same row that goes into another folder. */
        public Row into(long other, String below) {
            return new Row(
                    id,
                    upload,
                    included,
                    kind,
                    kindWhy,
                    number,
                    numberWhy,
                    title,
                    titleWhy,
                    revision,
                    revisionWhy,
                    other,
                    facts,
                    sameAs,
                    item,
                    uses,
                    words,
                    below,
                    beside,
                    origin);
        }

        /** The same row with what its neutral copy says, where nobody reads its own file: what it is, what its sheet says. */
        public Row saying(Row copy) {
            boolean none = kind.isEmpty() && copy.kind().isPresent();
            return new Row(
                    id,
                    upload,
                    included,
                    none ? copy.kind() : kind,
                    none ? "as its neutral copy, " + copy.kindWhy() : kindWhy,
                    copy.number(),
                    copy.numberWhy(),
                    copy.title(),
                    copy.titleWhy(),
                    copy.revision(),
                    copy.revisionWhy(),
                    folder,
                    copy.facts(),
                    sameAs,
                    item,
                    uses,
                    words,
                    path,
                    beside,
                    origin);
        }

        /** The same row as a neutral copy beside another one, or by itself. */
        public Row beside(Optional<Long> other) {
            return new Row(
                    id,
                    upload,
                    included,
                    kind,
                    kindWhy,
                    number,
                    numberWhy,
                    title,
                    titleWhy,
                    revision,
                    revisionWhy,
                    folder,
                    facts,
                    sameAs,
                    item,
                    uses,
                    words,
                    path,
                    other,
                    origin);
        }

        /** The same row that comes from there. */
        public Row from(Origin other) {
            return new Row(
                    id,
                    upload,
                    included,
                    kind,
                    kindWhy,
                    number,
                    numberWhy,
                    title,
                    titleWhy,
                    revision,
                    revisionWhy,
                    folder,
                    facts,
                    sameAs,
                    item,
                    uses,
                    words,
                    path,
                    beside,
                    other);
        }

        private Row with(Optional<Long> is, String isWhy, String named, String namedWhy, Map<String, String> said) {
            return new Row(
                    id,
                    upload,
                    included,
                    is,
                    isWhy,
                    named,
                    namedWhy,
                    title,
                    titleWhy,
                    revision,
                    revisionWhy,
                    folder,
                    said,
                    sameAs,
                    item,
                    uses,
                    words,
                    path,
                    beside,
                    origin);
        }
    }

    public long open(long person, long shelf, long folder, Optional<Long> derivedFrom, Instant now) {
        return db.insertInto(FILING)
                .set(FILING.PERSON, person)
                .set(FILING.SHELF, shelf)
                .set(FILING.FOLDER, folder)
                .set(FILING.DERIVED_FROM, derivedFrom.orElse(null))
                .set(FILING.STATE, State.OPEN.name())
                .set(FILING.CREATED_AT, Times.utc(now))
                .returningResult(FILING.ID)
                .fetchSingle()
                .value1();
    }

    /** Adds a row; its id. */
    public long addRow(long filing, int position, Row row) {
        return db.insertInto(FILING_ROW)
                .set(FILING_ROW.FILING, filing)
                .set(FILING_ROW.UPLOAD, row.upload())
                .set(FILING_ROW.POSITION, position)
                .set(FILING_ROW.INCLUDED, row.included())
                .set(FILING_ROW.KIND, row.kind().orElse(null))
                .set(FILING_ROW.KIND_WHY, row.kindWhy())
                .set(FILING_ROW.NUMBER, Texts.shorten(row.number(), 100))
                .set(FILING_ROW.NUMBER_WHY, row.numberWhy())
                .set(FILING_ROW.TITLE, Texts.shorten(row.title(), 300))
                .set(FILING_ROW.TITLE_WHY, row.titleWhy())
                .set(FILING_ROW.REVISION, Texts.shorten(row.revision(), 20))
                .set(FILING_ROW.REVISION_WHY, row.revisionWhy())
                .set(FILING_ROW.FOLDER, row.folder())
                .set(FILING_ROW.FACTS, json.writeValueAsString(row.facts()))
                .set(FILING_ROW.SAME_AS, row.sameAs().orElse(null))
                .set(FILING_ROW.PATH, row.path())
                .set(FILING_ROW.BESIDE, row.beside().orElse(null))
                .returningResult(FILING_ROW.ID)
                .fetchSingle()
                .value1();
    }

    /** Keeps what was typed into a row. */
    public void edit(Row row) {
        db.update(FILING_ROW)
                .set(FILING_ROW.INCLUDED, row.included())
                .set(FILING_ROW.KIND, row.kind().orElse(null))
                .set(FILING_ROW.NUMBER, Texts.shorten(row.number(), 100))
                .set(FILING_ROW.TITLE, Texts.shorten(row.title(), 300))
                .set(FILING_ROW.REVISION, Texts.shorten(row.revision(), 20))
                .set(FILING_ROW.FOLDER, row.folder())
                .set(FILING_ROW.FACTS, json.writeValueAsString(row.facts()))
                .set(FILING_ROW.USES, row.uses())
                .set(FILING_ROW.WORDS, Texts.shorten(row.words(), 2000))
                .set(FILING_ROW.PATH, row.path())
                .set(FILING_ROW.BESIDE, row.beside().orElse(null))
                .set(FILING_ROW.RELEASED, row.origin().released())
                .set(FILING_ROW.STARTED_FROM, row.origin().startedFrom().orElse(null))
                .where(FILING_ROW.ID.eq(row.id()))
                .execute();
    }

    /** Says something of all versions that are made of a sheet. */
    public void comment(long filing, String comment) {
        db.update(FILING)
                .set(FILING.COMMENT, comment)
                .where(FILING.ID.eq(filing))
                .execute();
    }

    public Optional<Filing> filing(long id) {
        return db.selectFrom(FILING).where(FILING.ID.eq(id)).fetchOptional(FilingStore::filing);
    }

    /** The sheet, locked within the caller's transaction. */
    public Optional<Filing> lock(long id) {
        return db.selectFrom(FILING).where(FILING.ID.eq(id)).forUpdate().fetchOptional(FilingStore::filing);
    }

    private static Filing filing(FilingRecord row) {
        return new Filing(
                row.getId(),
                row.getPerson(),
                row.getShelf(),
                row.getFolder(),
                Optional.ofNullable(row.getDerivedFrom()),
                row.getComment(),
                State.valueOf(row.getState()),
                Times.instant(row.getCreatedAt()),
                Optional.ofNullable(row.getEndedAt()).map(Times::instant));
    }

    /** Sheets of a person that wait to be filed, newest first. */
    public List<Filing> openOf(long person, int most) {
        return db.selectFrom(FILING)
                .where(FILING.PERSON.eq(person), FILING.STATE.eq(State.OPEN.name()))
                .orderBy(FILING.ID.desc())
                .limit(most)
                .fetch(FilingStore::filing);
    }

    /** How many files lie on each of these sheets. */
    public Map<Long, Integer> counts(Collection<Long> filings) {
        if (filings.isEmpty()) return Map.of();
        return db.select(FILING_ROW.FILING, DSL.count())
                .from(FILING_ROW)
                .where(FILING_ROW.FILING.in(filings))
                .groupBy(FILING_ROW.FILING)
                .fetchMap(FILING_ROW.FILING, DSL.count());
    }

    public List<Row> rows(long filing) {
        return db.selectFrom(FILING_ROW)
                .where(FILING_ROW.FILING.eq(filing))
                .orderBy(FILING_ROW.POSITION, FILING_ROW.ID)
                .fetch(row -> new Row(
                        row.getId(),
                        row.getUpload(),
                        row.getIncluded(),
                        Optional.ofNullable(row.getKind()),
                        row.getKindWhy(),
                        row.getNumber(),
                        row.getNumberWhy(),
                        row.getTitle(),
                        row.getTitleWhy(),
                        row.getRevision(),
                        row.getRevisionWhy(),
                        row.getFolder(),
                        json.readValue(row.getFacts(), FACTS),
                        Optional.ofNullable(row.getSameAs()),
                        Optional.ofNullable(row.getItem()),
                        row.getUses(),
                        row.getWords(),
                        row.getPath(),
                        Optional.ofNullable(row.getBeside()),
                        new Origin(row.getReleased(), Optional.ofNullable(row.getStartedFrom()))));
    }

    public void filed(long row, long item) {
        db.update(FILING_ROW)
                .set(FILING_ROW.ITEM, item)
                .where(FILING_ROW.ID.eq(row))
                .execute();
    }

    public void end(long filing, State state, Instant now) {
        db.update(FILING)
                .set(FILING.STATE, state.name())
                .set(FILING.ENDED_AT, Times.utc(now))
                .where(FILING.ID.eq(filing))
                .execute();
    }
}
