package mintshelf.app.store.person;

import static mintshelf.database.schema.Tables.ACCESS_GRANT;
import static mintshelf.database.schema.Tables.ACCESS_STAMP;
import static mintshelf.database.schema.Tables.FOLDER;
import static mintshelf.database.schema.Tables.GROUP_MEMBER;
import static mintshelf.database.schema.Tables.KIND;
import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.PERSON_GROUP;
import static mintshelf.database.schema.Tables.PERSON_SIGN_ON;
import static mintshelf.database.schema.Tables.ROLE;
import static mintshelf.database.schema.Tables.ROLE_RIGHT;
import static mintshelf.database.schema.Tables.SHELF;

import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import mintshelf.core.access.Access;
import mintshelf.core.access.Grant;
import mintshelf.core.access.Right;
import mintshelf.core.access.Role;
import mintshelf.core.access.Scope;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Record1;
import org.jooq.Select;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/** Groups, roles and grants: who may do what. */
@Repository
public class GrantStore {
    /** People whose grants are kept in memory. */
    private static final int MOST_KEPT = 5000;

    private final Map<Long, Kept> kept = Caffeine.newBuilder()
            .maximumSize(MOST_KEPT)
            .executor(Runnable::run)
            .<Long, Kept>build()
            .asMap();
    private final DSLContext db;

    public GrantStore(DSLContext db) {
        this.db = db;
    }

    private record Kept(long stamp, List<Grant> grants) {}

    /** Copies the own grants of {@code model}; what it has through groups comes with {@link GroupStore#copy}. */
    public void copy(long model, long to) {
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

    /** The names of all roles by their codes, in the order of the names. */
    public Map<String, String> roleNames() {
        return db.select(ROLE.CODE, ROLE.NAME).from(ROLE).orderBy(ROLE.NAME).fetchMap(ROLE.CODE, ROLE.NAME);
    }

    /** Codes of the roles that give a right. */
    public List<String> rolesWith(Right right) {
        return db.select(ROLE.CODE)
                .from(ROLE)
                .join(ROLE_RIGHT)
                .on(ROLE_RIGHT.ROLE.eq(ROLE.ID))
                .where(ROLE_RIGHT.ACCESS_RIGHT.eq(right.name()))
                .orderBy(ROLE.CODE)
                .fetch(ROLE.CODE);
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

    /** Takes a grant away; whether it was there. */
    public boolean takeAway(long grant) {
        boolean there =
                db.deleteFrom(ACCESS_GRANT).where(ACCESS_GRANT.ID.eq(grant)).execute() > 0;
        moveStamp();
        return there;
    }

    /** Whose a grant is: a person, or the people of a group. */
    public List<Long> holders(long grant) {
        return db.select(ACCESS_GRANT.PERSON)
                .from(ACCESS_GRANT)
                .where(ACCESS_GRANT.ID.eq(grant), ACCESS_GRANT.PERSON.isNotNull())
                .union(DSL.select(GROUP_MEMBER.PERSON)
                        .from(ACCESS_GRANT)
                        .join(GROUP_MEMBER)
                        .on(GROUP_MEMBER.PERSON_GROUP.eq(ACCESS_GRANT.PERSON_GROUP))
                        .where(ACCESS_GRANT.ID.eq(grant)))
                .fetch(row -> row.value1());
    }

    /** The roles of the house, by name. */
    public List<Role> roles() {
        return db.select(
                        ROLE.CODE,
                        ROLE.NAME,
                        DSL.field(
                                "(select group_concat(rr.access_right) from role_right rr where rr.role = role.id)",
                                String.class))
                .from(ROLE)
                .orderBy(ROLE.NAME)
                .fetch(row -> new Role(row.value1(), row.value2(), rights(row.value3())));
    }

    /** Writes what a role is called and gives; its code stays. */
    public void changeRole(Role role) {
        long id = db.select(ROLE.ID).from(ROLE).where(ROLE.CODE.eq(role.code())).fetchSingle(ROLE.ID);
        db.update(ROLE).set(ROLE.NAME, role.name()).where(ROLE.ID.eq(id)).execute();
        db.deleteFrom(ROLE_RIGHT).where(ROLE_RIGHT.ROLE.eq(id)).execute();
        for (Right right : new TreeSet<>(role.rights())) {
            db.insertInto(ROLE_RIGHT)
                    .set(ROLE_RIGHT.ROLE, id)
                    .set(ROLE_RIGHT.ACCESS_RIGHT, right.name())
                    .execute();
        }
        moveStamp();
    }

    /**
     * Whether somebody is left who can sign in and keeps the rules of the whole house. As committed by others meanwhile: whoever
     * changes grants has moved the stamp, so that two do it one after the other.
     */
    public boolean isKept() {
        return db.select(PERSON.ID)
                        .from(PERSON)
                        .join(ACCESS_GRANT)
                        .on(ACCESS_GRANT
                                .PERSON
                                .eq(PERSON.ID)
                                .or(ACCESS_GRANT.PERSON_GROUP.in(DSL.select(GROUP_MEMBER.PERSON_GROUP)
                                        .from(GROUP_MEMBER)
                                        .where(GROUP_MEMBER.PERSON.eq(PERSON.ID)))))
                        .join(ROLE_RIGHT)
                        .on(ROLE_RIGHT.ROLE.eq(ACCESS_GRANT.ROLE))
                        .where(
                                PERSON.LEFT_AT.isNull(),
                                PERSON.PASSWORD_HASH
                                        .isNotNull()
                                        .or(DSL.exists(DSL.selectOne()
                                                .from(PERSON_SIGN_ON)
                                                .where(PERSON_SIGN_ON.PERSON.eq(PERSON.ID)))),
                                ACCESS_GRANT.SHELF.isNull(),
                                ACCESS_GRANT.FOLDER.isNull(),
                                ACCESS_GRANT.KIND.isNull(),
                                ROLE_RIGHT.ACCESS_RIGHT.eq(Right.KEEP_HOUSE_RULES.name()))
                        .limit(1)
                        .forShare()
                        .fetch()
                        .size()
                > 0;
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
    void moveStamp() {
        db.update(ACCESS_STAMP)
                .set(ACCESS_STAMP.STAMP, ACCESS_STAMP.STAMP.plus(1))
                .execute();
    }

    /** Every grant of the house, for "who can do this here?". */
    public List<Grant> allGrants() {
        return grants(DSL.select(ACCESS_GRANT.ID).from(ACCESS_GRANT));
    }

    /** The grants of a group. */
    public List<Grant> ofGroup(long group) {
        return grants(DSL.select(ACCESS_GRANT.ID).from(ACCESS_GRANT).where(ACCESS_GRANT.PERSON_GROUP.eq(group)));
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
}
