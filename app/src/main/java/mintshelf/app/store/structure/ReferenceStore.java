package mintshelf.app.store.structure;

import static mintshelf.database.schema.Tables.BOM_LINE;
import static mintshelf.database.schema.Tables.LINE;
import static mintshelf.database.schema.Tables.RELEASE_COMPONENT;
import static mintshelf.database.schema.Tables.REVISION;
import static mintshelf.database.schema.Tables.VERSION;
import static mintshelf.database.schema.Tables.VERSION_REFERENCE;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.store.Prepared;
import mintshelf.core.base.ContentHash;
import mintshelf.core.document.VersionName;
import mintshelf.core.reference.Written;
import mintshelf.core.structure.StructureGraph.Use;
import mintshelf.database.schema.tables.Version;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** What versions refer to. References lie at the version that brought the content: a version that the shelf wrote itself has those of the one it was written from. */
@Repository
public class ReferenceStore {
    private static final short MARK = 1;
    private static final int AT_ONCE = 1000;

    private static final Version CAPTURED = VERSION.as("captured_version");
    private static final Version SUBSTANCE = VERSION.as("captured_substance");
    private static final Version HEAD = VERSION.as("head_version");
    private static final Field<Long> OWNER = DSL.coalesce(VERSION.SUBSTANCE, VERSION.ID);
    private final Prepared references = new Prepared((db, versions) -> db.select(VERSION.ID)
            .select(VERSION_REFERENCE.fields())
            .select(CAPTURED.NUMBER, CAPTURED.DIGEST, SUBSTANCE.NUMBER)
            .from(VERSION)
            .join(VERSION_REFERENCE)
            .on(VERSION_REFERENCE.VERSION.eq(OWNER))
            .leftJoin(CAPTURED)
            .on(CAPTURED.ID.eq(VERSION_REFERENCE.CAPTURED))
            .leftJoin(SUBSTANCE)
            .on(SUBSTANCE.ID.eq(CAPTURED.SUBSTANCE))
            .where(VERSION.ID.in(versions))
            .orderBy(VERSION.ID, VERSION_REFERENCE.SEQ));
    private final DSLContext db;

    public ReferenceStore(DSLContext db) {
        this.db = db;
    }

    /** Keeps the references of a version that was just added. */
    public void keep(long version, List<Reference> references) {
        for (int at = 0; at < references.size(); at += AT_ONCE) {
            var insert = db.insertInto(
                    VERSION_REFERENCE,
                    VERSION_REFERENCE.VERSION,
                    VERSION_REFERENCE.SEQ,
                    VERSION_REFERENCE.ROLE,
                    VERSION_REFERENCE.PATH,
                    VERSION_REFERENCE.QUANTITY,
                    VERSION_REFERENCE.STATE,
                    VERSION_REFERENCE.COMPONENT,
                    VERSION_REFERENCE.CAPTURED,
                    VERSION_REFERENCE.SOURCE);
            for (Reference r : references.subList(at, Math.min(references.size(), at + AT_ONCE))) {
                insert = insert.values(
                        version,
                        r.seq(),
                        r.written().role().name(),
                        r.written().path(),
                        r.written().quantity(),
                        r.state().name(),
                        r.component().map(Reference.Component::item).orElse(null),
                        r.component().map(Reference.Component::version).orElse(null),
                        r.component().map(c -> c.source().name()).orElse(null));
            }
            insert.execute();
        }
    }

    /** Says which document a reference of a version means. */
    public void pick(long version, int seq, long component, long captured) {
        db.update(VERSION_REFERENCE)
                .set(VERSION_REFERENCE.STATE, Reference.State.FOUND.name())
                .set(VERSION_REFERENCE.COMPONENT, component)
                .set(VERSION_REFERENCE.CAPTURED, captured)
                .set(VERSION_REFERENCE.SOURCE, Reference.Source.PICKED.name())
                .where(VERSION_REFERENCE.VERSION.eq(version), VERSION_REFERENCE.SEQ.eq(seq))
                .execute();
    }

