package mintshelf.app.sight;

import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.house.SheetMapStore;
import mintshelf.app.store.house.SheetMapStore.Edition;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.content.ContentKind;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.compare.Comparison;
import mintshelf.core.drawing.compare.SheetCompare;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.titleblock.HandTable;
import mintshelf.core.drawing.titleblock.SheetMap;
import mintshelf.core.drawing.titleblock.SheetScale;
import org.springframework.stereotype.Component;

/** Sheets as the house's sheet maps read them. */
@Component
public class Sheets {
    private final Contents contents;
    private final ReadingRoom room;
    private final Settings settings;
    private final SheetMapStore maps;

    public Sheets(Contents contents, ReadingRoom room, Settings settings, SheetMapStore maps) {
        this.contents = contents;
        this.room = room;
        this.settings = settings;
        this.maps = maps;
    }

    /** The bytes of a drawing that can be read; nothing for other contents and for sheets beyond the limit. */
    public Optional<byte[]> drawing(StoredContent content) {
        if (content.kind() != ContentKind.DXF || content.size() > settings.largestSheet()) return Optional.empty();
        return contents.whole(content);
    }

    /** Why a content is read by nobody here: another format, too large, no drawing in it. Empty for what is read. */
    public Optional<String> whyUnread(StoredContent content) {
        if (content.kind() != ContentKind.DXF) {
            return Optional.of("It is a " + content.kind().words() + ", not an exchange drawing.");
        }
        long most = Math.min(settings.largestSheet(), room.most());
        if (content.size() > most) {
            return Optional.of("It has " + Numbers.size(content.size()) + "; drawings of up to " + Numbers.size(most)
                    + " are read here.");
        }
        return contents.whole(content)
                .flatMap(bytes -> DxfDrawing.read(bytes).refusal())
                .map(Refusal::reason);
    }

    /** A drawing, opened; nothing for what is none or cannot be read. */
    public Optional<DxfDrawing> opened(StoredContent content) {
        return drawing(content).flatMap(this::opened);
    }

    public Optional<DxfDrawing> opened(byte[] drawing) {
        return DxfDrawing.read(drawing) instanceof Outcome.Granted<DxfDrawing> read
                ? Optional.of(read.value().within(room::takes))
                : Optional.empty();
    }

    /** A drawing, flattened; nothing where that is refused. */
    public static Optional<Scene> scene(DxfDrawing drawing) {
        return drawing.scene() instanceof Outcome.Granted<Scene> scene ? Optional.of(scene.value()) : Optional.empty();
    }

    /** Two sheets, flattened, to be compared at the scale of the later one. */
    public record Pair(Scene old, Scene now, double scale) {
        public Comparison compare() {
            return SheetCompare.compare(old, now, scale);
        }
    }

    /** Two sheets side by side; nothing where one of them cannot be read. */
    public Optional<Pair> pair(Optional<DxfDrawing> old, Optional<DxfDrawing> now) {
        return old.flatMap(Sheets::scene)
                .flatMap(before ->
                        now.flatMap(drawing -> scene(drawing).map(after -> new Pair(before, after, scale(drawing)))));
    }

    /** By how much the title block says that a drawing is enlarged; 1 where it says nothing. */
    public double scale(DxfDrawing drawing) {
        return SheetScale.of(said(drawing).getOrDefault("scale", "")).orElse(1);
    }

    /** What a drawing's title block says, by fact name; empty for what is no drawing. */
    public Map<String, String> said(StoredContent content) {
        return drawing(content).map(this::said).orElse(Map.of());
    }

    public Map<String, String> said(byte[] drawing) {
        return opened(drawing).map(this::said).orElse(Map.of());
    }

    /** By the map that finds most on the sheet. */
    public Map<String, String> said(DxfDrawing drawing) {
        return reading(drawing).map(e -> e.map().read(drawing)).orElse(Map.of());
    }

    /** What a drawing says of its revisions, the oldest first: in the block that a map knows, else in a table that was drawn by hand. */
    public List<Map<String, String>> revisions(StoredContent content) {
        return opened(content).map(this::revisions).orElse(List.of());
    }

    private List<Map<String, String>> revisions(DxfDrawing drawing) {
        List<Map<String, String>> inBlock = mapFor(drawing)
                .flatMap(e -> e.map().revisions())
                .map(b -> b.read(drawing))
                .orElse(List.of());
        return inBlock.isEmpty() ? HandTable.of(drawing).map(HandTable::rows).orElse(List.of()) : inBlock;
    }

    private Optional<Edition> reading(DxfDrawing drawing) {
        return maps.latest().stream()
                .filter(e -> e.map().isFor(drawing))
                .max(Comparator.comparingInt(e -> e.map().read(drawing).size()));
    }

    /** Of what a sheet says what the designer says there, not the shelf: those values become facts. */
    public Map<String, String> facts(StoredContent content) {
        Optional<DxfDrawing> drawing = opened(content);
        Optional<Edition> map = drawing.flatMap(this::reading);
        if (map.isEmpty()) return Map.of();
        Map<String, String> facts = new LinkedHashMap<>(map.get().map().read(drawing.get()));
        map.get().map().fields().stream()
                .filter(f -> f.way() == SheetMap.Way.WRITTEN)
                .forEach(f -> facts.remove(f.fact()));
        return facts;
    }

    /**
     * The map by which the shelf writes into this drawing: of those for its format, then of those for any, the one with most
     * places on it; none when no map has a place.
     */
    public Optional<Edition> mapFor(DxfDrawing drawing) {
        return maps.latest().stream()
                .filter(e -> !e.map().sites(drawing).isEmpty()
                        || e.map().revisions().filter(r -> r.isOn(drawing)).isPresent())
                .filter(e -> e.map().isFor(drawing))
                .max(Comparator.comparing((Edition e) -> !e.map().format().isEmpty())
                        .thenComparing(e -> e.map().sites(drawing).size()));
    }
}
