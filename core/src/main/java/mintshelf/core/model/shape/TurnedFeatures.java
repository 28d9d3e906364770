package mintshelf.core.model.shape;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.model.shape.Feature.Kind;
import mintshelf.core.model.shape.Feature.Size;
import mintshelf.core.model.shape.Part.Meet;

/** Features that turn about an axis: holes and their steps, slots, bosses, rounds, rings, fillets, chamfers of round ends. */
final class TurnedFeatures {
    private static final double NEAR = Part.NEAR;
    private final Part part;
    private final List<Face> faces;

    TurnedFeatures(Part part) {
        this.part = part;
        this.faces = part.faces;
    }

    void find() {
        List<Turned> turned = Turned.of(faces);
        rings();
        holes(turned);
        slots(turned);
        rounds(turned);
        fillets(turned);
        cones(turned);
    }

    /** A torus that nothing bounds is a ring. */
    private void rings() {
        for (int f = 0; f < faces.size(); f++) {
            Face face = faces.get(f);
            if (!face.is(Surface.Kind.TORUS) || !isAlone(f)) continue;
            Surface on = face.surface();
            Map<Size, Double> sizes = new EnumMap<>(Size.class);
            sizes.put(Size.DIAMETER, 2 * (on.radius() - on.other()));
            sizes.put(Size.SECTION, 2 * on.other());
            part.add(Kind.RING, false, sizes, on.at(), on.axis(), Set.of(f));
        }
    }

    private boolean isAlone(int f) {
        for (Face.Bound bound : faces.get(f).bounds()) {
            for (Face.Use use : bound.uses())
                if (part.beside(f, use.edge()).filter(o -> o == f).isEmpty()) return false;
        }
        return true;
    }

    private void holes(List<Turned> turned) {
        Map<List<Long>, List<Turned>> byLine = new LinkedHashMap<>();
        for (Turned one : turned)
            if (one.hollow && one.isRound())
                byLine.computeIfAbsent(Turned.line(one.on), k -> new ArrayList<>())
                        .add(one);
        for (List<Turned> coaxial : byLine.values()) {
            coaxial.sort(Comparator.comparingDouble(t -> t.from));
            List<Turned> stack = new ArrayList<>();
            for (Turned one : coaxial) {
                if (!stack.isEmpty() && one.from > stack.get(stack.size() - 1).to + NEAR) {
                    hole(stack);
                    stack.clear();
                }
                stack.add(one);
            }
            hole(stack);
        }
    }

    private void hole(List<Turned> stack) {
        Turned first = stack.get(0);
        Turned last = stack.get(stack.size() - 1);
        Set<Integer> of = new LinkedHashSet<>();
        stack.forEach(t -> of.addAll(t.faces));
        boolean low = isClosed(first, first.from, of);
        boolean high = isClosed(last, last.to, of);
        List<Turned> walls =
                stack.stream().filter(t -> t.is(Surface.Kind.CYLINDER)).toList();
        if (walls.isEmpty()) return;
        Turned own = walls.stream()
                .min(Comparator.comparingDouble(t -> t.on.radius()))
                .orElseThrow();
        Turned wide = walls.stream()
                .max(Comparator.comparingDouble(t -> t.on.radius()))
                .orElseThrow();
        Map<Size, Double> sizes = new EnumMap<>(Size.class);
        sizes.put(Size.DIAMETER, 2 * own.on.radius());
        double top = low == high ? last.to : high ? first.from : last.to;
        if (low || high) {
            double bottom = high ? walls.get(walls.size() - 1).to : walls.get(0).from;
            sizes.put(Size.DEPTH, Math.abs(top - bottom));
        }
        if (wide.on.radius() > own.on.radius() + NEAR) {
            sizes.put(Size.BORE_DIAMETER, 2 * wide.on.radius());
            sizes.put(Size.BORE_DEPTH, wide.to - wide.from);
            if (!low && !high && wide == walls.get(0)) top = first.from;
        }
        for (Turned cone : stack) {
            if (!cone.is(Surface.Kind.CONE)) continue;
            boolean opens = (cone == first && !low) || (cone == last && !high);
            if (!opens) continue;
            sizes.put(Size.SINK_DIAMETER, 2 * Math.max(cone.radius(cone.from), cone.radius(cone.to)));
            sizes.put(Size.SINK_ANGLE, Math.toDegrees(2 * Math.abs(cone.on.other())));
        }
        shoulders(of);
        // The direction in which it opens.
        Vec out = top == last.to ? first.axis : first.axis.times(-1);
        part.add(Kind.HOLE, !low && !high, sizes, first.at(top), out, of);
    }

