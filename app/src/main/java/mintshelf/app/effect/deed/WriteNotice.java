package mintshelf.app.effect.deed;

import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Stream;
import mintshelf.app.setup.Settings;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.document.Spine;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.core.change.ChangeNotice;
import mintshelf.core.change.PaperLine;
import mintshelf.core.document.Document;
import mintshelf.core.signoff.Round;
import mintshelf.core.signoff.SignOff;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.springframework.stereotype.Component;

/** What a change notice says of its order, as a paper and as a table. */
@Component
class WriteNotice {
    private final PaperStore orders;
    private final SpineStore spines;
    private final VersionStore versions;
    private final Settings settings;

    WriteNotice(PaperStore orders, SpineStore spines, VersionStore versions, Settings settings) {
        this.orders = orders;
        this.spines = spines;
        this.versions = versions;
        this.settings = settings;
    }

    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM yyyy", Locale.ENGLISH);

    /** The notice of an order that is carried out, decided by its board. */
    ChangeNotice write(String number, Seen paper, List<PaperLine> lines, Round board, Instant now) {
        PaperStore.Paper order = orders.order(paper.spine().id()).orElseThrow();
        Map<Long, String> labels = orders.labels(lines.stream()
                .flatMap(l -> Stream.concat(l.fromRevision().stream(), l.toRevision().stream()))
                .toList());
        Map<Long, Spine> documents =
                spines.spines(lines.stream().map(PaperLine::item).toList());
        Map<Long, VersionRow> heads = versions.versionsById(documents.values().stream()
                .map(d -> d.document().head().version())
                .toList());
        List<ChangeNotice.Row> rows = new ArrayList<>();
        for (PaperLine line : lines) {
            Document document = documents.get(line.item()).document();
            VersionRow out = heads.get(document.head().version());
            rows.add(new ChangeNotice.Row(
                    document.number(),
                    document.title(),
                    line.fromRevision().map(labels::get).orElse("–"),
                    line.toRevision().map(labels::get).orElse("–"),
                    out.number(),
                    line.reason().isEmpty() ? order.reason() : line.reason(),
                    out.content().hash().hex()));
        }
        List<String> decided = board.signOffs().stream()
                .filter(SignOff::stands)
                .map(s -> s.name() + " " + s.decision().words() + ", "
                        + DAY.format(s.at().atZone(settings.zone()))
                        + (s.remark().isEmpty() ? "." : ": " + s.remark()))
                .toList();
        return new ChangeNotice(
                number,
                paper.document().number(),
                paper.document().title(),
                order.reason(),
                DAY.format(now.atZone(settings.zone())),
                rows,
                decided);
    }

    /** RFC 4180. A cell that a table program would take for a formula begins with an apostrophe. */
    static byte[] csv(ChangeNotice notice) {
        StringWriter out = new StringWriter();
        try (CSVPrinter csv = new CSVPrinter(out, CSVFormat.RFC4180)) {
            csv.printRecord("notice", "order", "number", "title", "from", "to", "version", "reason", "sha256");
            for (ChangeNotice.Row row : notice.rows()) {
                csv.printRecord(
                        notice.number(),
                        notice.order(),
                        plain(row.number()),
                        plain(row.title()),
                        row.from(),
                        row.to(),
                        row.version(),
                        plain(row.reason()),
                        row.hash());
            }
        } catch (IOException e) {
            throw new UncheckedIOException("Writing to memory failed", e);
        }
        return out.toString().getBytes(StandardCharsets.UTF_8);
    }

    private static String plain(String cell) {
        return !cell.isEmpty() && "=+-@\t\r".indexOf(cell.charAt(0)) >= 0 ? "'" + cell : cell;
    }
}
