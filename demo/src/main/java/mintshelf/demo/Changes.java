package mintshelf.demo;

import java.time.Duration;
import java.time.Instant;
import java.time.format.DateTimeFormatter;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import mintshelf.core.redline.Remark;
import mintshelf.core.redline.Tool;
import mintshelf.core.signoff.Decision;
import mintshelf.demo.Parts.Part;
import mintshelf.demo.sheet.Sheets;

/** What was changed by orders, and what is being changed. */
final class Changes extends Chapter {
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("yyyy-MM-dd", Locale.ROOT);

    private final Requests requests;
    private final Aftermath aftermath;

    Changes(Book book, Requests requests) {
        super(book);
        this.requests = requests;
        this.aftermath = new Aftermath(book);
    }

    /** What is going on, so that every page has something true to show. */
    void story(long shelf) {
        glandPlate();
        pipeClamp();
        basePlate();
        encoderHead();
        // The shaft's next revision was released in spring, and the one after it started the same day.
        long shaft = doc("3050");
        hands.start(monthsAgo(7, 2), "tomasz", shaft, "bearing seat k6 in place of h7", true);
        hands.checkIn(
                monthsAgo(7, 30),
                "tomasz",
                shaft,
                part("3050").sheet("B", part("3050").shape(), List.of("Bearing seats k6"), "2026-04-20"),
                "seats k6",
                false);
        hands.release(monthsAgo(7, 52), "oluwaseun", shaft);
        hands.start(monthsAgo(7, 54), "tomasz", shaft, "chamfer for the new coupling", false);
        hands.move(monthsAgo(4, 1), "ines", doc("4050"), "withdraw", "the hose is clipped to the mast tube now");
        new PastYear(book).story();
        finishedOrder();
        aftermath.stopped();
        openOrder();
        requests.story();
        reviews();
        hands.checkOut(daysAgo(1, 9, 40), "priya", doc("1050"), "BENCH-3", "hardness after the fit test");
        hands.checkOut(daysAgo(0, 8, 12), "priya", doc("1000"), "BENCH-3", "liners by number");
        Part gland = part("3030");
        Part stud = new Part(
                "TG40-3060",
                "Earth stud",
                "",
                "priya",
                0,
                "316L",
                "",
                "0.02",
                "2:1",
                2,
                new Sheets.Shape.Turned(new double[][] {{6, 22}, {14, 4}}),
                List.of());
        Map<String, byte[]> dropped = new LinkedHashMap<>();
        dropped.put("tg40-3060-earth-stud.dxf", stud.sheet("A", "2026-11-17"));
        dropped.put("torque table berth 3.txt", Papers.torques());
        dropped.put(
                "copy of gland plate.dxf",
                gland.sheet(
                        "C",
                        Parts.GLAND_C,
                        List.of("Corner R10", "Holes for M6 glands", "Pickled and passivated"),
                        "2026-11-21"));
        hands.drop(daysAgo(0, 8, 50), "priya", shelf, dropped);
        for (int i = 0; i < 5; i++) say();
    }

    private void glandPlate() {
        long gland = doc("3030");
        hands.start(monthsAgo(8, 1), "tomasz", gland, "corner radius for the bent tank", true);
        hands.checkIn(
                monthsAgo(8, 26),
                "tomasz",
                gland,
                part("3030").sheet("B", Parts.GLAND_B, List.of("Corner R10"), "2026-03-10"),
                "corners R10",
                true);
        hands.checkIn(
                monthsAgo(8, 30),
                "tomasz",
                gland,
                part("3030").sheet("B", Parts.GLAND_B, List.of("Corner R10", "Pickled and passivated"), "2026-03-11"),
                "surface noted",
                false);
        hands.release(monthsAgo(8, 50), "oluwaseun", gland);
        hands.start(daysAgo(5, 10, 2), "priya", gland, "glands are M6 now: holes 6.6", true);
        long clears = hands.remark(
                daysAgo(5, 11, 5),
                "hedda",
                gland,
                8,
                Tool.CLOUD,
                Remark.Kind.QUESTION,
                "Does the M6 gland clear?",
                78,
                211,
                94,
                227);
        hands.checkIn(
                daysAgo(5, 15, 30),
                "priya",
                gland,
                part("3030").sheet("C", Parts.GLAND_C, List.of("Corner R10", "Pickled and passivated"), "2026-11-19"),
                "hole pattern 4 x 6.6",
                true);
        hands.checkIn(
                daysAgo(3, 11, 20),
                "priya",
                gland,
                part("3030")
                        .sheet(
                                "C",
                                Parts.GLAND_C,
                                List.of("Corner R10", "Holes for M6 glands", "Pickled and passivated"),
                                "2026-11-21"),
                "note corrected",
                false);
        hands.settle(daysAgo(3, 11, 30), "priya", gland, clears, Remark.State.DONE, "It does with 6.6.");
        say();
    }

