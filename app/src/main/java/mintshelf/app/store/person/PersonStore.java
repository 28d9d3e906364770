package mintshelf.app.store.person;

import static mintshelf.database.schema.Tables.ACCESS_GRANT;
import static mintshelf.database.schema.Tables.GROUP_MEMBER;
import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.ROLE;

import java.time.Instant;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.store.Prepared;
import mintshelf.app.store.Times;
import mintshelf.core.base.Texts;
import mintshelf.core.signoff.Asked;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** People. */
@Repository
public class PersonStore {
    private final Prepared people =
            new Prepared((db, ids) -> db.select(PERSON.fields()).from(PERSON).where(PERSON.ID.in(ids)));
    private final DSLContext db;
    private final GrantStore grants;

    public PersonStore(DSLContext db, GrantStore grants) {
        this.db = db;
        this.grants = grants;
    }

    /** A person as others see them. */
    public record Person(
            long id,
            String login,
            String name,
            String mail,
            String telephone,
            String note,
            String zone,
            Optional<LocalDate> awayFrom,
            Optional<LocalDate> awayUntil,
            OptionalLong standsIn,
            boolean left,
            boolean canSignIn) {
        public boolean isAway(LocalDate day) {
            return awayUntil.isPresent()
                    && !day.isAfter(awayUntil.get())
                    && awayFrom.filter(day::isBefore).isEmpty();
        }
    }

    /** What a sign-in is checked against. */
    public record Credentials(long person, String login, String name, String passwordHash, boolean left) {}

    public boolean isEmpty() {
        return !db.fetchExists(PERSON);
    }

    public Optional<Credentials> credentials(String login) {
        return db.select(PERSON.ID, PERSON.LOGIN, PERSON.NAME, PERSON.PASSWORD_HASH, PERSON.LEFT_AT)
                .from(PERSON)
                .where(PERSON.LOGIN_KEY.eq(Texts.key(login)), PERSON.PASSWORD_HASH.isNotNull())
                .fetchOptional(row ->
                        new Credentials(row.value1(), row.value2(), row.value3(), row.value4(), row.value5() != null));
    }

    public Optional<Person> person(long id) {
        return people.fetch(db, List.of(id)).stream().findFirst().map(PersonStore::person);
    }

    public Optional<Person> byLogin(String login) {
        return db.selectFrom(PERSON)
                .where(PERSON.LOGIN_KEY.eq(Texts.key(login)))
                .fetchOptional()
                .map(PersonStore::person);
    }

    /** People by name after {@code afterName}, paged by key. */
    public List<Person> people(String afterName, long afterId, int most) {
        return db.selectFrom(PERSON)
                .where(DSL.row(PERSON.NAME, PERSON.ID).gt(afterName, afterId))
                .orderBy(PERSON.NAME, PERSON.ID)
                .limit(most)
                .fetch(PersonStore::person);
    }

    private static Person person(Record row) {
        Long standsIn = row.get(PERSON.STANDS_IN);
        return new Person(
                row.get(PERSON.ID),
                row.get(PERSON.LOGIN),
                row.get(PERSON.NAME),
                row.get(PERSON.MAIL),
                row.get(PERSON.TELEPHONE),
                row.get(PERSON.NOTE),
                row.get(PERSON.ZONE),
                Optional.ofNullable(row.get(PERSON.AWAY_FROM)),
                Optional.ofNullable(row.get(PERSON.AWAY_UNTIL)),
                standsIn == null ? OptionalLong.empty() : OptionalLong.of(standsIn),
                row.get(PERSON.LEFT_AT) != null,
                row.get(PERSON.PASSWORD_HASH) != null);
    }

    /** Adds a person who cannot sign in yet. The login must be free; the database refuses a second one. */
    public long add(String login, String name, String mail, String telephone, String note, String zone, Instant now) {
        return db.insertInto(PERSON)
                .set(PERSON.LOGIN, login)
                .set(PERSON.LOGIN_KEY, Texts.key(login))
                .set(PERSON.NAME, name)
                .set(PERSON.MAIL, mail)
                .set(PERSON.TELEPHONE, telephone)
                .set(PERSON.NOTE, note)
                .set(PERSON.ZONE, zone)
                .set(PERSON.CREATED_AT, Times.utc(now))
                .returningResult(PERSON.ID)
                .fetchSingle()
                .value1();
    }

    public void setContact(long person, String name, String mail, String telephone, String note) {
        db.update(PERSON)
                .set(PERSON.NAME, name)
                .set(PERSON.MAIL, mail)
                .set(PERSON.TELEPHONE, telephone)
                .set(PERSON.NOTE, note)
                .where(PERSON.ID.eq(person))
                .execute();
    }

    public void setPassword(long person, String hash) {
        db.update(PERSON)
                .set(PERSON.PASSWORD_HASH, hash)
                .where(PERSON.ID.eq(person))
                .execute();
    }

