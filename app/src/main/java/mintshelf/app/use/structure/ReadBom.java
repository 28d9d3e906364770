package mintshelf.app.use.structure;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.structure.BomLineStore;
import mintshelf.app.store.structure.BomLineStore.Kept;
import mintshelf.app.store.structure.Reference;
import mintshelf.app.store.structure.ReferenceStore;
import mintshelf.app.use.structure.StructureLevels.Child;
import mintshelf.app.use.structure.StructureLevels.Node;
import mintshelf.app.use.structure.StructureLevels.Reach;
import mintshelf.core.bom.Bom;
import mintshelf.core.bom.BomLine;
import mintshelf.core.bom.BomPart;
import mintshelf.core.bom.BomUnits;
import mintshelf.core.bom.Comes;
import mintshelf.core.bom.FindNumbers;
import mintshelf.core.bom.PartFacts;
import mintshelf.core.bom.RollUp;
import mintshelf.core.document.Revision;
import mintshelf.core.reference.Written;
import mintshelf.core.structure.StructureView;
import org.springframework.stereotype.Service;

/** The bill of materials of a document, in a chosen view: what its files refer to, and what people have written beside that. */
@Service
public class ReadBom {
    /** Versions whose lines are read; a BOM of more is cut, and says so. */
    public static final int MOST_PARTS = 20_000;

    private static final int MOST_NAMED = 200;

    private final Sight sight;
    private final StructureLevels levels;
    private final RevisionStore revisions;
    private final VersionStore versions;
    private final ReferenceStore references;
    private final BomLineStore lines;
    private final FactStore facts;
    private final HouseStore house;

    public ReadBom(
            Sight sight,
            StructureLevels levels,
            RevisionStore revisions,
            VersionStore versions,
            ReferenceStore references,
            BomLineStore lines,
            FactStore facts,
            HouseStore house) {
        this.sight = sight;
        this.levels = levels;
        this.revisions = revisions;
        this.versions = versions;
        this.references = references;
        this.lines = lines;
        this.facts = facts;
        this.house = house;
    }

    /**
     * What a part of a BOM is for the person who reads it.
     *
     * @param seen its document; nothing where it has none, or none that this person sees
     * @param version its version's id; 0 where it has none here
     * @param revision that its version belongs to
     * @param facts of it, as text, by their names
     * @param lacks why it has no version here; empty where it has one
     */
    public record Stands(
            Optional<Seen> seen, long version, Optional<Revision> revision, Map<String, String> facts, String lacks) {
        /** What stands for nothing that has versions. */
        static Stands nothing(String lacks) {
            return new Stands(Optional.empty(), 0, Optional.empty(), Map.of(), lacks);
        }
    }

    /**
     * A BOM.
     *
     * @param view that it was read in
     * @param version number of the top's version
     * @param stands by the places of parts
     * @param revision of the top's version, whose lines can be written by hand
     * @param cut whether there is more than is read
     * @param currency that costs are in
     */
    public record Read(
            Seen top,
            StructureView view,
            int version,
            Bom bom,
            List<Stands> stands,
            long revision,
            boolean cut,
            String currency) {
        public RollUp mass() {
            return RollUp.of(bom, RollUp.Of.MASS);
        }

        public RollUp cost() {
            return RollUp.of(bom, RollUp.Of.COST);
        }

        /** Whether some of it is not for this person's eyes. */
        public boolean incomplete() {
            return stands.stream().anyMatch(s -> s.lacks().equals(HIDDEN));
        }
    }

    private static final String HIDDEN = "on a shelf that you do not see";

    /**
     * Reads it; nothing where the view has no version of the document.
     *
     * @param number the version to begin with, for who sees all; empty for the one that the view shows
     */
    public Optional<Read> of(Actor actor, long item, StructureView asked, Optional<Integer> number, LocalDate day) {
        Seen top = sight.of(actor, item);
        StructureView view = top.all() || asked.isReleasedOnly() ? asked : StructureView.AS_RELEASED;
        Optional<Node> start = levels.start(top, view, number, day);
        if (start.isEmpty()) return Optional.empty();
        Map<Long, Seen> seen = new HashMap<>(Map.of(item, top));
        HandLines hand = new HandLines(
                versions, lines, references, seen, view, start.get().version());
        Reach reach = new Reach(Bom.DEEPEST, MOST_PARTS, hand::beside);
        Map<Node, List<Child>> children = levels.levels(actor, start.get(), view, day, reach, seen, Map.of());
        Reading reading = new Reading(seen, children, hand, PartFacts.of(house.facts()));
        reading.read(start.get(), item);
        long revision = hand.revision(start.get().version());
        return Optional.of(new Read(
                top,
                view,
                reading.parts.get(0).version(),
                Bom.of(reading.parts, reading.below),
                reading.stands,
                revision,
                reading.cut,
                reading.facts.currency()));
    }

