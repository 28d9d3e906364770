package mintshelf.core.model.compare;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mintshelf.core.model.shape.Body;
import mintshelf.core.model.shape.Extent;
import mintshelf.core.model.shape.Feature;
import mintshelf.core.model.shape.Features;
import mintshelf.core.model.shape.Vec;

/**
 * Where a component is seated in an assembly: round things of it that stand on one axis with round things of its neighbours, as a shaft in
 * its bore or a screw in its hole; and which of these seats another component in its place keeps.
 */
public final class Seats {
    /** Round things that are held against each other in one assembly: of more none are told. */
    public static final int MOST = 1_500;

    /** Axes this near are one, in millimetres. */
    private static final double ON_AXIS = 0.05;
    /** Diameters that differ by more than this part are of things that pass each other by. */
    private static final double FITS = 0.3;
    /** Gap along the axis beyond which they do not meet, in millimetres. */
    private static final double GAP = 1.0;

    private static final double SAME = 1e-3;

    private Seats() {}

    /**
     * Something round in an assembly.
     *
     * @param of the component that it is of, as people call it
     * @param hollow whether it is a hole; else something that stands in one
     * @param at a place on its axis, {@code axis} its direction
     * @param from where it begins along its axis, {@code to} where it ends
     */
    public record Round(String of, boolean hollow, double diameter, Vec at, Vec axis, double from, double to) {
        /**
         * The same where its component stands in an assembly.
         *
         * @param matrix 4 × 4, by rows
         */
        public Round in(double[] matrix) {
            Vec begin = placed(matrix, at.plus(axis.times(from)));
            Vec end = placed(matrix, at.plus(axis.times(to)));
            Vec turned = turned(matrix, axis).unit().upward();
            double a = begin.dot(turned);
            double b = end.dot(turned);
            return new Round(of, hollow, diameter, begin.across(turned), turned, Math.min(a, b), Math.max(a, b));
        }
    }

    /** What becomes of a seat. */
    public enum Fate {
        FITS,
        OTHERWISE,
        LOST
    }

    /**
     * A seat.
     *
     * @param says what becomes of it, in words
     * @param box around it, in the assembly
     */
    public record Seat(Fate fate, String says, Extent box) {}

    /** The round things of a component, where it stands by itself. O(faces). */
    public static List<Round> of(String name, Body body) {
        List<Round> all = new ArrayList<>();
        for (Feature f : Features.of(body)) {
            boolean hollow = f.kind() == Feature.Kind.HOLE;
            boolean full = f.kind() == Feature.Kind.ROUND || f.kind() == Feature.Kind.BOSS;
            if (!hollow && !full) continue;
            Vec axis = f.axis().unit().upward();
            Extent box = Extent.NONE;
            for (int face : f.faces()) box = box.with(body.faces().get(face).extent());
            double[] reach = box.along(axis);
            all.add(new Round(
                    name, hollow, f.size(Feature.Size.DIAMETER), f.at().across(axis), axis, reach[0], reach[1]));
        }
        return all;
    }

    private static Vec turned(double[] m, Vec v) {
        return new Vec(
                m[0] * v.x() + m[1] * v.y() + m[2] * v.z(),
                m[4] * v.x() + m[5] * v.y() + m[6] * v.z(),
                m[8] * v.x() + m[9] * v.y() + m[10] * v.z());
    }

    private static Vec placed(double[] m, Vec v) {
        return turned(m, v).plus(new Vec(m[3], m[7], m[11]));
    }

    private static boolean meet(Round a, Round b) {
        // Two full things end at each other; they do not go into one another.
        if (!a.hollow() && !b.hollow()) return false;
        if (a.axis().distance(b.axis()) > 1e-4 || a.at().distance(b.at()) > ON_AXIS) return false;
        if (a.from() > b.to() + GAP || b.from() > a.to() + GAP) return false;
        double wide = Math.max(a.diameter(), b.diameter());
        return Math.abs(a.diameter() - b.diameter()) <= FITS * wide;
    }

    /**
     * What becomes of the seats of a component.
     *
     * @param old its round things where it stands, {@code now} those of what comes in, at the same places
     * @param others those of its neighbours
     */
    public static List<Seat> compare(List<Round> old, List<Round> now, List<Round> others) {
        if (old.size() + now.size() + others.size() > MOST) return List.of();
        List<Seat> seats = new ArrayList<>();
        for (Round was : old) {
            for (Round other : others) {
                if (!meet(was, other)) continue;
                Optional<Round> is = now.stream()
                        .filter(n -> n.hollow() == was.hollow() && isOn(n, other))
                        .min((a, b) -> Double.compare(
                                Math.abs(a.diameter() - was.diameter()), Math.abs(b.diameter() - was.diameter())));
                seats.add(is.map(i -> seat(was, i, other)).orElseGet(() -> lost(was, other)));
            }
        }
        return seats;
    }

    private static boolean isOn(Round a, Round b) {
        return a.axis().distance(b.axis()) <= 1e-4
                && a.at().distance(b.at()) <= ON_AXIS
                && a.from() <= b.to() + GAP
                && b.from() <= a.to() + GAP;
    }

    private static String partner(Round other) {
        return (other.hollow() ? "hole " : "round ") + size(other) + " of " + other.of();
    }

    private static Seat lost(Round was, Round other) {
        return new Seat(
                Fate.LOST,
                partner(other) + " at " + place(other) + " has nothing on its axis any more, was " + size(was),
                box(was));
    }

    private static Seat seat(Round was, Round is, Round other) {
        Extent box = box(was);
        String partner = partner(other);
        if (Math.abs(is.diameter() - was.diameter()) <= SAME)
            return new Seat(Fate.FITS, partner + " meets " + size(is) + " as before", box);
        double gap = other.hollow() == is.hollow()
                ? 0
                : other.hollow() ? other.diameter() - is.diameter() : is.diameter() - other.diameter();
        return new Seat(
                gap < -SAME ? Fate.LOST : Fate.OTHERWISE,
                partner + " meets " + size(is) + ", was " + size(was) + (gap < -SAME ? ": it does not go in" : ""),
                box);
    }

    private static String size(Round round) {
        return Feature.Size.DIAMETER.says(round.diameter());
    }

    private static String place(Round round) {
        return Feature.place(round.at().plus(round.axis().times((round.from() + round.to()) / 2)));
    }

    private static Extent box(Round round) {
        double r = round.diameter() / 2;
        Vec a = round.at().plus(round.axis().times(round.from()));
        Vec b = round.at().plus(round.axis().times(round.to()));
        Vec d = round.axis();
        Vec wide = new Vec(
                r * Math.sqrt(Math.max(0, 1 - d.x() * d.x())),
                r * Math.sqrt(Math.max(0, 1 - d.y() * d.y())),
                r * Math.sqrt(Math.max(0, 1 - d.z() * d.z())));
        return Extent.NONE
                .with(a.plus(wide))
                .with(a.minus(wide))
                .with(b.plus(wide))
                .with(b.minus(wide));
    }
}
