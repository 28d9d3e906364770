package mintshelf.app.effect.deed;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import mintshelf.app.effect.PaperSays;
import mintshelf.app.setup.Settings;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.change.DispositionStore;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.change.RequestStore;
import mintshelf.app.store.document.Spine;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.RuleStore;
import mintshelf.core.base.Days;
import mintshelf.core.change.ChangeNotice;
import mintshelf.core.change.Disposition;
import mintshelf.core.change.Effective;
import mintshelf.core.change.NoticeForm;
import mintshelf.core.change.PaperLine;
import mintshelf.core.document.Document;
import mintshelf.core.signoff.Round;
import mintshelf.core.signoff.SignOff;
import org.springframework.stereotype.Component;

/** What a change notice says of its order. */
@Component
class WriteNotice {
    private final PaperStore orders;
    private final SpineStore spines;
    private final VersionStore versions;
    private final Settings settings;
    private final DispositionStore dispositions;
    private final RequestStore requests;
    private final PaperSays says;
    private final LineDifferences differences;
    private final RuleStore rules;

    WriteNotice(
            PaperStore orders,
            SpineStore spines,
            VersionStore versions,
            Settings settings,
            DispositionStore dispositions,
            RequestStore requests,
            PaperSays says,
            LineDifferences differences,
            RuleStore rules) {
        this.says = says;
        this.differences = differences;
        this.rules = rules;
        this.dispositions = dispositions;
        this.requests = requests;
        this.orders = orders;
        this.spines = spines;
        this.versions = versions;
        this.settings = settings;
    }

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
        Map<String, String> facts = facts(paper.spine().id(), lines, documents);
        List<DifferencePictures.Between> between = new ArrayList<>();
        Map<Long, Integer> released = orders.releasedWith(
                lines.stream().flatMap(l -> l.fromRevision().stream()).toList());
        Map<Long, LineDifferences.Said> said = differences.said(lines.stream()
                .filter(l -> l.releases()
                        && l.fromRevision().isPresent()
                        && l.toRevision().isPresent())
                .map(l -> new LineDifferences.Replaced(
                        l.item(),
                        l.fromRevision().get(),
                        l.toRevision().get(),
                        documents.get(l.item()).document().head().version()))
                .toList());
        Map<Long, List<String>> about = says.variants(paper.spine().id());
        List<ChangeNotice.Row> rows = new ArrayList<>();
        for (PaperLine line : lines) {
            LineDifferences.Said changed = said.getOrDefault(line.item(), LineDifferences.Said.NOTHING);
            Document document = documents.get(line.item()).document();
            VersionRow out = heads.get(document.head().version());
            rows.add(new ChangeNotice.Row(
                    document.number(),
                    document.title(),
                    line.what().words()
                            + (line.factsOnly() ? facts.getOrDefault(document.number(), "") : "")
                            + line.successor()
                                    .flatMap(spines::spine)
                                    .map(s -> ", " + s.document().number() + " takes its place")
                                    .orElse(""),
                    line.fromRevision().map(labels::get).orElse("–"),
                    line.factsOnly()
                            ? line.fromRevision().map(labels::get).orElse("–")
                            : line.toRevision().map(labels::get).orElse("–"),
                    out.number(),
                    why(line, order),
                    out.content().hash().hex(),
                    Stream.of(String.join(", ", about.getOrDefault(line.item(), List.of())), changed.variants())
                            .filter(s -> !s.isEmpty())
                            .collect(Collectors.joining("; ")),
                    changed.parts()));
            ChangeNotice.Row row = rows.get(rows.size() - 1);
            if (line.releases()) {
                line.fromRevision()
                        .map(released::get)
                        .ifPresent(old -> between.add(new DifferencePictures.Between(
                                document.number(), row.from() + " → " + row.to(), line.item(), old, out)));
            }
        }
        List<Disposition> old = dispositions.of(paper.spine().id());
        Disposition.Totals totals = Disposition.totals(old);
        return new ChangeNotice(
                number,
                paper.document().number(),
                paper.document().title(),
                order.reason(),
                Days.words(LocalDate.ofInstant(now, settings.zone())),
                order.effective().map(Effective::words).orElse(""),
                requests(paper.spine().id()),
                rows,
                old.stream()
                        .filter(o -> documents.containsKey(o.item()))
                        .map(o -> old(o, documents.get(o.item()).document()))
                        .toList(),
                totals.cost(),
                totals.unknown(),
                decided(board),
                form().blocks().stream().anyMatch(b -> b.show() == NoticeForm.Show.PICTURES)
                        ? differences.pictures(between)
                        : List.of());
    }

    /** What changes of each line that changes facts only, in words, by number: they are still as they were. */
    private Map<String, String> facts(long order, List<PaperLine> lines, Map<Long, Spine> documents) {
        return says.facts(order, lines, documents).stream()
                .collect(Collectors.groupingBy(
                        r -> r.get("document").toString(),
                        Collectors.mapping(
                                r -> r.get("fact") + " " + shown(r.get("from")) + " → " + shown(r.get("to")),
                                Collectors.joining(", ", ": ", ""))));
    }

    private static String shown(Object value) {
        return value.toString().isEmpty() ? "empty" : value.toString();
    }

    /** What the house puts on its notices. */
    NoticeForm form() {
        return rules.noticeForm();
    }

    /** A sentence for each sign-off that stands. */
    List<String> decided(Round board) {
        return board.signOffs().stream()
                .filter(SignOff::stands)
                .map(s -> s.name() + " " + s.decision().words() + ", "
                        + Days.words(LocalDate.ofInstant(s.at(), settings.zone()))
                        + (s.remark().isEmpty() ? "." : ": " + s.remark()))
                .toList();
    }

    private static String why(PaperLine line, PaperStore.Paper order) {
        return line.reason().isEmpty() ? order.reason() : line.reason();
    }

    private static ChangeNotice.Old old(Disposition one, Document document) {
        return new ChangeNotice.Old(
                document.number(),
                one.place().words(),
                one.howMany(),
                one.what().map(Disposition.What::words).orElse(""),
                one.cost().map(Disposition.Money::words).orElse(""),
                one.note());
    }

    private List<String> requests(long order) {
        return spines.spines(requests.requestsOf(order)).values().stream()
                .map(s -> s.document().number() + " " + s.document().title())
                .sorted()
                .toList();
    }
}
