package mintshelf.app.use.filing;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.effect.DrawNumbers;
import mintshelf.app.effect.Links;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.References;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sheets;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.ListStore;
import mintshelf.app.store.document.NumberStore;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.filing.FilingStore;
import mintshelf.app.store.filing.FilingStore.Filing;
import mintshelf.app.store.filing.FilingStore.Row;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.KindFact;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.app.store.structure.Reference;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.FileName;
import mintshelf.core.document.Stage;
import mintshelf.core.document.VersionDigest;
import mintshelf.core.fact.FactReader;
import mintshelf.core.fact.FactValue;
import mintshelf.core.filing.FilingRule;
import mintshelf.core.filing.Proposal;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.reference.Written;
import mintshelf.core.revision.RevisionRules;
import mintshelf.core.revision.ShippedSeries;
import mintshelf.core.route.Route;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Service;

/** Files that were dropped become documents: a sheet of proposals, then all of it in one transaction, then a report. */
@Service
public class FileDocuments {
    static final int MOST_ROWS = 200;
    private final FilingStore filings;
    private final ContentStore contents;
    private final DocumentStore documents;
    private final RevisionStore revisions;
    private final FactStore facts;
    private final VersionStore versions;
    private final NumberStore numbers;
    private final DrawNumbers draw;
    private final HoldStore holds;
    private final HouseStore house;
    private final ShelfStore shelves;
    private final ReadingRoom room;
    private final Sheets sheets;
    private final ListStore lists;
    private final Sight sight;
    private final References references;
    private final Links links;
    private final Acts acts;
    private final UnitOfWork unit;
    private final Recorder recorder;
    private final Clock clock;

