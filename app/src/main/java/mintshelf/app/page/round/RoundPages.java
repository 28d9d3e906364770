package mintshelf.app.page.round;

import java.time.Clock;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import mintshelf.app.effect.Asking;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.page.Pages;
import mintshelf.app.setup.Settings;
import mintshelf.app.sight.RoundSight.RoundLine;
import mintshelf.app.sight.RoundSight.RoundView;
import mintshelf.app.use.round.AskOthers;
import mintshelf.app.use.round.ReadRounds;
import mintshelf.app.use.round.ReadWay;
import mintshelf.app.use.round.SendToReview;
import mintshelf.app.use.round.SignRound;
import mintshelf.app.use.round.WalkRound;
import mintshelf.core.base.Texts;
import mintshelf.core.route.RouteMap;
import mintshelf.core.signoff.Decision;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Review: sending, the round with its sheet and its buttons, the in-tray. A link opens a page; only its buttons act. */
@Controller
public class RoundPages {
    private final ReadRounds rounds;
    private final SendToReview send;
    private final SignRound sign;
    private final AskOthers others;
    private final Settings settings;
    private final Clock clock;
    private final RoundLook look;
    private final WalkRound walk;
    private final ReadWay way;

    public RoundPages(
            ReadRounds rounds,
            SendToReview send,
            SignRound sign,
            AskOthers others,
            RoundLook look,
            WalkRound walk,
            ReadWay way,
            Settings settings,
            Clock clock) {
        this.walk = walk;
        this.way = way;
        this.others = others;
        this.settings = settings;
        this.clock = clock;
        this.rounds = rounds;
        this.send = send;
        this.sign = sign;
        this.look = look;
    }

    @GetMapping("/send-to-review")
    String plan(Actor actor, @RequestParam String items, Model model) {
        SendToReview.Plan plan = send.plan(actor, Pages.ids(items));
        model.addAttribute("plan", plan);
        model.addAttribute("items", items);
        // After a return the same people are asked again, unless somebody else is chosen.
        model.addAttribute("before", rounds.askedBefore(actor, plan));
        model.addAttribute("today", LocalDate.now(clock.withZone(settings.zone())));
        model.addAttribute(
                "can",
                plan.rows().stream()
                        .filter(r -> r.inTheWay().isEmpty())
                        .map(r -> Long.toString(r.seen().spine().id()))
                        .collect(Collectors.joining(",")));
        model.addAttribute("unsigned", look.unsigned(actor, Pages.ids(items)));
        model.addAttribute("suggested", walk.suggested(actor, plan));
        Optional<ReadWay.Way> met = way.way(plan);
        model.addAttribute("way", met.orElse(null));
        model.addAttribute("map", met.map(w -> RouteMap.of(w.route())).orElse(null));
        return "round/send";
    }

    /**
     * Fields {@code named.N}: whom the rule's line N asks by name; {@code also.N}: who signs besides; {@code due.N}: until when;
     * {@code version.ID}: the version that the page showed.
     */
    @PostMapping("/send-to-review")
    String send(
            Actor actor,
            @RequestParam String items,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String note,
            @RequestParam(defaultValue = "") String beside,
            @RequestParam(defaultValue = "") List<String> paper,
            @RequestParam Map<String, String> form) {
        Map<Integer, Long> named = new HashMap<>();
        Map<Integer, Long> also = new HashMap<>();
        Map<Integer, LocalDate> due = new HashMap<>();
        Map<Long, Integer> expected = new HashMap<>();
        form.forEach((name, value) -> {
            String[] field = name.split("\\.", 2);
            boolean line = field.length == 2 && field[1].matches("\\d{1,3}");
            boolean person = line && value.matches("\\d{1,18}");
            if (person && field[0].equals("named")) named.put(Integer.valueOf(field[1]), Long.valueOf(value));
            if (person && field[0].equals("also")) also.put(Integer.valueOf(field[1]), Long.valueOf(value));
            if (line && field[0].equals("due")) due.put(Integer.valueOf(field[1]), day(value));
            if (name.matches("version\\.\\d{1,18}") && value.matches("\\d{1,9}")) {
                expected.put(Long.valueOf(name.substring(8)), Integer.valueOf(value));
            }
        });
        return "redirect:"
                + send.send(
                        actor,
                        Pages.ids(items),
                        actKey,
                        note,
                        new Asking.Wishes(named, also, due, new Asking.Beside(beside, papers(paper))),
                        expected);
    }

