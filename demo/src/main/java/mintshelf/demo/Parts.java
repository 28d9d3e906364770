package mintshelf.demo;

import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import mintshelf.demo.sheet.Sheets;
import mintshelf.demo.sheet.Sheets.Shape;

/** The made parts and assemblies of the story, with what their sheets show. */
final class Parts {
    /** A sheet of the story; {@code months} is how long ago it was filed. */
    record Part(
            String number,
            String title,
            String folder,
            String author,
            int months,
            String material,
            String surface,
            String mass,
            String scale,
            double draw,
            Shape shape,
            List<String> notes) {
        byte[] sheet(String revision, Shape shown, List<String> said, String created) {
            return Sheets.draw(
                    new Sheets.Title(
                            number, title, revision, material, surface, mass, scale, initials(author), created),
                    shown,
                    draw,
                    said,
                    rows(revision, created));
        }

        /** The revision block: what each revision up to this one changed. */
        private List<Sheets.Row> rows(String revision, String created) {
            List<Sheets.Row> rows = new ArrayList<>();
            // The first row stays what it was, whatever comes after it.
            String filed = revision.equals("A")
                    ? created
                    : DAY.format(LocalDate.of(2026, 11, 21).minusMonths(months - 1L));
            rows.add(new Sheets.Row("A", "", "First release", filed, initials(author)));
            for (char r = 'B'; r <= revision.charAt(0); r++) {
                String[] change = CHANGES.getOrDefault(number + " " + r, new String[] {"", "See its change order", ""});
                boolean latest = r == revision.charAt(0);
                rows.add(new Sheets.Row(
                        Character.toString(r), change[0], change[1], latest ? created : change[2], initials(author)));
            }
            return rows;
        }

        byte[] sheet(String revision, String created) {
            return sheet(revision, shape, notes, created);
        }

        private static String initials(String login) {
            return switch (login) {
                case "priya" -> "P. Malhan";
                case "tomasz" -> "T. Okrent";
                default -> "O. Adebari";
            };
        }
    }

    private static final DateTimeFormatter DAY = DateTimeFormatter.ISO_LOCAL_DATE;

    /** Zone and text of the revision block's rows. */
    private static final Map<String, String[]> CHANGES = Map.of(
            "TG40-3030 B", new String[] {"C3", "Corner radius R10 for the bent tank", "2026-03-11"},
            "TG40-3030 C", new String[] {"B4", "Holes 4x 6.6 for M6 glands", ""},
            "TG40-3050 B", new String[] {"C4", "Bearing seats k6, were h7", "2026-04-20"},
            "TG40-1040 B", new String[] {"C3", "Slot in place of a hole", ""},
            "TG40-4010 B", new String[] {"C3", "Hole pattern of the new quay anchors", ""},
            "TG40-3010 B", new String[] {"D3", "Boss for the earth stud", ""},
            "TG40-1020 B", new String[] {"", "Duplex 2205, was 316L", ""});

    private static final String WELL = "1000 Stilling well";
    private static final String FLOAT = "2000 Float and tape";
    private static final String HEAD = "3000 Encoder head";
    private static final String MAST = "4000 Mast";
    private static final List<String> BURRS =
            List.of("Break sharp edges 0.3 x 45%%d", "General tolerances ISO 2768-mK");
    private static final List<String> PICKLED =
            List.of("Pickled and passivated", "Break sharp edges 0.3 x 45%%d", "General tolerances ISO 2768-mK");

    static final Shape.Plate GLAND_B = new Shape.Plate(160, 120, 4, 10, 48, 5.5, 16);
    static final Shape.Plate GLAND_C = new Shape.Plate(160, 120, 4, 10, 48, 6.6, 16).withMarks();

