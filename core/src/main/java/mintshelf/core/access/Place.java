package mintshelf.core.access;

import java.util.List;

/**
 * Where a right is asked for.
 *
 * @param shelf the shelf's id
 * @param folders the folder's id and those of the folders above it
 * @param kind the kind's id
 */
public record Place(long shelf, List<Long> folders, long kind) {
    public Place {
        folders = List.copyOf(folders);
    }
}
