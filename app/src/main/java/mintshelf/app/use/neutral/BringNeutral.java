package mintshelf.app.use.neutral;

import java.util.List;
import java.util.Optional;
import mintshelf.app.effect.NeutralCopies;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.content.UploadStore;
import mintshelf.app.store.document.NeutralStore;
import mintshelf.app.store.document.NeutralStore.Copy;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.FileName;
import mintshelf.core.document.NeutralForm;
import mintshelf.core.document.NeutralRules;
import org.springframework.stereotype.Service;

/** What lies beside the file of a version, brought and taken away. */
@Service
public class BringNeutral {
    private static final int MOST = 9;

    private final Sight sight;
    private final VersionStore versions;
    private final NeutralStore copies;
    private final NeutralCopies lay;
    private final UploadStore uploads;
    private final Recorder recorder;
    private final Acts acts;

    public BringNeutral(
            Sight sight,
            VersionStore versions,
            NeutralStore copies,
            NeutralCopies lay,
            UploadStore uploads,
            Recorder recorder,
            Acts acts) {
        this.sight = sight;
        this.versions = versions;
        this.copies = copies;
        this.lay = lay;
        this.uploads = uploads;
        this.recorder = recorder;
        this.acts = acts;
    }

    /**
     * What a page shows beside a version's file.
     *
     * @param out whether a revision was released with it: what it has stays then
     * @param refusal why the actor brings none; nothing where they may
     */
    public record View(List<Copy> copies, boolean out, Optional<Refusal> refusal) {}

    /** Of a version that the actor may see; nothing for a file that is shown as it is. */
    public Optional<View> view(Actor actor, Seen seen, VersionRow version) {
        if (!NeutralForm.isWanted(version.content().kind(), FileName.of(version.fileName()))) return Optional.empty();
        return Optional.of(new View(
                of(seen, version), copies.isOut(seen.spine().id(), version.id()), refusal(actor, seen, version)));
    }

    private Optional<Refusal> refusal(Actor actor, Seen seen, VersionRow version) {
        if (!seen.all()) {
            return Optional.of(Refusal.of("access.missing", "You see released versions of it only.", ""));
        }
        return NeutralRules.bring(
                seen.document(),
                actor.access(),
                FileName.of(version.fileName()),
                version.content().kind(),
                copies.isOut(seen.spine().id(), version.id()));
    }

    /** Its own ones, the one that shows most first. */
    private List<Copy> of(Seen seen, VersionRow version) {
        return copies.of(List.of(seen.spine().id())).stream()
                .filter(c -> c.version() == version.id())
                .sorted((a, b) -> a.form().compareTo(b.form()))
                .toList();
    }

    /** A copy of a version that the actor may fetch. */
    public Copy copy(Actor actor, long item, VersionRow version, NeutralForm form) {
        return of(sight.of(actor, item), version).stream()
                .filter(c -> c.form() == form)
                .findFirst()
                .orElseThrow(NotThere::new);
    }

    /** Lays what came beside a version's file: all of it, or nothing. */
    public String bring(Actor actor, long item, int number, String key, List<String> tokens) {
        if (tokens.isEmpty() || tokens.size() > MOST) {
            throw Refused.because(
                    "neutral.files", "A version takes 1 to " + MOST + " copies at once.", "Bring one of each form.");
        }
        return acts.once(actor, key, () -> {
            Seen seen = sight.locked(actor, List.of(item)).get(0);
            VersionRow version = versions.version(item, number).orElseThrow(NotThere::new);
            refusal(actor, seen, version).ifPresent(r -> {
                throw new Refused(r);
            });
            List<Upload> brought = uploads.uploads(tokens, true).stream()
                    .filter(u -> u.person() == actor.person() && u.state() == Upload.State.COMPLETE)
                    .toList();
            if (brought.size() < tokens.stream().distinct().count()) {
                throw Refused.because("upload.missing", "A file did not arrive whole.", "Bring it again.");
            }
            lay.lay(
                    actor,
                    new NeutralCopies.To(
                            item,
                            version.id(),
                            number,
                            version.fileName(),
                            version.content().kind()),
                    brought,
                    uploads.seal(brought));
            return address(item, number, seen);
        });
    }

    /** Takes a copy away that was brought by mistake; not from what is out. */
    public String remove(Actor actor, long item, int number, String key, NeutralForm form) {
        return acts.once(actor, key, () -> {
            Seen seen = sight.locked(actor, List.of(item)).get(0);
            VersionRow version = versions.version(item, number).orElseThrow(NotThere::new);
            refusal(actor, seen, version).ifPresent(r -> {
                throw new Refused(r);
            });
            if (copies.isOut(item, version.id())) {
                throw Refused.because(
                        "neutral.out",
                        "Version " + number + " was released with it.",
                        "What is released stays as it was.");
            }
            Copy copy = of(seen, version).stream()
                    .filter(c -> c.form() == form)
                    .findFirst()
                    .orElseThrow(NotThere::new);
            copies.remove(version.id(), form);
            uploads.freeUnlessHeld(copy.content().id());
            recorder.note(
                    actor,
                    item,
                    "neutral.taken",
                    number,
                    "took the " + form.words() + " of version " + number + " away",
                    "");
            return address(item, number, seen);
        });
    }

    private static String address(long item, int number, Seen seen) {
        return "/documents/" + item + (seen.version() == number ? "" : "?version=" + number);
    }
}
