package mintshelf.core.access;

import java.util.Set;

/** A named list of rights. */
public record Role(String code, String name, Set<Right> rights) {
    public Role {
        rights = Set.copyOf(rights);
    }
}
