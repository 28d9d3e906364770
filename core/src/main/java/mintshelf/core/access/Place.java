package mintshelf.core.access;

import java.util.List;

/**
 * Where a right is asked for.
 *
 * @param shelf the shelf's id
 * @param folders the folder's id and those of the folders above it
 * @param kind the kind's id
 * @param library whether the shelf serves the others: its documents are changed by librarians only
 */
public record Place(long shelf, List<Long> folders, long kind, boolean library) {
    public Place {
        folders = List.copyOf(folders);
    }

    /** A place on a shelf that is no library. */
    public Place(long shelf, List<Long> folders, long kind) {
        this(shelf, folders, kind, false);
    }
}