    /** Adds the plane faces that lie between walls of one hole and touch nothing else. */
    private void shoulders(Set<Integer> of) {
        for (int f : List.copyOf(of)) {
            for (int other : part.round(f)) {
                Face face = faces.get(other);
                if (of.contains(other) || !face.is(Surface.Kind.PLANE)) continue;
                if (part.meetsOnly(other, of)) of.add(other);
            }
        }
    }

    /** Whether something round ends at a floor, or at a tip. */
    private boolean isClosed(Turned end, double height, Set<Integer> of) {
        double radius = end.radius(height);
        if (radius < NEAR) return true;
        for (int f : List.copyOf(end.faces)) {
            for (Face.Bound bound : faces.get(f).bounds()) {
                for (Face.Use use : bound.uses()) {
                    if (Math.abs(use.edge().middle().dot(end.axis) - height) > NEAR) continue;
                    Optional<Integer> other = part.beside(f, use.edge());
                    if (other.isEmpty() || of.contains(other.get())) continue;
                    if (isWithin(faces.get(other.get()), end, height, radius)) {
                        of.add(other.get());
                        return true;
                    }
                }
            }
        }
        return false;
    }

    /** Whether a plane face lies across an axis and reaches no farther than a radius. */
    private static boolean isWithin(Face face, Turned end, double height, double radius) {
        if (!face.is(Surface.Kind.PLANE) || Math.abs(face.surface().axis().dot(end.axis)) < 0.999) return false;
        Vec centre = end.at(height);
        for (Face.Bound bound : face.bounds()) {
            for (Face.Use use : bound.uses()) {
                for (Vec p : use.edge().points()) if (p.distance(centre) > radius + NEAR) return false;
            }
        }
        return true;
    }

    /** The plane faces into which a part of a cylinder goes smoothly. */
    private Set<Integer> smoothBeside(Turned one) {
        Set<Integer> all = new LinkedHashSet<>();
        for (int f : one.faces) {
            for (Face.Bound bound : faces.get(f).bounds()) {
                for (Face.Use use : bound.uses())
                    if (part.meet(f, use) == Meet.SMOOTH)
                        part.beside(f, use.edge()).ifPresent(all::add);
            }
        }
        return all;
    }

    private void slots(List<Turned> turned) {
        Map<Set<Integer>, Turned> open = new HashMap<>();
        for (Turned one : turned) {
            if (!one.hollow || one.isRound() || !one.is(Surface.Kind.CYLINDER)) continue;
            if (one.round.cardinality() < 0.45 * Turned.PARTS) continue;
            Set<Integer> sides = smoothBeside(one);
            if (sides.size() != 2) continue;
            Turned other = open.remove(sides);
            if (other == null || Math.abs(other.on.radius() - one.on.radius()) > NEAR) {
                open.put(sides, one);
                continue;
            }
            Set<Integer> of = new LinkedHashSet<>(sides);
            of.addAll(one.faces);
            of.addAll(other.faces);
            Optional<Integer> floor = floor(of);
            floor.ifPresent(of::add);
            Map<Size, Double> sizes = new EnumMap<>(Size.class);
            sizes.put(Size.WIDTH, 2 * one.on.radius());
            sizes.put(Size.LENGTH, one.foot.distance(other.foot) + 2 * one.on.radius());
            boolean up =
                    floor.isEmpty() || faces.get(floor.get()).normal(Vec.ZERO).dot(one.axis) > 0;
            if (floor.isPresent()) sizes.put(Size.DEPTH, one.to - one.from);
            Vec middle = one.foot.plus(other.foot).times(0.5).plus(one.axis.times(up ? one.to : one.from));
            part.add(Kind.SLOT, floor.isEmpty(), sizes, middle, up ? one.axis : one.axis.times(-1), of);
        }
    }

