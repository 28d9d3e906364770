package mintshelf.app.page.round;

import java.time.Clock;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import mintshelf.app.effect.Asking;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.ground.Refused;
import mintshelf.app.page.Pages;
import mintshelf.app.setup.Settings;
import mintshelf.app.sight.RoundSight.RoundLine;
import mintshelf.app.sight.RoundSight.RoundView;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.use.compare.CompareSheets;
import mintshelf.app.use.document.ReadSheet;
import mintshelf.app.use.round.AskOthers;
import mintshelf.app.use.round.ReadRounds;
import mintshelf.app.use.round.RemindRounds;
import mintshelf.app.use.round.SendToReview;
import mintshelf.app.use.round.SignRound;
import mintshelf.app.use.structure.ReadModel;
import mintshelf.core.base.Texts;
import mintshelf.core.drawing.compare.Comparison;
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
    private final ReadingRoom room;
    private final ReadSheet sheets;
    private final CompareSheets compare;

    public RoundPages(
            ReadRounds rounds,
            SendToReview send,
            SignRound sign,
            AskOthers others,
            ReadingRoom room,
            ReadSheet sheets,
            CompareSheets compare,
            Settings settings,
            Clock clock) {
        this.others = others;
        this.settings = settings;
        this.clock = clock;
        this.rounds = rounds;
        this.send = send;
        this.sign = sign;
        this.room = room;
        this.sheets = sheets;
        this.compare = compare;
    }

    @GetMapping("/send-to-review")
    String plan(Actor actor, @RequestParam String items, Model model) {
        SendToReview.Plan plan = send.plan(actor, Pages.ids(items));
        model.addAttribute("plan", plan);
        model.addAttribute("items", items);
        // After a return the same people are asked again, unless somebody else is chosen.
        model.addAttribute("before", rounds.askedBefore(actor, plan));
        model.addAttribute("today", LocalDate.now(clock.withZone(settings.zone())));
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
                + send.send(actor, Pages.ids(items), actKey, note, new Asking.Wishes(named, also, due), expected);
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
            Model model) {
        RoundView view = rounds.round(actor, id);
        RoundLine shown = document.map(d -> view.lines().stream()
                        .filter(l -> l.item().item() == d)
                        .findFirst()
                        .orElseThrow(NotThere::new))
                // Of an order and its documents the first document is looked at first; the order has a page of its own.
                .orElseGet(() -> view.lines().stream()
                        .filter(l -> !isOrder(l))
                        .findFirst()
                        .orElse(view.lines().get(0)));
        var version = rounds.version(shown);
        model.addAttribute("view", view);
        model.addAttribute("shown", shown);
        model.addAttribute("version", version);
        model.addAttribute("sheet", sheets.sheetSoon(version.content()));
        long item = shown.item().item();
        // After a return its signers look at what became of it first; what is released is one click away.
        Optional<ReadRounds.Return> returned = rounds.returnedBefore(actor, view, shown);
        Optional<VersionRow> former = compare.before(item, version);
        boolean sinceReturn = returned.isPresent() && !"release".equals(since);
        Optional<VersionRow> before = sinceReturn ? returned.map(ReadRounds.Return::version) : former;
        model.addAttribute("signedBefore", rounds.signedBefore(view));
        model.addAttribute("returned", returned.orElse(null));
        model.addAttribute("former", former.orElse(null));
        model.addAttribute(
                "formerRevision",
                former.flatMap(old -> rounds.formerRevision(item, old, version)).orElse("the version before"));
        model.addAttribute("sinceReturn", sinceReturn);
        model.addAttribute("before", before.orElse(null));
        model.addAttribute(
                "compared",
                before.flatMap(old -> room.soon(
                                () -> compare.ringed(old, version), Optional.<mintshelf.app.sight.Compared>empty()))
                        .orElse(null));
        model.addAttribute("isModel", ReadModel.format(version).isPresent());
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

    /** The round of a selection: the one that they are in together, else the tray. */
    @GetMapping("/rounds")
    String ofDocuments(Actor actor, @RequestParam String items) {
        List<Long> open = rounds.openOf(actor, Pages.ids(items));
        return open.size() == 1 ? "redirect:/rounds/" + open.get(0) : "redirect:/in-tray";
    }

    private static boolean isOrder(RoundLine line) {
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
            @RequestParam(defaultValue = "") String password) {
        Decision decided = Decision.valueOf(decision.toUpperCase(Locale.ROOT));
        return "redirect:" + sign.answer(actor, id, actKey, seen, decided, remark, password);
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

    private static final int COMPARED = 20;

    /** What a round's first document changes on its sheet. */
    public record Compared(long round, Comparison comparison) {}

    private Optional<Compared> compared(RoundView view) {
        return view.lines().stream()
                .filter(l -> !isOrder(l))
                .findFirst()
                .flatMap(line -> room.soon(
                        () -> room.apart(() -> compare.toBefore(line.item().item(), rounds.version(line))),
                        Optional.<Comparison>empty()))
                .map(c -> new Compared(view.round().id(), c));
    }

    @GetMapping("/in-tray")
    String inTray(Actor actor, Model model) {
        List<ReadRounds.Waiting> waiting = rounds.inTray(actor);
        model.addAttribute("waiting", waiting);
        // Of a long tray the first are compared; the others are when their round is opened.
        model.addAttribute(
                "differences",
                waiting.stream()
                        .limit(COMPARED)
                        .flatMap(x -> compared(x.view()).stream())
                        .collect(Collectors.toMap(Compared::round, Compared::comparison)));
        model.addAttribute("sent", rounds.sent(actor));
        model.addAttribute("keeps", RemindRounds.keeps(actor));
        return "round/in-tray";
    }
}
