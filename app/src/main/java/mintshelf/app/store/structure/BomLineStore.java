package mintshelf.app.store.structure;

import static mintshelf.database.schema.Tables.BOM_LINE;
import static mintshelf.database.schema.Tables.REVISION;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.Prepared;
import mintshelf.core.base.Numbers;
import mintshelf.core.bom.Comes;
import mintshelf.core.bom.Effectivity;
import mintshelf.core.bom.LevelLines;
import mintshelf.core.bom.Serial;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Repository;

/** Lines of bills of materials that are kept beside what files refer to. They belong to a revision, and go on with the next one. */
@Repository
public class BomLineStore {
    private static final short MARK = 1;
    private final Prepared lines = new Prepared((db, revisions) ->
            db.selectFrom(BOM_LINE).where(BOM_LINE.REVISION.in(revisions)).orderBy(BOM_LINE.REVISION, BOM_LINE.SEQ));
    private final DSLContext db;

    public BomLineStore(DSLContext db) {
        this.db = db;
    }

    /**
     * A line that is kept.
     *
     * @param seq its place among those of the revision, from 1; 0 for one that is not kept yet
     * @param ofFile whether the file has it, and this is what is said of it
     * @param component the document that it is; nothing where it is named only
     * @param measured how much of it; nothing where it is as the file says
     * @param says of what has no document: what it is
     * @param variant of the document; empty for the document itself
     * @param when which products it is part of
     */
    public record Kept(
            int seq,
            boolean ofFile,
            Optional<Long> component,
            String find,
            Optional<Measured> measured,
            Named says,
            String variant,
            Effectivity when) {
        /** What identifies it among the lines of its revision. */
        public String key() {
            return ofFile ? ofFile(component.orElse(0L)) : byHand(seq);
        }

        /** What identifies a line of the file. */
        public static String ofFile(long component) {
            return "c" + component;
        }

        /** What identifies a line that somebody wrote. */
        public static String byHand(int seq) {
            return "h" + seq;
        }

        /** What it says of its line. */
        public LevelLines.Said line() {
            return new LevelLines.Said(
                    key(), ofFile, find, measured.map(m -> new LevelLines.Quantity(m.quantity(), m.unit())));
        }

        public Kept withFind(String other) {
            return new Kept(seq, ofFile, component, other, measured, says, variant, when);
        }
    }

    public record Measured(BigDecimal quantity, String unit) {
        /** In words: "20 ml". */
        public String says() {
            return Numbers.plain(quantity) + " " + unit;
        }
    }

    /** What has no document. */
    public record Named(
            String number, String title, Comes comes, Optional<BigDecimal> mass, Optional<BigDecimal> cost) {
        public static final Named NOTHING = new Named("", "", Comes.BOUGHT, Optional.empty(), Optional.empty());
    }

    /** The lines that are kept of revisions; a statement for each few hundred. */
    public Map<Long, List<Kept>> of(Collection<Long> revisions) {
        Map<Long, List<Kept>> found = new HashMap<>();
        for (Record row : lines.fetch(db, revisions))
            found.computeIfAbsent(row.get(BOM_LINE.REVISION), r -> new ArrayList<>())
                    .add(kept(row));
        return found;
    }

    private static Kept kept(Record row) {
        return new Kept(
                row.get(BOM_LINE.SEQ),
                row.get(BOM_LINE.FILE_MARK) != null,
                Optional.ofNullable(row.get(BOM_LINE.COMPONENT)),
                row.get(BOM_LINE.FIND),
                Optional.ofNullable(row.get(BOM_LINE.QUANTITY))
                        .map(q -> new Measured(q.stripTrailingZeros(), row.get(BOM_LINE.UNIT))),
                new Named(
                        row.get(BOM_LINE.NUMBER),
                        row.get(BOM_LINE.TITLE),
                        Optional.ofNullable(row.get(BOM_LINE.COMES))
                                .map(Comes::valueOf)
                                .orElse(Comes.BOUGHT),
                        Optional.ofNullable(row.get(BOM_LINE.MASS)).map(BigDecimal::stripTrailingZeros),
                        Optional.ofNullable(row.get(BOM_LINE.COST)).map(BigDecimal::stripTrailingZeros)),
                row.get(BOM_LINE.VARIANT),
                when(row));
    }

