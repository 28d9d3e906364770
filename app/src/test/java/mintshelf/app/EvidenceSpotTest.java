package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import mintshelf.app.ground.Refused;
import mintshelf.app.use.change.ReadRequests;
import mintshelf.app.use.change.ReadRequests.EvidenceView;
import mintshelf.app.use.change.WriteRequest;
import mintshelf.core.drawing.pdf.Paper;
import org.junit.jupiter.api.Test;

/** Evidence that names a chapter or a page of a paper. */
class EvidenceSpotTest {
    private final Server server = Server.shared();
    private final Review review = new Review(server);
    private final WriteRequest write = server.bean(WriteRequest.class);
    private final long shelf = server.shelf();
    private final long paper = server.file(
            "priya", shelf, "report", "ES" + shelf + "-10 test.pdf", Paper.pdf("Floats", "Pressure " + shelf), false);
    private final String number = server.document(paper).number();

    private long request() {
        long plate = review.drawing(shelf, "plate " + Server.key() + ".dxf");
        review.release(plate);
        return RequestTest.asked(server, "priya", plate);
    }

    private void add(long request, String typed) {
        write.addEvidence(server.actor("priya"), request, Server.key(), typed, "");
    }

    private List<EvidenceView> evidence(String login, long request) {
        return server.bean(ReadRequests.class)
                .request(server.actor(login), request)
                .evidence();
    }

    @Test
    void aChapterIsNamedAndLeadsToItsPage() {
        long request = request();
        add(request, number + " v1 at about press");
        add(request, number + " at page 1");
        add(request, number + " v1");
        // Twice the same place is once; another place of the same version is another one.
        add(request, number + " v1 at About Pressure " + shelf);
        assertThat(evidence("priya", request))
                .extracting(EvidenceView::says)
                .containsExactly("version 1, About Pressure " + shelf + ", page 2", "version 1, page 1", "version 1");
        String href = evidence("priya", request).get(0).href();
        assertThat(href).isEqualTo("/documents/" + paper + "/versions/1/sheet?layout=Page%202");
        assertThat(Web.as(server, "priya").get(href).statusCode()).isEqualTo(200);
        String page = Web.as(server, "priya").get("/requests/" + request).body();
        assertThat(page).contains("version 1, About Pressure " + shelf + ", page 2");
        String kept = Web.as(server, "priya")
                .get("/documents/" + request + "/versions/"
                        + server.document(request).head().number() + "/file")
                .body();
        assertThat(kept).contains("\"page\" : 1").doesNotContain("About Pressure");
    }

    @Test
    void whatIsNoPlaceInAPaperIsRefusedAndNothingChanges() {
        long request = request();
        long text = server.file("priya", shelf, "plain " + shelf + ".txt", "t" + shelf, false);
        for (String typed : List.of(
                number + " v1 at salt",
                number + " v1 at page 3",
                number + " v1 at page 0",
                number + " v1 with v1 at 9 9 9",
                server.document(text).number() + " v1 at page 1")) {
            assertThatThrownBy(() -> add(request, typed))
                    .as(typed)
                    .isInstanceOfSatisfying(
                            Refused.class, r -> assertThat(r.refusal().code()).startsWith("evidence."));
        }
        assertThat(evidence("priya", request)).isEmpty();
    }
}
