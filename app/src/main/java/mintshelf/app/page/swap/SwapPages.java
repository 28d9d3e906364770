package mintshelf.app.page.swap;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.page.Pages;
import mintshelf.app.page.PlanShown;
import mintshelf.app.store.run.Run;
import mintshelf.app.use.run.ActOverSet;
import mintshelf.app.use.swap.Parents;
import mintshelf.app.use.swap.Parents.All;
import mintshelf.app.use.swap.Parents.Both;
import mintshelf.app.use.swap.Parents.Parent;
import mintshelf.app.use.swap.ReadSeats;
import mintshelf.app.use.swap.ReadSwap;
import mintshelf.app.use.swap.SwapDocuments;
import mintshelf.app.use.swap.TakeSwapBack;
import mintshelf.core.base.Refusal;
import mintshelf.core.model.compare.Seats;
import mintshelf.core.reuse.Swaps.Fate;
import mintshelf.core.reuse.Swaps.Pair;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** One document in the place of another: the pairs on top, what becomes of each parent below, one act. */
@Controller
public class SwapPages {
    private static final Pattern CHOICE = Pattern.compile("[0-9]{1,18}:(go|ask|job|out):[0-9]{1,9}");

    private final SwapDocuments swap;
    private final ReadSwap read;
    private final TakeSwapBack back;
    private final ActOverSet over;
    private final PairLook look;
    private final ReadSeats seats;

    public SwapPages(
            SwapDocuments swap, ReadSwap read, TakeSwapBack back, ActOverSet over, PairLook look, ReadSeats seats) {
        this.seats = seats;
        this.swap = swap;
        this.read = read;
        this.back = back;
        this.over = over;
        this.look = look;
    }

    /**
     * @param items one that goes out, or one and what comes in for it
     * @param old what goes out for the document with that {@code number}, or {@code out} is its number
     */
    @GetMapping("/swap")
    String show(
            Actor actor,
            @RequestParam(defaultValue = "") String pairs,
            @RequestParam(defaultValue = "") String items,
            @RequestParam Optional<Long> old,
            @RequestParam(defaultValue = "") String out,
            @RequestParam(defaultValue = "") String number,
            Model model) {
        List<Long> asked = Pages.many(items);
        List<Pair> all = new ArrayList<>(Pair.many(pairs));
        if (asked.size() == 2) return "redirect:/swap?pairs=" + asked.get(0) + "-" + asked.get(1);
        if (asked.size() > 2) throw new NotThere();
        Optional<Long> first = asked.stream().findFirst().or(() -> old);
        model.addAttribute("pairs", Pair.joined(all));
        if (first.isPresent()) {
            try {
                if (number.isBlank()) return ask(actor, first.get(), "", model);
                return with(actor, all, first.get(), number);
            } catch (Refused e) {
                model.addAttribute("refusal", e.refusal());
                return ask(actor, first.get(), number, model);
            }
        }
        if (all.isEmpty()) throw new NotThere();
        if (!out.isBlank()) {
            try {
                return with(actor, all, read.named(actor, all.get(0).old(), out), number);
            } catch (Refused e) {
                model.addAttribute("refusal", e.refusal());
            }
        }
        return shown(actor, all, "", model);
    }

    private String with(Actor actor, List<Pair> pairs, long old, String number) {
        List<Pair> all = new ArrayList<>(pairs);
        all.add(new Pair(old, read.comesIn(actor, old, number)));
        swap.both(actor, all);
        return "redirect:/swap?pairs=" + Pair.joined(all);
    }

    private String ask(Actor actor, long old, String number, Model model) {
        model.addAttribute("old", read.goesOut(actor, old));
        model.addAttribute("number", number.isEmpty() ? read.successor(actor, old) : number);
        return "swap/ask";
    }

    /** Rows of one fate. */
    public record Group(Fate fate, List<Parent> parents) {}

