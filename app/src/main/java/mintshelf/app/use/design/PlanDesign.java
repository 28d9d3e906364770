package mintshelf.app.use.design;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.effect.DrawNumbers;
import mintshelf.app.effect.FreshCopy;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.MayFetch;
import mintshelf.app.sight.Places;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.NumberStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.app.use.design.DesignTree.Node;
import mintshelf.app.use.design.DesignTree.Row;
import mintshelf.app.use.design.DesignTree.Tree;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Aspect;
import mintshelf.core.document.FileName;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.reuse.Design;
import mintshelf.core.reuse.Design.Thing;
import mintshelf.core.reuse.Design.Verdict;
import mintshelf.core.reuse.NumberRule;
import mintshelf.core.reuse.Swaps;
import org.springframework.stereotype.Component;

/** What a new design would be: numbers, names, folders, and what keeps it from being made. Nothing is changed. */
@Component
public class PlanDesign {
    private final DesignTree trees;
    private final Sight sight;
    private final NumberStore numbers;
    private final DrawNumbers draw;
    private final ShelfStore shelves;
    private final HouseStore house;
    private final DocumentStore documents;
    private final MayFetch fetch;
    private final DesignFacts facts;

    public PlanDesign(
            DesignTree trees,
            Sight sight,
            NumberStore numbers,
            DrawNumbers draw,
            ShelfStore shelves,
            HouseStore house,
            DocumentStore documents,
            MayFetch fetch,
            DesignFacts facts) {
        this.facts = facts;
        this.trees = trees;
        this.sight = sight;
        this.numbers = numbers;
        this.draw = draw;
        this.shelves = shelves;
        this.house = house;
        this.documents = documents;
        this.fetch = fetch;
    }

    /** What is begun from; not there where the actor does not see it, and for papers of changes. */
    Seen top(Actor actor, long root) {
        Seen top = trees.top(actor, root);
        if (top.spine().isChangePaper()) throw new NotThere();
        return top;
    }

    /** The structure that is begun from; not there where the actor does not see it. */
    public Tree tree(Actor actor, Wish.Design wish) {
        top(actor, wish.root());
        return trees.of(actor, wish.root(), wish.view());
    }

    /**
     * What becomes of it by a rule.
     *
     * @param rule what the things propose; without one the series of their kinds do
     */
    public Outline byRule(Actor actor, Wish.Design wish, Tree tree, Optional<NumberRule> rule) {
        Map<Long, String> proposed = rule.isPresent() ? byRule(tree, rule.get()) : bySeries(actor, wish, tree);
        return outline(actor, wish, tree, proposed);
    }

    /** What becomes of it where every number is said. */
    public Outline asSaid(Actor actor, Wish.Design wish) {
        return asSaid(actor, wish, tree(actor, wish));
    }

    Outline asSaid(Actor actor, Wish.Design wish, Tree tree) {
        return outline(actor, wish, tree, Map.of());
    }

    private static Map<Long, String> byRule(Tree tree, NumberRule rule) {
        Map<Long, String> proposed = new HashMap<>();
        for (Row row : tree.rows()) rule.apply(row.main().number()).ifPresent(n -> proposed.put(row.id(), n));
        return proposed;
    }

    private Map<Long, String> bySeries(Actor actor, Wish.Design wish, Tree tree) {
        record Counts(long kind, long shelf) {}
        Map<Counts, List<Row>> all = new LinkedHashMap<>();
        for (Row row : tree.rows()) {
            if (stays(actor, row).isPresent()) continue;
            Counts counts = new Counts(
                    row.main().seen().document().place().kind(),
                    folder(wish, row.main()).shelf());
            all.computeIfAbsent(counts, c -> new ArrayList<>()).add(row);
        }
        Map<Long, String> proposed = new HashMap<>();
        all.forEach((counts, rows) -> {
            // What somebody types is none of the series' business.
            List<Row> open = rows.stream()
                    .filter(r -> !wish.numbers().containsKey(r.id()))
                    .toList();
            // A series that counts within a fact draws by it when it is typed in: nothing is proposed for it here.
            if (draw.ahead(house.kind(counts.kind()), counts.shelf(), Map.of(), rows.size())
                    instanceof Outcome.Granted<List<String>> ahead) {
                for (int i = 0; i < Math.min(open.size(), ahead.value().size()); i++)
                    proposed.put(open.get(i).id(), ahead.value().get(i));
            }
        });
        return proposed;
    }

