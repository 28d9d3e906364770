package mintshelf.app.sight;

import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.document.NumberStore;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.revision.StageClass;
import org.springframework.stereotype.Component;

/** Documents by their numbers, of those that somebody sees. */
@Component
public class Numbered {
    private final Sight sight;
    /** Which document of a number is its part: the model, else the drawing. */
    private static final List<String> LEADING = List.of("PART", "MODEL", "DRAWING", "PAPER");

    /** As they stand beside each other. */
    private static final List<String> IN_ORDER = List.of("DRAWING", "MODEL", "PART", "PAPER");

    private final NumberStore numbers;
    private final LinkStore links;

    public Numbered(Sight sight, NumberStore numbers, LinkStore links) {
        this.sight = sight;
        this.numbers = numbers;
        this.links = links;
    }

    /** The leading document of a number, another than an item: what stands in bills of materials. */
    public Optional<Seen> leading(Actor actor, long item, String number) {
        return all(actor, number).stream()
                .filter(s -> s.spine().id() != item && !s.document().dropped())
                .min(Comparator.comparing(
                        s -> LEADING.indexOf(links.aspect(s.spine().id()))));
    }

    /** What bears the number of a document with it, the document too: drawing, model, part, paper. */
    public List<Seen> together(Actor actor, Seen one) {
        String number = one.document().number();
        return all(actor, number).stream()
                .filter(s -> s.document().number().equals(number)
                        && !s.document().dropped()
                        && !s.spine().isChangePaper())
                .sorted(Comparator.comparing(
                        s -> IN_ORDER.indexOf(links.aspect(s.spine().id()))))
                .toList();
    }

    /** Of a part without a file what draws it, of what is drawn its part of its own: one statement where there is none. */
    public List<Seen> ownBeside(Actor actor, Seen one) {
        long id = one.spine().id();
        if (one.document().part())
            return together(actor, one).stream()
                    .filter(s -> s.spine().id() != id)
                    .toList();
        return sight.of(actor, numbers.ownParts(List.of(id)).values()).values().stream()
                .filter(s -> !s.document().dropped())
                .toList();
    }

    /** Of each of some documents the others that bear its number, as they stand beside each other; a handful of statements for all of them. */
    public Map<Long, List<Seen>> beside(Actor actor, Collection<Seen> all) {
        Map<String, NumberKey> keys = new HashMap<>();
        for (Seen one : all)
            NumberKey.of(one.document().number()).toOptional().ifPresent(k -> keys.putIfAbsent(k.key(), k));
        Map<Long, Seen> bear = new HashMap<>(sight.of(
                actor,
                numbers.items(keys.values()).values().stream()
                        .flatMap(List::stream)
                        .distinct()
                        .toList()));
        bear.values().removeIf(s -> s.document().dropped() || s.spine().isChangePaper());
        Map<String, List<Seen>> byNumber = bear.values().stream()
                .collect(Collectors.groupingBy(s -> s.document().number()));
        Map<Long, List<Seen>> beside = new HashMap<>();
        for (Seen one : all) {
            List<Seen> others = byNumber.getOrDefault(one.document().number(), List.of()).stream()
                    .filter(s -> s.spine().id() != one.spine().id())
                    .sorted(Comparator.comparing(s -> s.spine().id()))
                    .toList();
            if (!others.isEmpty()) beside.put(one.spine().id(), others);
        }
        return beside;
    }

    /** Those of a number in the order in which they were filed; none for a text that is no number. */
    public List<Seen> all(Actor actor, String number) {
        if (!(NumberKey.of(number) instanceof Outcome.Granted<NumberKey> key)) return List.of();
        return sight.of(actor, numbers.items(key.value())).values().stream()
                .sorted(Comparator.comparing(s -> s.spine().id()))
                .toList();
    }

    /** The first of a number that is another than an item. */
    public Optional<Seen> other(Actor actor, long item, String number) {
        return all(actor, number).stream().filter(s -> s.spine().id() != item).findFirst();
    }

    /** The first of a number; refused where none is seen. */
    public Seen named(Actor actor, String number) {
        return all(actor, number).stream()
                .findFirst()
                .orElseThrow(() -> Refused.because(
                        "number.unknown",
                        "No document that you see has the number " + Texts.shorten(number.strip(), 60) + ".",
                        "Write the number of one; nothing was changed."));
    }

    /** The first of each of these numbers that is seen, by the number as it was written; in few statements, however many they are. */
    public Map<String, Seen> named(Actor actor, Collection<String> written) {
        Map<String, NumberKey> keys = new LinkedHashMap<>();
        written.forEach(w -> {
            if (NumberKey.of(w) instanceof Outcome.Granted<NumberKey> key) keys.put(w, key.value());
        });
        Map<String, List<Long>> items = numbers.items(keys.values());
        Map<Long, Seen> seen =
                sight.of(actor, items.values().stream().flatMap(List::stream).toList());
        Map<String, Seen> named = new HashMap<>();
        keys.forEach((w, key) -> items.getOrDefault(key.key(), List.of()).stream()
                .filter(seen::containsKey)
                .min(Comparator.naturalOrder())
                .ifPresent(i -> named.put(w, seen.get(i))));
        return named;
    }

    /** What takes the place of something that is withdrawn; refused where the number is of nothing that somebody could take instead. */
    public Seen successor(Actor actor, long item, String number) {
        Seen named = other(actor, item, number)
                .orElseThrow(() -> Refused.because(
                        "number.unknown",
                        "No other document that you see has the number " + number.strip() + ".",
                        "Write the number of one, or leave it empty; nothing was changed."));
        if (named.document().dropped() || named.current().stage().stageClass() == StageClass.WITHDRAWN) {
            throw Refused.because(
                    "successor.gone",
                    named.document().number() + " is not to be worked from itself.",
                    "Name one that is in force or becomes so; nothing was changed.");
        }
        return named;
    }
}