    /** The references of versions by version, in the order of their files; versions without any are left out. */
    public Map<Long, List<Reference>> of(Collection<Long> versions) {
        Map<Long, List<Reference>> found = new LinkedHashMap<>();
        for (Record row : references.fetch(db, versions)) {
            found.computeIfAbsent(row.get(VERSION.ID), v -> new ArrayList<>()).add(reference(row));
        }
        return found;
    }

    public List<Reference> of(long version) {
        return of(List.of(version)).getOrDefault(version, List.of());
    }

    private static Reference reference(Record row) {
        Optional<Reference.Component> component = row.get(VERSION_REFERENCE.COMPONENT) == null
                ? Optional.empty()
                : Optional.of(new Reference.Component(
                        row.get(VERSION_REFERENCE.COMPONENT),
                        row.get(VERSION_REFERENCE.CAPTURED),
                        row.get(CAPTURED.NUMBER),
                        Optional.ofNullable(row.get(SUBSTANCE.NUMBER)).orElse(row.get(CAPTURED.NUMBER)),
                        ContentHash.of(row.get(CAPTURED.DIGEST)),
                        Reference.Source.valueOf(row.get(VERSION_REFERENCE.SOURCE))));
        return new Reference(
                row.get(VERSION_REFERENCE.SEQ),
                new Written(
                        Written.Role.valueOf(row.get(VERSION_REFERENCE.ROLE)),
                        row.get(VERSION_REFERENCE.PATH),
                        row.get(VERSION_REFERENCE.QUANTITY)),
                Reference.State.valueOf(row.get(VERSION_REFERENCE.STATE)),
                component);
    }

    /** The latest version of documents, ready to be captured. */
    public Map<Long, Reference.Component> heads(Collection<Long> items) {
        Map<Long, Reference.Component> found = new HashMap<>();
        List<Long> ids = List.copyOf(items);
        for (int at = 0; at < ids.size(); at += AT_ONCE) {
            db.select(VERSION.ITEM, VERSION.ID, VERSION.NUMBER, VERSION.DIGEST, SUBSTANCE.NUMBER)
                    .from(LINE)
                    .join(VERSION)
                    .on(VERSION.ID.eq(LINE.HEAD_VERSION))
                    .leftJoin(SUBSTANCE)
                    .on(SUBSTANCE.ID.eq(VERSION.SUBSTANCE))
                    .where(LINE.ITEM.in(ids.subList(at, Math.min(ids.size(), at + AT_ONCE))), LINE.MAIN_MARK.eq(MARK))
                    .forEach(row -> found.put(row.get(VERSION.ITEM), captured(row, Reference.Source.ASSUMED)));
        }
        return found;
    }

    /** Versions of main lines as a desk's record names them; what is no such version of that document is left out. */
    public Map<Long, Reference.Component> worked(Map<Long, Long> versions) {
        return worked(versions, LINE.MAIN_MARK.eq(MARK));
    }

    /** As {@link #worked(Map)}, for what is on the lines of a trial: versions of that too. */
    public Map<Long, Reference.Component> worked(Map<Long, Long> versions, long trial) {
        return worked(versions, LINE.MAIN_MARK.eq(MARK).or(LINE.TRIAL.eq(trial)));
    }

    private Map<Long, Reference.Component> worked(Map<Long, Long> versions, Condition line) {
        Map<Long, Reference.Component> found = new HashMap<>();
        db.select(VERSION.ITEM, VERSION.ID, VERSION.NUMBER, VERSION.DIGEST, SUBSTANCE.NUMBER)
                .from(VERSION)
                .join(LINE)
                .on(LINE.ID.eq(VERSION.LINE), line)
                .leftJoin(SUBSTANCE)
                .on(SUBSTANCE.ID.eq(VERSION.SUBSTANCE))
                .where(VERSION.ID.in(versions.values()))
                .forEach(row -> {
                    if (row.get(VERSION.ID).equals(versions.get(row.get(VERSION.ITEM)))) {
                        found.put(row.get(VERSION.ITEM), captured(row, Reference.Source.DESK));
                    }
                });
        return found;
    }

