package mintshelf.app.sight;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.change.GoalStore;
import mintshelf.app.store.change.LineFactStore;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.change.RequestStore;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.structure.PartStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.bom.Variant;
import mintshelf.core.change.Goal;
import mintshelf.core.change.PaperLine;
import mintshelf.core.document.Revision;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.FactLookup;
import mintshelf.core.fact.FactReader;
import mintshelf.core.fact.FactValue;
import org.springframework.stereotype.Component;

/** What papers of change say of documents: the orders that they are on, the lines of these, the goals of their requests. */
@Component
public class OnOrders {
    private final Sight sight;
    private final PaperStore papers;
    private final RequestStore requests;
    private final GoalStore shown;
    private final LineFactStore lineFacts;
    private final FactStore facts;
    private final HouseStore house;
    private final VersionStore versions;
    private final PartStore parts;

    public OnOrders(
            Sight sight,
            PaperStore papers,
            RequestStore requests,
            GoalStore shown,
            LineFactStore lineFacts,
            FactStore facts,
            HouseStore house,
            VersionStore versions,
            PartStore parts) {
        this.parts = parts;
        this.sight = sight;
        this.papers = papers;
        this.requests = requests;
        this.shown = shown;
        this.lineFacts = lineFacts;
        this.facts = facts;
        this.house = house;
        this.versions = versions;
    }

    /** The open order that is first on each of these documents. */
    Map<Long, PaperStore.On> open(Collection<Long> documents) {
        return papers.open(documents);
    }

    /** An order under way, and what it does to documents. */
    public record UnderWay(Seen order, List<PaperLine> lines) {}

    /** The orders under way on some documents that the actor sees whole, by their numbers, with their lines on those. */
    public List<UnderWay> underWay(Actor actor, Collection<Long> documents) {
        Set<Long> orders = new LinkedHashSet<>();
        papers.open(documents).values().forEach(on -> orders.add(on.order()));
        Set<Long> asked = Set.copyOf(documents);
        return sight.of(actor, orders).values().stream()
                .filter(Seen::all)
                .sorted(Comparator.comparing(o -> o.document().number()))
                .map(o -> new UnderWay(
                        o,
                        papers.lines(o.spine().id()).stream()
                                .filter(l -> asked.contains(l.item()))
                                .toList()))
                .toList();
    }

    List<PaperLine> lines(long order) {
        return papers.lines(order);
    }

    /** The documents of which an order says facts that change. */
    Set<Long> sayingFacts(long order) {
        return lineFacts.wanted(order).keySet();
    }

    /** The requests that an order has taken up, that the actor may see. */
    public List<Seen> taken(Actor actor, long order) {
        return List.copyOf(sight.of(actor, requests.requestsOf(order)).values());
    }

    /**
     * What shows a goal, as a person sees it.
     *
     * @param number of the document; empty where they may not see it
     * @param href where it is looked at; empty likewise
     */
    public record ShownView(String number, String says, String href, String note) {}

    /**
     * @param number of the document that it is about; empty where the person may not see it
     * @param shown what its order shows for it
     */
    public record GoalView(Goal goal, String number, Goal.Judgement judgement, Optional<ShownView> shown) {
        /** Why the order of its request does not go before its board; nothing when the goal keeps nothing. */
        public Optional<Refusal> inTheWay() {
            return goal.inTheWay(number, judgement, shown.isPresent());
        }
    }

    /** The goals of the requests that an order has taken up. */
    public List<GoalView> goalsOf(Actor actor, long order) {
        List<GoalView> all = new ArrayList<>();
        for (long request : requests.requestsOf(order)) {
            List<Goal> goals = requests.goals(request, house.facts());
            if (goals.isEmpty()) continue;
            List<PaperLine> lines = papers.lines(request);
            Map<Long, Seen> documents =
                    sight.of(actor, lines.stream().map(PaperLine::item).toList());
            all.addAll(goals(actor, goals, lines, documents));
        }
        return all;
    }

    /** What the goals of an order's requests keep. */
    List<Refusal> goalsInTheWay(Actor actor, long order) {
        return goalsOf(actor, order).stream()
                .flatMap(g -> g.inTheWay().stream())
                .toList();
    }

