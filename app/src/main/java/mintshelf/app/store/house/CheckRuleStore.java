package mintshelf.app.store.house;

import static mintshelf.database.schema.Tables.CHECK_RULES;
import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.WAIVER;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import mintshelf.app.store.Prepared;
import mintshelf.app.store.Times;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.check.CheckRules;
import mintshelf.core.drawing.check.RuleFile;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.springframework.stereotype.Repository;

/** Rules that sheets are held to, by kind; findings that were let pass. */
@Repository
public class CheckRuleStore {
    private final Prepared waivers = new Prepared((db, revisions) -> db.select(
                    WAIVER.REVISION, WAIVER.ID, WAIVER.FINDING, WAIVER.WORDS, WAIVER.PERSON, PERSON.NAME, WAIVER.AT)
            .from(WAIVER)
            .join(PERSON)
            .on(PERSON.ID.eq(WAIVER.PERSON))
            .where(WAIVER.ENDED_AT.isNull(), WAIVER.REVISION.in(revisions)));

    private final DSLContext db;

    public CheckRuleStore(DSLContext db) {
        this.db = db;
    }

    /**
     * The rules of a kind.
     *
     * @param edition 0 for the ready-made ones
     * @param waivedBy code of the role that may let a binding finding pass
     */
    public record Edition(int edition, CheckRules rules, String waivedBy, EditionNote note) {
        public Edition(int edition, CheckRules rules, String waivedBy) {
            this(edition, rules, waivedBy, EditionNote.shipped(edition));
        }

        /** What a kind has until the house says otherwise. */
        public static final Edition READY_MADE = new Edition(0, CheckRules.hints(), "checker");
    }

    public Edition latest(long kind) {
        return latest(List.of(kind)).get(kind);
    }

    /** The latest editions of kinds, each of them; one statement. */
    public Map<Long, Edition> latest(Collection<Long> kinds) {
        Map<Long, Edition> editions = new HashMap<>();
        kinds.forEach(kind -> editions.put(kind, Edition.READY_MADE));
        var later = CHECK_RULES.as("later");
        db.selectFrom(CHECK_RULES)
                .where(CHECK_RULES.KIND.in(kinds))
                .andNotExists(db.selectOne()
                        .from(later)
                        .where(later.KIND.eq(CHECK_RULES.KIND), later.EDITION.gt(CHECK_RULES.EDITION)))
                .forEach(row -> editions.put(
                        row.getKind(), new Edition(row.getEdition(), read(row.getRules()), row.getWaivedBy())));
        return editions;
    }

    private static CheckRules read(String text) {
        return RuleFile.read(text) instanceof Outcome.Granted<CheckRules> rules ? rules.value() : CheckRules.hints();
    }

    /** The editions of a kind, the latest first, down to the ready-made one; at most {@code most} and that. */
    public List<Edition> editions(long kind, int most) {
        List<Edition> editions = new ArrayList<>(db.select(CHECK_RULES.fields())
                .select(PERSON.NAME)
                .from(CHECK_RULES)
                .leftJoin(PERSON)
                .on(PERSON.ID.eq(CHECK_RULES.MADE_BY))
                .where(CHECK_RULES.KIND.eq(kind))
                .orderBy(CHECK_RULES.EDITION.desc())
                .limit(most)
                .fetch(row -> new Edition(
                        row.get(CHECK_RULES.EDITION),
                        read(row.get(CHECK_RULES.RULES)),
                        row.get(CHECK_RULES.WAIVED_BY),
                        row.get(CHECK_RULES.MADE_BY) == null
                                ? EditionNote.shipped(row.get(CHECK_RULES.EDITION))
                                : new EditionNote(
                                        row.get(CHECK_RULES.EDITION),
                                        row.get(PERSON.NAME),
                                        Times.instant(row.get(CHECK_RULES.MADE_AT)),
                                        row.get(CHECK_RULES.WHY)))));
        editions.add(Edition.READY_MADE);
        return editions;
    }

    /** Adds the next edition, as shipped. */
    public void add(long kind, Edition edition) {
        add(kind, edition, new RouteStore.Made(OptionalLong.empty(), Instant.EPOCH, ""));
    }

    /** Adds the next edition. */
    public void add(long kind, Edition edition, RouteStore.Made made) {
        db.insertInto(CHECK_RULES)
                .set(CHECK_RULES.KIND, kind)
                .set(CHECK_RULES.EDITION, edition.edition())
                .set(CHECK_RULES.RULES, RuleFile.write(edition.rules()))
                .set(CHECK_RULES.WAIVED_BY, edition.waivedBy())
                .set(CHECK_RULES.MADE_BY, RuleStore.boxed(made.person()))
                .set(CHECK_RULES.MADE_AT, Times.utc(made.at()))
                .set(CHECK_RULES.WHY, made.why())
                .execute();
    }

    /** A finding that was let pass, by its key. */
    public record Waiver(long id, String finding, String words, long person, String name, Instant at) {}

    /** What is let pass for revisions, by revision; a statement for each few hundred. */
    public Map<Long, List<Waiver>> waivers(Collection<Long> revisions) {
        Map<Long, List<Waiver>> waivers = new HashMap<>();
        for (Record row : this.waivers.fetch(db, revisions)) {
            waivers.computeIfAbsent(row.get(WAIVER.REVISION), r -> new ArrayList<>())
                    .add(new Waiver(
                            row.get(WAIVER.ID),
                            row.get(WAIVER.FINDING),
                            row.get(WAIVER.WORDS),
                            row.get(WAIVER.PERSON),
                            row.get(PERSON.NAME),
                            Times.instant(row.get(WAIVER.AT))));
        }
        return waivers;
    }

    public void waive(long revision, String finding, String words, long person, Instant now) {
        db.insertInto(WAIVER)
                .set(WAIVER.REVISION, revision)
                .set(WAIVER.FINDING, finding)
                .set(WAIVER.WORDS, words)
                .set(WAIVER.PERSON, person)
                .set(WAIVER.AT, Times.utc(now))
                .execute();
    }

    /** Ends a waiver of a revision; whether there was one. */
    public Optional<String> end(long revision, long waiver, Instant now) {
        Optional<String> finding = db.select(WAIVER.FINDING)
                .from(WAIVER)
                .where(WAIVER.ID.eq(waiver), WAIVER.REVISION.eq(revision), WAIVER.ENDED_AT.isNull())
                .fetchOptional(WAIVER.FINDING);
        finding.ifPresent(f -> db.update(WAIVER)
                .set(WAIVER.ENDED_AT, Times.utc(now))
                .where(WAIVER.ID.eq(waiver))
                .execute());
        return finding;
    }
}
