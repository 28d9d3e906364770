package mintshelf.core.signoff;

import java.time.LocalDate;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/**
 * A line of a round: who is asked for what, until when.
 *
 * @param person the person who was named for it; empty when anybody with the role may answer
 * @param personName name of that person, empty without one
 * @param roleName name of the role or the group that is asked; empty where a person is
 * @param away when the person who was named is not there
 * @param members who is in the group that is asked; empty where none is
 */
public record Ask(
        long id,
        SignOffLine line,
        String roleName,
        Optional<Long> person,
        String personName,
        LocalDate due,
        Optional<Away> away,
        Set<Long> members) {
    public Ask {
        members = Set.copyOf(members);
    }

    /** Who signs for the person that is named, on a day on which they are away. */
    public Optional<Long> deputy(LocalDate day) {
        return away.filter(a -> a.covers(day)).flatMap(Away::deputy);
    }

    /** Whom it asks, in words: "Hedda Lysgaard", "a checker", "one of Checking". */
    public String whom() {
        if (person.isPresent()) return personName;
        if (line.who().kind() == Asked.Kind.GROUP) return "one of " + roleName;
        if (roleName.isEmpty()) return "nobody";
        String role = roleName.toLowerCase(Locale.ROOT);
        return ("aeiou".indexOf(role.charAt(0)) >= 0 ? "an " : "a ") + role;
    }

    /** All whom it could ask, in words: "anybody with the role Checker", "anybody in Checking". */
    public String anybody() {
        return switch (line.who().kind()) {
            case ROLE -> "anybody with the role " + roleName;
            case GROUP -> "anybody in " + roleName;
            case PERSON -> "whom the rule names";
        };
    }
}
