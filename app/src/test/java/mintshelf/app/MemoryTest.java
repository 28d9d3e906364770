package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import mintshelf.app.store.filing.FilingStore;
import mintshelf.app.use.filing.FilingSheets;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

/** What is sent to exhaust a server is answered in words, and everybody else is served meanwhile. */
class MemoryTest {
    /** With the share of 512 MB for drawings, whatever the machine of the tests has. */
    private static final Server SERVER = Server.with("mint-shelf.reading-memory", String.valueOf(512L << 20));

    @AfterAll
    static void stop() {
        SERVER.stop();
    }

    /** Twenty lines as a block, set a hundred times a hundred times, that set again ten times: eleven kilobytes, a million lines. */
    private static byte[] bomb(int seed) {
        StringBuilder tags = new StringBuilder("0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n2\nA\n10\n0\n20\n0\n");
        for (int i = 0; i < 200; i++) {
            tags.append("0\nLINE\n10\n")
                    .append(i)
                    .append("\n20\n0\n11\n")
                    .append(i)
                    .append(".5\n21\n")
                    .append(seed)
                    .append('\n');
        }
        tags.append("0\nENDBLK\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n");
        for (int i = 0; i < 24; i++) {
            tags.append("0\nINSERT\n2\nA\n10\n").append(i * 500).append("\n20\n0\n70\n20\n71\n10\n44\n300\n45\n2\n");
        }
        return tags.append("0\nENDSEC\n0\nEOF\n").toString().getBytes(StandardCharsets.UTF_8);
    }

    @Test
    @Timeout(180)
    void twelveReadersOfDrawingsThatExpandAreAnsweredAndTheServerLives() throws Exception {
        long shelf = SERVER.shelf();
        List<Long> hostile = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            byte[] bytes = bomb(i);
            assertThat(bytes.length).isLessThan(20_000);
            hostile.add(SERVER.file("priya", shelf, Server.PLAIN, "bomb " + i + ".dxf", bytes, false));
        }
        ExecutorService readers = Executors.newFixedThreadPool(12);
        try {
            List<Future<Integer>> answers = new ArrayList<>();
            for (int i = 0; i < 12; i++) {
                int n = i;
                Web web = Web.as(SERVER, "priya"); // one after the other: many sign-ins at once are braked
                answers.add(readers.submit(() -> {
                    long item = hostile.get(n % hostile.size());
                    String what = List.of("/thumbnail", "/geometry", "/sheet", "/drawn")
                            .get(n % 4);
                    return web.get("/documents/" + item + "/versions/1" + what).statusCode();
                }));
            }
            Web meanwhile = Web.as(SERVER, "priya");
            for (long item : hostile) {
                long began = System.nanoTime();
                assertThat(meanwhile.get("/documents/" + item).statusCode()).isEqualTo(200);
                assertThat((System.nanoTime() - began) / 1e9)
                        .as("a page does not wait for a picture")
                        .isLessThan(10);
            }
            for (Future<Integer> answer : answers) assertThat(answer.get()).isIn(200, 404, 503);
        } catch (ExecutionException e) {
            throw new AssertionError(e.getCause());
        } finally {
            readers.shutdownNow();
        }
        // All shares are given back.
        assertThat(Web.as(SERVER, "priya")
                        .get("/documents/" + hostile.get(0) + "/versions/1/drawn")
                        .statusCode())
                .isEqualTo(200);
    }

    @Test
    void aFilingSheetOfTwoHundredIsFiledByItsForm() {
        long shelf = SERVER.shelf();
        List<String> tokens = new ArrayList<>();
        for (int i = 0; i < 200; i++) {
            tokens.add(SERVER.bring(
                    "priya", "part " + i + ".txt", ("part " + i + " " + shelf).getBytes(StandardCharsets.UTF_8)));
        }
        FilingSheets filing = SERVER.bean(FilingSheets.class);
        long sheet = filing.open(SERVER.actor("priya"), shelf, OptionalLong.empty(), tokens);
        Web web = Web.as(SERVER, "priya");
        String page = web.get("/filings/" + sheet).body();
        assertThat(page).contains("200 files");
        Map<String, String> form = new LinkedHashMap<>();
        form.put("actKey", Server.key());
        for (FilingSheets.FilingLine line :
                filing.sheet(SERVER.actor("priya"), sheet).lines()) {
            String at = "row" + line.row().id() + ".";
            form.put(at + "included", "on");
            form.put(at + "kind", "" + SERVER.kind("specification"));
            form.put(at + "number", "");
            form.put(at + "title", line.row().title());
            form.put(at + "revision", "");
            form.put(at + "folder", "" + line.row().folder());
            form.put(at + "fact.subject", "parts");
        }
        assertThat(form.size()).isGreaterThan(1_400);
        var answer = web.post("/filings/" + sheet, form);
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(302);
        assertThat(filing.sheet(SERVER.actor("priya"), sheet).filing().state()).isEqualTo(FilingStore.State.FILED);
    }

    @Test
    void aFormBeyondAllLimitsIsAnsweredInWords() {
        Map<String, String> form = new LinkedHashMap<>();
        for (int i = 0; i < 25_000; i++) form.put("f" + i, "x");
        var answer = Web.as(SERVER, "priya").post("/check-out", form);
        assertThat(answer.statusCode()).isBetween(400, 499);
        assertThat(answer.body()).contains("too many fields").doesNotContain("Exception");
    }

    /** Ten bodies that begin and do not go on: each ends by the pace that is asked for, and nobody else waits. */
    @Test
    @Timeout(120)
    void tenStalledUploadsHoldNobodyUp() throws Exception {
        Web web = Web.as(SERVER, "priya");
        List<Socket> stalled = new ArrayList<>();
        try {
            for (int i = 0; i < 10; i++) {
                String opened = web.send("POST", "/uploads?name=stalled" + i + ".stp&size=8000000", new byte[0])
                        .body();
                String id = opened.replaceAll("(?s).*\"token\"\\s*:\\s*\"([^\"]+)\".*", "$1");
                assertThat(id).matches("[A-Za-z0-9_-]{10,}");
                stalled.add(web.begin("PUT", "/uploads/" + id + "?from=0", 8_000_000, new byte[300]));
            }
            for (int i = 0; i < 5; i++) {
                long began = System.nanoTime();
                assertThat(web.get("/shelves").statusCode()).isEqualTo(200);
                assertThat((System.nanoTime() - began) / 1e9).isLessThan(10);
            }
            long item =
                    SERVER.file("tomasz", SERVER.shelf(), Server.PLAIN, "meanwhile.txt", new byte[] {65, 66}, false);
            assertThat(SERVER.document(item).head().number()).isEqualTo(1);
        } finally {
            for (Socket socket : stalled) socket.close();
        }
    }
}
