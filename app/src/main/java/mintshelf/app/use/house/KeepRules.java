package mintshelf.app.use.house;

import java.time.Clock;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.house.Edition;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.RouteStore;
import mintshelf.app.store.house.RuleStore;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.core.base.Texts;
import mintshelf.core.house.FactRule;
import mintshelf.core.house.House;
import mintshelf.core.house.KindRule;
import mintshelf.core.house.RouteRule;
import mintshelf.core.house.Rule;
import mintshelf.core.house.SeriesRule;
import mintshelf.core.house.SignOffRule;
import mintshelf.core.house.Subject;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Service;

/** Keeping house rules: what is kept is the next edition, with who, when and why; an earlier one can be set back. */
@Service
public class KeepRules {
    private final RuleWriter rules;
    private final RuleStore editions;
    private final RouteStore routes;
    private final HouseStore house;
    private final ShelfStore shelves;
    private final Acts acts;
    private final Recorder recorder;
    private final Clock clock;

    KeepRules(
            RuleWriter rules,
            RuleStore editions,
            RouteStore routes,
            HouseStore house,
            ShelfStore shelves,
            Acts acts,
            Recorder recorder,
            Clock clock) {
        this.rules = rules;
        this.editions = editions;
        this.routes = routes;
        this.house = house;
        this.shelves = shelves;
        this.acts = acts;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** Where a rule's page is. */
    public static String address(Rule rule) {
        return switch (rule.subject()) {
            case KIND -> "/house/kinds/" + rule.code();
            case SERIES -> "/house/series/" + rule.code();
            case ROUTE -> "/house/routes/" + rule.code();
            case FACT -> "/house/facts/" + rule.code();
            case FILING -> "/house/filing";
            case SIGN_OFF -> "/house/sign-offs/" + rule.code();
            case CALENDAR -> "/house/calendar";
            case DISTRIBUTION -> "/house/distribution";
            case CHANGE_CONTROL -> "/house/change-control";
            case NOTICE_FORM -> "/house/notice-form";
        };
    }

    /**
     * Keeps a rule as its next edition. One that says the same as the latest makes none.
     *
     * @param shown the edition that the page showed, 0 for a new rule: one that somebody changed since is not overwritten unseen
     */
    public String keep(Actor actor, String key, Rule rule, int shown, String why) {
        HouseRules.ask(actor);
        String said = Texts.optional("The reason", why, 300).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> kept(actor, rule, shown, said));
    }

    /** As {@link #keep}, within the caller's act. */
    String kept(Actor actor, Rule rule, int shown, String why) {
        int latest = rules.latest(rule);
        if (latest != shown) {
            throw old(rule, shown, latest);
        }
        House now = rules.house();
        Refused.unlessEmpty(rule.ask(now), "rule.wrong", "Nothing was changed.");
        named(rule, now);
        if (latest > 0 && latest(rule).rule().lines(now).equals(rule.lines(now)) && same(rule)) return address(rule);
        try {
            rules.write(rule, new RouteStore.Made(OptionalLong.of(actor.person()), clock.instant(), why));
        } catch (DuplicateKeyException e) {
            // A new one has no edition yet that could be locked: of two at once the database takes one.
            throw old(rule, shown, 1);
        }
        recorder.noteHouse(
                actor,
                "house.rule",
                (latest == 0 ? "made the " : "made edition " + (latest + 1) + " of the ")
                        + rule.subject().words()
                        + (rule.subject().isOne() ? "" : " “" + rule.name() + "”"),
                why);
        return address(rule);
    }

    private static Refused old(Rule rule, int shown, int latest) {
        return Refused.because(
                "page.old",
                shown == 0
                        ? "There is a " + rule.subject().words() + " of this name already."
                        : rule.name() + " is at edition " + latest + "; your page showed edition " + shown + ".",
                "Look at it again; nothing was changed.");
    }

    private boolean same(Rule rule) {
        Rule was = latest(rule).rule();
        // Editions of routes know their number; what they say is compared in words.
        return rule instanceof RouteRule || was.equals(rule);
    }

    /** Two of one name could not be told apart wherever they are chosen. */
    private static void named(Rule rule, House house) {
        String key = Texts.key(rule.name());
        boolean taken = switch (rule.subject()) {
            case KIND ->
                house.kinds().entrySet().stream()
                        .anyMatch(k -> !k.getKey().equals(rule.code())
                                && Texts.key(k.getValue()).equals(key));
            case SERIES ->
                house.series().entrySet().stream()
                        .anyMatch(s -> !s.getKey().equals(rule.code())
                                && Texts.key(s.getValue()).equals(key));
            case ROUTE ->
                house.routes().values().stream()
                        .anyMatch(r -> !r.code().equals(rule.code())
                                && Texts.key(r.name()).equals(key));
            case FACT ->
                house.facts().values().stream()
                        .anyMatch(f -> !f.code().equals(rule.code())
                                && Texts.key(f.label()).equals(key));
            case SIGN_OFF ->
                house.signOffs().values().stream()
                        .anyMatch(r -> !r.code().equals(rule.code())
                                && Texts.key(r.name()).equals(key));
            case FILING, CALENDAR, DISTRIBUTION, CHANGE_CONTROL, NOTICE_FORM -> false;
        };
        if (taken) {
            throw Refused.because(
                    "rule.named",
                    "There is a " + rule.subject().words() + " “" + rule.name() + "” already.",
                    "Choose another name; nothing was changed.");
        }
    }

