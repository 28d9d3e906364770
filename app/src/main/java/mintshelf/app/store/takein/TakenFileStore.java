package mintshelf.app.store.takein;

import static mintshelf.database.schema.Tables.TAKE_IN_FILE;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import mintshelf.app.store.Rows;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Texts;
import mintshelf.core.content.ContentKind;
import mintshelf.core.reference.Written;
import mintshelf.core.takein.Column;
import mintshelf.core.takein.TakePlan;
import mintshelf.core.takein.Taking;
import mintshelf.core.takein.Taking.Verdict;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** The files of taking-ins, what they say and what becomes of them. */
@Repository
public class TakenFileStore {
    private static final TypeReference<TreeMap<String, String>> SAYS = new TypeReference<>() {};
    private static final TypeReference<List<Written>> REFERS = new TypeReference<>() {};
    private static final TypeReference<EnumMap<Column, String>> MENDED = new TypeReference<>() {};
    private static final int PORTION = 200;
    private static final Rows PLANS = Rows.kept(
            TAKE_IN_FILE,
            List.of(
                    TAKE_IN_FILE.PLAN,
                    TAKE_IN_FILE.VERDICT,
                    TAKE_IN_FILE.HINTED,
                    TAKE_IN_FILE.DOCUMENT,
                    TAKE_IN_FILE.STEP,
                    TAKE_IN_FILE.TROUBLE),
            TAKE_IN_FILE.TAKE_IN,
            TAKE_IN_FILE.POSITION,
            TAKE_IN_FILE.PATH_HASH,
            TAKE_IN_FILE.RAW,
            TAKE_IN_FILE.PATH,
            TAKE_IN_FILE.SIZE,
            TAKE_IN_FILE.PLAN,
            TAKE_IN_FILE.VERDICT,
            TAKE_IN_FILE.HINTED,
            TAKE_IN_FILE.DOCUMENT,
            TAKE_IN_FILE.STEP,
            TAKE_IN_FILE.TROUBLE);

    private final DSLContext db;
    private final JsonMapper json;

    public TakenFileStore(DSLContext db, JsonMapper json) {
        this.db = db;
        this.json = json;
    }

    private static byte[] hash(String raw) {
        return ContentHash.compute(raw.getBytes(StandardCharsets.UTF_8)).bytes();
    }

    public int count(long takeIn) {
        return db.fetchCount(TAKE_IN_FILE, TAKE_IN_FILE.TAKE_IN.eq(takeIn));
    }

    /** The place behind the last file; without counting them. */
    public int next(long takeIn) {
        Integer last = db.select(DSL.max(TAKE_IN_FILE.POSITION))
                .from(TAKE_IN_FILE)
                .where(TAKE_IN_FILE.TAKE_IN.eq(takeIn))
                .fetchSingle()
                .value1();
        return last == null ? 0 : last + 1;
    }

    /** The file of a path as it came, if it is there. */
    public Optional<TakenFile> at(long takeIn, String raw) {
        return files(TAKE_IN_FILE.TAKE_IN.eq(takeIn).and(TAKE_IN_FILE.PATH_HASH.eq(hash(raw))), 1).stream()
                .findFirst();
    }

    /** Adds a file behind the others; under the lock of its taking-in. */
    public void add(long takeIn, int at, String raw, String path, Optional<Long> upload, long size, String unread) {
        db.insertInto(TAKE_IN_FILE)
                .set(TAKE_IN_FILE.TAKE_IN, takeIn)
                .set(TAKE_IN_FILE.POSITION, at)
                .set(TAKE_IN_FILE.PATH_HASH, hash(raw))
                .set(TAKE_IN_FILE.RAW, raw)
                .set(TAKE_IN_FILE.PATH, path)
                .set(TAKE_IN_FILE.UPLOAD, upload.orElse(null))
                .set(TAKE_IN_FILE.SIZE, size)
                .set(TAKE_IN_FILE.UNREAD, Texts.shorten(unread, 300))
                .execute();
    }

