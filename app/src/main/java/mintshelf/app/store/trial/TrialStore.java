package mintshelf.app.store.trial;

import static mintshelf.database.schema.Tables.CONTENT;
import static mintshelf.database.schema.Tables.HOLD;
import static mintshelf.database.schema.Tables.LINE;
import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.TRIAL;
import static mintshelf.database.schema.Tables.VERSION;
import static mintshelf.database.schema.Tables.VERSION_FILE;

import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.store.Times;
import mintshelf.app.store.content.StoredContent;
import mintshelf.core.base.ContentHash;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.Head;
import mintshelf.core.document.Holder;
import mintshelf.core.document.VersionName;
import mintshelf.database.schema.tables.Person;
import mintshelf.database.schema.tables.Version;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** Trials and the lines that they have beside the main lines of documents. */
@Repository
public class TrialStore {
    private static final Person STARTER = PERSON.as("starter");
    private static final Person ENDER = PERSON.as("ender");
    private static final Person HOLDER = PERSON.as("trial_holder");
    private static final Version FROM = VERSION.as("from_version");
    private static final Version ADOPTED = VERSION.as("adopted_version");
    private final DSLContext db;

    public TrialStore(DSLContext db) {
        this.db = db;
    }

    /** How a trial stands. */
    public enum State {
        OPEN("under way"),
        ADOPTED("adopted"),
        DROPPED("dropped");

        private final String words;