    private static Reference.Component captured(Record row, Reference.Source source) {
        return new Reference.Component(
                row.get(VERSION.ITEM),
                row.get(VERSION.ID),
                row.get(VERSION.NUMBER),
                Optional.ofNullable(row.get(SUBSTANCE.NUMBER)).orElse(row.get(VERSION.NUMBER)),
                ContentHash.of(row.get(VERSION.DIGEST)),
                source);
    }

    /** Lets one check-in after the other make references that were not there before; until the end of the transaction. */
    public void closeGate() {
        db.fetch("select id from structure_gate where id = 1 for update");
    }

    /** What the latest versions of documents refer to. */
    public List<Use> headUses(Collection<Long> parents) {
        List<Use> uses = new ArrayList<>();
        List<Long> ids = List.copyOf(parents);
        for (int at = 0; at < ids.size(); at += AT_ONCE) {
            uses.addAll(uses(LINE.ITEM.in(ids.subList(at, Math.min(ids.size(), at + AT_ONCE)))));
        }
        return uses;
    }

    /** What people wrote into the BOMs of documents, of the revision under way, else of the one in force: the documents that lines by hand name. */
    public List<Use> usesByHand(Collection<Long> parents) {
        return byHand(REVISION.ITEM, parents);
    }

    /** As {@link #usesByHand}, the other way: into whose BOMs people wrote some documents. */
    public List<Use> usersByHand(Collection<Long> components) {
        return byHand(BOM_LINE.COMPONENT, components);
    }

    private List<Use> byHand(Field<Long> which, Collection<Long> items) {
        List<Use> uses = new ArrayList<>();
        List<Long> ids = List.copyOf(items);
        var later = REVISION.as("later");
        for (int at = 0; at < ids.size(); at += AT_ONCE)
            uses.addAll(db.selectDistinct(REVISION.ITEM, BOM_LINE.COMPONENT)
                    .from(BOM_LINE)
                    .join(REVISION)
                    .on(REVISION.ID.eq(BOM_LINE.REVISION))
                    .where(which.in(ids.subList(at, Math.min(ids.size(), at + AT_ONCE))))
                    .and(BOM_LINE.FILE_MARK.isNull())
                    .and(BOM_LINE.COMPONENT.isNotNull())
                    .and(REVISION.PENDING_MARK
                            .isNotNull()
                            .or(REVISION.RELEASED_MARK
                                    .isNotNull()
                                    .and(DSL.notExists(DSL.selectOne()
                                            .from(later)
                                            .where(later.ITEM.eq(REVISION.ITEM), later.PENDING_MARK.isNotNull())))))
                    .fetch(row -> new Use(row.value1(), row.value2(), 1, 0)));
        return uses;
    }

    /** Which latest versions refer to some documents. */
    public List<Use> headUsers(Collection<Long> components) {
        List<Use> uses = new ArrayList<>();
        List<Long> ids = List.copyOf(components);
        for (int at = 0; at < ids.size(); at += AT_ONCE) {
            uses.addAll(uses(VERSION_REFERENCE.COMPONENT.in(ids.subList(at, Math.min(ids.size(), at + AT_ONCE)))));
        }
        return uses;
    }

    /** A version whose file names a document. */
    public record Naming(long version, long component, String path) {}

    /** Where files of versions name some documents. */
    public List<Naming> naming(Collection<Long> versions, Collection<Long> components) {
        List<Naming> found = new ArrayList<>();
        List<Long> ids = List.copyOf(versions);
        for (int at = 0; at < ids.size(); at += AT_ONCE) {
            found.addAll(db.select(VERSION.ID, VERSION_REFERENCE.COMPONENT, VERSION_REFERENCE.PATH)
                    .from(VERSION)
                    .join(VERSION_REFERENCE)
                    .on(VERSION_REFERENCE.VERSION.eq(OWNER))
                    .where(
                            VERSION.ID.in(ids.subList(at, Math.min(ids.size(), at + AT_ONCE))),
                            VERSION_REFERENCE.COMPONENT.in(components))
                    .orderBy(VERSION.ID, VERSION_REFERENCE.SEQ)
                    .fetch(r -> new Naming(r.value1(), r.value2(), r.value3())));
        }
        return found;
    }