    /** The document as this person sees it. */
    public Seen top(Actor actor, long item) {
        return sight.of(actor, item);
    }

    /** Documents in whose BOM a document stands by hand: who reads what is released learns of what is in force. */
    public List<Seen> namedIn(Actor actor, long item) {
        sight.of(actor, item);
        Map<Long, Boolean> named = new LinkedHashMap<>();
        lines.namedIn(item, MOST_NAMED).forEach(n -> named.put(n.item(), n.released()));
        Map<Long, Seen> seen = sight.of(actor, named.keySet());
        List<Seen> found = new ArrayList<>();
        named.forEach((id, released) -> Optional.ofNullable(seen.get(id))
                .filter(s -> s.all() || released)
                .ifPresent(found::add));
        return found;
    }

    /** A BOM that this person may change lines of: the one that is being prepared. */
    public Read ofPending(Actor actor, long item) {
        return of(actor, item, StructureView.LATEST, Optional.empty(), LocalDate.EPOCH)
                .orElseThrow(NotThere::new);
    }

    /** Puts parts and lines together. */
    private final class Reading {
        private final Map<Long, Seen> seen;
        private final Map<Node, List<Child>> children;
        private final HandLines hand;
        private final PartFacts facts;
        private final Map<String, Integer> places = new HashMap<>();
        private final List<BomPart> parts = new ArrayList<>();
        private final List<Stands> stands = new ArrayList<>();
        private final List<List<BomLine>> below = new ArrayList<>();
        private final Map<Long, Map<String, String>> said;
        private final Map<Long, Revision> revisionById;
        private final Map<Long, String> titles;
        private boolean cut;

        Reading(Map<Long, Seen> seen, Map<Node, List<Child>> children, HandLines hand, PartFacts facts) {
            this.seen = seen;
            this.children = children;
            this.hand = hand;
            this.facts = facts;
            Set<Long> shown = new HashSet<>();
            children.forEach((node, list) -> {
                shown.add(node.version());
                list.forEach(c -> c.shown().ifPresent(s -> shown.add(s.version())));
            });
            hand.meet(shown);
            Set<Long> all = hand.revisions();
            this.said = ReadBom.this.facts.facts(all);
            this.revisionById = new HashMap<>();
            this.titles = new HashMap<>();
            for (Seen one : seen.values()) {
                revisionById.put(one.current().id(), one.current());
                titles.put(one.current().id(), one.document().title());
            }
            Set<Long> others = new HashSet<>(all);
            others.removeAll(titles.keySet());
            revisionById.putAll(revisions.revisionsById(others));
            titles.putAll(revisions.titles(others));
        }

        void read(Node start, long item) {
            int number = versions.versionsById(List.of(start.version())).values().stream()
                    .map(v -> v.number())
                    .findFirst()
                    .orElseThrow(NotThere::new);
            version(start.version(), item, number);
            children.forEach((node, list) -> list.forEach(c -> place(c)));
            children.forEach((node, list) -> {
                int place = places.getOrDefault("v" + node.version(), -1);
                if (place >= 0 && below.get(place).isEmpty()) below.get(place).addAll(lines(node, list));
            });
            cut = places.keySet().stream()
                    .filter(key -> key.startsWith("v"))
                    .anyMatch(key -> !read.contains(Long.valueOf(key.substring(1))));
        }

        private final Set<Long> read = new HashSet<>();

        private int add(String key, BomPart part, Stands stand) {
            int place = parts.size();
            places.put(key, place);
            parts.add(part);
            stands.add(stand);
            below.add(new ArrayList<>());
            return place;
        }

        private int version(long version, long item, int number) {
            Integer known = places.get("v" + version);
            if (known != null) return known;
            Seen one = seen.get(item);
            long revision = hand.revision(version);
            Revision of = revisionById.get(revision);
            Map<String, String> its = said.getOrDefault(revision, Map.of());
            BomPart part = facts.part(
                    item,
                    one == null ? "" : one.document().number(),
                    titles.getOrDefault(revision, ""),
                    of == null ? "" : of.shown(),
                    number,
                    its);
            return add(
                    "v" + version,
                    part,
                    new Stands(Optional.ofNullable(one), version, Optional.ofNullable(of), its, ""));
        }

