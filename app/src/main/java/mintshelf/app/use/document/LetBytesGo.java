package mintshelf.app.use.document;

import java.time.Clock;
import java.time.Instant;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.content.UploadStore;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.NeutralStore;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.hold.StrayStore;
import mintshelf.core.document.DropRules;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/** What was dropped ninety days ago loses its bytes; what it was stays known. */
@Service
public class LetBytesGo {
    private final DocumentStore documents;
    private final VersionStore versions;
    private final StrayStore strays;
    private final UploadStore uploads;
    private final NeutralStore neutral;
    private final UnitOfWork unit;
    private final Recorder recorder;
    private final Clock clock;

    public LetBytesGo(
            DocumentStore documents,
            VersionStore versions,
            NeutralStore neutral,
            StrayStore strays,
            UploadStore uploads,
            UnitOfWork unit,
            Recorder recorder,
            Clock clock) {
        this.documents = documents;
        this.neutral = neutral;
        this.versions = versions;
        this.strays = strays;
        this.uploads = uploads;
        this.unit = unit;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** Documents that one turn of the run lets go. */
    private static final int PORTION = 50;

    /** Lets the bytes go of what was dropped long ago and of files kept in case more than their saving had changed. */
    @Scheduled(initialDelayString = "PT7M", fixedDelayString = "PT1H")
    public void letGo() {
        Instant now = clock.instant();
        unit.run(() -> {
            strays.forgetSaved(now, PORTION).forEach(uploads::freeUnlessHeld);
            return 0;
        });
        int freed;
        do {
            freed = unit.run(() -> {
                List<Long> items = documents.toFree(now.minus(DropRules.KEPT), PORTION);
                for (long item : items) {
                    Set<Long> held = new LinkedHashSet<>(strays.contents(item));
                    strays.removeAll(item);
                    held.addAll(neutral.free(item));
                    held.addAll(versions.free(item));
                    documents.noteFreed(item, now);
                    held.forEach(uploads::freeUnlessHeld);
                    recorder.noteByItself(item, "document.freed", "let the bytes of the dropped document go");
                }
                return items.size();
            });
        } while (freed == PORTION);
    }
}
