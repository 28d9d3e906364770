package mintshelf.app.use.filing;

import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import mintshelf.app.effect.NeutralCopies;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.Places;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.content.UploadStore;
import mintshelf.app.store.filing.FilingStore;
import mintshelf.app.store.filing.FilingStore.Filing;
import mintshelf.app.store.filing.FilingStore.Origin;
import mintshelf.app.store.filing.FilingStore.Row;
import mintshelf.app.store.house.FilingRuleStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.KindFact;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.core.access.Right;
import mintshelf.core.base.Texts;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.FileName;
import mintshelf.core.document.NeutralForm;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.FactSource;
import mintshelf.core.fact.RequiredAt;
import mintshelf.core.filing.FilingRule;
import mintshelf.core.revision.ShippedSeries;
import org.springframework.stereotype.Service;

/** Filing sheets: what was dropped, with what it could be filed as, until it is filed or given up. */
@Service
public class FilingSheets {
    private final FilingStore filings;
    private final UploadStore uploads;
    private final Proposals proposals;
    private final HouseStore house;
    private final FilingRuleStore filing;
    private final ShelfStore shelves;
    private final Sight sight;
    private final UnitOfWork unit;
    private final Clock clock;

    public FilingSheets(
            FilingStore filings,
            UploadStore uploads,
            Proposals proposals,
            HouseStore house,
            FilingRuleStore filing,
            ShelfStore shelves,
            Sight sight,
            UnitOfWork unit,
            Clock clock) {
        this.filings = filings;
        this.uploads = uploads;
        this.proposals = proposals;
        this.house = house;
        this.filing = filing;
        this.shelves = shelves;
        this.sight = sight;
        this.unit = unit;
        this.clock = clock;
    }

    static final int MOST_ROWS = 1000;
    private static final int DEEPEST = 20;
    /** Rows that its page shows at once. */
    private static final int PAGE = 100;

