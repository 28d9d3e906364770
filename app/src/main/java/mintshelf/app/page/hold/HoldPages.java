package mintshelf.app.page.hold;

import java.io.IOException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.effect.Habits;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.page.Pages;
import mintshelf.app.page.Rows;
import mintshelf.app.sight.CheckSheets;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.TakeAlong.With;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.hold.StrayStore.Stray;
import mintshelf.app.store.run.Run;
import mintshelf.app.use.compare.CompareSheets;
import mintshelf.app.use.content.ReceiveContent;
import mintshelf.app.use.desk.Desks;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.document.ReadSheet;
import mintshelf.app.use.filing.FileDocuments;
import mintshelf.app.use.hold.CheckIn;
import mintshelf.app.use.hold.CheckOut;
import mintshelf.app.use.hold.Strays;
import mintshelf.app.use.record.ReadRecord;
import mintshelf.app.use.revision.Revisions;
import mintshelf.app.use.round.SendToReview;
import mintshelf.app.use.run.ReadRuns;
import mintshelf.core.base.Texts;
import mintshelf.core.document.FileName;
import mintshelf.core.hold.Became;
import mintshelf.core.hold.Became.Fate;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;

/** Checking out and in, giving back, breaking and asking; strays. */
@Controller
public class HoldPages {
    private final CheckOut checkOut;
    private final CheckIn checkIn;
    private final Habits habits;
    private final ReadRuns runs;
    private final Strays strays;
    private final ReadDocument read;
    private final CompareSheets compare;
    private final CheckSheets checks;
    private final Desks desks;
    private final SendToReview review;
    private final ReceiveContent receive;
    private final FileDocuments filing;
    private final ReadSheet sheets;
    private final ReadRecord record;
    private final Clock clock;

    public HoldPages(
            CheckOut checkOut,
            CheckIn checkIn,
            Habits habits,
            ReadRuns runs,
            Strays strays,
            ReadDocument read,
            CompareSheets compare,
            CheckSheets checks,
            Desks desks,
            ReceiveContent receive,
            FileDocuments filing,
            SendToReview review,
            ReadSheet sheets,
            ReadRecord record,
            Clock clock) {
        this.sheets = sheets;
        this.record = record;
        this.clock = clock;
        this.review = review;
        this.receive = receive;
        this.filing = filing;
        this.desks = desks;
        this.strays = strays;
        this.checks = checks;
        this.checkOut = checkOut;
        this.checkIn = checkIn;
        this.habits = habits;
        this.runs = runs;
        this.read = read;
        this.compare = compare;
    }

    @GetMapping("/check-out")
    String planCheckOut(Actor actor, @RequestParam String items, @RequestParam Optional<String> along, Model model) {
        CheckOut.Plan plan = checkOut.plan(actor, Pages.ids(items), along.map(With::of));
        model.addAttribute("unseen", along.isEmpty() && plan.isQuiet() && habits.quiet(actor, "check-out"));
        model.addAttribute("plan", plan);
        model.addAttribute("items", items);
        model.addAttribute(
                "opening", plan.rows().stream().filter(CheckOut.Row::opens).count());
        model.addAttribute("choices", choices(items, plan));
        return "hold/checkout";
    }

    /** A thing that may go along, with the address at which it does, or does not any more. */
    public record Choice(String words, boolean chosen, String href) {}

    private static List<Choice> choices(String items, CheckOut.Plan plan) {
        List<Choice> choices = new ArrayList<>();
        for (With with : plan.offered()) {
            Set<With> other = EnumSet.noneOf(With.class);
            other.addAll(plan.with());
            boolean chosen = !other.add(with);
            if (chosen) other.remove(with);
            // All levels hold the first one.
            else if (with == With.ALL_LEVELS) other.remove(With.FIRST_LEVEL);
            else if (with == With.FIRST_LEVEL) other.remove(With.ALL_LEVELS);
            choices.add(
                    new Choice(plan.words(with), chosen, "/check-out?items=" + items + "&along=" + With.codes(other)));
        }
        return choices;
    }

