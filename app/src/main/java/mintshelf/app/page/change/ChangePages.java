package mintshelf.app.page.change;

import jakarta.servlet.http.HttpServletResponse;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.page.OneNumber;
import mintshelf.app.page.Pages;
import mintshelf.app.page.Rows;
import mintshelf.app.sight.OnOrders;
import mintshelf.app.sight.Seen;
import mintshelf.app.use.change.AskForChange;
import mintshelf.app.use.change.CarryOutOrder;
import mintshelf.app.use.change.EditOrder;
import mintshelf.app.use.change.KeepDisposition;
import mintshelf.app.use.change.MoveOrder;
import mintshelf.app.use.change.OpenRequest;
import mintshelf.app.use.change.PreviewOrder;
import mintshelf.app.use.change.ReadImpact;
import mintshelf.app.use.change.ReadOrders;
import mintshelf.app.use.change.ShowGoal;
import mintshelf.core.base.Refusal;
import mintshelf.core.change.Cause;
import mintshelf.core.change.Effective;
import mintshelf.core.change.PaperType;
import mintshelf.core.change.Priority;
import mintshelf.core.change.Sequence;
import mintshelf.core.route.Effect;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Changes: the list of orders, asking for one, an order with its lines, its board, its preview and its notice. */
@Controller
public class ChangePages {
    private final AskForChange ask;
    private final ReadOrders read;
    private final MoveOrder move;
    private final CarryOutOrder carryOut;
    private final PreviewOrder preview;
    private final ReadImpact impact;
    private final OpenRequest open;
    private final EditOrder edit;
    private final BesideOrder beside;

    /** Lines whose old ones its page shows. */
    private static final int OLD = 20;

    /** Documents that a job over the order starts from. */
    private static final int JOB = 50;

    public ChangePages(
            AskForChange ask,
            ReadOrders read,
            MoveOrder move,
            CarryOutOrder carryOut,
            PreviewOrder preview,
            ReadImpact impact,
            OpenRequest open,
            EditOrder edit,
            BesideOrder beside) {
        this.ask = ask;
        this.read = read;
        this.move = move;
        this.carryOut = carryOut;
        this.preview = preview;
        this.impact = impact;
        this.open = open;
        this.edit = edit;
        this.beside = beside;
    }

    /**
     * A document that a change is asked of.
     *
     * @param asks why no request names it; {@code orders} why no order has it; it stays out where both are there
     */
    public record AskRow(Seen seen, Optional<Refusal> asks, Optional<Refusal> orders, List<Sequence.Ahead> ahead) {
        /** The order behind which it goes on another one; 0 where it is on none. */
        public long after() {
            return ahead.isEmpty() ? 0 : ahead.get(ahead.size() - 1).order();
        }

        /** What an order over it waits for, in words; empty for nothing. */
        public String waits() {
            if (ahead.isEmpty() || orders.isPresent()) return "";
            String named = ahead.stream().map(Sequence.Ahead::number).collect(Collectors.joining(", then "));
            return "on an order it goes after " + named + ": it starts from what that releases";
        }

        public boolean stays() {
            return asks.isPresent() && orders.isPresent();
        }

        /** What is said of one that goes one way only. */
        public String only() {
            if (asks.isPresent() == orders.isPresent()) return "";
            return asks.isPresent()
                    ? "only by an order: " + asks.get().reason()
                    : "only by a request: " + orders.get().reason();
        }
    }

    /**
     * Where a change begins that nobody selected documents for: by their numbers.
     *
     * @param numbers parted by lines, commas or semicolons; empty for the field to write them into
     */
    @GetMapping("/changes/new")
    String begin(@RequestParam(defaultValue = "") String numbers, Actor actor) {
        if (numbers.isBlank()) return "change/new";
        return "redirect:/ask-for-change?items="
                + ask.named(actor, numbers).stream().map(i -> Long.toString(i)).collect(Collectors.joining(","));
    }

