package mintshelf.app.store.house;

import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.RULE_EDITION;

import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeSet;
import mintshelf.app.store.Times;
import mintshelf.core.change.NoticeForm;
import mintshelf.core.house.CalendarRule;
import mintshelf.core.house.ChangeControlRule;
import mintshelf.core.house.DistributionRule;
import mintshelf.core.house.FactRule;
import mintshelf.core.house.FilingOrder;
import mintshelf.core.house.KindRule;
import mintshelf.core.house.NoticeFormRule;
import mintshelf.core.house.Rule;
import mintshelf.core.house.SeriesRule;
import mintshelf.core.house.SignOffRule;
import mintshelf.core.house.Subject;
import mintshelf.core.signoff.WorkingDays;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.SelectConditionStep;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import tools.jackson.databind.json.JsonMapper;

/** Editions of kinds, number series, facts and the filing rules; those of routes stand in {@link RouteStore}. */
@Repository
public class RuleStore {
    private static final Map<Subject, Class<? extends Rule>> FORMS = Map.of(
            Subject.KIND, KindRule.class,
            Subject.SERIES, SeriesRule.class,
            Subject.FACT, FactRule.class,
            Subject.FILING, FilingOrder.class,
            Subject.SIGN_OFF, SignOffRule.class,
            Subject.CALENDAR, CalendarRule.class,
            Subject.DISTRIBUTION, DistributionRule.class,
            Subject.CHANGE_CONTROL, ChangeControlRule.class,
            Subject.NOTICE_FORM, NoticeFormRule.class);

    private static final long FRESH_NANOS = 10_000_000_000L;

    private final DSLContext db;
    private final JsonMapper json;
    private volatile List<DistributionRule.Sentence> distribution = List.of();
    private volatile long readAt = System.nanoTime() - 2 * FRESH_NANOS;

    public RuleStore(DSLContext db, JsonMapper json) {
        this.db = db;
        this.json = json;
    }

    /** Adds the next edition of a rule; of two at once one is refused by the database. */
    public int add(Rule rule, RouteStore.Made made) {
        if (rule.subject() == Subject.DISTRIBUTION) readAnewOnceKept();
        int next = latestNumber(rule.subject(), rule.code()) + 1;
        db.insertInto(RULE_EDITION)
                .set(RULE_EDITION.SUBJECT, rule.subject().name())
                .set(RULE_EDITION.CODE, rule.code())
                .set(RULE_EDITION.EDITION, next)
                .set(RULE_EDITION.DEFINITION, json.writeValueAsString(rule))
                .set(RULE_EDITION.MADE_BY, boxed(made.person()))
                .set(RULE_EDITION.MADE_AT, Times.utc(made.at()))
                .set(RULE_EDITION.WHY, made.why())
                .execute();
        return next;
    }

    static @Nullable Long boxed(OptionalLong person) {
        return person.isPresent() ? person.getAsLong() : null;
    }

    /**
     * The number of the latest edition, 0 where there is none. Whoever asks keeps the rule to themselves until their transaction ends:
     * the first edition, which is always there, is locked before the latest is looked for.
     */
    public int latestNumber(Subject subject, String code) {
        Condition of = RULE_EDITION.SUBJECT.eq(subject.name()).and(RULE_EDITION.CODE.eq(code));
        db.select(RULE_EDITION.ID)
                .from(RULE_EDITION)
                .where(of, RULE_EDITION.EDITION.eq(1))
                .forUpdate()
                .fetch();
        return db.select(RULE_EDITION.EDITION)
                .from(RULE_EDITION)
                .where(of)
                .orderBy(RULE_EDITION.EDITION.desc())
                .limit(1)
                .forUpdate()
                .fetchOptional(RULE_EDITION.EDITION)
                .orElse(0);
    }

    /** The editions of a rule, the latest first; at most {@code most}. */
    public List<Edition> editions(Subject subject, String code, int most) {
        return select(subject, code)
                .orderBy(RULE_EDITION.EDITION.desc())
                .limit(most)
                .fetch(row -> edition(subject, row));
    }

    /** The latest edition of each rule of a subject, in the order in which the rules were made. */
    public List<Edition> latest(Subject subject) {
        List<String> codes = db.select(RULE_EDITION.CODE)
                .from(RULE_EDITION)
                .where(RULE_EDITION.SUBJECT.eq(subject.name()), RULE_EDITION.EDITION.eq(1))
                .orderBy(RULE_EDITION.ID)
                .fetch(RULE_EDITION.CODE);
        return codes.stream().map(code -> editions(subject, code, 1).get(0)).toList();
    }

