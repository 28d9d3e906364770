package mintshelf.app.use.sheetmap;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.SheetValues;
import mintshelf.app.effect.SheetWriter;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sheets;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.SheetMapStore.Edition;
import mintshelf.app.store.output.OutputStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.document.Revision;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.titleblock.HandTable;
import mintshelf.core.drawing.titleblock.RevisionBlock;
import mintshelf.core.drawing.titleblock.SheetMap;
import mintshelf.core.revision.StageClass;
import org.springframework.stereotype.Service;

/** Title blocks beside their records. */
@Service
public class ReadBlocks {
    private final Sight sight;
    private final VersionStore versions;
    private final FactStore facts;
    private final HouseStore house;
    private final OutputStore outputs;
    private final Sheets sheets;
    private final SheetValues values;

    public ReadBlocks(
            Sight sight,
            VersionStore versions,
            FactStore facts,
            HouseStore house,
            OutputStore outputs,
            Sheets sheets,
            SheetValues values) {
        this.sight = sight;
        this.versions = versions;
        this.facts = facts;
        this.house = house;
        this.outputs = outputs;
        this.sheets = sheets;
        this.values = values;
    }

    /**
     * A field of a title block, as the sheet and as the record has it.
     *
     * @param kept whether the record keeps such a value at all
     */
    public record FieldLine(SheetMap.Field field, String sheet, String record, boolean kept) {
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
     * @param byHand rows of a revision table that was drawn by hand, where there is no such block
     * @param drawing whether the content is a sheet that can be read
     */
    public record Block(
            Seen seen,
            VersionRow version,
            Optional<Edition> map,
            List<FieldLine> lines,
            List<Map<String, String>> rows,
            List<Map<String, String>> byHand,
            boolean drawing,
            Optional<Refusal> refusal) {
        public long differing() {
            return lines.stream().filter(FieldLine::differs).count();
        }

        public long toTake() {
            return lines.stream().filter(FieldLine::isTaken).count();
        }

        public boolean isToWrite() {
            return lines.stream().anyMatch(l -> l.differs() && l.isWritten());
        }

        public String title() {
            return lines.stream()
                    .filter(l -> l.isTaken() && l.field().fact().equals("title"))
                    .map(FieldLine::sheet)
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
        List<FieldLine> lines = new ArrayList<>();
        List<Map<String, String>> rows = List.of();
        List<Map<String, String>> byHand = List.of();
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
                lines.add(
                        new FieldLine(said.field(), said.value(), record.getOrDefault(fact, ""), kept.contains(fact)));
            }
            rows = map.get().map().revisions().map(r -> r.read(drawing.get())).orElse(List.of());
            byHand = SheetWriter.byHand(map.get().map(), drawing.get())
                    .map(HandTable::rows)
                    .orElse(List.of());
        }
        return new Block(
                seen, version, map, lines, rows, byHand, drawing.isPresent(), WriteSheets.refusal(actor, seen));
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
        else if (current) record.putAll(valuesOf(document, revision));
        return record;
    }

    private Map<String, String> valuesOf(Document document, Revision revision) {
        return values.unsigned(
                document, revision.label().orElse(""), revision.stage().name());
    }

    /** Whether the sheet map of a row can carry a revision block that the sheet lacks. */
    public static boolean couldPlace(Block block) {
        Optional<RevisionBlock> revisions = block.map().flatMap(m -> m.map().revisions());
        return revisions.isPresent() && block.rows().isEmpty();
    }
}
