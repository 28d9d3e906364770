package mintshelf.app.store.person;

import static mintshelf.database.schema.Tables.ACCESS_GRANT;
import static mintshelf.database.schema.Tables.ACCESS_STAMP;
import static mintshelf.database.schema.Tables.FIRST_START;
import static mintshelf.database.schema.Tables.FOLDER;
import static mintshelf.database.schema.Tables.GROUP_MEMBER;
import static mintshelf.database.schema.Tables.INVITATION;
import static mintshelf.database.schema.Tables.KIND;
import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.PERSON_GROUP;
import static mintshelf.database.schema.Tables.PERSON_SETTING;
import static mintshelf.database.schema.Tables.ROLE;
import static mintshelf.database.schema.Tables.ROLE_RIGHT;
import static mintshelf.database.schema.Tables.SHELF;
import static mintshelf.database.schema.Tables.SIGN_IN_ATTEMPT;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import mintshelf.app.store.Prepared;
import mintshelf.app.store.Times;
import mintshelf.core.access.Access;
import mintshelf.core.access.Grant;
import mintshelf.core.access.Right;
import mintshelf.core.access.Role;
import mintshelf.core.access.Scope;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Texts;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.Record1;
import org.jooq.Select;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/** People, groups, roles, grants, invitations, sign-in attempts and personal settings. */
@Repository
public class PersonStore {
    /** People whose grants are kept in memory. */
    private static final int MOST_KEPT = 5000;

