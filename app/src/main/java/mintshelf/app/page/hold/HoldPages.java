package mintshelf.app.page.hold;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.app.page.Pages;
import mintshelf.app.page.Rows;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.hold.StrayStore.Stray;
import mintshelf.app.use.Actor;
import mintshelf.app.use.CheckSheets;
import mintshelf.app.use.NotThere;
import mintshelf.app.use.Seen;
import mintshelf.app.use.compare.CompareSheets;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.hold.CheckIn;
import mintshelf.app.use.hold.CheckOut;
import mintshelf.app.use.hold.Strays;
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
    private static final Pattern DONE = Pattern.compile("(\\d{1,18})([souv])(\\d{1,18})");
    private final CheckOut checkOut;
    private final CheckIn checkIn;
    private final Strays strays;
    private final ReadDocument read;
    private final CompareSheets compare;
    private final CheckSheets checks;

    public HoldPages(
            CheckOut checkOut,
            CheckIn checkIn,
            Strays strays,
            ReadDocument read,
            CompareSheets compare,
            CheckSheets checks) {
        this.strays = strays;
        this.checks = checks;
        this.checkOut = checkOut;
        this.checkIn = checkIn;
        this.read = read;
        this.compare = compare;
    }

    @GetMapping("/check-out")
    String planCheckOut(Actor actor, @RequestParam String items, Model model) {
        List<CheckOut.Row> rows = checkOut.plan(actor, Pages.ids(items));
        if (rows.isEmpty()) throw new NotThere();
        model.addAttribute("rows", rows);
        model.addAttribute("opening", rows.stream().filter(CheckOut.Row::opens).count());
        model.addAttribute(
                "openingIds",
                Rows.joined(rows.stream()
                        .filter(CheckOut.Row::opens)
                        .map(CheckOut.Row::seen)
                        .toList()));
        return "hold/checkout";
    }

    @PostMapping("/check-out")
    String takeHold(
            Actor actor,
            @RequestParam String items,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String desk,
            @RequestParam(defaultValue = "") String purpose) {
        return "redirect:" + checkOut.take(actor, Pages.ids(items), actKey, desk, purpose);
    }

    @PostMapping("/undo-check-out")
    String undo(Actor actor, @RequestParam String items, @RequestParam String actKey) {
        return "redirect:" + checkOut.undo(actor, Pages.ids(items), actKey);
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

    /** A row of the check-in page. */
    public record InRow(Seen seen, boolean mine) {}

    @GetMapping("/check-in")
    String checkInPage(Actor actor, @RequestParam(defaultValue = "") String items, Model model) {
        List<InRow> rows = checkIn.held(actor, Pages.ids(items)).stream()
                .map(s -> new InRow(
                        s,
                        s.document()
                                .holder()
                                .filter(h -> h.person() == actor.person())
                                .isPresent()))
                .toList();
        model.addAttribute("rows", rows);
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
            @RequestParam MultiValueMap<String, String> form) {
        List<CheckIn.Row> rows = new ArrayList<>();
        form.forEach((name, values) -> {
            if (!name.matches("upload\\.\\d{1,18}") || values.get(0).isBlank()) return;
            String id = name.substring("upload.".length());
            String hold = form.getFirst("hold." + id);
            long shown = hold != null && hold.matches("\\d{1,18}") ? Long.parseLong(hold) : 0;
            rows.add(new CheckIn.Row(Long.parseLong(id), values.get(0), shown));
        });
        return "redirect:" + checkIn.take(actor, rows, actKey, comment, keep);
    }

    /** What became of a file: the document, and the version or the stray. */
    public record Done(Seen seen, String what, long number, Stray stray, Integer differences, String checked) {}

    @GetMapping("/check-in/done")
    String done(Actor actor, @RequestParam String rows, Model model) {
        List<Done> done = new ArrayList<>();
        for (String part : rows.split(",")) {
            Matcher m = DONE.matcher(part);
            if (!m.matches()) throw new NotThere();
            ReadDocument.View view = read.view(actor, Long.parseLong(m.group(1)));
            Seen seen = view.seen();
            long number = Long.parseLong(m.group(3));
            Stray stray = m.group(2).equals("s") ? read.stray(actor, number) : null;
            Integer differences = m.group(2).equals("v") && number > 1 ? differences(view, (int) number) : null;
            String checked = m.group(2).equals("v")
                    ? version(view, (int) number)
                            .flatMap(v -> checks.findings(seen.document(), v))
                            .map(CheckSheets::says)
                            .orElse("")
                    : "";
            done.add(new Done(seen, m.group(2), number, stray, differences, checked));
        }
        model.addAttribute("done", done);
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

    @PostMapping("/strays/{id}/drop")
    String drop(Actor actor, @PathVariable long id, @RequestParam String actKey) {
        return "redirect:" + strays.drop(actor, id, actKey);
    }
}
