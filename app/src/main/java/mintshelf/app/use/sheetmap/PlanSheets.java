package mintshelf.app.use.sheetmap;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.SheetValues;
import mintshelf.app.effect.SheetWriter;
import mintshelf.app.effect.SheetWriter.Draft;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.SheetMapStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.document.Revision;
import org.springframework.stereotype.Service;

/** What writing into sheets would do; nothing is changed. */
@Service
public class PlanSheets {
    private final Sight sight;
    private final VersionStore versions;
    private final SheetMapStore maps;
    private final SheetWriter writer;
    private final SheetValues values;

    public PlanSheets(Sight sight, VersionStore versions, SheetMapStore maps, SheetWriter writer, SheetValues values) {
        this.sight = sight;
        this.versions = versions;
        this.maps = maps;
        this.writer = writer;
        this.values = values;
    }

    private Map<String, String> values(Document document, Revision revision) {
        return values.unsigned(
                document, revision.label().orElse(""), revision.stage().name());
    }

    /** What writing would do to each of the documents, as the actor may see them. O(bytes). */
    public List<WriteSheets.Row> plan(Actor actor, Collection<Long> items, WriteSheets.How how) {
        return sight.of(actor, items).values().stream()
                .map(seen -> row(actor, seen, how))
                .toList();
    }

    /** What writing would do to one document. */
    WriteSheets.Row row(Actor actor, Seen seen, WriteSheets.How how) {
        Optional<Refusal> refusal = seen.all()
                ? WriteSheets.refusal(actor, seen)
                : Optional.of(Refusal.of("access.missing", "Work in preparation is not shown to you.", ""));
        if (refusal.isPresent()) return new WriteSheets.Row(seen, Optional.empty(), refusal);
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
            return new WriteSheets.Row(seen, draft, Optional.empty());
        } catch (Refused e) {
            return new WriteSheets.Row(seen, Optional.empty(), Optional.of(e.refusal()));
        }
    }

    private static WriteSheets.Row stays(Seen seen, String code, String reason, String remedy) {
        return new WriteSheets.Row(seen, Optional.empty(), Optional.of(Refusal.of(code, reason, remedy)));
    }
}
