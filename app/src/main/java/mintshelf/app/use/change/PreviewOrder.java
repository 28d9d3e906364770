package mintshelf.app.use.change;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import mintshelf.app.effect.Arrivals;
import mintshelf.app.effect.Bundles;
import mintshelf.app.effect.FallingSignOffs;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.round.RoundStore;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Refusal;
import mintshelf.core.change.OrderRules;
import mintshelf.core.change.PaperLine;
import mintshelf.core.document.Document;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.By;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Move;
import mintshelf.core.route.Way;
import mintshelf.core.signoff.Round;
import org.springframework.stereotype.Service;

/** What carrying an order out would do; nothing is changed. */
@Service
public class PreviewOrder {
    private final Sight sight;
    private final PaperStore orders;
    private final RoundStore rounds;
    private final Bundles bundles;
    private final Arrivals arrivals;
    private final FallingSignOffs signOffs;
    private final DecideAlong along;
    private final WhoIsTold told;
    private final SpineStore spines;

    public PreviewOrder(
            Sight sight,
            PaperStore orders,
            RoundStore rounds,
            Bundles bundles,
            Arrivals arrivals,
            FallingSignOffs signOffs,
            DecideAlong along,
            WhoIsTold told,
            SpineStore spines) {
        this.sight = sight;
        this.orders = orders;
        this.rounds = rounds;
        this.bundles = bundles;
        this.arrivals = arrivals;
        this.signOffs = signOffs;
        this.along = along;
        this.told = told;
        this.spines = spines;
    }

    /** What will happen to a document, in sentences. */
    public record Step(Seen seen, PaperLine line, List<String> effects, List<Refusal> inTheWay) {}

    /** A request that nobody has decided on: what carrying the order out does to it. */
    public record Decided(Seen seen, String says) {}

    /** All that carrying out does, before it is done; no steps while the order is not before its board. */
    public record Preview(
            Seen paper, List<Step> steps, List<Decided> requests, WhoIsTold.Told told, List<Refusal> inTheWay) {
        public boolean opens() {
            return inTheWay.isEmpty()
                    && steps.stream().allMatch(s -> s.inTheWay().isEmpty());
        }

        /** Reasons and remedies of all that is in the way. */
        public List<String> says() {
            return Stream.concat(inTheWay.stream(), steps.stream().flatMap(s -> s.inTheWay().stream()))
                    .map(Refusal::says)
                    .toList();
        }
    }

    /** Nothing is changed. */
    public Preview preview(Actor actor, long order) {
        List<PaperLine> lines = orders.lines(order);
        List<Long> all = new ArrayList<>(lines.stream().map(PaperLine::item).toList());
        all.add(order);
        Map<Long, Seen> seen = sight.of(actor, all);
        if (orders.order(order).isEmpty()
                || seen.size() != all.size()
                || !seen.get(order).all()) throw new NotThere();
        return preview(actor, seen.get(order), lines, seen);
    }

    /** As the act asks it under its locks. */
    Preview preview(Actor actor, Seen paper, List<PaperLine> lines, Map<Long, Seen> seen) {
        Plan<Bundles.Going> own = bundles.plan(actor, List.of(paper), Way.doing(Effect.RELEASE_LINES), By.HAND);
        if (own.rows().get(0).of().move().isEmpty()) {
            return new Preview(
                    paper,
                    List.of(),
                    List.of(),
                    new WhoIsTold.Told(List.of(), List.of(), Map.of()),
                    List.of(Refusal.of(
                            "move.stage",
                            paper.document().number() + " is "
                                    + paper.current().stage().name() + ".",
                            "It is carried out from the board.")));
        }
        Map<Long, RoundStore.Item> signed = new HashMap<>();
        board(paper).ifPresent(r -> rounds.items(r.id()).forEach(i -> signed.put(i.item(), i)));
        Map<Long, Plan.Row<Bundles.Going>> ways = new HashMap<>();
        Set<Long> gone = withdrawn(lines);
        bundles.plan(actor, documents(lines, seen), s -> way(gone, s), s -> By.ORDER)
                .rows()
                .forEach(row -> ways.put(row.of().document().id(), row));
        List<Step> steps = lines.stream()
                .map(line -> line.factsOnly()
                        ? facts(paper, line, seen.get(line.item()))
                        : step(line, ways.get(line.item()), signed.get(line.item())))
                .toList();
        return new Preview(paper, steps, requests(actor, paper), told.of(paper, board(paper)), own.refusals());
    }

