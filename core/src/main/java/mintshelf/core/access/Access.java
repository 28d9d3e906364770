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
                .anyMatch(g -> g.role().rights().contains(right) && g.scope().covers(place));
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
                .filter(g -> g.role().rights().contains(right) && g.scope().covers(place))
                .toList();
    }

    /** The grants that give the right anywhere: what a list is narrowed to. */
    public List<Grant> giving(Right right) {
        return grants.stream().filter(g -> g.role().rights().contains(right)).toList();
    }

    /** Nothing when the right is given at the place, else the refusal. */
    public Optional<Refusal> ask(Right right, Place place) {
        if (may(right, place)) return Optional.empty();
        return Optional.of(Refusal.of(
                "access.missing",
                "Your roles do not let you " + right.words() + " here.",
                "A data manager can give you a role that does."));
    }
}
