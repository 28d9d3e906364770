package mintshelf.demo.model;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** Writes an exchange file of ISO 10303-21 after AP214: a part of solids, or an assembly of parts that lie in files of their own. */
final class StepFile {
    private final StringBuilder data = new StringBuilder();
    private int last;
    private final String context;
    private final String units;

    private StepFile() {
        String application = add("APPLICATION_CONTEXT('automotive design')");
        add("APPLICATION_PROTOCOL_DEFINITION('international standard','automotive_design',2000," + application + ")");
        context = add("PRODUCT_CONTEXT(''," + application + ",'mechanical')");
        String definition = add("PRODUCT_DEFINITION_CONTEXT('part definition'," + application + ",'design')");
        this.definitionContext = definition;
        String length = add("(LENGTH_UNIT()NAMED_UNIT(*)SI_UNIT(.MILLI.,.METRE.))");
        String angle = add("(NAMED_UNIT(*)PLANE_ANGLE_UNIT()SI_UNIT($,.RADIAN.))");
        String solid = add("(NAMED_UNIT(*)SI_UNIT($,.STERADIAN.)SOLID_ANGLE_UNIT())");
        String exact = add("UNCERTAINTY_MEASURE_WITH_UNIT(LENGTH_MEASURE(1.E-05)," + length
                + ",'distance_accuracy_value','confusion accuracy')");
        units = add("(GEOMETRIC_REPRESENTATION_CONTEXT(3)GLOBAL_UNCERTAINTY_ASSIGNED_CONTEXT((" + exact
                + "))GLOBAL_UNIT_ASSIGNED_CONTEXT((" + length + "," + angle + "," + solid
                + "))REPRESENTATION_CONTEXT('',''))");
    }

    private final String definitionContext;

    private String add(String instance) {
        String name = "#" + ++last;
        data.append(name).append('=').append(instance).append(";\n");
        return name;
    }

    private static String real(double value) {
        double rounded = Math.round(value * 1e6) / 1e6;
        String text =
                String.format(Locale.ROOT, "%.6f", rounded == 0 ? 0 : rounded).replaceAll("0+$", "");
        return text;
    }

    private static String text(String value) {
        return value.replace("'", "''");
    }

    private String point(double x, double y, double z) {
        return add("CARTESIAN_POINT('',(" + real(x) + "," + real(y) + "," + real(z) + "))");
    }

    private String direction(double x, double y, double z) {
        return add("DIRECTION('',(" + real(x) + "," + real(y) + "," + real(z) + "))");
    }

    private String axes(double x, double y, double z, String up, String along) {
        return add("AXIS2_PLACEMENT_3D(''," + point(x, y, z) + "," + up + "," + along + ")");
    }

    /**
     * What a part file says of its part, as attributes (ISO 10303-41, general properties).
     *
     * @param mass in kilograms, as on the sheet; empty for what nobody weighed
     */
    record Says(String material, String mass) {}

    private void says(Says says) {
        if (!says.material().isEmpty()) {
            attribute("Material", "DESCRIPTIVE_REPRESENTATION_ITEM('Material','" + text(says.material()) + "')");
        }
        if (!says.mass().isEmpty()) {
            String kilogram = add("(MASS_UNIT()NAMED_UNIT(*)SI_UNIT(.KILO.,.GRAM.))");
            attribute(
                    "Mass",
                    "MEASURE_REPRESENTATION_ITEM('Mass',MASS_MEASURE(" + real(Double.parseDouble(says.mass())) + "),"
                            + kilogram + ")");
        }
    }

    private void attribute(String name, String item) {
        String general = add("GENERAL_PROPERTY('','" + name + "',$)");
        String property = add("PROPERTY_DEFINITION('" + name + "',''," + definition + ")");
        add("GENERAL_PROPERTY_ASSOCIATION('',''," + general + "," + property + ")");
        String shown = add("REPRESENTATION('" + name + "',(" + add(item) + ")," + units + ")");
        add("PROPERTY_DEFINITION_REPRESENTATION(" + property + "," + shown + ")");
    }

