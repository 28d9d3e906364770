package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import javax.imageio.ImageIO;
import mintshelf.app.effect.FilePhoto;
import mintshelf.app.effect.TableFiles;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.use.change.AddPhoto;
import mintshelf.app.use.change.LinesAsTable;
import mintshelf.app.use.change.ReadRequests;
import mintshelf.core.base.Refusal;
import mintshelf.core.change.PaperLine;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.junit.jupiter.api.Test;

/** Lines of papers out and back as tables; photos with requests. */
class LineTablesTest {
    private final Server server = Server.shared();
    private final Orders orders = new Orders(server);
    private final long shelf = server.shelf();
    private final LinesAsTable tables = server.bean(LinesAsTable.class);

    private long released(String name) {
        return orders.released(shelf, name + " " + Server.key() + ".dxf");
    }

    private String number(long item) {
        return server.document(item).number();
    }

    private static byte[] csv(String... lines) {
        return String.join("\r\n", lines).getBytes(StandardCharsets.UTF_8);
    }

    private String code(long paper, byte[] file) {
        try {
            return String.join(
                    " ",
                    tables.plan(server.actor("priya"), paper, file, false).refusals().stream()
                            .map(Refusal::code)
                            .toList());
        } catch (Refused e) {
            return e.refusal().code();
        }
    }

    private List<PaperLine> lines(long paper) {
        return server.bean(PaperStore.class).lines(paper);
    }

    @Test
    void anOrdersLinesComeBackChangedAndMore() {
        long first = released("first");
        long second = released("second");
        long third = released("third");
        long order = orders.ask("priya", first, second);
        for (byte[] out : List.of(
                TableFiles.csv(tables.table(server.actor("priya"), order).rows()),
                TableFiles.xlsx(
                        "Lines", tables.table(server.actor("priya"), order).rows()))) {
            LinesAsTable.Plan plan = tables.plan(server.actor("priya"), order, out, false);
            assertThat(plan.added() + plan.changed()).as("as it went out").isZero();
            assertThat(plan.opens()).isFalse();
        }
        byte[] back = csv(
                "number;what;reason",
                number(first) + ";is withdrawn;",
                number(second) + ";;super duplex",
                number(third) + ";;goes along");
        String key = Server.key();
        tables.take(server.actor("priya"), order, key, back, false);
        tables.take(server.actor("priya"), order, key, back, false);
        assertThat(lines(order)).hasSize(3);
        assertThat(orders.line(order, first).withdraws()).isTrue();
        assertThat(orders.line(order, second).reason()).isEqualTo("super duplex");
        assertThat(orders.line(order, third).reason()).isEqualTo("goes along");
        assertThat(server.bean(PaperStore.class).order(order).orElseThrow().reason())
                .isEqualTo("pitting at berth 3");
        orders.stop(order);
        assertThat(code(order, back)).isEqualTo("order.frozen");
    }

    @Test
    void oneRowInTheWayKeepsAllOfThemAndEachIsNamed() {
        long first = released("kept");
        long taken = released("taken");
        orders.ask("priya", taken);
        long order = orders.ask("priya", first);
        byte[] back = csv(
                "number,reason",
                number(first) + ",another",
                number(taken) + ",also",
                "NO-SUCH-1,x",
                number(order) + ",a paper");
        assertThat(code(order, back)).isEqualTo("order.other number.unknown change.paper");
        assertThatThrownBy(() -> tables.take(server.actor("priya"), order, Server.key(), back, false))
                .isInstanceOf(Refused.class);
        assertThat(orders.line(order, first).reason()).isEqualTo("duplex 2205");
        assertThat(code(order, new byte[] {'P', 'K', 3, 4, 0, 0, 1})).isEqualTo("table.unread");
        assertThat(code(order, "\"unended".getBytes(StandardCharsets.UTF_8))).isIn("table.unread", "table.head");
        assertThatThrownBy(() -> tables.plan(server.actor("rafael"), order, back, false))
                .isInstanceOf(NotThere.class);
        assertThatThrownBy(() -> tables.table(server.actor("rafael"), order)).isInstanceOf(NotThere.class);
    }