    /**
     * @param request one that was accepted: then an order takes it up
     * @param evidence a version that is named from the start
     * @param reason what is wrong, as it is said where one comes from: a remark, a stray
     */
    @GetMapping("/ask-for-change")
    String askPage(
            Actor actor,
            @RequestParam String items,
            @RequestParam Optional<Long> request,
            @RequestParam(defaultValue = "") String evidence,
            @RequestParam(defaultValue = "") String reason,
            Model model) {
        List<Long> ids = Pages.ids(items);
        Map<Long, AskForChange.Row> orders = new HashMap<>();
        ask.plan(actor, ids).forEach(r -> orders.put(r.seen().spine().id(), r));
        List<AskRow> rows = open.plan(actor, ids).stream()
                .map(r -> {
                    AskForChange.Row order = orders.get(r.seen().spine().id());
                    return new AskRow(r.seen(), r.refusal(), order.refusal(), order.ahead());
                })
                .toList();
        List<AskRow> opening = rows.stream().filter(r -> !r.stays()).toList();
        List<AskRow> asks = opening.stream().filter(r -> r.asks().isEmpty()).toList();
        List<AskRow> ordered =
                opening.stream().filter(r -> r.orders().isEmpty()).toList();
        boolean byRequest = !asks.isEmpty() && request.isEmpty();
        boolean byOrder = !ordered.isEmpty();
        boolean first = byRequest
                && (asks.size() > ordered.size() || open.asksFirst(asks.get(0).seen()));
        model.addAttribute("rows", rows);
        model.addAttribute("opening", first ? asks.size() : ordered.size());
        model.addAttribute(
                "askedIds", Rows.joined(asks.stream().map(AskRow::seen).toList()));
        model.addAttribute(
                "orderedIds", Rows.joined(ordered.stream().map(AskRow::seen).toList()));
        model.addAttribute("outlined", byOrder ? ask.outlined(actor) : List.of());
        model.addAttribute("taken", request.isPresent() ? read.paper(actor, request.get()) : null);
        model.addAttribute("byRequest", byRequest);
        model.addAttribute("byOrder", byOrder);
        model.addAttribute("first", first);
        model.addAttribute("evidence", evidence);
        model.addAttribute("reason", reason);
        model.addAttribute("causes", Cause.values());
        model.addAttribute("priorities", Priority.values());
        model.addAttribute("requestKinds", ask.kinds(actor, PaperType.REQUEST));
        model.addAttribute("orderKinds", ask.kinds(actor, PaperType.ORDER));
        return "change/ask";
    }

    /**
     * Field {@code order}: id of an outlined order, or empty for a new one of {@code orderKind}; {@code request}: what it takes up. Fields {@code why.ID}: a
     * document's own reason; {@code after.ID}: the order behind which it goes. A form that asks for a request is posted to its own address.
     */
    @PostMapping("/ask-for-change")
    String ask(
            Actor actor,
            @RequestParam String items,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String order,
            @RequestParam Optional<Long> request,
            @RequestParam(defaultValue = "") String title,
            @RequestParam(defaultValue = "") String reason,
            @RequestParam Optional<String> orderKind,
            @RequestParam Map<String, String> form) {
        Map<Long, Long> after = new HashMap<>();
        numbered(form, "after").forEach((item, ahead) -> {
            if (ahead.matches("\\d{1,18}")) after.put(item, Long.valueOf(ahead));
        });
        AskForChange.Said said = new AskForChange.Said(numbered(form, "why"), after, request, orderKind);
        if (order.matches("\\d{1,18}")) {
            return "redirect:" + ask.addTo(actor, Long.parseLong(order), Pages.ids(items), actKey, said);
        }
        return "redirect:" + ask.ask(actor, Pages.ids(items), actKey, title, reason, said);
    }

    static Map<Long, String> numbered(Map<String, String> form, String prefix) {
        Map<Long, String> values = new HashMap<>();
        form.forEach((name, value) -> {
            if (name.matches(prefix + "\\.\\d{1,18}")) {
                values.put(Long.valueOf(name.substring(prefix.length() + 1)), value);
            }
        });
        return values;
    }

    /** The page of a paper, whichever it is. */
    @GetMapping("/changes/{id}")
    String paper(@PathVariable long id) {
        return "redirect:/documents/" + id;
    }

    @GetMapping("/orders/{id}")
    String order(
            Actor actor,
            @PathVariable long id,
            @RequestParam(required = false) String done,
            @RequestParam(required = false) String edit,
            Model model) {
        ReadOrders.View view = fill(actor, id, model);
        model.addAttribute("done", done != null);
        model.addAttribute("edit", edit != null && read.offers(actor, view).edits());
        model.addAttribute("requests", read.takenUp(actor, id));
        List<OnOrders.GoalView> goals = read.goals(actor, id);
        model.addAttribute("goals", goals);
        model.addAttribute(
                "met", goals.stream().filter(g -> g.inTheWay().isEmpty()).count());
        model.addAttribute("mayShow", ShowGoal.may(actor, view.seen()));
        model.addAttribute("effectives", Effective.By.values());
        KeepDisposition.View old = beside.old(actor, id);
        model.addAttribute("old", old);
        model.addAttribute(
                "oldRows", old.lines().subList(0, Math.min(OLD, old.lines().size())));
        model.addAttribute("jobs", beside.jobs(actor, id));
        model.addAttribute("facts", beside.facts(actor, id));
        model.addAttribute(
                "lineIds",
                view.lines().stream()
                        .limit(JOB)
                        .map(l -> Long.toString(l.line().item()))
                        .collect(Collectors.joining(",")));
        model.addAttribute(
                "reach", impact.shows(actor, view.seen()) ? impact.of(actor, id).reach() : null);
        return "change/order";
    }

    /** The lines alone, for a page that follows: nothing new while {@code mark} still holds. */
    @GetMapping("/orders/{id}/lines")
    String lines(
            Actor actor, @PathVariable long id, @RequestParam String mark, HttpServletResponse response, Model model) {
        ReadOrders.View view = fill(actor, id, model);
        if (view.mark().equals(mark)) {
            response.setStatus(204);
            return null;
        }
        return "change/_lines :: lines";
    }

