package mintshelf.demo;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import java.util.function.BiFunction;
import java.util.stream.Stream;
import mintshelf.app.use.shelf.ReadShelf;
import mintshelf.core.base.Numbers;
import mintshelf.core.redline.Picked;
import mintshelf.core.redline.Remark;
import mintshelf.core.redline.Space;
import mintshelf.core.redline.Tool;
import mintshelf.core.redline.Vector;
import mintshelf.core.reference.Resolution;
import mintshelf.demo.model.Models;
import mintshelf.demo.sheet.Sheets.Component;
import mintshelf.demo.sheet.Sheets.Shape;

/** The models beside the sheets: parts, assemblies of files that refer to each other, and the library that they share. */
final class ModelStory {
    private static final String STAMP = "2026-11-20T09:00:00";

    private final Hands hands;
    private final ReadShelf shelves;
    private final BiFunction<Integer, Integer, Instant> daysAgo;
    /** Where a component's file lies, by its number: shelf, folders and name with slashes. */
    private final Map<String, String> files = new HashMap<>();

    private final Map<String, Long> models = new HashMap<>();

    /** @param daysAgo the moment so many days ago, at that hour */
    ModelStory(Hands hands, ReadShelf shelves, BiFunction<Integer, Integer, Instant> daysAgo) {
        this.hands = hands;
        this.shelves = shelves;
        this.daysAgo = daysAgo;
    }

    private Instant at(int days, int hour) {
        return daysAgo.apply(days, hour);
    }

    /**
     * Files everything with its short history.
     *
     * @param folders ids of the folders of the gauge's shelf by their names
     * @return the shelf of the library
     */
    long write(long tg40, long ls18, Map<String, Long> folders) {
        long library = library();
        for (Parts.Part part : Parts.ALL) {
            if (part.shape() instanceof Shape.Assembly) continue;
            file(
                    300,
                    tg40,
                    OptionalLong.of(folders.get(part.folder())),
                    "TG40 Tide gauge/" + part.folder(),
                    part.number(),
                    part.title(),
                    Models.part(part.number(), part.title(), part.material(), part.mass(), part.shape(), STAMP),
                    part.material());
        }
        for (String number : List.of("TG40-1000", "TG40-2000", "TG40-3000", "TG40-4000")) {
            Parts.Part part = part(number);
            assembly(
                    240,
                    tg40,
                    OptionalLong.of(folders.get(part.folder())),
                    "TG40 Tide gauge/" + part.folder(),
                    part,
                    ((Shape.Assembly) part.shape()).components());
        }
        Parts.Part station = part("TG40-0000");
        assembly(
                239,
                tg40,
                OptionalLong.empty(),
                "TG40 Tide gauge",
                station,
                ((Shape.Assembly) station.shape()).components());
        staffReader(ls18);
        Purchasing.released().forEach(number -> {
            long item = models.getOrDefault(number, 0L);
            hands.release(at(225, 11), "oluwaseun", item);
            hands.start(at(120, 9), "tomasz", item, "after the first winter", false);
        });
        story();
        return library;
    }

    private long library() {
        Instant at = at(330, 8);
        hands.at(at);
        long shelf =
                shelves.addShelf(hands.actor("ines"), "Library", "standard and bought parts for every product", true);
        long screws = shelves.addFolder(hands.actor("ines"), shelf, OptionalLong.empty(), "Screws and nuts");
        long seals = shelves.addFolder(hands.actor("ines"), shelf, OptionalLong.empty(), "Bearings and seals");
        long bought = shelves.addFolder(hands.actor("ines"), shelf, OptionalLong.empty(), "Bought");
        Map<String, byte[]> made = new LinkedHashMap<>();
        made.put("ISO 4017 M8 x 40|Hexagon screw", Models.screw("ISO 4017 M8 x 40", 8, 40, STAMP));
        made.put("ISO 4017 M5 x 20|Hexagon screw", Models.screw("ISO 4017 M5 x 20", 5, 20, STAMP));
        made.put("ISO 4762 M6 x 16|Cap screw", Models.screw("ISO 4762 M6 x 16", 6, 16, STAMP));
        made.put("ISO 4032 M8|Hexagon nut", Models.ring("ISO 4032 M8", "Hexagon nut", "A4-70", 13, 8, 6.8, STAMP));
        made.forEach((name, bytes) -> libraryPart(shelf, screws, "Screws and nuts", name, bytes));
        made.clear();
        made.put("ISO 15 6202|Ball bearing", Models.ring("ISO 15 6202", "Ball bearing", "steel", 35, 15, 11, STAMP));
        made.put("ISO 3601 40 x 2|O-ring 40 x 2", Models.ring("ISO 3601 40 x 2", "O-ring", "NBR", 44, 40, 2, STAMP));
        made.put(
                "ISO 3601 40 x 2.5|O-ring 40 x 2.5",
                Models.ring("ISO 3601 40 x 2.5", "O-ring", "NBR", 45, 40, 2.5, STAMP));
        made.forEach((name, bytes) -> libraryPart(shelf, seals, "Bearings and seals", name, bytes));
        made.clear();
        made.put("EGW-EN-48|Encoder", Models.bought("EGW-EN-48", "Encoder", 60, 60, 36, STAMP));
        made.put("EGW-FT-12|Float tape", Models.bought("EGW-FT-12", "Float tape", 12, 1, 620, STAMP));
        made.put("EGW-SP-20|Solar panel", Models.bought("EGW-SP-20", "Solar panel", 540, 360, 30, STAMP));
        made.forEach((name, bytes) -> libraryPart(shelf, bought, "Bought", name, bytes));
        sizes(shelf, seals);
        return shelf;
    }

