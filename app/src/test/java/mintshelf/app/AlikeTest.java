package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.search.FindAlike;
import mintshelf.app.use.search.ReadWords;
import mintshelf.app.use.search.Search;
import org.junit.jupiter.api.Test;

/** Drawings are found by what is drawn like theirs, and papers by what they say. */
class AlikeTest {
    private final Server server = Server.shared();
    private final long shelf = server.shelf();

    /** A plate with holes about a bore; sizes times {@code by}, at a place of its own. */
    static byte[] plate(double by, double x, int holes) {
        StringBuilder out = new StringBuilder("  0\nSECTION\n  2\nENTITIES\n");
        double[][] corners = {{0, 0}, {83, 0}, {83, 31}, {57, 31}, {57, 47}, {0, 47}};
        for (int i = 0; i < corners.length; i++) {
            double[] a = corners[i];
            double[] b = corners[(i + 1) % corners.length];
            out.append("  0\nLINE\n  8\n0\n 10\n" + (x + by * a[0]) + "\n 20\n" + by * a[1] + "\n 11\n"
                    + (x + by * b[0]) + "\n 21\n" + by * b[1] + "\n");
        }
        circle(out, x + by * 31, by * 23, by * 9);
        for (int i = 0; i < holes; i++) {
            double t = 2 * Math.PI * i / holes;
            circle(out, x + by * (31 + 16 * Math.cos(t)), by * (23 + 16 * Math.sin(t)), by * 2.2);
        }
        // A sheet round it, so that nothing of it is the frame.
        out.append("  0\nPOINT\n  8\n0\n 10\n-400\n 20\n-400\n  0\nPOINT\n  8\n0\n 10\n900\n 20\n900\n");
        return out.append("  0\nENDSEC\n  0\nEOF\n999\n" + Server.key() + "\n")
                .toString()
                .getBytes(StandardCharsets.US_ASCII);
    }

    private static void circle(StringBuilder out, double x, double y, double r) {
        out.append("  0\nCIRCLE\n  8\n0\n 10\n" + x + "\n 20\n" + y + "\n 40\n" + r + "\n");
    }

    private long file(String name, byte[] file) {
        return server.file("priya", shelf, Server.PLAIN, name + " " + shelf + ".dxf", file, false);
    }

    private List<Long> like(String login, long item) {
        server.bean(ReadWords.class).run();
        return server.bean(FindAlike.class).like(server.actor(login), item).likes().stream()
                .map(l -> l.seen().spine().id())
                .toList();
    }

    @Test
    void aDrawingOfTheSameShapeIsFoundWhereverItLiesAndHoweverLargeItIs() {
        long plate = file("Plate", plate(1, 0, 7));
        long moved = file("Moved", plate(1, 211, 7));
        long larger = file("Larger", plate(2.5, 10, 7));
        long other = file("Other", Review.sheet(Server.key()));
        List<Long> found = like("priya", plate);
        assertThat(found).startsWith(moved).contains(larger).doesNotContain(other, plate);
        assertThat(server.bean(FindAlike.class)
                        .like(server.actor("priya"), plate)
                        .likes()
                        .get(0)
                        .says())
                .contains("same hole pattern", "same sizes");
        String page =
                Web.as(server, "priya").get("/documents/" + plate + "/like").body();
        assertThat(page)
                .contains("same hole pattern, same outline, other sizes")
                .contains("Compare");
    }

    @Test
    void aReaderFindsWhatIsOutAsItIsOut() {
        long plate = file("Out", plate(1, 0, 5));
        long draft = file("Draft", plate(1, 100, 5));
        server.release("priya", plate);
        assertThat(like("rafael", plate)).doesNotContain(draft);
        server.release("priya", draft);
        assertThat(like("rafael", plate)).contains(draft);
        // What is being made of it is not compared for a reader.
        server.bean(StartRevisions.class).start(server.actor("priya"), List.of(draft), Server.key(), "why", "", true);
        server.checkIn("priya", draft, Review.sheet(Server.key()), false);
        assertThat(like("rafael", plate)).contains(draft);
        assertThat(like("priya", plate)).doesNotContain(draft);
    }

    @Test
    void whatIsNoDrawingIsComparedByItsTitle() {
        long one = server.file("priya", shelf, "quorvil report.txt", "one" + shelf, false);
        long two = server.file("priya", shelf, "second quorvil.txt", "two" + shelf, false);
        assertThat(like("priya", one)).contains(two);
    }

    @Test
    void officeDocumentsPdfsAndModelsAreFoundByTheirWords() throws IOException {
        ByteArrayOutputStream docx = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(docx)) {
            zip.putNextEntry(new ZipEntry("[Content_Types].xml"));
            zip.putNextEntry(new ZipEntry("word/document.xml"));
            zip.write(("<d><p>brackwen clause " + Server.key() + "</p></d>").getBytes(StandardCharsets.UTF_8));
        }
        server.file("priya", shelf, Server.PLAIN, "terms.docx", docx.toByteArray(), false);
        server.file("priya", shelf, Server.PLAIN, "model.stp", StructureTest.assembly(Server.key()), false);
        server.file(
                "priya",
                shelf,
                Server.PLAIN,
                "picture.svg",
                ("<svg xmlns='http://www.w3.org/2000/svg'><text>glimmor " + shelf + "</text></svg>")
                        .getBytes(StandardCharsets.UTF_8),
                false);
        String mail =
                "Received: from harbour\r\nFrom: Ola <ola@ebbcote.example>\r\nSubject: =?UTF-8?Q?Spindle_qu=C3=B6rrel?=\r\n"
                        + "MIME-Version: 1.0\r\nContent-Type: multipart/mixed; boundary=\"x\"\r\n\r\n--x\r\n"
                        + "Content-Type: text/plain; charset=utf-8\r\nContent-Transfer-Encoding: base64\r\n\r\n"
                        + Base64.getMimeEncoder()
                                .encodeToString(("the brimfol coat peels " + shelf).getBytes(StandardCharsets.UTF_8))
                        + "\r\n--x\r\nContent-Type: image/png; name=\"berth.png\"\r\n"
                        + "Content-Disposition: attachment; filename=\"berth-seven.png\"\r\n\r\nxx\r\n--x--\r\n";
        server.file("priya", shelf, Server.PLAIN, "complaint.eml", mail.getBytes(StandardCharsets.UTF_8), false);
        server.bean(ReadWords.class).run();
        assertThat(says("brimfol")).containsExactly("says “the brimfol coat peels " + shelf + "”");
        assertThat(says("quorrel")).as("accents or none").hasSize(1);
        assertThat(says("\"berth seven\"")).hasSize(1);
        assertThat(says("brackwen")).hasSize(1).first().asString().startsWith("says “brackwen clause");
        assertThat(says("glimmor " + shelf)).containsExactly("says “glimmor " + shelf + "”");
    }

    private List<String> says(String q) {
        return server
                .bean(Search.class)
                .find(server.actor("priya"), Search.Wish.first(q + " on:\"" + server.shelfName(shelf) + "\"", 20))
                .hits()
                .stream()
                .map(Search.Hit::says)
                .toList();
    }
}