    /** Gives a file other bytes: it was brought anew. */
    public void bringAnew(long takeIn, int at, Optional<Long> upload, long size) {
        db.update(TAKE_IN_FILE)
                .set(TAKE_IN_FILE.UPLOAD, upload.orElse(null))
                .set(TAKE_IN_FILE.SIZE, size)
                .set(TAKE_IN_FILE.UNREAD, "")
                .setNull(TAKE_IN_FILE.SAYS)
                .where(TAKE_IN_FILE.TAKE_IN.eq(takeIn), TAKE_IN_FILE.POSITION.eq(at))
                .execute();
    }

    /** The next files that were not read yet. */
    public List<TakenFile> unread(long takeIn, int most) {
        return files(TAKE_IN_FILE.TAKE_IN.eq(takeIn).and(TAKE_IN_FILE.SAYS.isNull()), most);
    }

    public int countUnread(long takeIn) {
        return db.fetchCount(TAKE_IN_FILE, TAKE_IN_FILE.TAKE_IN.eq(takeIn), TAKE_IN_FILE.SAYS.isNull());
    }

    /** What could not be read is read once more: it may have come whole by now. */
    public void readAgain(long takeIn) {
        db.update(TAKE_IN_FILE)
                .setNull(TAKE_IN_FILE.SAYS)
                .set(TAKE_IN_FILE.UNREAD, "")
                .where(
                        TAKE_IN_FILE.TAKE_IN.eq(takeIn),
                        TAKE_IN_FILE.UNREAD.ne(""),
                        TAKE_IN_FILE.UPLOAD.isNotNull(),
                        TAKE_IN_FILE.ITEM.isNull())
                .execute();
    }

    /** What a file says. */
    public record Read(
            int at,
            String content,
            ContentKind kind,
            Map<String, String> says,
            List<Written> refersTo,
            String unread) {}

    public void read(long takeIn, List<Read> all) {
        for (Read one : all) {
            db.update(TAKE_IN_FILE)
                    .set(TAKE_IN_FILE.CONTENT, one.content())
                    .set(TAKE_IN_FILE.CONTENT_KIND, one.kind().name())
                    .set(TAKE_IN_FILE.SAYS, json.writeValueAsString(one.says()))
                    .set(TAKE_IN_FILE.REFERS_TO, json.writeValueAsString(one.refersTo()))
                    .set(TAKE_IN_FILE.UNREAD, Texts.shorten(one.unread(), 300))
                    .where(TAKE_IN_FILE.TAKE_IN.eq(takeIn), TAKE_IN_FILE.POSITION.eq(one.at()))
                    .execute();
        }
    }

    /** All files of which no document was made, in order. */
    public List<TakenFile> open(long takeIn) {
        return files(TAKE_IN_FILE.TAKE_IN.eq(takeIn).and(TAKE_IN_FILE.ITEM.isNull()), Integer.MAX_VALUE);
    }

    public Optional<TakenFile> file(long takeIn, int at) {
        return files(TAKE_IN_FILE.TAKE_IN.eq(takeIn).and(TAKE_IN_FILE.POSITION.eq(at)), 1).stream()
                .findFirst();
    }

    public void mend(long takeIn, int at, Map<Column, String> mended) {
        db.update(TAKE_IN_FILE)
                .set(TAKE_IN_FILE.MENDED, json.writeValueAsString(mended))
                .where(TAKE_IN_FILE.TAKE_IN.eq(takeIn), TAKE_IN_FILE.POSITION.eq(at))
                .execute();
    }

