package mintshelf.app.page.change;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.page.Pages;
import mintshelf.app.use.change.MoveRequest;
import mintshelf.app.use.change.ReadChanges;
import mintshelf.app.use.change.ReadChanges.Which;
import mintshelf.core.change.Cause;
import mintshelf.core.change.Flow;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Changes: requests and orders by where they stand; several decided on at once. */
@Controller
public class ChangeListPages {
    private static final int PAGE = 40;
    private static final int WEEKS = 12;

    /** Parts of the time in which the pace is compared. */
    private static final int PARTS = 12;

    private final ReadChanges read;
    private final MoveRequest move;

    public ChangeListPages(ReadChanges read, MoveRequest move) {
        this.read = read;
        this.move = move;
    }

    /** @param decided how many were decided on just now */
    @GetMapping("/changes")
    String list(
            Actor actor,
            @RequestParam(defaultValue = "open") String show,
            @RequestParam(defaultValue = "0") int page,
            @RequestParam Optional<Integer> decided,
            Model model) {
        Which which = Arrays.stream(Which.values())
                .filter(v -> code(v).equals(show))
                .findFirst()
                .orElseThrow(NotThere::new);
        int at = Math.max(0, Math.min(page, 100_000));
        ReadChanges.View view = read.list(actor, which, at, PAGE);
        model.addAttribute("view", view);
        model.addAttribute("show", show);
        model.addAttribute("page", at);
        model.addAttribute(
                "choices",
                view.counts().entrySet().stream()
                        .map(e -> new Choice(code(e.getKey()), e.getKey().words(), e.getValue()))
                        .toList());
        model.addAttribute("open", view.counts().getOrDefault(Which.OPEN, 0));
        model.addAttribute("toDecide", view.counts().get(Which.TO_DECIDE));
        model.addAttribute("late", view.counts().get(Which.OVERDUE));
        model.addAttribute("decided", decided.orElse(0));
        Flow flow = read.flow(actor, WEEKS, Optional.empty());
        model.addAttribute("flow", flow);
        model.addAttribute("flowPicture", FlowPicture.of(flow));
        model.addAttribute(
                "causes",
                flow.causes().stream()
                        .filter(c -> c.entered() > 0)
                        .map(c -> cause(c.of()) + " " + c.entered())
                        .limit(4)
                        .toList());
        return "change/list";
    }

    private static String cause(String code) {
        return Cause.of(code).map(Cause::words).orElse(code);
    }

    /** A share of the flow with its name, and how far its bar goes, of a hundred. */
    public record ShareRow(String name, Flow.Share share, long bar) {}

    private static List<ShareRow> shares(List<Flow.Share> shares, UnaryOperator<String> named) {
        int most = shares.stream().mapToInt(Flow.Share::entered).max().orElse(0);
        return shares.stream()
                .map(s -> new ShareRow(named.apply(s.of()), s, most == 0 ? 0 : 100L * s.entered() / most))
                .toList();
    }

    /**
     * The flow by itself: by stage, by product, by what for.
     *
     * @param weeks how many; {@code product} the id of a shelf, or empty for all
     */
    @GetMapping("/changes/flow")
    String flow(
            Actor actor,
            @RequestParam Optional<Integer> weeks,
            @RequestParam(defaultValue = "") String product,
            Model model) {
        Map<Long, String> products = read.products(actor);
        Optional<Long> shelf = product.matches("\\d{1,18}") ? Optional.of(Long.valueOf(product)) : Optional.empty();
        if (shelf.filter(s -> !products.containsKey(s)).isPresent()) throw new NotThere();
        int many = weeks.filter(n -> n >= 4 && n <= Flow.MOST).orElse(WEEKS);
        Flow flow = read.flow(actor, many, shelf);
        model.addAttribute("flow", flow);
        model.addAttribute("flowPicture", FlowPicture.of(flow));
        model.addAttribute("weeks", many);
        model.addAttribute("spans", List.of(WEEKS, 26, 52, 522));
        model.addAttribute("product", product);
        model.addAttribute("products", products);
        model.addAttribute("productName", shelf.map(products::get).orElse(""));
        model.addAttribute(
                "paces",
                read.pace(actor, many, PARTS, shelf).stream().map(PaceRow::of).toList());
        model.addAttribute("part", many * 7 / PARTS);
        model.addAttribute("byProduct", shares(flow.products(), s -> products.getOrDefault(Long.valueOf(s), s)));
        model.addAttribute("byCause", shares(flow.causes(), ChangeListPages::cause));
        return "change/flow";
    }

    /** What of the papers can be listed, and how many that are. */
    public record Choice(String code, String words, int count) {}

    private static String code(Which which) {
        return which.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** @param move {@code defer} or {@code decline} */
    @GetMapping("/changes/decision")
    String decision(
            Actor actor, @RequestParam(defaultValue = "") String items, @RequestParam String move, Model model) {
        List<Long> ids = Pages.ids(items);
        if (ids.isEmpty() || !List.of("defer", "decline").contains(move)) throw new NotThere();
        model.addAttribute("plan", this.move.plan(actor, ids, move));
        model.addAttribute("move", move);
        model.addAttribute("items", items);
        return "change/decision";
    }

    @PostMapping("/changes/decision")
    String decide(
            Actor actor,
            @RequestParam String actKey,
            @RequestParam String items,
            @RequestParam String move,
            @RequestParam(defaultValue = "") String reason,
            @RequestParam(defaultValue = "") String until) {
        if (!List.of("defer", "decline").contains(move)) throw new NotThere();
        return "redirect:" + this.move.decide(actor, Pages.ids(items), actKey, move, reason, RequestPages.day(until));
    }
}
