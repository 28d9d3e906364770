package mintshelf.app.store.document;

import static mintshelf.database.schema.Tables.HOLD;
import static mintshelf.database.schema.Tables.ITEM;
import static mintshelf.database.schema.Tables.KIND;
import static mintshelf.database.schema.Tables.LINE;
import static mintshelf.database.schema.Tables.RECENT;
import static mintshelf.database.schema.Tables.RECORD_ENTRY;
import static mintshelf.database.schema.Tables.REVISION;

import java.time.Instant;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.TreeMap;
import java.util.stream.Collectors;
import mintshelf.app.store.AtCommit;
import mintshelf.app.store.Rows;
import mintshelf.app.store.Times;
import mintshelf.core.access.Access;
import mintshelf.core.change.PaperType;
import mintshelf.database.schema.Tables;
import mintshelf.database.schema.tables.Item;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Record;
import org.jooq.Record3;
import org.jooq.SelectOrderByStep;
import org.jooq.SortField;
import org.jooq.TableLike;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** Lists of documents: which ids, in which order. Paged by key; every statement is one, wherever in the list it starts. */
@Repository
public class ListStore {
    private static final short MARK = 1;
    /** Up to how many documents a filter's chip counts. */
    public static final int COUNTED = 1000;

    private static final int FOLDERS_AT_ONCE = 24;

    private static final Rows RECENTS =
            Rows.kept(RECENT, List.of(RECENT.WHY, RECENT.AT), RECENT.PERSON, RECENT.ITEM, RECENT.WHY, RECENT.AT);

    private final DSLContext db;
    private final AtCommit<Touched> recents = new AtCommit<>(this::note);

    public ListStore(DSLContext db) {
        this.db = db;
    }

    /** How a shelf's list is ordered. */
    public enum Order {
        /** By folder, then by number. */
        NUMBER,
        TITLE,
        /** Latest first. */
        CHANGED
    }

    /** What of a shelf is listed. */
    public enum Filter {
        EVERYTHING,
        HELD_BY_ME,
        HELD,
        PENDING,
        RELEASED
    }

    /**
     * Up to {@code most} ids of a shelf behind the document {@code after}.
     *
     * @param folder only this folder, when given
     */
    public List<Long> ofShelf(
            long shelf,
            Access access,
            Order order,
            Filter filter,
            OptionalLong folder,
            OptionalLong after,
            List<Long> folders,
            int most) {
        Condition where = ITEM.DROPPED_AT.isNull().and(Visible.to(access)).and(filter(filter, access));
        if (order == Order.NUMBER) {
            List<Long> only = folder.isPresent() ? List.of(folder.getAsLong()) : folders;
            return byNumber(where, only, after, most);
        }
        where = where.and(ITEM.SHELF.eq(shelf));
        if (folder.isPresent()) where = where.and(ITEM.FOLDER.eq(folder.getAsLong()));
        Shown shown = Shown.of(access, shelf);
        if (after.isPresent()) where = where.and(behind(order, shown, after.getAsLong()));
        return db.select(ITEM.ID)
                .from(ITEM)
                .where(where)
                .orderBy(sort(order, shown))
                .limit(most)
                .fetch(ITEM.ID);
    }

    /**
     * Folder by folder, each along its index, so that a page costs what it shows and not what the shelf holds. A few folders in
     * one statement; a statement more only where many of them are empty.
     */
    private List<Long> byNumber(Condition where, List<Long> folders, OptionalLong after, int most) {
        List<Long> found = new ArrayList<>();
        int from = 0;
        Record last = null;
        if (after.isPresent()) {
            last = db.select(ITEM.FOLDER, ITEM.NUMBER_SORT, ITEM.ID)
                    .from(ITEM)
                    .where(ITEM.ID.eq(after.getAsLong()))
                    .fetchOne();
            from = last == null ? folders.size() : Math.max(0, folders.indexOf(last.get(ITEM.FOLDER)));
        }
        for (; from < folders.size() && found.size() < most; from += FOLDERS_AT_ONCE) {
            List<Long> some = folders.subList(from, Math.min(folders.size(), from + FOLDERS_AT_ONCE));
            var query = inFolder(where, some.get(0), 0, from > 0 || after.isPresent() ? last : null, most);
            last = null;
            for (int i = 1; i < some.size(); i++) query = query.unionAll(inFolder(where, some.get(i), i, null, most));
            found.addAll(query.orderBy(DSL.field("place"), DSL.field("number_sort"), DSL.field("id"))
                    .limit(most - found.size())
                    .fetch(r -> r.get("id", Long.class)));
        }
        return found;
    }

