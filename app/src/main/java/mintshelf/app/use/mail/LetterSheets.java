package mintshelf.app.use.mail;

import java.util.List;
import java.util.Optional;
import mintshelf.app.effect.SheetPdf;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.sight.RoundSight.RoundLine;
import mintshelf.app.sight.RoundSight.RoundView;
import mintshelf.app.sight.SheetHistory;
import mintshelf.app.sight.Sheets;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.VersionStore;
import mintshelf.core.base.Numbers;
import mintshelf.core.drawing.compare.Comparison;
import org.springframework.stereotype.Component;

/** A sheet in a letter: small, and what it changes in a sentence. */
@Component
class LetterSheets {
    private static final int SAID = 3;

    private final VersionStore versions;
    private final SheetHistory history;
    private final Sheets sheets;
    private final ReadingRoom room;

    private final SheetPdf pictures;

    LetterSheets(VersionStore versions, SheetHistory history, Sheets sheets, ReadingRoom room, SheetPdf pictures) {
        this.pictures = pictures;
        this.versions = versions;
        this.history = history;
        this.sheets = sheets;
        this.room = room;
    }

    /** What the first sheet of a round changes: "4 differences to version 7: B2 ⌀ 5.5 → ⌀ 6.6, …". */
    Optional<String> differences(RoundView view) {
        RoundLine line = view.lines().get(0);
        return room.within(() -> versions.version(
                        line.item().item(), line.item().number())
                .flatMap(now -> history.before(line.item().item(), now)
                        .flatMap(before -> sheets.pair(sheets.opened(before.content()), sheets.opened(now.content()))
                                .map(Sheets.Pair::compare)
                                .map(c -> said(c, before.number())))));
    }

    /** A small picture of a sheet as PNG. */
    Optional<byte[]> picture(StoredContent content) {
        return room.within(() -> pictures.png(content, 360));
    }

    private static String said(Comparison c, int before) {
        if (c.differences().isEmpty()) return "No difference on the sheet to version " + before + ".";
        List<String> first = c.chips().stream().limit(SAID).toList();
        return Numbers.count(c.differences().size(), "difference", "differences") + " to version " + before + ": "
                + String.join("; ", first) + (c.differences().size() > SAID ? " …" : ".");
    }
}
