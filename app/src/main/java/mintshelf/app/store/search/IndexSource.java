package mintshelf.app.store.search;

import static mintshelf.database.schema.Tables.CONTENT;
import static mintshelf.database.schema.Tables.CONTENT_TEXT;
import static mintshelf.database.schema.Tables.FACT;
import static mintshelf.database.schema.Tables.ITEM;
import static mintshelf.database.schema.Tables.LINE;
import static mintshelf.database.schema.Tables.NUMBER_CLAIM;
import static mintshelf.database.schema.Tables.PART_VARIANT;
import static mintshelf.database.schema.Tables.RECORD_ENTRY;
import static mintshelf.database.schema.Tables.REVISION;
import static mintshelf.database.schema.Tables.STAGE;
import static mintshelf.database.schema.Tables.VERSION;
import static mintshelf.database.schema.Tables.VERSION_FILE;

import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import mintshelf.app.store.Prepared;
import mintshelf.app.store.Times;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.Spine;
import mintshelf.app.store.document.SpineStore;
import mintshelf.core.base.Outcome;
import mintshelf.core.document.Document;
import mintshelf.core.document.Revision;
import mintshelf.core.fact.FactType;
import mintshelf.core.fact.FactValue;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.revision.StageClass;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** What the index is made of, read from the database: documents as lists show them, their versions, and what has moved. */
@Repository
public class IndexSource {
    private static final TypeReference<TreeMap<String, String>> FACTS = new TypeReference<>() {};

    private final SpineStore spines;
    private final FactStore facts;
    private final JsonMapper json;
    private final DSLContext db;
    private final Prepared numbers = new Prepared((c, items) -> c.select(NUMBER_CLAIM.ITEM, NUMBER_CLAIM.NUMBER)
            .from(NUMBER_CLAIM)
            .where(NUMBER_CLAIM.STATE.eq("FORMER"), NUMBER_CLAIM.ITEM.in(items)));
    private final Prepared words =
            new Prepared((c, contents) -> c.select(CONTENT_TEXT.CONTENT, CONTENT_TEXT.WORDS, CONTENT_TEXT.TRAITS)
                    .from(CONTENT_TEXT)
                    .where(CONTENT_TEXT.CONTENT.in(contents)));
    private final Prepared variants =
            new Prepared((c, revisions) -> c.select(PART_VARIANT.REVISION, PART_VARIANT.NUMBER)
                    .from(PART_VARIANT)
                    .where(PART_VARIANT.NUMBER.ne(""), PART_VARIANT.REVISION.in(revisions)));
    private final Prepared outAt = new Prepared((c, revisions) -> c.select(REVISION.ID, REVISION.RELEASED_AT)
            .from(REVISION)
            .where(REVISION.RELEASED_AT.isNotNull(), REVISION.ID.in(revisions)));
    private final Prepared versions = new Prepared((c, items) -> c.select(
                    VERSION.ITEM,
                    VERSION.ID,
                    VERSION.NUMBER,
                    VERSION.COMMENT,
                    VERSION.AT,
                    VERSION.FACTS,
                    VERSION_FILE.CONTENT,
                    VERSION_FILE.FILE_NAME,
                    CONTENT.CONTENT_KIND,
                    REVISION.LABEL,
                    REVISION.TITLE,
                    REVISION.EDITION,
                    REVISION.STAGE,
                    REVISION.RELEASED_VERSION,
                    REVISION.RELEASED_AT,
                    STAGE.CLASS)
            .from(VERSION)
            .join(LINE)
            .on(LINE.ID.eq(VERSION.LINE), LINE.MAIN_MARK.eq((short) 1))
            .join(VERSION_FILE)
            .on(VERSION_FILE.VERSION.eq(VERSION.ID), VERSION_FILE.ROLE.eq("MAIN"))
            .join(CONTENT)
            .on(CONTENT.ID.eq(VERSION_FILE.CONTENT))
            .join(REVISION)
            .on(REVISION.ID.eq(VERSION.REVISION))
            .join(STAGE)
            .on(STAGE.EDITION.eq(REVISION.EDITION), STAGE.CODE.eq(REVISION.STAGE))
            .where(VERSION.ITEM.in(items)));