    /** The plane face whose outline meets nothing but these, from inside. */
    private Optional<Integer> floor(Set<Integer> walls) {
        for (int f : walls) {
            for (Face.Bound bound : faces.get(f).bounds()) {
                for (Face.Use use : bound.uses()) {
                    Optional<Integer> other = part.beside(f, use.edge()).filter(o -> !walls.contains(o));
                    if (other.isPresent()
                            && faces.get(other.get()).is(Surface.Kind.PLANE)
                            && part.meetsAll(other.get(), Meet.INWARD)) return other;
                }
            }
        }
        return Optional.empty();
    }

    private void rounds(List<Turned> turned) {
        for (Turned one : turned) {
            if (one.hollow || !one.isRound() || !one.is(Surface.Kind.CYLINDER)) continue;
            Map<Size, Double> sizes = new EnumMap<>(Size.class);
            sizes.put(Size.DIAMETER, 2 * one.on.radius());
            boolean boss = standsOn(one);
            Set<Integer> of = new LinkedHashSet<>(one.faces);
            shoulders(of);
            // Between faces that are more than its ends, they tell how long it is.
            boolean whole = of.size() == one.faces.size() + 2;
            if (boss) sizes.put(Size.HEIGHT, one.to - one.from);
            else if (whole) sizes.put(Size.LENGTH, one.to - one.from);
            part.add(boss ? Kind.BOSS : Kind.ROUND, false, sizes, one.at((one.from + one.to) / 2), one.axis, of);
        }
    }

    /** Whether it stands on a face that is more than a shoulder of its own. */
    private boolean standsOn(Turned one) {
        for (int f : one.faces) {
            for (Face.Bound bound : faces.get(f).bounds()) {
                for (Face.Use use : bound.uses()) {
                    if (part.meet(f, use) != Meet.INWARD) continue;
                    int under = part.beside(f, use.edge()).orElseThrow();
                    Face base = faces.get(under);
                    boolean shoulder = part.outer(under).uses().stream()
                            .allMatch(u -> u.edge().isCircle()
                                    && u.edge()
                                                    .centre()
                                                    .minus(one.foot)
                                                    .across(one.axis)
                                                    .length()
                                            < NEAR);
                    if (base.is(Surface.Kind.PLANE) && !shoulder) return true;
                }
            }
        }
        return false;
    }

    private void fillets(List<Turned> turned) {
        for (Turned one : turned) {
            if (one.isRound()
                    || !one.is(Surface.Kind.CYLINDER)
                    || one.faces.stream().anyMatch(f -> part.taken[f])) continue;
            if (smoothBeside(one).isEmpty()) continue;
            fillet(one.on.radius(), one.at((one.from + one.to) / 2), one.axis, one.faces);
        }
        for (int f = 0; f < faces.size(); f++) {
            Face face = faces.get(f);
            if (part.taken[f] || !face.is(Surface.Kind.TORUS)) continue;
            fillet(face.surface().other(), face.surface().at(), face.surface().axis(), Set.of(f));
        }
    }

    private void fillet(double radius, Vec at, Vec axis, Set<Integer> of) {
        Map<Size, Double> sizes = new EnumMap<>(Size.class);
        sizes.put(Size.RADIUS, radius);
        part.add(Kind.FILLET, false, sizes, at, axis, of);
    }

    /** What is left of full cones is a chamfer round an end. */
    private void cones(List<Turned> turned) {
        for (Turned one : turned) {
            if (!one.is(Surface.Kind.CONE) || one.hollow || !one.isRound()) continue;
            Map<Size, Double> sizes = new EnumMap<>(Size.class);
            sizes.put(Size.LEG, one.to - one.from);
            part.add(Kind.CHAMFER, false, sizes, one.at((one.from + one.to) / 2), one.axis, one.faces);
        }
    }
}