    /** Writes what becomes of files; only what is another than before. */
    public void plan(long takeIn, List<TakenFile> files, TakePlan plan) {
        List<Object[]> rows = new ArrayList<>();
        for (int i = 0; i < files.size(); i++) {
            TakenFile file = files.get(i);
            Taking taking = plan.takings().get(i);
            if (file.taking().equals(Optional.of(taking))) continue;
            rows.add(new Object[] {
                takeIn,
                file.at(),
                hash(file.raw()),
                file.raw(),
                file.path(),
                file.size(),
                json.writeValueAsString(taking),
                taking.verdict().name(),
                !taking.hints().isEmpty(),
                taking.document(),
                taking.step(),
                ""
            });
        }
        for (int from = 0; from < rows.size(); from += PORTION) {
            PLANS.write(db, rows.subList(from, Math.min(rows.size(), from + PORTION)));
        }
    }

    /** Which files are listed. */
    public enum Filter {
        ALL,
        GOES,
        STOPS,
        WAITS,
        LEFT_OUT,
        HINTED,
        FILED
    }

    private static Condition of(long takeIn, Filter filter) {
        Condition mine = TAKE_IN_FILE.TAKE_IN.eq(takeIn);
        return switch (filter) {
            case ALL -> mine;
            case GOES ->
                mine.and(TAKE_IN_FILE.VERDICT.eq(Verdict.GOES.name()))
                        .and(TAKE_IN_FILE.ITEM.isNull())
                        .and(TAKE_IN_FILE.TROUBLE.eq(""));
            case STOPS ->
                mine.and(TAKE_IN_FILE.ITEM.isNull())
                        .and(TAKE_IN_FILE.VERDICT.eq(Verdict.STOPS.name()).or(TAKE_IN_FILE.TROUBLE.ne("")));
            case WAITS, LEFT_OUT ->
                mine.and(TAKE_IN_FILE.VERDICT.eq(filter.name())).and(TAKE_IN_FILE.ITEM.isNull());
            case HINTED -> mine.and(TAKE_IN_FILE.HINTED.isTrue());
            case FILED -> mine.and(TAKE_IN_FILE.ITEM.isNotNull());
        };
    }

    /** Files from a position on. */
    public List<TakenFile> page(long takeIn, Filter filter, int from, int most) {
        return files(of(takeIn, filter).and(TAKE_IN_FILE.POSITION.ge(from)), most);
    }

    public Map<Filter, Integer> counts(long takeIn) {
        Map<Filter, Integer> counts = new EnumMap<>(Filter.class);
        var sums = Arrays.stream(Filter.values())
                .map(f -> DSL.count().filterWhere(of(takeIn, f)).as(f.name()))
                .toList();
        Record row = db.select(sums)
                .from(TAKE_IN_FILE)
                .where(TAKE_IN_FILE.TAKE_IN.eq(takeIn))
                .fetchSingle();
        for (Filter filter : Filter.values()) counts.put(filter, row.get(filter.name(), Integer.class));
        return counts;
    }

    /** How many documents go. */
    public int documents(long takeIn) {
        return db.select(DSL.countDistinct(TAKE_IN_FILE.DOCUMENT))
                .from(TAKE_IN_FILE)
                .where(of(takeIn, Filter.GOES))
                .fetchSingle()
                .value1();
    }

    /** How many documents were filed. */
    public int filed(long takeIn) {
        return db.select(DSL.countDistinct(TAKE_IN_FILE.ITEM))
                .from(TAKE_IN_FILE)
                .where(TAKE_IN_FILE.TAKE_IN.eq(takeIn))
                .fetchSingle()
                .value1();
    }

    /** The folders of all that goes. */
    public List<String> folders(long takeIn) {
        return db.selectDistinct(DSL.field("json_value({0}, '$.folder')", String.class, TAKE_IN_FILE.PLAN))
                .from(TAKE_IN_FILE)
                .where(of(takeIn, Filter.GOES))
                .fetch(row -> Optional.ofNullable(row.value1()).orElse(""));
    }