    /** What all latest versions refer to. O(references). */
    public List<Use> allHeadUses() {
        return uses(DSL.trueCondition());
    }

    private List<Use> uses(Condition which) {
        var captured = VERSION.as("captured_v");
        var substance = VERSION.as("substance_v");
        return db.select(
                        LINE.ITEM,
                        VERSION_REFERENCE.COMPONENT,
                        VERSION_REFERENCE.QUANTITY,
                        DSL.coalesce(substance.NUMBER, captured.NUMBER))
                .from(LINE)
                .join(HEAD)
                .on(HEAD.ID.eq(LINE.HEAD_VERSION))
                .join(VERSION_REFERENCE)
                .on(VERSION_REFERENCE.VERSION.eq(DSL.coalesce(HEAD.SUBSTANCE, HEAD.ID)))
                .join(captured)
                .on(captured.ID.eq(VERSION_REFERENCE.CAPTURED))
                .leftJoin(substance)
                .on(substance.ID.eq(captured.SUBSTANCE))
                .where(which, LINE.MAIN_MARK.eq(MARK))
                .fetchStream()
                .map(r -> new Use(r.value1(), r.value2(), r.value3(), r.value4()))
                .collect(Collectors.toCollection(ArrayList::new));
    }

    /** What the versions in force refer to among some documents: where these are used as readers know it. */
    public List<Use> releasedUses(Collection<Long> components) {
        List<Use> uses = new ArrayList<>();
        var out = VERSION.as("out_v");
        var captured = VERSION.as("captured_v");
        var substance = VERSION.as("substance_v");
        List<Long> ids = List.copyOf(components);
        for (int at = 0; at < ids.size(); at += AT_ONCE) {
            db.select(
                            REVISION.ITEM,
                            VERSION_REFERENCE.COMPONENT,
                            VERSION_REFERENCE.QUANTITY,
                            DSL.coalesce(substance.NUMBER, captured.NUMBER))
                    .from(VERSION_REFERENCE)
                    .join(out)
                    .on(DSL.coalesce(out.SUBSTANCE, out.ID).eq(VERSION_REFERENCE.VERSION))
                    .join(REVISION)
                    .on(REVISION.RELEASED_VERSION.eq(out.ID), REVISION.RELEASED_MARK.eq(MARK))
                    .join(captured)
                    .on(captured.ID.eq(VERSION_REFERENCE.CAPTURED))
                    .leftJoin(substance)
                    .on(substance.ID.eq(captured.SUBSTANCE))
                    .where(VERSION_REFERENCE.COMPONENT.in(ids.subList(at, Math.min(ids.size(), at + AT_ONCE))))
                    .forEach(r -> uses.add(new Use(r.value1(), r.value2(), r.value3(), r.value4())));
        }
        return uses;
    }

    /** Everything below some documents in their latest versions, level by level, as the caller's transaction sees it. */
    public List<Use> usesBelow(Collection<Long> items) {
        List<Use> all = new ArrayList<>();
        Set<Long> seen = new HashSet<>(items);
        Set<Long> level = new HashSet<>(items);
        while (!level.isEmpty()) {
            List<Use> uses = headUses(level);
            all.addAll(uses);
            level = new HashSet<>();
            for (Use use : uses) if (seen.add(use.component())) level.add(use.component());
        }
        return all;
    }

    /** The number of each document's latest version, by content: what out of date goes by. */
    public Map<Long, Integer> latest(Collection<Long> items) {
        Map<Long, Integer> found = new HashMap<>();
        List<Long> ids = List.copyOf(items);
        for (int at = 0; at < ids.size(); at += AT_ONCE) {
            found.putAll(latest(LINE.ITEM.in(ids.subList(at, Math.min(ids.size(), at + AT_ONCE)))));
        }
        return found;
    }

