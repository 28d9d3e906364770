package mintshelf.app.use.filing;

import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.filing.FilingStore.Row;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.KindFact;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.core.access.Place;
import mintshelf.core.document.FileName;
import mintshelf.core.fact.FactValue;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.revision.ShippedSeries;

/** A row of a filing sheet that nothing stands in the way of. */
record ReadyRow(
        Row row,
        Kind kind,
        Folder folder,
        Place place,
        NumberKey number,
        String title,
        Optional<String> label,
        FileName file,
        Map<KindFact, FactValue> facts) {
    /** The label that its sheet has already, where it is not the first one of its series. */
    Optional<String> takenOver() {
        return label.filter(
                l -> !l.equals(ShippedSeries.of(kind.revisionSeries()).first()));
    }
}
