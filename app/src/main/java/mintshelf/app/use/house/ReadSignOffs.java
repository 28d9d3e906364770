package mintshelf.app.use.house;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import mintshelf.app.effect.Asking;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.sight.Places;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.RouteStore;
import mintshelf.app.store.house.RuleStore;
import mintshelf.app.store.person.GrantStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import mintshelf.core.house.House;
import mintshelf.core.house.SignOffRule;
import mintshelf.core.route.Move;
import mintshelf.core.route.Route;
import mintshelf.core.signoff.DayAxis;
import mintshelf.core.signoff.RuleDays;
import mintshelf.core.signoff.WorkingDays;
import org.springframework.stereotype.Service;

/** Sign-off rules as their keepers read them: who asks by them, and whom they would ask in one case, day by day. Nothing is stored. */
@Service
public class ReadSignOffs {
    private final RuleWriter writer;
    private final RuleStore rules;
    private final RouteStore routes;
    private final HouseStore house;
    private final ShelfStore shelves;
    private final PersonStore people;
    private final GrantStore grants;
    private final Asking asking;

    ReadSignOffs(
            RuleWriter writer,
            RuleStore rules,
            RouteStore routes,
            HouseStore house,
            ShelfStore shelves,
            PersonStore people,
            GrantStore grants,
            Asking asking) {
        this.writer = writer;
        this.rules = rules;
        this.routes = routes;
        this.house = house;
        this.shelves = shelves;
        this.people = people;
        this.grants = grants;
        this.asking = asking;
    }

    /** A move that asks by a rule. */
    public record Use(Route route, Move move) {
        /** Who makes the move when all have signed, in words. */
        public String made() {
            return move.isMadeByRound()
                    ? "made by the last sign-off"
                    : "made by hand afterwards, by whoever may " + move.who().words();
        }
    }

    /** The moves that ask by each rule, by the rule's code. */
    public Map<String, List<Use>> uses(Actor actor) {
        HouseRules.ask(actor);
        Map<String, List<Use>> uses = new TreeMap<>();
        routes.inForce()
                .values()
                .forEach(route -> route.moves().stream()
                        .filter(Move::asksSignOffs)
                        .forEach(m -> uses.computeIfAbsent(m.signOff(), c -> new ArrayList<>())
                                .add(new Use(route, m))));
        return uses;
    }

    /** Who may sign somewhere, by name: whom a line can name. */
    public Map<String, String> signers(Actor actor) {
        HouseRules.ask(actor);
        Map<String, String> byName = new LinkedHashMap<>();
        grants.rolesWith(Right.SIGN).stream()
                .flatMap(role -> people.withRole(role).stream())
                .distinct()
                .sorted(Comparator.comparing(PersonStore.Person::name))
                .forEach(p -> byName.put(Long.toString(p.id()), p.name()));
        return byName;
    }

    /** The case that a rule is drawn for: somebody sends a document of a kind that stands in a folder, on a day. */
    public record Case(long sender, long folder, String kind, LocalDate sent) {}

    /** What is chosen where nothing was: the asker, the first folder, a kind that goes a route which asks by the rule, today. */
    public Case usual(Actor actor, String rule, long sender, long folder, String kind, Optional<LocalDate> sent) {
        HouseRules.ask(actor);
        LocalDate today = asking.today();
        List<Kind> kinds = house.kinds();
        Set<Long> ways = new TreeSet<>();
        uses(actor)
                .getOrDefault(rule, List.of())
                .forEach(u -> routes.route(u.route().code()).ifPresent(ways::add));
        String of = kinds.stream().anyMatch(k -> k.code().equals(kind))
                ? kind
                : kinds.stream()
                        .filter(k -> ways.contains(k.route()))
                        .findFirst()
                        .orElse(kinds.get(0))
                        .code();
        long in = folder > 0
                ? folder
                : shelves.shelves().stream()
                        .flatMap(s -> shelves.folders(s.id()).stream())
                        .findFirst()
                        .map(ShelfStore.Folder::id)
                        .orElse(0L);
        LocalDate day = sent.filter(d -> !d.isBefore(today.minusYears(1)) && !d.isAfter(today.plusYears(1)))
                .orElse(today);
        return new Case(sender > 0 ? sender : actor.person(), in, of, day);
    }

    /**
     * A line in that case.
     *
     * @param whom "2 of the group Checking"
     * @param asked whom it would ask; nobody's name where nobody could answer
     * @param tooFew whether fewer could answer than it needs
     */
    public record Line(RuleDays.Span span, String whom, List<PersonStore.Person> asked, boolean tooFew) {}

    /** Somebody who would be asked and is away on one of the days shown. */
    public record Absent(PersonStore.Person person, LocalDate from, LocalDate until, String standsIn) {
        /** How wide the bar of the absence is on an axis, which it may begin before and end after. */
        public int width(DayAxis axis) {
            return Math.max(8, axis.end(until) - axis.start(from));
        }
    }

    /** The rule in that case, day by day. */
    public record Days(DayAxis axis, List<Line> lines, LocalDate end, List<Absent> away) {}

    public Days days(Actor actor, SignOffRule rule, Case on) {
        HouseRules.ask(actor);
        WorkingDays calendar = rules.days();
        List<RuleDays.Span> spans = RuleDays.of(rule.asked(), on.sent(), calendar);
        List<Place> places =
                shelves
                        .folder(on.folder())
                        .map(f -> Places.of(shelves, f, house.kind(on.kind()).id()))
                        .stream()
                        .toList();
        List<Asking.AskedLine> asked = asking.lines(Set.of(on.sender()), places, rule.asked());
        House names = writer.house();
        List<Line> lines = new ArrayList<>();
        for (int i = 0; i < spans.size(); i++) {
            List<PersonStore.Person> who = asked.get(i).candidates();
            lines.add(new Line(
                    spans.get(i),
                    SignOffRule.whom(rule.asked().get(i), names),
                    who,
                    who.size() < Math.max(1, rule.asked().get(i).needed())));
        }
        LocalDate last = spans.stream()
                .map(RuleDays.Span::raised)
                .max(Comparator.naturalOrder())
                .orElse(on.sent());
        DayAxis axis = DayAxis.of(on.sent(), last, calendar);
        Map<Long, PersonStore.Person> all = new TreeMap<>();
        lines.forEach(l -> l.asked().forEach(p -> all.put(p.id(), p)));
        List<Absent> away = all.values().stream()
                .filter(p -> p.awayUntil().isPresent() && !p.awayUntil().get().isBefore(axis.first()))
                .map(p -> new Absent(
                        p,
                        p.awayFrom().orElse(axis.first()),
                        p.awayUntil().orElseThrow(),
                        p.standsIn().isPresent()
                                ? people.person(p.standsIn().getAsLong())
                                        .map(PersonStore.Person::name)
                                        .orElse("")
                                : ""))
                .filter(a -> !a.from().isAfter(axis.last()))
                .sorted(Comparator.comparing(Absent::from))
                .toList();
        return new Days(axis, lines, RuleDays.end(spans, on.sent()), away);
    }
}
