package mintshelf.core.access;

/**
 * A role given to somebody somewhere.
 *
 * @param to whom it was given, in words: a person's name or a group's
 * @param where in words: "everywhere", "on TG40 Tide gauge"
 */
public record Grant(long id, String to, Role role, Scope scope, String where) {
    /** "Designer through Drawing office, on TG40 Tide gauge". */
    public String says() {
        return role.name() + " through " + to + ", " + where;
    }
}