    private SelectConditionStep<?> select(Subject subject, String code) {
        return db.select(
                        RULE_EDITION.EDITION,
                        RULE_EDITION.DEFINITION,
                        RULE_EDITION.MADE_AT,
                        RULE_EDITION.WHY,
                        DSL.coalesce(PERSON.NAME, "").as("by"))
                .from(RULE_EDITION)
                .leftJoin(PERSON)
                .on(PERSON.ID.eq(RULE_EDITION.MADE_BY))
                .where(RULE_EDITION.SUBJECT.eq(subject.name()), RULE_EDITION.CODE.eq(code));
    }

    private Edition edition(Subject subject, Record row) {
        return new Edition(
                row.get(RULE_EDITION.EDITION),
                row.get("by", String.class),
                Times.instant(row.get(RULE_EDITION.MADE_AT)),
                row.get(RULE_EDITION.WHY),
                json.readValue(row.get(RULE_EDITION.DEFINITION), FORMS.get(subject)));
    }

    /** The sign-off rule in force under a code; rules are never taken away, and a route names one that is there. */
    public SignOffRule signOff(String code) {
        return editions(Subject.SIGN_OFF, code, 1).stream()
                .map(e -> (SignOffRule) e.rule())
                .findFirst()
                .orElseThrow();
    }

    /** The sign-off rules in force, in the order in which they were made. */
    public List<SignOffRule> signOffs() {
        return latest(Subject.SIGN_OFF).stream()
                .map(e -> (SignOffRule) e.rule())
                .toList();
    }

    /** Who is told of what without having asked for it; what another node kept counts after ten seconds at the latest. */
    public List<DistributionRule.Sentence> distribution() {
        if (System.nanoTime() - readAt > FRESH_NANOS) {
            distribution = editions(Subject.DISTRIBUTION, DistributionRule.CODE, 1).stream()
                    .findFirst()
                    .map(e -> ((DistributionRule) e.rule()).sentences())
                    .orElse(List.of());
            readAt = System.nanoTime();
        }
        return distribution;
    }

    private void readAnewOnceKept() {
        if (!TransactionSynchronizationManager.isSynchronizationActive()) return;
        TransactionSynchronizationManager.registerSynchronization(new TransactionSynchronization() {
            @Override
            public void afterCommit() {
                readAt = System.nanoTime() - 2 * FRESH_NANOS;
            }
        });
    }

    /** What kind changed copies of documents get. */
    public FilingOrder.Copies copies() {
        return editions(Subject.FILING, FilingOrder.CODE, 1).stream()
                .map(e -> ((FilingOrder) e.rule()).copies())
                .findFirst()
                .orElse(FilingOrder.Copies.KEEP_KIND);
    }

    /** Who may start next revisions, and who is told. */
    /** What change notices show. */
    public NoticeForm noticeForm() {
        return editions(Subject.NOTICE_FORM, NoticeFormRule.CODE, 1).stream()
                .map(e -> ((NoticeFormRule) e.rule()).form())
                .findFirst()
                .orElse(NoticeForm.USUAL);
    }

    public ChangeControlRule changeControl() {
        return editions(Subject.CHANGE_CONTROL, ChangeControlRule.CODE, 1).stream()
                .map(e -> (ChangeControlRule) e.rule())
                .findFirst()
                .orElse(new ChangeControlRule(List.of()));
    }

    /** The days on which the house works; Saturday and Sunday are free where it said nothing. */
    public WorkingDays days() {
        return editions(Subject.CALENDAR, CalendarRule.CODE, 1).stream()
                .map(e -> ((CalendarRule) e.rule()).days())
                .findFirst()
                .orElse(WorkingDays.USUAL);
    }

    /** The facts of title blocks that carry a signer or the day of a signature, in any edition of any sign-off rule; one statement. */
    public Set<String> signOffFacts() {
        Set<String> facts = new TreeSet<>();
        db.select(RULE_EDITION.DEFINITION)
                .from(RULE_EDITION)
                .where(RULE_EDITION.SUBJECT.eq(Subject.SIGN_OFF.name()))
                .fetch(RULE_EDITION.DEFINITION)
                .forEach(text -> json.readValue(text, SignOffRule.class)
                        .asked()
                        .forEach(line -> facts.addAll(List.of(line.fact(), line.day()))));
        facts.remove("");
        return facts;
    }
}