    private List<Decided> requests(Actor actor, Seen paper) {
        List<Seen> undecided = along.undecided(actor, paper.spine().id());
        return along.plan(actor, undecided).rows().stream()
                .map(row -> new Decided(
                        row.of().seen(),
                        row.refusals().isEmpty()
                                ? "is accepted with it"
                                        + (row.of().seen().current().stage().stageClass() == StageClass.DECIDING
                                                ? "; its own round ends"
                                                : "")
                                : "stays as it is: " + row.refusals().get(0).reason()))
                .toList();
    }

    static Set<Long> withdrawn(List<PaperLine> lines) {
        return lines.stream().filter(PaperLine::withdraws).map(PaperLine::item).collect(Collectors.toSet());
    }

    /** The way of a line's document when its order is carried out. */
    static Way way(Set<Long> withdrawn, Seen seen) {
        return withdrawn.contains(seen.spine().id()) ? Way.withdrawn() : Way.released();
    }

    /** The documents of the lines that move, in their order: not those of which facts change only. */
    static List<Seen> documents(List<PaperLine> lines, Map<Long, Seen> seen) {
        return lines.stream()
                .filter(line -> !line.factsOnly())
                .map(line -> seen.get(line.item()))
                .toList();
    }

    /** The round of an order's board. */
    Optional<Round> board(Seen paper) {
        return rounds.openRound(paper.spine().id()).flatMap(rounds::round);
    }

    private Step step(PaperLine line, Plan.Row<Bundles.Going> way, RoundStore.Item signed) {
        return line.withdraws() ? withdrawal(line, way) : release(line, way, signed);
    }

    private Step facts(Seen paper, PaperLine line, Seen seen) {
        long order = paper.spine().id();
        List<Refusal> inTheWay = new ArrayList<>(
                OrderRules.factsOnly(line, seen.document()).stream().toList());
        if (inTheWay.isEmpty()) inTheWay.addAll(along.facts().inTheWay(order, seen));
        return new Step(
                seen,
                line,
                along
                        .facts()
                        .says(order, List.of(line), Map.of(line.item(), seen))
                        .getOrDefault(line.item(), List.of())
                        .stream()
                        .map(s -> s + ".")
                        .toList(),
                inTheWay);
    }

    private Step withdrawal(PaperLine line, Plan.Row<Bundles.Going> way) {
        Document document = way.of().document();
        List<Refusal> inTheWay = new ArrayList<>();
        OrderRules.withdraw(line, document).ifPresentOrElse(inTheWay::add, () -> inTheWay.addAll(way.refusals()));
        List<String> effects = new ArrayList<>();
        document.released().ifPresent(r -> effects.add("Revision " + r.shown() + " is withdrawn."));
        line.successor()
                .flatMap(spines::spine)
                .ifPresent(s ->
                        effects.add(s.document().number() + " " + s.document().title() + " takes its place."));
        return new Step(way.of().seen(), line, effects, inTheWay);
    }

    private Step release(PaperLine line, Plan.Row<Bundles.Going> way, RoundStore.Item signed) {
        Seen seen = way.of().seen();
        Document document = seen.document();
        List<Refusal> inTheWay = new ArrayList<>();
        List<String> effects = new ArrayList<>();
        Optional<Move> release = way.of().move();
        boolean named = document.pending().isPresent()
                && document.pending().map(r -> r.id()).equals(line.toRevision());
        if (release.isEmpty() || !named) {
            inTheWay.add(Refusal.of(
                    "order.line",
                    document.number() + " has no revision of this order that could be released.",
                    "Take the order back and look at the line."));
        } else {
            inTheWay.addAll(way.refusals());
            if (signed == null || !signOffs.item(document).digest().equals(signed.digest())) {
                inTheWay.add(Refusal.of(
                        "order.moved",
                        document.number() + " is not what the board signed any more.",
                        "Take the order back and put it before the board again."));
            }
            effects.add("Revision " + document.pending().get().shown() + " with version "
                    + document.head().number() + " is released.");
            document.released()
                    .ifPresent(r -> effects.add("Revision " + r.shown() + " is superseded at the same moment."));
            if (release.get().does(Effect.WRITE_SHEET)) {
                effects.add(arrivals.silent(
                                way.of().route(), release.get(), seen.spine().content())
                        .map(why -> "Nothing is written into its sheet: " + why)
                        .orElse("Its title block is written from the record, a PDF is made."));
            }
        }
        return new Step(seen, line, effects, inTheWay);
    }
}