    public FileDocuments(
            FilingStore filings,
            ContentStore contents,
            DocumentStore documents,
            RevisionStore revisions,
            FactStore facts,
            VersionStore versions,
            NumberStore numbers,
            DrawNumbers draw,
            HoldStore holds,
            HouseStore house,
            ShelfStore shelves,
            ReadingRoom room,
            Sheets sheets,
            ListStore lists,
            Sight sight,
            References references,
            Links links,
            Acts acts,
            UnitOfWork unit,
            Recorder recorder,
            Clock clock) {
        this.filings = filings;
        this.contents = contents;
        this.documents = documents;
        this.revisions = revisions;
        this.facts = facts;
        this.versions = versions;
        this.numbers = numbers;
        this.draw = draw;
        this.holds = holds;
        this.house = house;
        this.shelves = shelves;
        this.room = room;
        this.sheets = sheets;
        this.lists = lists;
        this.sight = sight;
        this.references = references;
        this.links = links;
        this.acts = acts;
        this.unit = unit;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** A filing sheet with all that its page shows. */
    public record Sheet(
            Filing filing,
            Optional<Seen> derivedFrom,
            ShelfStore.Shelf shelf,
            List<Folder> folders,
            List<Kind> kinds,
            Map<Long, List<KindFact>> factSheets,
            List<Line> lines) {
        /** What the first revision of a kind's documents is called, by kind; empty where its label comes with the release. */
        public Map<Long, String> firstLabels() {
            Map<Long, String> labels = new HashMap<>();
            kinds.forEach(k -> labels.put(
                    k.id(),
                    k.labelAtStart() ? ShippedSeries.of(k.revisionSeries()).first() : ""));
            return labels;
        }
    }

    /** A row with its file and, where one is there, the document that has the same content. */
    public record Line(Row row, Upload upload, Optional<Seen> sameAs, Optional<Seen> made) {}

    /** What came of filing: the report's address, or what stands in the way of each row. */
    public record Result(String target, Map<Long, List<Refusal>> problems) {
        public boolean isFiled() {
            return problems.isEmpty();
        }
    }

    /** As {@link #open(Actor, long, OptionalLong, List, Optional)}, of files that were derived from no document. */
    public long open(Actor actor, long shelf, OptionalLong folder, List<String> tokens) {
        return open(actor, shelf, folder, tokens, Optional.empty());
    }

    /**
     * Opens a sheet for uploads that are complete.
     *
     * @param derivedFrom the document of which they are changed copies
     */
    public long open(Actor actor, long shelf, OptionalLong folder, List<String> tokens, Optional<Long> derivedFrom) {
        if (tokens.isEmpty() || tokens.size() > MOST_ROWS) {
            throw Refused.because(
                    "filing.rows", "A filing sheet takes 1 to " + MOST_ROWS + " files.", "Drop them in portions.");
        }
        if (shelves.shelf(shelf).isEmpty()) throw new NotThere();
        derivedFrom.ifPresent(from -> sight.of(actor, from));
        Folder to = folder.isPresent()
                ? shelves.folder(folder.getAsLong())
                        .filter(f -> f.shelf() == shelf)
                        .orElseThrow(NotThere::new)
                : shelves.root(shelf);
        askForSomeKind(actor, to);
        List<FilingRule> rules = house.filingRules();
        List<Upload> uploads = new ArrayList<>();
        for (String token : tokens.stream().distinct().toList()) {
            uploads.add(contents.upload(token)
                    .filter(u -> u.person() == actor.person() && u.state() == Upload.State.COMPLETE)
                    .orElseThrow(() -> Refused.because(
                            "upload.missing", "A file did not arrive whole.", "Drop it again; nothing was filed.")));
        }
        List<Row> rows = uploads.stream()
                .map(u -> propose(actor, u, to, rules))
                .map(r -> derivedFrom.isPresent() ? r.withNumber("", "a new one, for it is a new document") : r)
                .toList();
        return unit.run(() -> {
            long filing = filings.open(actor.person(), shelf, to.id(), derivedFrom, clock.instant());
            for (int i = 0; i < rows.size(); i++) filings.addRow(filing, i, rows.get(i));
            return filing;
        });
    }

    private void askForSomeKind(Actor actor, Folder folder) {
        boolean some = house.kinds().stream().anyMatch(k -> actor.access().may(Right.FILE, place(folder, k.id())));
        if (!some) {
            throw Refused.because(
                    "access.missing",
                    "Your roles do not let you file documents here.",
                    "A data manager can give you one that does.");
        }
    }

    private Place place(Folder folder, long kind) {
        List<Long> up = shelves.pathsUp(List.of(folder.shelf())).get(folder.id()).stream()
                .map(Folder::id)
                .toList();
        boolean library =
                shelves.shelf(folder.shelf()).map(ShelfStore.Shelf::library).orElse(false);
        return new Place(folder.shelf(), up, kind, library);
    }

    private Row propose(Actor actor, Upload upload, Folder folder, List<FilingRule> rules) {
        FileName name = FileName.of(upload.fileName());
        ContentKind content = upload.kind().orElse(ContentKind.OTHER);
        Proposal proposal =
                Proposal.of(FilingRule.first(rules, name, content.name()), name, sheetFacts(upload, content));
        Optional<Long> same = contents.sealed(upload.hash().orElseThrow())
                .map(known -> versions.withContent(known.id()))
                .flatMap(items -> lists.visibleOne(items, actor.access()));
        return new Row(
                0,
                upload.id(),
                same.isEmpty(),
                proposal.kind(),
                proposal.kindWhy(),
                proposal.number(),
                proposal.numberWhy(),
                proposal.title(),
                proposal.titleWhy(),
                proposal.revision(),
                proposal.revisionWhy(),
                folder.id(),
                proposal.facts(),
                same,
                Optional.empty());
    }

    private Map<String, String> sheetFacts(Upload upload, ContentKind kind) {
        if (kind != ContentKind.DXF) return Map.of();
        StoredContent content =
                new StoredContent(upload.content(), upload.hash().orElseThrow(), upload.size(), kind);
        return room.apart(() -> sheets.said(content));
    }

    /** The actor's own sheet. */
    public Sheet sheet(Actor actor, long id) {
        Filing filing =
                filings.filing(id).filter(f -> f.person() == actor.person()).orElseThrow(NotThere::new);
        List<Row> rows = filings.rows(id);
        Map<Long, Upload> uploads =
                contents.uploads(rows.stream().map(Row::upload).toList());
        Set<Long> items = new HashSet<>();
        filing.derivedFrom().ifPresent(items::add);
        rows.forEach(r -> {
            r.sameAs().ifPresent(items::add);
            r.item().ifPresent(items::add);
        });
        Map<Long, Seen> seen = sight.of(actor, items);
        List<Line> lines = rows.stream()
                .map(r -> new Line(
                        r,
                        uploads.get(r.upload()),
                        r.sameAs().map(seen::get),
                        r.item().map(seen::get)))
                .toList();
        return new Sheet(
                filing,
                filing.derivedFrom().map(seen::get),
                shelves.shelf(filing.shelf()).orElseThrow(),
                shelves.folders(filing.shelf()),
                house.kinds().stream().filter(k -> !k.isChangePaper()).toList(),
                house.factSheets(),
                lines);
    }

    /** Gives a sheet up; its files go when their lease ends. */
    public void drop(Actor actor, long id) {
        unit.run(() -> {
            Filing filing = filings.lock(id)
                    .filter(f -> f.person() == actor.person() && f.isOpen())
                    .orElseThrow(NotThere::new);
            filings.end(filing.id(), "DROPPED", clock.instant());
        });
    }

    /** Keeps what was typed, whatever comes of filing. */
    public void keep(Actor actor, long id, List<Row> edits) {
        unit.run(() -> {
            if (filings.lock(id)
                    .filter(f -> f.person() == actor.person() && f.isOpen())
                    .isEmpty()) throw new NotThere();
            Set<Long> own = filings.rows(id).stream().map(Row::id).collect(Collectors.toSet());
            edits.stream().filter(e -> own.contains(e.id())).forEach(filings::edit);
        });
    }

    /** Files the ticked rows in one transaction, or none of them and says why. */
    public Result file(Actor actor, long id, String key, boolean hold) {
        Map<Long, List<Refusal>> problems = new LinkedHashMap<>();
        String target = "/filings/" + id;
        Filing before =
                filings.filing(id).filter(f -> f.person() == actor.person()).orElseThrow(NotThere::new);
        if (before.state().equals("FILED")) return new Result(target, Map.of());
        Map<String, List<Written>> read = new HashMap<>();
        contents
                .uploads(filings.rows(id).stream()
                        .filter(Row::included)
                        .map(Row::upload)
                        .toList())
                .values()
                .stream()
                .filter(u -> u.state() == Upload.State.COMPLETE)
                .forEach(u -> read.put(u.token(), references.read(u)));
        try {
            acts.once(actor, key, () -> {
                problems.clear();
                List<Made> made = new ArrayList<>();
                Filing filing = filings.lock(id).orElseThrow(NotThere::new);
                if (!filing.isOpen()) return target;
                List<Row> rows = filings.rows(id).stream().filter(Row::included).toList();
                if (rows.isEmpty()) {
                    throw Refused.because(
                            "filing.none", "No row is ticked.", "Tick what is to be filed, or drop the sheet.");
                }
                Map<Long, List<KindFact>> factSheets = house.factSheets();
                for (Row row : rows) {
                    try {
                        fileRow(actor, filing, row, factSheets, hold, made, problems);
                    } catch (DuplicateKeyException e) {
                        refuse(
                                problems,
                                row,
                                "number.used",
                                "The number or the file name was taken at this moment.",
                                "Choose another one.");
                    }
                }
                if (!problems.isEmpty()) throw Refused.because("filing.problems", "Some rows cannot be filed.", "");
                refer(actor, made, read);
                filing.derivedFrom().ifPresent(from -> made.forEach(m -> links.derived(actor, m.item(), from)));
                filings.end(id, "FILED", clock.instant());
                return target;
            });
        } catch (Refused e) {
            if (problems.isEmpty()) throw e;
        }
        return new Result(target, problems);
    }

    /** A document that was just filed. */
    private record Made(long item, long revision, long version, StoredContent content, String token) {}

    /** Once all are there, for files that are filed together refer to each other. */
    private void refer(Actor actor, List<Made> made, Map<String, List<Written>> read) {
        for (Made m : made) {
            links.byNumber(actor, m.item());
            List<Written> written = read.getOrDefault(m.token(), List.of());
            if (written.isEmpty()) continue;
            List<Reference> refersTo = references
                    .resolve(m.item(), written, Optional.empty(), Map.of())
                    .orElseThrow(Refused::new);
            references.keep(m.version(), refersTo);
            versions.setDigest(
                    m.version(),
                    VersionDigest.of(m.content().hash(), facts.facts(m.revision()), References.digests(refersTo)));
        }
    }

    private static void refuse(Map<Long, List<Refusal>> problems, Row row, String code, String why, String remedy) {
        problems.computeIfAbsent(row.id(), r -> new ArrayList<>()).add(Refusal.of(code, why, remedy));
    }

    private void fileRow(
            Actor actor,
            Filing filing,
            Row row,
            Map<Long, List<KindFact>> factSheets,
            boolean hold,
            List<Made> made,
            Map<Long, List<Refusal>> problems) {
        Upload upload = contents.upload(row.upload()).orElseThrow(NotThere::new);
        if (upload.state() != Upload.State.COMPLETE) {
            refuse(problems, row, "upload.gone", "Its bytes were not kept that long.", "Drop the file again.");
            return;
        }
        if (row.kind().isEmpty()) {
            refuse(problems, row, "filing.kind", "No kind is chosen.", "Choose what this document is.");
            return;
        }
        Kind kind = house.kind(row.kind().get());
        Folder folder = shelves.folder(row.folder())
                .filter(f -> f.shelf() == filing.shelf())
                .orElseThrow(NotThere::new);
        Place place = place(folder, kind.id());
        actor.access()
                .ask(Right.FILE, place)
                .ifPresent(r -> problems.computeIfAbsent(row.id(), x -> new ArrayList<>())
                        .add(r));
        Outcome<String> title = Texts.required("The title", row.title(), 200);
        title.refusal()
                .ifPresent(r -> problems.computeIfAbsent(row.id(), x -> new ArrayList<>())
                        .add(r));
        Map<KindFact, FactValue> facts = facts(row, factSheets.getOrDefault(kind.id(), List.of()), problems);
        FileName file = FileName.of(upload.fileName());
        if (documents.fileNameIsTaken(folder.id(), file)) {
            refuse(
                    problems,
                    row,
                    "file.name",
                    "A file named “" + file.name() + "” is in this folder already.",
                    "Choose another folder, or leave the row out.");
        }
        Optional<NumberKey> number = number(filing, kind, row, facts, problems);
        Outcome<Optional<String>> label =
                RevisionRules.firstLabel(ShippedSeries.of(kind.revisionSeries()), kind.labelAtStart(), row.revision());
        label.refusal()
                .ifPresent(r -> problems.computeIfAbsent(row.id(), x -> new ArrayList<>())
                        .add(r));
        if (number.isEmpty() || problems.containsKey(row.id())) return;
        String cleanTitle = title.orElseThrow(Refused::new);
        create(
                actor,
                filing,
                row,
                kind,
                folder,
                number.get(),
                cleanTitle,
                label.orElseThrow(Refused::new),
                file,
                facts,
                upload,
                hold,
                made);
    }

    private Map<KindFact, FactValue> facts(Row row, List<KindFact> sheet, Map<Long, List<Refusal>> problems) {
        Map<KindFact, FactValue> values = new LinkedHashMap<>();
        for (KindFact fact : sheet) {
            Outcome<Optional<FactValue>> read = FactReader.read(
                    fact.fact(), row.facts().getOrDefault(fact.fact().name(), ""));
            read.refusal()
                    .ifPresent(r -> problems.computeIfAbsent(row.id(), x -> new ArrayList<>())
                            .add(r));
            if (!(read instanceof Outcome.Granted<Optional<FactValue>> granted)) continue;
            granted.value().ifPresent(v -> values.put(fact, v));
            if (granted.value().isEmpty() && fact.required() == KindFact.Required.FILING) {
                refuse(
                        problems,
                        row,
                        "fact.missing",
                        fact.fact().label() + " is empty.",
                        "Its kind needs it from the start.");
            }
        }
        return values;
    }

    /** The typed or read number when it is free, else the next of the series. */
    private Optional<NumberKey> number(
            Filing filing, Kind kind, Row row, Map<KindFact, FactValue> facts, Map<Long, List<Refusal>> problems) {
        Map<String, String> words = new LinkedHashMap<>();
        facts.forEach((fact, value) -> words.put(fact.fact().name(), value.text()));
        boolean drawn = row.number().isBlank();
        Outcome<NumberKey> wanted = drawn ? draw.next(kind, filing.shelf(), words) : NumberKey.of(row.number());
        wanted.refusal()
                .ifPresent(r -> problems.computeIfAbsent(row.id(), x -> new ArrayList<>())
                        .add(r));
        if (!(wanted instanceof Outcome.Granted<NumberKey> granted)) return Optional.empty();
        NumberKey number = granted.value();
        if (drawn) return Optional.of(number);
        if (numbers.isUsed(kind.aspect(), number)) {
            refuse(
                    problems,
                    row,
                    "number.used",
                    number.number() + " is used for a " + kind.aspect().name().toLowerCase(Locale.ROOT) + " already.",
                    "Choose another number, or empty the field to draw the next of the series.");
            return Optional.empty();
        }
        draw.typed(kind, filing.shelf(), number, words);
        return Optional.of(number);
    }

    private void create(
            Actor actor,
            Filing filing,
            Row row,
            Kind kind,
            Folder folder,
            NumberKey number,
            String title,
            Optional<String> label,
            FileName file,
            Map<KindFact, FactValue> facts,
            Upload upload,
            boolean hold,
            List<Made> made) {
        Instant now = clock.instant();
        StoredContent content = contents.seal(List.of(upload)).get(upload.token());
        long item = documents.add(
                new DocumentStore.NewDocument(
                        kind.aspect().name(),
                        kind.id(),
                        filing.shelf(),
                        folder.id(),
                        number,
                        title,
                        file,
                        actor.person()),
                now);
        numbers.claim(kind.aspect(), number, item, now);
        Route route = house.latest(kind.route());
        Stage stage = route.firstStage();
        boolean takenOver = label.isPresent()
                && !label.get().equals(ShippedSeries.of(kind.revisionSeries()).first());
        String why = takenOver ? "Taken over as revision " + label.get() : "";
        long revision = revisions.startRevision(item, label, stage, actor.person(), why, "", now);
        Map<String, String> texts = new LinkedHashMap<>();
        facts.forEach((fact, value) -> {
            this.facts.setFact(revision, fact.fact().id(), Optional.of(value));
            texts.put(fact.fact().name(), value.text());
        });
        VersionStore.Added version = versions.addVersion(
                new VersionStore.NewVersion(
                        item,
                        revision,
                        content.id(),
                        file.name(),
                        VersionDigest.of(content.hash(), texts),
                        "First filing",
                        actor.person(),
                        VersionRow.MadeBy.FILED,
                        Optional.empty(),
                        Optional.empty(),
                        texts),
                now);
        filings.filed(row.id(), item);
        made.add(new Made(item, revision, version.version(), content, upload.token()));
        lists.noteRecent(actor.person(), item, "filed", now);
        recorder.note(
                actor,
                item,
                "version.added",
                version.number(),
                "filed " + number.number() + " as a " + kind.name() + ", version 1 (" + Numbers.size(content.size())
                        + ")" + (takenOver ? ", taken over as revision " + label.get() : ""),
                "");
        if (hold && actor.access().may(Right.CHANGE, place(folder, kind.id()))) {
            Seen seen = sight.of(actor, item);
            holds.take(List.of(seen.document()), actor.person(), "", "", now);
            recorder.note(actor, item, "hold.taken", version.number(), "holds it from the filing on", "");
        }
    }

    /** Sheets of the actor that wait. */
    public List<Waiting> waiting(Actor actor) {
        List<Filing> open = filings.openOf(actor.person(), 10);
        Map<Long, Integer> counts = filings.counts(open.stream().map(Filing::id).toList());
        return open.stream()
                .map(f -> new Waiting(
                        f,
                        shelves.shelf(f.shelf()).map(ShelfStore.Shelf::name).orElse("–"),
                        counts.getOrDefault(f.id(), 0)))
                .toList();
    }

    /** A filing sheet that is not filed yet. */
    public record Waiting(Filing filing, String shelf, int files) {}
}
