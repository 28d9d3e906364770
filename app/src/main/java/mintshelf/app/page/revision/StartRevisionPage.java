package mintshelf.app.page.revision;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.page.Pages;
import mintshelf.app.page.Rows;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.TakeAlong;
import mintshelf.app.sight.TakeAlong.With;
import mintshelf.app.use.desk.Desks;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.document.ReadVersion;
import mintshelf.app.use.hold.CheckIn;
import mintshelf.app.use.hold.CheckOut;
import mintshelf.app.use.hold.Strays;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.run.ReadRuns;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Holder;
import mintshelf.core.hold.Became;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Starting the next revisions: the plan, and with what they begin. */
@Controller
public class StartRevisionPage {
    private final StartRevisions startRevisions;
    private final TakeAlong takeAlong;
    private final ReadDocument read;
    private final ReadVersion readVersion;
    private final CheckIn checkIn;
    private final CheckOut checkOut;
    private final ReadRuns runs;
    private final Strays strays;
    private final Desks desks;

    public StartRevisionPage(
            StartRevisions startRevisions,
            TakeAlong takeAlong,
            ReadDocument read,
            ReadVersion readVersion,
            CheckIn checkIn,
            CheckOut checkOut,
            ReadRuns runs,
            Strays strays,
            Desks desks) {
        this.startRevisions = startRevisions;
        this.takeAlong = takeAlong;
        this.read = read;
        this.readVersion = readVersion;
        this.checkIn = checkIn;
        this.checkOut = checkOut;
        this.runs = runs;
        this.strays = strays;
        this.desks = desks;
    }

    /**
     * A row of the plan: the label that a document gets, or why none; whether it was asked for or goes along.
     *
     * @param steps labels that are usual next, where one can be chosen now
     */
    public record Row(
            Seen seen, Optional<String> label, List<String> steps, Optional<Refusal> refusal, boolean asked) {}

    /** Letters of the short reason: what a row of a revision block holds. */
    private static final int SHORT = 72;

    /** Who starts a revision of a part may start one of its drawing and of what it stands in. */
    private static final List<With> ALONG = List.of(With.DRAWINGS, With.PARENTS);

    @GetMapping("/start-revision")
    String plan(
            Actor actor,
            @RequestParam String items,
            @RequestParam(defaultValue = "") String along,
            @RequestParam Optional<Long> stray,
            @RequestParam(defaultValue = "false") boolean desk,
            Model model) {
        List<Long> ids = Pages.ids(items);
        if (ids.isEmpty()) throw new NotThere();
        Set<With> with = With.of(along);
        List<Row> rows = takeAlong.gather(actor, ids, with).stream()
                .map(a -> row(actor, a.seen(), ids.contains(a.seen().spine().id())))
                .toList();
        if (rows.isEmpty()) throw new NotThere();
        model.addAttribute("rows", rows);
        model.addAttribute(
                "files", rows.stream().anyMatch(r -> !r.seen().document().part()));
        model.addAttribute("items", items);
        model.addAttribute("along", with);
        Set<With> offered = takeAlong.offered(actor, ids);
        boolean content = stray.isPresent() || desk;
        model.addAttribute(
                "offered",
                ALONG.stream().filter(w -> !content && offered.contains(w)).toList());
        model.addAttribute("stray", stray.map(s -> readVersion.stray(actor, s)).orElse(null));
        model.addAttribute("desk", desk && ids.size() == 1 ? ids.get(0) : null);
        List<Seen> opening = rows.stream()
                .filter(r -> r.refusal().isEmpty() && r.asked())
                .map(Row::seen)
                .toList();
        model.addAttribute(
                "opening", rows.stream().filter(r -> r.refusal().isEmpty()).count());
        model.addAttribute("openingIds", Rows.joined(opening));
        return "revision/start";
    }

    private Row row(Actor actor, Seen seen, boolean asked) {
        Optional<Refusal> refusal = startRevisions.startRefusal(actor, seen);
        if (refusal.isPresent()) return new Row(seen, Optional.empty(), List.of(), refusal, asked);
        try {
            return new Row(
                    seen,
                    Optional.of(startRevisions.nextLabel(seen.document())),
                    startRevisions.steps(seen.document()),
                    Optional.empty(),
                    asked);
        } catch (Refused e) {
            return new Row(seen, Optional.empty(), List.of(), Optional.of(e.refusal()), asked);
        }
    }

    /** Fields {@code label.ID}: the label that a document is to get; an empty one for the next. */
    private static Map<Long, String> labels(Map<String, String> form) {
        Map<Long, String> labels = new HashMap<>();
        form.forEach((name, value) -> {
            if (name.matches("label\\.\\d{1,18}") && !value.isBlank()) {
                labels.put(Long.valueOf(name.substring(6)), value.strip());
            }
        });
        return labels;
    }

    @PostMapping("/start-revision")
    String start(
            Actor actor,
            @RequestParam(defaultValue = "") String items,
            @RequestParam(defaultValue = "") List<Long> item,
            @RequestParam String actKey,
            @RequestParam String reason,
            @RequestParam(name = "checkout", defaultValue = "false") boolean thenCheckOut,
            @RequestParam Optional<Long> stray,
            @RequestParam(defaultValue = "") String upload,
            @RequestParam(defaultValue = "") String desk,
            @RequestParam Map<String, String> form) {
        List<Long> all = new ArrayList<>(Pages.ids(items));
        item.stream().filter(id -> !all.contains(id)).limit(TakeAlong.MOST).forEach(all::add);
        if (all.isEmpty()) throw new NotThere();
        // One field: its first line is the short one, the rest says more.
        String[] lines = Texts.lines(reason).split("\n", 2);
        String first = lines[0];
        String details = lines.length > 1 ? lines[1].strip() : "";
        if (first.length() > SHORT) {
            throw Refused.because(
                    "revision.reason_long",
                    "The first line has " + first.length() + " letters; " + SHORT + " are the most.",
                    "Make it shorter and say the rest below it; no revision was started.");
        }
        boolean content = stray.isPresent() || !upload.isEmpty();
        if (content && all.size() != 1) throw new NotThere();
        String to = startRevisions.start(
                actor, all, actKey, first, details, (thenCheckOut || content) && stray.isEmpty(), labels(form));
        if (!content) return "redirect:" + to;
        // The revision and its hold are there now; what comes stands on them, and is kept whatever becomes of it.
        Seen seen = read.view(actor, all.get(0)).seen();
        String second = Acts.following(actKey);
        int head = seen.document().head().number();
        if (stray.isPresent()) {
            strays.adopt(actor, stray.get(), second, head, reason);
            return "redirect:" + checkOut.take(actor, all, Acts.following(second), "", "");
        }
        long hold = seen.document()
                .holder()
                .filter(h -> h.person() == actor.person())
                .map(Holder::hold)
                .orElse(0L);
        List<Became> became = checkIn.take(
                actor,
                List.of(new CheckIn.Row(all.get(0), Optional.of(upload), hold, "")),
                second,
                new CheckIn.Options(reason, true, true, desks.worked(actor, desk)));
        desks.checkedIn(actor, desk, became);
        return "redirect:" + runs.address(actor, second);
    }
}