    private void rework(Instant at, String login, String number, String note, String comment) {
        hands.checkOut(at, login, doc(number), "", "");
        hands.checkIn(
                at.plus(Duration.ofHours(3)),
                login,
                doc(number),
                part(number).sheet("B", part(number).shape(), List.of(note), DAY.format(at.atZone(ZONE))),
                comment,
                false);
        say();
    }

    /** An order over three documents, carried out in summer, with its notice. */
    private void finishedOrder() {
        Map<Long, String> lines = new LinkedHashMap<>();
        lines.put(doc("2010"), "wall 3 in place of 2.5");
        lines.put(doc("2020"), "heavier by the same 0.12 kg");
        lines.put(doc("2030"), "seat 0.2 deeper for the steel tape");
        Instant at = monthsAgo(5, 2);
        long order = hands.order(
                at,
                "priya",
                "Steel float tape in place of the coated one",
                "The coating of the float tape wears off at the pulley and clogs the encoder.\nThe steel tape is heavier; float and counterweight follow.",
                lines);
        aftermath.counts(at.plus(Duration.ofHours(2)), "priya", order, "SERIAL", "0131");
        aftermath.oldFloats(at.plus(Duration.ofHours(3)), order);
        hands.startOrder(at.plus(Duration.ofHours(20)), "oluwaseun", order);
        rework(at.plus(Duration.ofDays(1)), "priya", "2010", "Wall 3", "wall 3");
        rework(at.plus(Duration.ofDays(2)), "tomasz", "2020", "Filled with 0.12 kg more", "0.12 kg heavier");
        rework(at.plus(Duration.ofDays(3)), "tomasz", "2030", "Seat 0.2 deeper", "pulley seat 0.2 deeper");
        long board = hands.board(at.plus(Duration.ofDays(6)), "priya", order, "All three fit on the test rig.");
        hands.answer(at.plus(Duration.ofDays(7)), "hedda", board, Decision.SIGNED, "");
        hands.answer(
                at.plus(Duration.ofDays(8)),
                "oluwaseun",
                board,
                Decision.REMARKED,
                "Stock of the old float is used up on LS18.");
        hands.carryOut(at.plus(Duration.ofDays(8)).plus(Duration.ofMinutes(20)), "oluwaseun", order);
        say();
    }

    /** An order in work over five documents: one line is ready, one is held, one is made by the order, the others are not begun. */
    private void openOrder() {
        Map<Long, String> lines = new LinkedHashMap<>();
        lines.put(doc("1020"), "duplex 2205, pickled as before");
        lines.put(doc("1030"), "duplex 2205; the weld to the cone is alike then");
        lines.put(doc("1010"), "weld seam and note only");
        lines.put(documents.get("spec"), "materials below low water, 2.3");
        long order = hands.order(
                daysAgo(6, 10, 30),
                "tomasz",
                requests.intake(lines),
                "Intake in duplex 2205",
                "Pitting on the intake of berth 3 after fourteen months, 0.4 mm deep (test report TG40-3900).\nDuplex 2205 in place of 316L for what stands below low water.",
                lines);
        aftermath.strainer(daysAgo(6, 10, 40), order);
        aftermath.counts(daysAgo(6, 10, 50), "tomasz", order, "SERIAL", "0152");
        hands.startOrder(daysAgo(5, 9, 10), "oluwaseun", order);
        hands.checkOut(daysAgo(4, 16, 12), "tomasz", doc("1020"), "BENCH-1", "");
        hands.checkIn(
                daysAgo(4, 16, 40),
                "tomasz",
                doc("1020"),
                part("1020")
                        .sheet(
                                "B",
                                part("1020").shape(),
                                List.of("Material 1.4462", "Pickled and passivated"),
                                "2026-11-20"),
                "material changed, weld prep as before",
                false);
        hands.fact(daysAgo(4, 16, 45), "tomasz", doc("1020"), "material", "1.4462");
        hands.checkOut(daysAgo(1, 8, 35), "tomasz", doc("1030"), "BENCH-1", "duplex");
        aftermath.oldIntakes(order);
        aftermath.jobs(order);
        aftermath.lug(order);
        say();
    }