    /** The next documents that go, each with the files of its revisions, the oldest first. */
    public List<List<TakenFile>> nextDocuments(long takeIn, int most) {
        List<Integer> next = db.selectDistinct(TAKE_IN_FILE.DOCUMENT)
                .from(TAKE_IN_FILE)
                .where(of(takeIn, Filter.GOES))
                .orderBy(TAKE_IN_FILE.DOCUMENT)
                .limit(most)
                .fetch(TAKE_IN_FILE.DOCUMENT);
        Map<Integer, List<TakenFile>> documents = new TreeMap<>();
        if (next.isEmpty()) return List.of();
        // Those that were filed before keep the places that they had then.
        files(of(takeIn, Filter.GOES).and(TAKE_IN_FILE.DOCUMENT.in(next)), Integer.MAX_VALUE)
                .forEach(f -> documents
                        .computeIfAbsent(f.taking().orElseThrow().document(), d -> new ArrayList<>())
                        .add(f));
        documents
                .values()
                .forEach(all -> all.sort((a, b) -> Integer.compare(
                        a.taking().orElseThrow().step(),
                        b.taking().orElseThrow().step())));
        return List.copyOf(documents.values());
    }

    public void filed(long takeIn, int at, long item, long version) {
        db.update(TAKE_IN_FILE)
                .set(TAKE_IN_FILE.ITEM, item)
                .set(TAKE_IN_FILE.VERSION, version)
                .where(TAKE_IN_FILE.TAKE_IN.eq(takeIn), TAKE_IN_FILE.POSITION.eq(at))
                .execute();
    }

    /** Why files were not filed when it was their turn. */
    public void trouble(long takeIn, Collection<Integer> at, String why) {
        db.update(TAKE_IN_FILE)
                .set(TAKE_IN_FILE.TROUBLE, Texts.shorten(why, 500))
                .where(TAKE_IN_FILE.TAKE_IN.eq(takeIn), TAKE_IN_FILE.POSITION.in(at))
                .execute();
    }

    /** What was in trouble is tried once more. */
    public void tryAgain(long takeIn) {
        db.update(TAKE_IN_FILE)
                .set(TAKE_IN_FILE.TROUBLE, "")
                .where(TAKE_IN_FILE.TAKE_IN.eq(takeIn), TAKE_IN_FILE.TROUBLE.ne(""))
                .execute();
    }

    /** The uploads of files of which no document was made, from a position on. */
    public List<Long> uploads(long takeIn) {
        return db.select(TAKE_IN_FILE.UPLOAD)
                .from(TAKE_IN_FILE)
                .where(TAKE_IN_FILE.TAKE_IN.eq(takeIn), TAKE_IN_FILE.ITEM.isNull(), TAKE_IN_FILE.UPLOAD.isNotNull())
                .fetch(TAKE_IN_FILE.UPLOAD);
    }

    private List<TakenFile> files(Condition which, int most) {
        return db.selectFrom(TAKE_IN_FILE)
                .where(which)
                .orderBy(TAKE_IN_FILE.POSITION)
                .limit(most)
                .fetch(row -> new TakenFile(
                        row.getPosition(),
                        row.getRaw(),
                        row.getPath(),
                        Optional.ofNullable(row.getUpload()),
                        row.getUnread(),
                        row.getSize(),
                        row.getContent(),
                        row.getContentKind().isEmpty() ? ContentKind.OTHER : ContentKind.valueOf(row.getContentKind()),
                        read(row.getSays(), SAYS)
                                .map(s -> (Map<String, String>) s)
                                .orElse(Map.of()),
                        read(row.getRefersTo(), REFERS).orElse(List.of()),
                        read(row.getMended(), MENDED)
                                .map(m -> (Map<Column, String>) m)
                                .orElse(Map.of()),
                        Optional.ofNullable(row.getPlan()).map(p -> json.readValue(p, Taking.class)),
                        row.getTrouble(),
                        Optional.ofNullable(row.getItem()),
                        Optional.ofNullable(row.getVersion())));
    }

    private <T> Optional<T> read(@org.jspecify.annotations.Nullable String kept, TypeReference<T> as) {
        return Optional.ofNullable(kept).map(k -> json.readValue(k, as));
    }
}