    /** As {@link #latest(Collection)}, of every document that stands in another one. O(documents). */
    public Map<Long, Integer> allLatest() {
        return latest(DSL.trueCondition());
    }

    private Map<Long, Integer> latest(Condition which) {
        var substance = VERSION.as("substance_v");
        return db.select(LINE.ITEM, DSL.coalesce(substance.NUMBER, HEAD.NUMBER))
                .from(LINE)
                .join(HEAD)
                .on(HEAD.ID.eq(LINE.HEAD_VERSION))
                .leftJoin(substance)
                .on(substance.ID.eq(HEAD.SUBSTANCE))
                .where(which, LINE.MAIN_MARK.eq(MARK))
                .fetchMap(r -> r.value1(), r -> r.value2());
    }

    /** Documents whose any version refers to a document, those on trials too, with the versions that do; the latest first. */
    public Map<Long, List<VersionName>> everUsedIn(long component, int most) {
        Map<Long, List<VersionName>> found = new LinkedHashMap<>();
        db.select(VERSION.ITEM, VERSION.NUMBER, LINE.TRIAL_NUMBER)
                .from(VERSION_REFERENCE)
                .join(VERSION)
                .on(VERSION.ID.eq(VERSION_REFERENCE.VERSION))
                .join(LINE)
                .on(LINE.ID.eq(VERSION.LINE))
                .where(VERSION_REFERENCE.COMPONENT.eq(component))
                .orderBy(VERSION.ITEM, LINE.TRIAL_NUMBER, VERSION.NUMBER.desc())
                .limit(most)
                .forEach(row -> found.computeIfAbsent(row.value1(), i -> new ArrayList<>())
                        .add(new VersionName(Optional.ofNullable(row.value3()).orElse(0), row.value2())));
        return found;
    }

    /** A component as it was in force at a release, with its own revision. */
    public record Frozen(long component, long version, long revision, boolean released) {}

    /** What was in force when revisions were released, by revision. */
    public Map<Long, List<Frozen>> frozen(Collection<Long> revisions) {
        return db.selectFrom(RELEASE_COMPONENT)
                .where(RELEASE_COMPONENT.REVISION.in(revisions))
                .fetchGroups(
                        RELEASE_COMPONENT.REVISION,
                        r -> new Frozen(r.getComponent(), r.getVersion(), r.getComponentRevision(), r.getReleased()));
    }

    /**
     * Keeps which versions of its components, and of what its BOM names by hand, are in force while a revision is released; of the
     * others the captured ones, and the latest.
     */
    public void freeze(long revision, long version) {
        db.execute("""
                insert into release_component (revision, component, version, component_revision, released)
                select ?, x.component, x.version, v.revision, x.released from (
                  select r.component, coalesce(out_now.released_version, max(r.captured)) version,
                         out_now.released_version is not null released
                  from (
                    select f.component, f.captured from version mine
                    join version_reference f on f.version = coalesce(mine.substance, mine.id) and f.component is not null
                    where mine.id = ?
                    union all
                    select b.component, l.head_version from bom_line b join line l on l.item = b.component and l.main_mark = 1
                    where b.revision = ? and b.file_mark is null) r
                  left join revision out_now on out_now.item = r.component and out_now.released_mark = 1
                  group by r.component, out_now.released_version) x
                join version v on v.id = x.version
                on duplicate key update version = x.version, component_revision = v.revision, released = x.released
                """, revision, version, revision);
    }

    /** Numbers of the versions that people made, by document, ascending: what "2 newer" counts. */
    public Map<Long, List<Integer>> made(Collection<Long> items) {
        return db.select(VERSION.ITEM, VERSION.NUMBER)
                .from(VERSION)
                .join(LINE)
                .on(LINE.ID.eq(VERSION.LINE), LINE.MAIN_MARK.eq(MARK))
                .where(VERSION.ITEM.in(items), VERSION.MADE_BY.ne("STAMPED"))
                .orderBy(VERSION.ITEM, VERSION.NUMBER)
                .fetchGroups(VERSION.ITEM, VERSION.NUMBER);
    }
}
