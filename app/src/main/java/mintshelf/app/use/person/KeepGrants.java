package mintshelf.app.use.person;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.person.GrantStore;
import mintshelf.app.store.person.GroupStore;
import mintshelf.app.store.person.GroupStore.Group;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.core.access.Grant;
import mintshelf.core.access.Right;
import mintshelf.core.access.Role;
import mintshelf.core.access.Scope;
import mintshelf.core.base.Texts;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Service;

/** Who may do what: groups, roles, and grants of roles somewhere. Somebody who keeps the house's rules is always left. */
@Service
public class KeepGrants {
    private static final String PAGE = "/house/people";
    private final GrantStore grants;
    private final GroupStore groups;
    private final PersonStore people;
    private final ShelfStore shelves;
    private final HouseStore house;
    private final Telling telling;
    private final Acts acts;
    private final Recorder recorder;

    public KeepGrants(
            GrantStore grants,
            GroupStore groups,
            PersonStore people,
            ShelfStore shelves,
            HouseStore house,
            Telling telling,
            Acts acts,
            Recorder recorder) {
        this.grants = grants;
        this.groups = groups;
        this.people = people;
        this.shelves = shelves;
        this.house = house;
        this.telling = telling;
        this.acts = acts;
        this.recorder = recorder;
    }

    /** What the page shows. */
    public record View(
            List<Grant> grants,
            List<Group> groups,
            List<Role> roles,
            List<PersonStore.Person> people,
            List<ShelfStore.Shelf> shelves,
            List<Spot> folders,
            List<Kind> kinds) {}

    /** A folder on a shelf: "in 300 Housing, on TG40". */
    public record Spot(long folder, String says) {}

    private static final int FOLDERS = 500;

    private List<Spot> folders() {
        List<Spot> all = new ArrayList<>();
        for (ShelfStore.Shelf shelf : shelves.shelves()) {
            for (ShelfStore.Folder folder : shelves.folders(shelf.id())) {
                if (!folder.isRoot() && all.size() < FOLDERS) {
                    all.add(new Spot(folder.id(), "in " + folder.name() + ", on " + shelf.name()));
                }
            }
        }
        return all;
    }

    public View view(Actor actor) {
        HouseRules.ask(actor);
        return new View(
                grants.allGrants().stream()
                        .sorted((a, b) ->
                                a.to().equals(b.to()) ? a.where().compareTo(b.where()) : a.to().compareTo(b.to()))
                        .toList(),
                groups.groups(),
                grants.roles(),
                people.people("", 0, 1000).stream().filter(p -> !p.left()).toList(),
                shelves.shelves(),
                folders(),
                house.kinds());
    }

    /** One change, after which the house is still kept by somebody. */
    private String change(Actor actor, String key, Supplier<String> says) {
        HouseRules.ask(actor);
        return acts.once(actor, key, () -> {
            String said = says.get();
            if (!grants.isKept()) {
                throw Refused.because(
                        "grants.last_keeper",
                        "Then nobody who can sign in would keep the house rules any more.",
                        "Give the right to somebody else first; nothing was changed.");
            }
            if (!said.isEmpty()) recorder.noteHouse(actor, "house.grants", said, "");
            return PAGE;
        });
    }

    private Role role(String code) {
        return grants.roles().stream()
                .filter(r -> r.code().equals(code))
                .findFirst()
                .orElseThrow(NotThere::new);
    }

    private Group group(long id) {
        return groups.groups().stream().filter(g -> g.id() == id).findFirst().orElseThrow(NotThere::new);
    }

    private PersonStore.Person person(long id) {
        return people.person(id).filter(p -> !p.left()).orElseThrow(NotThere::new);
    }

    /**
     * Gives a role.
     *
     * @param group whose people get it, or empty for a person
     * @param who the group's or the person's id
     * @param shelf 0 for everywhere
     * @param kind 0 for every kind
     */
    public String give(Actor actor, String key, boolean group, long who, String role, long shelf, long kind) {
        return give(actor, key, group, who, role, new Scope(optional(shelf), OptionalLong.empty(), optional(kind)));
    }

    /** As {@link #give(Actor, String, boolean, long, String, long, long)}, in a folder and those below it. */
    public String giveInFolder(Actor actor, String key, boolean group, long who, String role, long folder, long kind) {
        ShelfStore.Folder in = shelves.folder(folder).orElseThrow(NotThere::new);
        return give(
                actor,
                key,
                group,
                who,
                role,
                new Scope(OptionalLong.of(in.shelf()), OptionalLong.of(folder), optional(kind)));
    }

