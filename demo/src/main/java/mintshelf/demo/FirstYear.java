package mintshelf.demo;

import java.time.Duration;
import java.time.Instant;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalLong;
import mintshelf.app.use.relocate.Folders;
import mintshelf.demo.Parts.Part;
import mintshelf.demo.sheet.Sheets;

/** How the products were filed and went out first. */
final class FirstYear extends Chapter {
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("yyyy-MM-dd", Locale.ROOT);

    FirstYear(Book book) {
        super(book);
    }

    void file(long shelf, Part part) {
        Instant at = monthsAgo(part.months(), book.done % 7);
        OptionalLong folder =
                part.folder().isEmpty() ? OptionalLong.empty() : OptionalLong.of(folders.get(part.folder()));
        String name = part.number().toLowerCase(Locale.ROOT) + "-"
                + part.title().toLowerCase(Locale.ROOT).replace(' ', '-') + ".dxf";
        Map<String, String> facts = part.material().isEmpty() ? Map.of("material", "see parts list") : Map.of();
        documents.put(
                part.number(),
                hands.file(
                        at,
                        part.author(),
                        shelf,
                        folder,
                        name,
                        part.sheet("A", DAY.format(at.atZone(ZONE))),
                        facts,
                        true));
        say();
    }

    /** Nearly all first revisions went out: one more version, then released. */
    void firstRelease(Part part) {
        List<String> never = List.of("TG40-1050", "TG40-1000", "TG40-0000", "TG40-4040");
        long item = documents.get(part.number());
        Instant at = monthsAgo(part.months(), 0).plus(Duration.ofDays(6));
        List<String> said = new ArrayList<>(part.notes());
        said.add("Lot and date code etched beside the number");
        boolean goesOut = !never.contains(part.number());
        hands.checkIn(
                at,
                part.author(),
                item,
                part.sheet("A", part.shape(), said, DAY.format(at.atZone(ZONE))),
                "marking added as the shop asked",
                false);
        say();
        if (goesOut) {
            hands.release(at.plus(Duration.ofDays(9)), "oluwaseun", item);
            say();
        }
    }

    /** The two assemblies that never went out got one more version, saved with what their parts were by then. */
    void linersNoted() {
        for (Part part : List.of(part("1000"), part("0000"))) {
            long item = documents.get(part.number());
            hands.checkOut(daysAgo(20, 10, 5), "priya", item, "BENCH-3", "");
            hands.checkIn(
                    daysAgo(19, 15, 40),
                    "priya",
                    item,
                    part.sheet("A", detailed(part), List.of("Assemble with liners greased"), "2026-10-02"),
                    "liners noted",
                    false);
            say();
        }
    }

    /** The well's sheet places those of clamp and liner, as external references. */
    private static Sheets.Shape detailed(Part part) {
        return part.number().equals("TG40-1000")
                ? Assemblies.WELL.withDetails("tg40-1040-pipe-clamp.dxf", "tg40-1050-clamp-liner.dxf")
                : part.shape();
    }

    void papers(long tg40, long house) {
        documents.put(
                "spec",
                hands.file(
                        monthsAgo(17, 3),
                        "oluwaseun",
                        tg40,
                        OptionalLong.empty(),
                        "TG40-0900 Specification.txt",
                        Papers.specification(),
                        Map.of("subject", "whole station"),
                        false));
        documents.put(
                "report",
                hands.file(
                        daysAgo(30, 13, 10),
                        "oluwaseun",
                        tg40,
                        OptionalLong.of(folders.get("3000 Encoder head")),
                        "TG40-3900 Encoder head test report.txt",
                        Papers.report(),
                        Map.of("subject", "salt spray"),
                        false));
        documents.put(
                "site",
                hands.file(
                        monthsAgo(9, 2),
                        "priya",
                        tg40,
                        OptionalLong.empty(),
                        "TG40-0910 Ebbcote quay berth 3.svg",
                        Papers.site(),
                        Map.of(),
                        false));
        harness(tg40);
        drafting(tg40);
        long guide = hands.file(
                monthsAgo(5, 3),
                "oluwaseun",
                tg40,
                OptionalLong.empty(),
                "TG40-0950 Installation guide.pdf",
                Papers.guide(1),
                Map.of("subject", "whole station"),
                false);
        hands.checkOut(daysAgo(12, 9, 5), "oluwaseun", guide, "", "torque after the pull test");
        hands.checkIn(
                daysAgo(12, 14, 25), "oluwaseun", guide, Papers.guide(2), "anchor nuts 120 Nm, harness added", false);
        documents.put("TG40-0950", guide);
        hands.release(monthsAgo(16, 5), "oluwaseun", documents.get("spec"));
        hands.release(daysAgo(29, 9, 30), "oluwaseun", documents.get("report"));
        for (Sheets.Size size : Sheets.Size.values()) {
            byte[] template = Sheets.draw(
                    new Sheets.Title("", "", "", "", "", "", "", "", ""), new Sheets.Shape.Blank(size), 1, List.of());
            long item = hands.file(
                    monthsAgo(18, 4),
                    "priya",
                    house,
                    OptionalLong.empty(),
                    "Sheet " + size + " template.dxf",
                    template,
                    Map.of(),
                    false);
            hands.release(monthsAgo(18, 6), "priya", item);
        }
    }

