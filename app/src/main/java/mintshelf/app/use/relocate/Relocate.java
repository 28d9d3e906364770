package mintshelf.app.use.relocate;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.run.SetAct;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Places;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.NumberStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.run.Run;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.app.store.shelf.ShelfStore.Shelf;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.document.FileName;
import mintshelf.core.document.RelocateRules;
import mintshelf.core.numbering.NumberKey;
import org.springframework.stereotype.Service;

/**
 * Moves documents to another folder, or to another shelf. No version is made: their history, what refers to them and what they refer to
 * stay as they are; names that files say are found by what they meant before.
 */
@Service
public class Relocate implements SetAct {
    private final Sight sight;
    private final ShelfStore shelves;
    private final DocumentStore documents;
    private final NumberStore numbers;
    private final HouseStore house;
    private final Recorder recorder;
    private final Clock clock;

    public Relocate(
            Sight sight,
            ShelfStore shelves,
            DocumentStore documents,
            NumberStore numbers,
            HouseStore house,
            Recorder recorder,
            Clock clock) {
        this.sight = sight;
        this.shelves = shelves;
        this.documents = documents;
        this.numbers = numbers;
        this.house = house;
        this.recorder = recorder;
        this.clock = clock;
    }

    @Override
    public Run.What what() {
        return Run.What.RELOCATE;
    }

    @Override
    public String says(List<PlanLine> going, Wish wish) {
        Folder to = target(wish);
        return "Move " + Numbers.count(going.size(), "document", "documents") + " to " + named(to);
    }

    /** Documents with what belongs along: those of the same number, as far as the actor sees them whole. */
    public Set<Long> withTheirs(Actor actor, Collection<Long> items) {
        Set<Long> all = new LinkedHashSet<>(items);
        List<NumberKey> keys = new ArrayList<>();
        for (Seen seen : sight.of(actor, items).values()) {
            if (NumberKey.of(seen.document().number()) instanceof Outcome.Granted<NumberKey> key) keys.add(key.value());
        }
        Set<String> shown = new LinkedHashSet<>();
        keys.forEach(k -> shown.add(k.key()));
        numbers.items(keys).values().forEach(all::addAll);
        // A number of before is not the number of now.
        sight.of(actor, all).forEach((id, seen) -> {
            boolean same = NumberKey.of(seen.document().number()) instanceof Outcome.Granted<NumberKey> key
                    && shown.contains(key.value().key());
            if (!items.contains(id) && (!same || !seen.all() || seen.spine().isChangePaper())) all.remove(id);
        });
        return all;
    }

    private Folder target(Wish wish) {
        return wish.move()
                .filter(m -> m.matches("\\d{1,18}"))
                .flatMap(m -> shelves.folder(Long.parseLong(m)))
                .orElseThrow(NotThere::new);
    }

    private Folder target(Actor actor, Wish wish) {
        Folder to = target(wish);
        if (!actor.access().enters(to.shelf())) throw new NotThere();
        return to;
    }

    private String named(Folder folder) {
        String shelf = shelves.shelf(folder.shelf()).map(Shelf::name).orElse("–");
        return folder.isRoot() ? "the top of " + shelf : folder.name() + " on " + shelf;
    }

    @Override
    public Plan<PlanLine> plan(Actor actor, Collection<Long> items, Wish wish) {
        Folder to = target(actor, wish);
        Map<String, Long> coming = new HashMap<>();
        Set<String> there = documents.fileNames(List.of(to.id())).getOrDefault(to.id(), Set.of());
        List<Plan.Row<PlanLine>> rows = new ArrayList<>();
        for (Seen seen : sight.of(actor, items).values()) {
            if (!seen.all()) {
                rows.add(Plan.Row.asked(PlanLine.of(seen), List.of(SetAct.notShown(seen))));
                continue;
            }
            PlanLine line = line(seen, to);
            if (seen.spine().folder() == to.id()) {
                rows.add(Plan.Row.stays(line));
                continue;
            }
            List<Refusal> inTheWay = new ArrayList<>(inTheWay(actor, seen, to, there));
            Long other = coming.putIfAbsent(
                    FileName.of(seen.document().fileName()).key(), seen.spine().id());
            if (other != null && inTheWay.isEmpty()) {
                inTheWay.add(Refusal.of(
                        "file.name",
                        "Another one that goes along has the file name “"
                                + seen.document().fileName() + "”, too.",
                        "Leave one of them out."));
            }
            rows.add(Plan.Row.asked(line, inTheWay));
        }
        return new Plan<>(rows);
    }

    private List<Refusal> inTheWay(Actor actor, Seen seen, Folder to, Set<String> there) {
        if (seen.spine().isChangePaper()) {
            return List.of(Refusal.of(
                    "change.paper",
                    seen.document().number() + " is a " + seen.spine().kindName() + "; it lies with the other changes.",
                    "Leave it out."));
        }
        Document document = seen.document();
        return RelocateRules.inTheWay(
                actor.access(),
                document,
                Places.of(shelves, to, document.place().kind()),
                there.contains(FileName.of(document.fileName()).key()));
    }

    private PlanLine line(Seen seen, Folder to) {
        List<String> says = new ArrayList<>();
        Document document = seen.document();
        if (document.place().shelf() != to.shelf()) {
            Kind kind = house.kind(document.place().kind());
            String now = house.latest(kind, document.place().shelf()).name();
            String then = house.latest(kind, to.shelf()).name();
            says.add("seen there by whom that shelf's grants let");
            if (!now.equals(then)) says.add("its next revision goes the route " + then + " in place of " + now);
        }
        return new PlanLine(seen, expected(seen), Optional.empty(), Optional.empty(), Optional.empty(), says);
    }

    /** Where it lay and at which version it was when the plan was seen. */
    private static String expected(Seen seen) {
        return seen.version() + " in " + seen.spine().folder();
    }

    @Override
    public List<Run.Row> carryOut(Actor actor, List<Run.Due> due, Wish wish) {
        Folder to = target(actor, wish);
        Map<Long, String> expected = new LinkedHashMap<>();
        due.forEach(d -> expected.put(d.item(), d.expected()));
        Map<Long, Integer> versions = new HashMap<>();
        List<Seen> all = sight.locked(actor, expected.keySet());
        Set<String> there = documents.fileNames(List.of(to.id())).getOrDefault(to.id(), Set.of());
        for (Seen seen : all) {
            if (!seen.all()) throw new NotThere();
            if (!expected(seen).equals(expected.get(seen.spine().id()))) {
                throw Refused.because(
                        "page.old",
                        seen.document().number() + " has moved on since the plan was made.",
                        "Look at it as it stands now; it was left where it is.");
            }
            inTheWay(actor, seen, to, there).stream().findFirst().ifPresent(r -> {
                throw new Refused(r);
            });
            boolean elsewhere = seen.document().place().shelf() != to.shelf();
            documents.relocate(seen.spine().id(), to.shelf(), to.id(), clock.instant());
            recorder.note(
                    actor,
                    seen.spine().id(),
                    "document.relocated",
                    seen.version(),
                    // The name of a shelf that not all who read this may enter is not told.
                    "moved it to " + named(to) + (elsewhere ? ", from another shelf" : ""),
                    "");
            versions.put(seen.spine().id(), seen.version());
        }
        return due.stream()
                .map(d -> new Run.Row(d.item(), "relocated", versions.getOrDefault(d.item(), 0)))
                .toList();
    }
}