    private ReadOrders.View fill(Actor actor, long id, Model model) {
        ReadOrders.View view = read.order(actor, id);
        ReadOrders.Offers offers = read.offers(actor, view);
        model.addAttribute("view", view);
        model.addAttribute(
                "others",
                OneNumber.of(
                        view.lines().stream().flatMap(l -> l.seen().stream()).toList()));
        model.addAttribute("edit", false);
        List<Seen> takeable = read.takeable(actor, view);
        model.addAttribute("takeable", Rows.joined(takeable));
        model.addAttribute("takes", takeable.size());
        model.addAttribute(
                "ready", view.lines().stream().allMatch(l -> l.state().isReady()));
        model.addAttribute("offers", offers);
        return view;
    }

    /**
     * Fields {@code why.LINE}: reasons by line; {@code remove.LINE}: lines that go; {@code what.LINE}: {@code WITHDRAW} for one whose
     * document is withdrawn, with the number of what takes its place in {@code instead.LINE}; {@code FACTS} for one of which facts change
     * only; {@code variants.LINE} where it is asked which variants a line is about, {@code variant.LINE.N} for each of them.
     */
    @PostMapping("/orders/{id}/lines")
    String edit(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String reason,
            @RequestParam(defaultValue = "") String effectiveBy,
            @RequestParam(defaultValue = "") String effectiveFrom,
            @RequestParam Map<String, String> form) {
        Map<Long, String> instead = numbered(form, "instead");
        Map<Long, String> withdrawn = new HashMap<>();
        List<Long> kept = new ArrayList<>();
        List<Long> facts = new ArrayList<>();
        numbered(form, "what").forEach((line, what) -> {
            if (what.equals("WITHDRAW")) withdrawn.put(line, instead.getOrDefault(line, ""));
            else if (what.equals("FACTS")) facts.add(line);
            else kept.add(line);
        });
        return "redirect:"
                + edit.edit(
                        actor,
                        id,
                        actKey,
                        new EditOrder.Written(
                                reason,
                                numbered(form, "why"),
                                numbered(form, "remove").keySet(),
                                withdrawn,
                                facts,
                                kept,
                                variants(form),
                                effectiveBy,
                                effectiveFrom));
    }

    private static Map<Long, List<String>> variants(Map<String, String> form) {
        Map<Long, List<String>> variants = new HashMap<>();
        for (long line : numbered(form, "variants").keySet()) {
            String field = "variant." + line + ".";
            variants.put(
                    line,
                    form.entrySet().stream()
                            .filter(e -> e.getKey().startsWith(field))
                            .sorted(Map.Entry.comparingByKey())
                            .map(Map.Entry::getValue)
                            .toList());
        }
        return variants;
    }

    @PostMapping("/orders/{id}/start")
    String start(Actor actor, @PathVariable long id, @RequestParam String actKey) {
        return "redirect:" + move.start(actor, id, actKey);
    }

    @GetMapping("/orders/{id}/board")
    String boardPage(Actor actor, @PathVariable long id, Model model) {
        ReadOrders.View view = fill(actor, id, model);
        if (view.route().doing(Effect.OPEN_ROUND, view.stage()).isEmpty()) {
            throw Refused.because(
                    "move.stage",
                    view.seen().document().number() + " is "
                            + view.seen().current().stage().name() + ".",
                    "Only an order that is under way goes before the board.");
        }
        model.addAttribute("plan", move.boardPlan(actor, id));
        return "change/board";
    }

    @PostMapping("/orders/{id}/board")
    String board(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String note,
            @RequestParam Map<String, String> form) {
        Map<Integer, Long> named = new HashMap<>();
        numbered(form, "named").forEach((line, person) -> {
            if (person.matches("\\d{1,18}")) named.put(line.intValue(), Long.valueOf(person));
        });
        return "redirect:" + move.toBoard(actor, id, actKey, note, named);
    }

    @GetMapping("/orders/{id}/carry-out")
    String carryOutPage(Actor actor, @PathVariable long id, Model model) {
        model.addAttribute("preview", preview.preview(actor, id));
        return "change/carry-out";
    }

    /** @param told ids of those who are told of it */
    @PostMapping("/orders/{id}/carry-out")
    String carryOut(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") List<Long> told) {
        return "redirect:" + carryOut.carryOut(actor, id, actKey, Optional.of(told));
    }

    @PostMapping("/orders/{id}/stop")
    String stop(Actor actor, @PathVariable long id, @RequestParam String actKey, @RequestParam String reason) {
        return "redirect:" + move.stop(actor, id, actKey, reason);
    }

    /** The order that made a notice. */
    @GetMapping("/notices/{id}/order")
    String ofNotice(Actor actor, @PathVariable long id) {
        long order = read.ofNotice(id).orElseThrow(NotThere::new);
        read.order(actor, order); // whether the actor may know of it
        return "redirect:/orders/" + order;
    }
}