    /** A part file: the solids in one colour. */
    static byte[] part(String number, String title, Says says, double[] rgb, List<Solid> solids, String stamp) {
        StepFile file = new StepFile();
        String shape = file.product(number, title, says.material());
        file.says(says);
        String origin = file.axes(0, 0, 0, file.direction(0, 0, 1), file.direction(1, 0, 0));
        List<String> bodies = new ArrayList<>();
        for (Solid solid : solids) bodies.add(file.solid(solid));
        String representation = file.add("ADVANCED_BREP_SHAPE_REPRESENTATION('" + text(number) + "',(" + origin + ","
                + String.join(",", bodies) + ")," + file.units + ")");
        file.add("SHAPE_DEFINITION_REPRESENTATION(" + shape + "," + representation + ")");
        file.colour(bodies, rgb);
        return file.bytes(number + " " + title, stamp);
    }

    /**
     * A component at its places in an assembly.
     *
     * @param file as the assembly refers to it
     * @param places x, y, z in millimetres, the direction of its axis, the direction of its width
     */
    record Placed(String number, String title, String file, List<double[]> places) {}

    /** An assembly file: no solids of its own, components in files of their own. */
    static byte[] assembly(String number, String title, List<Placed> components, String stamp) {
        StepFile file = new StepFile();
        String up = file.direction(0, 0, 1);
        String along = file.direction(1, 0, 0);
        String top = file.product(number, title, "");
        String topDefinition = file.definition;
        String origin = file.axes(0, 0, 0, up, along);
        List<String> placements = new ArrayList<>(List.of(origin));
        record Use(String definition, String representation, String placement, String id) {}
        List<Use> uses = new ArrayList<>();
        String type = file.add("DOCUMENT_TYPE('geometry')");
        String role = file.add("IDENTIFICATION_ROLE('external document id and location',$)");
        String source = file.add("EXTERNAL_SOURCE(IDENTIFIER(''))");
        for (Placed component : components) {
            String shape = file.product(component.number(), component.title(), "");
            String definition = file.definition;
            String representation = file.add(
                    "SHAPE_REPRESENTATION('" + text(component.number()) + "',(" + origin + ")," + file.units + ")");
            file.add("SHAPE_DEFINITION_REPRESENTATION(" + shape + "," + representation + ")");
            String document = file.add("DOCUMENT_FILE('" + text(component.file()) + "','',''," + type + ",'',$)");
            file.add("APPLIED_DOCUMENT_REFERENCE(" + document + ",'',(" + definition + "))");
            file.add("APPLIED_EXTERNAL_IDENTIFICATION_ASSIGNMENT('" + text(component.file()) + "'," + role + ","
                    + source + ",(" + document + "))");
            int n = 0;
            for (double[] at : component.places()) {
                String placement = file.axes(
                        at[0], at[1], at[2], file.direction(at[3], at[4], at[5]), file.direction(at[6], at[7], at[8]));
                placements.add(placement);
                uses.add(new Use(definition, representation, placement, component.number() + ":" + ++n));
            }
        }
        String whole = file.add("SHAPE_REPRESENTATION('" + text(number) + "',(" + String.join(",", placements) + "),"
                + file.units + ")");
        file.add("SHAPE_DEFINITION_REPRESENTATION(" + top + "," + whole + ")");
        for (Use use : uses) {
            String usage = file.add("NEXT_ASSEMBLY_USAGE_OCCURRENCE('" + text(use.id()) + "','" + text(use.id())
                    + "',''," + topDefinition + "," + use.definition() + ",$)");
            String shape = file.add("PRODUCT_DEFINITION_SHAPE('',''," + usage + ")");
            String moved = file.add("ITEM_DEFINED_TRANSFORMATION('',''," + origin + "," + use.placement() + ")");
            String relation = file.add("(REPRESENTATION_RELATIONSHIP('',''," + use.representation() + "," + whole
                    + ")REPRESENTATION_RELATIONSHIP_WITH_TRANSFORMATION(" + moved
                    + ")SHAPE_REPRESENTATION_RELATIONSHIP())");
            file.add("CONTEXT_DEPENDENT_SHAPE_REPRESENTATION(" + relation + "," + shape + ")");
        }
        return file.bytes(number + " " + title, stamp);
    }

