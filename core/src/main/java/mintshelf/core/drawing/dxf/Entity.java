package mintshelf.core.drawing.dxf;

import java.util.ArrayList;
import java.util.List;

/** The tags of one entity, from its type up to the next one. A missing or unreadable value has a default. */
record Entity(DxfTags tags, int start, int end) {
    String type() {
        return tags.value(start);
    }

    private int find(int code) {
        for (int i = start + 1; i < end; i++) if (tags.code(i) == code) return i;
        return -1;
    }

    boolean has(int code) {
        return find(code) >= 0;
    }

    String text(int code, String otherwise) {
        int at = find(code);
        return at < 0 ? otherwise : tags.value(at);
    }

    /** All values of a code, one after the other. */
    String joined(int code) {
        StringBuilder out = new StringBuilder();
        for (int i = start + 1; i < end; i++) if (tags.code(i) == code) out.append(tags.value(i));
        return out.toString();
    }

    double number(int code, double otherwise) {
        int at = find(code);
        return at < 0 ? otherwise : number(tags.value(at), otherwise);
    }

    private static double number(String text, double otherwise) {
        try {
            double n = Double.parseDouble(text);
            return Double.isFinite(n) ? n : otherwise;
        } catch (NumberFormatException e) {
            return otherwise;
        }
    }

    int whole(int code, int otherwise) {
        double n = number(code, otherwise);
        return Math.abs(n) > 1e9 ? otherwise : (int) n;
    }

    List<Double> all(int code) {
        List<Double> numbers = new ArrayList<>();
        for (int i = start + 1; i < end; i++) if (tags.code(i) == code) numbers.add(number(tags.value(i), 0));
        return numbers;
    }

    /** The bulge behind each vertex of an LWPOLYLINE, 0 where none stands. */
    List<Double> bulges() {
        List<Double> bulges = new ArrayList<>();
        for (int i = start + 1; i < end; i++) {
            if (tags.code(i) == 10) bulges.add(0.0);
            else if (tags.code(i) == 42 && !bulges.isEmpty()) bulges.set(bulges.size() - 1, number(tags.value(i), 0));
        }
        return bulges;
    }

    /** A closed boundary of a hatch. */
    record HatchPath(List<Double> xs, List<Double> ys, List<Double> bulges) {}

    /** The boundaries of a HATCH: polylines with their bulges, other paths by the ends of their edges. */
    List<HatchPath> hatchPaths() {
        List<HatchPath> paths = new ArrayList<>();
        HatchPath path = null;
        boolean polyline = false;
        int edge = 0;
        for (int i = start + 1; i < end; i++) {
            int code = tags.code(i);
            if (code == 75 || code == 98) break; // the pattern follows
            double value = number(tags.value(i), 0);
            if (code == 92) {
                path = new HatchPath(new ArrayList<>(), new ArrayList<>(), new ArrayList<>());
                paths.add(path);
                polyline = ((int) value & 2) != 0;
                edge = 0;
            }
            if (path == null || code == 92) continue;
            if (code == 72 && !polyline) {
                edge = (int) value;
            } else if (code == 10 && (polyline || edge == 1)) {
                path.xs().add(value);
                path.bulges().add(0.0);
            } else if (code == 20 && (polyline || edge == 1)) {
                path.ys().add(value);
            } else if (code == 42 && polyline && !path.bulges().isEmpty()) {
                path.bulges().set(path.bulges().size() - 1, value);
            }
        }
        return paths;
    }
}
