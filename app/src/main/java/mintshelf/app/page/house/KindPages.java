package mintshelf.app.page.house;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.store.house.Edition;
import mintshelf.app.use.house.FillFacts;
import mintshelf.app.use.house.KeepRules;
import mintshelf.app.use.house.ReadRules;
import mintshelf.app.use.person.ReadReach;
import mintshelf.core.base.Outcome;
import mintshelf.core.document.Aspect;
import mintshelf.core.document.OutputFormat;
import mintshelf.core.document.Outputs;
import mintshelf.core.fact.RequiredAt;
import mintshelf.core.house.FactRule;
import mintshelf.core.house.House;
import mintshelf.core.house.KindRule;
import mintshelf.core.house.Subject;
import mintshelf.core.revision.RevisionSeries;
import mintshelf.core.revision.ShippedSeries;
import mintshelf.core.route.RouteMap;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Kinds: what each fixes, on one card, in sentences that are edited where they stand. */
@Controller
public class KindPages {
    /** The seven series, as a kind keeps them. */
    private static final List<String> SERIES =
            List.of("asme", "asme dash", "letters", "numbers", "padded 2 0", "two-part", "two-phase");

    private final ReadRules read;
    private final KeepRules keep;
    private final FillFacts fill;
    private final ReadReach may;

    public KindPages(ReadRules read, KeepRules keep, FillFacts fill, ReadReach may) {
        this.read = read;
        this.keep = keep;
        this.fill = fill;
        this.may = may;
    }

    /** A kind in the list. */
    public record KindLine(KindRule kind, Edition edition, String series, String route, String labels, int documents) {}

    @GetMapping("/house/kinds")
    String all(Actor actor, Model model) {
        House house = read.house(actor);
        Map<String, Integer> documents = read.documents(actor);
        model.addAttribute(
                "kinds",
                read.all(actor, Subject.KIND).stream()
                        .map(e -> {
                            KindRule k = (KindRule) e.rule();
                            return new KindLine(
                                    k,
                                    e,
                                    house.series().getOrDefault(k.series(), k.series()),
                                    house.routes().get(k.route()).name(),
                                    says(k.revisions()),
                                    documents.getOrDefault(k.code(), 0));
                        })
                        .toList());
        return "house/kinds";
    }

    private static String says(String revisions) {
        return ShippedSeries.read(revisions) instanceof Outcome.Granted<RevisionSeries> s
                ? s.value().says()
                : revisions;
    }

    /** A revision series to choose. */
    public record Choice(String text, String says) {}

    /** A fact of the card: on the sheet at a place, or not yet. */
    public record FactLine(FactRule fact, int place, RequiredAt required, boolean cleared, int lacking) {
        /** Whether documents under way lack what the kind requires, and somebody can say it. */
        public boolean isToFill() {
            return lacking > 0
                    && required != RequiredAt.NEVER
                    && fact.use().source().isTyped();
        }
    }

    @GetMapping("/house/kinds/{code}")
    String card(Actor actor, @PathVariable String code, @RequestParam Optional<Integer> beside, Model model) {
        KindRule kind = (KindRule) RulePages.editions(read, actor, Subject.KIND, code, beside, model)
                .get(0)
                .rule();
        House house = read.house(actor);
        model.addAttribute("kind", kind);
        model.addAttribute("filed", read.filedAs(actor, code));
        model.addAttribute("documents", read.documents(actor).getOrDefault(code, 0));
        model.addAttribute("map", RouteMap.of(read.route(house, kind)));
        model.addAttribute("routes", house.routes().values());
        model.addAttribute("shelves", read.onShelves(actor, code));
        model.addAttribute(
                "choices", SERIES.stream().map(s -> new Choice(s, says(s))).toList());
        boolean own = kind.revisions().startsWith("list ");
        model.addAttribute("own", own ? kind.revisions().substring(5).replace("|", ", ") : "");
        model.addAttribute("labels", labels(kind.revisions()));
        Map<String, Integer> lacking = fill.lacking(actor, code);
        List<FactLine> facts = new ArrayList<>();
        for (KindRule.OnSheet f : kind.facts()) {
            facts.add(new FactLine(
                    house.facts().get(f.fact()),
                    facts.size() + 1,
                    f.required(),
                    f.cleared(),
                    lacking.getOrDefault(f.fact(), 0)));
        }
        model.addAttribute("facts", facts);
        model.addAttribute(
                "others",
                house.facts().values().stream()
                        .filter(f ->
                                kind.facts().stream().noneMatch(k -> k.fact().equals(f.code())))
                        .sorted(Comparator.comparing(FactRule::label))
                        .toList());
        model.addAttribute(
                "formats",
                Stream.of(OutputFormat.values()).filter(f -> fits(kind, f)).toList());
        model.addAttribute("control", read.control(actor, code));
        model.addAttribute("grants", may.ofKind(actor, code));
        model.addAttribute("required", RequiredAt.values());
        return "house/kind";
    }