    private Folder folder(Wish.Design wish, Node node) {
        return wish.folder()
                .map(id -> shelves.folder(id).orElseThrow(NotThere::new))
                .orElseGet(() -> node.seen().spine().path().get(0));
    }

    /** Why no copy of a thing can be made; nothing where one can. */
    private Optional<Refusal> stays(Actor actor, Row row) {
        for (Node node : row.nodes()) {
            Place place = node.seen().document().place();
            Optional<Refusal> why = FreshCopy.nothing(node.seen())
                    .or(() -> place.library() && !actor.access().may(Right.FILE, place)
                            ? Optional.of(Refusal.of(
                                    "design.library",
                                    node.number() + " lies on a library shelf, which librarians change.",
                                    "It stays shared."))
                            : Optional.empty())
                    .or(() -> fetch.copied(actor, node.seen(), node.version()));
            if (why.isPresent()) return why;
        }
        return Optional.empty();
    }

    private Outline outline(Actor actor, Wish.Design wish, Tree tree, Map<Long, String> proposed) {
        List<Thing> things = tree.rows().stream()
                .map(r -> new Thing(
                        r.id(),
                        r.main().number(),
                        r.below(),
                        Optional.ofNullable(proposed.get(r.id())),
                        stays(actor, r)))
                .toList();
        Map<Long, Row> rows = tree.rows().stream().collect(Collectors.toMap(Row::id, r -> r));
        Map<Long, Verdict> verdicts = Design.settle(things, wish.numbers(), new Known(actor, rows, wish));
        List<Refusal> refusals = new ArrayList<>();
        for (Row row : tree.rows())
            Optional.ofNullable(verdicts.get(row.id()))
                    .flatMap(Verdict::refused)
                    .ifPresent(refusals::add);
        List<Outline.Copy> copies = copies(wish, tree, verdicts);
        refusals.addAll(mayFile(actor, copies));
        Map<Long, Map<String, String>> said = facts.said(wish, copies);
        refusals.addAll(facts.lacks(actor, copies, said));
        refusals.addAll(reserved(actor, copies, said));
        if (!wish.newFolder().isBlank())
            FileName.folder("The folder", wish.newFolder()).refusal().ifPresent(refusals::add);
        return new Outline(tree, proposed, verdicts, copies, refusals);
    }

    /** What is made, what stands in others first. */
    private List<Outline.Copy> copies(Wish.Design wish, Tree tree, Map<Long, Verdict> verdicts) {
        Map<Long, Row> rows = new LinkedHashMap<>();
        tree.rows().forEach(r -> rows.put(r.id(), r));
        List<Row> order = new ArrayList<>();
        below(tree.top(), rows, new HashSet<>(), order);
        Map<Long, Set<String>> taken = new HashMap<>();
        List<Outline.Copy> copies = new ArrayList<>();
        for (Row row : order) {
            Verdict verdict = verdicts.get(row.id());
            if (verdict == null || !verdict.isNew()) continue;
            for (Node node : row.nodes()) {
                Folder folder = folder(wish, node);
                copies.add(new Outline.Copy(
                        node,
                        row.id(),
                        verdict.number(),
                        Design.retitled(node.title(), wish.titles()),
                        named(node, verdict.number(), names(taken, wish, folder)),
                        folder));
            }
        }
        return copies;
    }

    private static void below(Row row, Map<Long, Row> rows, Set<Long> met, List<Row> order) {
        if (!met.add(row.id())) return;
        for (long id : row.below()) Optional.ofNullable(rows.get(id)).ifPresent(r -> below(r, rows, met, order));
        order.add(row);
    }

