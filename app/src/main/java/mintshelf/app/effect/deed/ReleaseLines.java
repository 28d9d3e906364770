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
import java.util.Optional;
import java.util.stream.Stream;
import mintshelf.app.effect.FilePaper;
import mintshelf.app.effect.KeepContent;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.SheetPdf;
import mintshelf.app.ground.Actor;
import mintshelf.app.setup.Settings;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.change.OrderStore;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.output.OutputStore;
import mintshelf.app.store.round.RoundStore;
import mintshelf.core.change.ChangeNotice;
import mintshelf.core.change.OrderLine;
import mintshelf.core.change.PaperType;
import mintshelf.core.document.Document;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Route;
import mintshelf.core.signoff.Round;
import mintshelf.core.signoff.SignOff;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.springframework.stereotype.Component;

/** Issues and files the notice of an order whose lines go out in the same act, and ends the order. */
@Component
class ReleaseLines implements Deed {
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM yyyy", Locale.ENGLISH);
    private static final String CSV_RECIPE = "notice-1";

    private final OrderStore orders;
    private final VersionStore versions;
    private final RevisionStore revisions;
    private final SpineStore spines;
    private final RoundStore rounds;
    private final HouseStore house;
    private final OutputStore outputs;
    private final FilePaper papers;
    private final SheetPdf pdf;
    private final KeepContent contents;
    private final Recorder recorder;
    private final Settings settings;

    ReleaseLines(
            OrderStore orders,
            VersionStore versions,
            RevisionStore revisions,
            SpineStore spines,
            RoundStore rounds,
            HouseStore house,
            OutputStore outputs,
            FilePaper papers,
            SheetPdf pdf,
            KeepContent contents,
            Recorder recorder,
            Settings settings) {
        this.orders = orders;
        this.versions = versions;
        this.revisions = revisions;
        this.spines = spines;
        this.rounds = rounds;
        this.house = house;
        this.outputs = outputs;
        this.papers = papers;
        this.pdf = pdf;
        this.contents = contents;
        this.recorder = recorder;
        this.settings = settings;
    }

    @Override
    public Effect effect() {
        return Effect.RELEASE_LINES;
    }

    @Override
    public void carryOut(Setting setting, List<Mover> movers) {
        Round board = setting.round().orElseThrow();
        for (Mover order : movers) {
            long id = order.document().id();
            long notice = notice(setting.actor(), order.seen(), orders.lines(id), board, setting.now());
            rounds.closeBundle(board.bundle(), setting.now());
            orders.end(id, Optional.of(notice), "", setting.now());
        }
    }

    private long notice(Actor actor, Seen paper, List<OrderLine> lines, Round board, Instant now) {
        Kind kind = house.kind(PaperType.NOTICE);
        NumberKey number = papers.number(kind, paper.document().place().shelf());
        ChangeNotice notice = write(number.number(), paper, lines, board, now);
        byte[] page = pdf.write(notice.pages(), number.number() + " " + notice.title());
        long item = papers.file(
                actor,
                kind,
                paper.document().place().shelf(),
                number,
                notice.title(),
                number.number() + ".pdf",
                page,
                "issued by " + notice.order());
        Document filed = spines.spine(item).orElseThrow().document();
        long version = filed.head().version();
        outputs.keep(version, "CSV", CSV_RECIPE, contents.keep(csv(notice)).id(), now);
        Route route = house.edition(filed.current().stage().edition());
        revisions.setStage(
                filed.current().id(), route.firstOf(StageClass.RELEASED).orElseThrow(), now);
        revisions.noteRelease(filed.current().id(), version, now);
        recorder.note(actor, item, "notice.issued", 1, "issued " + number.number() + " for " + notice.order(), "");
        for (OrderLine line : lines) {
            recorder.note(
                    actor,
                    line.item(),
                    "notice.issued",
                    "was announced by " + number.number() + ", order " + notice.order(),
                    line.reason());
        }
        return item;
    }

    private ChangeNotice write(String number, Seen paper, List<OrderLine> lines, Round board, Instant now) {
        OrderStore.Order order = orders.order(paper.spine().id()).orElseThrow();
        Map<Long, String> labels = orders.labels(lines.stream()
                .flatMap(l -> Stream.concat(l.fromRevision().stream(), l.toRevision().stream()))
                .toList());
        List<ChangeNotice.Row> rows = new ArrayList<>();
        for (OrderLine line : lines) {
            Document document = spines.spine(line.item()).orElseThrow().document();
            VersionRow out =
                    versions.version(line.item(), document.head().number()).orElseThrow();
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
    private static byte[] csv(ChangeNotice notice) {
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
