package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.store.record.RecordQuestionStore.Place;
import mintshelf.app.store.record.RecordQuestionStore.Question;
import mintshelf.app.store.record.RecordQuestionStore.Spot;
import mintshelf.app.store.record.RecordStore.Shown;
import mintshelf.app.use.desk.Tokens;
import mintshelf.app.use.record.ReadRecord;
import mintshelf.app.use.record.VerifyExport;
import mintshelf.core.audit.RecordChain;
import mintshelf.core.base.ContentHash;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The record is asked by who, what, when, document and words; given out; and what was given out is laid beside it later. */
class RecordTest extends InAHouse {
    private static final JsonMapper JSON = new JsonMapper();
    private final ReadRecord record = server.bean(ReadRecord.class);

    private List<Shown> asked(Question question) {
        return record.ofHouse(server.actor("ines"), question, Optional.empty(), 500);
    }

    private static Question who(String who) {
        return new Question(who, "", "", Optional.empty(), Optional.empty(), "");
    }

    @Test
    void itIsAskedByWhoWhatWhenDocumentAndWords() {
        long item = server.file("priya", server.shelf(), "asked " + mark + ".txt", mark, true);
        String number = server.document(item).number();
        server.checkIn("priya", item, "again " + mark, true);
        assertThat(asked(who("Priya")))
                .isNotEmpty()
                .allMatch(s -> s.personName().equals("Priya Malhan"));
        assertThat(asked(who("priya"))).as("the login says it too").isNotEmpty();
        assertThat(asked(who("nobody of this name"))).isEmpty();
        List<Shown> ofDocument =
                asked(new Question("", number.toLowerCase(Locale.ROOT), "", Optional.empty(), Optional.empty(), ""));
        assertThat(ofDocument).isNotEmpty().allMatch(s -> s.number().equals(number));
        Question versions = new Question("", number, "version.", Optional.empty(), Optional.empty(), "");
        assertThat(asked(versions)).isNotEmpty().allMatch(s -> s.entry().act().startsWith("version."));
        Shown last = ofDocument.get(0);
        Question before = new Question(
                "", number, "", Optional.empty(), Optional.of(last.entry().at()), "");
        assertThat(asked(before)).doesNotContain(last).hasSizeLessThan(ofDocument.size());
        Question from = new Question("", number, "", Optional.of(last.entry().at()), Optional.empty(), "");
        assertThat(asked(from)).contains(last);
        Question words = new Question("", "", "", Optional.empty(), Optional.empty(), "100% " + mark);
        assertThat(asked(words)).as("letters of patterns are letters").isEmpty();
    }

    /** Sixty entries of one moment are paged without one twice or none at all. */
    @Test
    void pagesFollowEachOtherWhateverTheMoment() {
        for (int i = 0; i < 4; i++) server.file("priya", server.shelf(), i + mark + ".txt", i + mark, true);
        Set<Place> seen = new HashSet<>();
        int rows = 0;
        Optional<Spot> spot = Optional.empty();
        while (true) {
            List<Shown> page = record.ofHouse(server.actor("ines"), Question.ALL, spot, 3);
            if (page.isEmpty()) break;
            rows += page.size();
            page.forEach(s -> seen.add(new Place(s.entry().stream(), s.entry().seq())));
            spot = Optional.of(Spot.of(page.get(page.size() - 1)));
        }
        assertThat(seen).hasSize(rows);
        assertThat(server.db().fetchCount(org.jooq.impl.DSL.table("record_entry")))
                .isEqualTo(rows);
    }

    @Test
    void thePageAsksSaysAndKeepsWhatWasAsked() {
        long item = server.file("priya", server.shelf(), "page " + mark + ".txt", mark, true);
        String number = server.document(item).number();
        Web ines = Web.as(server, "ines");
        String page = ines.get("/record?document=" + Web.encode(number) + "&who=Priya&acts=version.")
                .body();
        assertThat(page).contains(number, "Priya Malhan", "value=\"Priya\"", "as=csv", "acts=version.");
        assertThat(ines.get("/record?words=" + Web.encode("<script>" + mark)).body())
                .contains("Nothing of that sort")
                .doesNotContain("<script>" + mark);
        assertThat(ines.get("/record?from=yesterday").body()).contains("“yesterday” is no day");
        assertThat(ines.get("/record?from=-999999999-01-01").body()).contains("is no day");
        assertThat(ines.get("/record?before=never").statusCode()).isEqualTo(404);
        assertThat(ines.get("/record/export?as=pdf").statusCode()).isEqualTo(404);
        assertThat(Web.as(server, "priya").get("/record/export?as=csv").statusCode())
                .isEqualTo(403);
    }

