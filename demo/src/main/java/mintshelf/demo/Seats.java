package mintshelf.demo;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/**
 * Where the components of the demo's models stand: on what carries them, screws in their holes. A seat is x, y, z in millimetres, the
 * direction of the component's own axis, and the direction of its width.
 */
final class Seats {
    private static final double[] UP = {0, 0, 1};
    private static final double[] DOWN = {0, 0, -1};
    private static final double[] ALONG = {1, 0, 0};
    /** The pipe's radius with the liner round it, and the heights of its pairs of clamps. */
    private static final double LINER = 177.5;

    private static final double[] CLAMPS = {700, 1900};
    /** The panel leans towards the south. */
    private static final double[] LEANING = {0, -0.5, Math.sqrt(0.75)};

    private static final Map<String, Map<String, List<double[]>>> ALL = Map.of(
            "TG40-0000", station(),
            "TG40-1000", well(),
            "TG40-2000", floating(),
            "TG40-3000", head(),
            "TG40-4000", mast(),
            "LS18-1000", reader());

    private Seats() {}

    /** The seats of a component in an assembly. */
    static List<double[]> of(String assembly, String component) {
        return ALL.getOrDefault(assembly, Map.of()).getOrDefault(component, List.of());
    }

    private static double[] seat(double x, double y, double z, double[] axis, double[] width) {
        return new double[] {x, y, z, axis[0], axis[1], axis[2], width[0], width[1], width[2]};
    }

    private static List<double[]> one(double x, double y, double z) {
        return List.of(seat(x, y, z, UP, ALONG));
    }

    /** Seats on a plate's four holes, that far from its middle in its own plane, {@code off} along its axis. */
    private static List<double[]> corners(double[] plate, double x, double y, double off, boolean below) {
        double[] axis = {plate[3], plate[4], plate[5]};
        double[] width = {plate[6], plate[7], plate[8]};
        double[] across = {
            axis[1] * width[2] - axis[2] * width[1],
            axis[2] * width[0] - axis[0] * width[2],
            axis[0] * width[1] - axis[1] * width[0]
        };
        double[] outwards = below ? new double[] {-axis[0], -axis[1], -axis[2]} : axis;
        List<double[]> seats = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            double u = i % 2 == 0 ? -x : x;
            double v = i < 2 ? -y : y;
            seats.add(seat(
                    plate[0] + width[0] * u + across[0] * v + axis[0] * off,
                    plate[1] + width[1] * u + across[1] * v + axis[1] * off,
                    plate[2] + width[2] * u + across[2] * v + axis[2] * off,
                    outwards,
                    width));
        }
        return seats;
    }

    private static Map<String, List<double[]>> station() {
        return Map.of(
                "TG40-1000", one(0, 0, 0),
                "TG40-2000", one(0, 0, 900),
                "TG40-3000", one(0, 0, 2586),
                "TG40-4000", one(900, 0, 900));
    }

    /** Bars with a liner on either side of the pipe, two pairs of them, each on four screws. */
    private static Map<String, List<double[]>> well() {
        List<double[]> liners = new ArrayList<>();
        List<double[]> clamps = new ArrayList<>();
        List<double[]> screws = new ArrayList<>();
        List<double[]> nuts = new ArrayList<>();
        for (double height : CLAMPS) {
            for (int side = -1; side <= 1; side += 2) {
                double[] outwards = {0, side, 0};
                liners.add(seat(0, side * LINER, height, outwards, ALONG));
                double[] clamp = seat(0, side * (LINER + 3), height, outwards, ALONG);
                clamps.add(clamp);
                screws.addAll(corners(clamp, 96, 16, 8, false));
                nuts.addAll(corners(clamp, 96, 16, -9.8, false));
            }
        }
        return Map.of(
                "TG40-1010", one(0, 0, 170),
                "TG40-1020", List.of(seat(0, 0, 170, DOWN, ALONG)),
                "TG40-1030", one(0, 0, 2570),
                "TG40-1040", clamps,
                "TG40-1050", liners,
                "ISO 4017 M8 x 40", screws,
                "ISO 4032 M8", nuts);
    }

    /** The pulley turns on its axle; the tape runs down from it to the float, on the other side to the counterweight. */
    private static Map<String, List<double[]>> floating() {
        double[] across = {0, 0, 1};
        return Map.of(
                "TG40-2010", one(0, 0, 0),
                "TG40-2020", one(0, -120, 560),
                "TG40-2030", List.of(seat(-7, -60, 770, ALONG, across)),
                "TG40-2040", List.of(seat(-32, -60, 770, ALONG, across)),
                "EGW-FT-12", one(0, 0, 140));
    }

    private static Map<String, List<double[]>> head() {
        double[] lid = seat(0, 0, 93, UP, ALONG);
        double[] gland = seat(0, 0, 0, DOWN, ALONG);
        List<double[]> screws = new ArrayList<>(corners(lid, 108, 78, 5, false));
        screws.addAll(corners(gland, 64, 44, 4, false));
        return Map.of(
                "TG40-3010", one(0, 0, 0),
                "TG40-3020", List.of(lid),
                "TG40-3030", List.of(gland),
                "TG40-3040", one(0, 0, 90),
                "TG40-3050", one(0, 0, -20),
                "ISO 15 6202", List.of(seat(0, 0, 4, UP, ALONG), seat(0, 0, 50, UP, ALONG)),
                "EGW-EN-48", one(0, 0, 15),
                "ISO 3601 40 x 2", one(0, 0, 1),
                "ISO 4762 M6 x 16", screws);
    }

    private static Map<String, List<double[]>> mast() {
        List<double[]> gussets = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            double a = Math.PI / 2 * i;
            double[] outwards = {Math.cos(a), Math.sin(a), 0};
            double[] across = {-Math.sin(a), Math.cos(a), 0};
            gussets.add(
                    seat(132 * outwards[0] - 4 * across[0], 132 * outwards[1] - 4 * across[1], 75, across, outwards));
        }
        double[] cradle = seat(0, 0, 3050, LEANING, ALONG);
        List<double[]> screws = new ArrayList<>(corners(cradle, 245, 155, 0, true));
        for (int i = 0; i < 3; i++) {
            double a = 2 * Math.PI * i / 3;
            screws.add(seat(89 + 26 * Math.cos(a), 26 * Math.sin(a), 1416, UP, ALONG));
        }
        return Map.of(
                "TG40-4010", one(0, 0, 0),
                "TG40-4020", one(0, 0, 15),
                "TG40-4030", gussets,
                "TG40-4040", List.of(cradle),
                "TG40-4050", one(89, 0, 1400),
                "TG40-4060", one(0, 120, 2700),
                "EGW-SP-20", List.of(seat(4 * LEANING[0], 4 * LEANING[1], 3050 + 4 * LEANING[2], LEANING, ALONG)),
                "ISO 4017 M5 x 20", screws);
    }

    /** The rail lies between two clamps, all three on four screws. */
    private static Map<String, List<double[]>> reader() {
        double[] upper = seat(0, 0, 8, UP, ALONG);
        return Map.of(
                "LS18-1010", List.of(seat(0, 0, 0, UP, new double[] {0, 1, 0})),
                "TG40-1040", List.of(upper, seat(0, 0, -8, UP, ALONG)),
                "ISO 4017 M8 x 40", corners(upper, 96, 16, 8, false));
    }
}