    private String definition = "";

    /** Adds a product; gives its shape, and keeps its definition. */
    private String product(String number, String title, String material) {
        String product =
                add("PRODUCT('" + text(number) + "','" + text(title) + "','" + text(material) + "',(" + context + "))");
        add("PRODUCT_RELATED_PRODUCT_CATEGORY('part',$,(" + product + "))");
        String formation = add("PRODUCT_DEFINITION_FORMATION('',''," + product + ")");
        definition = add("PRODUCT_DEFINITION('design',''," + formation + "," + definitionContext + ")");
        return add("PRODUCT_DEFINITION_SHAPE('',''," + definition + ")");
    }

    /** The edges of a loop at both ends of an extrusion, and between them. */
    private record Ribbon(List<String> low, List<String> high, List<String> upright) {}

    private String solid(Solid solid) {
        List<String> faces = new ArrayList<>();
        List<Ribbon> ribbons = new ArrayList<>();
        List<Profile> profiles = new ArrayList<>(List.of(solid.outer()));
        profiles.addAll(solid.holes());
        for (Profile profile : profiles) ribbons.add(sides(profile, solid.from(), solid.to(), faces));
        faces.add(end(ribbons, solid.from(), false));
        faces.add(end(ribbons, solid.to(), true));
        String shell = add("CLOSED_SHELL('',(" + String.join(",", faces) + "))");
        return add("MANIFOLD_SOLID_BREP(''," + shell + ")");
    }

