package mintshelf.app.use.change;

import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Instant;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import mintshelf.app.effect.FallingSignOffs;
import mintshelf.app.effect.FilePaper;
import mintshelf.app.effect.KeepContent;
import mintshelf.app.effect.Moves;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.SheetPdf;
import mintshelf.app.effect.SheetWriter;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.setup.Settings;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.OrderStore;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.output.OutputStore;
import mintshelf.app.store.round.RoundStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.change.ChangeNotice;
import mintshelf.core.change.OrderLine;
import mintshelf.core.document.Document;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Move;
import mintshelf.core.route.MoveRules;
import mintshelf.core.route.Route;
import mintshelf.core.signoff.Round;
import mintshelf.core.signoff.SignOff;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.springframework.stereotype.Service;

/**
 * Carries an order out: every line is released, the notice is issued and filed, in one transaction: whole or not at all. What it
 * will do is seen before.
 */
@Service
public class CarryOutOrder {
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM yyyy", Locale.ENGLISH);
    private static final String CSV_RECIPE = "notice-1";

    private final Sight sight;
    private final OrderStore orders;
    private final DocumentStore documents;
    private final RoundStore rounds;
    private final HouseStore house;
    private final OutputStore outputs;
    private final SheetWriter writer;
    private final Moves moves;
    private final FallingSignOffs signOffs;
    private final FilePaper papers;
    private final OrderPaper orderPapers;
    private final SheetPdf pdf;
    private final KeepContent contents;
    private final Telling telling;
    private final Acts acts;
    private final Recorder recorder;
    private final Settings settings;
    private final Clock clock;

    public CarryOutOrder(
            Sight sight,
            OrderStore orders,
            DocumentStore documents,
            RoundStore rounds,
            HouseStore house,
            OutputStore outputs,
            SheetWriter writer,
            Moves moves,
            FallingSignOffs signOffs,
            FilePaper papers,
            OrderPaper orderPapers,
            SheetPdf pdf,
            KeepContent contents,
            Telling telling,
            Acts acts,
            Recorder recorder,
            Settings settings,
            Clock clock) {
        this.sight = sight;
        this.orders = orders;
        this.documents = documents;
        this.rounds = rounds;
        this.house = house;
        this.outputs = outputs;
        this.writer = writer;
        this.moves = moves;
        this.signOffs = signOffs;
        this.papers = papers;
        this.orderPapers = orderPapers;
        this.pdf = pdf;
        this.contents = contents;
        this.telling = telling;
        this.acts = acts;
        this.recorder = recorder;
        this.settings = settings;
        this.clock = clock;
    }

    /** What will happen to a document, in sentences. */
    public record Step(Seen seen, OrderLine line, List<String> effects, List<Refusal> inTheWay) {}

    /** All that carrying out does, before it is done; no steps while the order is not before its board. */
    public record Preview(Seen paper, List<Step> steps, List<Refusal> inTheWay) {
        public boolean opens() {
            return inTheWay.isEmpty()
                    && steps.stream().allMatch(s -> s.inTheWay().isEmpty());
        }

        /** Reasons and remedies of all that is in the way. */
        public List<String> says() {
            return Stream.concat(inTheWay.stream(), steps.stream().flatMap(s -> s.inTheWay().stream()))
                    .map(Refusal::says)
                    .toList();
        }
    }

    /** Nothing is changed. */
    public Preview preview(Actor actor, long order) {
        List<OrderLine> lines = orders.lines(order);
        List<Long> all = new ArrayList<>(lines.stream().map(OrderLine::item).toList());
        all.add(order);
        Map<Long, Seen> seen = sight.of(actor, all);
        if (orders.order(order).isEmpty()
                || seen.size() != all.size()
                || !seen.get(order).all()) throw new NotThere();
        return preview(actor, seen.get(order), lines, seen);
    }

    private Preview preview(Actor actor, Seen paper, List<OrderLine> lines, Map<Long, Seen> seen) {
        Route route = house.edition(paper.current().stage().edition());
        Optional<Move> carry =
                route.doing(Effect.RELEASE_LINES, paper.current().stage().code());
        List<Refusal> inTheWay = new ArrayList<>();
        Optional<Round> board = board(paper);
        if (carry.isEmpty()) {
            inTheWay.add(Refusal.of(
                    "move.stage",
                    paper.document().number() + " is " + paper.current().stage().name() + ".",
                    "It is carried out from the board."));
            return new Preview(paper, List.of(), inTheWay);
        } else {
            List<String> missing = board.map(r -> r.state() == Round.State.SIGNED ? List.<String>of() : r.missing())
                    .orElse(List.of("all"));
            inTheWay.addAll(MoveRules.ask(carry.get(), paper.document(), actor.access(), List.of(), missing));
        }
        Map<Long, RoundStore.Item> signed = new HashMap<>();
        board.ifPresent(r -> rounds.items(r.id()).forEach(i -> signed.put(i.item(), i)));
        List<Step> steps = lines.stream()
                .map(line -> step(actor, line, seen.get(line.item()), signed.get(line.item())))
                .toList();
        return new Preview(paper, steps, inTheWay);
    }