        State(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * A trial.
     *
     * @param number by which its lines are called on each of its documents
     * @param title what is tried
     * @param endedByName empty while it is under way, as {@code endedAt} is
     */
    public record Trial(
            long id,
            int number,
            String title,
            long startedBy,
            String startedByName,
            Instant startedAt,
            State state,
            Optional<Instant> endedAt,
            String endedByName,
            String endedWhy) {
        public boolean isOpen() {
            return state == State.OPEN;
        }

        /** What its lines are called: "t1". */
        public String line() {
            return VersionName.line(number);
        }
    }

    /**
     * The line of a trial on one of its documents.
     *
     * @param from id of the version at which it begins, {@code fromNumber} its number
     * @param head its latest version; where there is none that at which it begins
     * @param adoptedAs number of the version of the document as which it was adopted
     */
    public record Line(
            long id,
            long trial,
            long item,
            int number,
            long from,
            int fromNumber,
            Head head,
            StoredContent content,
            Optional<Holder> holder,
            Optional<Integer> adoptedAs) {
        /** Whether anything was checked in on it. */
        public boolean begun() {
            return head.name().isTrial();
        }

        /** The version that who works on it gets: the latest of the line, else that at which it begins. */
        public VersionName gets() {
            return head.name();
        }
    }

    public long add(int number, String title, long by, Instant now) {
        return db.insertInto(TRIAL)
                .set(TRIAL.NUMBER, number)
                .set(TRIAL.TITLE, title)
                .set(TRIAL.STARTED_BY, by)
                .set(TRIAL.STARTED_AT, Times.utc(now))
                .set(TRIAL.STATE, State.OPEN.name())
                .returningResult(TRIAL.ID)
                .fetchSingle()
                .value1();
    }

    /** A trial that is under way ends. */
    public void end(long trial, State how, long by, String why, Instant now) {
        db.update(TRIAL)
                .set(TRIAL.STATE, how.name())
                .set(TRIAL.ENDED_AT, Times.utc(now))
                .set(TRIAL.ENDED_BY, by)
                .set(TRIAL.ENDED_WHY, why.isEmpty() ? null : why)
                .where(TRIAL.ID.eq(trial), TRIAL.STATE.eq(State.OPEN.name()))
                .execute();
    }

    /** The highest number that a trial has on any of the documents; 0 where there was none. Under their locks. */
    public int highest(Collection<Long> items) {
        return db.select(DSL.coalesce(DSL.max(LINE.TRIAL_NUMBER), 0))
                .from(LINE)
                .where(LINE.ITEM.in(items))
                .fetchSingle(0, Integer.class);
    }

    /** How many trials are under way on each of the documents; those without any are not in it. */
    public Map<Long, Integer> open(Collection<Long> items) {
        return db.select(LINE.ITEM, DSL.count())
                .from(LINE)
                .join(TRIAL)
                .on(TRIAL.ID.eq(LINE.TRIAL), TRIAL.STATE.eq(State.OPEN.name()))
                .where(LINE.ITEM.in(items))
                .groupBy(LINE.ITEM)
                .fetchMap(LINE.ITEM, row -> row.value2());
    }

    public Optional<Trial> trial(long id) {
        return trials(TRIAL.ID.eq(id), 1).stream().findFirst();
    }

    /** Takes a trial under the caller's transaction: nobody else ends it, or changes what was said of it, meanwhile. */
    public Optional<Trial> locked(long id) {
        db.select(TRIAL.ID).from(TRIAL).where(TRIAL.ID.eq(id)).forUpdate().fetch();
        return trial(id);
    }

    public Map<Long, Trial> trials(Collection<Long> ids) {
        Map<Long, Trial> found = new HashMap<>();
        trials(TRIAL.ID.in(ids), Integer.MAX_VALUE).forEach(t -> found.put(t.id(), t));
        return found;
    }

    /** Trials before one of them, the latest first. */
    public List<Trial> before(long id, Set<State> states, int most) {
        return trials(
                TRIAL.ID
                        .lt(id)
                        .and(TRIAL.STATE.in(states.stream().map(Enum::name).toList())),
                most);
    }

    private List<Trial> trials(Condition which, int most) {
        return db.select(TRIAL.fields())
                .select(STARTER.NAME, ENDER.NAME)
                .from(TRIAL)
                .join(STARTER)
                .on(STARTER.ID.eq(TRIAL.STARTED_BY))
                .leftJoin(ENDER)
                .on(ENDER.ID.eq(TRIAL.ENDED_BY))
                .where(which)
                .orderBy(TRIAL.ID.desc())
                .limit(most)
                .fetch(row -> new Trial(
                        row.get(TRIAL.ID),
                        row.get(TRIAL.NUMBER),
                        row.get(TRIAL.TITLE),
                        row.get(TRIAL.STARTED_BY),
                        row.get(STARTER.NAME),
                        Times.instant(row.get(TRIAL.STARTED_AT)),
                        State.valueOf(row.get(TRIAL.STATE)),
                        Optional.ofNullable(row.get(TRIAL.ENDED_AT)).map(Times::instant),
                        Optional.ofNullable(row.get(ENDER.NAME)).orElse(""),
                        Optional.ofNullable(row.get(TRIAL.ENDED_WHY)).orElse("")));
    }

    /** The trial of a line; nothing for a main one. */
    public Optional<Long> ofLine(long line) {
        return db.select(LINE.TRIAL).from(LINE).where(LINE.ID.eq(line)).fetchOptional(LINE.TRIAL);
    }

    /** The lines of trials, in the order of their documents. */
    public List<Line> linesOf(Collection<Long> trials) {
        return lines(LINE.TRIAL.in(trials));
    }

    /** The trial lines beside documents, whether under way or not. */
    public List<Line> beside(Collection<Long> items) {
        return lines(LINE.ITEM.in(items).and(LINE.TRIAL.isNotNull()));
    }

    /** Lines of trials by their ids, in the order of their documents. */
    public List<Line> lines(Collection<Long> ids) {
        return lines(LINE.ID.in(ids).and(LINE.TRIAL.isNotNull()));
    }

    /** The lines of trials that some of these holds are or were of, by hold: what comes back late belongs there too. */
    public Map<Long, Line> held(Collection<Long> holds) {
        Map<Long, Long> of = holds.isEmpty()
                ? Map.of()
                : db.select(HOLD.ID, HOLD.LINE)
                        .from(HOLD)
                        .join(LINE)
                        .on(LINE.ID.eq(HOLD.LINE), LINE.TRIAL.isNotNull())
                        .where(HOLD.ID.in(holds))
                        .fetchMap(HOLD.ID, HOLD.LINE);
        Map<Long, Line> held = new HashMap<>();
        if (of.isEmpty()) return held;
        Map<Long, Line> byId = new HashMap<>();
        lines(LINE.ID.in(of.values())).forEach(l -> byId.put(l.id(), l));
        of.forEach((hold, line) -> Optional.ofNullable(byId.get(line)).ifPresent(l -> held.put(hold, l)));
        return held;
    }

    /** What somebody holds on trials that are under way, the longest held first. */
    public List<Line> heldBy(long person, int most) {
        List<Long> lines = db.select(HOLD.LINE)
                .from(HOLD)
                .join(LINE)
                .on(LINE.ID.eq(HOLD.LINE), LINE.TRIAL.isNotNull())
                .where(HOLD.PERSON.eq(person), HOLD.OPEN_MARK.isNotNull())
                .orderBy(HOLD.AT, HOLD.ID)
                .limit(most)
                .fetch(HOLD.LINE);
        return lines.isEmpty() ? List.of() : lines(LINE.ID.in(lines));
    }

    private List<Line> lines(Condition which) {
        return db.select(LINE.fields())
                .select(FROM.NUMBER, ADOPTED.NUMBER)
                .select(VERSION.ID, VERSION.NUMBER, VERSION.REVISION, VERSION.DIGEST)
                .select(CONTENT.ID, CONTENT.SHA256, CONTENT.SIZE, CONTENT.CONTENT_KIND)
                .select(HOLD.ID, HOLD.PERSON, HOLD.AT, HOLD.DESK, HOLD.PURPOSE, HOLD.BASE_VERSION, HOLDER.NAME)
                .from(LINE)
                .join(FROM)
                .on(FROM.ID.eq(LINE.FROM_VERSION))
                .join(VERSION)
                .on(VERSION.ID.eq(DSL.coalesce(LINE.HEAD_VERSION, LINE.FROM_VERSION)))
                .join(VERSION_FILE)
                .on(VERSION_FILE.VERSION.eq(VERSION.ID), VERSION_FILE.ROLE.eq("MAIN"))
                .join(CONTENT)
                .on(CONTENT.ID.eq(VERSION_FILE.CONTENT))
                .leftJoin(ADOPTED)
                .on(ADOPTED.ID.eq(LINE.ADOPTED_AS))
                .leftJoin(HOLD)
                .on(HOLD.LINE.eq(LINE.ID), HOLD.OPEN_MARK.isNotNull())
                .leftJoin(HOLDER)
                .on(HOLDER.ID.eq(HOLD.PERSON))
                .where(which)
                .orderBy(LINE.TRIAL, LINE.ITEM)
                .fetch(TrialStore::line);
    }

    private static Line line(Record row) {
        StoredContent content = new StoredContent(
                row.get(CONTENT.ID),
                ContentHash.of(row.get(CONTENT.SHA256)),
                row.get(CONTENT.SIZE),
                ContentKind.valueOf(row.get(CONTENT.CONTENT_KIND)));
        Optional<Holder> holder = row.get(HOLD.ID) == null
                ? Optional.empty()
                : Optional.of(new Holder(
                        row.get(HOLD.ID),
                        row.get(HOLD.PERSON),
                        row.get(HOLDER.NAME),
                        Times.instant(row.get(HOLD.AT)),
                        row.get(HOLD.DESK),
                        row.get(HOLD.PURPOSE),
                        Optional.ofNullable(row.get(HOLD.BASE_VERSION)).orElse(0L)));
        return new Line(
                row.get(LINE.ID),
                row.get(LINE.TRIAL),
                row.get(LINE.ITEM),
                row.get(LINE.TRIAL_NUMBER),
                row.get(LINE.FROM_VERSION),
                row.get(FROM.NUMBER),
                new Head(
                        row.get(VERSION.ID),
                        row.get(VERSION.NUMBER),
                        row.get(VERSION.REVISION),
                        content.hash(),
                        ContentHash.of(row.get(VERSION.DIGEST)),
                        false,
                        row.get(LINE.HEAD_VERSION) == null ? 0 : row.get(LINE.TRIAL_NUMBER)),
                content,
                holder,
                Optional.ofNullable(row.get(ADOPTED.NUMBER)));
    }
}
