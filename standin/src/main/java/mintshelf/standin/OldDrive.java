package mintshelf.standin;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/**
 * A made-up old drive, in the place of a company's own: drawings in several revisions, papers, leftovers of programs, doubles, and a
 * table that was kept by hand for years and has {@link #FAULTS} faults.
 */
public final class OldDrive {
    /** Faults of the table: 35 in lines of files, five lines of files that are not there. */
    public static final int FAULTS = 40;

    private static final String[] PARTS = {
        "Bracket",
        "Clamp",
        "Gland plate",
        "Mooring eye",
        "Cover",
        "Sensor tube",
        "Spacer",
        "Hinge",
        "Ballast ring",
        "Cable guide"
    };
    private static final String[] FOLDERS = {"buoy", "gauge", "mast", "workshop/jigs"};

    private final int files;
    private final Map<String, byte[]> contents = new LinkedHashMap<>();
    private final List<String> table = new ArrayList<>();

    /** @param files how many there are about, at least 200 */
    public OldDrive(int files) {
        this.files = files;
        make();
    }

    /** The files by their paths. */
    public Map<String, byte[]> files() {
        return contents;
    }

    /** The table as CSV. */
    public byte[] table() {
        return text(table.stream().collect(Collectors.joining("\r\n", "", "\r\n")));
    }

    /** The table as somebody mended it. */
    public byte[] mended() {
        return text(table.stream()
                .filter(line -> !line.startsWith("lost/"))
                .map(line -> line.replace("3/14/19", "2019-03-14")
                        .replace(",somehow,", ",released,")
                        .replace(",17?,", ",A,")
                        .replace(",etching,", ",drawing,")
                        .replace(",2031-01-01,", ",2021-01-01,")
                        .replace(",1998-02-02,", ",2020-02-02,"))
                .collect(Collectors.joining("\r\n", "", "\r\n")));
    }

    /** Writes the drive into a folder, the table beside it. */
    public void write(Path folder) throws IOException {
        for (Map.Entry<String, byte[]> file : contents.entrySet()) {
            Path to = folder.resolve(file.getKey());
            Files.createDirectories(to.getParent());
            Files.write(to, file.getValue());
        }
        Files.write(folder.resolveSibling(folder.getFileName() + " table.csv"), table());
        Files.write(folder.resolveSibling(folder.getFileName() + " table, mended.csv"), mended());
    }

    /** Writes it as an archive. */
    public void zip(OutputStream to) throws IOException {
        try (ZipOutputStream zip = new ZipOutputStream(to, StandardCharsets.UTF_8)) {
            zip.putNextEntry(new ZipEntry("an empty folder/"));
            for (Map.Entry<String, byte[]> file : contents.entrySet()) {
                zip.putNextEntry(new ZipEntry(file.getKey()));
                zip.write(file.getValue());
            }
        }
    }