    private static Effectivity when(Record row) {
        String lots = row.get(BOM_LINE.LOTS);
        return new Effectivity(
                Optional.ofNullable(row.get(BOM_LINE.FROM_DAY)),
                Optional.ofNullable(row.get(BOM_LINE.TO_DAY)),
                serial(row.get(BOM_LINE.FROM_SERIAL)),
                serial(row.get(BOM_LINE.TO_SERIAL)),
                lots.isEmpty() ? List.of() : List.of(lots.split(" ")));
    }

    private static Optional<Serial> serial(@Nullable String kept) {
        return Optional.ofNullable(kept).flatMap(s -> Serial.read(s).toOptional());
    }

    /** Keeps a line, a new one behind the others. Within a transaction that has the document locked. */
    public void keep(long revision, Kept line) {
        int seq = line.seq() > 0 ? line.seq() : last(revision) + 1;
        db.deleteFrom(BOM_LINE)
                .where(BOM_LINE.REVISION.eq(revision), BOM_LINE.SEQ.eq(seq))
                .execute();
        db.insertInto(BOM_LINE)
                .set(BOM_LINE.REVISION, revision)
                .set(BOM_LINE.SEQ, seq)
                .set(BOM_LINE.FILE_MARK, line.ofFile() ? MARK : null)
                .set(BOM_LINE.COMPONENT, line.component().orElse(null))
                .set(BOM_LINE.NUMBER, line.says().number())
                .set(BOM_LINE.TITLE, line.says().title())
                .set(BOM_LINE.FIND, line.find())
                .set(BOM_LINE.QUANTITY, line.measured().map(Measured::quantity).orElse(null))
                .set(BOM_LINE.UNIT, line.measured().map(Measured::unit).orElse(null))
                .set(BOM_LINE.COMES, line.says().comes().name())
                .set(BOM_LINE.MASS, line.says().mass().orElse(null))
                .set(BOM_LINE.COST, line.says().cost().orElse(null))
                .set(BOM_LINE.VARIANT, line.variant())
                .set(BOM_LINE.FROM_DAY, line.when().from().orElse(null))
                .set(BOM_LINE.TO_DAY, line.when().to().orElse(null))
                .set(
                        BOM_LINE.FROM_SERIAL,
                        line.when().fromSerial().map(Serial::shown).orElse(null))
                .set(
                        BOM_LINE.TO_SERIAL,
                        line.when().toSerial().map(Serial::shown).orElse(null))
                .set(BOM_LINE.LOTS, String.join(" ", line.when().lots()))
                .execute();
    }

    private int last(long revision) {
        Integer last = db.select(DSL.max(BOM_LINE.SEQ))
                .from(BOM_LINE)
                .where(BOM_LINE.REVISION.eq(revision))
                .fetchOne(r -> r.value1());
        return last == null ? 0 : last;
    }

    public void drop(long revision, int seq) {
        db.deleteFrom(BOM_LINE)
                .where(BOM_LINE.REVISION.eq(revision), BOM_LINE.SEQ.eq(seq))
                .execute();
    }

    /** The next revision begins with the lines of the one before. */
    public void copy(long from, long to) {
        db.execute("""
                insert into bom_line (revision, seq, file_mark, component, number, title, find, quantity, unit, comes, mass, cost,
                                      variant, from_day, to_day, from_serial, to_serial, lots)
                select ?, seq, file_mark, component, number, title, find, quantity, unit, comes, mass, cost,
                       variant, from_day, to_day, from_serial, to_serial, lots
                from bom_line where revision = ?
                """, to, from);
    }

