package mintshelf.app.effect;

import java.time.Clock;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.change.RequestStore;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.core.base.Texts;
import mintshelf.core.document.FileName;
import mintshelf.core.document.VersionDigest;
import mintshelf.core.numbering.NumberKey;
import org.springframework.stereotype.Component;

/** Files the papers that changes make: orders, notices. Within the caller's transaction. */
@Component
public class FilePaper {
    /** The folder of each shelf in which change papers lie. */
    public static final String FOLDER = "Changes";

    private final NewDocuments documents;
    private final VersionStore versions;
    private final ShelfStore shelves;
    private final KeepContent contents;
    private final DrawNumbers draw;
    private final PaperKinds kinds;
    private final Recorder recorder;
    private final Clock clock;

    public FilePaper(
            NewDocuments documents,
            VersionStore versions,
            ShelfStore shelves,
            KeepContent contents,
            DrawNumbers draw,
            PaperKinds kinds,
            Recorder recorder,
            Clock clock) {
        this.documents = documents;
        this.versions = versions;
        this.shelves = shelves;
        this.contents = contents;
        this.draw = draw;
        this.kinds = kinds;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** The kinds of papers of a type that the house has. */
    public PaperKinds kinds() {
        return kinds;
    }

    /** The next number of a kind's series on a shelf. */
    public NumberKey number(Kind kind, long shelf) {
        return draw.next(kind, shelf, Map.of()).orElseThrow(Refused::new);
    }

    /**
     * Files a paper with its first version in the folder for changes of a shelf.
     *
     * @param fileName with its ending; the paper's number is unused until now, so the name is free
     * @return its id
     */
    public long file(
            Actor actor,
            Kind kind,
            long shelf,
            NumberKey number,
            String title,
            String fileName,
            byte[] bytes,
            String says) {
        return documents
                .add(
                        actor,
                        new NewDocuments.New(
                                kind,
                                folder(shelf),
                                number,
                                Texts.shorten(title, 200),
                                FileName.of(fileName),
                                Optional.empty(),
                                "",
                                Map.of(),
                                contents.keep(bytes),
                                says))
                .item();
    }

    /** Adds a version of a paper: what it says has changed. */
    public int version(
            long author,
            long item,
            long revision,
            String fileName,
            byte[] bytes,
            VersionRow.MadeBy madeBy,
            String says) {
        StoredContent content = contents.keep(bytes);
        return versions.addVersion(
                        new VersionStore.NewVersion(
                                item,
                                revision,
                                content.id(),
                                fileName,
                                VersionDigest.of(content.hash(), Map.of()),
                                says,
                                author,
                                madeBy,
                                Optional.empty(),
                                Optional.empty(),
                                Map.of()),
                        clock.instant())
                .number();
    }

    /** That a paper says something else now stands in its record. */
    void noteVersion(Actor actor, long item, int version, String says) {
        recorder.note(actor, item, "version.added", version, says + ", version " + version, "");
    }

    /** The versions that evidence names, by id. */
    Map<Long, VersionRow> versions(List<RequestStore.Evidence> evidence) {
        Set<Long> named = new HashSet<>();
        evidence.forEach(e -> {
            named.add(e.version());
            e.against().ifPresent(named::add);
        });
        return versions.versionsById(named);
    }

    private Folder folder(long shelf) {
        Optional<Folder> there = shelves.folders(shelf).stream()
                .filter(f -> f.depth() == 1 && Texts.key(f.name()).equals(Texts.key(FOLDER)))
                .findFirst();
        if (there.isPresent()) return there.get();
        long id = shelves.addFolder(shelves.root(shelf), FOLDER);
        return shelves.folder(id).orElseThrow();
    }
}