    @Test
    void aRequestTakesRowsAndFillsReasonsDown() {
        long first = released("r1");
        long second = released("r2");
        long third = released("r3");
        long request = RequestTest.asked(server, "priya", first);
        tables.take(
                server.actor("priya"),
                request,
                Server.key(),
                csv("number,reason", number(first) + ",pits", number(second) + ",", number(third) + ","),
                true);
        assertThat(lines(request)).extracting(PaperLine::reason).containsExactly("pits", "pits", "pits");
        assertThat(server.bean(PaperStore.class).request(request).orElseThrow().reason())
                .isEqualTo("pits at berth 3");
    }

    @Test
    void aCellNeverBecomesAFormulaAndComesBackAsItWas() {
        List<List<String>> rows =
                List.of(List.of("number", "reason"), List.of("A-1", "=1+1"), List.of("A-2", "'quoted"));
        assertThat(new String(TableFiles.csv(rows), StandardCharsets.UTF_8)).contains("'=1+1");
        assertThat(TableFiles.read(TableFiles.csv(rows), 10).orElseThrow(Refused::new))
                .isEqualTo(rows);
        assertThat(TableFiles.read(TableFiles.xlsx("x", rows), 10).orElseThrow(Refused::new))
                .isEqualTo(rows);
        List<List<String>> many = new ArrayList<>();
        for (int i = 0; i < 50; i++) many.add(List.of("r" + i));
        assertThat(TableFiles.read(TableFiles.csv(many), 10).orElseThrow(Refused::new))
                .as("one more than wanted, so that it is seen to be too long")
                .hasSize(11);
    }

    @Test
    void aSmallFileThatUnpacksToAHugeOneIsNoTable() throws Exception {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            zip.putNextEntry(new ZipEntry("xl/worksheets/sheet1.xml"));
            byte[] spaces = new byte[1 << 20];
            for (int i = 0; i < 40; i++) zip.write(spaces);
        }
        assertThat(out.size()).isLessThan(1 << 20);
        assertThat(TableFiles.read(out.toByteArray(), 10)
                        .refusal()
                        .orElseThrow()
                        .code())
                .isEqualTo("table.unread");
    }

    private static byte[] picture(String format) throws Exception {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(64, 48, BufferedImage.TYPE_INT_RGB), format, out);
        return out.toByteArray();
    }

    /** Who sees released ones only may ask, and shows what is wrong. */
    @Test
    void aReporterWithoutFilingRightsAddsAPhoto() throws Exception {
        long item = released("photographed");
        long request = RequestTest.asked(server, "rafael", item);
        AddPhoto photos = server.bean(AddPhoto.class);
        byte[] jpeg = photos.read(picture("png")).orElseThrow();
        photos.add(server.actor("rafael"), request, Server.key(), jpeg, "pits in the throat");
        ReadRequests.View view = server.bean(ReadRequests.class).request(server.actor("rafael"), request);
        assertThat(view.evidence()).hasSize(1);
        Seen photo = view.evidence().get(0).seen().orElseThrow();
        assertThat(photo.document().title()).contains("Photo for");
        assertThat(server.bytes(photo.spine().id())).startsWith((byte) 0xFF, (byte) 0xD8);
        assertThat(server.bean(ReadRequests.class)
                        .request(server.actor("oluwaseun"), request)
                        .evidence()
                        .get(0)
                        .seen())
                .isPresent();
        assertThatThrownBy(() -> photos.add(server.actor("hedda"), request, Server.key(), jpeg, ""))
                .isInstanceOf(Refused.class);
        assertThat(photos.read(new byte[0])).isEmpty();
        for (byte[] bad : List.of("no picture".getBytes(StandardCharsets.UTF_8), new byte[7 << 20])) {
            assertThat(FilePhoto.read(bad).refusal()).isPresent();
        }
    }

    @Test
    void aDayOfAWorkbookIsReadTheSameWhereverItWasWritten() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (XSSFWorkbook book = new XSSFWorkbook()) {
            var style = book.createCellStyle();
            style.setDataFormat((short) 14); // the short day, shown otherwise in each place
            var row = book.createSheet("Register").createRow(0);
            row.createCell(0).setCellValue("TG40-3030");
            row.createCell(1).setCellValue(LocalDate.of(2019, 3, 14));
            row.getCell(1).setCellStyle(style);
            row.createCell(3).setCellValue(2.4);
            book.write(out);
        }
        assertThat(TableFiles.read(out.toByteArray(), 10).orElseThrow(Refused::new))
                .containsExactly(List.of("TG40-3030", "2019-03-14", "", "2.4"));
    }
}