    /** A size family: some of its sizes are parts here, the others could be. */
    private void sizes(long shelf, long folder) {
        StringBuilder rings = new StringBuilder("number,\"d1, mm\",\"d2, mm\",material\n");
        for (double inner : new double[] {30, 36, 40, 45, 50, 60}) {
            for (double cord : new double[] {2, 2.5, 3.55}) {
                String size = Numbers.plain(inner) + " x " + Numbers.plain(cord);
                rings.append("ISO 3601 " + size + "," + inner + "," + cord + ",NBR\n");
            }
        }
        long item = hands.file(
                at(328, 9),
                "ines",
                shelf,
                OptionalLong.of(folder),
                "ISO 3601 O-rings.csv",
                rings.toString().getBytes(StandardCharsets.UTF_8),
                Map.of("subject", "O-rings"),
                false,
                "ISO 3601",
                "O-rings, sizes");
        hands.release(at(327, 9), "ines", item);
    }

    private void libraryPart(long shelf, long folder, String path, String numberAndTitle, byte[] bytes) {
        String[] parts = numberAndTitle.split("\\|");
        String name = parts[0] + ".stp";
        long item = hands.file(
                at(330, 9),
                "ines",
                shelf,
                OptionalLong.of(folder),
                name,
                bytes,
                Purchasing.facts(parts[0]),
                false,
                parts[0],
                parts[1]);
        hands.release(at(329, 9), "ines", item);
        files.put(parts[0], "Library/" + path + "/" + name);
        models.put(parts[0], item);
    }

    private static Parts.Part part(String number) {
        return Parts.ALL.stream()
                .filter(p -> p.number().equals(number))
                .findFirst()
                .orElseThrow();
    }

    private void file(
            int days,
            long shelf,
            OptionalLong folder,
            String path,
            String number,
            String title,
            byte[] bytes,
            String material) {
        String name = number + " " + title + ".stp";
        long item = hands.file(
                at(days, 10),
                "tomasz",
                shelf,
                folder,
                name,
                bytes,
                Purchasing.with(Purchasing.facts(number), Map.of("material", material)),
                false,
                number,
                title);
        files.put(number, path + "/" + name);
        models.put(number, item);
        if (!List.of("TG40-1050", "TG40-4040").contains(number)) hands.release(at(days - 20, 11), "oluwaseun", item);
    }

    private void assembly(
            int days, long shelf, OptionalLong folder, String path, Parts.Part part, List<Component> components) {
        String name = part.number() + " " + part.title() + ".stp";
        long item = hands.file(
                at(days, 14),
                "tomasz",
                shelf,
                folder,
                name,
                Models.assembly(
                        part.number(),
                        part.title(),
                        components,
                        c -> path(path, c),
                        c -> Seats.of(part.number(), c),
                        STAMP),
                Map.of("mass", part.mass()),
                false,
                part.number(),
                part.title());
        files.put(part.number(), path + "/" + name);
        models.put(part.number(), item);
    }

    /** The path from a folder to the file of a component, as files on a desk refer to each other; empty for what has no model. */
    private String path(String from, String number) {
        String to = files.getOrDefault(number, "");
        if (to.isEmpty()) return "";
        int slash = to.lastIndexOf('/');
        return Resolution.relative(
                List.of(from.split("/")), List.of(to.substring(0, slash).split("/")), to.substring(slash + 1));
    }

