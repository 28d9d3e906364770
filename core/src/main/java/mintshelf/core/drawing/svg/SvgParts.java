package mintshelf.core.drawing.svg;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.List;
import java.util.function.Consumer;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.Style;

/**
 * A large scene in parts: what is largest on the sheet first, in a picture that can be looked at, then the rest, the larger before the smaller.
 * All parts over each other are the whole picture. Where something covers other things up, the parts follow the order of the file instead: what
 * lies on top has to come later. O(n log n) in the primitives.
 */
public final class SvgParts {
    /** Up to here a scene is one picture. */
    public static final int WHOLE = 20_000;

    private static final int FIRST = 8_000;

    private final Scene scene;
    private final Box box;
    private final List<Integer> order;

    private SvgParts(Scene scene) {
        this.scene = scene;
        this.box = scene.extents();
        List<Primitive> all = scene.primitives();
        Integer[] indexes = new Integer[all.size()];
        Arrays.setAll(indexes, i -> i);
        if (all.stream().noneMatch(p -> p.style().colour() == Style.PAPER)) {
            double[] sizes = new double[indexes.length];
            for (int i = 0; i < sizes.length; i++) sizes[i] = size(all.get(i));
            Arrays.sort(indexes, Comparator.comparingDouble((Integer i) -> -sizes[i]));
        }
        this.order = Arrays.asList(indexes);
    }

    private static double size(Primitive p) {
        Box box = p.box();
        return box.isEmpty() ? 0 : Math.max(box.width(), box.height());
    }

    /** The parts of a scene that is more than {@link #WHOLE} primitives; one part of any other. */
    public static SvgParts of(Scene scene) {
        return new SvgParts(scene);
    }

    /** Whether a scene comes in parts. */
    public static boolean isLarge(Scene scene) {
        return scene.primitives().size() > WHOLE;
    }

    /** How many primitives the first picture lacks. */
    public int rest() {
        return isLarge(scene) ? order.size() - FIRST : 0;
    }

    /** The picture with the first part, at its place on the whole sheet. */
    public String first(String label) {
        return SvgWriter.frame(box, label, SvgWriter.inside(part(0, order.size() - rest()), box, false));
    }

    /** Gives the other parts one after the other, each a picture by itself that is laid over the first. */
    public void others(Consumer<String> each) {
        // Twice as many each time: with each part a browser paints all that is there anew.
        int many = FIRST * 2;
        for (int at = order.size() - rest(); at < order.size(); at += many, many *= 2) {
            Scene part = part(at, Math.min(order.size(), at + many));
            each.accept("<svg xmlns=\"http://www.w3.org/2000/svg\" data-count=\""
                    + part.primitives().size() + "\">" + SvgWriter.inside(part, box, false) + "</svg>");
        }
    }

    /** Some of the primitives in the order of the file. */
    private Scene part(int from, int to) {
        BitSet wanted = new BitSet();
        for (int i = from; i < to; i++) wanted.set(order.get(i));
        List<Primitive> some = new ArrayList<>(to - from);
        wanted.stream().forEach(i -> some.add(scene.primitives().get(i)));
        return new Scene(some, scene.layers(), scene.notDrawn(), List.of());
    }
}
