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
    public record Edition(int edition, CheckRules rules, String waivedBy) {
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

    /** Adds the next edition. */
    public void add(long kind, Edition edition) {
        db.insertInto(CHECK_RULES)
                .set(CHECK_RULES.KIND, kind)
                .set(CHECK_RULES.EDITION, edition.edition())
                .set(CHECK_RULES.RULES, RuleFile.write(edition.rules()))
                .set(CHECK_RULES.WAIVED_BY, edition.waivedBy())
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
