package mintshelf.app.use.design;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.FreshFacts;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.FactNames;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.KindFact;
import mintshelf.app.use.design.DesignTree.Tree;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Aspect;
import mintshelf.core.fact.FactReader;
import mintshelf.core.reuse.NumberRule;
import mintshelf.core.revision.RevisionRules;
import mintshelf.core.revision.ShippedSeries;
import mintshelf.core.structure.StructureView;
import org.springframework.stereotype.Service;

/** A new design as its page shows it before it is made. */
@Service
public class ReadDesign {
    private final PlanDesign planning;
    private final FreshFacts sheets;
    private final FactStore facts;
    private final HouseStore house;
    private final FactNames names;

    public ReadDesign(PlanDesign planning, FreshFacts sheets, FactStore facts, HouseStore house, FactNames names) {
        this.planning = planning;
        this.sheets = sheets;
        this.facts = facts;
        this.house = house;
        this.names = names;
    }

    /**
     * What is asked for.
     *
     * @param from left side of the rule, {@code to} its right side; empty until it is written
     * @param series whether numbers come from the series of kinds instead
     * @param wish with what was typed for single things
     */
    public record Asked(String from, String to, boolean series, Wish.Design wish) {
        /** Whether it says anything of numbers yet. */
        public boolean begun() {
            return series || !to.isBlank() || !wish.numbers().isEmpty();
        }
    }

    /** A fact that can be said otherwise. */
    public record Offered(String name, String label) {}

    /**
     * A fact that is said otherwise.
     *
     * @param documents of how many
     */
    public record Said(String label, String from, String to, long documents) {}

    /** A field of the title block that the top's sheet will have. */
    public record Field(String label, String value, boolean anew) {}

    /**
     * @param rule what is wrong with the rule; nothing where it can be followed or is not written yet
     */
    public record View(
            Outline outline,
            Optional<Refusal> rule,
            List<Offered> facts,
            List<Said> said,
            List<Field> block,
            List<Refusal> refusals) {}

    /** What a design from a document begins with: the view of what is in force, where it is, and a rule that fits its number. */
    public Asked first(Actor actor, long root) {
        Seen top = planning.top(actor, root);
        StructureView view =
                top.document().released().isPresent() ? StructureView.LATEST_RELEASED : StructureView.LATEST;
        return new Asked(NumberRule.like(top.document().number()), "", false, plain(root, view));
    }

    /** Nothing asked for but the document. */
    public static Wish.Design plain(long root, StructureView view) {
        return new Wish.Design(root, view, Map.of(), Optional.empty(), "", List.of(), List.of(), true);
    }

    /** Nothing is changed. */
    public View of(Actor actor, Asked asked) {
        Outcome<NumberRule> rule = NumberRule.of(asked.from(), asked.to());
        Tree tree = planning.tree(actor, asked.wish());
        // A rule that says nothing yet leaves every number as it is: what was typed stands.
        Optional<NumberRule> read = asked.series() ? Optional.empty() : rule.toOptional();
        Outline outline = read.isPresent() || asked.series()
                ? planning.byRule(actor, asked.wish(), tree, read)
                : planning.asSaid(actor, asked.wish(), tree);
        Optional<Refusal> wrong = asked.series() || asked.to().isBlank() ? Optional.empty() : rule.refusal();
        List<Refusal> refusals = new ArrayList<>(outline.refusals());
        wrong.ifPresent(r -> refusals.add(0, r));
        Map<String, String> labels = labels(outline);
        List<Said> said = said(actor, asked.wish(), outline, labels, refusals);
        List<Offered> offered = labels.entrySet().stream()
                .map(e -> new Offered(e.getKey(), e.getValue()))
                .toList();
        return new View(outline, wrong, offered, said, block(actor, outline, said), refusals);
    }

    /** The facts that people type, of the kinds in it. */
    private Map<String, String> labels(Outline outline) {
        Set<Long> kinds = new LinkedHashSet<>();
        outline.tree()
                .rows()
                .forEach(r -> r.nodes()
                        .forEach(n -> kinds.add(n.seen().document().place().kind())));
        Map<String, String> labels = new LinkedHashMap<>();
        for (long kind : kinds)
            for (KindFact fact : sheets.sheet(house.kind(kind)))
                if (fact.fact().use().source().isTyped())
                    labels.putIfAbsent(fact.fact().name(), fact.fact().label());
        return labels;
    }

    private List<Said> said(
            Actor actor, Wish.Design wish, Outline outline, Map<String, String> labels, List<Refusal> refusals) {
        if (wish.facts().isEmpty()) return List.of();
        Map<Long, Map<String, String>> all = facts.facts(outline.copies().stream()
                .map(c -> c.from().version().revision())
                .toList());
        List<Said> said = new ArrayList<>();
        for (Wish.Design.Fact fact : wish.facts()) {
            long documents = all.values().stream()
                    .map(f -> f.getOrDefault(fact.name(), ""))
                    .filter(v -> !v.isEmpty()
                            && (fact.from().isEmpty() || fact.from().equals(v)))
                    .count();
            String label = labels.getOrDefault(fact.name(), fact.name());
            said.add(new Said(label, fact.from(), fact.to(), documents));
            if (!labels.containsKey(fact.name()))
                refusals.add(Refusal.of(
                        "fact.unknown",
                        "There is no fact “" + fact.name() + "” in this design.",
                        "Choose another one."));
            definition(outline, fact.name())
                    .flatMap(d -> FactReader.read(d.fact(), fact.to(), names.of(actor))
                            .refusal())
                    .ifPresent(refusals::add);
        }
        return said;
    }

    private Optional<KindFact> definition(Outline outline, String name) {
        return outline.copies().stream()
                .map(c -> c.from().seen().document().place().kind())
                .distinct()
                .flatMap(k -> sheets.sheet(house.kind(k)).stream())
                .filter(f -> f.fact().name().equals(name))
                .findFirst();
    }

    /** What the top's title block will say. */
    private List<Field> block(Actor actor, Outline outline, List<Said> said) {
        long top = outline.tree().top().id();
        Optional<Outline.Copy> sheet = outline.copies().stream()
                .filter(c -> c.thing() == top)
                .min((a, b) -> Boolean.compare(
                        a.from().aspect() != Aspect.DRAWING, b.from().aspect() != Aspect.DRAWING));
        if (sheet.isEmpty()) return List.of();
        Outline.Copy copy = sheet.get();
        Kind kind = house.kind(copy.from().seen().document().place().kind());
        String label = RevisionRules.firstLabel(ShippedSeries.of(kind.revisionSeries()), kind.labelAtStart(), "")
                .toOptional()
                .flatMap(l -> l)
                .orElse("–");
        List<Field> block = new ArrayList<>();
        block.add(new Field("Number", copy.number(), true));
        block.add(new Field(
                "Title", copy.title(), !copy.title().equals(copy.from().title())));
        block.add(new Field("Revision", label, false));
        block.add(new Field("Made by", actor.name(), false));
        said.stream().filter(s -> s.documents() > 0).forEach(s -> block.add(new Field(s.label(), s.to(), true)));
        return block;
    }
}
