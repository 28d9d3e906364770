package mintshelf.app.page.change;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.page.Pages;
import mintshelf.app.use.change.AddPhoto;
import mintshelf.app.use.change.GoOnWithRequest;
import mintshelf.app.use.change.MoveRequest;
import mintshelf.app.use.change.OpenRequest;
import mintshelf.app.use.change.ReadImpact;
import mintshelf.app.use.change.ReadRequests;
import mintshelf.app.use.change.WriteRequest;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.core.change.Cause;
import mintshelf.core.change.Goal;
import mintshelf.core.change.Priority;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** A request: what is wanted, of what, by what it goes, what the board says. */
@Controller
public class RequestPages {
    private final ReadRequests read;
    private final ReadImpact impact;
    private final OpenRequest open;
    private final WriteRequest write;
    private final MoveRequest move;
    private final GoOnWithRequest goOn;
    private final AddPhoto photos;
    private final ReadDocument documents;

    public RequestPages(
            ReadRequests read,
            ReadImpact impact,
            OpenRequest open,
            WriteRequest write,
            MoveRequest move,
            GoOnWithRequest goOn,
            AddPhoto photos,
            ReadDocument documents) {
        this.read = read;
        this.impact = impact;
        this.open = open;
        this.write = write;
        this.move = move;
        this.goOn = goOn;
        this.photos = photos;
        this.documents = documents;
    }

    @GetMapping("/requests/{id}")
    String request(Actor actor, @PathVariable long id, @RequestParam(required = false) String edit, Model model) {
        ReadRequests.View view = read.request(actor, id);
        ReadRequests.Offers offers = read.offers(actor, view);
        model.addAttribute("view", view);
        model.addAttribute("offers", offers);
        model.addAttribute("edit", edit != null && offers.edits());
        model.addAttribute(
                "cause", Cause.of(view.paper().cause()).map(Cause::words).orElse(""));
        model.addAttribute("causes", Cause.values());
        model.addAttribute("priorities", Priority.values());
        model.addAttribute("relations", Goal.Relation.values());
        model.addAttribute("goalFacts", offers.edits() ? read.goalFacts(view) : List.of());
        model.addAttribute(
                "reach", impact.shows(actor, view.seen()) ? impact.of(actor, id).reach() : null);
        model.addAttribute(
                "lineIds",
                String.join(
                        ",",
                        view.lines().stream()
                                .map(l -> Long.toString(l.line().item()))
                                .toList()));
        model.addAttribute("facts", documents.view(actor, id).facts());
        return "change/request";
    }

    /** Fields {@code why.ID}: a document's own reason; {@code evidence}: a version a line; {@code photo}: Base64. */
    @PostMapping("/requests")
    String open(
            Actor actor,
            @RequestParam String items,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String title,
            @RequestParam(defaultValue = "") String reason,
            @RequestParam(defaultValue = "") String cause,
            @RequestParam(defaultValue = "USUAL") String priority,
            @RequestParam(defaultValue = "") String evidence,
            @RequestParam(defaultValue = "") String photo,
            @RequestParam Optional<String> requestKind,
            @RequestParam Map<String, String> form) {
        Optional<byte[]> jpeg = photos.read(photo(photo));
        String to = open.open(
                actor,
                Pages.ids(items),
                actKey,
                new OpenRequest.Says(
                        title,
                        reason,
                        Cause.of(cause),
                        priority(priority),
                        ChangePages.numbered(form, "why"),
                        evidence.lines().limit(20).toList(),
                        requestKind));
        jpeg.ifPresent(j -> photos.add(
                actor,
                Long.parseLong(to.substring(to.lastIndexOf('/') + 1)),
                Acts.following(actKey),
                j,
                "taken with the request"));
        return "redirect:" + to;
    }

    /** A photo as a form sends it: Base64 (RFC 4648, 4), of whatever is no such nothing. */
    private static byte[] photo(String sent) {
        try {
            return Base64.getDecoder().decode(sent);
        } catch (IllegalArgumentException e) {
            return new byte[] {0};
        }
    }

    /** @param photo Base64 */
    @PostMapping("/requests/{id}/photo")
    String photo(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String photo,
            @RequestParam(defaultValue = "") String note) {
        byte[] jpeg = photos.read(photo(photo))
                .orElseThrow(() -> Refused.because("photo.none", "No photo was chosen.", "Take one first."));
        return "redirect:" + photos.add(actor, id, actKey, jpeg, note);
    }

    private static Priority priority(String name) {
        return Arrays.stream(Priority.values())
                .filter(p -> p.name().equals(name))
                .findFirst()
                .orElseThrow(NotThere::new);
    }

    /** Fields {@code why.LINE}: reasons by line; {@code remove.LINE}: lines that go; {@code more}: documents that are named besides. */
    @PostMapping("/requests/{id}/words")
    String words(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String reason,
            @RequestParam(defaultValue = "") String cause,
            @RequestParam(defaultValue = "USUAL") String priority,
            @RequestParam(defaultValue = "") String more,
            @RequestParam Map<String, String> form) {
        if (!more.isEmpty()) return "redirect:" + write.name(actor, id, actKey, Pages.ids(more));
        return "redirect:"
                + write.say(
                        actor,
                        id,
                        actKey,
                        reason,
                        Cause.of(cause),
                        priority(priority),
                        ChangePages.numbered(form, "why"),
                        ChangePages.numbered(form, "remove").keySet());
    }

    /** Adds what is typed, or takes away the one of the id {@code gone}. */
    @PostMapping("/requests/{id}/evidence")
    String evidence(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String typed,
            @RequestParam(defaultValue = "") String note,
            @RequestParam Optional<Long> gone) {
        return "redirect:"
                + (gone.isPresent()
                        ? write.removeEvidence(actor, id, actKey, gone.get())
                        : write.addEvidence(actor, id, actKey, typed, note));
    }

    /** Sets a goal on a fact of a line, or takes away the one of the id {@code gone}. */
    @PostMapping("/requests/{id}/goals")
    String goal(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam Optional<Long> item,
            @RequestParam(defaultValue = "") String fact,
            @RequestParam(defaultValue = "") String relation,
            @RequestParam(defaultValue = "") String wanted,
            @RequestParam Optional<Long> gone) {
        if (gone.isPresent()) return "redirect:" + write.removeGoal(actor, id, actKey, gone.get());
        Goal.Relation stands = Arrays.stream(Goal.Relation.values())
                .filter(r -> r.name().equals(relation))
                .findFirst()
                .orElseThrow(NotThere::new);
        return "redirect:" + write.addGoal(actor, id, actKey, item.orElseThrow(NotThere::new), fact, stands, wanted);
    }

    @PostMapping("/requests/{id}/board")
    String board(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String note) {
        return "redirect:" + move.toBoard(actor, id, actKey, note);
    }

    /** @param move {@code defer}, {@code decline} or {@code drop}, as the route of requests calls them */
    @PostMapping("/requests/{id}/decision")
    String decide(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam String move,
            @RequestParam(defaultValue = "") String reason,
            @RequestParam(defaultValue = "") String until) {
        return "redirect:" + this.move.decide(actor, id, actKey, move, reason, day(until));
    }

    static Optional<LocalDate> day(String typed) {
        try {
            return typed.isBlank() ? Optional.empty() : Optional.of(LocalDate.parse(typed.strip()));
        } catch (DateTimeException e) {
            return Optional.empty();
        }
    }

    @PostMapping("/requests/{id}/start")
    String start(Actor actor, @PathVariable long id, @RequestParam String actKey) {
        return "redirect:" + goOn.start(actor, id, actKey);
    }
}