    private String give(Actor actor, String key, boolean group, long who, String role, Scope scope) {
        return change(actor, key, () -> {
            Role of = role(role);
            String where = where(scope);
            String to = group ? group(who).name() : person(who).name();
            boolean there = grants.allGrants().stream()
                    .anyMatch(g -> g.to().equals(to)
                            && g.role().code().equals(role)
                            && g.scope().equals(scope));
            if (there) return "";
            if (group) grants.grantGroup(who, role, scope);
            else grants.grantPerson(who, role, scope);
            Set<Long> gain = group ? group(who).people().keySet() : Set.of(who);
            telling.news(
                    actor,
                    gain,
                    "grants.given",
                    actor.name() + " made you " + of.name() + " " + where + (group ? ", through " + to : ""),
                    "/shelves");
            return "gave " + to + " the role " + of.name() + ", " + where;
        });
    }

    private static OptionalLong optional(long id) {
        return id == 0 ? OptionalLong.empty() : OptionalLong.of(id);
    }

    private String where(Scope scope) {
        List<String> parts = new ArrayList<>();
        scope.folder()
                .ifPresent(f -> parts.add(
                        "in " + shelves.folder(f).orElseThrow(NotThere::new).name()));
        scope.shelf()
                .ifPresent(s -> parts.add(
                        "on " + shelves.shelf(s).orElseThrow(NotThere::new).name()));
        scope.kind()
                .ifPresent(kind -> parts.add("for "
                        + house.kinds().stream()
                                .filter(k -> k.id() == kind)
                                .findFirst()
                                .orElseThrow(NotThere::new)
                                .name()));
        return parts.isEmpty() ? "everywhere" : String.join(" ", parts);
    }

    public String takeAway(Actor actor, String key, long grant) {
        return change(actor, key, () -> {
            Optional<Grant> of =
                    grants.allGrants().stream().filter(g -> g.id() == grant).findFirst();
            if (of.isEmpty()) return "";
            List<Long> lose = grants.holders(grant);
            grants.takeAway(grant);
            telling.news(
                    actor,
                    lose,
                    "grants.taken",
                    actor.name() + " took the role " + of.get().role().name() + " away, "
                            + of.get().where(),
                    "/people");
            return "took from " + of.get().to() + " the role " + of.get().role().name() + ", "
                    + of.get().where();
        });
    }

    public String addGroup(Actor actor, String key, String name) {
        String clean = Texts.required("The name", name, 100).orElseThrow(Refused::new);
        try {
            return change(actor, key, () -> {
                groups.addGroup(clean);
                return "made the group " + clean;
            });
        } catch (DuplicateKeyException e) {
            throw Refused.because("group.named", "There is a group “" + clean + "” already.", "Nothing was changed.");
        }
    }

    public String join(Actor actor, String key, long group, long person) {
        return change(actor, key, () -> {
            Group of = group(group);
            PersonStore.Person who = person(person);
            if (of.people().containsKey(person)) return "";
            groups.join(group, person);
            telling.news(
                    actor,
                    List.of(person),
                    "grants.given",
                    actor.name() + " put you into the group " + of.name(),
                    "/shelves");
            return "put " + who.name() + " into " + of.name();
        });
    }

    public String leaveGroup(Actor actor, String key, long group, long person) {
        return change(actor, key, () -> {
            Group of = group(group);
            if (!groups.leave(group, person)) return "";
            telling.news(
                    actor,
                    List.of(person),
                    "grants.taken",
                    actor.name() + " took you out of the group " + of.name(),
                    "/people");
            return "took " + of.people().getOrDefault(person, "somebody") + " out of " + of.name();
        });
    }

    /** Writes what a role gives; an empty code makes a new one. */
    public String keepRole(Actor actor, String key, String code, String name, Set<Right> rights) {
        String clean = Texts.required("The name", name, 60).orElseThrow(Refused::new);
        return change(actor, key, () -> {
            boolean named = grants.roles().stream()
                    .anyMatch(r -> !r.code().equals(code) && Texts.key(r.name()).equals(Texts.key(clean)));
            if (named) {
                throw Refused.because("role.named", "There is a role “" + clean + "” already.", "Nothing was changed.");
            }
            Set<Right> given = rights.isEmpty() ? EnumSet.noneOf(Right.class) : EnumSet.copyOf(rights);
            if (code.isEmpty()) {
                String free = Texts.code(clean, "role", grants.roleNames()::containsKey);
                grants.addRole(new Role(free, clean, given));
                return "made the role " + clean;
            }
            Role was = role(code);
            if (was.name().equals(clean) && was.rights().equals(given)) return "";
            grants.changeRole(new Role(code, clean, given));
            return "changed the role " + clean + ": it may "
                    + new TreeSet<>(given).stream().map(Right::words).collect(Collectors.joining(", "));
        });
    }
}
