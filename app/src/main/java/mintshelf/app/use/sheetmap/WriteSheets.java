package mintshelf.app.use.sheetmap;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.SheetWriter;
import mintshelf.app.effect.SheetWriter.Draft;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Compared;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.SheetHistory;
import mintshelf.app.sight.Sheets;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.SheetMapStore;
import mintshelf.app.store.house.SheetMapStore.Edition;
import mintshelf.app.store.output.OutputStore;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.document.Revision;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.titleblock.RevisionBlock;
import mintshelf.core.drawing.titleblock.SheetMap;
import mintshelf.core.revision.StageClass;
import mintshelf.core.stamp.SheetStamp;
import org.springframework.stereotype.Service;

/** Record and sheet side by side, and writing what the record says into sheets that are in preparation. */
@Service
public class WriteSheets {
    private final Sight sight;
    private final DocumentStore documents;
    private final FactStore facts;
    private final VersionStore versions;
    private final HouseStore house;
    private final SheetMapStore maps;
    private final Sheets sheets;
    private final SheetWriter writer;
    private final SheetHistory history;
    private final OutputStore outputs;
    private final Acts acts;
    private final Recorder recorder;
    private final Clock clock;

    public WriteSheets(
            Sight sight,
            DocumentStore documents,
            FactStore facts,
            VersionStore versions,
            HouseStore house,
            SheetMapStore maps,
            Sheets sheets,
            SheetWriter writer,
            SheetHistory history,
            OutputStore outputs,
            Acts acts,
            Recorder recorder,
            Clock clock) {
        this.sight = sight;
        this.documents = documents;
        this.facts = facts;
        this.versions = versions;
        this.house = house;
        this.maps = maps;
        this.sheets = sheets;
        this.writer = writer;
        this.history = history;
        this.outputs = outputs;
        this.acts = acts;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** How a sheet is written: with a map or the one that fits, with or without a first revision block. */
    public record How(Optional<Long> map, boolean place) {
        public static final How USUAL = new How(Optional.empty(), false);
    }

    /**
     * A field of a title block, as the sheet and as the record has it.
     *
     * @param kept whether the record keeps such a value at all
     */
    public record Line(SheetMap.Field field, String sheet, String record, boolean kept) {
        public boolean differs() {
            return kept && !sheet.equals(record);
        }

        /** Whether the sheet says something that the record should take over. */
        public boolean isTaken() {
            return differs() && !isWritten() && !sheet.isBlank();
        }

        public boolean isWritten() {
            return field.way() == SheetMap.Way.WRITTEN;
        }
    }

    /**
     * A title block beside its record.
     *
     * @param rows of the revision block as the sheet has them
     * @param drawing whether the content is a sheet that can be read
     */
    public record Block(
            Seen seen,
            VersionRow version,
            Optional<Edition> map,
            List<Line> lines,
            List<Map<String, String>> rows,
            boolean drawing,
            Optional<Refusal> refusal) {
        public long differing() {
            return lines.stream().filter(Line::differs).count();
        }

        public long toTake() {
            return lines.stream().filter(Line::isTaken).count();
        }

        public boolean isToWrite() {
            return lines.stream().anyMatch(l -> l.differs() && l.isWritten());
        }

        public String title() {
            return lines.stream()
                    .filter(l -> l.isTaken() && l.field().fact().equals("title"))
                    .map(Line::sheet)
                    .findFirst()
                    .orElse(seen.document().title());
        }
    }

    /** The title block of the version that the actor is shown. */
    public Block block(Actor actor, long item) {
        Seen seen = sight.of(actor, item);
        VersionRow version = versions.version(item, seen.version()).orElseThrow(NotThere::new);
        Optional<DxfDrawing> drawing = sheets.opened(version.content());
        Optional<Edition> map = drawing.flatMap(sheets::mapFor);
        List<Line> lines = new ArrayList<>();
        List<Map<String, String>> rows = List.of();
        if (map.isPresent()) {
            Map<String, String> record = record(seen, version);
            Set<String> kept = new HashSet<>(record.keySet());
            house.factSheets()
                    .getOrDefault(seen.document().place().kind(), List.of())
                    .forEach(f -> kept.add(f.fact().name()));
            // While it is being decided on, the sheet says of its stage what it said when it was sent.
            if (seen.current().stage().stageClass() == StageClass.DECIDING) kept.remove("status");
            for (SheetMap.Said said : map.get().map().found(drawing.get())) {
                String fact = said.field().fact();
                lines.add(new Line(said.field(), said.value(), record.getOrDefault(fact, ""), kept.contains(fact)));
            }
            rows = map.get().map().revisions().map(r -> r.read(drawing.get())).orElse(List.of());
        }
        return new Block(seen, version, map, lines, rows, drawing.isPresent(), refusal(actor, seen));
    }

    /** What the record says of what a sheet shows: its facts, and what the shelf writes or wrote. */
    private Map<String, String> record(Seen seen, VersionRow version) {
        Document document = seen.document();
        Map<String, String> record = new HashMap<>(facts.facts(version.revision()));
        record.put("title", document.title());
        Optional<OutputStore.Proof> proof = outputs.proof(version.id());
        Revision revision = seen.current();
        boolean current = revision.id() == version.revision();
        if (proof.isPresent()) record.putAll(proof.get().values().values());
        else if (current) record.putAll(values(document, revision));
        return record;
    }

    private Map<String, String> values(Document document, Revision revision) {
        return writer.unsigned(
                document, revision.label().orElse(""), revision.stage().name());
    }

    /** What stands in the way of writing into a document's sheet by hand. */
    public static Optional<Refusal> refusal(Actor actor, Seen seen) {
        Document document = seen.document();
        Optional<Refusal> missing = actor.access().ask(Right.CHANGE, document.place());
        if (missing.isPresent()) return missing;
        if (seen.spine().isChangePaper()) {
            return Optional.of(Refusal.of("change.paper", "Changes write their papers themselves.", ""));
        }
        if (document.pending().isEmpty()) {
            return Optional.of(Refusal.of(
                    "stage.fixed",
                    document.number() + " is released as it is.",
                    "Start the next revision; its sheet is written then."));
        }
        if (document.pending().get().stage().stageClass() != StageClass.PREPARING) {
            return Optional.of(Refusal.of(
                    "stage.deciding", document.number() + " is being decided on.", "Its release writes the sheet."));
        }
        return document.holder().map(h -> {
            boolean mine = h.person() == actor.person();
            return Refusal.of(
                    "hold.taken",
                    document.number() + " is held by " + (mine ? "you" : h.name()) + ".",
                    mine ? "Check it in first; your desk would fall behind." : "Ask " + h.name() + " first.");
        });
    }

    /** A row of the plan: what will be written into a sheet, or why nothing is. */
    public record Row(Seen seen, Optional<Draft> draft, Optional<Refusal> refusal) {
        public boolean opens() {
            return refusal.isEmpty();
        }
    }

    /** What writing would do to each of the documents, as the actor may see them. O(bytes). */
    public List<Row> plan(Actor actor, Collection<Long> items, How how) {
        return sight.of(actor, items).values().stream()
                .map(seen -> row(actor, seen, how))
                .toList();
    }

    private Row row(Actor actor, Seen seen, How how) {
        Optional<Refusal> refusal = seen.all()
                ? refusal(actor, seen)
                : Optional.of(Refusal.of("access.missing", "Work in preparation is not shown to you.", ""));
        if (refusal.isPresent()) return new Row(seen, Optional.empty(), refusal);
        Document document = seen.document();
        Revision revision = document.pending().orElseThrow();
        try {
            Optional<Draft> draft = writer.draft(
                    document,
                    revision.id(),
                    versions.version(document.id(), document.head().number())
                            .orElseThrow()
                            .content(),
                    values(document, revision),
                    how.map().map(id -> maps.find(id).orElseThrow(NotThere::new)),
                    how.place());
            if (draft.isEmpty()) return stays(seen, "sheet.no_map", "No sheet map fits its sheet.", "Choose one.");
            if (draft.get().stamped().edits().isEmpty()) {
                boolean none = how.place() && draft.get().values().rows().isEmpty();
                return none
                        ? stays(seen, "sheet.no_rows", "The record has no revision to write yet.", "Start one.")
                        : stays(seen, "sheet.same", "The sheet says what the record says.", "");
            }
            return new Row(seen, draft, Optional.empty());
        } catch (Refused e) {
            return new Row(seen, Optional.empty(), Optional.of(e.refusal()));
        }
    }

    private static Row stays(Seen seen, String code, String reason, String remedy) {
        return new Row(seen, Optional.empty(), Optional.of(Refusal.of(code, reason, remedy)));
    }

    /** The sheet as it is against the sheet as it would be written. */
    public Optional<Compared> preview(Actor actor, long item, How how) {
        Seen seen = sight.of(actor, item);
        if (!seen.all()) throw new NotThere();
        Row row = row(actor, seen, how);
        if (row.refusal().isPresent()) throw new Refused(row.refusal().get());
        Draft draft = row.draft().orElseThrow();
        return history.draw(draft.signed(), draft.stamped().bytes());
    }

    /** Writes all of the sheets, or none. */
    public String write(Actor actor, Collection<Long> items, How how, String key) {
        return acts.once(actor, key, () -> {
            List<Seen> all = sight.locked(actor, items);
            List<String> refused = new ArrayList<>();
            for (Seen seen : all) {
                Row row = row(actor, seen, how);
                if (row.refusal().isPresent()) refused.add(row.refusal().get().says());
                else writeOne(actor, row);
            }
            if (!refused.isEmpty()) {
                throw Refused.because("sheet.refused", String.join(" ", refused), "No sheet was written.");
            }
            if (all.size() == 1) return "/documents/" + all.get(0).spine().id();
            String ids = all.stream().map(a -> Long.toString(a.spine().id())).collect(Collectors.joining(","));
            return "/write-sheets?items=" + ids;
        });
    }

    private void writeOne(Actor actor, Row row) {
        Document document = row.seen().document();
        Draft draft = row.draft().orElseThrow();
        int number = writer.keep(
                        actor,
                        document,
                        document.pending().orElseThrow().id(),
                        draft,
                        "written from the record: " + named(draft.stamped().edits()))
                .orElseThrow();
        documents.touch(document.id(), clock.instant());
        recorder.note(
                actor,
                document.id(),
                "version.added",
                number,
                "had version " + number + " written with the sheet map “"
                        + draft.map().map().name() + "”",
                named(draft.stamped().edits()));
    }

    private static String named(List<SheetStamp.Edit> edits) {
        return String.join(", ", edits.stream().map(SheetStamp.Edit::tag).toList());
    }

    /** The maps that a person can choose from. */
    public List<Edition> maps() {
        return maps.latest();
    }

    /** Whether the sheet map of a row can carry a revision block that the sheet lacks. */
    public static boolean couldPlace(Block block) {
        Optional<RevisionBlock> revisions = block.map().flatMap(m -> m.map().revisions());
        return revisions.isPresent() && block.rows().isEmpty();
    }
}