    private SelectOrderByStep<Record3<Integer, String, Long>> inFolder(
            Condition where, long folder, int place, Record last, int most) {
        Condition here = where.and(ITEM.FOLDER.eq(folder));
        if (last != null && last.get(ITEM.FOLDER) == folder) {
            here = here.and(
                    DSL.row(ITEM.NUMBER_SORT, ITEM.ID).gt(DSL.row(last.get(ITEM.NUMBER_SORT), last.get(ITEM.ID))));
        }
        var part = db.select(DSL.inline(place).as("place"), ITEM.NUMBER_SORT.as("number_sort"), ITEM.ID.as("id"))
                .from(ITEM)
                .where(here)
                .orderBy(ITEM.NUMBER_SORT, ITEM.ID)
                .limit(most)
                .asTable("part_" + place);
        return db.select(
                        part.field("place", Integer.class),
                        part.field("number_sort", String.class),
                        part.field("id", Long.class))
                .from(part);
    }

    /**
     * The titles and times that a person sees of a shelf's documents: those of work in preparation, those that are out, or for each
     * document the ones that are theirs. Who learns the order of what is hidden learns of it.
     */
    private record Shown(boolean all, boolean none, Condition where) {
        static Shown of(Access access, long shelf) {
            return new Shown(
                    Visible.seesAllOf(access, shelf),
                    Visible.seesReleasedOnly(access),
                    Visible.inPreparationTo(access));
        }

        Field<String> title(Item item) {
            return one(item.TITLE, item.OUT_TITLE);
        }

        Field<LocalDateTime> at(Item item) {
            return one(item.CHANGED_AT, item.OUT_AT);
        }

        private <T> Field<T> one(Field<T> work, Field<T> out) {
            if (all) return work;
            return none ? out : DSL.when(where, work).otherwise(out);
        }
    }

    private static List<SortField<?>> sort(Order order, Shown shown) {
        return switch (order) {
            case NUMBER -> List.of(ITEM.NUMBER_SORT.asc(), ITEM.ID.asc());
            case TITLE -> List.of(shown.title(ITEM).asc(), ITEM.ID.asc());
            case CHANGED -> List.of(shown.at(ITEM).desc(), ITEM.ID.desc());
        };
    }

    /** What comes behind the last document that was listed. */
    private Condition behind(Order order, Shown shown, long after) {
        return switch (order) {
            case NUMBER -> throw new IllegalArgumentException("goes folder by folder");
            case TITLE -> {
                String last = key(shown.title(ITEM), after);
                yield DSL.row(shown.title(ITEM), ITEM.ID).gt(DSL.row(DSL.val(last), DSL.val(after)));
            }
            case CHANGED -> {
                LocalDateTime last = key(shown.at(ITEM), after);
                yield DSL.row(shown.at(ITEM), ITEM.ID).lt(DSL.row(DSL.val(last), DSL.val(after)));
            }
        };
    }

    private <T> T key(Field<T> field, long item) {
        return db.select(field).from(ITEM).where(ITEM.ID.eq(item)).fetchOne(field);
    }

    private static Condition filter(Filter filter, Access access) {
        var r = REVISION.as("filter_revision");
        return switch (filter) {
            case EVERYTHING -> DSL.trueCondition();
            case HELD_BY_ME -> held(HOLD.PERSON.eq(access.person()));
            case HELD -> held(DSL.trueCondition()).and(Visible.inPreparationTo(access));
            case PENDING ->
                DSL.exists(DSL.selectOne().from(r).where(r.ITEM.eq(ITEM.ID), r.PENDING_MARK.eq(MARK)))
                        .and(Visible.inPreparationTo(access));
            case RELEASED -> DSL.exists(DSL.selectOne().from(r).where(r.ITEM.eq(ITEM.ID), r.RELEASED_MARK.eq(MARK)));
        };
    }