    public IndexSource(SpineStore spines, FactStore facts, JsonMapper json, DSLContext db) {
        this.spines = spines;
        this.facts = facts;
        this.json = json;
        this.db = db;
    }

    /** Something that moved: its place in the tail, and the document; none for what concerns no document. */
    record Moved(long tail, Optional<Long> item) {}

    /** Entries of the record behind a place, as they came. */
    List<Moved> recorded(long after, int most) {
        return db.select(RECORD_ENTRY.TAIL, RECORD_ENTRY.ITEM)
                .from(RECORD_ENTRY)
                .where(RECORD_ENTRY.TAIL.gt(after))
                .orderBy(RECORD_ENTRY.TAIL)
                .limit(most)
                .fetch(row -> new Moved(row.value1(), Optional.ofNullable(row.value2())));
    }

    /** Whether anything came behind these places; one statement. */
    boolean isBehind(long recorded, long read) {
        return db.fetchSingle(
                        "select exists(select 1 from record_entry where tail > ?) or exists(select 1 from content_text where tail > ?)",
                        recorded,
                        read)
                .get(0, Boolean.class);
    }

    /** The last place of the record; 0 where there is none. */
    long lastRecorded() {
        return db.select(DSL.coalesce(DSL.max(RECORD_ENTRY.TAIL), 0L))
                .from(RECORD_ENTRY)
                .fetchSingle(0, Long.class);
    }

    /** The last place of the contents whose words were read. */
    long lastRead() {
        return db.select(DSL.coalesce(DSL.max(CONTENT_TEXT.TAIL), 0L))
                .from(CONTENT_TEXT)
                .fetchSingle(0, Long.class);
    }

    List<Moved> recorded(Collection<Long> tails) {
        return db.select(RECORD_ENTRY.TAIL, RECORD_ENTRY.ITEM)
                .from(RECORD_ENTRY)
                .where(RECORD_ENTRY.TAIL.in(tails))
                .fetch(row -> new Moved(row.value1(), Optional.ofNullable(row.value2())));
    }

    /** Contents behind a place whose words were read, each with the documents that have it. */
    List<Moved> read(long after, int most) {
        return read(db.select(CONTENT_TEXT.TAIL, CONTENT_TEXT.CONTENT)
                .from(CONTENT_TEXT)
                .where(CONTENT_TEXT.TAIL.gt(after))
                .orderBy(CONTENT_TEXT.TAIL)
                .limit(most)
                .fetchMap(CONTENT_TEXT.TAIL, CONTENT_TEXT.CONTENT));
    }

    List<Moved> read(Collection<Long> tails) {
        return read(db.select(CONTENT_TEXT.TAIL, CONTENT_TEXT.CONTENT)
                .from(CONTENT_TEXT)
                .where(CONTENT_TEXT.TAIL.in(tails))
                .fetchMap(CONTENT_TEXT.TAIL, CONTENT_TEXT.CONTENT));
    }

    private List<Moved> read(Map<Long, Long> contents) {
        if (contents.isEmpty()) return List.of();
        Map<Long, List<Long>> items = db.selectDistinct(VERSION_FILE.CONTENT, VERSION.ITEM)
                .from(VERSION_FILE)
                .join(VERSION)
                .on(VERSION.ID.eq(VERSION_FILE.VERSION))
                .where(VERSION_FILE.CONTENT.in(contents.values()))
                .fetchGroups(VERSION_FILE.CONTENT, VERSION.ITEM);
        List<Moved> moved = new ArrayList<>();
        new TreeMap<>(contents).forEach((tail, content) -> {
            List<Long> of = items.getOrDefault(content, List.of());
            if (of.isEmpty()) moved.add(new Moved(tail, Optional.empty()));
            of.forEach(item -> moved.add(new Moved(tail, Optional.of(item))));
        });
        return moved;
    }

    /** The hash of the record's entry at a place of the tail: by it an index knows whether it was made of this record. */
    Optional<String> mark(long tail) {
        return db.select(RECORD_ENTRY.HASH)
                .from(RECORD_ENTRY)
                .where(RECORD_ENTRY.TAIL.eq(tail))
                .fetchOptional(row -> HexFormat.of().formatHex(row.value1()));
    }