    /**
     * A filing sheet with all that its page shows.
     *
     * @param kept by row the number that its document gets, where none is said
     * @param mayStand whether the actor may say that something was released elsewhere
     */
    public record Sheet(
            Filing filing,
            Optional<Seen> derivedFrom,
            ShelfStore.Shelf shelf,
            List<Folder> folders,
            List<Kind> kinds,
            Map<Long, List<KindFact>> factSheets,
            Map<String, String> presets,
            List<FilingLine> lines,
            Map<Long, String> kept,
            boolean mayStand) {
        /** Lines of which a document is made, when they are ticked; those that are filed already are left out. */
        public List<FilingLine> documents() {
            return lines.stream()
                    .filter(l -> l.row().beside().isEmpty() && l.row().item().isEmpty())
                    .toList();
        }

        /** Lines of one page, which is counted from 1 on; of one that is not there the last. */
        public List<FilingLine> page(int page) {
            List<FilingLine> all = documents();
            int at = PAGE * (Math.max(1, Math.min(page, pages())) - 1);
            return all.subList(at, Math.min(all.size(), at + PAGE));
        }

        public int pages() {
            return Math.max(1, (documents().size() + PAGE - 1) / PAGE);
        }

        /** The page on which a line stands. */
        public int pageOf(FilingLine line) {
            return documents().indexOf(line) / PAGE + 1;
        }

        /** How many are filed already, of a sheet that stopped between two portions. */
        public long filed() {
            return lines.stream().filter(l -> l.row().item().isPresent()).count();
        }

        /** How many documents of the other pages are ticked. */
        public long tickedElsewhere(int page) {
            List<FilingLine> here = page(page);
            return documents().stream()
                    .filter(l -> l.row().included() && !here.contains(l))
                    .count();
        }

        /** Whether a line lies beside the file of another one of which a document was made. */
        public boolean isLaid(FilingLine line) {
            return lines.stream()
                    .anyMatch(l ->
                            line.row().beside().filter(b -> b == l.row().id()).isPresent()
                                    && l.made().isPresent());
        }

        /** What comes with the file of a line as its neutral copies. */
        public List<FilingLine> copies(FilingLine line) {
            return lines.stream()
                    .filter(l ->
                            l.row().beside().filter(b -> b == line.row().id()).isPresent())
                    .toList();
        }

        /** What stands in the field of a row's fact: what was read or typed, else what the house presets. */
        public String said(FilingLine line, KindFact fact) {
            String name = fact.fact().name();
            return line.row().facts().getOrDefault(name, presets.getOrDefault(name, ""));
        }

        /** The facts of a row that are asked for on the sheet: what its kind wants, what is there already, what is preset. */
        public List<KindFact> asked(FilingLine line) {
            return line.row().kind().map(k -> factSheets.getOrDefault(k, List.of())).orElse(List.of()).stream()
                    .filter(f -> f.fact().use().source() != FactSource.COMPUTED)
                    .filter(f -> f.required() != RequiredAt.NEVER
                            || !said(line, f).isEmpty()
                            || line.row().facts().containsKey(f.fact().name()))
                    .toList();
        }

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
    public record FilingLine(Row row, Upload upload, Optional<Seen> sameAs, Optional<Seen> made) {}

    /** As {@link #open(Actor, long, OptionalLong, List, Optional)}, of files that were derived from no document. */
    public long open(Actor actor, long shelf, OptionalLong folder, List<String> tokens) {
        return open(actor, shelf, folder, tokens, Optional.empty());
    }

    /** As {@link #open(Actor, long, OptionalLong, List, List, Optional)}, of files that came without folders. */
    public long open(Actor actor, long shelf, OptionalLong folder, List<String> tokens, Optional<Long> derivedFrom) {
        return open(actor, shelf, folder, tokens, List.of(), derivedFrom);
    }

    /**
     * Opens a sheet for uploads that are complete.
     *
     * @param paths the folders in which they lay, in the order of the tokens, with slashes; none where they came without
     * @param derivedFrom the document of which they are changed copies
     */
    public long open(
            Actor actor,
            long shelf,
            OptionalLong folder,
            List<String> tokens,
            List<String> paths,
            Optional<Long> derivedFrom) {
        if (tokens.isEmpty() || tokens.size() > MOST_ROWS) {
            throw Refused.because(
                    "filing.rows",
                    "A filing sheet takes 1 to " + MOST_ROWS + " files.",
                    "Drop them in portions; who keeps the shelf takes a whole folder in.");
        }
        if (shelves.shelf(shelf).isEmpty()) throw new NotThere();
        Optional<Seen> copied = derivedFrom.map(from -> sight.of(actor, from));
        Folder to = folder.isPresent()
                ? shelves.folder(folder.getAsLong())
                        .filter(f -> f.shelf() == shelf)
                        .orElseThrow(NotThere::new)
                : shelves.root(shelf);
        askForSomeKind(actor, to);
        List<FilingRule> rules = filing.all();
        List<Upload> uploads = new ArrayList<>();
        for (String token : tokens.stream().distinct().toList()) {
            uploads.add(this.uploads
                    .upload(token)
                    .filter(u -> u.person() == actor.person() && u.state() == Upload.State.COMPLETE)
                    .orElseThrow(() -> Refused.because(
                            "upload.missing", "A file did not arrive whole.", "Drop it again; nothing was filed.")));
        }
        Map<String, String> below = below(tokens, paths);
        Map<String, Folder> there = shelves.below(to, below.values(), false);
        List<Row> rows = uploads.stream()
                .map(u -> {
                    Row row = proposals.propose(actor, u, to, rules);
                    String path = below.getOrDefault(u.token(), "");
                    Folder known = there.get(path);
                    return known == null ? row.into(to.id(), path) : row.into(known.id(), "");
                })
                .map(r -> copied.map(of -> proposals.copy(r, of)).orElse(r))
                .toList();
        return unit.run(() -> {
            long filing = filings.open(actor.person(), shelf, to.id(), derivedFrom, clock.instant());
            addRows(filing, rows, uploads);
            proposals.reserve(actor, shelf, filings.rows(filing));
            return filing;
        });
    }

    /** What lies beside the file of another row in an open form, under the same name, comes with it as its neutral copy. */
    private void addRows(long filing, List<Row> rows, List<Upload> uploads) {
        Map<String, Long> mains = new HashMap<>();
        Map<String, Row> copies = new HashMap<>();
        for (int i = 0; i < rows.size(); i++) {
            if (!isMain(uploads.get(i))) copies.putIfAbsent(place(rows.get(i), uploads.get(i)), rows.get(i));
        }
        for (int i = 0; i < rows.size(); i++) {
            if (!isMain(uploads.get(i))) continue;
            String place = place(rows.get(i), uploads.get(i));
            Row row = Optional.ofNullable(copies.get(place))
                    .map(rows.get(i)::saying)
                    .orElse(rows.get(i));
            mains.putIfAbsent(place, filings.addRow(filing, i, row));
        }
        for (int i = 0; i < rows.size(); i++) {
            Upload upload = uploads.get(i);
            if (isMain(upload)) continue;
            Optional<Long> beside = NeutralCopies.form(upload).isEmpty()
                    ? Optional.empty()
                    : Optional.ofNullable(mains.get(place(rows.get(i), upload)));
            filings.addRow(filing, i, rows.get(i).beside(beside));
        }
    }

    private static boolean isMain(Upload upload) {
        return NeutralForm.isWanted(upload.kind().orElse(ContentKind.OTHER), FileName.of(upload.fileName()));
    }

    /** Where a file lies, and its name without the ending. */
    private static String place(Row row, Upload upload) {
        return row.folder() + " " + row.path() + "/"
                + FileName.of(FileName.of(upload.fileName()).stem()).key();
    }

    /** The folders of files, made safe; those at the top are left out. */
    private static Map<String, String> below(List<String> tokens, List<String> paths) {
        Map<String, String> below = new HashMap<>();
        for (int i = 0; i < Math.min(tokens.size(), paths.size()); i++) {
            if (paths.get(i).isBlank()) continue;
            String path = FileName.path(paths.get(i));
            if (path.length() > 1000 || path.split("/").length > DEEPEST) {
                throw Refused.because(
                        "filing.deep",
                        "“" + Texts.shorten(path, 80) + "” lies too deep.",
                        "Drop a folder further down; nothing was filed.");
            }
            for (String name : path.split("/"))
                FileName.folder("The folder", name).orElseThrow(Refused::new);
            below.put(tokens.get(i), path);
        }
        return below;
    }

    private void askForSomeKind(Actor actor, Folder folder) {
        boolean some = house.kinds().stream()
                .filter(Kind::isFiled)
                .anyMatch(k -> actor.access().may(Right.FILE, Places.of(shelves, folder, k.id())));
        if (!some) {
            throw Refused.because(
                    "access.missing",
                    "Your roles do not let you file documents here.",
                    "A data manager can give you one that does.");
        }
    }

    /** The actor's own sheet. */
    public Sheet sheet(Actor actor, long id) {
        Filing filing =
                filings.filing(id).filter(f -> f.person() == actor.person()).orElseThrow(NotThere::new);
        List<Row> rows = filings.rows(id);
        Map<Long, Upload> uploads =
                this.uploads.uploads(rows.stream().map(Row::upload).toList());
        Set<Long> items = new HashSet<>();
        filing.derivedFrom().ifPresent(items::add);
        rows.forEach(r -> {
            r.sameAs().ifPresent(items::add);
            r.item().ifPresent(items::add);
        });
        Map<Long, Seen> seen = sight.of(actor, items);
        List<FilingLine> lines = rows.stream()
                .map(r -> new FilingLine(
                        r,
                        uploads.get(r.upload()),
                        r.sameAs().map(seen::get),
                        r.item().map(seen::get)))
                .toList();
        Map<Long, List<KindFact>> facts = house.factSheets();
        return new Sheet(
                filing,
                filing.derivedFrom().map(seen::get),
                shelves.shelf(filing.shelf()).orElseThrow(),
                shelves.folders(filing.shelf()),
                house.kinds().stream().filter(Kind::isFiled).toList(),
                facts,
                proposals.presets(actor, facts.values()),
                lines,
                filing.isOpen() ? proposals.kept(rows) : Map.of(),
                shelves.shelf(filing.shelf())
                        .filter(s -> StandsAs.may(actor, s))
                        .isPresent());
    }

    /** The rows of an open sheet of the actor with their files; what its page says besides is not asked. */
    public Map<Row, Upload> files(Actor actor, long id) {
        boolean mine = filings.filing(id)
                .filter(f -> f.person() == actor.person() && f.isOpen())
                .isPresent();
        if (!mine) throw new NotThere();
        List<Row> rows = filings.rows(id);
        Map<Long, Upload> uploads =
                this.uploads.uploads(rows.stream().map(Row::upload).toList());
        Map<Row, Upload> files = new LinkedHashMap<>();
        rows.forEach(r -> files.put(r, uploads.get(r.upload())));
        return files;
    }

    /** Gives a sheet up; its files go when their lease ends. */
    public void drop(Actor actor, long id) {
        unit.run(() -> {
            Filing filing = filings.lock(id)
                    .filter(f -> f.person() == actor.person() && f.isOpen())
                    .orElseThrow(NotThere::new);
            proposals.giveBack(actor, filings.rows(id));
            filings.end(filing.id(), FilingStore.State.DROPPED, clock.instant());
        });
    }

    /** As {@link #keep(Actor, long, List, String)}, of what nothing is said as a whole. */
    public void keep(Actor actor, long id, List<Row> edits) {
        keep(actor, id, edits, "");
    }

    /**
     * Keeps what was typed, whatever comes of filing.
     *
     * @param comment what is said of all versions; empty for the usual words
     */
    public void keep(Actor actor, long id, List<Row> edits, String comment) {
        String ofAll = Texts.shorten(Texts.lines(comment), 2000);
        unit.run(() -> {
            Filing filing = filings.lock(id)
                    .filter(f -> f.person() == actor.person() && f.isOpen())
                    .orElseThrow(NotThere::new);
            filings.comment(id, ofAll);
            Map<Long, Row> own = filings.rows(id).stream().collect(Collectors.toMap(Row::id, r -> r));
            Set<String> untyped = house.facts().stream()
                    .filter(f -> !f.use().source().isTyped())
                    .map(FactDefinition::name)
                    .collect(Collectors.toSet());
            Set<Long> kinds =
                    house.kinds().stream().filter(Kind::isFiled).map(Kind::id).collect(Collectors.toSet());
            Set<Long> folders =
                    shelves.folders(filing.shelf()).stream().map(Folder::id).collect(Collectors.toSet());
            Set<Long> starts = sight.of(
                            actor,
                            edits.stream()
                                    .flatMap(e -> e.origin().startedFrom().stream())
                                    .toList())
                    .keySet();
            for (Row edit : edits) {
                Row row = own.get(edit.id());
                if (row == null) continue;
                Map<String, String> facts = new TreeMap<>(edit.facts());
                facts.keySet().removeAll(untyped);
                row.facts().forEach((name, said) -> {
                    if (untyped.contains(name)) facts.put(name, said);
                });
                // What there is not, or not for this person, was chosen on no page.
                if (!folders.contains(edit.folder())
                        || !kinds.containsAll(edit.kind().stream().toList())) {
                    throw new NotThere();
                }
                Optional<Long> from = edit.origin().startedFrom().filter(starts::contains);
                filings.edit(edit.withFacts(facts).from(new Origin(edit.origin().released(), from)));
            }
            proposals.reserve(actor, filing.shelf(), filings.rows(id));
        });
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
