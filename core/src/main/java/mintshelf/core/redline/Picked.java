package mintshelf.core.redline;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/**
 * What of a model was picked.
 *
 * @param at a place on it: of an axis the one next to where it was picked
 * @param along the way of an axis or an edge, the normal of a face; one long, nothing of a point
 * @param radius of the hole or the round whose axis it is, in millimetres; 0 for others
 */
public record Picked(Of of, Vector at, Vector along, double radius) {
    /** What it is. */
    public enum Of {
        POINT("point"),
        EDGE("edge"),
        AXIS("axis"),
        FACE("face");

        private final String words;

        Of(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        public static Optional<Of> of(String word) {
            return Arrays.stream(values()).filter(o -> o.words.equals(word)).findFirst();
        }
    }

    public Picked {
        along = of == Of.POINT ? new Vector(0, 0, 0) : along.unit();
    }

    boolean isSound() {
        boolean way = of == Of.POINT || Math.abs(along.length() - 1) < 1e-6;
        return at.isPlace() && along.isPlace() && way && radius >= 0 && radius < 1e7;
    }

    /** As lists say it: "axis of Ø 9", "edge". */
    public String words() {
        if (of != Of.AXIS || radius <= 0) return of.words();
        return "axis of Ø " + Mark.number(Math.round(radius * 2000) / 1000.0);
    }

    private boolean isLine() {
        return of == Of.EDGE || of == Of.AXIS;
    }

    /**
     * How far two of them are from each other, in millimetres, or under which angle they stand where they meet or cross: the distance of
     * points, of a point from a line or a face; of lines and faces that run side by side, else the smaller angle between them; lines that
     * pass each other have their shortest distance.
     */
    static Measured between(Picked a, Picked b) {
        Vector from = b.at.minus(a.at);
        if (a.of == Of.POINT && b.of == Of.POINT) return Measured.distance(from.length());
        if (a.of == Of.POINT || b.of == Of.POINT) {
            Picked other = a.of == Of.POINT ? b : a;
            return Measured.distance(
                    other.isLine() ? from.cross(other.along).length() : Math.abs(from.dot(other.along)));
        }
        if (a.isLine() && b.isLine()) {
            if (a.along.isAlong(b.along))
                return Measured.distance(from.cross(a.along).length());
            Vector square = a.along.cross(b.along).unit();
            double apart = Math.abs(from.dot(square));
            return apart > 1e-3 ? Measured.distance(apart) : Measured.angle(angle(a.along, b.along));
        }
        if (a.of == Of.FACE && b.of == Of.FACE) {
            return a.along.isAlong(b.along)
                    ? Measured.distance(Math.abs(from.dot(a.along)))
                    : Measured.angle(angle(a.along, b.along));
        }
        Picked face = a.of == Of.FACE ? a : b;
        Picked line = a.of == Of.FACE ? b : a;
        return line.along.isSquareTo(face.along)
                ? Measured.distance(Math.abs(from.dot(face.along)))
                : Measured.angle(90 - angle(line.along, face.along));
    }

    /** From 0 to 90 degrees. */
    private static double angle(Vector a, Vector b) {
        return Math.toDegrees(Math.atan2(a.cross(b).length(), Math.abs(a.dot(b))));
    }

    /**
     * What lies between two of them.
     *
     * @param value in millimetres, or in degrees
     */
    record Measured(double value, boolean isAngle) {
        static Measured distance(double value) {
            return new Measured(value, false);
        }

        static Measured angle(double value) {
            return new Measured(value, true);
        }

        @Override
        public String toString() {
            return String.format(Locale.ROOT, isAngle ? "%s°" : "%s", Mark.number(value));
        }
    }
}
