package mintshelf.app.use.document;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.MayFetch;
import mintshelf.app.sight.Packed;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.core.document.VersionName;
import org.springframework.stereotype.Service;

/** Hands out files. A copy never needs a hold; every copy is noted in the record. */
@Service
public class FetchFiles {
    private final Sight sight;
    private final RevisionStore revisions;
    private final VersionStore versions;
    private final MayFetch may;
    private final UnitOfWork unit;
    private final Recorder recorder;

    public FetchFiles(
            Sight sight,
            RevisionStore revisions,
            VersionStore versions,
            MayFetch may,
            UnitOfWork unit,
            Recorder recorder) {
        this.sight = sight;
        this.revisions = revisions;
        this.versions = versions;
        this.may = may;
        this.unit = unit;
        this.recorder = recorder;
    }

    /** As {@link #fetch(Actor, long, VersionName)}, of the main line. */
    public VersionRow fetch(Actor actor, long item, int number) {
        return fetch(actor, item, VersionName.main(number));
    }

    /** A version whose bytes are about to leave; any, or for readers one that was released. */
    public VersionRow fetch(Actor actor, long item, VersionName name) {
        return fetch(actor, sight.of(actor, item), name);
    }

    private VersionRow fetch(Actor actor, Seen seen, VersionName name) {
        VersionRow version = readable(seen, name);
        may.ask(actor, seen, version);
        long item = seen.spine().id();
        unit.run(() -> {
            if (name.isTrial()) recorder.note(actor, item, "trial.version.fetched", "fetched " + name.says(), "");
            else recorder.note(actor, item, "version.fetched", name.number(), "fetched version " + name.says(), "");
        });
        return version;
    }

    /** As {@link #fetch}, of which the record has an entry already. */
    public VersionRow readable(Actor actor, long item, VersionName name) {
        Seen seen = sight.of(actor, item);
        VersionRow version = readable(seen, name);
        may.ask(actor, seen, version);
        return version;
    }

    private VersionRow readable(Seen seen, VersionName name) {
        long item = seen.spine().id();
        int number = name.number();
        VersionRow version = versions.version(item, name).orElseThrow(NotThere::new);
        if (!seen.all() && name.isTrial()) throw new NotThere();
        if (!seen.all()
                && revisions.revisions(item).stream()
                        .noneMatch(r ->
                                r.releasedVersion().filter(n -> n == number).isPresent())) {
            throw new NotThere();
        }
        return version;
    }

    /**
     * The files that the actor works with, of several documents.
     *
     * @param folders whether they lie in the folders of their shelves, in which they refer to each other
     */
    public List<Packed> fetchLatest(Actor actor, List<Long> items, boolean folders) {
        List<Packed> files = new ArrayList<>();
        Collection<Seen> all = sight.of(actor, items).values();
        // What has no file is left out beside what has one; by itself it is refused.
        boolean none = all.stream().allMatch(s -> s.document().part());
        all.stream().filter(s -> none || !s.document().part()).forEach(seen -> {
            VersionRow version = fetch(actor, seen, VersionName.main(seen.version()));
            files.add(
                    new Packed((folders ? Packed.folders(seen.spine()) : "") + version.fileName(), version.content()));
        });
        if (files.isEmpty()) throw new NotThere();
        return files;
    }
}