    private static byte[] text(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private void make() {
        table.add("file,number,title,kind,revision,stage,date,signers,former numbers,material");
        int fault = 0;
        for (int i = 0; contents.size() < files - 20; i++) {
            String number = "OD-" + (10_000 + i);
            String title = PARTS[i % PARTS.length] + " " + (char) ('a' + i / PARTS.length % 26);
            String folder = FOLDERS[i % FOLDERS.length];
            int revisions = 1 + i % 3;
            // Of some the first revisions are lost: only the table on their sheets tells of them.
            boolean tabled = i % 4 == 2 && i % 10 != 0;
            for (int r = 0; r < revisions; r++) {
                char label = (char) ((tabled ? 'C' : 'A') + r);
                boolean last = r == revisions - 1;
                String path = folder + (last ? "/" : "/old/") + number + "_" + label + ".dxf";
                contents.put(
                        path,
                        tabled
                                ? tabled(number, title, label, i + r)
                                : dxf(
                                        number + " " + label,
                                        i + r,
                                        last && i % 10 == 9 ? "OD-" + (10_000 + i - 9) + "_A.dxf" : ""));
                String kind = "drawing";
                String shown = String.valueOf(label);
                String stage = "";
                String date = (2012 + r * 3) + "-0" + (1 + i % 9) + "-15";
                // One fault in a line, six sorts of them in turn, in documents of their own.
                if (last && fault < FAULTS - 5 && i % 4 == 1) {
                    switch (fault % 6) {
                        case 0 -> date = "3/14/19";
                        case 1 -> stage = "somehow";
                        case 2 -> shown = revisions == 1 ? "17?" : shown;
                        case 3 -> kind = "etching";
                        case 4 -> date = "2031-01-01";
                        default -> date = revisions > 1 ? "1998-02-02" : "3/14/19";
                    }
                    if (fault % 6 == 2 && revisions > 1) stage = "somehow";
                    fault++;
                }
                table.add(String.join(
                        ",",
                        path,
                        number,
                        title,
                        kind,
                        shown,
                        stage,
                        date,
                        "H. Voss; M. Lind",
                        last && i % 5 == 0 ? "K-" + (400_000 + i) : "",
                        "1.4404"));
            }
            if (i % 8 == 0)
                contents.put(folder + "/" + number + " notes.txt", text("Notes of " + title + ", " + number));
        }
        for (int i = 0; i < 5; i++) {
            table.add("lost/OD-9000" + i + ".dxf,OD-9000" + i + ",Lost one,drawing,A,released,2014-01-01,,,");
        }
        contents.put("Thumbs.db", text("thumbs"));
        contents.put("workshop/~$list.docx", text("lock"));
        contents.put("workshop/empty.dxf", new byte[0]);
        contents.put("workshop/copy of a plate.dxf", dxf("OD-10000 A", 0, ""));
        contents.put("mast/what is this.q7z", new byte[] {0, 1, 2, 3, 4, 5, 6, 7});
    }

    private static byte[] tabled(String number, String title, char label, int seed) {
        OldSheet sheet = new OldSheet(number, title, String.valueOf(label), seed);
        for (char c = 'A'; c <= label; c++) {
            String says = c == 'A' ? "First issue" : "Hole " + (4 + c - 'A') + ".5 was " + (3 + c - 'A') + ".5";
            sheet.revised(String.valueOf(c), says, 2003 + (c - 'A') * 2 + "-05-1" + (c - 'A'), "P. Kern", "H. Voss");
        }
        return sheet.bytes();
    }

    /** A small drawing after the DXF reference: lines and a text, and a drawing inside where one is named. */
    private static byte[] dxf(String says, int seed, String inside) {
        StringBuilder d = new StringBuilder("0\nSECTION\n2\nHEADER\n9\n$ACADVER\n1\nAC1015\n0\nENDSEC\n");
        if (!inside.isEmpty()) {
            d.append("0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n2\nPART\n70\n4\n10\n0\n20\n0\n1\n")
                    .append(inside)
                    .append("\n0\nENDBLK\n0\nENDSEC\n");
        }
        d.append("0\nSECTION\n2\nENTITIES\n");
        int width = 60 + seed % 90;
        int height = 30 + seed % 50;
        int[][] corners = {{0, 0}, {width, 0}, {width, height}, {0, height}};
        for (int c = 0; c < 4; c++) {
            int[] a = corners[c];
            int[] b = corners[(c + 1) % 4];
            d.append("0\nLINE\n8\n0\n10\n")
                    .append(a[0])
                    .append("\n20\n")
                    .append(a[1])
                    .append("\n11\n")
                    .append(b[0])
                    .append("\n21\n")
                    .append(b[1])
                    .append('\n');
        }
        d.append("0\nCIRCLE\n8\n0\n10\n")
                .append(width / 2)
                .append("\n20\n")
                .append(height / 2)
                .append("\n40\n")
                .append(4 + seed % 9)
                .append('\n');
        d.append("0\nTEXT\n8\n0\n10\n2\n20\n")
                .append(height + 4)
                .append("\n40\n4\n1\n")
                .append(says)
                .append('\n');
        if (!inside.isEmpty()) d.append("0\nINSERT\n8\n0\n2\nPART\n10\n0\n20\n0\n");
        return text(d.append("0\nENDSEC\n0\nEOF\n").toString());
    }
}
