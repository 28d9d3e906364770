package mintshelf.app.use.change;

import java.util.List;
import java.util.Optional;
import mintshelf.app.effect.ChangePaper;
import mintshelf.app.effect.FilePhoto;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.RequestStore;
import mintshelf.core.base.Texts;
import org.springframework.stereotype.Service;

/** Adds a photo to a request: it is filed, and the request goes by it. Whoever may write the request may, without filing rights. */
@Service
public class AddPhoto {
    private final Sight sight;
    private final ChangePaper paper;
    private final RequestStore store;
    private final FilePhoto photos;
    private final Acts acts;

    public AddPhoto(Sight sight, ChangePaper paper, RequestStore store, FilePhoto photos, Acts acts) {
        this.sight = sight;
        this.paper = paper;
        this.store = store;
        this.photos = photos;
        this.acts = acts;
    }

    /**
     * A photo that was sent with a request, before that is written; nothing where none was sent.
     *
     * @throws Refused for what is no photo: then nothing is written at all
     */
    public Optional<byte[]> read(byte[] sent) {
        return sent.length == 0
                ? Optional.empty()
                : Optional.of(FilePhoto.read(sent).orElseThrow(Refused::new));
    }

    /** @param jpeg as {@link #read} gives it */
    public String add(Actor actor, long request, String key, byte[] jpeg, String note) {
        String words = Texts.optional("The note", note, 300).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            Seen seen = paper.written(actor, sight.lockedWithPapers(actor, List.of(request)), request);
            if (store.evidence(request).size() >= WriteRequest.MOST_EVIDENCE) {
                throw Refused.because(
                        "evidence.many", "It has " + WriteRequest.MOST_EVIDENCE + " already.", "Take one away first.");
            }
            long version = photos.file(actor, seen.document(), jpeg);
            store.addEvidence(
                    request,
                    new RequestStore.NewEvidence(version, Optional.empty(), Optional.empty(), words),
                    actor.person());
            paper.write(actor, actor.person(), request, "added a photo");
            return "/requests/" + request;
        });
    }
}