    @PostMapping("/check-out")
    String takeHold(
            Actor actor,
            @RequestParam(defaultValue = "") String items,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String desk,
            @RequestParam(defaultValue = "") String purpose,
            @RequestParam Optional<String> along,
            @RequestParam MultiValueMap<String, String> form) {
        List<Long> hold = new ArrayList<>(Pages.ids(items));
        List<Long> copies = new ArrayList<>();
        boolean[] holds = {false};
        form.forEach((name, values) -> {
            if (!name.matches("row\\.\\d{1,18}")) return;
            long id = Long.parseLong(name.substring(4));
            if (values.get(0).equals("HOLD")) holds[0] |= hold.add(id);
            if (values.get(0).equals("COPY")) copies.add(id);
        });
        String to = checkOut.take(actor, hold, copies, actKey, desk, purpose);
        along.ifPresent(codes -> checkOut.remember(actor, hold.get(0), With.of(codes), holds[0]));
        if (copies.isEmpty() && along.isEmpty()) habits.tookAsProposed(actor, "check-out");
        return "redirect:" + to;
    }

    /** What a check-in or a check-out of several did. The address stays: what is gone since is counted. */
    @GetMapping("/runs/{id}")
    String run(Actor actor, @PathVariable long id, Model model) {
        Run run = runs.run(actor, id);
        model.addAttribute("run", run);
        return run.what() == Run.What.CHECK_OUT ? taken(actor, run, model) : done(actor, run, model);
    }

    private String taken(Actor actor, Run run, Model model) {
        List<Seen> mine = checkIn.still(actor, ids(run, "held"));
        List<Seen> along = checkIn.still(actor, ids(run, "copy"));
        List<Seen> all = new ArrayList<>(mine);
        all.addAll(along);
        model.addAttribute("held", mine);
        List<Seen> now = mine.stream()
                .filter(s -> s.document()
                        .holder()
                        .filter(h -> h.person() == actor.person())
                        .isPresent())
                .toList();
        model.addAttribute("heldNow", now.size());
        model.addAttribute("copies", along);
        model.addAttribute("all", Rows.joined(all));
        model.addAttribute("heldIds", Rows.joined(now));
        model.addAttribute("gone", run.rows().size() - all.size());
        model.addAttribute("couldBeQuiet", habits.couldBeQuiet(actor, "check-out"));
        return "hold/taken";
    }

    private static List<Long> ids(Run run, String became) {
        return run.rows().stream()
                .filter(r -> r.became().equals(became))
                .map(Run.Row::item)
                .toList();
    }

    @GetMapping("/undo-check-out")
    String planUndo(Actor actor, @RequestParam String items, Model model) {
        model.addAttribute("rows", checkOut.undoPlan(actor, Pages.ids(items)));
        model.addAttribute("asked", Pages.ids(items));
        return "hold/undo";
    }

    @PostMapping("/undo-check-out")
    String undo(
            Actor actor,
            @RequestParam(defaultValue = "") String items,
            @RequestParam(defaultValue = "") List<Long> item,
            @RequestParam String actKey) {
        List<Long> all = new ArrayList<>(Pages.ids(items));
        item.stream().filter(id -> !all.contains(id)).limit(500).forEach(all::add);
        if (all.isEmpty()) throw new NotThere();
        return "redirect:" + checkOut.undo(actor, all, actKey);
    }

    @GetMapping("/documents/{id}/break-hold")
    String breakPage(Actor actor, @PathVariable long id, Model model) {
        model.addAttribute("view", read.view(actor, id));
        return "hold/break";
    }

    @PostMapping("/documents/{id}/break-hold")
    String breakHold(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam long hold,
            @RequestParam String reason) {
        return "redirect:" + checkOut.breakHold(actor, id, actKey, hold, reason);
    }

    @PostMapping("/documents/{id}/ask")
    String ask(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String message) {
        return "redirect:" + checkOut.ask(actor, id, actKey, message);
    }

