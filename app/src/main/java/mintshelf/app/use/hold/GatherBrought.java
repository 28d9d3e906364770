package mintshelf.app.use.hold;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import mintshelf.app.effect.References;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.sight.Trials;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.content.UploadStore;
import mintshelf.core.reference.Written;
import org.springframework.stereotype.Component;

/** Reads what is known of a set that comes back, before its first row is taken. */
@Component
class GatherBrought {
    private final Sight sight;
    private final Trials trials;
    private final UploadStore uploads;
    private final References references;
    private final PaperStore orders;

    GatherBrought(Sight sight, Trials trials, UploadStore uploads, References references, PaperStore orders) {
        this.sight = sight;
        this.trials = trials;
        this.uploads = uploads;
        this.references = references;
        this.orders = orders;
    }

    /** Whether a file of the actor's is there whole. */
    static boolean arrived(Actor actor, Upload upload) {
        return upload.person() == actor.person() && upload.state() == Upload.State.COMPLETE;
    }

    /** Within the act, under the locks of the documents. */
    Brought of(Actor actor, List<CheckIn.Row> rows, List<Long> items, Map<String, List<Written>> read) {
        Map<Long, Seen> seen = new LinkedHashMap<>(sight.of(actor, items));
        if (seen.size() != items.size() || !seen.values().stream().allMatch(Seen::all)) throw new NotThere();
        // Whoever shows the hold of a trial brings it back to the line of that.
        Map<Long, Trials.Tried> tried =
                trials.byHold(seen, rows.stream().collect(Collectors.toMap(CheckIn.Row::item, CheckIn.Row::hold)));
        tried.forEach((item, t) -> seen.put(item, t.tried()));
        Map<String, Upload> files = new HashMap<>();
        for (Upload u :
                uploads.uploads(rows.stream().flatMap(CheckIn.Row::files).toList(), true)) {
            if (arrived(actor, u)) files.put(u.token(), u);
        }
        for (CheckIn.Row row : rows) {
            if (row.files().allMatch(files::containsKey)) continue;
            throw Refused.because(
                    "upload.missing",
                    "The file for " + seen.get(row.item()).document().number() + " did not arrive whole.",
                    "Drop it again; nothing was checked in.");
        }
        return new Brought(
                seen,
                files,
                uploads.seal(files.values()),
                read,
                references.of(seen.values().stream()
                        .map(s -> s.document().head().version())
                        .toList()),
                orders.open(items.stream().filter(i -> !tried.containsKey(i)).toList()),
                tried);
    }
}
