package mintshelf.app.use.compare;

import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Recent;
import mintshelf.app.sight.Compared;
import mintshelf.app.sight.SheetHistory;
import mintshelf.app.sight.Sheets;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.VersionRow;
import mintshelf.core.content.ContentKind;
import mintshelf.core.drawing.compare.Comparison;
import mintshelf.core.drawing.svg.CompareSvg;
import org.springframework.stereotype.Service;

/** Compares sheets. Contents never change, so that a comparison is kept by the hashes of its two. */
@Service
public class CompareSheets {
    private static final int KEPT = 300;
    private static final int KEPT_PICTURES = 12;

    private final BroughtFile brought;
    private final Sheets sheets;
    private final SheetHistory history;

    private final Map<String, Optional<Comparison>> kept = Recent.most(KEPT);
    private final Map<String, String> pictures = Recent.most(KEPT_PICTURES);

    CompareSheets(BroughtFile brought, Sheets sheets, SheetHistory history) {
        this.brought = brought;
        this.history = history;
        this.sheets = sheets;
    }

    /** Compares two contents; nothing where one of them is no drawing that can be read. The actor may see both. */
    public Optional<Comparison> compare(StoredContent old, StoredContent now) {
        if (old.kind() != ContentKind.DXF || now.kind() != ContentKind.DXF) return Optional.empty();
        String key = old.hash().hex() + now.hash().hex();
        synchronized (kept) {
            Optional<Comparison> known = kept.get(key);
            if (known != null) return known;
        }
        Optional<Comparison> found = scenes(old, now).map(Sheets.Pair::compare);
        synchronized (kept) {
            kept.put(key, found);
        }
        return found;
    }

    /** Compares two contents and draws them. */
    public Optional<Compared> draw(StoredContent old, StoredContent now) {
        Optional<Comparison> comparison = compare(old, now);
        if (comparison.isEmpty()) return Optional.empty();
        String key = old.hash().hex() + now.hash().hex();
        synchronized (pictures) {
            String known = pictures.get(key);
            if (known != null) return Optional.of(new Compared(comparison.get(), known));
        }
        Optional<Sheets.Pair> pair = scenes(old, now);
        if (pair.isEmpty()) return Optional.empty();
        String svg = CompareSvg.whole(pair.get().old(), pair.get().now(), comparison.get());
        synchronized (pictures) {
            pictures.put(key, svg);
        }
        return Optional.of(new Compared(comparison.get(), svg));
    }

    private Optional<Sheets.Pair> scenes(StoredContent old, StoredContent now) {
        return sheets.pair(sheets.opened(old), sheets.opened(now));
    }

    /** The version that a reviewer compares with; see {@link SheetHistory#before}. */
    public Optional<VersionRow> before(long item, VersionRow now) {
        return history.before(item, now);
    }

    /** How many differences a version has to the one before it; nothing where there is none to compare with. */
    public Optional<Comparison> toBefore(long item, VersionRow now) {
        return before(item, now)
                .flatMap(before -> compare(before.drawn().content(), now.drawn().content()));
    }

    /** The sheet of a version with a ring round each difference to the one before it. */
    public Optional<Compared> ringed(long item, VersionRow now) {
        return before(item, now).flatMap(before -> ringed(before, now));
    }

    /** The sheet of a version with a ring round each difference to another one. */
    public Optional<Compared> ringed(VersionRow before, VersionRow now) {
        Optional<Comparison> comparison =
                compare(before.drawn().content(), now.drawn().content());
        if (comparison.isEmpty()) return Optional.empty();
        return scenes(before.drawn().content(), now.drawn().content())
                .map(pair -> new Compared(comparison.get(), CompareSvg.ringed(pair.now(), comparison.get())));
    }

    /** What a file that the actor brought changes against the document's head, or against its head on a trial. */
    public Optional<Compared> brought(Actor actor, long item, String token, Optional<Long> trial) {
        return brought.of(actor, item, token, trial).flatMap(two -> draw(two.head(), two.now()));
    }
}