    /**
     * A new document that began as a copy of a version has the lines of that: by hand as they are, of the file for what its own file
     * has in the same place.
     */
    public void begin(long revision, long version, long source) {
        db.execute("""
                insert into bom_line (revision, seq, file_mark, component, number, title, find, quantity, unit, comes, mass, cost,
                                      variant, from_day, to_day, from_serial, to_serial, lots)
                select ?, b.seq, b.file_mark, case when b.file_mark = 1 then n.component else b.component end,
                       b.number, b.title, b.find, b.quantity, b.unit, b.comes, b.mass, b.cost,
                       b.variant, b.from_day, b.to_day, b.from_serial, b.to_serial, b.lots
                from version src
                join bom_line b on b.revision = src.revision
                left join (select o.version, o.component, min(o.seq) seq from version_reference o
                           group by o.version, o.component) o
                  on b.file_mark = 1 and o.version = coalesce(src.substance, src.id) and o.component = b.component
                left join version_reference n on n.version = ? and n.seq = o.seq
                where src.id = ? and (b.file_mark is null or n.component is not null)
                on duplicate key update seq = bom_line.seq
                """, revision, version, source);
    }

    /**
     * Keeps the find numbers of what the file of a version refers to, so that they stay: as {@link mintshelf.core.bom.FindNumbers}
     * gives them, behind those that are kept.
     */
    public void freeze(long revision, long version) {
        db.execute("""
                insert into bom_line (revision, seq, file_mark, component, find)
                select ?, had.seq + row_number() over (order by c.place), 1, c.component,
                       had.find + row_number() over (order by c.place)
                from (select r.component, min(r.seq) place from version mine
                      join version_reference r on r.version = coalesce(mine.substance, mine.id)
                       and r.component is not null and r.role = 'COMPONENT'
                      where mine.id = ? group by r.component) c
                join (select coalesce(max(seq), 0) seq,
                             coalesce(max(cast(regexp_replace(find, '[^0-9].*', '') as unsigned)), 0) find
                      from bom_line where revision = ?) had
                where not exists (select 1 from bom_line k
                                  where k.revision = ? and k.component = c.component and k.file_mark = 1)
                """, revision, version, revision, revision);
    }

    /**
     * A line by hand that names a document.
     *
     * @param item in whose BOM it stands
     * @param pending whether that revision is under way
     * @param released whether it is in force
     * @param variant that it names; empty for the document itself
     */
    public record NamedIn(
            long item, boolean pending, boolean released, String find, Measured measured, String variant) {}

    /** Lines by hand that name a document, of revisions under way and in force, by where they stand in the order in which that was filed. */
    public List<NamedIn> namedIn(long component, int most) {
        return db.select(REVISION.ITEM, REVISION.PENDING_MARK, REVISION.RELEASED_MARK)
                .select(BOM_LINE.FIND, BOM_LINE.QUANTITY, BOM_LINE.UNIT, BOM_LINE.VARIANT)
                .from(BOM_LINE)
                .join(REVISION)
                .on(REVISION.ID.eq(BOM_LINE.REVISION))
                .where(
                        BOM_LINE.COMPONENT.eq(component),
                        BOM_LINE.FILE_MARK.isNull(),
                        REVISION.PENDING_MARK.eq(MARK).or(REVISION.RELEASED_MARK.eq(MARK)))
                .orderBy(REVISION.ITEM, BOM_LINE.SEQ)
                .limit(most)
                .fetch(row -> new NamedIn(
                        row.get(REVISION.ITEM),
                        row.get(REVISION.PENDING_MARK) != null,
                        row.get(REVISION.RELEASED_MARK) != null,
                        row.get(BOM_LINE.FIND),
                        new Measured(row.get(BOM_LINE.QUANTITY), row.get(BOM_LINE.UNIT)),
                        row.get(BOM_LINE.VARIANT)));
    }
}
