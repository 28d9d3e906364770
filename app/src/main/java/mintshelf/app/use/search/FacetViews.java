package mintshelf.app.use.search;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.search.Ask;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.FactType;
import mintshelf.core.search.Known;
import mintshelf.core.search.Question;
import mintshelf.core.search.Wanted;
import org.springframework.stereotype.Component;

/** What hits are, counted, each count with the search that narrows to it. */
@Component
public class FacetViews {
    private static final int MOST_FACTS = 3;
    private static final int MOST_SHOWN = 8;
    /** A fact that nearly every hit has another value of narrows nothing. */
    private static final double TOO_MANY = 0.5;

    private final PersonStore people;

    FacetViews(PersonStore people) {
        this.people = people;
    }

    /**
     * A facet.
     *
     * @param name as a heading: "Stage"
     * @param others how many values are not shown
     */
    public record View(String name, String key, List<Value> values, int others) {
        /** Of the value that most hits have. */
        public int most() {
            return values.stream().mapToInt(Value::hits).max().orElse(1);
        }
    }

    /**
     * A value.
     *
     * @param term what is typed for it, behind the facet's key
     * @param narrowed the search narrowed to it
     * @param chosen whether the search asks for it already
     */
    public record Value(String name, String term, int hits, String narrowed, boolean chosen) {}

    private static final Map<Wanted.Field, String> HEADS = new LinkedHashMap<>();

    static {
        HEADS.put(Wanted.Field.STAGE, "stage");
        HEADS.put(Wanted.Field.KIND, "kind");
        HEADS.put(Wanted.Field.SHELF, "on");
        HEADS.put(Wanted.Field.FOLDER, "in");
        HEADS.put(Wanted.Field.REVISION, "rev");
        HEADS.put(Wanted.Field.HOLDER, "held");
    }

    /** All that is counted: which facts tell something is seen from the counts. */
    static List<Ask.Facet> asked(Known known) {
        List<Ask.Facet> asked = new ArrayList<>();
        HEADS.keySet().forEach(f -> asked.add(new Ask.Facet.Known(f)));
        known.facts().stream()
                .filter(f -> f.type() == FactType.TEXT || f.type() == FactType.CHOICE || f.type() == FactType.YES_NO)
                .forEach(f -> asked.add(new Ask.Facet.Fact(f.id())));
        return asked;
    }

    List<View> of(Question question, Known known, Map<Ask.Facet, List<Ask.Count>> counts, int total) {
        List<View> views = new ArrayList<>();
        List<View> facts = new ArrayList<>();
        Map<Long, FactDefinition> definitions =
                known.facts().stream().collect(Collectors.toMap(FactDefinition::id, f -> f));
        counts.forEach((facet, values) -> {
            if (facet instanceof Ask.Facet.Known k) {
                view(question, head(k.field()), HEADS.get(k.field()), named(known, k.field(), values))
                        .ifPresent(views::add);
            } else {
                FactDefinition fact = definitions.get(((Ask.Facet.Fact) facet).id());
                if (fact == null || values.size() > Math.max(4, total * TOO_MANY)) return;
                view(question, fact.label(), fact.name(), same(values)).ifPresent(facts::add);
            }
        });
        facts.sort(Comparator.comparingInt(
                (View v) -> -v.values().stream().mapToInt(Value::hits).sum()));
        views.addAll(facts.subList(0, Math.min(MOST_FACTS, facts.size())));
        return views;
    }

    private static String head(Wanted.Field field) {
        return switch (field) {
            case STAGE -> "Stage";
            case KIND -> "Kind";
            case SHELF -> "Shelf";
            case FOLDER -> "Folder";
            case REVISION -> "Revision";
            default -> "Held by";
        };
    }

    /** Counts by name: two stages of one name, of two editions, are one. */
    private Map<String, Integer> named(Known known, Wanted.Field field, List<Ask.Count> values) {
        Map<String, String> names = switch (field) {
            case STAGE -> names(known.stages());
            case KIND -> names(known.kinds());
            case SHELF -> names(known.shelves());
            case FOLDER -> names(known.folders());
            case HOLDER -> holders(values);
            default -> Map.of();
        };
        Map<String, Integer> counted = new LinkedHashMap<>();
        for (Ask.Count count : values) {
            String name = field == Wanted.Field.REVISION ? count.term() : names.get(count.term());
            // What has no name for this person is not theirs to narrow to: a shelf's root, say.
            if (name != null) counted.merge(name, count.hits(), Integer::sum);
        }
        return counted;
    }

    private static Map<String, String> names(List<Known.Named> all) {
        return all.stream().collect(Collectors.toMap(Known.Named::term, Known.Named::name, (a, b) -> a));
    }

    private Map<String, String> holders(List<Ask.Count> values) {
        Map<String, String> names = new LinkedHashMap<>();
        names.put("nobody", "nobody");
        people.people(values.stream()
                        .filter(v -> !v.term().equals("nobody"))
                        .map(v -> Long.valueOf(v.term()))
                        .collect(Collectors.toSet()))
                .forEach(p -> names.put(Long.toString(p.id()), p.name()));
        return names;
    }

    private static Map<String, Integer> same(List<Ask.Count> values) {
        Map<String, Integer> counted = new LinkedHashMap<>();
        values.forEach(v -> counted.merge(v.term(), v.hits(), Integer::sum));
        return counted;
    }

    /** A facet of one value narrows nothing, unless it is the one that was chosen. */
    private static Optional<View> view(Question question, String head, String key, Map<String, Integer> counted) {
        List<Value> values = new ArrayList<>();
        counted.forEach((name, hits) -> {
            String part = key + ":" + Question.typed(name);
            boolean chosen =
                    question.conditions().stream().anyMatch(c -> c.source().equals(part));
            values.add(new Value(name, part, hits, question.with(part), chosen));
        });
        values.sort(Comparator.comparingInt((Value v) -> -v.hits()).thenComparing(Value::name));
        boolean tells = values.size() > 1 || values.stream().anyMatch(Value::chosen);
        if (!tells) return Optional.empty();
        int shown = Math.min(MOST_SHOWN, values.size());
        return Optional.of(new View(head, key, List.copyOf(values.subList(0, shown)), values.size() - shown));
    }
}