    /** What every desk of the shelf is to have: with which lines its sheets are drawn. */
    private void drafting(long shelf) {
        long folder = book.shelves.addFolder(hands.actor("ines"), shelf, OptionalLong.empty(), "Drafting");
        hands.bean(Folders.class).everyDesk(hands.actor("ines"), folder, true);
        long item = hands.file(
                monthsAgo(17, 6),
                "ines",
                shelf,
                OptionalLong.of(folder),
                "TG40-0920 Specification of lines.txt",
                Papers.lines(),
                Map.of("subject", "all sheets"),
                false);
        hands.release(monthsAgo(17, 7), "oluwaseun", item);
    }

    /** What a wiring program draws: nobody reads its file here, so that an exchange drawing lies beside it. */
    private void harness(long shelf) {
        String name = "TG40-3060 Sensor harness";
        OptionalLong folder = OptionalLong.of(folders.get("3000 Encoder head"));
        long item = hands.fileWith(
                monthsAgo(8, 5),
                "tomasz",
                shelf,
                folder,
                name + ".hrn",
                Papers.harness(1),
                name + ".dxf",
                harness("12 x 0.34", "A"));
        hands.checkOut(daysAgo(9, 9, 12), "tomasz", item, "", "screened pair for the level sensor");
        hands.checkIn(daysAgo(8, 15, 40), "tomasz", item, Papers.harness(2), "pair 3 screened", false);
        hands.neutral(daysAgo(8, 15, 48), "tomasz", item, 2, name + ".dxf", harness("11 x 0.34, 1 pair screened", "A"));
        documents.put("TG40-3060", item);
    }

    private static byte[] harness(String wires, String revision) {
        return Sheets.draw(
                new Sheets.Title(
                        "TG40-3060",
                        "Sensor harness",
                        revision,
                        "see parts list",
                        "",
                        "0.21",
                        "1:1",
                        "T. Okrent",
                        "2026-03-30"),
                new Sheets.Shape.Plate(220, 60, 2, 8, 0, 4, 10),
                1,
                List.of("Wires " + wires, "Length 640, both ends crimped", "Test each wire, 500 V"));
    }

    void staffReader(long shelf) {
        Part reader = new Part(
                "LS18-1000", "Staff reader", "", "tomasz", 8, "", "", "3.2", "1:2", 0.5, Assemblies.READER, List.of());
        Part clampRail = new Part(
                "LS18-1010",
                "Clamp rail",
                "",
                "tomasz",
                8,
                "316L",
                "",
                "0.8",
                "1:2",
                0.5,
                part("4030").shape(),
                List.of());
        for (Part p : List.of(reader, clampRail)) {
            Instant at = monthsAgo(8, 1);
            long item = hands.file(
                    at,
                    p.author(),
                    shelf,
                    OptionalLong.empty(),
                    p.number().toLowerCase(Locale.ROOT) + ".dxf",
                    p.sheet("A", DAY.format(at.atZone(ZONE))),
                    Map.of("material", p.material().isEmpty() ? "see parts list" : p.material()),
                    false);
            hands.release(at.plus(Duration.ofDays(4)), "oluwaseun", item);
            say();
        }
    }
}