    /** Documents behind an id, by their ids. */
    List<Long> items(long after, int most) {
        return db.select(ITEM.ID)
                .from(ITEM)
                .where(ITEM.ID.gt(after))
                .orderBy(ITEM.ID)
                .limit(most)
                .fetch(ITEM.ID);
    }

    /** How many documents there are: for progress. */
    long count() {
        return db.fetchCount(ITEM);
    }

    /** What of documents is found: nothing of those that were dropped. A number of statements that does not grow with them. */
    Map<Long, List<Entry>> entries(Collection<Long> items) {
        Map<Long, Spine> all = new TreeMap<>(spines.spines(items));
        all.values().removeIf(s -> s.document().dropped());
        Map<Long, List<String>> named = new HashMap<>();
        all.values().forEach(s -> {
            List<String> numbers = new ArrayList<>();
            numbers.add(s.document().number());
            named.put(s.id(), numbers);
        });
        for (Record row : numbers.fetch(db, all.keySet())) {
            named.get(row.get(NUMBER_CLAIM.ITEM)).add(row.get(NUMBER_CLAIM.NUMBER));
        }
        List<Record> made = versions.fetch(db, all.keySet());
        Map<Long, Said> said = said(made);
        List<Long> revisions = new ArrayList<>();
        all.values().forEach(s -> {
            revisions.add(s.document().current().id());
            s.document().released().ifPresent(r -> revisions.add(r.id()));
        });
        Map<Long, Map<Long, FactValue>> values = facts.valuesById(revisions);
        Map<Long, Instant> out = new HashMap<>();
        outAt.fetch(db, revisions)
                .forEach(row -> out.put(row.get(REVISION.ID), Times.instant(row.get(REVISION.RELEASED_AT))));
        Map<Long, List<String>> parts = new HashMap<>();
        variants.fetch(db, revisions)
                .forEach(row -> parts.computeIfAbsent(row.get(PART_VARIANT.REVISION), r -> new ArrayList<>())
                        .add(row.get(PART_VARIANT.NUMBER)));
        Map<String, Fact> byName = factsByName();
        Map<Long, List<Entry>> entries = new HashMap<>();
        for (Spine spine : all.values()) {
            List<Entry> of = new ArrayList<>();
            List<String> numbered = named.get(spine.id());
            of.add(document(spine, with(numbered, spine, parts), true, said, values, out));
            if (spine.out().isPresent()) {
                Spine released = spine.released();
                of.add(document(released, with(numbered, released, parts), false, said, values, out));
            }
            entries.put(spine.id(), of);
        }
        for (Record row : made) {
            Spine spine = all.get(row.get(VERSION.ITEM));
            entries.get(spine.id()).add(version(spine, named.get(spine.id()), row, said, byName));
        }
        return entries;
    }

    /** The part numbers of what the revision in it describes are found like former numbers. */
    private static List<String> with(List<String> numbered, Spine spine, Map<Long, List<String>> parts) {
        List<String> all = new ArrayList<>(numbered);
        all.addAll(parts.getOrDefault(spine.document().current().id(), List.of()));
        return all;
    }

    private Map<Long, Said> said(List<Record> made) {
        Map<Long, Said> said = new HashMap<>();
        words.fetch(
                        db,
                        made.stream()
                                .map(r -> r.get(VERSION_FILE.CONTENT))
                                .distinct()
                                .toList())
                .forEach(row -> said.put(
                        row.get(CONTENT_TEXT.CONTENT),
                        new Said(row.get(CONTENT_TEXT.WORDS), row.get(CONTENT_TEXT.TRAITS))));
        return said;
    }

    /** What was read of a content. */
    private record Said(String words, String traits) {}