    @GetMapping("/check-in")
    String checkInPage(Actor actor, @RequestParam(defaultValue = "") String items, Model model) {
        model.addAttribute("rows", checkIn.plan(actor, Pages.ids(items)));
        return "hold/checkin";
    }

    /** Which of the actor's documents a dropped file belongs to, for the page's script. */
    @GetMapping("/check-in/match")
    @ResponseBody
    Map<String, List<String>> match(Actor actor, @RequestParam String name) {
        return Map.of(
                "documents",
                checkIn.match(actor, name).stream().map(String::valueOf).toList());
    }

    @PostMapping("/check-in")
    String take(
            Actor actor,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String comment,
            @RequestParam(defaultValue = "false") boolean keep,
            @RequestParam(defaultValue = "false") boolean saves,
            @RequestParam(defaultValue = "false") boolean send,
            @RequestParam(defaultValue = "") String desk,
            @RequestParam MultiValueMap<String, String> form) {
        List<CheckIn.Row> rows = new ArrayList<>();
        Set<Long> lying = new HashSet<>();
        form.forEach((name, values) -> {
            if (!name.matches("upload\\.\\d{1,18}")) return;
            String id = name.substring("upload.".length());
            boolean takesUp = "true".equals(form.getFirst("same." + id));
            if (values.get(0).isBlank() && !takesUp) return;
            String hold = form.getFirst("hold." + id);
            long shown = hold != null && hold.matches("\\d{1,18}") ? Long.parseLong(hold) : 0;
            String own = Optional.ofNullable(form.getFirst("comment." + id)).orElse("");
            if ("true".equals(form.getFirst("lies." + id))) lying.add(Long.parseLong(id));
            rows.add(new CheckIn.Row(
                    Long.parseLong(id), Optional.of(values.get(0)).filter(token -> !token.isBlank()), shown, own));
        });
        List<Became> became =
                checkIn.take(actor, rows, actKey, new CheckIn.Options(comment, keep, saves, desks.worked(actor, desk)));
        desks.checkedIn(
                actor,
                desk,
                became.stream().filter(b -> lying.contains(b.document())).toList());
        // Whoever has a stray among them sees what became of it first.
        boolean stray = became.stream().anyMatch(b -> b.fate() == Fate.STRAY);
        if (!send || keep || stray) return "redirect:" + runs.address(actor, actKey);
        List<Long> sent = rows.stream().map(CheckIn.Row::item).toList();
        if (!habits.sendsStraight(actor)) return toReview(sent);
        try {
            // As the person's own habit is: everybody with the role is asked.
            String note = Texts.shorten(Texts.line(comment), 900);
            return "redirect:" + review.send(actor, sent, Acts.following(actKey), note, Map.of(), Map.of());
        } catch (Refused e) {
            // The versions are there; what is in the way of the review, its plan says.
            return toReview(sent);
        }
    }

    private static String toReview(List<Long> items) {
        return "redirect:/send-to-review?items="
                + String.join(",", items.stream().map(String::valueOf).toList());
    }

    /** What became of a file: the document, and the version or the stray. */
    public record Done(
            Seen seen, Fate fate, long number, Stray stray, Integer differences, String checked, boolean held) {}

    /** Null where it was dropped, or its person may not see it any more. */
    private Stray stray(Actor actor, long id) {
        try {
            return read.stray(actor, id);
        } catch (NotThere e) {
            return null;
        }
    }