    /** @param from empty for at once; also where somebody only names who stands in when they are away */
    public void setAway(long person, Optional<LocalDate> from, Optional<LocalDate> until, OptionalLong standsIn) {
        db.update(PERSON)
                .set(PERSON.AWAY_FROM, from.orElse(null))
                .set(PERSON.AWAY_UNTIL, until.orElse(null))
                .set(PERSON.STANDS_IN, standsIn.isPresent() ? standsIn.getAsLong() : null)
                .where(PERSON.ID.eq(person))
                .execute();
    }

    /** The people who have a role somewhere, themselves or through a group, by name; those who left are not among them. */
    public List<Person> withRole(String role) {
        var member = GROUP_MEMBER.as("member");
        return db
                .select(PERSON.ID)
                .from(PERSON)
                .where(
                        PERSON.LEFT_AT.isNull(),
                        DSL.exists(DSL.selectOne()
                                .from(ACCESS_GRANT)
                                .join(ROLE)
                                .on(ROLE.ID.eq(ACCESS_GRANT.ROLE))
                                .where(ROLE.CODE.eq(role))
                                .and(ACCESS_GRANT
                                        .PERSON
                                        .eq(PERSON.ID)
                                        .or(ACCESS_GRANT.PERSON_GROUP.in(DSL.select(member.PERSON_GROUP)
                                                .from(member)
                                                .where(member.PERSON.eq(PERSON.ID)))))))
                .orderBy(PERSON.NAME)
                .fetch(PERSON.ID)
                .stream()
                .map(id -> person(id).orElseThrow())
                .toList();
    }

    /** Those whom somebody stands in for, or is named to; who left is not among them. */
    public List<Person> standIns(long deputy) {
        return db.selectFrom(PERSON)
                .where(PERSON.STANDS_IN.eq(deputy), PERSON.LEFT_AT.isNull())
                .orderBy(PERSON.NAME)
                .fetch(PersonStore::person);
    }

    /** Who is in a group. */
    public Set<Long> members(long group) {
        return db.select(GROUP_MEMBER.PERSON)
                .from(GROUP_MEMBER)
                .where(GROUP_MEMBER.PERSON_GROUP.eq(group))
                .fetchSet(GROUP_MEMBER.PERSON);
    }

    /** Some people by name; those who left are not among them. */
    public List<Person> people(Set<Long> ids) {
        if (ids.isEmpty()) return List.of();
        return db.selectFrom(PERSON)
                .where(PERSON.ID.in(ids), PERSON.LEFT_AT.isNull())
                .orderBy(PERSON.NAME, PERSON.ID)
                .fetch(PersonStore::person);
    }

    /** The people of a role, of a group, or one of them, by name; those who left are not among them. */
    public List<Person> asked(Asked who) {
        return switch (who.kind()) {
            case ROLE -> withRole(who.code());
            case GROUP -> people(members(who.id()));
            case PERSON -> people(Set.of(who.id()));
        };
    }

    /** The names of everybody who has not left, by number. */
    public Map<String, String> names() {
        return db
                .select(PERSON.ID, PERSON.NAME)
                .from(PERSON)
                .where(PERSON.LEFT_AT.isNull())
                .orderBy(PERSON.NAME)
                .fetch()
                .stream()
                .collect(Collectors.toMap(
                        row -> Long.toString(row.value1()), r -> r.value2(), (a, b) -> a, LinkedHashMap::new));
    }

    /** The logins of who is called so, by login or else by name; of those who have not left, at most ten. */
    public List<String> called(String said) {
        List<String> logins =
                byLogin(said).filter(p -> !p.left()).map(Person::login).stream().toList();
        if (!logins.isEmpty()) return logins;
        return db.select(PERSON.LOGIN)
                .from(PERSON)
                .where(PERSON.NAME.eq(said), PERSON.LEFT_AT.isNull())
                .orderBy(PERSON.LOGIN)
                .limit(10)
                .fetch(PERSON.LOGIN);
    }

    /** The names of people by login, of those who have left too. */
    public Map<String, String> namesOf(Set<String> logins) {
        return db.select(PERSON.LOGIN, PERSON.NAME)
                .from(PERSON)
                .where(PERSON.LOGIN_KEY.in(logins.stream().map(Texts::key).toList()))
                .fetchMap(PERSON.LOGIN, PERSON.NAME);
    }

    /** People who are here and whose name or login has these letters, by name; at most {@code most}. */
    public List<Person> with(String letters, int most) {
        return db.selectFrom(PERSON)
                .where(
                        PERSON.LEFT_AT.isNull(),
                        PERSON.NAME.containsIgnoreCase(letters).or(PERSON.LOGIN_KEY.contains(Texts.key(letters))))
                .orderBy(PERSON.NAME, PERSON.ID)
                .limit(most)
                .fetch(PersonStore::person);
    }

    /** Somebody has left: they sign in no more and their grants hold no more; what they did stays theirs. */
    public void leave(long person, Instant now) {
        db.update(PERSON)
                .set(PERSON.LEFT_AT, Times.utc(now))
                .where(PERSON.ID.eq(person))
                .execute();
        grants.moveStamp();
    }
}