    private void staffReader(long ls18) {
        file(
                230,
                ls18,
                OptionalLong.empty(),
                "LS18 Staff reader",
                "LS18-1010",
                "Clamp rail",
                Models.part("LS18-1010", "Clamp rail", "316L", "0.63", new Shape.Plate(60, 220, 8, 4, 0, 9, 14), STAMP),
                "316L");
        Shape.Assembly reader = (Shape.Assembly) Assemblies.READER;
        String path = "LS18 Staff reader";
        hands.file(
                at(229, 10),
                "tomasz",
                ls18,
                OptionalLong.empty(),
                "LS18-1000 Staff reader.stp",
                Models.assembly(
                        "LS18-1000",
                        "Staff reader",
                        reader.components(),
                        c -> path(path, c),
                        c -> Seats.of("LS18-1000", c),
                        STAMP),
                Map.of("mass", "3.2"),
                false,
                "LS18-1000",
                "Staff reader");
    }

    /** The encoder head is out of date: housing and lid are newer than it was saved with; the well took its clamp up. */
    private void story() {
        change(60, "priya", "TG40-3010", new Shape.Plate(240, 180, 92, 14, 96, 6.6, 12), "2 higher for the earth stud");
        change(33, "priya", "TG40-3020", new Shape.Plate(240, 180, 6, 14, 0, 6.6, 12), "6 thick, the 5 bent");
        change(26, "priya", "TG40-3020", new Shape.Plate(240, 180, 6, 14, 0, 6.6, 14), "holes 14 from the edge");
        change(5, "tomasz", "TG40-1040", new Shape.Plate(230, 60, 8, 6, 0, 9, 14), "longer by 10 for the slot");
        // The clamp's next step is at work: its model is with Tomasz, who is away.
        hands.checkOut(at(4, 16), "tomasz", models.get("TG40-1040"), "BENCH-1", "slot after the fit test");
        // What one number was meant for by two: the mast's file names a bracket that was never filed.
        Parts.Part mast = part("TG40-4000");
        long item = models.get("TG40-4000");
        hands.checkOut(at(8, 9), "priya", item, "BENCH-3", "");
        byte[] with = Models.assembly(
                mast.number(),
                mast.title(),
                Stream.concat(
                                ((Shape.Assembly) mast.shape()).components().stream(),
                                Stream.of(new Component("TG40-4060", "Lamp stay", 1, "316L", 200, 2700, 80, 60)))
                        .toList(),
                c -> c.equals("TG40-4060") ? "TG40-4060 Lamp stay.stp" : path("TG40 Tide gauge/4000 Mast", c),
                c -> Seats.of(mast.number(), c),
                "2026-11-16T09:40:00");
        hands.checkIn(at(8, 10), "priya", item, with, "lamp stay added", false);
        markHead(models.get("TG40-3000"));
    }

    /** What Hedda marked on the encoder head: its shaft, the lid, how far the shaft is from the front. */
    private void markHead(long head) {
        Space.Eye eye = new Space.Eye(new Vector(267, -334, 276), new Vector(0, 0, 42), new Vector(0, 0, 1), 341);
        Picked shaft = new Picked(Picked.Of.AXIS, new Vector(0, 0, 104), new Vector(0, 0, 1), 4);
        Picked lid = new Picked(Picked.Of.FACE, new Vector(-81, -36, 98), new Vector(0, 0, 1), 0);
        Picked front = new Picked(Picked.Of.FACE, new Vector(-18, -90, 65), new Vector(0, -1, 0), 0);
        hands.remark(
                at(2, 9),
                "hedda",
                head,
                1,
                Tool.ARROW_NOTE,
                "",
                Remark.Kind.QUESTION,
                "Greased before the lid goes on?",
                new Space(List.of(shaft), new Vector(42, 69, 154), eye));
        hands.remark(
                at(2, 10),
                "hedda",
                head,
                1,
                Tool.NOTE,
                "",
                Remark.Kind.NOTE,
                "No powder under the screw heads",
                new Space(List.of(lid), lid.at(), eye));
        hands.remark(
                at(2, 11),
                "hedda",
                head,
                1,
                Tool.SIZE,
                "92",
                Remark.Kind.QUESTION,
                "as the drawing has it?",
                new Space(List.of(shaft, front), new Vector(-81, -149, -17), eye));
    }

    private void change(int days, String login, String number, Shape shape, String comment) {
        long item = models.get(number);
        boolean released = !List.of("TG40-1050", "TG40-4040").contains(number);
        if (released && !hands.isPending(item)) hands.start(at(days, 8), login, item, comment, true);
        else hands.checkOut(at(days, 8), login, item, "BENCH-3", "");
        Parts.Part part = part(number);
        hands.checkIn(
                at(days, 11),
                login,
                item,
                Models.part(number, part.title(), part.material(), part.mass(), shape, STAMP),
                comment,
                false);
    }
}
