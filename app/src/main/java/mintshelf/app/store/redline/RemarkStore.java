package mintshelf.app.store.redline;

import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.REMARK;
import static mintshelf.database.schema.Tables.REMARK_LOOK;
import static mintshelf.database.schema.Tables.REMARK_REPLY;
import static mintshelf.database.schema.Tables.VERSION;

import java.math.BigDecimal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import mintshelf.app.store.Times;
import mintshelf.core.redline.Colour;
import mintshelf.core.redline.Look;
import mintshelf.core.redline.Remark;
import mintshelf.core.redline.Remark.Kind;
import mintshelf.core.redline.Remark.Reply;
import mintshelf.core.redline.Remark.State;
import mintshelf.core.redline.Tool;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** Remarks on the sheets of documents. */
@Repository
public class RemarkStore {
    /** Of one document: what a sheet shows at once. */
    public static final int MOST = 2000;

    private static final List<String> OPEN = List.of(State.OPEN.name(), State.ANSWERED.name());
    private static final int TRIES = 20;

    private final DSLContext db;
    private final JsonMapper json;

    public RemarkStore(DSLContext db, JsonMapper json) {
        this.db = db;
        this.json = json;
    }

    /** Keeps a remark under the next number of its zone. Its id. */
    public long add(Remark remark, long version, String zone) {
        // Who marks the same zone at the same moment takes the next number: no lock is needed for that.
        for (int tries = 1; ; tries++) {
            try {
                return insert(remark, version, zone);
            } catch (DuplicateKeyException e) {
                if (tries == TRIES) throw e;
            }
        }
    }

    private long insert(Remark remark, long version, String zone) {
        int last = db.select(DSL.coalesce(DSL.max(REMARK.SEQ), 0))
                .from(REMARK)
                .where(REMARK.ITEM.eq(remark.item()), REMARK.ZONE.eq(zone))
                .fetchSingle()
                .value1();
        return db.insertInto(REMARK)
                .set(REMARK.UID, remark.uid())
                .set(REMARK.OUTSIDE, remark.outside())
                .set(REMARK.ITEM, remark.item())
                .set(REMARK.VERSION, version)
                .set(REMARK.LAYOUT, remark.layout())
                .set(REMARK.ZONE, zone)
                .set(REMARK.SEQ, last + 1)
                .set(REMARK.KIND, remark.kind().name())
                .set(REMARK.STATE, remark.state().name())
                .set(REMARK.LINE, remark.line())
                .set(REMARK.DESCRIPTION, remark.description())
                .set(REMARK.TOOL, remark.mark().tool().name())
                .set(REMARK.MARK, json.writeValueAsString(MarkForm.of(remark.mark(), remark.view())))
                .set(REMARK.AUTHOR, remark.author())
                .set(REMARK.ROUND, remark.round().orElse(null))
                .set(REMARK.AT, Times.utc(remark.at()))
                .returning(REMARK.ID)
                .fetchSingle()
                .getId();
    }

    /** Of a document, the oldest first; beyond {@link #MOST} the latest ones. */
    public List<Remark> of(long item) {
        List<Remark> all = new ArrayList<>(remarks(REMARK.ITEM.eq(item), MOST));
        Collections.reverse(all);
        return all;
    }

    /** Of several documents those that are open, by document, the oldest first; beyond {@link #MOST} the latest. Gates ask {@link #openChanges}. */
    public Map<Long, List<Remark>> open(Collection<Long> items) {
        if (items.isEmpty()) return Map.of();
        Map<Long, List<Remark>> all = new HashMap<>();
        List<Remark> found = remarks(REMARK.ITEM.in(items).and(REMARK.STATE.in(OPEN)), MOST);
        for (int i = found.size() - 1; i >= 0; i--) {
            all.computeIfAbsent(found.get(i).item(), k -> new ArrayList<>()).add(found.get(i));
        }
        return all;
    }

    /** Numbers of the changes that are wanted and not yet made, by document. */
    public Map<Long, List<String>> openChanges(Collection<Long> items) {
        if (items.isEmpty()) return Map.of();
        Map<Long, List<String>> all = new HashMap<>();
        db.select(REMARK.ITEM, REMARK.ZONE, REMARK.SEQ)
                .from(REMARK)
                .where(REMARK.ITEM.in(items), REMARK.STATE.in(OPEN), REMARK.KIND.eq(Kind.CHANGE.name()))
                .orderBy(REMARK.ID)
                .forEach(r ->
                        all.computeIfAbsent(r.value1(), k -> new ArrayList<>()).add(number(r.value2(), r.value3())));
        return all;
    }

    public Optional<Remark> remark(long id) {
        return remarks(REMARK.ID.eq(id), 1).stream().findFirst();
    }

    /** Locked, in the order of their ids: who sets one waits for who sets it now. */
    public List<Remark> locked(Collection<Long> ids) {
        if (ids.isEmpty()) return List.of();
        db.select(REMARK.ID)
                .from(REMARK)
                .where(REMARK.ID.in(ids))
                .orderBy(REMARK.ID)
                .forUpdate()
                .fetch();
        List<Remark> all = new ArrayList<>(remarks(REMARK.ID.in(ids), ids.size()));
        Collections.reverse(all);
        return all;
    }

    private static String number(String zone, int seq) {
        return (zone.isEmpty() ? "R" : zone) + "-" + seq;
    }