    /** Of fields "document.version": what was ticked. What is none is passed over. */
    private static Map<Long, Integer> papers(List<String> ticked) {
        Map<Long, Integer> papers = new LinkedHashMap<>();
        for (String one : ticked) {
            if (!one.matches("\\d{1,18}\\.\\d{1,9}")) continue;
            String[] parts = one.split("\\.");
            papers.put(Long.valueOf(parts[0]), Integer.valueOf(parts[1]));
        }
        return papers;
    }

    private static LocalDate day(String value) {
        try {
            return LocalDate.parse(value);
        } catch (DateTimeParseException e) {
            throw Refused.because(
                    "round.due", "“" + Texts.shorten(Texts.line(value), 20) + "” is no day.", "Choose one.");
        }
    }

    @GetMapping("/rounds/{id}")
    String round(
            Actor actor,
            @PathVariable long id,
            @RequestParam Optional<Long> document,
            @RequestParam(defaultValue = "") String since,
            @RequestParam(required = false) String answered,
            @RequestParam(required = false) String changed,
            @RequestParam Optional<Long> one,
            Model model) {
        RoundView view = rounds.round(actor, id);
        RoundLine shown = RoundLook.shown(view, document);
        look.fill(actor, view, shown, since, model);
        look.fillWalk(actor, view, shown, model);
        ReadWay.Way met = way.way(view);
        model.addAttribute("way", met);
        model.addAttribute("map", RouteMap.of(met.route()));
        model.addAttribute(
                "one",
                view.lines().stream()
                        .filter(l -> one.equals(Optional.of(l.item().item())))
                        .map(l -> l.seen().document().number())
                        .findFirst()
                        .orElse(""));
        model.addAttribute("changes", rounds.changes(shown));
        model.addAttribute("hand", rounds.waitsForHand(view).orElse(null));
        model.addAttribute("answered", answered != null);
        model.addAttribute(
                "order",
                view.lines().stream().filter(RoundPages::isOrder).findFirst().orElse(null));
        model.addAttribute("later", later(view));
        model.addAttribute("changed", changed != null);
        model.addAttribute(
                "takeBack",
                view.round().isOpen() && view.round().by() == actor.person()
                        ? rounds.takeBack(view).orElse(null)
                        : null);
        boolean mayChange = AskOthers.refusal(actor, view).isEmpty();
        model.addAttribute("candidates", mayChange ? others.candidates(view) : Map.of());
        model.addAttribute("stuck", view.round().isOpen() ? others.nobodyLeft(view) : List.of());
        model.addAttribute("today", LocalDate.now(clock.withZone(settings.zone())));
        return "round/page";
    }

    static boolean isOrder(RoundLine line) {
        return line.seen().spine().isOrder();
    }

    /** Who is asked after the step that is open now. */
    private static List<String> later(RoundView view) {
        int now = view.round().openStep().orElse(Integer.MAX_VALUE);
        return view.round().asks().stream()
                .filter(a -> a.line().step() > now)
                .map(a -> a.whom())
                .toList();
    }

    @PostMapping("/rounds/{id}/answer")
    String answer(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam String seen,
            @RequestParam String decision,
            @RequestParam(defaultValue = "") String remark,
            @RequestParam(defaultValue = "") List<Long> cite,
            @RequestParam(defaultValue = "") String password) {
        Decision decided = Decision.valueOf(decision.toUpperCase(Locale.ROOT));
        String words = decided.asksRemark() ? rounds.citing(actor, id, remark, cite) : remark;
        return "redirect:" + sign.answer(actor, id, actKey, seen, decided, words, password);
    }

    /** Signs one of several sheets; {@code seen} is what the page showed of it. */
    @PostMapping("/rounds/{id}/documents/{item}/answer")
    String answerOne(
            Actor actor,
            @PathVariable long id,
            @PathVariable long item,
            @RequestParam String actKey,
            @RequestParam("seen.one") String seen,
            @RequestParam String decision,
            @RequestParam(defaultValue = "") String remark,
            @RequestParam(defaultValue = "") List<Long> cite,
            @RequestParam(defaultValue = "") String password) {
        Decision decided = Decision.valueOf(decision.toUpperCase(Locale.ROOT));
        String words = decided.asksRemark() ? rounds.citing(actor, id, remark, cite) : remark;
        return "redirect:" + sign.answerOne(actor, id, item, actKey, seen, decided, words, password);
    }

    /** Asks somebody else, or until another day. */
    @PostMapping("/rounds/{id}/asks/{ask}")
    String change(
            Actor actor,
            @PathVariable long id,
            @PathVariable long ask,
            @RequestParam String actKey,
            @RequestParam Optional<Long> person,
            @RequestParam LocalDate due) {
        return "redirect:" + others.change(actor, id, ask, actKey, person, due);
    }
}
