package mintshelf.core.model.compare;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.core.base.Refusal;

/** A plate with holes, bosses and pockets as an exchange file; it lies on z = 0, its middle at the origin. */
final class Blank {
    private static final Pattern NAME = Pattern.compile("#(\\d+)");

    private final double w;
    private final double h;
    private final double t;
    private double chamfer;
    private double fillet;
    private double x0;
    private double y0;
    private double unit = 1;
    private String product = "TG40-0001";

    private record Round(double x, double y, double d, double depth, double bore, double boreDepth, boolean boss) {}

    private record Rectangle(double x, double y, double l, double w, double depth) {}

    private final List<Round> rounds = new ArrayList<>();
    private final List<Rectangle> rectangles = new ArrayList<>();
    private final List<String> data = new ArrayList<>();
    private final List<String> faces = new ArrayList<>();
    private final List<String> onTop = new ArrayList<>();
    private final List<String> below = new ArrayList<>();

    Blank(double w, double h, double t) {
        this.w = w;
        this.h = h;
        this.t = t;
    }

    Blank chamfered(double leg) {
        chamfer = leg;
        return this;
    }

    Blank rounded(double radius) {
        fillet = radius;
        return this;
    }

    Blank at(double x, double y) {
        x0 = x;
        y0 = y;
        return this;
    }

    Blank inches() {
        unit = 25.4;
        return this;
    }

    Blank called(String id) {
        product = id;
        return this;
    }

    Blank hole(double x, double y, double d) {
        rounds.add(new Round(x, y, d, 0, 0, 0, false));
        return this;
    }

    Blank blind(double x, double y, double d, double depth) {
        rounds.add(new Round(x, y, d, depth, 0, 0, false));
        return this;
    }

    Blank bored(double x, double y, double d, double bore, double depth) {
        rounds.add(new Round(x, y, d, 0, bore, depth, false));
        return this;
    }

    Blank boss(double x, double y, double d, double high) {
        rounds.add(new Round(x, y, d, high, 0, 0, true));
        return this;
    }

    Blank pocket(double x, double y, double l, double wide, double depth) {
        rectangles.add(new Rectangle(x, y, l, wide, depth));
        return this;
    }

    /** Four holes round the middle. */
    Blank pattern(double d, double inset) {
        for (int i = 0; i < 4; i++)
            hole((i % 2 == 0 ? -1 : 1) * (w / 2 - inset), (i < 2 ? -1 : 1) * (h / 2 - inset), d);
        return this;
    }

    ModelFile model() {
        return read(file());
    }

