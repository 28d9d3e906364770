package mintshelf.app.use.change;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.effect.References;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.ChangeControl;
import mintshelf.app.sight.OpenPapers;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.sight.StructureMirror;
import mintshelf.app.store.change.ImpactStore;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.core.access.Right;
import mintshelf.core.change.Impact;
import mintshelf.core.change.Impact.Against;
import mintshelf.core.change.Impact.Line;
import mintshelf.core.change.Impact.Node;
import mintshelf.core.change.Impact.Verdict;
import mintshelf.core.change.PaperLine;
import mintshelf.core.release.ReleaseSet.Shows;
import mintshelf.core.structure.StructureGraph;
import org.springframework.stereotype.Service;

/** How far a change reaches, over the latest structure; nothing is changed. */
@Service
public class ReadImpact {
    /** Documents of one answer, the most work first; the counts tell of all. */
    public static final int MOST = 2_000;

    private final PaperStore papers;
    private final ImpactStore said;
    private final StructureMirror mirror;
    private final LinkStore links;
    private final ChangeControl control;
    private final SpineStore spines;
    private final Sight sight;
    private final References references;
    private final PartWorth worth;

    public ReadImpact(
            PaperStore papers,
            ImpactStore said,
            StructureMirror mirror,
            LinkStore links,
            ChangeControl control,
            SpineStore spines,
            Sight sight,
            References references,
            PartWorth worth) {
        this.worth = worth;
        this.papers = papers;
        this.said = said;
        this.mirror = mirror;
        this.links = links;
        this.control = control;
        this.spines = spines;
        this.sight = sight;
        this.references = references;
    }

    /**
     * A document that is touched, the verdict and its reason in words.
     *
     * @param part what one of it costs in force, and which variants it covers, in words; empty where nothing is known
     * @param onPaper whether it is a line; what a line's sheet shows is changed with it and may be none
     */
    public record Row(
            Seen seen, Node node, String says, String part, boolean onPaper, Optional<ImpactStore.Said> said) {}

    /**
     * @param rows what the actor may see, in the order of the levels
     * @param counts of all that is touched, seen or not
     * @param hidden how many are touched and not for this person's eyes
     * @param cut how many more there are than rows
     */
    public record Reach(List<Row> rows, Map<Verdict, Integer> counts, int hidden, int cut) {
        public int all() {
            return counts.values().stream().mapToInt(n -> n).sum();
        }

        /** What is work and no line yet. */
        public List<Row> proposed() {
            return rows.stream()
                    .filter(r -> !r.onPaper() && r.node().verdict().isWork())
                    .toList();
        }
    }

    /**
     * How far a paper's change reaches.
     *
     * @param spared what people say is not touched
     * @param edits whether the actor may say something else now
     */
    public record View(Seen paper, Reach reach, List<Row> spared, List<PaperLine> lines, boolean edits) {}

    /** Whether the actor sees work in preparation where the paper lies: what a change reaches tells of that. */
    public boolean shows(Actor actor, Seen paper) {
        return actor.access().may(Right.SEE_ALL, paper.document().place());
    }

    public View of(Actor actor, long paper) {
        Seen seen = sight.of(actor, paper);
        if (!shows(actor, seen) || papers.paper(paper).isEmpty()) throw new NotThere();
        List<PaperLine> lines = papers.lines(paper);
        Map<Long, ImpactStore.Said> says = said.said(paper);
        Map<Long, Boolean> declared = new HashMap<>();
        Map<Long, Against> against = new HashMap<>();
        says.forEach((item, s) -> {
            s.interchangeable().ifPresent(i -> declared.put(item, i));
            s.against().ifPresent(o -> against.put(item, o));
        });
        Map<Long, Boolean> changed = new LinkedHashMap<>();
        lines.forEach(l -> changed.put(l.item(), l.interchangeable()));
        // A sheet speaks of the thing that it shows: that is changed with it, and stands in others.
        Map<Long, Long> shown = new HashMap<>();
        for (LinkStore.Shown s : links.shown(List.copyOf(changed.keySet()))) {
            if (!changed.containsKey(s.item()) || lines.stream().anyMatch(l -> l.item() == s.target())) continue;
            shown.put(s.target(), s.item());
            changed.merge(s.target(), changed.getOrDefault(s.item(), true), Boolean::logicalAnd);
        }
        Impact impact = impact(
                changed.entrySet().stream()
                        .map(e -> new Line(e.getKey(), e.getValue()))
                        .toList(),
                declared,
                against);
        Reach reach = reach(actor, impact, says, shown);
        List<Row> spared = new ArrayList<>();
        sight.of(actor, impact.spared()).values().stream()
                .filter(Seen::all)
                .forEach(s -> spared.add(new Row(
                        s,
                        new Node(s.spine().id(), Verdict.TAKES, 0, false, List.of(), Optional.empty()),
                        "is not touched",
                        "",
                        false,
                        Optional.ofNullable(says.get(s.spine().id())))));
        return new View(seen, reach, spared, lines, OpenPapers.mayWrite(actor, seen));
    }

