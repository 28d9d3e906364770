package mintshelf.app.page.part;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.ground.Actor;
import mintshelf.app.page.Words;
import mintshelf.app.sight.ModelFormat;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.use.change.ReadOrders;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.document.ReadFacts;
import mintshelf.app.use.document.ReadMargin;
import mintshelf.app.use.document.ReadSheet;
import mintshelf.app.use.document.Sheet;
import mintshelf.app.use.part.ReadItem;
import mintshelf.app.use.structure.ReadBom;
import mintshelf.app.use.structure.ReadWhereUsed;
import mintshelf.core.access.Right;
import mintshelf.core.fact.Agreement;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.next.Act;
import mintshelf.core.next.Together;
import mintshelf.core.redline.Remark;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;

/** One thing: its drawing, model, part and paper under one number, side by side. */
@Controller
public class ItemPages {
    /** Rows of each list; the pages that they lead to have all. */
    private static final int MOST = 8;

    private final ReadItem items;
    private final ReadDocument read;
    private final ReadSheet sheets;
    private final ReadMargin margin;
    private final ReadWhereUsed used;
    private final ReadBom bom;
    private final ReadOrders orders;

    public ItemPages(
            ReadItem items,
            ReadDocument read,
            ReadSheet sheets,
            ReadMargin margin,
            ReadWhereUsed used,
            ReadBom bom,
            ReadOrders orders) {
        this.items = items;
        this.read = read;
        this.sheets = sheets;
        this.margin = margin;
        this.used = used;
        this.bom = bom;
        this.orders = orders;
    }

    /**
     * One of the documents, as it is called beside the others: "drawing".
     *
     * @param outOf what stands across its margin
     */
    public record Aspect(
            String name,
            Seen seen,
            ReadDocument.View view,
            VersionRow shown,
            Sheet sheet,
            boolean model,
            ReadMargin.@Nullable Mark outOf,
            ReadWhereUsed.Used used) {
        public boolean part() {
            return seen.document().part();
        }
    }

    /** A place where the thing is used, over all its documents: once, with how many of it. */
    public record Place(Seen seen, String amount, boolean byHand) {}

    /** An open remark, and on which of the documents. */
    public record Marked(Remark remark, String on) {}

    @GetMapping("/documents/{id}/item")
    String show(Actor actor, @PathVariable long id, @ModelAttribute("w") Words words, Model model) {
        List<Aspect> aspects = new ArrayList<>();
        Map<String, ReadDocument.View> views = new LinkedHashMap<>();
        for (Seen seen : items.of(actor, id)) {
            Aspect one = aspect(actor, seen, views.keySet());
            aspects.add(one);
            views.put(one.name(), one.view());
        }
        // What its part says stands with the part, else the model, else the drawing.
        Aspect lead = aspects.stream()
                .filter(Aspect::part)
                .findFirst()
                .or(() -> aspects.stream().filter(Aspect::model).findFirst())
                .orElse(aspects.get(0));
        model.addAttribute("aspects", aspects);
        model.addAttribute("lead", lead);
        model.addAttribute(
                "looked", aspects.stream().filter(a -> !a.part()).limit(2).toList());
        model.addAttribute(
                "mayAsk",
                aspects.stream()
                        .allMatch(a -> actor.access()
                                .may(Right.ASK, a.seen().document().place())));
        model.addAttribute(
                "mayPlan",
                aspects.stream()
                        .anyMatch(a -> a.seen().all() && a.seen().pending().isPresent()));
        model.addAttribute("mayMove", aspects.stream().allMatch(a -> a.seen().all()));
        model.addAttribute("lanes", Lanes.of(views, words));
        Optional<Together> together = together(aspects);
        model.addAttribute("together", together.orElse(null));
        model.addAttribute("what", together.map(t -> names(aspects, t)).orElse(""));
        model.addAttribute("agree", agreement(aspects));
        model.addAttribute("behind", behind(aspects));
        List<Place> places = places(actor, aspects);
        model.addAttribute("places", places.stream().limit(MOST).toList());
        model.addAttribute("morePlaces", Math.max(0, places.size() - MOST));
        fillChanges(actor, aspects, model);
        List<Marked> marked = new ArrayList<>();
        aspects.forEach(a -> items.open(a.seen()).forEach(r -> marked.add(new Marked(r, a.name()))));
        model.addAttribute("remarks", marked.stream().limit(MOST).toList());
        model.addAttribute("moreRemarks", Math.max(0, marked.size() - MOST));
        return "part/item";
    }