    /**
     * Goals of a request. Before is what was in force when it was asked for; after what is prepared, for who sees that, or what came
     * in its place.
     *
     * @param lines of the request
     * @param documents those of its lines that the actor sees
     */
    public List<GoalView> goals(Actor actor, List<Goal> goals, List<PaperLine> lines, Map<Long, Seen> documents) {
        Map<Long, Long> asked = new HashMap<>();
        lines.forEach(l -> l.fromRevision().ifPresent(from -> asked.put(l.item(), from)));
        Map<Long, Map<String, FactValue>> known = new HashMap<>();
        Map<Long, ShownView> shown = shown(actor, goals);
        List<GoalView> views = new ArrayList<>();
        for (Goal goal : goals) {
            Optional<Seen> seen = Optional.ofNullable(documents.get(goal.item()));
            Optional<Long> from = seen.map(s -> asked.get(s.spine().id()));
            Optional<Long> out = seen.flatMap(s -> s.document().released()).map(Revision::id);
            Optional<Long> next = seen.filter(Seen::all)
                    .flatMap(s -> s.document().pending())
                    .map(Revision::id)
                    .or(() -> out.filter(o -> !from.equals(Optional.of(o))));
            Optional<FactValue> before = from.flatMap(r -> value(known, r, goal.fact()));
            Optional<FactValue> after = next.flatMap(r -> value(known, r, goal.fact()));
            views.add(new GoalView(
                    goal,
                    seen.map(s -> s.document().number()).orElse(""),
                    goal.judge(before, after, variants(from, goal.fact()), variants(next, goal.fact())),
                    Optional.ofNullable(shown.get(goal.id()))));
        }
        return views;
    }

    private Optional<FactValue> value(Map<Long, Map<String, FactValue>> known, long revision, FactDefinition fact) {
        return Optional.ofNullable(
                known.computeIfAbsent(revision, facts::values).get(fact.name()));
    }

    /** What variants of a revision say of a fact otherwise than the document, by their names. */
    private Map<String, FactValue> variants(Optional<Long> revision, FactDefinition fact) {
        Map<String, FactValue> said = new LinkedHashMap<>();
        if (revision.isEmpty() || !Variant.FACTS.contains(fact.name())) return said;
        for (Variant one : parts.variants(List.of(revision.get())).getOrDefault(revision.get(), List.of())) {
            String text = one.facts().getOrDefault(fact.name(), "");
            FactReader.read(fact, text, FactLookup.AS_SAID)
                    .toOptional()
                    .flatMap(v -> v)
                    .ifPresent(v -> said.put(one.name(), v));
        }
        return said;
    }

    private Map<Long, ShownView> shown(Actor actor, List<Goal> goals) {
        Map<Long, GoalStore.Shown> all =
                shown.shown(goals.stream().map(Goal::id).toList());
        if (all.isEmpty()) return Map.of();
        Set<Long> ids = new HashSet<>();
        Set<Long> items = new HashSet<>();
        all.values().forEach(s -> {
            ids.add(s.version());
            s.against().ifPresent(ids::add);
            items.add(s.item());
        });
        Map<Long, VersionRow> rows = versions.versionsById(ids);
        Map<Long, Seen> seen = sight.of(actor, items);
        Map<Long, ShownView> views = new HashMap<>();
        all.forEach((goal, one) -> {
            VersionRow version = rows.get(one.version());
            // Of what is only seen released, no other version is named.
            Optional<Seen> at =
                    Optional.ofNullable(seen.get(one.item())).filter(s -> s.all() || s.version() == version.number());
            views.put(
                    goal,
                    at.map(s -> look(s, version, one.against().map(rows::get), one.note()))
                            .orElse(new ShownView("", "something that you may not see", "", "")));
        });
        return views;
    }

    private static ShownView look(Seen seen, VersionRow version, Optional<VersionRow> old, String note) {
        return new ShownView(
                seen.document().number(),
                Evidences.says(version, old),
                Evidences.href(seen.spine().id(), version, old),
                note);
    }
}
