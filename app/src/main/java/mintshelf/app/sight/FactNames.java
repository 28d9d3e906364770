package mintshelf.app.sight;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.document.NumberStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.core.base.Outcome;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.FactLookup;
import mintshelf.core.fact.FactType;
import mintshelf.core.numbering.NumberKey;
import org.springframework.stereotype.Component;

/** Whom and what facts name: found when they are typed, and in words when they are shown. */
@Component
public class FactNames {
    private static final String NOTHING = "nothing was changed.";

    private final PersonStore people;
    private final NumberStore numbers;
    private final Sight sight;

    public FactNames(PersonStore people, NumberStore numbers, Sight sight) {
        this.people = people;
        this.numbers = numbers;
        this.sight = sight;
    }

    /** Finds for an actor: people who are here, documents that they may know of. */
    public FactLookup of(Actor actor) {
        return new FactLookup() {
            @Override
            public Outcome<String> person(String said) {
                List<String> logins = people.called(said);
                if (logins.size() == 1) return Outcome.granted(logins.get(0));
                return logins.isEmpty()
                        ? Outcome.refused(
                                "fact.person", "“" + said + "” is nobody here.", "Choose somebody; " + NOTHING)
                        : Outcome.refused(
                                "fact.person",
                                logins.size() + " people are called “" + said + "”.",
                                "Write one of " + String.join(", ", logins) + "; " + NOTHING);
            }

            @Override
            public Outcome<String> document(String said) {
                if (NumberKey.of(said) instanceof Outcome.Granted<NumberKey> number) {
                    for (Seen seen :
                            sight.of(actor, numbers.items(number.value())).values()) {
                        return Outcome.granted(seen.document().number());
                    }
                }
                return Outcome.refused(
                        "fact.document",
                        "“" + said + "” is the number of no document that you see.",
                        "Write the number of one; " + NOTHING);
            }
        };
    }

    /**
     * A fact's value as people read it.
     *
     * @param item the document that it names and who reads may see; 0 for none
     */
    public record Shown(String text, long item) {
        public static final Shown NOTHING = new Shown("", 0);
    }

    /**
     * The values of facts as people read them, by the facts' short names.
     *
     * <p>One statement for all people that they name, and two for all documents.
     */
    public Map<String, Shown> shown(Actor actor, List<FactDefinition> facts, Map<String, String> values) {
        Set<String> logins = new TreeSet<>();
        Map<String, NumberKey> named = new HashMap<>();
        for (FactDefinition fact : facts) {
            String value = values.getOrDefault(fact.name(), "");
            if (value.isEmpty()) continue;
            if (fact.type() == FactType.PERSON) logins.add(value);
            if (fact.type() == FactType.DOCUMENT && NumberKey.of(value) instanceof Outcome.Granted<NumberKey> key) {
                named.put(value, key.value());
            }
        }
        Map<String, String> names = logins.isEmpty() ? Map.of() : people.namesOf(logins);
        Map<String, Long> items = items(actor, named);
        Map<String, Shown> shown = new HashMap<>();
        for (FactDefinition fact : facts) {
            String value = values.getOrDefault(fact.name(), "");
            if (value.isEmpty()) continue;
            String text = fact.type() == FactType.PERSON ? names.getOrDefault(value, value) : value;
            boolean measured = fact.type() == FactType.NUMBER && !fact.unit().isEmpty();
            long item = fact.type() == FactType.DOCUMENT ? items.getOrDefault(value, 0L) : 0L;
            shown.put(fact.name(), new Shown(measured ? text + " " + fact.unit() : text, item));
        }
        return shown;
    }

    /** The first document of each number that an actor sees, by the number as it is written. */
    private Map<String, Long> items(Actor actor, Map<String, NumberKey> named) {
        if (named.isEmpty()) return Map.of();
        Map<String, List<Long>> all = numbers.items(named.values());
        Map<Long, Seen> seen =
                sight.of(actor, all.values().stream().flatMap(List::stream).toList());
        Map<String, Long> items = new HashMap<>();
        named.forEach((number, key) -> all.getOrDefault(key.key(), List.of()).stream()
                .filter(seen::containsKey)
                .findFirst()
                .ifPresent(item -> items.put(number, item)));
        return items;
    }
}
