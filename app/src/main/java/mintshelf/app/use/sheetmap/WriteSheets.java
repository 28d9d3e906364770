package mintshelf.app.use.sheetmap;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
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
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.house.SheetMapStore;
import mintshelf.app.store.house.SheetMapStore.Edition;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.hold.HoldRules;
import mintshelf.core.revision.StageClass;
import mintshelf.core.stamp.SheetStamp;
import org.springframework.stereotype.Service;

/** Record and sheet side by side, and writing what the record says into sheets that are in preparation. */
@Service
public class WriteSheets {
    private final Sight sight;
    private final PlanSheets plan;
    private final DocumentStore documents;
    private final SheetMapStore maps;
    private final SheetWriter writer;
    private final SheetHistory history;
    private final Acts acts;
    private final Recorder recorder;
    private final Clock clock;

    public WriteSheets(
            Sight sight,
            PlanSheets plan,
            DocumentStore documents,
            SheetMapStore maps,
            SheetWriter writer,
            SheetHistory history,
            Acts acts,
            Recorder recorder,
            Clock clock) {
        this.sight = sight;
        this.plan = plan;
        this.documents = documents;
        this.maps = maps;
        this.writer = writer;
        this.history = history;
        this.acts = acts;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** How a sheet is written: with a map or the one that fits, with or without a first revision block. */
    public record How(Optional<Long> map, boolean place) {
        public static final How USUAL = new How(Optional.empty(), false);
    }

    /** What stands in the way of writing into a document's sheet by hand. */
    public static Optional<Refusal> refusal(Actor actor, Seen seen) {
        Document document = seen.document();
        Optional<Refusal> missing = actor.access().ask(Right.CHANGE, document.place());
        if (missing.isPresent()) return missing;
        if (seen.spine().isChangePaper()) {
            return Optional.of(Refusal.of("change.paper", "Changes write their papers themselves.", ""));
        }
        if (document.part()) return Optional.of(HoldRules.noFile(document));
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

    /** The sheet as it is against the sheet as it would be written. */
    public Optional<Compared> preview(Actor actor, long item, How how) {
        Seen seen = sight.of(actor, item);
        if (!seen.all()) throw new NotThere();
        Row row = plan.row(actor, seen, how);
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
                Row row = plan.row(actor, seen, how);
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
}
