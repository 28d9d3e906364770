package mintshelf.app.effect;

import mintshelf.app.store.person.GrantStore;
import mintshelf.app.store.person.GroupStore;
import mintshelf.core.access.Scope;
import org.springframework.stereotype.Component;

/** Gives a new person their place: the groups and grants of somebody who is there, or the house itself. Within the caller's transaction. */
@Component
public class Placing {
    private final GrantStore grants;
    private final GroupStore groups;

    public Placing(GrantStore grants, GroupStore groups) {
        this.grants = grants;
        this.groups = groups;
    }

    /** The groups and the own grants of {@code model}; not its name, mail or password. */
    public void copy(long model, long to) {
        grants.copy(model, to);
        groups.copy(model, to);
    }

    /** A group, whose grants they have then. */
    public void into(long group, long person) {
        groups.join(group, person);
    }

    /** The first one of a house keeps it. */
    public void keeper(long person) {
        grants.grantPerson(person, "data-manager", Scope.EVERYWHERE);
    }
}