    /** What is being signed: one waits for the head of design, one for the checker, one is overdue. */
    private void reviews() {
        long gland = hands.send(
                daysAgo(3, 11, 40), "priya", "Glands are M6 now, holes follow. Note corrected.", doc("3030"));
        long leader = hands.remark(
                daysAgo(1, 15, 2),
                "hedda",
                doc("3030"),
                10,
                Tool.ARROW_NOTE,
                Remark.Kind.NOTE,
                "End the leader nearer to the hole",
                217,
                220,
                240,
                196);
        hands.reply(daysAgo(1, 16, 20), "priya", doc("3030"), leader, "With the next revision.");
        hands.remark(
                daysAgo(1, 15, 6),
                "hedda",
                doc("3030"),
                10,
                Tool.SIZE,
                Remark.Kind.QUESTION,
                "Enough for the cover's rim?",
                217.1,
                218.7,
                230,
                218.7,
                224,
                246);
        hands.answer(
                daysAgo(1, 15, 10),
                "hedda",
                gland,
                Decision.REMARKED,
                "Pattern agrees with the housing. The leader of 4x 6.6 could end nearer to its hole; not worth a version.");
        hands.remark(
                daysAgo(0, 8, 50),
                "marit",
                doc("3030"),
                10,
                Tool.HIGHLIGHT,
                Remark.Kind.QUESTION,
                "After which standard?",
                31,
                49,
                88,
                54);
        hands.send(
                daysAgo(7, 14, 5),
                "priya",
                "The cradle for the order of the panels, and the base plate with the anchors of the quay.",
                doc("4040"),
                doc("4010"));
        hands.start(daysAgo(4, 9, 5), "tomasz", doc("2040"), "groove for the circlip 1.1 wide", true);
        hands.checkIn(
                daysAgo(2, 15, 15),
                "tomasz",
                doc("2040"),
                part("2040").sheet("B", part("2040").shape(), List.of("Groove 1.1 H13 for circlip"), "2026-11-15"),
                "groove 1.1 H13",
                false);
        hands.send(daysAgo(1, 16, 20), "tomasz", "The circlip of the new supplier is 1.0 thick.", doc("2040"));
        say();
    }

    private void pipeClamp() {
        long clamp = doc("1040");
        hands.start(daysAgo(6, 9, 15), "tomasz", clamp, "slot in place of a hole, for adjusting", true);
        hands.checkIn(
                daysAgo(4, 17, 5),
                "tomasz",
                clamp,
                part("1040")
                        .sheet(
                                "B",
                                new Sheets.Shape.Plate(230, 60, 8, 6, 0, 9, 14),
                                List.of("Slot 9 x 16"),
                                "2026-11-20"),
                "longer by 10 for the slot",
                true);
        hands.checkIn(
                daysAgo(1, 14, 25),
                "priya",
                clamp,
                part("1040")
                        .sheet(
                                "B",
                                new Sheets.Shape.Plate(232, 60, 8, 6, 0, 9, 14),
                                List.of("Slot 9 x 18"),
                                "2026-11-23"),
                "slot 2 longer, needed for berth 3",
                false);
        hands.ask(daysAgo(1, 14, 30), "priya", clamp, "the fit test showed 2 mm more is needed");
        say();
    }

    private void basePlate() {
        long base = doc("4010");
        Part p = part("4010");
        hands.start(monthsAgo(3, 1), "tomasz", base, "hole pattern of the new quay anchors", true);
        double[] insets = {50, 52, 30};
        String[] said = {"anchors on 300", "anchors on 296, measured at the quay", "anchors on 340 tried"};
        for (int i = 0; i < insets.length; i++) {
            hands.checkIn(
                    monthsAgo(3, 20 + 24 * i),
                    "tomasz",
                    base,
                    p.sheet(
                            "B",
                            new Sheets.Shape.Plate(400, 400, 15, 20, 120, 22, insets[i]),
                            List.of("Hot-dip galvanised to ISO 1461"),
                            "2026-08-2" + i),
                    said[i],
                    i < insets.length - 1);
        }
        hands.reinstate(monthsAgo(3, 100), "tomasz", base, 4, "340 collides with the gussets; back to 296");
        hands.checkOut(daysAgo(12, 8, 50), "tomasz", base, "BENCH-1", "grout holes");
        hands.checkIn(
                daysAgo(12, 13, 15),
                "tomasz",
                base,
                p.sheet(
                        "B",
                        new Sheets.Shape.Plate(400, 400, 15, 20, 124, 22, 52),
                        List.of("Two grout holes", "Hot-dip galvanised to ISO 1461"),
                        "2026-11-12"),
                "grout holes added",
                false);
        say();
    }

    private void encoderHead() {
        long housing = doc("3010");
        hands.start(monthsAgo(1, 2), "priya", housing, "boss for the earth stud", true);
        hands.checkIn(
                monthsAgo(1, 28),
                "priya",
                housing,
                part("3010")
                        .sheet(
                                "B",
                                part("3010").shape(),
                                List.of("Earth stud M6 beside the lower left hole", "Pickled and passivated"),
                                "2026-10-25"),
                "earth stud added",
                false);
        hands.release(daysAgo(26, 10, 20), "oluwaseun", housing);
        say();
    }
}
