package mintshelf.app.store.document;

import static mintshelf.database.schema.Tables.CONTENT;
import static mintshelf.database.schema.Tables.LINE;
import static mintshelf.database.schema.Tables.NEUTRAL_COPY;
import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.REVISION;
import static mintshelf.database.schema.Tables.VERSION;
import static mintshelf.database.schema.Tables.VERSION_FILE;

import java.time.Instant;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.store.Times;
import mintshelf.app.store.content.StoredContent;
import mintshelf.core.document.NeutralForm;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** Neutral copies: what lies beside the files of versions in open forms. */
@Repository
public class NeutralStore {
    private final DSLContext db;

    public NeutralStore(DSLContext db) {
        this.db = db;
    }

    /**
     * A neutral copy.
     *
     * @param number of its version
     * @param trial number of the trial on whose line that is; 0 on the main one
     * @param main content of the version's own file: the copy shows whatever has the same bytes
     */
    public record Copy(
            long item,
            long version,
            int number,
            long main,
            NeutralForm form,
            StoredContent content,
            String fileName,
            long person,
            String personName,
            Instant at,
            int trial) {}

    /** Lays a copy beside a version's file; what it had of that form goes. */
    public void put(long version, NeutralForm form, long content, String fileName, long person, Instant now) {
        db.insertInto(NEUTRAL_COPY)
                .set(NEUTRAL_COPY.VERSION, version)
                .set(NEUTRAL_COPY.FORM, form.name())
                .set(NEUTRAL_COPY.CONTENT, content)
                .set(NEUTRAL_COPY.FILE_NAME, fileName)
                .set(NEUTRAL_COPY.PERSON, person)
                .set(NEUTRAL_COPY.AT, Times.utc(now))
                .onDuplicateKeyUpdate()
                .set(NEUTRAL_COPY.CONTENT, content)
                .set(NEUTRAL_COPY.FILE_NAME, fileName)
                .set(NEUTRAL_COPY.PERSON, person)
                .set(NEUTRAL_COPY.AT, Times.utc(now))
                .execute();
    }

    public void remove(long version, NeutralForm form) {
        db.deleteFrom(NEUTRAL_COPY)
                .where(NEUTRAL_COPY.VERSION.eq(version), NEUTRAL_COPY.FORM.eq(form.name()))
                .execute();
    }

    /** All copies of documents, by version and form; one statement. */
    public List<Copy> of(Collection<Long> items) {
        if (items.isEmpty()) return List.of();
        return db.select(NEUTRAL_COPY.fields())
                .select(VERSION.ITEM, VERSION.NUMBER, LINE.TRIAL_NUMBER, VERSION_FILE.CONTENT, PERSON.NAME)
                .select(CONTENT.ID, CONTENT.SHA256, CONTENT.SIZE, CONTENT.CONTENT_KIND)
                .from(VERSION)
                .join(LINE)
                .on(LINE.ID.eq(VERSION.LINE))
                .join(NEUTRAL_COPY)
                .on(NEUTRAL_COPY.VERSION.eq(VERSION.ID))
                .join(VERSION_FILE)
                .on(VERSION_FILE.VERSION.eq(VERSION.ID))
                .join(CONTENT)
                .on(CONTENT.ID.eq(NEUTRAL_COPY.CONTENT))
                .join(PERSON)
                .on(PERSON.ID.eq(NEUTRAL_COPY.PERSON))
                .where(VERSION.ITEM.in(items))
                .orderBy(VERSION.ITEM, VERSION.NUMBER)
                .fetch(row -> new Copy(
                        row.get(VERSION.ITEM),
                        row.get(NEUTRAL_COPY.VERSION),
                        row.get(VERSION.NUMBER),
                        row.get(VERSION_FILE.CONTENT),
                        NeutralForm.valueOf(row.get(NEUTRAL_COPY.FORM)),
                        SpineStore.content(row),
                        row.get(NEUTRAL_COPY.FILE_NAME),
                        row.get(NEUTRAL_COPY.PERSON),
                        row.get(PERSON.NAME),
                        Times.instant(row.get(NEUTRAL_COPY.AT)),
                        Optional.ofNullable(row.get(LINE.TRIAL_NUMBER)).orElse(0)));
    }

    /** The versions of documents that were released. */
    Set<Long> out(Collection<Long> items) {
        return new HashSet<>(db.select(REVISION.RELEASED_VERSION)
                .from(REVISION)
                .where(REVISION.ITEM.in(items), REVISION.RELEASED_VERSION.isNotNull())
                .fetch(REVISION.RELEASED_VERSION));
    }

    /** Whether a revision was released with a version. */
    public boolean isOut(long item, long version) {
        return out(List.of(item)).contains(version);
    }

    /**
     * The copy that shows a version: of those of the same bytes, else the latest before; of several forms the one that shows most. What
     * was released shows nothing that was not released with it.
     */
    static Optional<VersionRow.Neutral> shows(VersionRow version, long item, List<Copy> all, Set<Long> out) {
        List<Copy> copies =
                all.stream().filter(c -> c.trial() == version.trial()).toList();
        boolean isOut = out.contains(version.id());
        Optional<Copy> same = best(copies.stream()
                .filter(c -> c.item() == item && c.main() == version.content().id())
                .filter(c -> !isOut || c.number() <= version.number())
                .toList());
        if (same.isPresent()) return same.map(c -> neutral(c, true));
        if (isOut) return Optional.empty();
        int latest = copies.stream()
                .filter(c -> c.item() == item && c.number() < version.number())
                .mapToInt(Copy::number)
                .max()
                .orElse(0);
        return best(copies.stream()
                        .filter(c -> c.item() == item && c.number() == latest)
                        .toList())
                .map(c -> neutral(c, false));
    }

    private static VersionRow.Neutral neutral(Copy copy, boolean current) {
        return new VersionRow.Neutral(copy.number(), copy.form(), copy.content(), copy.fileName(), current);
    }

    private static Optional<Copy> best(List<Copy> copies) {
        return copies.stream()
                .min((a, b) ->
                        a.form() != b.form() ? a.form().compareTo(b.form()) : Integer.compare(b.number(), a.number()));
    }

    /** Takes the copies of a document away; the contents that they held. */
    public List<Long> free(long item) {
        var versions = db.select(VERSION.ID).from(VERSION).where(VERSION.ITEM.eq(item));
        List<Long> held = db.selectDistinct(NEUTRAL_COPY.CONTENT)
                .from(NEUTRAL_COPY)
                .where(NEUTRAL_COPY.VERSION.in(versions))
                .fetch(NEUTRAL_COPY.CONTENT);
        db.deleteFrom(NEUTRAL_COPY).where(NEUTRAL_COPY.VERSION.in(versions)).execute();
        return held;
    }
}
