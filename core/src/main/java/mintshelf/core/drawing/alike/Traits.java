package mintshelf.core.drawing.alike;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;

/**
 * The traits of a drawing, as short marks: of each kind the ones with the smallest hashes, so that what two drawings share of these
 * tells what they share of all (min-wise hashing, A. Z. Broder, 1997). Marks of holes and outlines are ratios and angles: they stay when
 * a view is moved, turned, mirrored or scaled. Frames, title blocks, dimensions and hatches have none.
 *
 * @param marks each begins with the letter of its {@link Kind}
 */
public record Traits(List<String> marks) {
    private static final int MOST_LINES = 96;
    private static final int MOST_CIRCLES = 48;
    private static final int AS_OFTEN = 4;
    /** What covers more of the sheet's width or height is its frame. */
    private static final double FRAME = 0.7;
    /** Ratios are rounded to a quarter of an octave, angles to five degrees, sizes to half a unit. */
    private static final double OCTAVE = 4;

    private static final double DEGREES = 5;

    public Traits {
        marks = List.copyOf(marks);
    }

    /** What a mark is of. */
    public enum Kind {
        /** How circles stand to each other. */
        HOLES('h', 32),
        /** How lines meet. */
        OUTLINE('o', 32),
        /** Lengths and diameters as they are. */
        SIZES('s', 24),
        WORDS('w', 24);

        private final char letter;
        private final int most;

        Kind(char letter, int most) {
            this.letter = letter;
            this.most = most;
        }

        public boolean isOf(String mark) {
            return !mark.isEmpty() && mark.charAt(0) == letter;
        }
    }

    /** The traits of a sheet. O(n log n) of its lines, and the square of at most a hundred. */
    public static Traits of(Scene scene) {
        List<Primitive> drawn = drawn(scene);
        List<double[]> lines = lines(drawn);
        List<double[]> circles = circles(drawn);
        List<String> marks = new ArrayList<>();
        add(marks, Kind.HOLES, holes(circles));
        add(marks, Kind.OUTLINE, corners(lines));
        add(marks, Kind.SIZES, sizes(lines, circles));
        add(marks, Kind.WORDS, words(drawn));
        return new Traits(marks);
    }

    /** What is drawn of the thing itself. */
    private static List<Primitive> drawn(Scene scene) {
        Box sheet = scene.extents();
        Set<String> forms = new HashSet<>();
        for (Primitive p : scene.primitives()) {
            boolean filled = p.source().type().equals("ATTRIB");
            if ((filled || isFrame(p, sheet)) && !p.source().path().isEmpty()) forms.add(outermost(p));
        }
        return scene.primitives().stream()
                .filter(p -> !p.source().type().equals("ATTRIB"))
                .filter(p -> !p.source().type().equals("DIMENSION")
                        && !p.source().type().equals("HATCH"))
                .filter(p -> !p.source().path().startsWith("*D"))
                .filter(p -> !isFrame(p, sheet))
                .filter(p -> p.source().path().isEmpty() || !forms.contains(outermost(p)))
                .toList();
    }

    private static String outermost(Primitive p) {
        String path = p.source().path();
        int slash = path.indexOf('/');
        return slash < 0 ? path : path.substring(0, slash);
    }

    private static boolean isFrame(Primitive p, Box sheet) {
        if (p instanceof Primitive.Text) return false;
        Box box = p.box();
        return box.width() > FRAME * sheet.width() || box.height() > FRAME * sheet.height();
    }

    /** The longest lines: both ends, and how long each is. */
    private static List<double[]> lines(List<Primitive> drawn) {
        List<double[]> lines = new ArrayList<>();
        for (Primitive p : drawn) {
            if (!(p instanceof Primitive.Polyline line)) continue;
            double[] at = line.points();
            int n = at.length / 2;
            // What has very many corners is a curve that was cut up.
            if (n > 64) continue;
            for (int i = 0; i + 1 < n || (line.closed() && i < n && n > 2); i++) {
                int next = (i + 1) % n;
                double length = Math.hypot(at[2 * next] - at[2 * i], at[2 * next + 1] - at[2 * i + 1]);
                if (length > 0.5) {
                    lines.add(new double[] {at[2 * i], at[2 * i + 1], at[2 * next], at[2 * next + 1], length});
                }
            }
        }
        lines.sort(Comparator.comparingDouble((double[] l) -> -l[4]));
        return lines.subList(0, Math.min(MOST_LINES, lines.size()));
    }

    /** The largest circles: middle and radius. */
    private static List<double[]> circles(List<Primitive> drawn) {
        List<double[]> circles = new ArrayList<>();
        for (Primitive p : drawn) {
            if (p instanceof Primitive.Arc arc && Math.abs(arc.sweep()) >= 359.9 && arc.radius() > 0.05) {
                circles.add(new double[] {arc.x(), arc.y(), arc.radius()});
            }
        }
        circles.sort(Comparator.comparingDouble((double[] c) -> -c[2]));
        return circles.subList(0, Math.min(MOST_CIRCLES, circles.size()));
    }

