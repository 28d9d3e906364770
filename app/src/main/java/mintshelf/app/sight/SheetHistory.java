package mintshelf.app.sight;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.TreeSet;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.core.drawing.compare.Comparison;
import mintshelf.core.drawing.svg.CompareSvg;
import org.springframework.stereotype.Component;

/** What a version of a sheet followed, as the designer's work: what the shelf wrote itself is passed over. */
@Component
public class SheetHistory {
    private static final int ZONES_SHOWN = 2;

    private final RevisionStore revisions;
    private final VersionStore versions;
    private final Sheets sheets;

    public SheetHistory(RevisionStore revisions, VersionStore versions, Sheets sheets) {
        this.revisions = revisions;
        this.versions = versions;
        this.sheets = sheets;
    }

    /**
     * The version that a reviewer compares with: what was signed for the revision that is released, else the version before. What
     * the shelf itself wrote into the released sheet is no change of the designer's.
     */
    public Optional<VersionRow> before(long item, VersionRow now) {
        List<VersionRow> versions = this.versions.versions(item);
        return ofFormerRevision(item, now, versions)
                .or(() -> versions.stream()
                        .filter(v -> v.number() < now.number())
                        .max(Comparator.comparingInt(VersionRow::number)));
    }

    private Optional<VersionRow> ofFormerRevision(long item, VersionRow now, List<VersionRow> versions) {
        Optional<Integer> released = revisions.revisions(item).stream()
                .filter(r -> r.revision().id() != now.revision())
                .flatMap(r -> r.releasedVersion().stream())
                .filter(n -> n < now.number())
                .max(Comparator.naturalOrder());
        Optional<VersionRow> base = released.flatMap(n -> find(versions, n));
        if (base.isPresent() && base.get().madeBy() == VersionRow.MadeBy.STAMPED) {
            base = base.get().base().flatMap(n -> find(versions, n));
        }
        return base;
    }

    private static Optional<VersionRow> find(List<VersionRow> versions, int number) {
        return versions.stream().filter(v -> v.number() == number).findFirst();
    }

    /** The version that was signed for the revision before a version's own. */
    public Optional<VersionRow> ofFormerRevision(long item, VersionRow now) {
        return ofFormerRevision(item, now, versions.versions(item));
    }

    /** Compares two sheets of which nobody keeps the later one, and draws both; nothing where one cannot be read. */
    public Optional<Compared> draw(byte[] old, byte[] now) {
        return sheets.pair(sheets.opened(old), sheets.opened(now)).map(pair -> {
            Comparison comparison = pair.compare();
            return new Compared(comparison, CompareSvg.whole(pair.old(), pair.now(), comparison));
        });
    }

    /**
     * Where two sheets differ, as a revision block says it: "C4 D2", or "C4 +3" for more; empty where nothing differs.
     * O(primitives).
     */
    public String changedZones(byte[] old, byte[] now) {
        TreeSet<String> zones = new TreeSet<>();
        sheets.pair(sheets.opened(old), sheets.opened(now))
                .ifPresent(pair -> pair.compare().differences().stream()
                        .map(Comparison.Difference::zone)
                        .filter(z -> !z.isEmpty())
                        .forEach(zones::add));
        if (zones.size() <= ZONES_SHOWN) return String.join(" ", zones);
        return zones.first() + " +" + (zones.size() - 1);
    }
}
