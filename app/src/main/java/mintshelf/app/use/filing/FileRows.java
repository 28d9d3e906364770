package mintshelf.app.use.filing;

import java.time.Clock;
import java.util.List;
import java.util.Optional;
import mintshelf.app.effect.NeutralCopies;
import mintshelf.app.effect.NewDocuments;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.content.UploadStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.filing.FilingStore;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.core.access.Right;
import mintshelf.core.base.Numbers;
import org.springframework.stereotype.Component;

/** Makes documents of rows of a filing sheet, within the act that files it. */
@Component
public class FileRows {
    private final NewDocuments documents;
    private final FilingStore filings;
    private final UploadStore uploads;
    private final HoldStore holds;
    private final Sight sight;
    private final Recorder recorder;
    private final NeutralCopies neutral;
    private final Clock clock;

    public FileRows(
            NewDocuments documents,
            FilingStore filings,
            UploadStore uploads,
            HoldStore holds,
            Sight sight,
            Recorder recorder,
            NeutralCopies neutral,
            Clock clock) {
        this.neutral = neutral;
        this.documents = documents;
        this.filings = filings;
        this.uploads = uploads;
        this.holds = holds;
        this.sight = sight;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** A document that was just filed. */
    record Made(
            long item, long revision, long version, StoredContent content, String token, ReadyRow ready, boolean out) {}

    /**
     * Makes a document of a row, held by the actor where that is wanted and allowed.
     *
     * @param comment on its first version, where the row says nothing of its own
     */
    Made file(Actor actor, ReadyRow ready, Upload upload, boolean hold, String comment) {
        String words = ready.row().words().isEmpty() ? comment : ready.row().words();
        boolean out = ready.row().origin().released();
        StoredContent content = uploads.seal(List.of(upload)).get(upload.token());
        Optional<String> takenOver = ready.takenOver();
        NewDocuments.Made made = documents.add(
                actor,
                new NewDocuments.New(
                        ready.kind(),
                        ready.folder(),
                        ready.number(),
                        ready.title(),
                        ready.file(),
                        ready.label(),
                        takenOver
                                .map(label -> "Taken over as revision " + label)
                                .orElse(""),
                        ready.facts(),
                        content,
                        words.isEmpty() ? "First filing" : words,
                        out ? VersionRow.MadeBy.TAKEN_IN : VersionRow.MadeBy.FILED));
        filings.filed(ready.row().id(), made.item());
        recorder.recent(actor, made.item(), "filed");
        recorder.note(
                actor,
                made.item(),
                "version.added",
                made.number(),
                "filed " + ready.number().number() + " as a " + ready.kind().name() + ", version 1 ("
                        + Numbers.size(content.size()) + ")"
                        + takenOver
                                .map(label -> ", taken over as revision " + label)
                                .orElse(""),
                "");
        if (hold && !out && actor.access().may(Right.CHANGE, ready.place())) {
            Seen seen = sight.of(actor, made.item());
            holds.take(List.of(seen.document()), actor.person(), "", "", clock.instant());
            recorder.note(actor, made.item(), "hold.taken", made.number(), "holds it from the filing on", "");
        }
        return new Made(made.item(), made.revision(), made.version(), content, upload.token(), ready, out);
    }

    /** Lays what came beside its file: of a copy that did not arrive whole its row is told. */
    void lay(Actor actor, Made made, Upload main, List<Upload> copies) {
        if (copies.isEmpty()) return;
        for (Upload copy : copies) {
            if (copy.state() != Upload.State.COMPLETE) {
                throw Refused.because(
                        "upload.gone",
                        "“" + copy.fileName() + "” was not kept that long.",
                        "Drop it again; nothing was filed.");
            }
        }
        neutral.lay(
                actor,
                new NeutralCopies.To(
                        made.item(),
                        made.version(),
                        1,
                        main.fileName(),
                        made.content().kind()),
                copies,
                uploads.seal(copies));
    }
}
