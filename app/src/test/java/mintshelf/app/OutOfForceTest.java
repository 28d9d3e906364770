package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.InputStream;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import mintshelf.app.store.output.OutputStore;
import mintshelf.app.use.output.MakeOutputs;
import mintshelf.app.use.revision.StartRevisions;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;

/** What is replaced or withdrawn says so wherever it is opened, and what took its place to whoever may know it. */
class OutOfForceTest {
    private final Server server = Server.shared();
    private final Review review = new Review(server);
    private final long shelf = server.shelf();

    private long released(String name) {
        long item = review.drawing(shelf, name + " " + Server.key() + ".dxf");
        review.release(item);
        return item;
    }

    private int releasedVersion(long item) {
        return server.document(item).head().number();
    }

    private void makePages() {
        while (server.bean(MakeOutputs.class).makeNext()) {
            // until all pages are made
        }
    }

    private String number(long item) {
        return server.document(item).number();
    }

    private String page(String login, String address) {
        return Web.as(server, login).get(address).body();
    }

    private String pdf(String login, long item, int version) throws Exception {
        try (InputStream body = Web.as(server, login).stream("/documents/" + item + "/versions/" + version + "/pdf");
                PDDocument document = Loader.loadPDF(body.readAllBytes())) {
            return new PDFTextStripper().getText(document);
        }
    }

    private String withdraw(String login, long item, String why, String successor) {
        Map<String, String> form = new HashMap<>(Map.of(
                "actKey", Server.key(), "expected", "" + releasedVersion(item), "remark", why, "successor", successor));
        return Web.as(server, login)
                .post("/documents/" + item + "/moves/withdraw", form)
                .body();
    }

    @Test
    void aReplacedSheetNamesWhatIsInForceInViewAndInItsPdf() throws Exception {
        long item = released("replaced");
        int a = releasedVersion(item);
        makePages();
        String address = "/documents/" + item + "?version=" + a;
        assertThat(page("rafael", address)).doesNotContain("margin-mark");
        assertThat(pdf("rafael", item, a)).doesNotContain("Replaced");
        var kept = server.bean(OutputStore.class);
        server.bean(StartRevisions.class).start(server.actor("priya"), List.of(item), Server.key(), "B", "", true);
        assertThat(page("priya", address)).as("B is on its way").doesNotContain("margin-mark");
        server.checkIn("priya", item, Review.sheet("B " + Server.key()), false);
        review.release(item);
        makePages();
        for (String login : List.of("rafael", "hedda")) {
            assertThat(page(login, address))
                    .contains("margin-mark", ">Replaced by B<", "Fetch the PDF of version " + a + ", marked");
            assertThat(page(login, "/documents/" + item)).doesNotContain("margin-mark");
            assertThat(page(login, "/documents/" + item + "/versions/" + a + "/drawn"))
                    .contains(">Replaced by B<");
            assertThat(pdf(login, item, a)).contains("Replaced by B");
            assertThat(page(login, "/documents/" + item + "/versions/" + releasedVersion(item) + "/compare?old=" + a))
                    .containsOnlyOnce("Replaced by B");
            assertThat(page(login, "/documents/" + item + "/versions/" + a + "/sheet"))
                    .contains(">Replaced by B<");
            assertThat(page(login, "/documents/" + item + "/versions/" + a + "/checks"))
                    .contains(">Replaced by B<");
            assertThat(pdf(login, item, releasedVersion(item))).doesNotContain("Replaced");
        }
        long version = server.db()
                .fetchOne(
                        "select id from version where line = (select id from line where item = ? limit 1) and number = ?",
                        item,
                        a)
                .get(0, Long.class);
        assertThat(kept.of(version)).as("what is kept stays as it was made").isNotEmpty();
        byte[] stored = server.bytes(kept.of(version).get(0).content().orElseThrow());
        try (PDDocument document = Loader.loadPDF(stored)) {
            assertThat(new PDFTextStripper().getText(document)).doesNotContain("Replaced");
        }
    }

    @Test
    void whoWithdrawsSeesWhereItIsUsedAndNamesWhatTakesItsPlace() throws Exception {
        long item = released("gone");
        long other = released("instead");
        int version = releasedVersion(item);
        makePages();
        assertThat(page("ines", "/documents/" + item + "/moves/withdraw"))
                .contains("Nothing that you see uses it.", "In its place");
        assertThat(withdraw("ines", item, "cast now", "NO-SUCH-" + Server.key().substring(0, 6)))
                .contains("No other document that you see has the number");
        assertThat(withdraw("ines", item, "cast now", number(item))).contains("No other document that you see");
        assertThat(withdraw("ines", item, "", number(other))).contains("stays where it is");
        assertThat(server.document(item).released()).isPresent();
        withdraw("ines", item, "cast now", number(other).toLowerCase(Locale.ROOT));
        String says = "Withdrawn; " + number(other) + " in its place";
        assertThat(server.document(item).released()).isEmpty();
        for (String login : List.of("ines", "priya", "rafael")) {
            assertThat(page(login, "/documents/" + item)).contains(says, "href=\"/documents/" + other + "\"");
            assertThat(pdf(login, item, version)).contains(says);
        }
        assertThat(page("ines", "/documents/" + item + "/record"))
                .contains("cast now; " + number(other) + " in its place");
        // What is gone itself takes nobody's place.
        assertThat(withdraw("ines", other, "too", number(item))).contains("is not to be worked from itself");
        assertThat(server.document(other).released()).isPresent();
    }

    /** Only what is withdrawn has something in its place, whatever a form sends along. */
    @Test
    void anotherMoveNamesNoSuccessor() {
        long item = server.file("priya", shelf, "straight " + Server.key() + ".txt", "one", false);
        long other = released("bystander");
        Map<String, String> form =
                Map.of("actKey", Server.key(), "expected", "1", "remark", "out", "successor", number(other));
        assertThat(Web.as(server, "priya")
                        .post("/documents/" + item + "/moves/release", form)
                        .statusCode())
                .isEqualTo(302);
        assertThat(server.document(item).released()).isPresent();
        assertThat(page("ines", "/documents/" + item + "/record")).doesNotContain("in its place");
    }

    /** A reader learns no number that they may not see. */
    @Test
    void aSuccessorThatIsNotOutYetIsNamedToThoseWhoSeeItAlone() {
        long item = released("old");
        long coming = review.drawing(shelf, "coming " + Server.key() + ".dxf");
        withdraw("ines", item, "the new one comes", number(coming));
        assertThat(page("hedda", "/documents/" + item)).contains(number(coming) + " in its place");
        assertThat(page("rafael", "/documents/" + item)).contains(">Withdrawn<").doesNotContain(number(coming));
        review.release(coming);
        assertThat(page("rafael", "/documents/" + item)).contains(number(coming) + " in its place");
    }
}