    private static Condition held(Condition by) {
        return DSL.exists(DSL.selectOne()
                .from(HOLD)
                .join(LINE)
                .on(LINE.ID.eq(HOLD.LINE), LINE.MAIN_MARK.eq(MARK))
                .where(HOLD.ITEM.eq(ITEM.ID), HOLD.OPEN_MARK.eq(MARK), by));
    }

    /**
     * How many documents a shelf has, and how many each filter lets through up to {@link #COUNTED}: what is beyond is not counted
     * but said to be more. One statement.
     */
    public Map<Filter, Integer> counts(long shelf, Access access) {
        Condition here = ITEM.SHELF.eq(shelf).and(ITEM.DROPPED_AT.isNull()).and(Visible.to(access));
        List<Field<Integer>> sums = new ArrayList<>();
        for (Filter f : Filter.values()) {
            sums.add(DSL.field(DSL.selectCount()
                            .from(DSL.select(ITEM.ID)
                                    .from(f == Filter.HELD || f == Filter.HELD_BY_ME ? heldItems() : ITEM)
                                    .where(here.and(filter(f, access)))
                                    .limit(f == Filter.EVERYTHING ? Integer.MAX_VALUE : COUNTED)
                                    .asTable("c_" + f.name())))
                    .as("n_" + f.name()));
        }
        Record row = db.select(sums).fetchSingle();
        return Arrays.stream(Filter.values())
                .collect(Collectors.toMap(f -> f, f -> row.get("n_" + f.name(), Integer.class)));
    }

    /** From the few holds to their documents, not from the many documents to their holds. */
    private static TableLike<?> heldItems() {
        return HOLD.as("open_hold")
                .join(LINE.as("held_line"))
                .on(
                        LINE.as("held_line").ID.eq(HOLD.as("open_hold").LINE),
                        LINE.as("held_line").MAIN_MARK.eq(MARK))
                .join(ITEM)
                .on(
                        ITEM.ID.eq(HOLD.as("open_hold").ITEM),
                        HOLD.as("open_hold").OPEN_MARK.eq(MARK));
    }

    /** Number of visible documents by folder. */
    public Map<Long, Integer> countsByFolder(long shelf, Access access, Filter filter) {
        return db.select(ITEM.FOLDER, DSL.count())
                .from(ITEM)
                .where(ITEM.SHELF.eq(shelf), ITEM.DROPPED_AT.isNull(), Visible.to(access), filter(filter, access))
                .groupBy(ITEM.FOLDER)
                .fetchMap(ITEM.FOLDER, DSL.count());
    }

    /** Number of visible documents by shelf. */
    public Map<Long, Integer> countsByShelf(Access access) {
        return db.select(ITEM.SHELF, DSL.count())
                .from(ITEM)
                .where(ITEM.DROPPED_AT.isNull(), Visible.to(access))
                .groupBy(ITEM.SHELF)
                .fetchMap(ITEM.SHELF, DSL.count());
    }

    /** Documents of a kind of which a revision is in force, by number. */
    public List<Long> released(String kindCode, Access access, int from, int most) {
        return db.select(ITEM.ID)
                .from(ITEM)
                .join(KIND)
                .on(KIND.ID.eq(ITEM.KIND), KIND.CODE.eq(kindCode))
                .where(ITEM.DROPPED_AT.isNull(), Visible.to(access), filter(Filter.RELEASED, access))
                .orderBy(ITEM.NUMBER_SORT, ITEM.ID)
                .limit(from, most)
                .fetch(ITEM.ID);
    }

    /** What a person holds on main lines, the longest held first. */
    public List<Long> heldBy(long person, int most) {
        return heldBy(person, most, false);
    }

    /** What a person holds, the longest held first, or the last one. */
    public List<Long> heldBy(long person, int most, boolean lastFirst) {
        return db.select(HOLD.ITEM)
                .from(HOLD)
                .join(LINE)
                .on(LINE.ID.eq(HOLD.LINE), LINE.MAIN_MARK.eq(MARK))
                .where(HOLD.PERSON.eq(person), HOLD.OPEN_MARK.eq(MARK))
                .orderBy(lastFirst ? List.of(HOLD.AT.desc(), HOLD.ID.desc()) : List.of(HOLD.AT.asc(), HOLD.ID.asc()))
                .limit(most)
                .fetch(HOLD.ITEM);
    }

