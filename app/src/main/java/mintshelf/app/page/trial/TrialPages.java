package mintshelf.app.page.trial;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.page.Pages;
import mintshelf.app.store.trial.TrialStore.State;
import mintshelf.app.use.trial.AskOpinions;
import mintshelf.app.use.trial.DropTrial;
import mintshelf.app.use.trial.ReadTrials;
import mintshelf.app.use.trial.StartTrial;
import mintshelf.app.use.trial.TrialHolds;
import mintshelf.core.document.VersionName;
import mintshelf.core.trial.Opinion;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Trials: listed, started, worked on, asked about, dropped. */
@Controller
public class TrialPages {
    private static final int A_PAGE = 25;

    private final ReadTrials read;
    private final StartTrial start;
    private final TrialHolds holds;
    private final AskOpinions ask;
    private final DropTrial drop;

    public TrialPages(ReadTrials read, StartTrial start, TrialHolds holds, AskOpinions ask, DropTrial drop) {
        this.read = read;
        this.start = start;
        this.holds = holds;
        this.ask = ask;
        this.drop = drop;
    }

    @GetMapping("/trials")
    String list(
            Actor actor,
            @RequestParam(defaultValue = "open") String state,
            @RequestParam Optional<Long> before,
            Model model) {
        State wanted = List.of(State.values()).stream()
                .filter(s -> s.name().equalsIgnoreCase(state))
                .findFirst()
                .orElseThrow(NotThere::new);
        model.addAttribute("state", wanted);
        model.addAttribute("states", State.values());
        model.addAttribute("listed", read.list(actor, wanted, before.orElse(Long.MAX_VALUE), A_PAGE));
        model.addAttribute("held", read.held(actor));
        return "trial/list";
    }

    @GetMapping("/trials/new")
    String begin(Actor actor, @RequestParam String items, Model model) {
        model.addAttribute("rows", start.plan(actor, Pages.ids(items)));
        model.addAttribute("items", items);
        return "trial/new";
    }

    @PostMapping("/trials/new")
    String begin(
            Actor actor,
            @RequestParam(required = false) List<Long> item,
            @RequestParam(defaultValue = "") String title,
            @RequestParam String items,
            @RequestParam String actKey,
            Model model) {
        try {
            return "redirect:" + start.start(actor, item == null ? List.of() : item, title, actKey);
        } catch (Refused e) {
            model.addAttribute("refusal", e.refusal());
            model.addAttribute("typed", title);
            model.addAttribute("picked", item == null ? List.of() : item);
            return begin(actor, items, model);
        }
    }

    @GetMapping("/trials/{id}")
    String show(Actor actor, @PathVariable long id, Model model) {
        model.addAttribute("view", read.view(actor, id));
        return "trial/page";
    }

    /** All trials beside a document, whether under way or not. */
    @GetMapping("/documents/{id}/trials")
    String ofDocument(Actor actor, @PathVariable long id, Model model) {
        model.addAttribute("of", read.document(actor, id));
        model.addAttribute(
                "listed",
                new ReadTrials.Listed(
                        read.beside(actor, id).stream()
                                .map(ReadTrials.Beside::whole)
                                .toList(),
                        Optional.empty()));
        model.addAttribute("held", read.held(actor));
        return "trial/list";
    }

    /** The line of a trial as its document's: the page of the trial. */
    @GetMapping("/documents/{id}/lines/{line}")
    String line(Actor actor, @PathVariable long id, @PathVariable String line) {
        int number = VersionName.line(line).orElseThrow(NotThere::new);
        return "redirect:/trials/" + read.ofLine(actor, id, number) + "#d" + id;
    }

    @PostMapping("/trials/{id}/check-out")
    String take(
            Actor actor,
            @PathVariable long id,
            @RequestParam List<Long> items,
            @RequestParam(defaultValue = "") String purpose,
            @RequestParam String actKey) {
        return "redirect:" + holds.take(actor, id, items, actKey, "", purpose);
    }

    @PostMapping("/trials/{id}/undo-check-out")
    String undo(Actor actor, @PathVariable long id, @RequestParam List<Long> items, @RequestParam String actKey) {
        return "redirect:" + holds.undo(actor, id, items, actKey);
    }

    @PostMapping("/trials/{id}/break-hold")
    String breakHold(
            Actor actor,
            @PathVariable long id,
            @RequestParam long item,
            @RequestParam long hold,
            @RequestParam(defaultValue = "") String reason,
            @RequestParam String actKey) {
        return "redirect:" + holds.breakHold(actor, id, item, actKey, hold, reason);
    }

    @GetMapping("/trials/{id}/ask")
    String asking(Actor actor, @PathVariable long id, Model model) {
        ReadTrials.View view = read.view(actor, id);
        model.addAttribute("view", view);
        model.addAttribute("refusal", model.getAttribute("refusal"));
        model.addAttribute("people", view.ask().isEmpty() ? ask.candidates(actor, view.whole()) : List.of());
        model.addAttribute("today", ask.today());
        model.addAttribute("due", ask.today().plusDays(3));
        return "trial/ask";
    }

    @PostMapping("/trials/{id}/ask")
    String ask(
            Actor actor,
            @PathVariable long id,
            @RequestParam(required = false) List<Long> person,
            @RequestParam(defaultValue = "") String note,
            @RequestParam LocalDate due,
            @RequestParam String actKey,
            Model model) {
        List<Long> asked = person == null ? List.of() : person;
        try {
            return "redirect:" + ask.ask(actor, id, asked, note, due, actKey);
        } catch (Refused e) {
            model.addAttribute("refusal", e.refusal());
            model.addAttribute("typed", note);
            model.addAttribute("picked", asked);
            String page = asking(actor, id, model);
            model.addAttribute("due", due);
            return page;
        }
    }

    @PostMapping("/trials/{id}/answer")
    String answer(
            Actor actor,
            @PathVariable long id,
            @RequestParam(defaultValue = "") String opinion,
            @RequestParam(defaultValue = "") String words,
            @RequestParam String actKey,
            Model model) {
        try {
            Opinion said = Opinion.of(opinion)
                    .orElseThrow(() ->
                            Refused.because("trial.opinion", "No opinion is chosen.", "Choose one; nothing was kept."));
            return "redirect:" + ask.answer(actor, id, said, words, actKey);
        } catch (Refused e) {
            model.addAttribute("refusal", e.refusal());
            model.addAttribute("typed", words);
            model.addAttribute("opinion", opinion);
            return show(actor, id, model);
        }
    }

    @PostMapping("/trials/{id}/take-back")
    String takeBack(Actor actor, @PathVariable long id, @RequestParam String actKey) {
        return "redirect:" + ask.takeBack(actor, id, actKey);
    }

    @PostMapping("/trials/{id}/drop")
    String drop(
            Actor actor,
            @PathVariable long id,
            @RequestParam(defaultValue = "") String why,
            @RequestParam String actKey) {
        return "redirect:" + drop.drop(actor, id, why, actKey);
    }
}
