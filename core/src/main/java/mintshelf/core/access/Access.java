package mintshelf.core.access;

import java.util.List;
import java.util.Optional;
import mintshelf.core.base.Refusal;

/** All that a person's grants allow. Rights add up; there is no "deny". Every use case asks here. O(grants) a question. */
public record Access(long person, String name, List<Grant> grants) {
    public Access {
        grants = List.copyOf(grants);
    }

    public boolean may(Right right, Place place) {
        return grants.stream()
                .anyMatch(g -> g.role().rights().contains(needed(right, place))
                        && g.scope().covers(place));
    }

    /** Whether the right is given on a shelf, or on any folder or for any kind of it: what its page offers. */
    public boolean mayOn(Right right, long shelf, boolean library) {
        Right needed = needed(right, library);
        return grants.stream()
                .anyMatch(g -> g.role().rights().contains(needed)
                        && (g.scope().shelf().isEmpty() || g.scope().shelf().getAsLong() == shelf));
    }

    /** Changing and filing library documents is for librarians: what many shelves build on does not move by the way. */
    private static Right needed(Right right, boolean library) {
        boolean changes = right == Right.CHANGE || right == Right.FILE;
        return library && changes ? Right.LIBRARIAN : right;
    }

    private static Right needed(Right right, Place place) {
        return needed(right, place.library());
    }

    /** Whether a role of this code is given at the place. */
    public boolean has(String role, Place place) {
        return grants.stream()
                .anyMatch(g -> g.role().code().equals(role) && g.scope().covers(place));
    }

    /** Whether any grant reaches onto a shelf: its name and folders may be seen. */
    public boolean enters(long shelf) {
        return grants.stream()
                .map(Grant::scope)
                .anyMatch(s -> s.shelf().isEmpty() || s.shelf().getAsLong() == shelf);
    }

    /** Whether some grant gives the right somewhere. */
    public boolean maySomewhere(Right right) {
        return grants.stream().anyMatch(g -> g.role().rights().contains(right));
    }

    /** Whether some grant gives the right everywhere. */
    public boolean mayEverywhere(Right right) {
        return grants.stream()
                .anyMatch(g -> g.role().rights().contains(right) && g.scope().equals(Scope.EVERYWHERE));
    }

    /** The grants through which the right is given at the place: the answer to "who can do this here, and through what?". */
    public List<Grant> through(Right right, Place place) {
        return grants.stream()
                .filter(g -> g.role().rights().contains(needed(right, place))
                        && g.scope().covers(place))
                .toList();
    }

    /** The grants that give the right anywhere: what a list is narrowed to. */
    public List<Grant> giving(Right right) {
        return grants.stream().filter(g -> g.role().rights().contains(right)).toList();
    }

    /** Nothing when the right is given at the place, else the refusal. */
    public Optional<Refusal> ask(Right right, Place place) {
        if (may(right, place)) return Optional.empty();
        if (needed(right, place) == Right.LIBRARIAN) {
            return Optional.of(Refusal.of(
                    "access.library",
                    "It lies on a library shelf; librarians change what lies there.",
                    "Fetch a copy, or ask a librarian."));
        }
        return Optional.of(Refusal.of(
                "access.missing",
                "Your roles do not let you " + right.words() + " here.",
                "A data manager can give you a role that does."));
    }
}