    /** What lines that nobody keeps would do: for programs, and before there is a paper. */
    public Reach of(Actor actor, Collection<Line> lines, Map<Long, Boolean> declared) {
        Map<Long, Seen> seen = sight.of(actor, lines.stream().map(Line::item).toList());
        if (lines.isEmpty() || !seen.values().stream().allMatch(Seen::all)) throw new NotThere();
        if (lines.stream().anyMatch(l -> !seen.containsKey(l.item()))) throw new NotThere();
        return reach(actor, impact(lines, declared, Map.of()), Map.of(), Map.of());
    }

    private Impact impact(Collection<Line> lines, Map<Long, Boolean> declared, Map<Long, Against> against) {
        StructureGraph graph = references.withLines(
                mirror.now().graph(), lines.stream().map(Line::item).toList());
        Map<Long, Boolean> all = new HashMap<>(byKind(graph, lines));
        all.putAll(declared);
        return Impact.of(
                lines,
                all,
                against,
                graph::usedIn,
                models -> links.shown(models).stream()
                        .map(s -> new Shows(s.item(), s.target()))
                        .toList());
    }

    /** What kinds and shelves say of what stands above; nothing is asked where none says anything. */
    private Map<Long, Boolean> byKind(StructureGraph graph, Collection<Line> lines) {
        ChangeControl.Now now = control.now();
        long[] changed = lines.stream()
                .filter(l -> !l.interchangeable())
                .mapToLong(Line::item)
                .toArray();
        if (changed.length == 0 || !now.declares()) return Map.of();
        Map<Long, Boolean> declared = new HashMap<>();
        Set<Long> above = new LinkedHashSet<>();
        for (long id : graph.whereUsed(changed)) above.add(id);
        spines.spines(above).forEach((id, spine) -> declared.put(id, now.isInterchangeable(spine)));
        return declared;
    }

    /** @param with what is changed with a line, for the line shows it: by its id the line's */
    private Reach reach(Actor actor, Impact impact, Map<Long, ImpactStore.Said> says, Map<Long, Long> with) {
        List<Node> shown = impact.nodes().stream()
                .sorted(Comparator.comparing((Node n) -> !n.line())
                        .thenComparing(Node::verdict, Comparator.reverseOrder())
                        .thenComparingInt(Node::level))
                .limit(MOST)
                .sorted(Comparator.comparingInt(Node::level).thenComparing(n -> !n.line()))
                .toList();
        Set<Long> named = new LinkedHashSet<>();
        shown.forEach(n -> {
            named.add(n.item());
            if (!n.because().isEmpty()) named.add(n.because().get(0));
        });
        Map<Long, Seen> seen = sight.of(actor, named);
        Map<Long, String> numbers = seen.values().stream()
                .filter(Seen::all)
                .collect(Collectors.toMap(s -> s.spine().id(), s -> s.document().number()));
        Map<Long, PartWorth.Of> parts =
                worth.of(seen.values().stream().filter(Seen::all).toList());
        Map<Long, Row> rows = new LinkedHashMap<>();
        int hidden = 0;
        for (Node node : shown) {
            if (!numbers.containsKey(node.item())) {
                hidden++;
                continue;
            }
            String why = with.containsKey(node.item())
                    ? "is changed with the line that shows it"
                    : node.says(id -> numbers.getOrDefault(id, "a document that you may not see"));
            rows.put(
                    node.item(),
                    new Row(
                            seen.get(node.item()),
                            node,
                            why,
                            Optional.ofNullable(parts.get(node.item()))
                                    .map(PartWorth.Of::words)
                                    .orElse(""),
                            node.line() && !with.containsKey(node.item()),
                            Optional.ofNullable(says.get(node.item()))));
        }
        return new Reach(
                List.copyOf(rows.values()),
                impact.counts(),
                hidden,
                impact.nodes().size() - shown.size());
    }
}