    private Edition latest(Rule rule) {
        return edition(rule.subject(), rule.code(), Optional.empty());
    }

    private Edition edition(Subject subject, String code, Optional<Integer> number) {
        List<Edition> all = subject == Subject.ROUTE
                ? routes.editions(code, Integer.MAX_VALUE)
                : editions.editions(subject, code, Integer.MAX_VALUE);
        return all.stream()
                .filter(e -> number.isEmpty() || e.number() == number.get())
                .findFirst()
                .orElseThrow(NotThere::new);
    }

    /** Makes what an earlier edition says the next edition. */
    public String setBack(Actor actor, String key, Subject subject, String code, int number, int shown) {
        HouseRules.ask(actor);
        return acts.once(actor, key, () -> {
            Edition old = edition(subject, code, Optional.of(number));
            return kept(actor, old.rule(), shown, "as edition " + number + " had it");
        });
    }

    /** Makes a second rule that says the same under another name. */
    public String copy(Actor actor, String key, Subject subject, String code, String name) {
        HouseRules.ask(actor);
        String named = Texts.required("The name", name, 80).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            Rule of = edition(subject, code, Optional.empty()).rule();
            return kept(actor, copied(of, free(subject, named), named), 0, "a copy of " + of.name());
        });
    }

    /** Makes a number series of its own. */
    public String makeSeries(Actor actor, String key, String name, String pattern, SeriesRule.Counts counts) {
        HouseRules.ask(actor);
        String named = Texts.required("The name", name, 100).orElseThrow(Refused::new);
        return acts.once(
                actor,
                key,
                () -> kept(actor, new SeriesRule(free(Subject.SERIES, named), named, pattern, counts), 0, ""));
    }

    /** A code that no rule of the subject has. The short name of a fact is written in searches and begins with a letter. */
    private String free(Subject subject, String name) {
        House now = rules.house();
        return switch (subject) {
            case ROUTE -> Texts.code(name, "route", now.routes()::containsKey);
            case FACT -> shortName(Texts.code(name, "fact", code -> now.facts().containsKey(shortName(code))));
            default -> Texts.code(name, "rule", code -> editions.latestNumber(subject, code) > 0);
        };
    }

    private static String shortName(String code) {
        return (code.matches("[a-z].*") ? code : "f-" + code).replace('-', '_');
    }

    private static Rule copied(Rule of, String code, String name) {
        if (of instanceof KindRule k) {
            return k.copied(code, name);
        }
        if (of instanceof SeriesRule s) return new SeriesRule(code, name, s.pattern(), s.counts());
        if (of instanceof FactRule f) {
            return new FactRule(code, name, f.form(), f.use());
        }
        if (of instanceof SignOffRule s) return new SignOffRule(code, name, s.asked(), s.policy());
        if (of instanceof RouteRule r) {
            return new RouteRule(r.route().named(code, name));
        }
        throw new NotThere();
    }

    /** Puts a route in the place of a kind's own on one shelf; an empty one gives the kind its own back. */
    public String replaceRoute(Actor actor, String key, String kind, long shelf, String route) {
        HouseRules.ask(actor);
        return acts.once(actor, key, () -> {
            Rule of = edition(Subject.KIND, kind, Optional.empty()).rule();
            String on = shelves.shelves().stream()
                    .filter(s -> s.id() == shelf)
                    .map(ShelfStore.Shelf::name)
                    .findFirst()
                    .orElseThrow(NotThere::new);
            if (!route.isEmpty() && of instanceof KindRule k) {
                KindRule other = k.onRoute(route);
                Refused.unlessEmpty(other.ask(rules.house()), "rule.wrong", "Nothing was changed.");
            }
            house.replaceRoute(
                    shelf,
                    house.kind(kind).id(),
                    route.isEmpty()
                            ? Optional.empty()
                            : Optional.of(routes.route(route).orElseThrow(NotThere::new)));
            recorder.noteHouse(
                    actor,
                    "house.shelf_route",
                    route.isEmpty()
                            ? "gave every " + of.name() + " on " + on + " the route of its kind back"
                            : "put the route “"
                                    + rules.house().routes().get(route).name() + "” in the place of the one of "
                                    + of.name() + " on " + on,
                    "");
            return address(of);
        });
    }
}