    /** Why a person touched a document last. */
    public record Recent(long item, String why, Instant at) {}

    public List<Recent> recent(long person, int most) {
        return db.select(RECENT.ITEM, RECENT.WHY, RECENT.AT)
                .from(RECENT)
                .join(ITEM)
                .on(ITEM.ID.eq(RECENT.ITEM), ITEM.DROPPED_AT.isNull())
                .where(RECENT.PERSON.eq(person))
                .orderBy(RECENT.AT.desc())
                .limit(most)
                .fetch(row -> new Recent(row.value1(), row.value2(), Times.instant(row.value3())));
    }

    /** Notes that a person opened, filed or changed a document. */
    public void noteRecent(long person, long item, String why, Instant now) {
        recents.add(new Touched(person, item, why, now));
    }

    private void note(List<Touched> all) {
        // What came last of a document stands; in one order for all, so that nobody waits in a ring.
        Map<Touched, Touched> last =
                new TreeMap<>(Comparator.comparingLong(Touched::person).thenComparingLong(Touched::item));
        all.forEach(t -> last.put(t, t));
        RECENTS.write(
                db,
                last.values().stream()
                        .map(t -> new Object[] {t.person(), t.item(), t.why(), Times.utc(t.at())})
                        .toList());
    }

    private record Touched(long person, long item, String why, Instant at) {}

    /** Documents on which others acted since {@code since}, the latest first. */
    public record Moved(long item, String by, String says, Instant at, int times) {
        private Moved again() {
            return new Moved(item, by, says, at, times + 1);
        }
    }

    /** What others did on shelves where the person may see work, latest first; one line a document. */
    public List<Moved> moved(Access access, Instant since, int most) {
        var p = Tables.PERSON;
        return db
                .select(RECORD_ENTRY.ITEM, p.NAME, RECORD_ENTRY.SAYS, RECORD_ENTRY.AT)
                .from(RECORD_ENTRY)
                .join(ITEM)
                .on(ITEM.ID.eq(RECORD_ENTRY.ITEM), ITEM.DROPPED_AT.isNull())
                .join(p)
                .on(p.ID.eq(RECORD_ENTRY.PERSON))
                .where(
                        RECORD_ENTRY.AT.gt(Times.utc(since)),
                        RECORD_ENTRY.PERSON.ne(access.person()),
                        RECORD_ENTRY
                                .ACT
                                .in("version.added", "version.reinstated")
                                .or(RECORD_ENTRY.ACT.startsWith("revision."))
                                .or(RECORD_ENTRY.ACT.startsWith("hold.broken")),
                        Visible.inPreparationTo(access))
                .orderBy(RECORD_ENTRY.AT.desc(), RECORD_ENTRY.SEQ.desc())
                .limit(most * 40) // a document that moved often is one line
                .fetch(row -> new Moved(row.value1(), row.value2(), row.value3(), Times.instant(row.value4()), 1))
                .stream()
                .collect(Collectors.toMap(Moved::item, m -> m, (a, b) -> a.again(), LinkedHashMap::new))
                .values()
                .stream()
                .limit(most)
                .toList();
    }

    /** A document of which something went out of the house: what is in force, or is not any more. */
    public List<Long> outSince(Access access, Instant since, int most) {
        return db.select(ITEM.ID)
                .from(ITEM)
                .where(ITEM.OUT_AT.gt(Times.utc(since)), ITEM.DROPPED_AT.isNull(), Visible.to(access))
                // What was accepted is no sheet that somebody works by.
                .andNotExists(DSL.selectOne()
                        .from(KIND)
                        .where(KIND.ID.eq(ITEM.KIND), KIND.PAPER.eq(PaperType.REQUEST.name())))
                .orderBy(ITEM.OUT_AT.desc(), ITEM.ID.desc())
                .limit(most)
                .fetch(ITEM.ID);
    }

    /** Document of a number, when the person may see it. */
    public Optional<Long> visibleOne(List<Long> items, Access access) {
        return db.select(ITEM.ID)
                .from(ITEM)
                .where(ITEM.ID.in(items), ITEM.DROPPED_AT.isNull(), Visible.to(access))
                .limit(1)
                .fetchOptional(ITEM.ID);
    }
}