    static final List<Part> ALL = List.of(
            part(
                    "TG40-0000",
                    "Tide gauge station",
                    "",
                    "oluwaseun",
                    17,
                    "",
                    "",
                    "148.0",
                    "1:10",
                    0.1,
                    Assemblies.STATION,
                    List.of("Assemble in the order of the specification TG40-0900")),
            part("TG40-1000", "Stilling well", WELL, "priya", 17, "", "", "61.5", "1:10", 0.1, Assemblies.WELL, BURRS),
            part(
                    "TG40-1010",
                    "Well pipe",
                    WELL,
                    "priya",
                    17,
                    "316L",
                    "pickled",
                    "38.2",
                    "1:10",
                    0.1,
                    new Shape.Tube(355, 4, 2400),
                    PICKLED),
            part(
                    "TG40-1020",
                    "Intake cone",
                    WELL,
                    "tomasz",
                    16,
                    "316L",
                    "pickled",
                    "6.8",
                    "1:5",
                    0.2,
                    new Shape.Turned(new double[][] {{355, 40}, {300, 120}, {120, 60}}),
                    PICKLED),
            part(
                    "TG40-1030",
                    "End ring",
                    WELL,
                    "tomasz",
                    16,
                    "316L",
                    "pickled",
                    "5.1",
                    "1:5",
                    0.2,
                    new Shape.Ring(420, 356, 12, 12, 390, 11),
                    PICKLED),
            part(
                    "TG40-1040",
                    "Pipe clamp",
                    WELL,
                    "tomasz",
                    15,
                    "316L",
                    "",
                    "1.92",
                    "1:2",
                    0.5,
                    new Shape.Plate(220, 60, 8, 6, 0, 9, 14),
                    BURRS),
            part(
                    "TG40-1050",
                    "Clamp liner",
                    WELL,
                    "priya",
                    2,
                    "NBR",
                    "",
                    "0.14",
                    "1:2",
                    0.5,
                    new Shape.Plate(200, 50, 3, 2, 0, 4, 8),
                    List.of("Shore A 60 %%p 5")),
            part("TG40-2000", "Float and tape", FLOAT, "priya", 15, "", "", "4.3", "1:5", 0.2, Assemblies.FLOAT, BURRS),
            part(
                    "TG40-2010",
                    "Float",
                    FLOAT,
                    "priya",
                    15,
                    "POM-C",
                    "",
                    "2.41",
                    "1:2",
                    0.5,
                    new Shape.Turned(new double[][] {{40, 20}, {200, 90}, {160, 30}}),
                    BURRS),
            part(
                    "TG40-2020",
                    "Counterweight",
                    FLOAT,
                    "tomasz",
                    14,
                    "316L",
                    "",
                    "1.35",
                    "1:1",
                    1,
                    new Shape.Turned(new double[][] {{12, 14}, {48, 96}}),
                    BURRS),
            part(
                    "TG40-2030",
                    "Tape pulley",
                    FLOAT,
                    "priya",
                    14,
                    "POM-C",
                    "",
                    "0.22",
                    "1:1",
                    1,
                    new Shape.Ring(120, 18, 14, 6, 80, 18),
                    BURRS),
            part(
                    "TG40-2040",
                    "Pulley axle",
                    FLOAT,
                    "priya",
                    14,
                    "316L",
                    "",
                    "0.11",
                    "2:1",
                    2,
                    new Shape.Turned(new double[][] {{8, 10}, {12, 44}, {8, 10}}),
                    BURRS),
            part("TG40-3000", "Encoder head", HEAD, "priya", 13, "", "", "7.9", "1:1", 1, Assemblies.HEAD, BURRS),
            part(
                    "TG40-3010",
                    "Housing",
                    HEAD,
                    "priya",
                    13,
                    "316L",
                    "bead blasted",
                    "3.9",
                    "1:2",
                    0.5,
                    new Shape.Plate(240, 180, 90, 14, 96, 6.6, 12),
                    PICKLED),
            part(
                    "TG40-3020",
                    "Lid",
                    HEAD,
                    "priya",
                    13,
                    "316L",
                    "bead blasted",
                    "1.1",
                    "1:2",
                    0.5,
                    new Shape.Plate(240, 180, 5, 14, 0, 6.6, 12),
                    PICKLED),
            part("TG40-3030", "Gland plate", HEAD, "priya", 13, "316L", "pickled", "0.61", "1:1", 1, GLAND_B, PICKLED),
            part(
                    "TG40-3040",
                    "Lid gasket",
                    HEAD,
                    "tomasz",
                    12,
                    "VMQ",
                    "",
                    "0.05",
                    "1:2",
                    0.5,
                    new Shape.Plate(240, 180, 3, 14, 150, 7, 12),
                    List.of("Shore A 40 %%p 5")),
            part(
                    "TG40-3050",
                    "Shaft",
                    HEAD,
                    "tomasz",
                    12,
                    "316L",
                    "",
                    "0.19",
                    "1:1",
                    1,
                    new Shape.Turned(new double[][] {{10, 22}, {15, 60}, {12, 28}, {8, 14}}),
                    BURRS),
            part("TG40-4000", "Mast", MAST, "oluwaseun", 11, "", "", "54.0", "1:10", 0.1, Assemblies.MAST, BURRS),
            part(
                    "TG40-4010",
                    "Base plate",
                    MAST,
                    "tomasz",
                    11,
                    "S355J2",
                    "hot-dip galvanised",
                    "18.4",
                    "1:5",
                    0.2,
                    new Shape.Plate(400, 400, 15, 20, 120, 22, 45),
                    List.of("Hot-dip galvanised to ISO 1461")),
            part(
                    "TG40-4020",
                    "Mast tube",
                    MAST,
                    "tomasz",
                    11,
                    "S355J2",
                    "hot-dip galvanised",
                    "27.5",
                    "1:10",
                    0.1,
                    new Shape.Tube(114.3, 5, 3000),
                    List.of("Hot-dip galvanised to ISO 1461")),
            part(
                    "TG40-4030",
                    "Gusset",
                    MAST,
                    "tomasz",
                    10,
                    "S355J2",
                    "hot-dip galvanised",
                    "0.9",
                    "1:2",
                    0.5,
                    new Shape.Plate(150, 120, 8, 4, 0, 14, 30),
                    BURRS),
            part(
                    "TG40-4040",
                    "Panel cradle",
                    MAST,
                    "priya",
                    10,
                    "316L",
                    "",
                    "2.7",
                    "1:5",
                    0.2,
                    new Shape.Plate(540, 360, 4, 12, 0, 5.5, 25),
                    BURRS),
            part(
                    "TG40-4050",
                    "Hose guide",
                    MAST,
                    "priya",
                    10,
                    "POM-C",
                    "",
                    "0.08",
                    "1:1",
                    1,
                    new Shape.Ring(64, 40, 16, 3, 52, 5.5),
                    BURRS));

    private Parts() {}

    private static Part part(
            String number,
            String title,
            String folder,
            String author,
            int months,
            String material,
            String surface,
            String mass,
            String scale,
            double draw,
            Shape shape,
            List<String> notes) {
        return new Part(number, title, folder, author, months, material, surface, mass, scale, draw, shape, notes);
    }
}
