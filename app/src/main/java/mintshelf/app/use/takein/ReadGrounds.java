package mintshelf.app.use.takein;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.NumberStore;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.KindFact;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.app.store.structure.FiledStore;
import mintshelf.app.store.takein.TakeIn;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Aspect;
import mintshelf.core.document.FileName;
import mintshelf.core.filing.FilingRule;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.takein.Found;
import mintshelf.core.takein.Grounds;
import org.springframework.stereotype.Component;

/** Reads what a dry run asks of the shelf and the house rules: at once for all files, then it is asked from memory. */
@Component
class ReadGrounds {
    private static final int AT_ONCE = 2000;

    private final TakeKinds kinds;
    private final TakenFacts facts;
    private final ShelfStore shelves;
    private final NumberStore numbers;
    private final VersionStore versions;
    private final DocumentStore documents;
    private final FiledStore filed;
    private final Sight sight;
    private final TakeDays days;

    ReadGrounds(
            TakeKinds kinds,
            TakenFacts facts,
            ShelfStore shelves,
            NumberStore numbers,
            VersionStore versions,
            DocumentStore documents,
            FiledStore filed,
            Sight sight,
            TakeDays days) {
        this.kinds = kinds;
        this.facts = facts;
        this.shelves = shelves;
        this.numbers = numbers;
        this.versions = versions;
        this.documents = documents;
        this.filed = filed;
        this.sight = sight;
        this.days = days;
    }

    /** @param said the numbers that could be asked for, as they are said */
    Grounds of(Actor actor, TakeIn takeIn, List<Found> files, Set<String> said) {
        Folder top = shelves.folder(takeIn.folder())
                .filter(f -> f.shelf() == takeIn.shelf())
                .orElseThrow(NotThere::new);
        return new Here(actor, top, files, said);
    }

    private Map<Aspect, Set<String>> used(Set<String> said) {
        List<String> keys = new ArrayList<>();
        for (String one : said) {
            if (NumberKey.of(one) instanceof Outcome.Granted<NumberKey> number)
                keys.add(number.value().key());
        }
        Map<Aspect, Set<String>> used = new HashMap<>();
        for (Aspect aspect : Aspect.values()) {
            Set<String> all = used.computeIfAbsent(aspect, a -> new HashSet<>());
            for (int from = 0; from < keys.size(); from += AT_ONCE) {
                all.addAll(numbers.used(List.of(aspect), keys.subList(from, Math.min(keys.size(), from + AT_ONCE))));
            }
        }
        return used;
    }

    /** Of what is there only what the actor may know of is named. */
    private Map<String, String> contents(Actor actor, List<Found> files) {
        Set<ContentHash> hashes = files.stream()
                .map(Found::content)
                .filter(c -> !c.isEmpty())
                .map(ContentHash::ofHex)
                .collect(Collectors.toSet());
        Map<ContentHash, Long> items = versions.withContents(hashes);
        Map<Long, Seen> seen = sight.of(actor, Set.copyOf(items.values()));
        Map<String, String> numbers = new HashMap<>();
        items.forEach((hash, item) -> Optional.ofNullable(seen.get(item))
                .ifPresent(s -> numbers.put(hash.hex(), s.document().number())));
        return numbers;
    }

    /** Where references are looked for: on the shelf itself, and on libraries. */
    private Set<String> there(long shelf, List<Found> files) {
        Set<String> keys = files.stream()
                .flatMap(f -> f.refersTo().stream())
                .map(p -> FileName.of(p).key())
                .collect(Collectors.toSet());
        Set<String> there = new HashSet<>();
        filed.named(keys).forEach((key, all) -> {
            if (all.stream().anyMatch(f -> f.shelf() == shelf || f.library())) there.add(key);
        });
        return there;
    }

    private final class Here implements Grounds {
        private final Actor actor;
        private final List<FilingRule> rules = kinds.rules();
        private final Map<Long, Known> known;
        private final Map<Aspect, Set<String>> used;
        private final Map<String, String> contents;
        private final Set<String> there;
        private final Map<Long, List<KindFact>> sheets = facts.sheets();
        private final Folder top;
        private final Map<String, Set<String>> names = new HashMap<>();

        Here(Actor actor, Folder top, List<Found> files, Set<String> said) {
            this.actor = actor;
            this.top = top;
            this.known = kinds.known(actor, top);
            this.used = used(said);
            this.contents = contents(actor, files);
            this.there = there(top.shelf(), files);
        }

        @Override
        public List<FilingRule> rules() {
            return rules;
        }

        @Override
        public Optional<Known> kind(long id) {
            return Optional.ofNullable(known.get(id));
        }

        @Override
        public Optional<Known> kindNamed(String name) {
            return known.values().stream()
                    .filter(k -> Texts.key(k.name()).equals(Texts.key(name)))
                    .findFirst();
        }

        @Override
        public boolean isUsed(Aspect aspect, NumberKey number) {
            return used.getOrDefault(aspect, Set.of()).contains(number.key());
        }

        @Override
        public Optional<String> withContent(String content) {
            return Optional.ofNullable(contents.get(content));
        }

        @Override
        public boolean isTaken(String folder, FileName name) {
            return names.computeIfAbsent(
                            folder,
                            f -> Optional.ofNullable(shelves.below(top, List.of(f), false)
                                            .get(f))
                                    .map(at -> documents
                                            .fileNames(List.of(at.id()))
                                            .getOrDefault(at.id(), Set.of()))
                                    .orElse(Set.of()))
                    .contains(name.key());
        }

        @Override
        public boolean isThere(FileName name) {
            return there.contains(name.key());
        }

        @Override
        public List<Refusal> facts(long kind, Map<String, String> said) {
            return facts.read(actor, sheets.getOrDefault(kind, List.of()), said).refusals();
        }

        @Override
        public LocalDate today() {
            return days.today();
        }
    }
}