    static ModelFile read(byte[] bytes) {
        try {
            return ModelFile.read(() -> new ByteArrayInputStream(bytes)).orElseThrow(Blank::thrown);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static IllegalStateException thrown(Refusal refusal) {
        return new IllegalStateException(refusal.says());
    }

    byte[] file() {
        data.clear();
        faces.clear();
        onTop.clear();
        below.clear();
        outline();
        rounds.forEach(this::round);
        rectangles.forEach(this::rectangle);
        String shell = add("CLOSED_SHELL('',(" + String.join(",", faces) + "))");
        String solid = add("MANIFOLD_SOLID_BREP(''," + shell + ")");
        String context = add("APPLICATION_CONTEXT('')");
        String pc = add("PRODUCT_CONTEXT(''," + context + ",'mechanical')");
        String p = add("PRODUCT('" + product + "','Plate','',(" + pc + "))");
        String f = add("PRODUCT_DEFINITION_FORMATION('',''," + p + ")");
        String dc = add("PRODUCT_DEFINITION_CONTEXT(''," + context + ",'design')");
        String d = add("PRODUCT_DEFINITION('',''," + f + "," + dc + ")");
        String shape = add("PRODUCT_DEFINITION_SHAPE('',''," + d + ")");
        String mm = add("(LENGTH_UNIT()NAMED_UNIT(*)SI_UNIT(.MILLI.,.METRE.))");
        String length = mm;
        if (unit != 1) {
            String exponents = add("DIMENSIONAL_EXPONENTS(1.,0.,0.,0.,0.,0.,0.)");
            String measure = add("LENGTH_MEASURE_WITH_UNIT(LENGTH_MEASURE(25.4)," + mm + ")");
            length = add("(CONVERSION_BASED_UNIT('INCH'," + measure + ")LENGTH_UNIT()NAMED_UNIT(" + exponents + "))");
        }
        String units = add("(GEOMETRIC_REPRESENTATION_CONTEXT(3)GLOBAL_UNIT_ASSIGNED_CONTEXT((" + length
                + "))REPRESENTATION_CONTEXT('',''))");
        String representation = add("ADVANCED_BREP_SHAPE_REPRESENTATION('',(" + solid + ")," + units + ")");
        add("SHAPE_DEFINITION_REPRESENTATION(" + shape + "," + representation + ")");
        StringBuilder all = new StringBuilder("""
                ISO-10303-21;
                HEADER;
                FILE_DESCRIPTION((''),'2;1');
                FILE_NAME('plate','2026-11-24T09:00:00',(''),(''),'','','');
                FILE_SCHEMA(('AUTOMOTIVE_DESIGN'));
                ENDSEC;
                DATA;
                """);
        for (int i = 0; i < data.size(); i++)
            all.append('#').append(i + 1).append('=').append(data.get(i)).append(";\n");
        return all.append("ENDSEC;\nEND-ISO-10303-21;\n").toString().getBytes(StandardCharsets.US_ASCII);
    }

    /** The same file with other numbers, in another order, its decimals written otherwise. */
    static byte[] shuffled(byte[] file, long seed) {
        String text = new String(file, StandardCharsets.US_ASCII);
        int from = text.indexOf("DATA;\n") + 6;
        int to = text.indexOf("ENDSEC;\nEND-ISO");
        Random random = new Random(seed);
        List<String> lines = new ArrayList<>(List.of(text.substring(from, to).split("\n")));
        List<Integer> names = new ArrayList<>();
        for (int i = 0; i < lines.size(); i++) names.add(10 + 7 * i);
        Collections.shuffle(names, random);
        Collections.shuffle(lines, random);
        StringBuilder data = new StringBuilder();
        for (String line : lines) {
            String renamed = NAME.matcher(line).replaceAll(m -> "#" + names.get(Integer.parseInt(m.group(1)) - 1));
            data.append(Pattern.compile("(\\d+\\.\\d{4})\\d*")
                            .matcher(renamed)
                            .replaceAll(m -> Matcher.quoteReplacement(
                                    String.format(Locale.ROOT, "%.9f", Double.parseDouble(m.group(1)) + 3e-7))))
                    .append('\n');
        }
        return (text.substring(0, from) + data + text.substring(to)).getBytes(StandardCharsets.US_ASCII);
    }

    private String add(String instance) {
        data.add(instance);
        return "#" + data.size();
    }

    private String real(double value) {
        return String.format(Locale.ROOT, "%.6f", value / unit);
    }

    private static String plain(double value) {
        return String.format(Locale.ROOT, "%.6f", value);
    }

    private String point(double x, double y, double z) {
        return add("CARTESIAN_POINT('',(" + real(x + x0) + "," + real(y + y0) + "," + real(z) + "))");
    }

    private String direction(double x, double y, double z) {
        return add("DIRECTION('',(" + plain(x) + "," + plain(y) + "," + plain(z) + "))");
    }

    private String axes(double x, double y, double z, double[] up, double[] along) {
        return add("AXIS2_PLACEMENT_3D(''," + point(x, y, z) + "," + direction(up[0], up[1], up[2]) + ","
                + direction(along[0], along[1], along[2]) + ")");
    }

    private final Map<List<Long>, String> corners = new HashMap<>();
    private final Map<List<String>, String> straight = new HashMap<>();

    private String corner(double x, double y, double z) {
        return corners.computeIfAbsent(
                List.of(Math.round(x * 1e6), Math.round(y * 1e6), Math.round(z * 1e6)),
                k -> add("VERTEX_POINT(''," + point(x, y, z) + ")"));
    }

    /** A straight edge between two corners, whichever way it is asked for first. */
    private String line(double[] a, double[] b) {
        String from = corner(a[0], a[1], a[2]);
        String to = corner(b[0], b[1], b[2]);
        String known = straight.get(List.of(to, from));
        if (known != null) return oriented(known, false);
        String edge = straight.computeIfAbsent(List.of(from, to), k -> {
            String d = add("VECTOR(''," + direction(b[0] - a[0], b[1] - a[1], b[2] - a[2]) + ",1.)");
            return add("EDGE_CURVE(''," + from + "," + to + ","
                    + add("LINE(''," + point(a[0], a[1], a[2]) + "," + d + ")") + ",.T.)");
        });
        return oriented(edge, true);
    }

    private String oriented(String edge, boolean forward) {
        return add("ORIENTED_EDGE('',*,*," + edge + (forward ? ",.T.)" : ",.F.)"));
    }

    private String bound(List<String> oriented) {
        return add("FACE_BOUND(''," + add("EDGE_LOOP('',(" + String.join(",", oriented) + "))") + ",.T.)");
    }

    private void face(String surface, List<String> bounds, boolean with) {
        faces.add(add("ADVANCED_FACE('',(" + String.join(",", bounds) + ")," + surface + (with ? ",.T.)" : ",.F.)")));
    }

    private String plane(double[] at, double[] normal) {
        double[] along = Math.abs(normal[2]) > 0.5 ? new double[] {1, 0, 0} : new double[] {0, 0, 1};
        return add("PLANE(''," + axes(at[0], at[1], at[2], normal, along) + ")");
    }

    private void outline() {
        corners.clear();
        straight.clear();
        circles.clear();
        double c = Math.max(chamfer, fillet);
        List<double[]> line = new ArrayList<>();
        double[][] square = {{-w / 2, -h / 2}, {w / 2, -h / 2}, {w / 2, h / 2}, {-w / 2, h / 2}};
        for (int i = 0; i < 4; i++) {
            double[] before = square[(i + 3) % 4];
            double[] at = square[i];
            double[] next = square[(i + 1) % 4];
            if (c == 0) line.add(at);
            else {
                line.add(toward(at, before, c));
                line.add(toward(at, next, c));
            }
        }
        List<String> low = new ArrayList<>();
        List<String> high = new ArrayList<>();
        for (int i = 0; i < line.size(); i++) {
            double[] a = line.get(i);
            double[] b = line.get((i + 1) % line.size());
            boolean arc = fillet > 0 && i % 2 == 0;
            double[] la = {a[0], a[1], 0};
            double[] lb = {b[0], b[1], 0};
            double[] ha = {a[0], a[1], t};
            double[] hb = {b[0], b[1], t};
            String bottom = arc ? arc(a, b, 0, square[i / 2]) : line(la, lb);
            String top = arc ? arc(a, b, t, square[i / 2]) : line(ha, hb);
            low.add(0, back(bottom));
            high.add(top);
            String bound = bound(List.of(bottom, line(lb, hb), back(top), line(ha, la)));
            if (arc) {
                double[] m = middle(square[i / 2]);
                face(
                        add("CYLINDRICAL_SURFACE('',"
                                + axes(m[0], m[1], 0, new double[] {0, 0, 1}, new double[] {1, 0, 0}) + ","
                                + real(fillet) + ")"),
                        List.of(bound),
                        true);
            } else {
                double l = Math.hypot(b[0] - a[0], b[1] - a[1]);
                face(plane(la, new double[] {(b[1] - a[1]) / l, (a[0] - b[0]) / l, 0}), List.of(bound), true);
            }
        }
        List<String> tops = new ArrayList<>(List.of(bound(high)));
        List<String> bottoms = new ArrayList<>(List.of(bound(low)));
        List<String> outer = List.copyOf(faces);
        rounds.forEach(this::loops);
        rectangles.forEach(r -> onTop.add(bound(ring(r, t, false))));
        tops.addAll(onTop);
        bottoms.addAll(below);
        faces.clear();
        faces.addAll(outer);
        face(plane(new double[] {0, 0, t}, new double[] {0, 0, 1}), tops, true);
        face(plane(new double[] {0, 0, 0}, new double[] {0, 0, -1}), bottoms, true);
    }

    private double[] middle(double[] corner) {
        return new double[] {corner[0] - Math.signum(corner[0]) * fillet, corner[1] - Math.signum(corner[1]) * fillet};
    }

    private static double[] toward(double[] at, double[] to, double by) {
        double l = Math.hypot(to[0] - at[0], to[1] - at[1]);
        return new double[] {at[0] + (to[0] - at[0]) / l * by, at[1] + (to[1] - at[1]) / l * by};
    }

    private String arc(double[] a, double[] b, double z, double[] corner) {
        double[] m = middle(corner);
        String circle = add("CIRCLE(''," + axes(m[0], m[1], z, new double[] {0, 0, 1}, new double[] {1, 0, 0}) + ","
                + real(fillet) + ")");
        String edge =
                add("EDGE_CURVE(''," + corner(a[0], a[1], z) + "," + corner(b[0], b[1], z) + "," + circle + ",.T.)");
        return oriented(edge, true);
    }

    private String back(String oriented) {
        String said = data.get(Integer.parseInt(oriented.substring(1)) - 1);
        return add(said.endsWith(".T.)") ? said.replace(".T.)", ".F.)") : said.replace(".F.)", ".T.)"));
    }

    private final Map<List<Long>, String> circles = new HashMap<>();

    private String circle(double x, double y, double z, double d, boolean forward) {
        String edge = circles.computeIfAbsent(
                List.of(Math.round(x * 1e6), Math.round(y * 1e6), Math.round(z * 1e6), Math.round(d * 1e6)), k -> {
                    String v = add("VERTEX_POINT(''," + point(x + d / 2, y, z) + ")");
                    String c = add("CIRCLE(''," + axes(x, y, z, new double[] {0, 0, 1}, new double[] {1, 0, 0}) + ","
                            + real(d / 2) + ")");
                    return add("EDGE_CURVE(''," + v + "," + v + "," + c + ",.T.)");
                });
        return bound(List.of(oriented(edge, forward)));
    }

    /** The openings that a round thing makes in the faces above and below. */
    private void loops(Round r) {
        onTop.add(circle(r.x(), r.y(), t, r.bore() > 0 ? r.bore() : r.d(), false));
        if (!r.boss() && r.depth() == 0) below.add(circle(r.x(), r.y(), 0, r.d(), true));
    }

    private void cylinder(Round r, double d, double from, double to, boolean hollow) {
        String surface = add("CYLINDRICAL_SURFACE('',"
                + axes(r.x(), r.y(), from, new double[] {0, 0, 1}, new double[] {1, 0, 0}) + "," + real(d / 2) + ")");
        face(surface, List.of(circle(r.x(), r.y(), from, d, !hollow), circle(r.x(), r.y(), to, d, hollow)), !hollow);
    }

    private void round(Round r) {
        double[] up = {0, 0, 1};
        if (r.boss()) {
            cylinder(r, r.d(), t, t + r.depth(), false);
            face(
                    plane(new double[] {r.x(), r.y(), t + r.depth()}, up),
                    List.of(circle(r.x(), r.y(), t + r.depth(), r.d(), true)),
                    true);
        } else if (r.bore() > 0) {
            double step = t - r.boreDepth();
            cylinder(r, r.bore(), step, t, true);
            cylinder(r, r.d(), 0, step, true);
            face(
                    plane(new double[] {r.x(), r.y(), step}, up),
                    List.of(circle(r.x(), r.y(), step, r.bore(), true), circle(r.x(), r.y(), step, r.d(), false)),
                    true);
        } else {
            cylinder(r, r.d(), t - (r.depth() > 0 ? r.depth() : t), t, true);
            if (r.depth() > 0)
                face(
                        plane(new double[] {r.x(), r.y(), t - r.depth()}, up),
                        List.of(circle(r.x(), r.y(), t - r.depth(), r.d(), true)),
                        true);
        }
    }

    private List<String> ring(Rectangle r, double z, boolean left) {
        double[][] c = {
            {r.x() - r.l() / 2, r.y() - r.w() / 2, z},
            {r.x() + r.l() / 2, r.y() - r.w() / 2, z},
            {r.x() + r.l() / 2, r.y() + r.w() / 2, z},
            {r.x() - r.l() / 2, r.y() + r.w() / 2, z}
        };
        List<String> all = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            if (left) all.add(line(c[i], c[(i + 1) % 4]));
            else all.add(line(c[(4 - i) % 4], c[3 - i]));
        }
        return all;
    }

    private void rectangle(Rectangle r) {
        double floor = t - r.depth();
        face(
                plane(new double[] {r.x(), r.y(), floor}, new double[] {0, 0, 1}),
                List.of(bound(ring(r, floor, true))),
                true);
        double[][] c = {
            {r.x() - r.l() / 2, r.y() - r.w() / 2},
            {r.x() + r.l() / 2, r.y() - r.w() / 2},
            {r.x() + r.l() / 2, r.y() + r.w() / 2},
            {r.x() - r.l() / 2, r.y() + r.w() / 2}
        };
        for (int i = 0; i < 4; i++) {
            double[] a = c[i];
            double[] b = c[(i + 1) % 4];
            double l = Math.hypot(b[0] - a[0], b[1] - a[1]);
            double[] fa = {a[0], a[1], floor};
            double[] fb = {b[0], b[1], floor};
            double[] ta = {a[0], a[1], t};
            double[] tb = {b[0], b[1], t};
            face(
                    plane(fa, new double[] {-(b[1] - a[1]) / l, (b[0] - a[0]) / l, 0}),
                    List.of(bound(List.of(line(fb, fa), line(fa, ta), line(ta, tb), line(tb, fb)))),
                    true);
        }
    }
}