    /** Whether documents of a kind are usually what a format is made of. */
    private static boolean fits(KindRule kind, OutputFormat format) {
        if (kind.outputs().formats().contains(format)) return true;
        return kind.paper().isEmpty() && (format == OutputFormat.STEP) == (kind.aspect() == Aspect.MODEL);
    }

    private static List<String> labels(String revisions) {
        List<String> labels = new ArrayList<>();
        if (!(ShippedSeries.read(revisions) instanceof Outcome.Granted<RevisionSeries> series)) return labels;
        for (long at = 0; at < 4; at++) series.value().label(at).ifPresent(labels::add);
        return labels;
    }

    @PostMapping("/house/kinds/{code}")
    String keep(
            Actor actor,
            @PathVariable String code,
            @RequestParam String actKey,
            @RequestParam int edition,
            @RequestParam String name,
            @RequestParam String series,
            @RequestParam String revisions,
            @RequestParam(defaultValue = "") String own,
            @RequestParam String taken,
            @RequestParam String route,
            @RequestParam(defaultValue = "") String why,
            @RequestParam Map<String, String> form) {
        KindRule was =
                (KindRule) read.editions(actor, Subject.KIND, code).get(0).rule();
        String labels = revisions.equals("list")
                ? "list " + own.replaceAll("\\s*,\\s*", "|").strip()
                : revisions;
        KindRule now = new KindRule(
                code,
                name.strip(),
                was.aspect(),
                was.glyph(),
                series,
                labels,
                taken.equals("start"),
                route,
                was.paper(),
                facts(form),
                outputs(form, was));
        return "redirect:" + keep.keep(actor, actKey, now, edition, why);
    }

    /** Fields {@code output.FORMAT}, and {@code outputname}; a form that has none of them leaves what was. */
    private static Outputs outputs(Map<String, String> form, KindRule was) {
        if (!form.containsKey("outputname")) return was.outputs();
        return new Outputs(
                Stream.of(OutputFormat.values())
                        .filter(f -> form.containsKey("output." + f))
                        .toList(),
                form.getOrDefault("outputname", "").strip());
    }

    private record Placed(KindRule.OnSheet fact, double place) {}

    /** What the form says of facts: {@code required.NAME}, {@code cleared.NAME} and {@code place.NAME}; those that it takes off the sheet are left out. */
    private static List<KindRule.OnSheet> facts(Map<String, String> form) {
        List<Placed> facts = new ArrayList<>();
        form.forEach((field, value) -> {
            if (!field.startsWith("required.") || value.equals("OFF")) return;
            String fact = field.substring("required.".length());
            String place = form.getOrDefault("place." + fact, "");
            facts.add(new Placed(
                    new KindRule.OnSheet(fact, required(value), form.containsKey("cleared." + fact)),
                    place.matches("\\d{1,3}") ? Integer.parseInt(place) : 1000));
        });
        String more = form.getOrDefault("more", "");
        if (!more.isEmpty()) {
            facts.add(
                    new Placed(new KindRule.OnSheet(more, required(form.getOrDefault("morerequired", "NEVER"))), 1001));
        }
        return facts.stream()
                .sorted(Comparator.comparingDouble(Placed::place))
                .map(Placed::fact)
                .toList();
    }

    private static RequiredAt required(String word) {
        for (RequiredAt required : RequiredAt.values()) if (required.name().equals(word)) return required;
        throw new NotThere();
    }

    @PostMapping("/house/kinds/{code}/shelf-route")
    String replaceRoute(
            Actor actor,
            @PathVariable String code,
            @RequestParam String actKey,
            @RequestParam long shelf,
            @RequestParam(defaultValue = "") String route) {
        return "redirect:" + keep.replaceRoute(actor, actKey, code, shelf, route);
    }
}
