package mintshelf.app.sight;

import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.core.hold.AlongRules.Via;
import mintshelf.core.structure.StructureGraph;
import mintshelf.core.structure.StructureGraph.Use;
import org.springframework.stereotype.Component;

/** Which documents go along with others: their components, their drawings, what they stand in. */
@Component
public class TakeAlong {
    /** Documents in one plan. */
    public static final int MOST = 500;

    private final Sight sight;
    private final LinkStore links;
    private final ShelfStore shelves;
    private final StructureMirror mirror;

    public TakeAlong(Sight sight, LinkStore links, ShelfStore shelves, StructureMirror mirror) {
        this.sight = sight;
        this.links = links;
        this.shelves = shelves;
        this.mirror = mirror;
    }

    /** What may go along. */
    public enum With {
        DRAWINGS("their drawings"),
        FIRST_LEVEL("components of the first level"),
        ALL_LEVELS("components of all levels"),
        PARENTS("what they stand in");

        private final String words;

        With(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        /** As it stands in an address and in a setting. */
        public String code() {
            return name().toLowerCase(Locale.ROOT).replace('_', '-');
        }

        /** Reads a list of codes, parted by commas; what is none is passed over. */
        public static Set<With> of(String codes) {
            Set<With> set = EnumSet.noneOf(With.class);
            for (With with : values()) if (List.of(codes.split(",")).contains(with.code())) set.add(with);
            return set;
        }

        public static String codes(Collection<With> all) {
            return String.join(",", all.stream().map(With::code).toList());
        }
    }

    /** A document of a plan: why it is in it, and whether it lies on a library shelf. */
    public record Along(Seen seen, Via via, boolean library) {}

    /**
     * The documents asked for, then what goes along, each once.
     *
     * @return those that the person may see; at most {@link #MOST}
     */
    public List<Along> gather(Actor actor, Collection<Long> asked, Set<With> with) {
        Map<Long, Via> found = new LinkedHashMap<>();
        asked.forEach(id -> found.put(id, Via.ASKED));
        StructureGraph graph = mirror.now().graph();
        long[] ids = asked.stream().mapToLong(i -> i).toArray();
        if (with.contains(With.ALL_LEVELS)) {
            for (long id : graph.components(ids)) put(found, id, Via.COMPONENT);
        } else if (with.contains(With.FIRST_LEVEL)) {
            for (long id : ids) for (Use u : graph.usesOf(id)) put(found, u.component(), Via.COMPONENT);
        }
        if (with.contains(With.PARENTS)) {
            for (long id : ids) for (long parent : graph.usedIn(id)) put(found, parent, Via.PARENT);
        }
        if (with.contains(With.DRAWINGS)) {
            // Those of what was asked for: the drawings of all components would bury the plan.
            for (LinkStore.Link link : links.around(List.copyOf(asked))) {
                if (link.kind() != LinkStore.Kind.SHOWS) continue;
                if (asked.contains(link.target())) put(found, link.item(), Via.DRAWING);
                else put(found, link.target(), Via.MODEL);
            }
        }
        Set<Long> libraries = new HashSet<>();
        shelves.shelves().stream().filter(ShelfStore.Shelf::library).forEach(s -> libraries.add(s.id()));
        List<Along> along = new ArrayList<>();
        sight.of(actor, found.keySet())
                .forEach((id, seen) -> along.add(new Along(
                        seen,
                        found.get(id),
                        libraries.contains(seen.document().place().shelf()))));
        return along;
    }

    private static void put(Map<Long, Via> found, long id, Via via) {
        if (found.size() < MOST) found.putIfAbsent(id, via);
    }

    /** Whether a document stands in another one, on whatever level. */
    public boolean standsIn(long component, long above) {
        for (long id : mirror.now().graph().components(new long[] {above})) if (id == component) return true;
        return false;
    }

    /** What taking drawings along is called: of a model its drawing comes, of a drawing its model. */
    public String drawingsOf(Collection<Long> asked) {
        boolean drawings = false;
        boolean models = false;
        for (LinkStore.Link link : links.around(List.copyOf(asked))) {
            if (link.kind() != LinkStore.Kind.SHOWS) continue;
            drawings |= asked.contains(link.target());
            models |= asked.contains(link.item());
        }
        return drawings && models ? "their drawings and models" : models ? "their models" : With.DRAWINGS.words();
    }

    /** Which of the choices would bring anything. */
    public Set<With> offered(Actor actor, Collection<Long> asked) {
        Set<With> offered = EnumSet.noneOf(With.class);
        StructureGraph graph = mirror.now().graph();
        boolean deeper = false;
        for (long id : asked) {
            List<Use> uses = graph.usesOf(id);
            if (!uses.isEmpty()) offered.add(With.FIRST_LEVEL);
            deeper |= uses.stream().anyMatch(u -> !graph.usesOf(u.component()).isEmpty());
            if (graph.usedIn(id).length > 0) offered.add(With.PARENTS);
        }
        if (deeper) offered.add(With.ALL_LEVELS);
        boolean drawn = links.around(List.copyOf(asked)).stream().anyMatch(l -> l.kind() == LinkStore.Kind.SHOWS);
        if (drawn) offered.add(With.DRAWINGS);
        return offered;
    }
}
