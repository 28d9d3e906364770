package mintshelf.app.use.relocate;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.run.SetAct;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.NumberStore;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.KindFact;
import mintshelf.app.store.run.Run;
import mintshelf.core.access.Place;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.document.RelocateRules;
import mintshelf.core.document.Revision;
import mintshelf.core.document.Stage;
import mintshelf.core.fact.RequiredAt;
import mintshelf.core.hold.HoldRules;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.route.MovingOver;
import mintshelf.core.route.Route;
import org.springframework.stereotype.Service;

/**
 * Makes documents such of another kind: what was filed as a report is a specification. No version is made; the number stays, the revision
 * under way goes on the other kind's route, facts that this kind does not have are kept and not shown.
 */
@Service
public class ChangeKind implements SetAct {
    private final Sight sight;
    private final DocumentStore documents;
    private final NumberStore numbers;
    private final RevisionStore revisions;
    private final FactStore facts;
    private final HouseStore house;
    private final Recorder recorder;
    private final Clock clock;

    public ChangeKind(
            Sight sight,
            DocumentStore documents,
            NumberStore numbers,
            RevisionStore revisions,
            FactStore facts,
            HouseStore house,
            Recorder recorder,
            Clock clock) {
        this.sight = sight;
        this.documents = documents;
        this.numbers = numbers;
        this.revisions = revisions;
        this.facts = facts;
        this.house = house;
        this.recorder = recorder;
        this.clock = clock;
    }

    @Override
    public Run.What what() {
        return Run.What.CHANGE_KIND;
    }

    @Override
    public String says(List<PlanLine> going, Wish wish) {
        return "Make " + Numbers.count(going.size(), "document", "documents") + " a "
                + target(wish).name();
    }

    /** Kinds that a document can be of. */
    public List<Kind> kinds() {
        return house.kinds().stream().filter(k -> !k.isChangePaper()).toList();
    }

    private Kind target(Wish wish) {
        return wish.move()
                .filter(m -> m.matches("\\d{1,18}"))
                .flatMap(m -> kinds().stream()
                        .filter(k -> k.id() == Long.parseLong(m))
                        .findFirst())
                .orElseThrow(NotThere::new);
    }

    @Override
    public Plan<PlanLine> plan(Actor actor, Collection<Long> items, Wish wish) {
        Kind to = target(wish);
        List<KindFact> sheet = house.factSheets().getOrDefault(to.id(), List.of());
        List<Plan.Row<PlanLine>> rows = new ArrayList<>();
        Set<String> coming = new LinkedHashSet<>();
        for (Seen seen : sight.of(actor, items).values()) {
            if (!seen.all()) {
                rows.add(Plan.Row.asked(PlanLine.of(seen), List.of(SetAct.notShown(seen))));
                continue;
            }
            if (seen.document().place().kind() == to.id()) {
                rows.add(Plan.Row.stays(PlanLine.of(seen)));
                continue;
            }
            List<Refusal> inTheWay = new ArrayList<>(inTheWay(actor, seen, to));
            NumberKey number = NumberKey.of(seen.document().number()).orElseThrow(Refused::new);
            if (inTheWay.isEmpty() && !coming.add(number.key())) inTheWay.add(used(seen, to));
            rows.add(Plan.Row.asked(line(seen, to, sheet), inTheWay));
        }
        return new Plan<>(rows);
    }

    private List<Refusal> inTheWay(Actor actor, Seen seen, Kind to) {
        Document document = seen.document();
        if (seen.spine().isChangePaper()) {
            return List.of(Refusal.of(
                    "change.paper",
                    document.number() + " is a " + seen.spine().kindName() + "; changes write it.",
                    "Leave it out."));
        }
        if (document.part() != to.isPart()) {
            return List.of(
                    document.part()
                            ? HoldRules.noFile(document)
                            : Refusal.of(
                                    "part.file",
                                    document.number() + " has a file; a " + to.name() + " has none.",
                                    "Leave it out."));
        }
        Place now = document.place();
        List<Refusal> inTheWay = new ArrayList<>(RelocateRules.anotherKind(
                actor.access(), document, new Place(now.shelf(), now.folders(), to.id(), now.library())));
        NumberKey number = NumberKey.of(document.number()).orElseThrow(Refused::new);
        if (house.kind(now.kind()).aspect() != to.aspect()
                && numbers.item(to.aspect(), number)
                        .filter(i -> i != document.id())
                        .isPresent()) inTheWay.add(used(seen, to));
        if (inTheWay.isEmpty()) {
            document.pending().flatMap(r -> under(r, seen, to).refusal()).ifPresent(inTheWay::add);
        }
        return inTheWay;
    }

