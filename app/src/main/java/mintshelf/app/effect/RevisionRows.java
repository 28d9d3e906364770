package mintshelf.app.effect;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.document.EarlierStore;
import mintshelf.app.store.document.EarlierStore.Earlier;
import mintshelf.app.store.document.RevisionRow;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.output.OutputStore;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Document;
import mintshelf.core.drawing.Lettering;
import mintshelf.core.drawing.titleblock.RevisionBlock;
import org.springframework.stereotype.Component;

/** What revision blocks say of the revisions of documents. */
@Component
class RevisionRows {
    private final RevisionStore revisions;
    private final VersionStore versions;
    private final OutputStore outputs;
    private final PaperStore orders;
    private final SheetValues values;
    private final EarlierStore earlier;

    RevisionRows(
            RevisionStore revisions,
            VersionStore versions,
            OutputStore outputs,
            PaperStore orders,
            SheetValues values,
            EarlierStore earlier) {
        this.earlier = earlier;
        this.revisions = revisions;
        this.versions = versions;
        this.outputs = outputs;
        this.orders = orders;
        this.values = values;
    }

    /**
     * What the revision block of a sheet says of the document's revisions, the first one first. Revisions without a label, and
     * those that were dropped, have no row.
     *
     * @param revision the one that is written now; when it is released with this writing, {@code values} names its day and who
     *     approved it
     */
    List<Map<String, String>> of(Document document, long revision, RevisionBlock block, Map<String, String> values) {
        List<RevisionRow> all = revisions.revisions(document.id()).stream()
                .filter(r -> !r.dropped() && r.revision().label().isPresent())
                .toList();
        Map<Long, String> onOrders =
                orders.ofRevisions(all.stream().map(r -> r.revision().id()).toList());
        Map<Long, List<String>> designers = revisions.designers(document.id());
        boolean hasOrders = block.columns().stream().anyMatch(c -> c.fact().equals("order"));
        Map<String, Earlier> before = new LinkedHashMap<>();
        earlier.of(document.id()).forEach(e -> before.put(Texts.key(e.label()), e));
        List<Map<String, String>> rows = new ArrayList<>();
        // What was made elsewhere is said as its own sheet said it, in its order: nobody here drew or approved it.
        Map<String, Boolean> out = new LinkedHashMap<>();
        all.forEach(r -> out.put(
                Texts.key(r.revision().label().orElseThrow()), r.releasedAt().isPresent()));
        // A label that was given here since is its revision's own.
        before.entrySet()
                .removeIf(e -> e.getValue().own() ? !out.getOrDefault(e.getKey(), false) : out.containsKey(e.getKey()));
        before.values().forEach(e -> rows.add(e.said()));
        for (RevisionRow r : all) {
            if (before.containsKey(Texts.key(r.revision().label().orElseThrow()))) continue;
            boolean now = r.revision().id() == revision;
            String issued = now
                    ? values.getOrDefault("issued", "")
                    : r.releasedAt().map(this.values::day).orElse("");
            if (block.releasedOnly() && issued.isEmpty()) continue;
            Map<String, String> row = new LinkedHashMap<>();
            row.put("revision", r.revision().label().orElseThrow());
            Optional<String> order =
                    Optional.ofNullable(onOrders.get(r.revision().id()));
            row.put("description", words(r.revision().reason(), order.filter(o -> hasOrders)));
            row.put("date", issued);
            row.put("by", by(designers.getOrDefault(r.revision().id(), List.of()), r.startedBy()));
            row.put("approved", now ? values.getOrDefault("approved_by", "") : approved(document, r));
            order.ifPresent(o -> row.put("order", o));
            rows.add(row);
        }
        return rows;
    }

    /** Why a revision was begun; an order that has a column of its own is not said twice. */
    private static String words(String reason, Optional<String> order) {
        if (reason.isEmpty()) return "First release";
        return order.filter(o -> reason.startsWith(o + ": "))
                .map(o -> reason.substring(o.length() + 2))
                .orElse(reason);
    }

    /** Who drew a revision; before anybody did, who began it. Of several the first names are initials. */
    private static String by(List<String> designers, String startedBy) {
        if (designers.isEmpty()) return startedBy;
        if (designers.size() == 1) return designers.get(0);
        return Lettering.initials(String.join(", ", designers));
    }

    /** Who approved a revision that is or was in force, as its own sheet said. */
    private String approved(Document document, RevisionRow row) {
        return row.releasedVersion()
                .flatMap(n -> versions.version(document.id(), n))
                .flatMap(v -> outputs.proof(v.id()))
                .map(p -> p.values().values().getOrDefault("approved_by", ""))
                .orElse("");
    }
}
