package mintshelf.app.effect;

import java.time.Clock;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.document.NeutralStore;
import mintshelf.core.base.Numbers;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.FileName;
import mintshelf.core.document.NeutralForm;
import mintshelf.core.document.NeutralRules;
import org.springframework.stereotype.Component;

/** Lays neutral copies beside the files of versions. Within the caller's transaction, under the document's lock. */
@Component
public class NeutralCopies {
    private final NeutralStore store;
    private final Recorder recorder;
    private final Clock clock;

    public NeutralCopies(NeutralStore store, Recorder recorder, Clock clock) {
        this.store = store;
        this.recorder = recorder;
        this.clock = clock;
    }

    /**
     * The version to which copies are brought.
     *
     * @param main its own file
     */
    public record To(long item, long version, int number, String main, ContentKind kind) {}

    /** The open form of a file that came; nothing where it is none. */
    public static Optional<NeutralForm> form(Upload upload) {
        return NeutralForm.of(upload.kind().orElse(ContentKind.OTHER), FileName.of(upload.fileName()));
    }

    /**
     * Lays all of them, or refuses. Of two in one form the second takes the place of the first.
     *
     * @param contents by upload's token, sealed
     */
    public void lay(Actor actor, To to, Collection<Upload> brought, Map<String, StoredContent> contents) {
        if (brought.isEmpty()) return;
        FileName main = FileName.of(to.main());
        if (!NeutralForm.isWanted(to.kind(), main)) {
            throw Refused.because(
                    "neutral.own",
                    "“" + main.name() + "” is shown as it is; it takes no neutral copy.",
                    "Leave the copies out; nothing was taken.");
        }
        boolean out = store.isOut(to.item(), to.version());
        List<NeutralForm> there = store.of(List.of(to.item())).stream()
                .filter(c -> c.version() == to.version())
                .map(NeutralStore.Copy::form)
                .toList();
        for (Upload upload : brought) {
            FileName name = FileName.of(upload.fileName());
            Optional<NeutralForm> form = form(upload);
            boolean has = form.filter(there::contains).isPresent();
            NeutralRules.take(new NeutralRules.To(main, to.kind(), to.number(), out, has), name, form)
                    .ifPresent(r -> {
                        throw new Refused(r);
                    });
            StoredContent content = contents.get(upload.token());
            store.put(to.version(), form.orElseThrow(), content.id(), name.name(), actor.person(), clock.instant());
            recorder.note(
                    actor,
                    to.item(),
                    "neutral.brought",
                    to.number(),
                    (has ? "brought another " : "brought the ") + form.get().words() + " of version " + to.number()
                            + " (" + Numbers.size(content.size()) + ")",
                    name.name());
        }
    }
}
