package mintshelf.app.use.trial;

import java.util.List;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Trials.Tried;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import org.springframework.stereotype.Component;

/** What is kept of an adoption beside the version that it made. */
@Component
class KeepAdopted {
    private final DocumentStore documents;
    private final RevisionStore revisions;
    private final VersionStore versions;
    private final Recorder recorder;

    KeepAdopted(DocumentStore documents, RevisionStore revisions, VersionStore versions, Recorder recorder) {
        this.documents = documents;
        this.revisions = revisions;
        this.versions = versions;
        this.recorder = recorder;
    }

    /** As what it was adopted; and that who worked on the trial has worked on the revision, which they do not sign then. */
    void keep(Tried tried, long version) {
        documents.adopted(tried.line().id(), version);
        long revision = tried.original().document().pending().orElseThrow().id();
        versions.ofLines(List.of(tried.line().id())).values().stream()
                .flatMap(List::stream)
                .map(VersionRow::author)
                .distinct()
                .forEach(author -> revisions.noteHand(revision, author));
    }

    void note(Actor actor, long item, int number, String says, String why) {
        recorder.note(actor, item, "version.added", number, says, why);
    }
}
