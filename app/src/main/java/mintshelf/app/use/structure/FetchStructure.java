package mintshelf.app.use.structure;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.MayFetch;
import mintshelf.app.sight.Packed;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.VersionName;
import mintshelf.core.structure.StructureView;
import org.springframework.stereotype.Service;

/** All files of a structure, each in the version that the view shows, in the folders in which they refer to each other. */
@Service
public class FetchStructure {
    private final ReadStructure structure;
    private final VersionStore versions;
    private final MayFetch may;
    private final UnitOfWork unit;
    private final Recorder recorder;

    public FetchStructure(
            ReadStructure structure, VersionStore versions, MayFetch may, UnitOfWork unit, Recorder recorder) {
        this.structure = structure;
        this.versions = versions;
        this.may = may;
        this.unit = unit;
        this.recorder = recorder;
    }

    /** An archive: its name, its files, and what it says of itself. */
    public record Bundle(String name, List<Packed> files, String says) {}

    /** A document stands in one place once: where several of its versions are wanted, the latest of them is taken, and said. */
    public Bundle bundle(Actor actor, long item, StructureView view, Optional<Integer> number, LocalDate day) {
        return bundle(actor, item, view, number, day, Optional.empty());
    }

    /** As {@link #bundle(Actor, long, StructureView, Optional, LocalDate)}, with what a trial has in the place of its documents. */
    public Bundle bundle(
            Actor actor, long item, StructureView view, Optional<Integer> number, LocalDate day, Optional<Long> trial) {
        ReadStructure.Structure tree = structure.tree(actor, item, view, number, day, trial);
        int top = tree.version().orElseThrow(NotThere::new);
        Map<Long, Integer> wanted = new LinkedHashMap<>();
        Map<Long, Seen> seen = new LinkedHashMap<>();
        wanted.put(item, top);
        seen.put(item, tree.top());
        List<String> says = new ArrayList<>();
        says.add(tree.top().document().number() + " " + tree.top().document().title() + ", "
                + tree.view().words());
        for (ReadStructure.Row row : tree.rows()) {
            if (row.seen().isEmpty() || row.shown().isEmpty()) {
                says.add("Not here: " + row.reference().written().path());
                continue;
            }
            long id = row.seen().get().spine().id();
            int version = row.shown().get().number();
            Integer before = wanted.merge(id, version, Math::max);
            if (before != version)
                says.add("Of several versions the latest: "
                        + row.reference().written().path());
            seen.put(id, row.seen().get());
        }
        List<Packed> files = new ArrayList<>();
        Map<Long, VersionName> taken = new LinkedHashMap<>();
        wanted.forEach((id, version) -> {
            VersionName name = tree.name(id, version);
            VersionRow row = versions.version(id, name).orElseThrow(NotThere::new);
            String path = Packed.folders(seen.get(id).spine()) + row.fileName();
            Optional<Refusal> refusal = may.refusal(actor, seen.get(id), row);
            if (refusal.isPresent()) {
                says.add("Not here: " + path + ". " + refusal.get().says());
                return;
            }
            taken.put(id, name);
            files.add(new Packed(path, row.content()));
            says.add(path + "  " + name.shortly());
        });
        unit.run(() -> taken.forEach((id, name) -> {
            if (name.isTrial()) recorder.note(actor, id, "trial.version.fetched", "fetched " + name.says(), "");
            else recorder.note(actor, id, "version.fetched", name.number(), "fetched version " + name.says(), "");
        }));
        String with = trial.isEmpty() ? "" : " with trial";
        return new Bundle(
                tree.top().document().number() + " v" + top + with + ".zip", files, String.join("\n", says) + "\n");
    }
}