        /** Where the part of a child stands among the parts. */
        private int place(Child child) {
            Optional<Reference.Component> component = child.reference().component();
            if (component.isEmpty()) {
                String path = child.reference().written().path();
                return unread("m" + path, "", path, Stands.nothing("no document has this file"));
            }
            long item = component.get().item();
            Seen one = seen.get(item);
            if (one == null) return unread("h" + item, "", "a component", Stands.nothing(HIDDEN));
            if (child.shown().isEmpty())
                return unread(
                        "n" + item,
                        one.document().number(),
                        one.document().title(),
                        new Stands(Optional.of(one), 0, Optional.empty(), Map.of(), "no version in this view"));
            return version(
                    child.shown().get().version(), item, child.shown().get().number());
        }

        /** A part of which nothing is known that could be summed. */
        private int unread(String key, String number, String title, Stands stand) {
            Integer known = places.get(key);
            if (known != null) return known;
            BomPart part = new BomPart(
                    -1 - parts.size(),
                    number,
                    title,
                    "",
                    0,
                    Comes.BOUGHT,
                    BomUnits.PIECE,
                    Optional.empty(),
                    Optional.empty());
            return add(key, part, stand);
        }

        private List<BomLine> lines(Node node, List<Child> list) {
            read.add(node.version());
            Map<String, BomLine> ofFile = new LinkedHashMap<>();
            Map<Integer, Integer> byHand = new HashMap<>();
            for (Child child : list) {
                Reference r = child.reference();
                if (r.written().role() != Written.Role.COMPONENT) continue;
                int place = place(child);
                if (r.seq() < 0) {
                    byHand.put(-r.seq(), place);
                    continue;
                }
                BigDecimal quantity = BigDecimal.valueOf(r.written().quantity());
                ofFile.merge(
                        key(r),
                        new BomLine("", place, quantity, BomUnits.PIECE, false),
                        (a, b) -> new BomLine("", place, a.quantity().add(b.quantity()), a.unit(), false));
            }
            Map<String, Kept> kept = new HashMap<>();
            Map<String, String> known = new HashMap<>();
            for (Kept one : hand.of(node.version())) {
                String key = one.ofFile() ? "c" + one.component().orElse(0L) : "h" + one.seq();
                kept.put(key, one);
                known.put(key, one.find());
            }
            // What no document has comes last: it keeps no number before somebody finds it.
            List<String> keys = ofFile.keySet().stream()
                    .sorted(Comparator.comparing(k -> k.startsWith("m")))
                    .toList();
            List<String> finds = FindNumbers.assign(keys, known);
            List<BomLine> lines = new ArrayList<>();
            for (int i = 0; i < keys.size(); i++) {
                BomLine line = ofFile.getOrDefault(keys.get(i), new BomLine("", 0, BigDecimal.ONE, "", false));
                Optional<BomLineStore.Measured> measured =
                        Optional.ofNullable(kept.get(keys.get(i))).flatMap(Kept::measured);
                lines.add(new BomLine(
                        finds.get(i),
                        line.part(),
                        measured.map(BomLineStore.Measured::quantity).orElse(line.quantity()),
                        measured.map(BomLineStore.Measured::unit).orElse(line.unit()),
                        false));
            }
            for (Kept one : hand.of(node.version())) {
                if (one.ofFile()) continue;
                Integer place =
                        one.component().isEmpty() ? Integer.valueOf(text(node.version(), one)) : byHand.get(one.seq());
                if (place == null) continue;
                BomLineStore.Measured measured = one.measured().orElseThrow();
                lines.add(new BomLine(one.find(), place, measured.quantity(), measured.unit(), true));
            }
            lines.sort(Comparator.comparing(BomLine::find, FindNumbers::compare));
            return lines;
        }

        private static String key(Reference r) {
            return r.component()
                    .map(c -> "c" + c.item())
                    .orElse("m" + r.written().path());
        }

        private int text(long version, Kept one) {
            String key = "t" + hand.revision(version) + "." + one.seq();
            Integer known = places.get(key);
            if (known != null) return known;
            BomPart part = new BomPart(
                    -1 - parts.size(),
                    one.says().number(),
                    one.says().title(),
                    "",
                    0,
                    one.says().comes(),
                    one.measured().orElseThrow().unit(),
                    one.says().mass(),
                    one.says().cost());
            return add(key, part, Stands.nothing(""));
        }
    }
}
