package mintshelf.app.use.structure;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.structure.BomLineStore.Kept;
import mintshelf.app.store.structure.Reference;
import mintshelf.app.use.structure.ReadBom.Left;
import mintshelf.app.use.structure.ReadBom.Stands;
import mintshelf.app.use.structure.StructureLevels.Child;
import mintshelf.app.use.structure.StructureLevels.Node;
import mintshelf.core.base.Texts;
import mintshelf.core.bom.Bom;
import mintshelf.core.bom.BomLine;
import mintshelf.core.bom.BomPart;
import mintshelf.core.bom.BomUnits;
import mintshelf.core.bom.Comes;
import mintshelf.core.bom.Effectivity;
import mintshelf.core.bom.Effectivity.Holds;
import mintshelf.core.bom.Effectivity.Product;
import mintshelf.core.bom.LevelLines;
import mintshelf.core.bom.Variant;
import mintshelf.core.document.Revision;
import mintshelf.core.reference.Written;

/** Puts parts and lines together. */
final class BomReading {
    private final Map<Long, Seen> seen;
    private final Map<Node, List<Child>> children;
    private final HandLines hand;
    private final Optional<Product> product;
    /** Of documents whose parts have revisions of their own, those. */
    private final Map<Long, Revision> own;

    private final List<Left> left = new ArrayList<>();
    private final Set<Long> read = new HashSet<>();
    private final Map<Long, List<Integer>> ofVersion = new HashMap<>();
    private final Map<String, Integer> places = new HashMap<>();
    private final List<BomPart> parts = new ArrayList<>();
    private final List<Stands> stands = new ArrayList<>();
    private final List<List<BomLine>> below = new ArrayList<>();
    private final ReadParts.Known known;
    private final Map<Long, Revision> revisionById;
    private final Map<Long, String> titles;
    private boolean cut;

