package mintshelf.app.use.house;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.house.Kind;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Stage;
import mintshelf.core.fact.RequiredAt;
import mintshelf.core.route.Route;

/**
 * What the rules make of a file, or of a document.
 *
 * @param name of the file
 * @param kind empty where no filing rule fits: whoever files it chooses
 * @param numbers the next ones; empty where {@code number} stands on the sheet or in the file's name
 * @param labels the first, or where it stands, and those after it
 * @param stage where it would stand, or stands
 * @param filed whether it is a document already
 * @param asks whom its next round would ask
 * @param person who is asked about
 */
public record Tried(
        String name,
        Optional<Kind> kind,
        String kindWhy,
        String number,
        String numberWhy,
        List<String> numbers,
        Optional<Refusal> noNumber,
        String title,
        String titleWhy,
        List<String> labels,
        String labelWhy,
        List<Fact> facts,
        Optional<Route> route,
        Optional<Stage> stage,
        boolean filed,
        May may,
        List<Ask> asks,
        String person) {

    /** A fact with what it is, why, and from when it must be. */
    public record Fact(String label, String value, String why, RequiredAt required) {
        public boolean isMissing() {
            return value.isEmpty() && required != RequiredAt.NEVER;
        }
    }

    /**
     * What somebody may do there.
     *
     * @param rights in words, with the role that gives each
     * @param not what they may not
     */
    public record May(Map<String, String> rights, List<String> not) {
        static final May NOTHING = new May(Map.of(), List.of());
    }

    /** Whom a line of a sign-off rule would ask. */
    public record Ask(String says, List<String> people, LocalDate due) {}
}
