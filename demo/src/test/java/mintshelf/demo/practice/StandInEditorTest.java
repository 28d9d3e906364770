package mintshelf.demo.practice;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.demo.sheet.DxfWriter;
import mintshelf.demo.sheet.DxfWriter.Layer;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class StandInEditorTest {
    @TempDir
    Path folder;

    static byte[] plate() {
        DxfWriter dxf = new DxfWriter();
        dxf.box(Layer.OUTLINE, 0, 0, 80, 50);
        dxf.circle(Layer.OUTLINE, 20, 25, 4.5);
        dxf.circle(Layer.OUTLINE, 60, 25, 6);
        return dxf.bytes(100, 80);
    }

    private static String send(String address, String body) throws Exception {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(address));
        if (!body.equals("GET"))
            request.header("Content-Type", "application/x-www-form-urlencoded")
                    .POST(HttpRequest.BodyPublishers.ofString(body));
        return HttpClient.newHttpClient()
                .send(request.build(), BodyHandlers.ofString())
                .body();
    }

    /** The fields of the hole of a diameter, as the page has them. */
    private static String hole(String page, String diameter, String now) {
        Matcher m = Pattern.compile(
                        "value=\"" + diameter + "\" size.*?name=\"x\" value=\"([^\"]*)\".*?name=\"y\""
                                + " value=\"([^\"]*)\".*?name=\"radius\" value=\"([^\"]*)\"",
                        Pattern.DOTALL)
                .matcher(page);
        assertThat(m.find()).as(page).isTrue();
        return "x=" + m.group(1) + "&y=" + m.group(2) + "&radius=" + m.group(3) + "&diameter=" + now;
    }

    @Test
    void aHoleIsChangedAndTheFileIsReplacedOnceItIsSaved() throws Exception {
        Path file = Files.write(folder.resolve("gland <plate>.dxf"), plate());
        try (StandInEditor editor = StandInEditor.open(file)) {
            String page = send(editor.address(), "GET");
            assertThat(page).contains("<svg", "gland &lt;plate>.dxf", "value=\"9\"", "value=\"12\"");
            page = send(editor.address() + "change", hole(page, "9", "11"));
            assertThat(page).contains("The hole of 9 has 11 now.", "value=\"11\"");
            assertThat(Files.readAllBytes(file)).as("not saved yet").isEqualTo(plate());
            assertThat(send(editor.address() + "change", hole(page, "12", "-3")))
                    .contains("A hole has a diameter.");
            assertThat(send(editor.address() + "change", "x=&y=")).contains("A hole has a diameter.");
            assertThat(send(editor.address() + "save", "")).contains("Saved.");
            assertThat(Files.readString(file))
                    .contains("5.5")
                    .isNotEqualTo(new String(plate(), StandardCharsets.ISO_8859_1));
            try (var left = Files.list(folder)) {
                assertThat(left).as("nothing is left beside it").hasSize(1);
            }
            String elsewhere = editor.address().replaceAll("/[0-9a-f]{32}/", "/other/");
            assertThat(send(elsewhere, "GET")).doesNotContain("<svg");
        }
    }

    @Test
    void whatIsNoDrawingOfTextIsNotOpened() throws IOException {
        Path file = Files.writeString(folder.resolve("note.dxf"), "nothing of it");
        assertThatThrownBy(() -> StandInEditor.open(file)).isInstanceOf(IOException.class);
    }
}
