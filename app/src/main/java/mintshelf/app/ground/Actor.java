package mintshelf.app.ground;

import mintshelf.core.access.Access;

/**
 * Who acts, with what grants, from where.
 *
 * @param login the name signed in with
 * @param zone the person's time zone
 */
public record Actor(Access access, String login, String zone, String address) {
    public long person() {
        return access.person();
    }

    public String name() {
        return access.name();
    }
}
