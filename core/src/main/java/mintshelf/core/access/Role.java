package mintshelf.core.access;

import java.util.List;
import java.util.Set;

/** A named list of rights. */
public record Role(String code, String name, Set<Right> rights) {
    public Role {
        rights = Set.copyOf(rights);
    }

    /** Its rights in the order in which they are listed everywhere. */
    public List<Right> inOrder() {
        return rights.stream().sorted().toList();
    }
}
