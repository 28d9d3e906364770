package mintshelf.app.effect.deed;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mintshelf.app.sight.Sheets;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.core.base.Numbers;
import mintshelf.core.change.ChangeNotice;
import mintshelf.core.change.DifferencePicture;
import mintshelf.core.content.ContentKind;
import mintshelf.core.drawing.compare.Comparison;
import org.springframework.stereotype.Component;

/** Small pictures of what changed on sheets, for notices. */
@Component
class DifferencePictures {
    /** Sheets that a notice shows: each is looked at while the order's documents are locked. */
    private static final int MOST = 12;

    private final VersionStore versions;
    private final Sheets sheets;

    DifferencePictures(VersionStore versions, Sheets sheets) {
        this.versions = versions;
        this.sheets = sheets;
    }

    /**
     * A sheet that an order releases.
     *
     * @param old number of the version that was in force before
     */
    record Between(String number, String revisions, long item, int old, VersionRow now) {}

    /** Of the first sheets that differ; a file that is no sheet, or cannot be read, has none. */
    List<ChangeNotice.Picture> of(List<Between> all) {
        List<ChangeNotice.Picture> pictures = new ArrayList<>();
        for (Between one : all) {
            if (pictures.size() == MOST) break;
            picture(one).ifPresent(pictures::add);
        }
        return pictures;
    }

    private Optional<ChangeNotice.Picture> picture(Between one) {
        StoredContent now = one.now().content();
        Optional<StoredContent> old = versions.version(one.item(), one.old())
                .map(VersionRow::content)
                .filter(c -> c.kind() == ContentKind.DXF);
        if (now.kind() != ContentKind.DXF || old.isEmpty()) return Optional.empty();
        Optional<Sheets.Pair> pair = sheets.pair(sheets.opened(old.get()), sheets.opened(now));
        if (pair.isEmpty()) return Optional.empty();
        Comparison compared = pair.get().compare();
        long drawn = compared.differences().stream().filter(d -> !d.form()).count();
        if (drawn == 0) return Optional.empty();
        return DifferencePicture.of(pair.get().now(), compared, ChangeNotice.WIDE, ChangeNotice.HIGH)
                .map(picture -> new ChangeNotice.Picture(
                        one.number(),
                        one.revisions() + ": " + Numbers.count(drawn, "difference", "differences"),
                        picture));
    }
}
