package mintshelf.demo.model;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import mintshelf.demo.model.StepFile.Placed;
import mintshelf.demo.model.StepFile.Says;
import mintshelf.demo.sheet.Sheets.Component;
import mintshelf.demo.sheet.Sheets.Shape;

/** Models of the parts and assemblies whose sheets {@code sheet} draws: of the same sizes. */
public final class Models {
    private static final double[] STEEL = {0.72, 0.75, 0.77};
    private static final double[] PLASTIC = {0.93, 0.92, 0.86};
    private static final double[] RUBBER = {0.25, 0.27, 0.28};
    private static final double[] BRASS = {0.80, 0.68, 0.36};

    private Models() {}

    /** A made part, of a mass in kilograms as on its sheet; empty for none. */
    public static byte[] part(String number, String title, String material, String mass, Shape shape, String stamp) {
        return StepFile.part(number, title, new Says(material, mass), colour(material), solids(shape), stamp);
    }

    /** A cap or hexagon screw: shank and length in millimetres. */
    public static byte[] screw(String designation, double shank, double length, String stamp) {
        List<Solid> solids = List.of(
                new Solid(Profile.circle(0, 0, shank / 2, false), List.of(), -length, 0),
                new Solid(Profile.hexagon(shank * 1.6), List.of(), 0, shank * 0.65));
        return StepFile.part(designation, "Screw", new Says("A4-70", ""), STEEL, solids, stamp);
    }

    /** A nut, washer or bearing: outer and inner diameter, thickness. */
    public static byte[] ring(
            String designation, String title, String material, double outer, double inner, double thick, String stamp) {
        List<Solid> solids = List.of(new Solid(
                title.contains("nut") ? Profile.hexagon(outer) : Profile.circle(0, 0, outer / 2, false),
                List.of(Profile.circle(0, 0, inner / 2, true)),
                0,
                thick));
        return StepFile.part(designation, title, new Says(material, ""), colour(material), solids, stamp);
    }

    /** A bought block, as its maker gives it away: a box with a stub. */
    public static byte[] bought(String code, String title, double width, double height, double deep, String stamp) {
        List<Solid> solids = List.of(new Solid(Profile.rectangle(width, height, 2), List.of(), 0, deep));
        return StepFile.part(code, title, new Says("", ""), BRASS, solids, stamp);
    }

    /**
     * An assembly of files.
     *
     * @param file the path by which it refers to a component, by its number; empty for components without a model
     * @param seats where a component stands, by its number: x, y, z, the direction of its axis, the direction of its width
     */
    public static byte[] assembly(
            String number,
            String title,
            List<Component> components,
            Function<String, String> file,
            Function<String, List<double[]>> seats,
            String stamp) {
        List<Placed> placed = new ArrayList<>();
        for (Component c : components) {
            String path = file.apply(c.number());
            if (path.isEmpty()) continue;
            List<double[]> places = seats.apply(c.number());
            if (places.size() != c.quantity()) {
                throw new IllegalStateException(
                        number + " has " + places.size() + " seats for " + c.quantity() + " " + c.number());
            }
            placed.add(new Placed(c.number(), c.title(), path, places));
        }
        return StepFile.assembly(number, title, placed, stamp);
    }

    private static double[] colour(String material) {
        if (material.startsWith("POM")) return PLASTIC;
        return material.startsWith("NBR") || material.startsWith("VMQ") ? RUBBER : STEEL;
    }

    private static List<Solid> solids(Shape shape) {
        if (shape instanceof Shape.Plate p) {
            List<Profile> holes = new ArrayList<>();
            if (p.bore() > 0) holes.add(Profile.circle(0, 0, p.bore() / 2, true));
            for (int i = 0; i < 4; i++) {
                double x = (p.width() / 2 - p.inset()) * (i % 2 == 0 ? -1 : 1);
                double y = (p.height() / 2 - p.inset()) * (i < 2 ? -1 : 1);
                holes.add(Profile.circle(x, y, p.hole() / 2, true));
            }
            return List.of(new Solid(Profile.rectangle(p.width(), p.height(), p.corner()), holes, 0, p.thickness()));
        }
        if (shape instanceof Shape.Ring r) {
            List<Profile> holes = new ArrayList<>(List.of(Profile.circle(0, 0, r.inner() / 2, true)));
            for (int i = 0; i < r.holes(); i++) {
                double a = 2 * Math.PI * i / r.holes();
                holes.add(Profile.circle(r.pitch() / 2 * Math.cos(a), r.pitch() / 2 * Math.sin(a), r.hole() / 2, true));
            }
            return List.of(new Solid(Profile.circle(0, 0, r.outer() / 2, false), holes, 0, r.thickness()));
        }
        if (shape instanceof Shape.Tube t) {
            return List.of(new Solid(
                    Profile.circle(0, 0, t.outer() / 2, false),
                    List.of(Profile.circle(0, 0, t.outer() / 2 - t.wall(), true)),
                    0,
                    t.length()));
        }
        if (shape instanceof Shape.Turned t) {
            List<Solid> solids = new ArrayList<>();
            double at = 0;
            for (double[] step : t.steps()) {
                solids.add(new Solid(Profile.circle(0, 0, step[0] / 2, false), List.of(), at, at + step[1]));
                at += step[1];
            }
            return solids;
        }
        throw new IllegalArgumentException("no model of " + shape);
    }
}