    private static Refusal used(Seen seen, Kind to) {
        return Refusal.of(
                "number.used",
                "Another " + to.aspect().name().toLowerCase(Locale.ROOT) + " has the number "
                        + seen.document().number() + ".",
                "Give one of them another number first.");
    }

    /** Where the revision under way stands on the other kind's route. */
    private Outcome<Optional<Stage>> under(Revision pending, Seen seen, Kind to) {
        return MovingOver.to(
                pending.stage(), house.latest(to, seen.document().place().shelf()));
    }

    private PlanLine line(Seen seen, Kind to, List<KindFact> sheet) {
        Document document = seen.document();
        long shelf = document.place().shelf();
        List<String> says = new ArrayList<>();
        says.add("from " + seen.spine().kindName());
        Route now = house.latest(house.kind(document.place().kind()), shelf);
        Route then = house.latest(to, shelf);
        if (!now.name().equals(then.name())) {
            says.add((document.pending().isPresent() ? "goes on on the route " : "its next revision goes the route ")
                    + then.name() + " in place of " + now.name());
        }
        Map<String, String> has = facts.facts(document.current().id());
        Set<String> known = new LinkedHashSet<>();
        sheet.forEach(f -> known.add(f.fact().name()));
        long hidden = has.keySet().stream().filter(f -> !known.contains(f)).count();
        if (hidden > 0) says.add(Numbers.count(hidden, "fact is", "facts are") + " kept and not shown as this kind");
        List<String> wanted = sheet.stream()
                .filter(f -> f.required() != RequiredAt.NEVER
                        && has.getOrDefault(f.fact().name(), "").isEmpty())
                .map(f -> f.fact().label())
                .toList();
        if (!wanted.isEmpty()) says.add("wants " + String.join(", ", wanted));
        return new PlanLine(seen, expected(seen), Optional.empty(), Optional.empty(), Optional.empty(), says);
    }

    private static String expected(Seen seen) {
        return seen.version() + " as " + seen.document().place().kind();
    }

    @Override
    public List<Run.Row> carryOut(Actor actor, List<Run.Due> due, Wish wish) {
        Kind to = target(wish);
        Map<Long, String> expected = new LinkedHashMap<>();
        due.forEach(d -> expected.put(d.item(), d.expected()));
        Map<Long, Integer> versions = new LinkedHashMap<>();
        for (Seen seen : sight.locked(actor, expected.keySet())) {
            long item = seen.spine().id();
            if (!seen.all()) throw new NotThere();
            if (!expected(seen).equals(expected.get(item))) {
                throw Refused.because(
                        "page.old",
                        seen.document().number() + " has moved on since the plan was made.",
                        "Look at it as it stands now; it was left what it is.");
            }
            inTheWay(actor, seen, to).stream().findFirst().ifPresent(r -> {
                throw new Refused(r);
            });
            Optional<Revision> pending = seen.document().pending();
            Optional<Stage> stage = pending.flatMap(r -> under(r, seen, to).orElseThrow(Refused::new));
            stage.ifPresent(s -> revisions.moveOver(pending.orElseThrow().id(), s));
            numbers.reclaim(to.aspect(), item);
            documents.changeKind(item, to.aspect(), to.id(), clock.instant());
            recorder.note(
                    actor,
                    item,
                    "document.kind_changed",
                    seen.version(),
                    "made it a " + to.name() + ", which was a " + seen.spine().kindName(),
                    "");
            versions.put(item, seen.version());
        }
        return due.stream()
                .map(d -> new Run.Row(d.item(), "changed", versions.getOrDefault(d.item(), 0)))
                .toList();
    }
}
