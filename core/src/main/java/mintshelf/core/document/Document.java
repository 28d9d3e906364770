package mintshelf.core.document;

import java.util.Optional;
import mintshelf.core.access.Place;

/**
 * What the rules need to know of a document.
 *
 * @param place where rights are asked for
 * @param line id of its main line
 * @param pending the revision on its way to release, at most one
 * @param released the revision in force, at most one
 * @param lastEnded the revision that ended last, when there is neither a pending nor a released one
 */
public record Document(
        long id,
        String number,
        String title,
        String fileName,
        Place place,
        long line,
        Head head,
        Optional<Revision> pending,
        Optional<Revision> released,
        Optional<Revision> lastEnded,
        Optional<Holder> holder,
        boolean dropped) {

    /** The revision that work is shown by: the pending one, else the released one, else the last that ended. */
    public Revision current() {
        return pending.or(() -> released).or(() -> lastEnded).orElseThrow();
    }
}