    BomReading(
            ReadParts parts,
            RevisionStore revisions,
            Map<Long, Seen> seen,
            Map<Node, List<Child>> children,
            HandLines hand,
            Optional<Product> product,
            Map<Long, Revision> own) {
        this.seen = seen;
        this.own = own;
        this.children = children;
        this.hand = hand;
        this.product = product;
        Set<Long> shown = new HashSet<>();
        children.forEach((node, list) -> {
            shown.add(node.version());
            list.forEach(c -> c.shown().ifPresent(s -> shown.add(s.version())));
        });
        hand.meet(shown);
        Set<Long> all = hand.revisions();
        Set<Long> said = new HashSet<>(all);
        own.values().forEach(r -> said.add(r.id()));
        this.known = parts.of(said);
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

    /** @param number of the version that it begins with */
    void read(Node start, long item, int number) {
        version(start.version(), item, number, "");
        children.forEach((node, list) -> {
            Map<Long, String> variants = variants(node);
            list.forEach(c -> place(c, variants));
        });
        Map<Long, Node> nodes = new LinkedHashMap<>();
        children.keySet().forEach(n -> nodes.putIfAbsent(n.version(), n));
        nodes.forEach((version, node) -> {
            List<Integer> mine = ofVersion.getOrDefault(version, List.of());
            if (mine.isEmpty()) return;
            List<BomLine> of = lines(node, Objects.requireNonNull(children.get(node)), mine.get(0) == 0);
            mine.forEach(place -> below.get(place).addAll(of));
        });
        cut = !read.containsAll(ofVersion.keySet());
    }

    /** The variants that lines of the file name, by component. */
    private Map<Long, String> variants(Node node) {
        Map<Long, String> named = new HashMap<>();
        hand.of(node.version()).stream()
                .filter(Kept::ofFile)
                .filter(k -> !k.variant().isEmpty())
                .forEach(k -> named.put(k.component().orElse(0L), k.variant()));
        return named;
    }

    Bom bom() {
        return Bom.of(parts, below);
    }

    List<Stands> stands() {
        return stands;
    }

    List<Left> left() {
        return List.copyOf(left);
    }

    boolean cut() {
        return cut;
    }

    /** The currency that costs are in. */
    String currency() {
        return known.how().currency();
    }

    private int add(String key, BomPart part, Stands stand) {
        int place = parts.size();
        places.put(key, place);
        parts.add(part);
        stands.add(stand);
        below.add(new ArrayList<>());
        return place;
    }

    private int version(long version, long item, int number, String name) {
        String key = "v" + version + " " + Texts.key(name);
        Integer before = places.get(key);
        if (before != null) return before;
        Seen one = seen.get(item);
        long revision = hand.revision(version);
        Revision part = own.get(item);
        Revision of = part == null ? revisionById.get(revision) : part;
        long says = part == null ? revision : part.id();
        Optional<Variant> variant = known.variant(revision, name);
        boolean lacks = !name.isEmpty() && variant.isEmpty();
        BomPart found = known.part(
                item,
                revision,
                says,
                variant,
                one == null ? "" : one.document().number(),
                titles.getOrDefault(revision, ""),
                of == null ? "" : of.shown(),
                number);
        if (lacks) found = found.lacking(name, "it has no variant “" + name + "” here");
        int place = add(
                key,
                found,
                new Stands(
                        Optional.ofNullable(one),
                        version,
                        Optional.ofNullable(of),
                        known.facts(says, variant),
                        lacks ? "no variant “" + name + "” here" : ""));
        ofVersion.computeIfAbsent(version, v -> new ArrayList<>()).add(place);
        return place;
    }

    private int place(Child child, Map<Long, String> ofFile) {
        Reference r = child.reference();
        long item = r.component().map(Reference.Component::item).orElse(0L);
        return place(child, r.seq() < 0 ? hand.variant(r) : ofFile.getOrDefault(item, ""));
    }

    /** Where the part of a child stands among the parts. */
    private int place(Child child, String variant) {
        Optional<Reference.Component> component = child.reference().component();
        if (component.isEmpty()) {
            String path = child.reference().written().path();
            return unread("m" + path, "", path, Stands.nothing("no document has this file"));
        }
        long item = component.get().item();
        Seen one = seen.get(item);
        if (one == null) return unread("h" + item, "", "a component", Stands.nothing(ReadBom.HIDDEN));
        if (child.shown().isEmpty())
            return unread(
                    "n" + item,
                    one.document().number(),
                    one.document().title(),
                    new Stands(Optional.of(one), 0, Optional.empty(), Map.of(), "no version in this view"));
        return version(child.shown().get().version(), item, child.shown().get().number(), variant);
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

    private List<BomLine> lines(Node node, List<Child> list, boolean ofTop) {
        read.add(node.version());
        Map<Long, String> variants = variants(node);
        Map<String, Integer> at = new HashMap<>();
        Map<String, BigDecimal> counted = new LinkedHashMap<>();
        // What no document has comes last: it keeps no number before somebody finds it.
        Map<String, BigDecimal> missing = new LinkedHashMap<>();
        for (Child child : list) {
            Reference r = child.reference();
            if (r.written().role() != Written.Role.COMPONENT) continue;
            int place = place(child, variants);
            if (r.seq() < 0) {
                at.put(Kept.byHand(-r.seq()), place);
                continue;
            }
            String key = key(r);
            at.put(key, place);
            (r.component().isPresent() ? counted : missing)
                    .merge(key, BigDecimal.valueOf(r.written().quantity()), BigDecimal::add);
        }
        counted.putAll(missing);
        Map<String, Effectivity> when = new HashMap<>();
        for (Kept one : hand.of(node.version())) {
            when.put(one.key(), one.when());
            if (!one.ofFile() && one.component().isEmpty()) at.put(one.key(), text(node.version(), one));
        }
        List<LevelLines.Said> said =
                hand.of(node.version()).stream().map(Kept::line).toList();
        List<BomLine> lines = new ArrayList<>();
        for (LevelLines.Line one : LevelLines.of(counted, said)) {
            Integer place = at.get(one.key());
            if (place == null) continue;
            line(
                    lines,
                    new BomLine(
                            one.find(),
                            place,
                            one.quantity().quantity(),
                            one.quantity().unit(),
                            one.byHand()),
                    when.getOrDefault(one.key(), Effectivity.ALWAYS),
                    ofTop);
        }
        return lines;
    }

    /** Puts a line among the others where the product that is asked for has it. */
    private void line(List<BomLine> lines, BomLine line, Effectivity when, boolean ofTop) {
        Holds holds = product.map(when::of).orElse(when.isAlways() ? Holds.YES : Holds.OPEN);
        if (holds == Holds.NO) left.add(new Left(line.find(), parts.get(line.part()), when, ofTop));
        else
            lines.add(new BomLine(
                    line.find(), line.part(), line.quantity(), line.unit(), line.byHand(), when, holds == Holds.OPEN));
    }

    private static String key(Reference r) {
        return r.component()
                .map(c -> Kept.ofFile(c.item()))
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
