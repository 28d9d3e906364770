package mintshelf.app.effect;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.sight.Sheets;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.SheetMapStore;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.titleblock.RevisionBlock;
import mintshelf.core.drawing.titleblock.SheetMap;
import mintshelf.core.stamp.SheetStamp;
import org.springframework.stereotype.Component;

/** The sheet of a new document that begins as a copy: what its title block says is the new document's, not the other's. */
@Component
public class FreshSheet {
    private final Sheets sheets;
    private final ReadingRoom room;
    private final KeepContent keep;
    private final PartCard card;

    public FreshSheet(Sheets sheets, ReadingRoom room, KeepContent keep, PartCard card) {
        this.sheets = sheets;
        this.room = room;
        this.keep = keep;
        this.card = card;
    }

    /**
     * The content with the title block written. The content as it is where no map knows a place on it, or where it cannot take what would be
     * written: its designer does it then. A part without a file gets a card of its own.
     *
     * @param facts what the new document says of itself
     * @param values by fact name; what is not named stays
     * @param row of the revision block; empty where the first label comes with the release
     */
    StoredContent written(
            Kind kind,
            StoredContent content,
            Map<String, String> facts,
            Map<String, String> values,
            Map<String, String> row) {
        if (kind.isPart()) return card.of(kind.id(), facts);
        return room.apart(() -> write(content, values, row)).map(keep::keep).orElse(content);
    }

    private Optional<byte[]> write(StoredContent content, Map<String, String> values, Map<String, String> row) {
        Optional<byte[]> bytes = sheets.drawing(content);
        Optional<DxfDrawing> drawing = bytes.flatMap(sheets::opened);
        if (drawing.isEmpty()) return Optional.empty();
        return sheets.mapFor(drawing.get())
                .map(SheetMapStore.Edition::map)
                .flatMap(map -> stamp(bytes.get(), map.allWritten(), values, rows(map, drawing.get(), row)));
    }

    private static List<Map<String, String>> rows(SheetMap map, DxfDrawing drawing, Map<String, String> row) {
        Optional<RevisionBlock> block = map.revisions().filter(b -> b.drawn() || b.isOn(drawing));
        return block.isEmpty() || block.get().releasedOnly() || row.isEmpty() ? List.of() : List.of(row);
    }

    private static Optional<byte[]> stamp(
            byte[] bytes, SheetMap map, Map<String, String> values, List<Map<String, String>> rows) {
        return SheetStamp.write(bytes, map, new SheetStamp.Values(values, rows, false, SheetStamp.Values.ANEW))
                                instanceof Outcome.Granted<SheetStamp.Stamped> stamped
                        && !stamped.value().edits().isEmpty()
                ? Optional.of(stamped.value().bytes())
                : Optional.empty();
    }
}