    private final DSLContext db;
    private final Prepared people =
            new Prepared((db, ids) -> db.select(PERSON.fields()).from(PERSON).where(PERSON.ID.in(ids)));
    private final Map<Long, Kept> kept = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<Long, Kept> eldest) {
            return size() > MOST_KEPT;
        }
    };

    private record Kept(long stamp, List<Grant> grants) {}

    public PersonStore(DSLContext db) {
        this.db = db;
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
            Optional<LocalDate> awayUntil,
            OptionalLong standsIn,
            boolean left,
            boolean canSignIn) {}

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

    public void setPassword(long person, String hash) {
        db.update(PERSON)
                .set(PERSON.PASSWORD_HASH, hash)
                .where(PERSON.ID.eq(person))
                .execute();
    }

    public void setAway(long person, Optional<LocalDate> until, OptionalLong standsIn) {
        db.update(PERSON)
                .set(PERSON.AWAY_UNTIL, until.orElse(null))
                .set(PERSON.STANDS_IN, standsIn.isPresent() ? standsIn.getAsLong() : null)
                .where(PERSON.ID.eq(person))
                .execute();
    }

    /** Copies groups, grants and the deputy of {@code model}; not its name, mail or password. */
    public void copyPlace(long model, long to) {
        db.insertInto(GROUP_MEMBER, GROUP_MEMBER.PERSON_GROUP, GROUP_MEMBER.PERSON)
                .select(DSL.select(GROUP_MEMBER.PERSON_GROUP, DSL.val(to))
                        .from(GROUP_MEMBER)
                        .where(GROUP_MEMBER.PERSON.eq(model)))
                .execute();
        db.insertInto(
                        ACCESS_GRANT,
                        ACCESS_GRANT.PERSON,
                        ACCESS_GRANT.ROLE,
                        ACCESS_GRANT.SHELF,
                        ACCESS_GRANT.FOLDER,
                        ACCESS_GRANT.KIND)
                .select(DSL.select(
                                DSL.val(to),
                                ACCESS_GRANT.ROLE,
                                ACCESS_GRANT.SHELF,
                                ACCESS_GRANT.FOLDER,
                                ACCESS_GRANT.KIND)
                        .from(ACCESS_GRANT)
                        .where(ACCESS_GRANT.PERSON.eq(model)))
                .execute();
        moveStamp();
    }

    public long addGroup(String name) {
        return db.insertInto(PERSON_GROUP)
                .set(PERSON_GROUP.NAME, name)
                .set(PERSON_GROUP.NAME_KEY, Texts.key(name))
                .returningResult(PERSON_GROUP.ID)
                .fetchSingle()
                .value1();
    }

    public void join(long group, long person) {
        db.insertInto(GROUP_MEMBER)
                .set(GROUP_MEMBER.PERSON_GROUP, group)
                .set(GROUP_MEMBER.PERSON, person)
                .execute();
        moveStamp();
    }

    public List<String> groupsOf(long person) {
        return db.select(PERSON_GROUP.NAME)
                .from(PERSON_GROUP)
                .join(GROUP_MEMBER)
                .on(GROUP_MEMBER.PERSON_GROUP.eq(PERSON_GROUP.ID))
                .where(GROUP_MEMBER.PERSON.eq(person))
                .orderBy(PERSON_GROUP.NAME)
                .fetch(PERSON_GROUP.NAME);
    }

    /** Groups of many people at once; one statement. */
    public Map<Long, List<String>> groupsOf(List<Long> people) {
        return db.select(GROUP_MEMBER.PERSON, PERSON_GROUP.NAME)
                .from(PERSON_GROUP)
                .join(GROUP_MEMBER)
                .on(GROUP_MEMBER.PERSON_GROUP.eq(PERSON_GROUP.ID))
                .where(GROUP_MEMBER.PERSON.in(people))
                .orderBy(PERSON_GROUP.NAME)
                .fetchGroups(GROUP_MEMBER.PERSON, PERSON_GROUP.NAME);
    }

    /** The names of all roles by their codes, in the order of the names. */
    public Map<String, String> roleNames() {
        return db.select(ROLE.CODE, ROLE.NAME).from(ROLE).orderBy(ROLE.NAME).fetchMap(ROLE.CODE, ROLE.NAME);
    }

    /** Adds a role when its code is new. */
    public long addRole(Role role) {
        Optional<Long> known =
                db.select(ROLE.ID).from(ROLE).where(ROLE.CODE.eq(role.code())).fetchOptional(ROLE.ID);
        if (known.isPresent()) return known.get();
        long id = db.insertInto(ROLE)
                .set(ROLE.CODE, role.code())
                .set(ROLE.NAME, role.name())
                .returningResult(ROLE.ID)
                .fetchSingle()
                .value1();
        for (Right right : new TreeSet<>(role.rights())) {
            db.insertInto(ROLE_RIGHT)
                    .set(ROLE_RIGHT.ROLE, id)
                    .set(ROLE_RIGHT.ACCESS_RIGHT, right.name())
                    .execute();
        }
        moveStamp();
        return id;
    }

    public void grantPerson(long person, String roleCode, Scope scope) {
        grant(person, null, roleCode, scope);
    }

    public void grantGroup(long group, String roleCode, Scope scope) {
        grant(null, group, roleCode, scope);
    }

    private void grant(Long person, Long group, String roleCode, Scope scope) {
        db.insertInto(ACCESS_GRANT)
                .set(ACCESS_GRANT.PERSON, person)
                .set(ACCESS_GRANT.PERSON_GROUP, group)
                .set(ACCESS_GRANT.ROLE, DSL.select(ROLE.ID).from(ROLE).where(ROLE.CODE.eq(roleCode)))
                .set(ACCESS_GRANT.SHELF, orNull(scope.shelf()))
                .set(ACCESS_GRANT.FOLDER, orNull(scope.folder()))
                .set(ACCESS_GRANT.KIND, orNull(scope.kind()))
                .execute();
        moveStamp();
    }

    private static Long orNull(OptionalLong id) {
        return id.isPresent() ? id.getAsLong() : null;
    }

    /**
     * All grants of a person, own and through groups. One small statement asks whether anything of grants changed in the house
     * since they were read last; what was read is kept until then.
     */
    public Access access(long person, String name) {
        long stamp =
                db.select(ACCESS_STAMP.STAMP).from(ACCESS_STAMP).fetchSingle().value1();
        synchronized (kept) {
            Kept known = kept.get(person);
            if (known != null && known.stamp() == stamp) return new Access(person, name, known.grants());
        }
        // Two ways to a grant, each by its own index; "or" would read the grants of everybody.
        List<Grant> grants = grants(DSL.select(ACCESS_GRANT.ID)
                .from(ACCESS_GRANT)
                .where(ACCESS_GRANT.PERSON.eq(person), hasNotLeft(person))
                .unionAll(DSL.select(ACCESS_GRANT.ID)
                        .from(GROUP_MEMBER)
                        .join(ACCESS_GRANT)
                        .on(ACCESS_GRANT.PERSON_GROUP.eq(GROUP_MEMBER.PERSON_GROUP))
                        .where(GROUP_MEMBER.PERSON.eq(person), hasNotLeft(person))));
        // Within a transaction these may be grants that are rolled back yet.
        if (!TransactionSynchronizationManager.isActualTransactionActive()) {
            synchronized (kept) {
                kept.put(person, new Kept(stamp, grants));
            }
        }
        return new Access(person, name, grants);
    }

    private static Condition hasNotLeft(long person) {
        return DSL.notExists(DSL.selectOne().from(PERSON).where(PERSON.ID.eq(person), PERSON.LEFT_AT.isNotNull()));
    }

    /** After each change of grants, roles and memberships: what nodes keep of them holds no more. */
    private void moveStamp() {
        db.update(ACCESS_STAMP)
                .set(ACCESS_STAMP.STAMP, ACCESS_STAMP.STAMP.plus(1))
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

    /** Every grant of the house, for "who can do this here?". */
    public List<Grant> allGrants() {
        return grants(DSL.select(ACCESS_GRANT.ID).from(ACCESS_GRANT));
    }

    private List<Grant> grants(Select<Record1<Long>> ids) {
        var which = ids.asTable("which", "id");
        var rights = DSL.field(
                "(select group_concat(rr.access_right) from role_right rr where rr.role = role.id)", String.class);
        return db.select(
                        ACCESS_GRANT.ID,
                        PERSON.NAME,
                        PERSON_GROUP.NAME,
                        ROLE.CODE,
                        ROLE.NAME,
                        rights,
                        ACCESS_GRANT.SHELF,
                        ACCESS_GRANT.FOLDER,
                        ACCESS_GRANT.KIND,
                        SHELF.NAME,
                        FOLDER.NAME,
                        KIND.NAME)
                .hint("straight_join")
                .from(which)
                .join(ACCESS_GRANT)
                .on(ACCESS_GRANT.ID.eq(which.field("id", Long.class)))
                .join(ROLE)
                .on(ROLE.ID.eq(ACCESS_GRANT.ROLE))
                .leftJoin(PERSON)
                .on(PERSON.ID.eq(ACCESS_GRANT.PERSON))
                .leftJoin(PERSON_GROUP)
                .on(PERSON_GROUP.ID.eq(ACCESS_GRANT.PERSON_GROUP))
                .leftJoin(SHELF)
                .on(SHELF.ID.eq(ACCESS_GRANT.SHELF))
                .leftJoin(FOLDER)
                .on(FOLDER.ID.eq(ACCESS_GRANT.FOLDER))
                .leftJoin(KIND)
                .on(KIND.ID.eq(ACCESS_GRANT.KIND))
                .orderBy(ACCESS_GRANT.ID)
                .fetch(row -> new Grant(
                        row.value1(),
                        row.value2() != null ? row.value2() : row.value3(),
                        new Role(row.value4(), row.value5(), rights(row.value6())),
                        new Scope(optional(row.value7()), optional(row.value8()), optional(row.value9())),
                        where(row.value10(), row.value11(), row.value12())));
    }

    private static Set<Right> rights(String joined) {
        if (joined == null) return Set.of();
        return List.of(joined.split(",")).stream().map(Right::valueOf).collect(Collectors.toSet());
    }

    private static OptionalLong optional(Long id) {
        return id == null ? OptionalLong.empty() : OptionalLong.of(id);
    }

    private static String where(String shelf, String folder, String kind) {
        List<String> parts = new ArrayList<>();
        if (shelf != null) parts.add("on " + shelf);
        if (folder != null) parts.add("in " + folder);
        if (kind != null) parts.add("for " + kind);
        return parts.isEmpty() ? "everywhere" : String.join(" ", parts);
    }

    /** Keeps an invitation by its token's hash. */
    public void invite(long person, ContentHash token, Instant expiresAt) {
        db.insertInto(INVITATION)
                .set(INVITATION.TOKEN_HASH, token.bytes())
                .set(INVITATION.PERSON, person)
                .set(INVITATION.EXPIRES_AT, Times.utc(expiresAt))
                .execute();
    }

    /** The person whom an open invitation is for; locked, so that it is used once. */
    public Optional<Long> invited(ContentHash token, Instant now) {
        return db.select(INVITATION.PERSON)
                .from(INVITATION)
                .where(
                        INVITATION.TOKEN_HASH.eq(token.bytes()),
                        INVITATION.USED_AT.isNull(),
                        INVITATION.EXPIRES_AT.gt(Times.utc(now)))
                .forUpdate()
                .fetchOptional(INVITATION.PERSON);
    }

    public void useInvitation(ContentHash token, Instant now) {
        db.update(INVITATION)
                .set(INVITATION.USED_AT, Times.utc(now))
                .where(INVITATION.TOKEN_HASH.eq(token.bytes()))
                .execute();
    }

    /** Notes a try to sign in; one that succeeds is forgotten. */
    public void noteSignIn(String account, String address, Instant now) {
        db.insertInto(SIGN_IN_ATTEMPT)
                .set(SIGN_IN_ATTEMPT.ACCOUNT_KEY, account(account))
                .set(SIGN_IN_ATTEMPT.ADDRESS, address)
                .set(SIGN_IN_ATTEMPT.AT, Times.utc(now))
                .execute();
    }

    private static String account(String login) {
        return Texts.shorten(Texts.key(login), 100);
    }

    /** Tries since a moment: of the address at the account, of the address, at the account. */
    public record Tries(int pair, int address, int account) {}

    public Tries tries(String account, String address, Instant since) {
        Condition at = SIGN_IN_ATTEMPT.AT.gt(Times.utc(since));
        Condition mine = SIGN_IN_ATTEMPT.ACCOUNT_KEY.eq(account(account));
        Condition here = SIGN_IN_ATTEMPT.ADDRESS.eq(address);
        return new Tries(
                db.fetchCount(SIGN_IN_ATTEMPT, mine, here, at),
                db.fetchCount(SIGN_IN_ATTEMPT, here, at),
                db.fetchCount(SIGN_IN_ATTEMPT, mine, at));
    }

    public void forgetSignIns(String account, String address) {
        db.deleteFrom(SIGN_IN_ATTEMPT)
                .where(SIGN_IN_ATTEMPT.ACCOUNT_KEY.eq(account(account)), SIGN_IN_ATTEMPT.ADDRESS.eq(address))
                .execute();
    }

    /** Somebody has left: they sign in no more and their grants hold no more; what they did stays theirs. */
    public void leave(long person, Instant now) {
        db.update(PERSON)
                .set(PERSON.LEFT_AT, Times.utc(now))
                .where(PERSON.ID.eq(person))
                .execute();
        moveStamp();
    }

    /** Lets one first person begin, who knows the code of the console; false when another one did, or the code is wrong. */
    public boolean begin(ContentHash code, Instant now) {
        return db.update(FIRST_START)
                        .set(FIRST_START.USED_AT, Times.utc(now))
                        .where(FIRST_START.CODE_HASH.eq(code.bytes()), FIRST_START.USED_AT.isNull())
                        .execute()
                == 1;
    }

    /** The code with which an empty server is begun; a later one takes the place of one before. */
    public void offerFirst(ContentHash code) {
        db.insertInto(FIRST_START)
                .set(FIRST_START.ID, 1)
                .set(FIRST_START.CODE_HASH, code.bytes())
                .onDuplicateKeyUpdate()
                .set(FIRST_START.CODE_HASH, code.bytes())
                .execute();
    }

    public void forgetSignInsBefore(Instant before) {
        db.deleteFrom(SIGN_IN_ATTEMPT)
                .where(SIGN_IN_ATTEMPT.AT.lt(Times.utc(before)))
                .limit(5000)
                .execute();
    }

    public Map<String, String> settings(long person) {
        return new HashMap<>(db.select(PERSON_SETTING.NAME, PERSON_SETTING.VALUE)
                .from(PERSON_SETTING)
                .where(PERSON_SETTING.PERSON.eq(person))
                .fetchMap(PERSON_SETTING.NAME, PERSON_SETTING.VALUE));
    }

    public void set(long person, String name, String value) {
        db.insertInto(PERSON_SETTING)
                .set(PERSON_SETTING.PERSON, person)
                .set(PERSON_SETTING.NAME, name)
                .set(PERSON_SETTING.VALUE, value)
                .onDuplicateKeyUpdate()
                .set(PERSON_SETTING.VALUE, value)
                .execute();
    }

    /** Forgets a setting; with {@code prefix} all whose names begin so. */
    public void forget(long person, String name, boolean prefix) {
        db.deleteFrom(PERSON_SETTING)
                .where(
                        PERSON_SETTING.PERSON.eq(person),
                        prefix ? PERSON_SETTING.NAME.startsWith(name) : PERSON_SETTING.NAME.eq(name))
                .execute();
    }
}
