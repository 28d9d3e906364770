package mintshelf.app.use.hold;

import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import mintshelf.app.effect.References;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Trials;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.structure.Reference;
import mintshelf.core.document.Document;
import mintshelf.core.reference.Written;

/**
 * What is known of a set before its first row is taken, a statement or two for each kind of knowledge.
 *
 * @param seen the documents under their locks
 * @param files what came, by upload's token
 * @param contents of what came, sealed
 * @param read what the files refer to
 * @param before what the latest versions refer to, by version
 * @param orders the change orders that documents are on
 * @param tried those that come back to the line of a trial
 */
record Brought(
        Map<Long, Seen> seen,
        Map<String, Upload> files,
        Map<String, StoredContent> contents,
        Map<String, List<Written>> read,
        Map<Long, List<Reference>> before,
        Map<Long, PaperStore.On> orders,
        Map<Long, Trials.Tried> tried) {
    List<Reference> before(Document document) {
        return before.getOrDefault(document.head().version(), List.of());
    }

    /** Rows of the set, those of components before those that they stand in. */
    List<CheckIn.Row> componentsFirst(List<CheckIn.Row> rows) {
        Map<Long, List<Reference>> refersTo = new HashMap<>();
        seen.forEach((item, s) -> refersTo.put(item, before(s.document())));
        List<Long> order = References.componentsFirst(refersTo);
        Map<Long, Integer> places = new HashMap<>();
        for (int i = 0; i < order.size(); i++) places.put(order.get(i), i);
        return rows.stream()
                .sorted(Comparator.comparingInt((CheckIn.Row r) -> places.getOrDefault(r.item(), -1))
                        .thenComparingLong(CheckIn.Row::item))
                .toList();
    }
}