    private Path export(String as, String question) throws IOException {
        String body =
                Web.as(server, "ines").get("/record/export?as=" + as + question).body();
        return Files.writeString(Files.createTempDirectory("mint-shelf-record-").resolve("record." + as), body);
    }

    private VerifyExport.Findings verify(Path export) throws IOException {
        return server.bean(VerifyExport.class).verify(export);
    }

    @Test
    void whatWasGivenOutIsTheSameLater() throws IOException {
        server.file("priya", server.shelf(), "out " + mark + ".txt", mark, true);
        Path csv = export("csv", "");
        Path json = export("json", "");
        long rows = verify(csv).entries();
        assertThat(rows).isGreaterThan(10);
        assertThat(verify(csv).says()).endsWith("nothing was rewritten since");
        assertThat(verify(json).wrong()).isZero();
        assertThat(verify(json).entries())
                .as("that it was given out stands there too")
                .isGreaterThan(rows);
        JsonNode first = JSON.readTree(Files.readString(json)).get(0);
        assertThat(first.path("hash").asString()).hasSize(64);
        assertThat(asked(new Question("", "", "record.", Optional.empty(), Optional.empty(), "")))
                .isNotEmpty();
        Path some = export("csv", "&acts=version.&who=Priya");
        assertThat(verify(some).entries()).isLessThan(rows);
        assertThat(verify(some).wrong()).isZero();
    }

    @Test
    void whatWasChangedInTheExportOrInTheRecordIsSaid() throws IOException {
        long item = server.file("priya", server.shelf(), "changed " + mark + ".txt", mark, true);
        Path csv = export("csv", "&document=" + Web.encode(server.document(item).number()));
        String text = Files.readString(csv);
        Path forged = Files.writeString(csv.resolveSibling("forged.csv"), text.replaceFirst("filed", "stole"));
        assertThat(text).contains("filed");
        assertThat(verify(forged).problems()).singleElement().asString().contains("was changed in the export");
        // Whoever rewrites the database itself, with a chain that is whole again.
        server.db().execute("drop trigger record_no_change");
        server.db().execute("drop trigger record_no_delete");
        server.db()
                .execute(
                        "update record_entry set hash = ? where stream = ? and seq = 1",
                        ContentHash.compute(new byte[] {1}).bytes(),
                        item);
        assertThat(verify(csv).problems()).singleElement().asString().contains("is another one in the record now");
        server.db().execute("delete from record_entry where stream = ? and seq = 1", item);
        assertThat(verify(csv).problems()).singleElement().asString().contains("is not in the record any more");
        List<String> broken = new ArrayList<>();
        for (String none : List.of("", "a,b\r\n1,2\r\n", "stream,seq\r\nx,y\r\n")) {
            Path file = Files.writeString(csv.resolveSibling("none.csv"), none);
            try {
                verify(file);
            } catch (IOException e) {
                broken.add(e.getMessage());
            }
        }
        assertThat(broken).hasSize(2).allMatch(m -> m.startsWith("This is no export"));
    }

    private static HttpResponse<String> program(String token, String path) {
        return new Web(server.origin())
                .send(HttpRequest.newBuilder(URI.create(server.origin() + path))
                        .header("Authorization", "Bearer " + token)
                        .GET());
    }

    /** Programs outside follow the chains by themselves. */
    @Test
    void theInterfaceGivesChainsThatCanBeFollowed() {
        long item = server.file("priya", server.shelf(), "chain " + mark + ".txt", mark, true);
        server.checkIn("priya", item, "more " + mark, false);
        String token = server.bean(Tokens.class).make(server.actor("ines"), "outside", false, 1);
        String after = "";
        ContentHash last = RecordChain.START;
        int followed = 0;
        while (true) {
            JsonNode page = JSON.readTree(
                    program(token, "/api/v1/record?after=" + Web.encode(after)).body());
            if (page.path("entries").isEmpty()) break;
            for (JsonNode e : page.path("entries")) {
                if (e.path("stream").asLong() != item) continue;
                assertThat(e.path("previous").asString()).isEqualTo(last.hex());
                last = ContentHash.ofHex(e.path("hash").asString());
                followed++;
            }
            assertThat(page.path("next").asString()).isNotEqualTo(after);
            after = page.path("next").asString();
        }
        assertThat(followed).isGreaterThan(1);
        assertThat(program(token, "/api/v1/record?after=never").statusCode()).isEqualTo(409);
    }
}
