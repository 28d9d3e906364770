package mintshelf.app.use.search;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.RouteStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.core.base.Texts;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.search.Known;
import org.springframework.stereotype.Component;

/** What names mean in a search, and the names of what was counted; each list is read when the first of it is asked for. */
@Component
class SearchNames {
    private static final int MOST_PEOPLE = 20;

    private final ShelfStore shelves;
    private final PersonStore people;

    SearchNames(HouseStore house, RouteStore routes, ShelfStore shelves, PersonStore people, Clock clock) {
        this.shelves = shelves;
        this.people = people;
        this.sharedFacts = new Shared<>(house::facts, clock);
        this.sharedStages = new Shared<>(
                () -> routes.stageNames().stream()
                        .map(s -> new Known.Named(s.edition() + "/" + s.code(), s.name(), s.code()))
                        .toList(),
                clock);
        this.sharedKinds = new Shared<>(
                () -> house.kinds().stream()
                        .map(k -> new Known.Named(Long.toString(k.id()), k.name(), k.code()))
                        .toList(),
                clock);
    }

    Of of(Actor actor) {
        return new Of(actor);
    }

    /** What a house is called rarely moves: what was read is taken for a moment, by all who search. */
    private static final Duration MOMENT = Duration.ofSeconds(2);

    private final Shared<List<FactDefinition>> sharedFacts;
    private final Shared<List<Known.Named>> sharedStages;
    private final Shared<List<Known.Named>> sharedKinds;

    /** Read anew by whoever comes when it is older than a moment. */
    private static final class Shared<T> {
        private final Supplier<T> read;
        private final Clock clock;
        private volatile Optional<Read<T>> last = Optional.empty();

        private record Read<T>(T value, Instant at) {}

        Shared(Supplier<T> read, Clock clock) {
            this.read = read;
            this.clock = clock;
        }

        T get() {
            Instant now = clock.instant();
            Optional<Read<T>> before = last;
            if (before.isPresent()
                    && Duration.between(before.get().at(), now).abs().compareTo(MOMENT) < 0) {
                return before.get().value();
            }
            T value = read.get();
            last = Optional.of(new Read<>(value, now));
            return value;
        }
    }

    private static final class Once<T> implements Supplier<T> {
        private final Supplier<T> read;
        private Optional<T> value = Optional.empty();

        Once(Supplier<T> read) {
            this.read = read;
        }

        @Override
        public T get() {
            if (value.isEmpty()) value = Optional.of(read.get());
            return value.get();
        }
    }

    /** For one person and one search. */
    final class Of implements Known {
        private final Actor actor;
        private final Once<List<Named>> entered;
        private final Once<List<Named>> folders;

        private Of(Actor actor) {
            this.actor = actor;
            this.entered = new Once<>(() -> shelves.shelves().stream()
                    .filter(s -> actor.access().enters(s.id()))
                    .map(s -> new Named(Long.toString(s.id()), s.name(), ""))
                    .toList());
            this.folders = new Once<>(() ->
                    shelves
                            .folders(shelves().stream()
                                    .map(s -> Long.valueOf(s.term()))
                                    .toList())
                            .stream()
                            .map(f -> new Named(Long.toString(f.id()), f.name(), ""))
                            .toList());
        }

        @Override
        public List<FactDefinition> facts() {
            return sharedFacts.get();
        }

        @Override
        public List<Named> stages() {
            return sharedStages.get();
        }

        @Override
        public List<Named> kinds() {
            return sharedKinds.get();
        }

        @Override
        public List<Named> shelves() {
            return entered.get();
        }

        @Override
        public List<Named> folders() {
            return folders.get();
        }

        @Override
        public List<Named> people(String said) {
            List<Named> found = new ArrayList<>();
            for (PersonStore.Person p : people.with(said, MOST_PEOPLE)) {
                Named named = new Named(Long.toString(p.id()), p.name(), p.login());
                if (Texts.key(p.login()).equals(Texts.key(said))) return List.of(named);
                found.add(named);
            }
            return found;
        }

        @Override
        public Named me() {
            return new Named(Long.toString(actor.person()), actor.name(), actor.login());
        }
    }
}
