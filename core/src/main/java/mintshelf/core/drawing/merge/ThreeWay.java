package mintshelf.core.drawing.merge;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.compare.Comparison.Difference;
import mintshelf.core.drawing.compare.SheetCompare;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.dxf.SheetParts;
import mintshelf.core.drawing.dxf.SheetParts.Part;
import mintshelf.core.drawing.dxf.TakeOver;

/**
 * What became of a sheet, held against what became of another one that began from it: a difference goes over where nothing of it was touched there, is
 * there already, stays apart, or is to be decided. Told in the words of the comparison, done entity by entity. What an entity is goes by what
 * it says: no program has to keep handles.
 */
public final class ThreeWay {
    /** What becomes of a difference. */
    public enum Fate {
        /** Nothing of it was touched here: it goes over. */
        GOES("goes over"),
        /** The same was changed here too. */
        DECIDE("to decide"),
        /** It is here already. */
        THERE("is here already"),
        /** The form of the sheet is its own. */
        OWN("stays its own"),
        /** This sheet lacks something that it needs. */
        LACKS("cannot go over");

        private final String words;

        Fate(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * A difference between what it began from and what that is now.
     *
     * @param why in words, where it does not just go over
     */
    public record Row(Difference difference, Fate fate, String why) {
        /** Whether somebody may have it go over. */
        public boolean isOpen() {
            return fate == Fate.GOES || fate == Fate.DECIDE;
        }
    }

    /** Parts that go and parts that come with a difference. */
    private record Move(List<Part> out, List<Part> in) {}

    private final SheetParts base;
    private final SheetParts theirs;
    private final SheetParts mine;
    private final Map<Part, Difference> ownOut = new HashMap<>();
    private final Map<Difference, Move> own = new HashMap<>();
    private final Map<Integer, Move> moves = new HashMap<>();
    private final Map<Integer, Set<Difference>> against = new HashMap<>();
    private final List<Row> rows = new ArrayList<>();

    private ThreeWay(SheetParts base, SheetParts theirs, SheetParts mine) {
        this.base = base;
        this.theirs = theirs;
        this.mine = mine;
    }

    /**
     * Holds the three against each other. O(bytes).
     *
     * @param base what both came from, {@code theirs} what became of it, {@code mine} the sheet that takes up
     * @return refused where one of them cannot be read whole, or the files are written too differently
     */
    public static Outcome<ThreeWay> of(DxfDrawing base, DxfDrawing theirs, DxfDrawing mine) {
        return of(base, theirs, mine, 1);
    }

    /**
     * As {@link #of(DxfDrawing, DxfDrawing, DxfDrawing)}, at a scale.
     *
     * @param scale of the sheets, by which sizes are told
     */
    public static Outcome<ThreeWay> of(DxfDrawing base, DxfDrawing theirs, DxfDrawing mine, double scale) {
        ThreeWay three = new ThreeWay(SheetParts.of(base), SheetParts.of(theirs), SheetParts.of(mine));
        boolean whole = three.base.isWhole() && three.theirs.isWhole() && three.mine.isWhole();
        if (!whole || !TakeOver.isAlike(theirs, mine) || !three.isFamily())
            return Outcome.refused(
                    "three_way.strange",
                    "Which line of one sheet is which of the other cannot be told from these files.",
                    "Take the changes up in the program that drew them.");
        Outcome<Scene> was = base.scene();
        Outcome<Scene> now = theirs.scene();
        Outcome<Scene> here = mine.scene();
        if (was instanceof Outcome.Granted<Scene> old
                && now instanceof Outcome.Granted<Scene> next
                && here instanceof Outcome.Granted<Scene> own) {
            three.hold(old.value(), next.value(), own.value(), scale);
            return Outcome.granted(three);
        }
        return Outcome.refused(was.refusal().or(now::refusal).or(here::refusal).orElseThrow());
    }

    /** Whether most of what the base says is said by both others too. */
    private boolean isFamily() {
        int all = base.parts().size();
        if (all == 0) return false;
        long there =
                base.parts().stream().filter(p -> theirs.count(p.thing()) > 0).count();
        long here = base.parts().stream().filter(p -> mine.count(p.thing()) > 0).count();
        return there * 2 >= all && here * 2 >= all;
    }

    private void hold(Scene old, Scene next, Scene here, double scale) {
        for (Difference difference : SheetCompare.compare(old, here, scale).differences()) {
            Move move = move(difference, old, here, mine);
            own.put(difference, move);
            move.out().forEach(p -> ownOut.put(p, difference));
        }
        for (Difference difference : SheetCompare.compare(old, next, scale).differences()) {
            Move move = move(difference, old, next, theirs);
            moves.put(difference.number(), move);
            rows.add(row(difference, move));
        }
    }

    /** What goes out of the base with a difference, and what comes into the other one. */
    private Move move(Difference difference, Scene old, Scene now, SheetParts other) {
        Set<Part> out = new LinkedHashSet<>();
        Set<Part> in = new LinkedHashSet<>();
        Set<String> blocks = new HashSet<>();
        difference.olds().forEach(i -> part(old.primitives().get(i), base, out, blocks));
        difference.nows().forEach(i -> part(now.primitives().get(i), other, in, blocks));
        for (String block : blocks) {
            out.addAll(base.inside(block));
            in.addAll(other.inside(block));
        }
        return new Move(surplus(out, base, other), surplus(in, other, base));
    }

    private static void part(Primitive primitive, SheetParts of, Set<Part> parts, Set<String> blocks) {
        of.at(primitive.source().at()).ifPresent(parts::add);
        if (!primitive.source().path().isEmpty())
            for (String block : primitive.source().path().split("/")) blocks.add(block);
    }

    /** Those of which one sheet has more than the other: what is named by a difference and says the same on both is not touched. */
    private static List<Part> surplus(Set<Part> parts, SheetParts of, SheetParts other) {
        Map<String, Integer> left = new HashMap<>();
        List<Part> surplus = new ArrayList<>();
        for (Part part : parts) {
            int more = left.computeIfAbsent(part.thing(), t -> of.count(t) - other.count(t));
            if (more <= 0) continue;
            left.put(part.thing(), more - 1);
            surplus.add(part);
        }
        return surplus;
    }

    private Row row(Difference difference, Move move) {
        if (difference.form()) return new Row(difference, Fate.OWN, "the form of the sheet says what it is itself");
        boolean gone = move.out().stream().noneMatch(this::isHere);
        boolean all = move.out().stream().allMatch(this::isHere);
        boolean come = move.in().stream().allMatch(this::hasCome);
        if (gone && come) return new Row(difference, Fate.THERE, "");
        Set<String> lacks = new TreeSet<>();
        move.in().forEach(p -> lacks.addAll(mine.lacks(p)));
        if (!lacks.isEmpty()) return new Row(difference, Fate.LACKS, "here is not " + String.join(", ", lacks));
        if (all) return new Row(difference, Fate.GOES, "");
        Set<Difference> clash = move.out().stream()
                .map(ownOut::get)
                .flatMap(d -> Optional.ofNullable(d).stream())
                .collect(Collectors.toCollection(LinkedHashSet::new));
        against.put(difference.number(), clash);
        String says = clash.stream().map(Difference::says).limit(2).collect(Collectors.joining("; "));
        return new Row(difference, Fate.DECIDE, says.isEmpty() ? "changed here too" : "changed here too: " + says);
    }

    /** Whether a part of the base is here as it was. */
    private boolean isHere(Part part) {
        return mine.count(part.thing()) >= base.count(part.thing());
    }

    /** Whether what came there is here too. */
    private boolean hasCome(Part part) {
        return mine.count(part.thing()) >= theirs.count(part.thing());
    }

    /** In the order of reading. */
    public List<Row> rows() {
        return List.copyOf(rows);
    }

    public long count(Fate fate) {
        return rows.stream().filter(r -> r.fate() == fate).count();
    }

    /**
     * The sheet with some of them; where both changed the same, what was changed here goes.
     *
     * @param numbers of differences that go over; those that cannot are passed over
     */
    public Outcome<byte[]> write(Collection<Integer> numbers) {
        Set<Part> out = new LinkedHashSet<>();
        Set<Part> in = new LinkedHashSet<>();
        for (Row row : rows) {
            int number = row.difference().number();
            Move move = moves.get(number);
            if (!row.isOpen() || move == null || !numbers.contains(number)) continue;
            move.in().stream().filter(p -> !hasCome(p)).forEach(in::add);
            for (Part part : move.out()) mine(part, out);
            for (Difference clash : against.getOrDefault(number, Set.of()))
                Optional.ofNullable(own.get(clash)).ifPresent(m -> out.addAll(m.in()));
        }
        return TakeOver.write(mine, out, theirs, in);
    }

    /** The part of this sheet that says what one of the base says, and is not taken yet. */
    private void mine(Part part, Set<Part> taken) {
        mine.saying(part.thing()).stream()
                .filter(p -> !taken.contains(p))
                .findFirst()
                .ifPresent(taken::add);
    }
}