    private Aspect aspect(Actor actor, Seen seen, Set<String> before) {
        ReadDocument.View view = read.view(actor, seen.spine().id());
        VersionRow shown = view.shownVersion();
        boolean model = ModelFormat.of(shown).isPresent();
        String kind = view.seen().spine().kindName().toLowerCase(Locale.ROOT);
        String name = seen.document().part() ? "part" : model ? "model" : kind;
        return new Aspect(
                before.contains(name) ? kind + " " + seen.spine().id() : name,
                view.seen(),
                view,
                shown,
                sheets.sheetSoon(shown.drawn().content()),
                model,
                margin.of(actor, view.seen(), shown).orElse(null),
                used.of(actor, seen.spine().id(), false));
    }

    private static Optional<Together> together(List<Aspect> aspects) {
        Map<Long, Act> offered = new LinkedHashMap<>();
        aspects.forEach(a -> offered.put(a.seen().spine().id(), a.view().next().act()));
        return Together.of(offered);
    }

    /** "drawing and model" */
    private static String names(List<Aspect> aspects, Together together) {
        return aspects.stream()
                .filter(a -> together.items().contains(a.seen().spine().id()))
                .map(Aspect::name)
                .collect(Collectors.joining(" and "));
    }

    private static List<Agreement> agreement(List<Aspect> aspects) {
        return Agreement.of(aspects.stream()
                .map(a -> {
                    Map<FactDefinition, String> said = new LinkedHashMap<>();
                    for (ReadFacts.Line line : a.view().facts())
                        said.put(line.fact().fact(), line.value());
                    return new Agreement.Side(a.name(), said);
                })
                .toList());
    }

    /** Those of them that were saved before what they show moved on, in words. */
    private List<String> behind(List<Aspect> aspects) {
        List<String> says = new ArrayList<>();
        for (Aspect one : aspects) {
            if (!one.seen().all()) continue;
            one.used().links().stream()
                    .filter(l -> l.outward() && l.link().isBehind() && l.other().all())
                    .flatMap(l -> aspects.stream()
                            .filter(o ->
                                    o.seen().spine().id() == l.other().spine().id()))
                    .forEach(
                            o -> says.add("The " + o.name() + " is newer than when the " + one.name() + " was saved."));
        }
        return says;
    }

    /** Where files refer to one of them, and where bills of materials name one by hand. */
    private List<Place> places(Actor actor, List<Aspect> aspects) {
        Map<Long, Place> places = new LinkedHashMap<>();
        for (Aspect one : aspects) {
            long item = one.seen().spine().id();
            for (ReadWhereUsed.Above above : one.used().above()) {
                if (above.steps() > 1) continue;
                String many = above.quantity().map(q -> "× " + q).orElse("");
                places.putIfAbsent(above.seen().spine().id(), new Place(above.seen(), many, false));
            }
            bom.namedIn(actor, item)
                    .forEach(n -> places.putIfAbsent(
                            n.seen().spine().id(),
                            new Place(
                                    n.seen(),
                                    n.lines().stream()
                                            .map(l -> l.measured().says())
                                            .collect(Collectors.joining(" + ")),
                                    true)));
        }
        return List.copyOf(places.values());
    }

    private void fillChanges(Actor actor, List<Aspect> aspects, Model model) {
        Map<Long, Seen> changes = new LinkedHashMap<>();
        Map<Long, Seen> papers = new LinkedHashMap<>();
        for (Aspect one : aspects) {
            long item = one.seen().spine().id();
            orders.requests(actor, item)
                    .forEach(r -> changes.putIfAbsent(r.spine().id(), r));
            orders.of(actor, item)
                    .forEach(o -> changes.putIfAbsent(o.order().spine().id(), o.order()));
            one.used().links().stream()
                    .filter(l -> l.link().kind().name().equals("DESCRIBES") && !l.outward())
                    .forEach(l -> papers.putIfAbsent(l.other().spine().id(), l.other()));
        }
        aspects.forEach(a -> papers.remove(a.seen().spine().id()));
        model.addAttribute("changes", changes.values().stream().limit(MOST).toList());
        model.addAttribute("papers", papers.values().stream().limit(MOST).toList());
    }
}