    private String done(Actor actor, Run run, Model model) {
        List<Done> done = new ArrayList<>();
        Set<Long> there = checkIn
                .still(actor, run.rows().stream().map(Run.Row::item).toList())
                .stream()
                .map(s -> s.spine().id())
                .collect(Collectors.toSet());
        model.addAttribute("gone", run.rows().size() - there.size());
        for (Run.Row row : run.rows()) {
            if (!there.contains(row.item())) continue;
            Fate fate = Fate.of(row.became());
            ReadDocument.View view = read.view(actor, row.item());
            Seen seen = view.seen();
            long number = row.number();
            boolean version = fate == Fate.VERSION;
            Stray stray = fate == Fate.STRAY ? stray(actor, number) : null;
            Integer differences = version && number > 1 ? differences(view, (int) number) : null;
            String checked = version
                    ? version(view, (int) number)
                            .flatMap(v -> checks.findings(seen.document(), v))
                            .map(CheckSheets::says)
                            .orElse("")
                    : "";
            boolean held = seen.document()
                    .holder()
                    .filter(h -> h.person() == actor.person())
                    .isPresent();
            done.add(new Done(seen, fate, number, stray, differences, checked, held));
        }
        model.addAttribute("done", done);
        model.addAttribute(
                "sendable",
                Rows.joined(done.stream()
                        .filter(d -> d.fate() == Fate.VERSION && checkIn.sends(d.seen()))
                        .map(Done::seen)
                        .toList()));
        return "hold/done";
    }

    /** How many differences a version has to the one before it; nothing where this person does not see both. */
    private Integer differences(ReadDocument.View view, int number) {
        Optional<VersionRow> before = version(view, number - 1);
        return version(view, number)
                .flatMap(now -> before.flatMap(old -> compare.compare(old.content(), now.content())))
                .map(c -> c.differences().size())
                .orElse(null);
    }

    private static Optional<VersionRow> version(ReadDocument.View view, int number) {
        return view.versions().stream().filter(v -> v.number() == number).findFirst();
    }

    @GetMapping("/strays/{id}")
    String stray(Actor actor, @PathVariable long id, Model model) {
        Stray stray = read.stray(actor, id);
        model.addAttribute("stray", stray);
        ReadDocument.View view = read.view(actor, stray.item());
        model.addAttribute("view", view);
        var document = view.seen().document();
        model.addAttribute("starts", starts(actor, view.seen()));
        model.addAttribute("open", stray.isOpen(actor.person(), clock.instant()));
        model.addAttribute(
                "compared",
                compare.draw(view.seen().spine().content(), stray.content()).orElse(null));
        model.addAttribute("sheet", sheets.sheetSoon(stray.content()));
        model.addAttribute(
                "broken",
                record.lastBefore(actor, stray.item(), "hold.broken", stray.at())
                        .orElse(null));
        model.addAttribute("adoptRefusal", Strays.adoptRefusal(actor, document).orElse(null));
        model.addAttribute(
                "mayDrop",
                stray.author() == actor.person()
                        || actor.access().may(mintshelf.core.access.Right.KEEP_SHELF, document.place()));
        return "hold/stray";
    }

    @PostMapping("/strays/{id}/adopt")
    String adopt(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam int expected,
            @RequestParam(defaultValue = "") String comment) {
        return "redirect:" + strays.adopt(actor, id, actKey, expected, comment);
    }

    /** Whether the next revision of a stray's document could be started with it. */
    private static boolean starts(Actor actor, Seen seen) {
        return Revisions.startRefusal(actor, seen.document()).isEmpty();
    }

    /** A stray comes once more, to be filed as a document of its own. */
    @PostMapping("/strays/{id}/file-as-new")
    String fileAsNew(Actor actor, @PathVariable long id) throws IOException {
        Stray stray = read.stray(actor, id);
        Seen seen = read.view(actor, stray.item()).seen();
        FileName name = FileName.of(stray.fileName());
        String token = receive.again(actor, stray.content(), name.derived());
        return "redirect:/filings/"
                + filing.open(
                        actor,
                        seen.document().place().shelf(),
                        OptionalLong.of(seen.spine().folder()),
                        List.of(token),
                        Optional.of(stray.item()));
    }

    @PostMapping("/strays/{id}/drop")
    String drop(Actor actor, @PathVariable long id, @RequestParam String actKey) {
        return "redirect:" + strays.drop(actor, id, actKey);
    }
}
