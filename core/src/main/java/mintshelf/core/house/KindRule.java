package mintshelf.core.house;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.change.PaperType;
import mintshelf.core.document.Aspect;
import mintshelf.core.document.Outputs;
import mintshelf.core.fact.FactSource;
import mintshelf.core.fact.RequiredAt;
import mintshelf.core.revision.RevisionSeries;
import mintshelf.core.revision.ShippedSeries;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Route;

/**
 * What a kind fixes.
 *
 * @param glyph name of its picture
 * @param series code of its number series
 * @param revisions its revision series, see {@link ShippedSeries}
 * @param labelAtStart whether a revision's label is taken when work starts, not at release
 * @param route code of its route
 * @param outputs what is made of released versions, where its route says so
 * @param paper what its documents are in a change; empty for what people file
 */
public record KindRule(
        String code,
        String name,
        Aspect aspect,
        String glyph,
        String series,
        String revisions,
        boolean labelAtStart,
        String route,
        Optional<PaperType> paper,
        List<OnSheet> facts,
        Outputs outputs)
        implements Rule {
    private static final int MOST_FACTS = 100;

    public KindRule {
        facts = List.copyOf(facts);
    }

    /** A kind that makes what is usual of its released versions. */
    public KindRule(
            String code,
            String name,
            Aspect aspect,
            String glyph,
            String series,
            String revisions,
            boolean labelAtStart,
            String route,
            Optional<PaperType> paper,
            List<OnSheet> facts) {
        this(code, name, aspect, glyph, series, revisions, labelAtStart, route, paper, facts, Outputs.USUAL);
    }

    /** Whether what is of it has no file. */
    public boolean isPart() {
        return aspect == Aspect.PART;
    }

    /** Whether files are filed as it. */
    public boolean isFiled() {
        return paper.isEmpty() && !isPart();
    }

    /** The same kind going another route. */
    public KindRule onRoute(String other) {
        return new KindRule(code, name, aspect, glyph, series, revisions, labelAtStart, other, paper, facts, outputs);
    }

    /** A second kind that fixes the same. */
    public KindRule copied(String as, String named) {
        return new KindRule(as, named, aspect, glyph, series, revisions, labelAtStart, route, paper, facts, outputs);
    }

    /**
     * A fact on the fact sheet, by its code, in the sheet's order.
     *
     * @param cleared whether a new document that begins as a copy begins without it
     */
    public record OnSheet(String fact, RequiredAt required, boolean cleared) {
        public OnSheet(String fact, RequiredAt required) {
            this(fact, required, false);
        }

        /** As an edition says it: "never", "for release; copies begin without it". */
        public String says() {
            return required.words() + (cleared ? "; copies begin without it" : "");
        }
    }

    @Override
    public Subject subject() {
        return Subject.KIND;
    }

    @Override
    public List<RuleLine> lines(House house) {
        List<RuleLine> lines = new ArrayList<>();
        lines.add(RuleLine.of("Name", name));
        lines.add(RuleLine.of("Number", "drawn from the series " + House.name(house.series(), series)));
        String labels = ShippedSeries.read(revisions) instanceof Outcome.Granted<RevisionSeries> s
                ? s.value().says()
                : revisions;
        lines.add(
                RuleLine.of("Revision", labels + "; taken " + (labelAtStart ? "at the start of work" : "at release")));
        lines.add(RuleLine.of("Route", house.route(route)));
        if (paper.isEmpty()) lines.add(RuleLine.of("Made at release", outputs.says()));
        for (OnSheet fact : facts) {
            lines.add(new RuleLine("fact " + fact.fact(), house.fact(fact.fact()), fact.says()));
        }
        return List.copyOf(lines);
    }

    @Override
    public List<Refusal> ask(House house) {
        List<Refusal> wrong = new ArrayList<>();
        Rule.named(name, 80).ifPresent(wrong::add);
        outputs.ask().ifPresent(wrong::add);
        if (!house.series().containsKey(series)) {
            wrong.add(Refusal.of("kind.series", "It names a number series that is not there.", "Choose one."));
        }
        ShippedSeries.read(revisions).refusal().ifPresent(wrong::add);
        Route way = house.routes().get(route);
        if (way == null) {
            wrong.add(Refusal.of("kind.route", "It names a route that is not there.", "Choose one."));
        } else {
            route(way, wrong);
        }
        Set<String> seen = new HashSet<>();
        for (OnSheet fact : facts) {
            if (!house.facts().containsKey(fact.fact())) {
                wrong.add(Refusal.of(
                        "kind.fact",
                        "It names a fact that is not there: " + fact.fact() + ".",
                        "Make the fact first."));
            } else if (!seen.add(fact.fact())) {
                wrong.add(Refusal.of(
                        "kind.fact", house.fact(fact.fact()) + " stands twice on its fact sheet.", "Take one away."));
            } else if (neverFilled(house.facts().get(fact.fact()), fact.required())) {
                wrong.add(Refusal.of(
                        "kind.fact",
                        house.fact(fact.fact()) + " is what a title block says, and " + name + " has none.",
                        "Let it stay empty, or let people type it."));
            }
        }
        if (facts.size() > MOST_FACTS) {
            wrong.add(
                    Refusal.of("kind.facts", "A fact sheet has at most " + MOST_FACTS + " facts.", "Take some away."));
        }
        return List.copyOf(wrong);
    }

    /** What is required and can come from nowhere: nothing of this kind could ever be released. */
    private boolean neverFilled(FactRule fact, RequiredAt required) {
        return aspect != Aspect.DRAWING
                && required != RequiredAt.NEVER
                && fact.use().source() == FactSource.SHEET;
    }

    /** A paper goes a route that does what its paper does; what people file goes one that they can move along. */
    private void route(Route way, List<Refusal> wrong) {
        boolean orders = way.moves().stream().anyMatch(m -> m.does(Effect.START_LINES) || m.does(Effect.RELEASE_LINES));
        boolean order = paper.filter(PaperType.ORDER::equals).isPresent();
        if (order != orders) {
            wrong.add(Refusal.of(
                    "kind.route",
                    order
                            ? way.name() + " does not start and release the lines of an order."
                            : way.name() + " is for change orders; it would look for lines that are not there.",
                    "Choose another route."));
        } else if (paper.isEmpty() && way.moves().isEmpty()) {
            wrong.add(Refusal.of("kind.route", "Nobody can move along " + way.name() + ".", "Choose another route."));
        }
    }
}