    private Optional<Round> board(Seen paper) {
        return rounds.openRound(paper.spine().id()).flatMap(rounds::round);
    }

    private Step step(Actor actor, OrderLine line, Seen seen, RoundStore.Item signed) {
        Document document = seen.document();
        List<Refusal> inTheWay = new ArrayList<>();
        List<String> effects = new ArrayList<>();
        Optional<Move> release = Optional.empty();
        if (document.pending().isPresent()) {
            Route route = house.edition(document.pending().get().stage().edition());
            release = route.releases(document.pending().get().stage().code());
        }
        boolean named = document.pending().map(r -> r.id()).equals(line.toRevision());
        if (release.isEmpty() || !named) {
            inTheWay.add(Refusal.of(
                    "order.line",
                    document.number() + " has no revision of this order that could be released.",
                    "Take the order back and look at the line."));
        } else {
            inTheWay.addAll(
                    MoveRules.ask(release.get(), document, actor.access(), moves.emptyFacts(document), List.of())
                            .stream()
                            .filter(r -> !r.code().equals("access.missing")) // the order's own move asks for the right
                            .toList());
            if (signed == null || !signOffs.item(document).digest().equals(signed.digest())) {
                inTheWay.add(Refusal.of(
                        "order.moved",
                        document.number() + " is not what the board signed any more.",
                        "Take the order back and put it before the board again."));
            }
            effects.add("Revision " + document.pending().get().shown() + " with version "
                    + document.head().number() + " is released.");
            document.released()
                    .ifPresent(r -> effects.add("Revision " + r.shown() + " is superseded at the same moment."));
            if (release.get().does(Effect.WRITE_SHEET)) {
                effects.add(writer.silent(seen.spine().content())
                        .map(why -> "Nothing is written into its sheet: " + why)
                        .orElse("Its title block is written from the record, a PDF is made."));
            }
        }
        return new Step(seen, line, effects, inTheWay);
    }

    /** Carries the order out. */
    public String carryOut(Actor actor, long order, String key) {
        return acts.once(actor, key, () -> {
            OrderPaper.Locked locked = orderPapers.locked(actor, order);
            Map<Long, Seen> seen = locked.documents();
            List<OrderLine> lines = locked.lines();
            Seen paper = locked.paper();
            Preview preview = preview(actor, paper, lines, seen);
            if (!preview.opens()) {
                throw Refused.because("order.refused", String.join(" ", preview.says()), "Nothing was released.");
            }
            Round board = board(paper).orElseThrow();
            Instant now = clock.instant();
            for (OrderLine line : lines) {
                Document document = seen.get(line.item()).document();
                Route route = house.edition(document.current().stage().edition());
                Move release = route.releases(document.current().stage().code()).orElseThrow();
                moves.carryOut(actor, document, route, release, paper.document().number(), Optional.of(board));
            }
            long notice = notice(actor, paper, lines, board, now);
            rounds.closeBundle(board.bundle(), now);
            orders.end(order, Optional.of(notice), "", now);
            Route route = house.edition(paper.current().stage().edition());
            Move carry = route.doing(
                            Effect.RELEASE_LINES, paper.current().stage().code())
                    .orElseThrow();
            moves.carryOut(actor, paper.document(), route, carry, "", Optional.of(board));
            tell(actor, paper, board, notice);
            return "/orders/" + order + "?done";
        });
    }

    private long notice(Actor actor, Seen paper, List<OrderLine> lines, Round board, Instant now) {
        Kind kind = house.kind(Kind.CHANGE_NOTICE);
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
        Document filed = documents.spine(item).orElseThrow().document();
        long version = filed.head().version();
        outputs.keep(version, "CSV", CSV_RECIPE, contents.keep(csv(notice)).id(), now);
        Route route = house.edition(filed.current().stage().edition());
        documents.setStage(
                filed.current().id(), route.firstOf(StageClass.RELEASED).orElseThrow(), now);
        documents.noteRelease(filed.current().id(), version, now);
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
            Document document = documents.spine(line.item()).orElseThrow().document();
            VersionRow out =
                    documents.version(line.item(), document.head().number()).orElseThrow();
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

    private void tell(Actor actor, Seen paper, Round board, long notice) {
        Set<Long> receivers = new LinkedHashSet<>();
        receivers.add(board.by());
        receivers.add(paper.spine().author());
        board.signOffs().forEach(s -> receivers.add(s.person()));
        rounds.authors(List.of(board.id())).values().forEach(receivers::addAll);
        telling.tell(
                actor,
                receivers,
                "order.carried_out",
                Optional.of(board.id()),
                paper.spine().id(),
                actor.name() + " carried out " + paper.document().number() + "; "
                        + documents.spine(notice).orElseThrow().document().number() + " is issued",
                "/orders/" + paper.spine().id());
    }
}
