package mintshelf.app.api;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.use.change.AskForChange;
import mintshelf.app.use.change.CarryOutOrder;
import mintshelf.app.use.change.MoveOrder;
import mintshelf.app.use.change.MoveRequest;
import mintshelf.app.use.change.OpenRequest;
import mintshelf.app.use.change.PreviewOrder;
import mintshelf.app.use.change.ReadOrders;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Refusal;
import mintshelf.core.change.Cause;
import mintshelf.core.change.Priority;
import mintshelf.core.change.Sequence;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** The acts of change for programs: each has a plan that changes nothing and is done by the digest of what was seen. */
@Component
class ChangeActs {
    static final Set<String> NAMES = Set.of("request", "decide", "order", "start-work", "carry-out");

    private final AskForChange ask;
    private final OpenRequest open;
    private final MoveRequest requests;
    private final MoveOrder orders;
    private final PreviewOrder preview;
    private final CarryOutOrder carryOut;
    private final ReadOrders read;
    private final JsonMapper json;

    ChangeActs(
            AskForChange ask,
            OpenRequest open,
            MoveRequest requests,
            MoveOrder orders,
            PreviewOrder preview,
            CarryOutOrder carryOut,
            ReadOrders read,
            JsonMapper json) {
        this.ask = ask;
        this.open = open;
        this.requests = requests;
        this.orders = orders;
        this.preview = preview;
        this.carryOut = carryOut;
        this.read = read;
        this.json = json;
    }

    /** What the act would do. */
    RunApi.PlanOf plan(Actor actor, RunApi.Act act) {
        List<RunApi.Planned> rows = switch (act.act()) {
            case "order" ->
                ask.plan(actor, act.named()).stream()
                        .map(r -> row(r.seen(), says(r), r.refusal().stream().toList()))
                        .toList();
            case "request" ->
                open.plan(actor, act.named()).stream()
                        .map(r -> row(
                                r.seen(),
                                List.of("is asked about"),
                                r.refusal().stream().toList()))
                        .toList();
            case "decide" -> {
                act.needs("move", act.move());
                yield requests.plan(actor, act.named(), act.move()).rows().stream()
                        .map(r -> row(r.of().seen(), List.of(act.move()), r.refusals()))
                        .toList();
            }
            case "start-work" ->
                List.of(row(
                        read.paper(actor, order(act)),
                        List.of("starts the revisions of its lines"),
                        orders.startPlan(actor, order(act))));
            default -> carryOut(preview.preview(actor, order(act)));
        };
        String digest = ContentHash.compute(json.writeValueAsBytes(rows)).hex();
        boolean opens =
                !rows.isEmpty() && rows.stream().allMatch(r -> r.refusals().isEmpty());
        long stay = rows.stream().filter(r -> !r.refusals().isEmpty()).count();
        return new RunApi.PlanOf(
                act.act(),
                digest,
                opens,
                opens ? rows.size() + " go." : stay + " of " + rows.size() + " are in the way.",
                rows);
    }

    private static List<RunApi.Planned> carryOut(PreviewOrder.Preview preview) {
        List<RunApi.Planned> rows = new ArrayList<>();
        rows.add(row(preview.paper(), List.of("is carried out", "its notice is issued"), preview.inTheWay()));
        preview.steps().forEach(s -> rows.add(row(s.seen(), s.effects(), s.inTheWay())));
        preview.requests().forEach(r -> rows.add(row(r.seen(), List.of(r.says()), List.of())));
        return rows;
    }

    private static List<String> says(AskForChange.Row row) {
        List<String> says = new ArrayList<>();
        row.what().ifPresent(w -> says.add(w.words()));
        if (!row.ahead().isEmpty()) {
            says.add(
                    "after " + row.ahead().stream().map(Sequence.Ahead::number).collect(Collectors.joining(", then ")));
        }
        return says;
    }

    private static RunApi.Planned row(Seen seen, List<String> says, Collection<Refusal> refusals) {
        return new RunApi.Planned(
                seen.spine().id(),
                seen.document().number(),
                refusals.isEmpty() ? "GOES" : "CANNOT",
                null,
                null,
                null,
                says,
                refusals.stream()
                        .map(r -> new RunApi.Why(r.code(), r.reason(), r.remedy()))
                        .toList(),
                null);
    }

    /** The one order that an act is about. */
    private static long order(RunApi.Act act) {
        List<Long> named = act.named();
        if (named.size() == 1) return named.get(0);
        throw Refused.because(
                "act.field",
                "The act " + act.act() + " is about one order.",
                "Name it in “documents”; nothing was done.");
    }

    /** Does it; gives the address of the paper, or of the list where several were decided on. */
    String run(Actor actor, RunApi.Act act, String key) {
        String to = switch (act.act()) {
            case "order" -> ask.ask(actor, act.named(), key, text(act.title()), text(act.note()), said(actor, act));
            case "request" ->
                open.open(
                        actor,
                        act.named(),
                        key,
                        new OpenRequest.Says(
                                text(act.title()),
                                text(act.note()),
                                Cause.of(text(act.cause())),
                                Priority.USUAL,
                                Map.of(),
                                List.of()));
            case "decide" -> requests.decide(actor, act.named(), key, act.move(), text(act.note()), day(act.until()));
            case "start-work" -> orders.start(actor, order(act), key);
            default -> carryOut.carryOut(actor, order(act), key);
        };
        String id = to.replaceFirst("\\?.*", "").replaceAll("\\D", "");
        return id.isEmpty() ? "/api/v1/changes" : "/api/v1/papers/" + id;
    }

    /** Behind the orders that the plan has named. */
    private AskForChange.Said said(Actor actor, RunApi.Act act) {
        Map<Long, Long> after = new HashMap<>();
        ask.plan(actor, act.named()).stream()
                .filter(r -> r.after() != 0)
                .forEach(r -> after.put(r.seen().spine().id(), r.after()));
        return new AskForChange.Said(Map.of(), after, Optional.empty());
    }

    private static String text(String given) {
        return given == null ? "" : given;
    }

    private static Optional<LocalDate> day(String given) {
        try {
            return given == null ? Optional.empty() : Optional.of(LocalDate.parse(given));
        } catch (DateTimeException e) {
            throw Refused.because("act.until", "That is no day.", "Write it as 2026-12-01; nothing was done.");
        }
    }
}
