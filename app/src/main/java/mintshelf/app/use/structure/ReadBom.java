package mintshelf.app.use.structure;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.structure.BomLineStore;
import mintshelf.app.store.structure.ReferenceStore;
import mintshelf.app.use.structure.StructureLevels.Child;
import mintshelf.app.use.structure.StructureLevels.Node;
import mintshelf.app.use.structure.StructureLevels.Reach;
import mintshelf.core.bom.Bom;
import mintshelf.core.bom.BomPart;
import mintshelf.core.bom.Effectivity;
import mintshelf.core.bom.Effectivity.Product;
import mintshelf.core.bom.RollUp;
import mintshelf.core.bom.Serial;
import mintshelf.core.document.Revision;
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
    private final ReadParts parts;
    private final OwnParts own;

    public ReadBom(
            Sight sight,
            StructureLevels levels,
            RevisionStore revisions,
            VersionStore versions,
            ReferenceStore references,
            BomLineStore lines,
            ReadParts parts,
            OwnParts own) {
        this.own = own;
        this.sight = sight;
        this.levels = levels;
        this.revisions = revisions;
        this.versions = versions;
        this.references = references;
        this.lines = lines;
        this.parts = parts;
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
     * @param left lines that are not part of the product that was asked for
     */
    public record Read(
            Seen top,
            StructureView view,
            int version,
            Bom bom,
            List<Stands> stands,
            long revision,
            boolean cut,
            String currency,
            List<Left> left) {
        public RollUp mass() {
            return RollUp.of(bom, RollUp.Of.MASS);
        }

        public RollUp cost() {
            return RollUp.of(bom, RollUp.Of.COST);
        }

        /** Whether some of it is not for this person's eyes. */
        public boolean incomplete() {
            return IntStream.range(0, bom.size())
                    .anyMatch(i -> bom.isReached(i) && stands.get(i).lacks().equals(HIDDEN));
        }
    }

    /**
     * A line that is not part of a product.
     *
     * @param ofTop whether it is one of the top's
     */
    public record Left(String find, BomPart part, Effectivity when, boolean ofTop) {}

    /** Which product a BOM is asked for: its serial number, its lot. */
    public record Asked(Optional<Serial> serial, Optional<String> lot) {
        public static final Asked ANY = new Asked(Optional.empty(), Optional.empty());
    }

    static final String HIDDEN = "on a shelf that you do not see";

    /**
     * Reads it; nothing where the view has no version of the document.
     *
     * @param number the version to begin with, for who sees all; empty for the one that the view shows
     */
    public Optional<Read> of(Actor actor, long item, StructureView asked, Optional<Integer> number, LocalDate day) {
        return of(actor, item, asked, number, day, Asked.ANY);
    }

    /** As {@link #of(Actor, long, StructureView, Optional, LocalDate)}, for one product: lines of others are left out. */
    public Optional<Read> of(
            Actor actor, long item, StructureView asked, Optional<Integer> number, LocalDate day, Asked which) {
        Seen top = sight.of(actor, item);
        StructureView view = top.all() || asked.isReleasedOnly() ? asked : StructureView.AS_RELEASED;
        Product product = new Product(levels.built(view, day), which.serial(), which.lot());
        return read(actor, top, view, number, day, Optional.of(product), Bom.DEEPEST);
    }

    /** @param product nothing for all lines, of whatever products they are part */
    private Optional<Read> read(
            Actor actor,
            Seen top,
            StructureView view,
            Optional<Integer> number,
            LocalDate day,
            Optional<Product> product,
            int deepest) {
        long item = top.spine().id();
        Optional<Node> start = levels.start(top, view, number, day);
        if (start.isEmpty()) return Optional.empty();
        Map<Long, Seen> seen = new HashMap<>(Map.of(item, top));
        HandLines hand = new HandLines(
                versions, lines, references, seen, view, start.get().version());
        Reach reach = new Reach(deepest, MOST_PARTS, hand::beside);
        Map<Node, List<Child>> children = levels.levels(actor, start.get(), view, day, reach, seen, Map.of());
        BomReading reading = new BomReading(
                parts, revisions, seen, children, hand, product, own.of(actor, top, view, day, seen.keySet()));
        reading.read(start.get(), item, number(start.get()));
        long revision = hand.revision(start.get().version());
        return Optional.of(new Read(
                top,
                view,
                reading.bom().top().version(),
                reading.bom(),
                reading.stands(),
                revision,
                reading.cut(),
                reading.currency(),
                reading.left()));
    }

    private int number(Node start) {
        return versions.versionsById(List.of(start.version())).values().stream()
                .map(v -> v.number())
                .findFirst()
                .orElseThrow(NotThere::new);
    }

    /** The document as this person sees it. */
    public Seen top(Actor actor, long item) {
        return sight.of(actor, item);
    }

    /** A document in whose BOM another one stands by hand, and its lines there. */
    public record Named(Seen seen, List<BomLineStore.NamedIn> lines) {}

    /** Documents in whose BOM a document stands by hand: who reads what is released learns of what is in force, everybody else of what is under way. */
    public List<Named> namedIn(Actor actor, long item) {
        sight.of(actor, item);
        Map<Long, List<BomLineStore.NamedIn>> named = new LinkedHashMap<>();
        lines.namedIn(item, MOST_NAMED)
                .forEach(n ->
                        named.computeIfAbsent(n.item(), i -> new ArrayList<>()).add(n));
        Map<Long, Seen> seen = sight.of(actor, named.keySet());
        List<Named> found = new ArrayList<>();
        named.forEach((id, all) -> {
            Seen one = seen.get(id);
            if (one == null) return;
            boolean pending = one.all() && one.pending().isPresent();
            List<BomLineStore.NamedIn> shown = all.stream()
                    .filter(n -> pending ? n.pending() : n.released())
                    .toList();
            if (!shown.isEmpty()) found.add(new Named(one, shown));
        });
        return found;
    }

    /** The lines of the BOM that is being prepared, all of them, of whatever products they are part; not what is below those. */
    public Read ofPending(Actor actor, long item) {
        Seen top = sight.of(actor, item);
        StructureView view = top.all() ? StructureView.LATEST : StructureView.AS_RELEASED;
        return read(actor, top, view, Optional.empty(), LocalDate.EPOCH, Optional.empty(), 1)
                .orElseThrow(NotThere::new);
    }
}