    private Set<String> names(Map<Long, Set<String>> taken, Wish.Design wish, Folder folder) {
        return taken.computeIfAbsent(folder.id(), id -> {
            long in = wish.newFolder().isBlank()
                    ? id
                    : there(folder, wish.newFolder()).map(Folder::id).orElse(0L);
            return new HashSet<>(documents.fileNames(List.of(in)).getOrDefault(in, Set.of()));
        });
    }

    /** The folder of a name in another one, where there is one already. */
    Optional<Folder> there(Folder in, String name) {
        return Optional.ofNullable(
                shelves.below(in, List.of(name.strip()), false).get(name.strip()));
    }

    private static String named(Node node, String number, Set<String> taken) {
        FileName name = FileName.of(NumberRule.fileName(node.version().fileName(), node.number(), number));
        FileName one = name;
        for (int i = 2; !taken.add(one.key()); i++) one = name.numbered(i);
        return one.name();
    }

    /** What the actor may not file where it would go; each once. */
    private Collection<Refusal> mayFile(Actor actor, List<Outline.Copy> copies) {
        record Into(long folder, long kind) {}
        Map<Into, Optional<Refusal>> asked = new HashMap<>();
        Set<Refusal> refusals = new LinkedHashSet<>();
        for (Outline.Copy copy : copies) {
            long kind = copy.from().seen().document().place().kind();
            asked.computeIfAbsent(new Into(copy.folder().id(), kind), into -> {
                        if (!actor.access().enters(copy.folder().shelf())) throw new NotThere();
                        return actor.access().ask(Right.FILE, Places.of(shelves, copy.folder(), kind));
                    })
                    .ifPresent(refusals::add);
        }
        return refusals;
    }

    /** Numbers that the house keeps for somebody else; each once. */
    private List<Refusal> reserved(Actor actor, List<Outline.Copy> copies, Map<Long, Map<String, String>> said) {
        if (!draw.reservesAny()) return List.of();
        Set<Refusal> reserved = new LinkedHashSet<>();
        for (Outline.Copy copy : copies)
            NumberKey.of(copy.number())
                    .toOptional()
                    .flatMap(number -> draw.reserved(
                            actor.person(),
                            house.kind(copy.from().seen().document().place().kind()),
                            copy.folder().shelf(),
                            number,
                            said.getOrDefault(copy.from().id(), Map.of())))
                    .ifPresent(reserved::add);
        return List.copyOf(reserved);
    }

    /** What the house knows of numbers, asked for many at once. */
    private final class Known implements Design.Numbers {
        private final Map<String, List<Seen>> seen = new HashMap<>();
        private final Map<Long, Row> rows;
        private final Map<Long, Kind> kinds = house.kinds().stream().collect(Collectors.toMap(Kind::id, k -> k));

        Known(Actor actor, Map<Long, Row> rows, Wish.Design wish) {
            this.rows = rows;
            Set<NumberKey> typed = new LinkedHashSet<>();
            wish.numbers().values().forEach(n -> NumberKey.of(n).toOptional().ifPresent(typed::add));
            Map<String, List<Long>> items = typed.isEmpty() ? Map.of() : numbers.items(typed);
            Map<Long, Seen> all = sight.of(
                    actor, items.values().stream().flatMap(List::stream).toList());
            items.forEach((key, ids) -> ids.forEach(id -> Optional.ofNullable(all.get(id))
                    .ifPresent(s ->
                            seen.computeIfAbsent(key, k -> new ArrayList<>()).add(s))));
        }

        @Override
        public Set<String> used(Collection<String> keys) {
            return keys.isEmpty() ? Set.of() : numbers.used(List.of(Aspect.values()), keys);
        }

        @Override
        public Optional<Long> other(Thing thing, String key) {
            Aspect aspect = Optional.ofNullable(rows.get(thing.id()))
                    .orElseThrow()
                    .main()
                    .aspect();
            return seen.getOrDefault(key, List.of()).stream()
                    .filter(s -> Optional.ofNullable(
                                    kinds.get(s.document().place().kind()))
                            .filter(k -> k.aspect() == aspect)
                            .isPresent())
                    .filter(s -> Swaps.comesIn(s.document()).isEmpty())
                    .map(s -> s.spine().id())
                    .findFirst();
        }
    }
}
