package mintshelf.app.use.compare;

import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.sight.Trials;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.content.UploadStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import org.springframework.stereotype.Component;

/** A file that somebody brought for a document and has not checked in yet, beside the document's latest version. */
@Component
class BroughtFile {
    private final Sight sight;
    private final VersionStore versions;
    private final UploadStore uploads;
    private final Trials trials;

    BroughtFile(Sight sight, VersionStore versions, UploadStore uploads, Trials trials) {
        this.trials = trials;
        this.sight = sight;
        this.versions = versions;
        this.uploads = uploads;
    }

    /** @param head what the latest version has, {@code now} what was brought */
    record Two(StoredContent head, StoredContent now) {}

    /** Both, of a document that the actor sees whole and a complete upload of theirs; nothing where it is not known yet what was brought. */
    Optional<Two> of(Actor actor, long item, String token, Optional<Long> trial) {
        Seen seen = sight.of(actor, item);
        if (!seen.all()) throw new NotThere();
        Upload upload = uploads.upload(token)
                .filter(u -> u.person() == actor.person() && u.state() == Upload.State.COMPLETE)
                .orElseThrow(NotThere::new);
        if (upload.hash().isEmpty() || upload.kind().isEmpty()) return Optional.empty();
        StoredContent head = trial.map(t -> trials.whole(actor, t).lines().stream()
                        .filter(line -> line.item() == item)
                        .findFirst()
                        .map(line -> line.line().content())
                        .orElseThrow(NotThere::new))
                .orElseGet(() -> versions.version(item, seen.document().head().number())
                        .map(VersionRow::content)
                        .orElseThrow(NotThere::new));
        return Optional.of(new Two(
                head,
                new StoredContent(
                        upload.content(),
                        upload.hash().get(),
                        upload.size(),
                        upload.kind().get())));
    }
}
