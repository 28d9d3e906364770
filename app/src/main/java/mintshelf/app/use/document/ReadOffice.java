package mintshelf.app.use.document;

import java.io.IOException;
import java.io.InputStream;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.TableFiles;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.ground.Recent;
import mintshelf.app.sight.ContentInput;
import mintshelf.app.sight.Contents;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.use.document.Sheet.Drawn;
import mintshelf.core.base.Outcome;
import mintshelf.core.content.OfficeWords;
import org.springframework.stereotype.Component;

/** Office documents as what they say: a spreadsheet as its table, others as their text. Neither pictures nor macros are looked at. */
@Component
class ReadOffice {
    /** Larger workbooks are shown as their text: to open one takes many times its size. */
    private static final long LARGEST_TABLE = 2L << 20;

    private static final long ROOM_FOR_A_TABLE = 20;
    private static final int ROWS = 200;
    private static final int LETTERS = 40_000;
    private static final int KEPT = 60;
    private static final Duration LONGEST = Duration.ofSeconds(5);

    private final Contents contents;
    private final ContentStore store;
    private final ReadingRoom room;
    private final Map<String, Optional<Sheet>> kept = Recent.most(KEPT);

    ReadOffice(Contents contents, ContentStore store, ReadingRoom room) {
        this.contents = contents;
        this.store = store;
        this.room = room;
    }

    /** Nothing for what says nothing that can be read. */
    Optional<Sheet> of(StoredContent content) {
        String hash = content.hash().hex();
        Optional<Sheet> known = kept.get(hash);
        if (known != null) return known;
        Optional<Sheet> found = room.apart(() -> table(content).or(() -> text(content)));
        kept.put(hash, found);
        return found;
    }

    private Optional<Sheet> table(StoredContent content) {
        if (content.size() > LARGEST_TABLE || !room.takes(ROOM_FOR_A_TABLE * content.size())) return Optional.empty();
        if (!(TableFiles.read(contents.bytes(content, content.size()), ROWS)
                instanceof Outcome.Granted<List<List<String>>> rows)) return Optional.empty();
        List<List<String>> all = rows.value();
        if (all.stream().allMatch(List::isEmpty)) return Optional.empty();
        return Optional.of(new Sheet(
                "TABLE",
                List.of(),
                all.size() > ROWS,
                Map.of(),
                Drawn.NOTHING,
                List.of(),
                "",
                all.subList(0, Math.min(ROWS, all.size()))));
    }

    private Optional<Sheet> text(StoredContent content) {
        try (InputStream in = new ContentInput(store, content.id(), content.size())) {
            List<String> lines = OfficeWords.text(in, LETTERS, LONGEST);
            int letters = lines.stream().mapToInt(l -> l.length() + 1).sum();
            return lines.isEmpty()
                    ? Optional.empty()
                    : Optional.of(new Sheet("TEXT", lines, letters >= LETTERS - 1, Map.of(), Drawn.NOTHING));
        } catch (IOException e) {
            return Optional.empty();
        }
    }
}
