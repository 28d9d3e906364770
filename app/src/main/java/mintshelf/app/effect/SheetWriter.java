package mintshelf.app.effect;

import java.time.Clock;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.SheetHistory;
import mintshelf.app.sight.Sheets;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.SheetMapStore;
import mintshelf.app.store.output.OutputStore;
import mintshelf.core.base.Outcome;
import mintshelf.core.document.Document;
import mintshelf.core.document.VersionDigest;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.titleblock.HandTable;
import mintshelf.core.drawing.titleblock.SheetMap;
import mintshelf.core.stamp.SheetStamp;
import mintshelf.core.stamp.SheetStamp.Stamped;
import org.springframework.stereotype.Component;

/**
 * Writes what the record says into a sheet, as a version of its own with a proof; the version that was signed stays as it is.
 * Within the transaction of the act that asks for it.
 */
@Component
public class SheetWriter {

    private final FactStore facts;
    private final VersionStore versions;
    private final RevisionRows rows;
    private final Sheets sheets;
    private final SheetHistory history;
    private final ReadingRoom room;
    private final KeepContent contents;
    private final OutputStore outputs;
    private final Clock clock;

    public SheetWriter(
            FactStore facts,
            VersionStore versions,
            RevisionRows rows,
            Sheets sheets,
            SheetHistory history,
            ReadingRoom room,
            KeepContent contents,
            OutputStore outputs,
            Clock clock) {
        this.facts = facts;
        this.versions = versions;
        this.rows = rows;
        this.sheets = sheets;
        this.history = history;
        this.room = room;
        this.contents = contents;
        this.outputs = outputs;
        this.clock = clock;
    }

    /** Why nothing would be written into a content; empty where a map has places on it. */
    public Optional<String> silent(StoredContent content) {
        return room.apart(() -> {
            Optional<DxfDrawing> drawing = sheets.opened(content);
            if (drawing.isEmpty()) return sheets.whyUnread(content).or(() -> Optional.of("It cannot be read."));
            return sheets.mapFor(drawing.get()).isPresent()
                    ? Optional.empty()
                    : Optional.of("No sheet map has a place on it.");
        });
    }

    /** A sheet as it will be written, with the map and the values that it is written with. */
    public record Draft(SheetMapStore.Edition map, SheetStamp.Values values, byte[] signed, Stamped stamped) {}

    /**
     * Writes the values into a copy of a sheet; nothing is kept.
     *
     * @param chosen the map to write with; without one the one that fits
     * @param place whether a sheet without a revision block gets one
     * @return nothing when the content is no sheet that a map knows
     */
    public Optional<Draft> draft(
            Document document,
            long revision,
            StoredContent content,
            Map<String, String> values,
            Optional<SheetMapStore.Edition> chosen,
            boolean place) {
        return room.apart(() -> drafted(document, revision, content, values, chosen, place));
    }

    private Optional<Draft> drafted(
            Document document,
            long revision,
            StoredContent content,
            Map<String, String> values,
            Optional<SheetMapStore.Edition> chosen,
            boolean place) {
        Optional<byte[]> signed = sheets.drawing(content);
        Optional<DxfDrawing> drawing = signed.flatMap(sheets::opened);
        if (drawing.isEmpty()) return Optional.empty();
        Optional<SheetMapStore.Edition> map = chosen.or(() -> sheets.mapFor(drawing.get()));
        if (map.isEmpty()) return Optional.empty();
        List<Map<String, String>> rows = map.get()
                .map()
                .revisions()
                .filter(r -> place || r.drawn() || r.isOn(drawing.get()))
                .map(r -> this.rows.of(document, revision, r, values))
                .orElse(List.of());
        int recipe = place && byHand(map.get().map(), drawing.get()).isPresent()
                ? SheetStamp.Values.REPLACED
                : SheetStamp.Values.FITTED;
        SheetStamp.Values all = new SheetStamp.Values(values, rows, place, recipe);
        Stamped stamped = SheetStamp.write(signed.get(), map.get().map(), all).orElseThrow(Refused::new);
        boolean released = !values.getOrDefault("issued", "").isEmpty();
        if (released && !rows.isEmpty()) {
            String zones = changedZones(document, map.get().map(), all, stamped.bytes());
            if (!zones.isEmpty()) {
                all = new SheetStamp.Values(
                        values, withZones(rows, values.getOrDefault("revision", ""), zones), place, recipe);
                stamped = SheetStamp.write(signed.get(), map.get().map(), all).orElseThrow(Refused::new);
            }
        }
        return Optional.of(new Draft(map.get(), all, signed.get(), stamped));
    }