    private String shown(Actor actor, List<Pair> pairs, String reason, Model model) {
        Both both = swap.both(actor, pairs);
        All all = swap.parents(actor, both);
        Map<Fate, List<Parent>> byFate = new LinkedHashMap<>();
        for (Fate fate : Fate.values()) byFate.put(fate, new ArrayList<>());
        all.parents().stream()
                .limit(PlanShown.SHOWN)
                .forEach(p -> byFate.get(p.fate()).add(p));
        List<Group> groups = new ArrayList<>();
        byFate.forEach((fate, of) -> {
            if (!of.isEmpty()) groups.add(new Group(fate, of));
        });
        long written = all.parents().stream().filter(p -> p.fate().isWritten()).count();
        model.addAttribute("joined", Pair.joined(pairs));
        model.addAttribute("both", both);
        model.addAttribute("all", all);
        model.addAttribute("groups", groups);
        model.addAttribute("more", Math.max(0, all.parents().size() - PlanShown.SHOWN));
        // What a page does not show follows as it goes by itself: the first of its choices.
        model.addAttribute(
                "rest",
                all.parents().stream()
                        .skip(PlanShown.SHOWN)
                        .filter(p -> !p.choices().isEmpty())
                        .map(p -> p.seen().spine().id() + ":"
                                + p.choices().get(0).code() + ":" + p.seen().version())
                        .toList());
        model.addAttribute("written", written);
        model.addAttribute("above", read.above(actor, all));
        model.addAttribute("looks", look.of(actor, both));
        model.addAttribute("reason", reason);
        Map<Long, Optional<Refusal>> withdrawals = swap.withdrawals(actor, both, all);
        model.addAttribute("withdrawals", withdrawals);
        // Where nothing can be done there is no button.
        boolean some = all.parents().stream().anyMatch(p -> p.choices().stream().anyMatch(c -> c != Parents.Choice.OUT))
                || pairs.stream()
                        .anyMatch(p -> withdrawals
                                .getOrDefault(p.old(), Optional.empty())
                                .isEmpty());
        model.addAttribute("acts", some);
        return "swap/page";
    }

    /**
     * @param become what becomes of each parent, as the page showed it: "12:go:7", the document, the choice, its version
     * @param withdraw those that go out and are withdrawn, with their versions: "41:1"
     */
    @PostMapping("/swap")
    String swap(
            Actor actor,
            @RequestParam String pairs,
            @RequestParam(required = false) List<String> become,
            @RequestParam(required = false) List<String> withdraw,
            @RequestParam(defaultValue = "") String reason,
            @RequestParam String actKey,
            Model model) {
        List<Pair> all = Pair.many(pairs);
        if (all.isEmpty()) throw new NotThere();
        Map<Long, String> shown = new LinkedHashMap<>();
        Set<Long> asks = new LinkedHashSet<>();
        Set<Long> jobs = new LinkedHashSet<>();
        for (String one : become == null ? List.<String>of() : become) {
            if (!CHOICE.matcher(one).matches()) throw new NotThere();
            String[] parts = one.split(":");
            long id = Long.parseLong(parts[0]);
            if (parts[1].equals("out")) continue;
            shown.put(id, parts[2]);
            if (parts[1].equals("ask")) asks.add(id);
            if (parts[1].equals("job")) jobs.add(id);
        }
        for (String one : withdraw == null ? List.<String>of() : withdraw) {
            if (!one.matches("[0-9]{1,18}:[0-9]{1,9}")) throw new NotThere();
            shown.put(Long.parseLong(one.substring(0, one.indexOf(':'))), one.substring(one.indexOf(':') + 1));
        }
        try {
            if (shown.isEmpty())
                throw Refused.because("swap.nothing", "All of them were left out.", "Choose what is to follow.");
            if (reason.isBlank())
                throw Refused.because("swap.reason", "A swap needs a reason.", "Write it; nothing was changed.");
            Wish wish = Wish.swap(new Wish.Swap(all, asks, jobs), reason.strip());
            return "redirect:/runs/" + over.beginAsShown(actor, Run.What.SWAP, shown.keySet(), wish, shown, actKey);
        } catch (Refused e) {
            model.addAttribute("refusal", e.refusal());
            model.addAttribute("pairs", pairs);
            return shown(actor, all, reason, model);
        }
    }

    /** Where what goes out is seated in one parent, as a part of the page. */
    @GetMapping("/swap/seats")
    String seats(Actor actor, @RequestParam long parent, @RequestParam String pairs, Model model) {
        List<Pair> all = Pair.many(pairs);
        if (all.isEmpty()) throw new NotThere();
        ReadSeats.Seated seated = seats.of(actor, parent, all);
        model.addAttribute("seated", seated);
        model.addAttribute(
                "worst",
                seated.seats().stream()
                        .filter(s -> s.fate() == Seats.Fate.LOST)
                        .limit(3)
                        .toList());
        model.addAttribute("lost", seated.seats().stream().anyMatch(s -> s.fate() == Seats.Fate.LOST));
        return "swap/_seats";
    }

    /** What it would be to take a swap back. */
    @GetMapping("/swap/back")
    String back(Actor actor, @RequestParam long run, Model model) {
        Set<Long> written = back.written(actor, run).keySet();
        model.addAttribute("run", run);
        if (!written.isEmpty()) PlanShown.add(over.plan(actor, Run.What.SWAP_BACK, written, Wish.back(run)), model);
        return "swap/back";
    }

    @PostMapping("/swap/back")
    String takeBack(Actor actor, @RequestParam long run, @RequestParam String items, @RequestParam String actKey) {
        List<Long> ids = Pages.many(items);
        if (ids.isEmpty()) throw new NotThere();
        return "redirect:/runs/" + over.begin(actor, Run.What.SWAP_BACK, ids, Wish.back(run), Optional.empty(), actKey);
    }
}
