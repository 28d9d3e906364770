package mintshelf.core.signoff;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * What people answered on documents that are decided together. Somebody may sign them sheet by sheet; an ask is answered when one person
 * has answered it for all of them.
 *
 * @param whole answers that stand, or stood, on every document, in the order in which they became whole
 * @param begun what stands on some of them only
 */
public record Answers(List<SignOff> whole, List<Begun> begun) {
    public Answers {
        whole = List.copyOf(whole);
        begun = List.copyOf(begun);
    }

    /** What one person answered on one document. */
    public record Given(
            long ask,
            long person,
            String name,
            long item,
            Decision decision,
            String remark,
            Instant at,
            Optional<Instant> fellAt,
            String fellWhy,
            String forName) {
        private Part part() {
            return new Part(ask, person, fellAt, fellWhy);
        }
    }

    private record Part(long ask, long person, Optional<Instant> fellAt, String fellWhy) {}

    /**
     * Signatures on some of the documents, by one who has not come to the others yet.
     *
     * @param items the documents that they signed
     * @param at when they signed the latest of them
     */
    public record Begun(long ask, long person, String name, Set<Long> items, Instant at) {
        public Begun {
            items = Set.copyOf(items);
        }
    }

    /**
     * Puts together what was given. O(given).
     *
     * @param given in the order in which it was given
     * @param documents how many are decided together
     */
    public static Answers of(Collection<Given> given, int documents) {
        Map<Part, List<Given>> parts = new LinkedHashMap<>();
        Map<Part, Integer> last = new LinkedHashMap<>();
        int place = 0;
        for (Given one : given) {
            parts.computeIfAbsent(one.part(), p -> new ArrayList<>()).add(one);
            last.put(one.part(), place++);
        }
        List<SignOff> whole = new ArrayList<>();
        List<Begun> begun = new ArrayList<>();
        parts.entrySet().stream()
                .sorted(Comparator.comparing(e -> last.getOrDefault(e.getKey(), 0)))
                .forEach(e -> {
                    Set<Long> items = new HashSet<>();
                    e.getValue().forEach(g -> items.add(g.item()));
                    if (items.size() >= documents) whole.add(whole(e.getValue()));
                    else if (e.getKey().fellAt().isEmpty()) begun.add(begun(e.getValue(), items));
                });
        return new Answers(whole, begun);
    }

    private static Begun begun(List<Given> part, Set<Long> items) {
        Given last = part.get(part.size() - 1);
        return new Begun(last.ask(), last.person(), last.name(), items, last.at());
    }

    /** With remarks where one of them had some; the remarks once each. */
    private static SignOff whole(List<Given> part) {
        Given last = part.get(part.size() - 1);
        Decision decision = part.stream().anyMatch(g -> g.decision() == Decision.REMARKED)
                        && last.decision().signs()
                ? Decision.REMARKED
                : last.decision();
        String remark = part.stream()
                .map(Given::remark)
                .filter(r -> !r.isEmpty())
                .distinct()
                .collect(Collectors.joining("\n"));
        return new SignOff(
                last.ask(),
                last.person(),
                last.name(),
                decision,
                remark,
                last.at(),
                last.fellAt(),
                last.fellWhy(),
                last.forName());
    }
}
