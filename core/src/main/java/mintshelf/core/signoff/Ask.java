package mintshelf.core.signoff;

import java.time.LocalDate;
import java.util.Locale;
import java.util.Optional;
import mintshelf.core.route.SignOffLine;

/**
 * A line of a round: who is asked for what, until when.
 *
 * @param person the person who was named for it; empty when anybody with the role may answer
 * @param personName name of that person, empty without one
 * @param roleName name of the role
 * @param away when the person who was named is not there
 */
public record Ask(
        long id,
        SignOffLine line,
        String roleName,
        Optional<Long> person,
        String personName,
        LocalDate due,
        Optional<Away> away) {
    /** Who signs for the person that is named, on a day on which they are away. */
    public Optional<Long> deputy(LocalDate day) {
        return away.filter(a -> a.covers(day)).flatMap(Away::deputy);
    }

    /** Whom it asks, in words: "Hedda Lysgaard", "a checker". */
    public String whom() {
        if (person.isPresent()) return personName;
        String role = roleName.toLowerCase(Locale.ROOT);
        return ("aeiou".indexOf(role.charAt(0)) >= 0 ? "an " : "a ") + role;
    }
}