    /** The revision table that was drawn by hand on a sheet without a block that the map knows. */
    public static Optional<HandTable> byHand(SheetMap map, DxfDrawing drawing) {
        return map.revisions().filter(r -> !r.isOn(drawing)).flatMap(r -> HandTable.of(drawing));
    }

    /**
     * Where the sheet differs from the one that was signed for the revision before. Both carry the same blocks for that, so that
     * only the designer's changes count.
     */
    private String changedZones(Document document, SheetMap map, SheetStamp.Values values, byte[] written) {
        VersionRow head =
                versions.version(document.id(), document.head().number()).orElseThrow();
        return history.ofFormerRevision(document.id(), head)
                .flatMap(v -> sheets.drawing(v.content()))
                .flatMap(old -> SheetStamp.write(old, map, values) instanceof Outcome.Granted<Stamped> same
                        ? Optional.of(same.value().bytes())
                        : Optional.empty())
                .map(old -> history.changedZones(old, written))
                .orElse("");
    }

    private static List<Map<String, String>> withZones(List<Map<String, String>> rows, String label, String zones) {
        return rows.stream()
                .map(row -> {
                    Map<String, String> all = new LinkedHashMap<>(row);
                    if (label.equals(row.get("revision"))) all.put("zone", zones);
                    return all;
                })
                .toList();
    }

    /**
     * Writes the values into the sheet of a document's head and makes it the next version.
     *
     * @param revision to which the version belongs
     * @param content of the head
     * @return its number; nothing when the content is no sheet that a map knows, or nothing on it changes
     */
    public Optional<Integer> write(
            Actor actor,
            Document document,
            long revision,
            StoredContent content,
            Map<String, String> values,
            String comment) {
        return draft(document, revision, content, values, Optional.empty(), false)
                .flatMap(draft -> keep(actor, document, revision, draft, comment));
    }

    /** Proves a written sheet and makes it the next version; nothing when nothing on it changes. */
    public Optional<Integer> keep(Actor actor, Document document, long revision, Draft draft, String comment) {
        Stamped stamped = draft.stamped();
        if (stamped.edits().isEmpty()) return Optional.empty();
        SheetStamp.prove(draft.signed(), stamped.bytes(), draft.map().map(), draft.values())
                .ifPresent(differs -> {
                    throw new Refused(differs);
                });
        Instant now = clock.instant();
        StoredContent written = contents.keep(stamped.bytes());
        Map<String, String> facts = this.facts.facts(revision);
        long head = document.head().version();
        VersionStore.Added added = versions.addVersion(
                new VersionStore.NewVersion(
                        document.id(),
                        revision,
                        written.id(),
                        document.fileName(),
                        VersionDigest.of(written.hash(), facts),
                        comment,
                        actor.person(),
                        VersionRow.MadeBy.STAMPED,
                        Optional.of(head),
                        Optional.of(versions.substance(head)),
                        Optional.empty(),
                        facts,
                        Optional.empty()),
                now);
        outputs.prove(
                new OutputStore.Proof(
                        added.version(), head, draft.map().id(), stamped.signed(), stamped.hash(), draft.values()),
                stamped.edits());
        return Optional.of(added.number());
    }
}