    private static Entry document(
            Spine spine,
            List<String> numbers,
            boolean all,
            Map<Long, Said> said,
            Map<Long, Map<Long, FactValue>> values,
            Map<Long, Instant> out) {
        Document d = spine.document();
        List<Revision> revisions = new ArrayList<>(List.of(d.current()));
        d.released().filter(r -> r.id() != d.current().id()).ifPresent(revisions::add);
        List<String> words = new ArrayList<>();
        Optional<Said> own = Optional.ofNullable(said.get(spine.content().id()));
        own.map(Said::words).ifPresent(words::add);
        // Who sees work in preparation finds by what is in force, too.
        spine.out()
                .filter(o -> o.content().id() != spine.content().id())
                .map(o -> said.get(o.content().id()))
                .map(Said::words)
                .ifPresent(words::add);
        return new Entry(
                d.id(),
                Optional.empty(),
                all,
                !all,
                numbers,
                sort(d.number()),
                d.title(),
                d.fileName(),
                words,
                own.map(Said::traits).orElse(""),
                "",
                placed(spine),
                revisions.stream()
                        .map(r -> new Entry.StageOf(
                                r.stage().edition(),
                                r.stage().code(),
                                r.stage().stageClass().name()))
                        .toList(),
                revisions.stream().flatMap(r -> r.label().stream()).toList(),
                d.holder().map(h -> new Entry.Held(h.person(), h.since())),
                spine.content().kind().name(),
                spine.changed(),
                revisions.stream()
                        .flatMap(r -> Optional.ofNullable(out.get(r.id())).stream())
                        .findFirst(),
                values.getOrDefault(d.current().id(), Map.of()));
    }

    private static String sort(String number) {
        return NumberKey.of(number) instanceof Outcome.Granted<NumberKey> key
                ? key.value().sort()
                : number;
    }

    private static Entry.Placed placed(Spine spine) {
        return new Entry.Placed(
                spine.document().place().shelf(),
                spine.document().place().folders(),
                spine.document().place().kind(),
                spine.author(),
                spine.paper().map(Enum::name).orElse(""));
    }

    private Entry version(
            Spine spine, List<String> numbers, Record row, Map<Long, Said> said, Map<String, Fact> byName) {
        StageClass stage = StageClass.valueOf(row.get(STAGE.CLASS));
        boolean wasOut = row.get(VERSION.ID).equals(row.get(REVISION.RELEASED_VERSION)) && stage.wasReleased();
        return new Entry(
                spine.id(),
                Optional.of(row.get(VERSION.NUMBER)),
                true,
                wasOut,
                numbers,
                sort(spine.document().number()),
                row.get(REVISION.TITLE).isEmpty() ? spine.document().title() : row.get(REVISION.TITLE),
                row.get(VERSION_FILE.FILE_NAME),
                Optional.ofNullable(said.get(row.get(VERSION_FILE.CONTENT))).map(Said::words).stream()
                        .toList(),
                "",
                row.get(VERSION.COMMENT),
                placed(spine),
                List.of(new Entry.StageOf(row.get(REVISION.EDITION), row.get(REVISION.STAGE), stage.name())),
                Optional.ofNullable(row.get(REVISION.LABEL)).stream().toList(),
                Optional.empty(),
                row.get(CONTENT.CONTENT_KIND),
                Times.instant(row.get(VERSION.AT)),
                Optional.ofNullable(row.get(REVISION.RELEASED_AT)).map(Times::instant),
                snapshot(row.get(VERSION.FACTS), byName));
    }

    private record Fact(long id, FactType type) {}

    private Map<String, Fact> factsByName() {
        Map<String, Fact> byName = new HashMap<>();
        db.select(FACT.NAME, FACT.ID, FACT.TYPE)
                .from(FACT)
                .forEach(row -> byName.put(row.value1(), new Fact(row.value2(), FactType.valueOf(row.value3()))));
        return byName;
    }

    private Map<Long, FactValue> snapshot(String kept, Map<String, Fact> byName) {
        Map<Long, FactValue> values = new TreeMap<>();
        if (kept.length() <= 2) return values;
        json.readValue(kept, FACTS).forEach((name, text) -> {
            Fact fact = byName.get(name);
            if (fact == null || text.isEmpty()) return;
            value(fact.type(), text).ifPresent(v -> values.put(fact.id(), v));
        });
        return values;
    }

    /** A fact that had another type when the version was made is found by its text. */
    private static Optional<FactValue> value(FactType type, String text) {
        try {
            return Optional.of(
                    switch (type) {
                        case NUMBER -> new FactValue.Quantity(new BigDecimal(text));
                        case DATE -> new FactValue.Day(LocalDate.parse(text));
                        default -> new FactValue.Words(text);
                    });
        } catch (NumberFormatException | DateTimeParseException e) {
            return Optional.of(new FactValue.Words(text));
        }
    }
}
