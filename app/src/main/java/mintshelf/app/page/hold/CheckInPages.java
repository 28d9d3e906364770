package mintshelf.app.page.hold;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.Habits;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.Refused;
import mintshelf.app.page.Pages;
import mintshelf.app.store.content.Upload;
import mintshelf.app.use.content.ReceiveContent;
import mintshelf.app.use.desk.Desks;
import mintshelf.app.use.hold.CheckIn;
import mintshelf.app.use.hold.ReadHeld;
import mintshelf.app.use.redline.TalkOfRemarks;
import mintshelf.app.use.round.SendToReview;
import mintshelf.app.use.run.ReadRuns;
import mintshelf.core.base.Texts;
import mintshelf.core.document.NeutralForm;
import mintshelf.core.hold.Became;
import mintshelf.core.hold.Became.Fate;
import mintshelf.core.redline.Remark;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;

/** Checking in, and sending what came in straight to review. */
@Controller
public class CheckInPages {
    private final CheckIn checkIn;
    private final ReadHeld held;
    private final Habits habits;
    private final ReadRuns runs;
    private final Desks desks;
    private final SendToReview review;
    private final TalkOfRemarks talk;
    private final ReceiveContent receive;

    public CheckInPages(
            CheckIn checkIn,
            ReadHeld held,
            Habits habits,
            ReadRuns runs,
            Desks desks,
            SendToReview review,
            TalkOfRemarks talk,
            ReceiveContent receive) {
        this.receive = receive;
        this.talk = talk;
        this.checkIn = checkIn;
        this.held = held;
        this.habits = habits;
        this.runs = runs;
        this.desks = desks;
        this.review = review;
    }

    /**
     * @param desk on which the files lie that were brought already
     * @param brought what a companion has sent of them, as DOCUMENT.UPLOAD, with commas; one that is not the actor's own, or is not whole, is not there
     */
    @GetMapping("/check-in")
    String checkInPage(
            Actor actor,
            @RequestParam(defaultValue = "") String items,
            @RequestParam Optional<Long> trial,
            @RequestParam(defaultValue = "") String desk,
            @RequestParam(defaultValue = "") String brought,
            Model model) {
        List<ReadHeld.HeldLine> rows =
                trial.map(t -> held.onTrial(actor, t)).orElseGet(() -> held.plan(actor, Pages.ids(items)));
        model.addAttribute("trial", trial.orElse(null));
        model.addAttribute("rows", rows);
        model.addAttribute("endings", String.join(",", NeutralForm.endings()));
        model.addAttribute("remarks", held.remarks(rows));
        model.addAttribute("desk", desk);
        model.addAttribute("brought", brought(actor, brought));
        return "hold/checkin";
    }

    /** Uploads of a companion, by document. */
    private Map<Long, Upload> brought(Actor actor, String said) {
        Map<Long, Upload> brought = new HashMap<>();
        for (String one : said.split(",")) {
            int dot = one.indexOf('.');
            if (dot < 1 || !one.substring(0, dot).matches("\\d{1,18}")) continue;
            receive.whole(actor, one.substring(dot + 1))
                    .ifPresent(u -> brought.put(Long.parseLong(one.substring(0, dot)), u));
        }
        return brought;
    }

    /** Which of the actor's documents a dropped file belongs to, for the page's script. */
    @GetMapping("/check-in/match")
    @ResponseBody
    Map<String, List<String>> match(Actor actor, @RequestParam String name, @RequestParam Optional<Long> trial) {
        return Map.of(
                "documents",
                held.match(actor, name, trial).stream().map(String::valueOf).toList(),
                "beside",
                (trial.isPresent() ? List.<Long>of() : held.beside(actor, name))
                        .stream().map(String::valueOf).toList());
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
            List<String> copies = tokens(form.getFirst("copies." + id));
            if (values.get(0).isBlank() && !takesUp && copies.isEmpty()) return;
            String hold = form.getFirst("hold." + id);
            long shown = hold != null && hold.matches("\\d{1,18}") ? Long.parseLong(hold) : 0;
            String own = Optional.ofNullable(form.getFirst("comment." + id)).orElse("");
            if ("true".equals(form.getFirst("lies." + id))) lying.add(Long.parseLong(id));
            rows.add(new CheckIn.Row(
                    Long.parseLong(id),
                    Optional.of(values.get(0)).filter(token -> !token.isBlank()),
                    shown,
                    own,
                    copies));
        });
        List<TalkOfRemarks.Settled> settled = settled(form);
        TalkOfRemarks.ask(settled);
        List<Became> became =
                checkIn.take(actor, rows, actKey, new CheckIn.Options(comment, keep, saves, desks.worked(actor, desk)));
        desks.checkedIn(
                actor,
                desk,
                became.stream().filter(b -> lying.contains(b.document())).toList());
        talk.settle(actor, actKey, of(became, settled));
        // Whoever has a stray among them sees what became of it first.
        boolean stray = became.stream().anyMatch(b -> b.fate() == Fate.STRAY);
        boolean tried = became.stream().anyMatch(b -> b.fate() == Fate.TRIAL);
        if (!send || keep || stray || tried) return "redirect:" + runs.address(actor, actKey);
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

    private static List<String> tokens(@Nullable String field) {
        return field == null || field.isBlank() ? List.of() : List.of(field.split(","));
    }

    /** Fields {@code remark.DOCUMENT.ID} and {@code why.ID}; whatever else they say than done or declined is later. */
    private static List<TalkOfRemarks.Settled> settled(MultiValueMap<String, String> form) {
        List<TalkOfRemarks.Settled> all = new ArrayList<>();
        form.forEach((name, values) -> {
            if (!name.matches("remark\\.\\d{1,18}\\.\\d{1,18}")) return;
            String[] ids = name.split("\\.");
            String why = Optional.ofNullable(form.getFirst("why." + ids[2])).orElse("");
            Remark.State.of(values.get(0))
                    .filter(s -> s == Remark.State.DONE || s == Remark.State.DECLINED)
                    .ifPresent(s ->
                            all.add(new TalkOfRemarks.Settled(Long.parseLong(ids[1]), Long.parseLong(ids[2]), s, why)));
        });
        return all;
    }

    /** Of what became a version; what is done without words is done with it. */
    private static List<TalkOfRemarks.Settled> of(List<Became> became, List<TalkOfRemarks.Settled> settled) {
        List<TalkOfRemarks.Settled> all = new ArrayList<>();
        for (Became one : became) {
            if (one.fate() != Fate.VERSION) continue;
            settled.stream()
                    .filter(s -> s.item() == one.document())
                    .map(s -> s.why().isBlank() ? s.saying("With version " + one.number()) : s)
                    .forEach(all::add);
        }
        return all;
    }

    private static String toReview(List<Long> items) {
        return "redirect:/send-to-review?items="
                + String.join(",", items.stream().map(String::valueOf).toList());
    }
}
