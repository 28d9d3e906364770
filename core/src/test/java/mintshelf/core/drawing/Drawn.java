package mintshelf.core.drawing;

import java.nio.charset.StandardCharsets;
import java.util.List;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.dxf.DxfDrawing;

/** Drawings for tests, as text, and the scenes that are read of them. */
public final class Drawn {
    private Drawn() {}

    /** An entity, an object or a table entry with its tags. */
    public static String entity(String type, Object... codesAndValues) {
        StringBuilder out = new StringBuilder("0\n" + type + "\n");
        for (int i = 0; i < codesAndValues.length; i += 2) {
            out.append(codesAndValues[i])
                    .append('\n')
                    .append(codesAndValues[i + 1])
                    .append('\n');
        }
        return out.toString();
    }

    public static String block(String name, String... body) {
        return "0\nBLOCK\n8\n0\n2\n" + name + "\n10\n0\n20\n0\n" + String.join("", body) + "0\nENDBLK\n";
    }

    /** A whole drawing. */
    public static byte[] file(String header, String tables, String blocks, String... entities) {
        return ("0\nSECTION\n2\nHEADER\n9\n$ACADVER\n1\nAC1021\n" + header + "0\nENDSEC\n0\nSECTION\n2\nTABLES\n"
                        + tables + "0\nENDSEC\n0\nSECTION\n2\nBLOCKS\n" + blocks
                        + "0\nENDSEC\n0\nSECTION\n2\nENTITIES\n" + String.join("", entities) + "0\nENDSEC\n0\nEOF\n")
                .getBytes(StandardCharsets.UTF_8);
    }

    public static DxfDrawing drawing(byte[] file) {
        return ((Outcome.Granted<DxfDrawing>) DxfDrawing.read(file)).value();
    }

    /** Model space of a drawing with these entities and nothing else. */
    public static Scene scene(String... entities) {
        return sceneOf("", "", entities);
    }

    public static Scene sceneOf(String tables, String blocks, String... entities) {
        return sceneOf(drawing(file("", tables, blocks, entities)), DxfDrawing.MODEL);
    }

    public static Scene sceneOf(DxfDrawing drawing, String layout) {
        return ((Outcome.Granted<Scene>) drawing.scene(layout, 0)).value();
    }

    public static <T extends Primitive> List<T> all(Scene scene, Class<T> type) {
        return scene.primitives().stream()
                .filter(type::isInstance)
                .map(type::cast)
                .toList();
    }

    public static List<String> texts(Scene scene) {
        return all(scene, Primitive.Text.class).stream()
                .map(Primitive.Text::text)
                .toList();
    }

    /** Whether a point lies within an odd number of rings. */
    public static boolean inside(double[][] rings, double x, double y) {
        boolean in = false;
        for (double[] ring : rings) {
            for (int i = 0, k = ring.length - 2; i + 1 < ring.length; k = i, i += 2) {
                if (ring[i + 1] > y != ring[k + 1] > y
                        && x < (ring[k] - ring[i]) * (y - ring[i + 1]) / (ring[k + 1] - ring[i + 1]) + ring[i]) {
                    in = !in;
                }
            }
        }
        return in;
    }
}