    private static List<String> holes(List<double[]> circles) {
        List<String> marks = new ArrayList<>();
        for (int i = 0; i < circles.size(); i++) {
            for (int j = i + 1; j < circles.size(); j++) {
                double[] a = circles.get(i);
                double[] b = circles.get(j);
                double apart = Math.hypot(a[0] - b[0], a[1] - b[1]);
                if (apart > 60 * a[2]) continue;
                marks.add(octaves(a[2] / b[2]) + "@" + (apart < 0.01 * a[2] ? "0" : octaves(apart / a[2])));
            }
        }
        return marks;
    }

    /** Where two lines meet: the angle between them, and how their lengths stand to each other. */
    private static List<String> corners(List<double[]> lines) {
        Map<String, List<double[]>> ends = new HashMap<>();
        for (double[] line : lines) {
            ends.computeIfAbsent(key(line[0], line[1]), k -> new ArrayList<>()).add(line);
            ends.computeIfAbsent(key(line[2], line[3]), k -> new ArrayList<>())
                    .add(new double[] {line[2], line[3], line[0], line[1], line[4]});
        }
        List<String> marks = new ArrayList<>();
        for (List<double[]> met : ends.values()) {
            if (met.size() > 6) continue; // a knot of lines tells of no corner
            for (int i = 0; i < met.size(); i++) {
                for (int j = i + 1; j < met.size(); j++) marks.add(corner(met.get(i), met.get(j)));
            }
        }
        return marks;
    }

    private static String key(double x, double y) {
        return Math.round(x * 50) + " " + Math.round(y * 50);
    }

    private static String corner(double[] a, double[] b) {
        double dot = ((a[2] - a[0]) * (b[2] - b[0]) + (a[3] - a[1]) * (b[3] - b[1])) / (a[4] * b[4]);
        double angle = Math.toDegrees(Math.acos(Math.max(-1, Math.min(1, dot))));
        return Math.round(angle / DEGREES) + "/" + octaves(Math.max(a[4], b[4]) / Math.min(a[4], b[4]));
    }

    private static String octaves(double ratio) {
        return Long.toString(Math.round(OCTAVE * Math.log(ratio) / Math.log(2)));
    }

    private static List<String> sizes(List<double[]> lines, List<double[]> circles) {
        List<String> marks = new ArrayList<>();
        lines.forEach(l -> marks.add("l" + Math.round(l[4] * 2)));
        circles.forEach(c -> marks.add("c" + Math.round(c[2] * 20)));
        return marks;
    }

    private static List<String> words(List<Primitive> drawn) {
        Set<String> words = new TreeSet<>();
        for (Primitive p : drawn) {
            if (!(p instanceof Primitive.Text text)) continue;
            for (String word : text.text().toLowerCase(Locale.ROOT).split("[^\\p{L}\\p{N}]+")) {
                if (word.length() > 2 && word.chars().anyMatch(Character::isLetter)) words.add(word);
            }
        }
        return new ArrayList<>(words);
    }

    /** What occurs more than once is a mark of its own each time, up to a few. */
    private static void add(List<String> marks, Kind kind, List<String> all) {
        Map<String, Integer> counted = new HashMap<>();
        TreeSet<Long> hashes = new TreeSet<>();
        for (String one : all) {
            int n = counted.merge(one, 1, Integer::sum);
            if (n <= AS_OFTEN) hashes.add(hash(one + "#" + n));
        }
        hashes.stream().limit(kind.most).forEach(h -> marks.add(kind.letter + Long.toString(h, 36)));
    }

    /** FNV-1a of 64 bits (Fowler, Noll, Vo), mixed and cut to 40: enough for a hundred thousand drawings. */
    private static long hash(String text) {
        long h = 0xcbf29ce484222325L;
        for (int i = 0; i < text.length(); i++) h = (h ^ text.charAt(i)) * 0x100000001b3L;
        h ^= h >>> 29;
        h *= 0xbf58476d1ce4e5b9L;
        return h >>> 24;
    }

    /** As kept: marks with blanks between. */
    public String text() {
        return String.join(" ", marks);
    }

    public static Traits read(String kept) {
        return new Traits(kept.isBlank() ? List.of() : Arrays.asList(kept.split(" ")));
    }

    public boolean isEmpty() {
        return marks.isEmpty();
    }

    /** Some of each kind, the same ones of all drawings that have them: enough to find those that may be like it. */
    public List<String> sample() {
        List<String> sample = new ArrayList<>();
        for (Kind kind : Kind.values()) of(kind).stream().limit(kind.most / 3).forEach(sample::add);
        return sample;
    }

    List<String> of(Kind kind) {
        return marks.stream().filter(kind::isOf).toList();
    }

    static double shared(Collection<String> a, Collection<String> b) {
        if (a.isEmpty() || b.isEmpty()) return 0;
        Set<String> both = new HashSet<>(a);
        both.retainAll(new HashSet<>(b));
        return (double) both.size() / Math.max(a.size(), b.size());
    }
}