    private List<Remark> remarks(Condition which, int most) {
        var rows = db.select(REMARK.asterisk())
                .select(VERSION.NUMBER, PERSON.NAME)
                .from(REMARK)
                .join(VERSION)
                .on(VERSION.ID.eq(REMARK.VERSION))
                .join(PERSON)
                .on(PERSON.ID.eq(REMARK.AUTHOR))
                .where(which)
                .orderBy(REMARK.ID.desc())
                .limit(most)
                .fetch();
        Map<Long, List<Reply>> threads = threads(rows.getValues(REMARK.ID));
        List<Remark> all = new ArrayList<>();
        for (var row : rows) {
            MarkForm form = json.readValue(row.get(REMARK.MARK), MarkForm.class);
            Tool tool = Tool.valueOf(row.get(REMARK.TOOL));
            all.add(new Remark(
                    row.get(REMARK.ID),
                    row.get(REMARK.UID),
                    row.get(REMARK.ITEM),
                    row.get(VERSION.NUMBER),
                    row.get(REMARK.LAYOUT),
                    number(row.get(REMARK.ZONE), row.get(REMARK.SEQ)),
                    Kind.valueOf(row.get(REMARK.KIND)),
                    State.valueOf(row.get(REMARK.STATE)),
                    row.get(REMARK.LINE),
                    row.get(REMARK.DESCRIPTION),
                    row.get(REMARK.AUTHOR),
                    row.get(PERSON.NAME),
                    row.get(REMARK.OUTSIDE),
                    Optional.ofNullable(row.get(REMARK.ROUND)),
                    Times.instant(row.get(REMARK.AT)),
                    form.mark(tool),
                    form.seen(),
                    threads.getOrDefault(row.get(REMARK.ID), List.of())));
        }
        return all;
    }

    private Map<Long, List<Reply>> threads(List<Long> ids) {
        if (ids.isEmpty()) return Map.of();
        Map<Long, List<Reply>> all = new LinkedHashMap<>();
        db.select(REMARK_REPLY.asterisk())
                .select(PERSON.NAME)
                .from(REMARK_REPLY)
                .join(PERSON)
                .on(PERSON.ID.eq(REMARK_REPLY.PERSON))
                .where(REMARK_REPLY.REMARK.in(ids))
                .orderBy(REMARK_REPLY.ID)
                .forEach(row -> all.computeIfAbsent(row.get(REMARK_REPLY.REMARK), k -> new ArrayList<>())
                        .add(new Reply(
                                row.get(REMARK_REPLY.UID),
                                row.get(REMARK_REPLY.PERSON),
                                row.get(REMARK_REPLY.OUTSIDE).isEmpty()
                                        ? row.get(PERSON.NAME)
                                        : row.get(REMARK_REPLY.OUTSIDE),
                                Times.instant(row.get(REMARK_REPLY.AT)),
                                row.get(REMARK_REPLY.SAYS),
                                Optional.ofNullable(row.get(REMARK_REPLY.STATE)).map(State::valueOf))));
        return all;
    }

    /** Adds to a thread and keeps the state that follows. */
    public void reply(long remark, long person, String says, Optional<State> set, State now, Instant at) {
        reply(new Reply(UUID.randomUUID().toString(), person, "", at, says, set), remark, now);
    }

    /** As {@link #reply(long, long, String, Optional, State, Instant)}; its name is of somebody outside, or empty. */
    public void reply(Reply reply, long remark, State now) {
        db.insertInto(REMARK_REPLY)
                .set(REMARK_REPLY.UID, reply.uid())
                .set(REMARK_REPLY.OUTSIDE, reply.name())
                .set(REMARK_REPLY.REMARK, remark)
                .set(REMARK_REPLY.PERSON, reply.person())
                .set(REMARK_REPLY.AT, Times.utc(reply.at()))
                .set(REMARK_REPLY.SAYS, reply.says())
                .set(REMARK_REPLY.STATE, reply.state().map(State::name).orElse(null))
                .execute();
        db.update(REMARK)
                .set(REMARK.STATE, now.name())
                .where(REMARK.ID.eq(remark))
                .execute();
    }

    /** Writes anew what its author may: words, kind, look. */
    public void edit(Remark remark) {
        db.update(REMARK)
                .set(REMARK.LINE, remark.line())
                .set(REMARK.DESCRIPTION, remark.description())
                .set(REMARK.KIND, remark.kind().name())
                .set(REMARK.MARK, json.writeValueAsString(MarkForm.of(remark.mark(), remark.view())))
                .where(REMARK.ID.eq(remark.id()))
                .execute();
    }

    /** The look that somebody chose. */
    public Optional<Look> look(long person) {
        return db.select(REMARK_LOOK.COLOUR, REMARK_LOOK.LETTERS)
                .from(REMARK_LOOK)
                .where(REMARK_LOOK.PERSON.eq(person))
                .fetchOptional(r -> new Look(
                        Colour.of(r.value1()).orElse(Colour.BRICK), r.value2().doubleValue()));
    }

    public void keepLook(long person, Look look) {
        BigDecimal letters = BigDecimal.valueOf(look.letters());
        db.insertInto(REMARK_LOOK)
                .set(REMARK_LOOK.PERSON, person)
                .set(REMARK_LOOK.COLOUR, look.colour().code())
                .set(REMARK_LOOK.LETTERS, letters)
                .onDuplicateKeyUpdate()
                .set(REMARK_LOOK.COLOUR, look.colour().code())
                .set(REMARK_LOOK.LETTERS, letters)
                .execute();
    }
}