    private Ribbon sides(Profile profile, double from, double to, List<String> faces) {
        int n = profile.edges().size();
        List<String> lowPoints = new ArrayList<>();
        List<String> highPoints = new ArrayList<>();
        List<String> upright = new ArrayList<>();
        for (Profile.Edge e : profile.edges()) {
            String low = add("VERTEX_POINT(''," + point(e.x1(), e.y1(), from) + ")");
            String high = add("VERTEX_POINT(''," + point(e.x1(), e.y1(), to) + ")");
            lowPoints.add(low);
            highPoints.add(high);
            upright.add(edge(low, high, line(e.x1(), e.y1(), from, 0, 0, 1), true));
        }
        List<String> lows = new ArrayList<>();
        List<String> highs = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            Profile.Edge e = profile.edges().get(i);
            int next = (i + 1) % n;
            String low = across(e, from, lowPoints.get(i), lowPoints.get(next));
            String high = across(e, to, highPoints.get(i), highPoints.get(next));
            lows.add(low);
            highs.add(high);
            String loop = loop(List.of(
                    oriented(low, true),
                    oriented(upright.get(next), true),
                    oriented(high, false),
                    oriented(upright.get(i), false)));
            String surface;
            boolean outward = true;
            if (e.radius() > 0) {
                surface = add("CYLINDRICAL_SURFACE('',"
                        + axes(e.cx(), e.cy(), from, direction(0, 0, 1), direction(1, 0, 0)) + "," + real(e.radius())
                        + ")");
                outward = e.left();
            } else {
                double dx = e.x2() - e.x1();
                double dy = e.y2() - e.y1();
                double length = Math.hypot(dx, dy);
                surface = add("PLANE('',"
                        + axes(
                                e.x1(),
                                e.y1(),
                                from,
                                direction(dy / length, -dx / length, 0),
                                direction(dx / length, dy / length, 0))
                        + ")");
            }
            faces.add(add("ADVANCED_FACE('',(" + add("FACE_OUTER_BOUND(''," + loop + ",.T.)") + ")," + surface + ","
                    + (outward ? ".T." : ".F.") + ")"));
        }
        return new Ribbon(lows, highs, upright);
    }

    private String across(Profile.Edge e, double z, String from, String to) {
        if (e.radius() == 0) {
            double length = Math.hypot(e.x2() - e.x1(), e.y2() - e.y1());
            return edge(
                    from, to, line(e.x1(), e.y1(), z, (e.x2() - e.x1()) / length, (e.y2() - e.y1()) / length, 0), true);
        }
        String circle = add("CIRCLE(''," + axes(e.cx(), e.cy(), z, direction(0, 0, 1), direction(1, 0, 0)) + ","
                + real(e.radius()) + ")");
        return edge(from, to, circle, e.left());
    }

    private String line(double x, double y, double z, double dx, double dy, double dz) {
        return add("LINE(''," + point(x, y, z) + "," + add("VECTOR(''," + direction(dx, dy, dz) + ",1.)") + ")");
    }

    private String edge(String from, String to, String curve, boolean sense) {
        return add("EDGE_CURVE(''," + from + "," + to + "," + curve + "," + (sense ? ".T." : ".F.") + ")");
    }

    private String oriented(String edge, boolean sense) {
        return add("ORIENTED_EDGE('',*,*," + edge + "," + (sense ? ".T." : ".F.") + ")");
    }

    private String loop(List<String> edges) {
        return add("EDGE_LOOP('',(" + String.join(",", edges) + "))");
    }

    private String end(List<Ribbon> ribbons, double z, boolean upper) {
        List<String> bounds = new ArrayList<>();
        for (int r = 0; r < ribbons.size(); r++) {
            List<String> edges = new ArrayList<>();
            List<String> ring = upper ? ribbons.get(r).high() : ribbons.get(r).low();
            for (int i = 0; i < ring.size(); i++) {
                edges.add(oriented(ring.get(upper ? i : ring.size() - 1 - i), upper));
            }
            bounds.add(add((r == 0 ? "FACE_OUTER_BOUND" : "FACE_BOUND") + "(''," + loop(edges) + ",.T.)"));
        }
        String plane = add("PLANE(''," + axes(0, 0, z, direction(0, 0, upper ? 1 : -1), direction(1, 0, 0)) + ")");
        return add("ADVANCED_FACE('',(" + String.join(",", bounds) + ")," + plane + ",.T.)");
    }

    private void colour(List<String> bodies, double[] rgb) {
        String colour = add("COLOUR_RGB(''," + real(rgb[0]) + "," + real(rgb[1]) + "," + real(rgb[2]) + ")");
        String area = add("FILL_AREA_STYLE('',(" + add("FILL_AREA_STYLE_COLOUR(''," + colour + ")") + "))");
        String side = add("SURFACE_SIDE_STYLE('',(" + add("SURFACE_STYLE_FILL_AREA(" + area + ")") + "))");
        String style = add("PRESENTATION_STYLE_ASSIGNMENT((" + add("SURFACE_STYLE_USAGE(.BOTH.," + side + ")") + "))");
        List<String> styled = new ArrayList<>();
        for (String body : bodies) styled.add(add("STYLED_ITEM('',(" + style + ")," + body + ")"));
        add("MECHANICAL_DESIGN_GEOMETRIC_PRESENTATION_REPRESENTATION('',(" + String.join(",", styled) + ")," + units
                + ")");
    }

    private byte[] bytes(String name, String stamp) {
        Map<String, String> head = Map.of("name", text(name), "stamp", stamp);
        String file = "ISO-10303-21;\nHEADER;\nFILE_DESCRIPTION(('Ebbcote Gauge Works model'),'2;1');\nFILE_NAME('"
                + head.get("name") + "','" + head.get("stamp")
                + "',('Ebbcote Gauge Works'),('Ebbcote Gauge Works'),'','Mint Shelf demo','');\n"
                + "FILE_SCHEMA(('AUTOMOTIVE_DESIGN { 1 0 10303 214 1 1 1 1 }'));\nENDSEC;\nDATA;\n" + data
                + "ENDSEC;\nEND-ISO-10303-21;\n";
        return file.getBytes(StandardCharsets.US_ASCII);
    }
}
