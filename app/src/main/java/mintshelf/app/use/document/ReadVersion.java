package mintshelf.app.use.document;

import java.io.IOException;
import java.io.OutputStream;
import java.time.Clock;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.MayFetch;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.hold.StrayStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.output.OutputStore;
import mintshelf.core.document.OutputFormat;
import mintshelf.core.document.VersionName;
import org.springframework.stereotype.Service;

/** Versions, outputs and strays that somebody may fetch. */
@Service
public class ReadVersion {
    private final Sight sight;
    private final VersionStore versions;
    private final RevisionStore revisions;
    private final OutputStore outputs;
    private final StrayStore strays;
    private final ContentStore contents;
    private final MayFetch may;
    private final HouseStore house;
    private final Clock clock;

    public ReadVersion(
            Sight sight,
            VersionStore versions,
            RevisionStore revisions,
            OutputStore outputs,
            StrayStore strays,
            ContentStore contents,
            MayFetch may,
            HouseStore house,
            Clock clock) {
        this.house = house;
        this.sight = sight;
        this.versions = versions;
        this.revisions = revisions;
        this.outputs = outputs;
        this.strays = strays;
        this.contents = contents;
        this.may = may;
        this.clock = clock;
    }

    /** A version that the actor may fetch: any, or only those that were released. */
    public VersionRow version(Actor actor, long item, int number) {
        return version(actor, item, VersionName.main(number));
    }

    /** As {@link #version(Actor, long, int)}; those of trials are work in preparation. */
    public VersionRow version(Actor actor, long item, VersionName name) {
        Seen seen = sight.of(actor, item);
        VersionRow version = versions.version(item, name).orElseThrow(NotThere::new);
        if (seen.all()) return version;
        if (name.isTrial()) throw new NotThere();
        int number = name.number();
        boolean out = revisions.revisions(item).stream()
                .anyMatch(r -> r.releasedVersion().filter(n -> n == number).isPresent());
        if (!out) throw new NotThere();
        return version;
    }

    /** Versions of a document on trials of it, the first trial first; none for who sees released versions only. */
    public List<VersionRow> tried(Actor actor, long item) {
        return sight.of(actor, item).all() ? versions.tried(item) : List.of();
    }

    /** What was made of a version that the actor may fetch. */
    public StoredContent output(Actor actor, long item, int number, String format) {
        VersionRow version = version(actor, item, number);
        may.ask(actor, sight.of(actor, item), version);
        return outputs.of(version.id()).stream()
                .filter(o -> o.format().equals(format))
                .flatMap(o -> o.content().stream())
                .findFirst()
                .orElseThrow(NotThere::new);
    }

    /** How the file of an output is called; papers of changes are called as their documents. */
    public String named(Seen seen, VersionRow version, String format) {
        Kind kind = house.kind(seen.document().place().kind());
        Optional<OutputFormat> known = Stream.of(OutputFormat.values())
                .filter(f -> f.ending().equals(format))
                .findFirst();
        if (known.isEmpty() || kind.isChangePaper()) {
            return version.fileName().replaceFirst("\\.[^.]*$", "") + "." + format;
        }
        String label = revisions.revisions(seen.spine().id()).stream()
                .filter(r -> r.revision().id() == version.revision())
                .map(r -> r.revision().label().orElse(""))
                .findFirst()
                .orElse("");
        return kind.outputs()
                .named(seen.document().number(), label, revisions.title(version.revision()), kind.name(), known.get());
    }

    /** A stray of a document; only who sees work in preparation sees strays. */
    public StrayStore.Stray stray(Actor actor, long id) {
        StrayStore.Stray stray = strays.stray(id).orElseThrow(NotThere::new);
        if (!sight.of(actor, stray.item()).all()) throw new NotThere();
        // What was only saved once more is its author's alone.
        if (stray.isSaved() && !stray.isOpen(actor.person(), clock.instant())) throw new NotThere();
        return stray;
    }

    /** Sends bytes; asked for after {@link #version} or {@link #stray} granted the content. */
    public void send(StoredContent content, long from, long to, OutputStream out) throws IOException {
        contents.send(content.id(), from, to, out);
    }
}
