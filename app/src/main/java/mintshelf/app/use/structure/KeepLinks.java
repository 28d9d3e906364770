package mintshelf.app.use.structure;

import java.time.Clock;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Numbered;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.core.access.Right;
import mintshelf.core.numbering.NumberKey;
import org.springframework.stereotype.Service;

/** Links beside references: made and taken away by hand. */
@Service
public class KeepLinks {
    private final Sight sight;
    private final Numbered numbered;
    private final LinkStore links;
    private final Acts acts;
    private final Recorder recorder;
    private final Clock clock;

    public KeepLinks(Sight sight, Numbered numbered, LinkStore links, Acts acts, Recorder recorder, Clock clock) {
        this.sight = sight;
        this.numbered = numbered;
        this.links = links;
        this.acts = acts;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** The document of a number that the actor sees; another one than {@code item}. */
    Seen byNumber(Actor actor, long item, String number) {
        NumberKey.of(number).orElseThrow(Refused::new);
        return numbered.other(actor, item, number)
                .orElseThrow(() -> Refused.because(
                        "number.unknown", "No other document that you see has the number " + number + ".", ""));
    }

    /** Draws a link by hand. */
    public String link(Actor actor, long item, String key, LinkStore.Kind kind, String number) {
        return acts.once(actor, key, () -> {
            Seen seen = linkable(actor, item);
            Seen target = byNumber(actor, item, number);
            links.add(item, kind, target.spine().id(), false, actor.person(), clock.instant());
            recorder.note(
                    actor,
                    item,
                    "link.drawn",
                    "drew a link: " + kind.words() + " " + target.document().number(),
                    "");
            return "/documents/" + seen.spine().id() + "/refers-to";
        });
    }

    /** Takes a link away. */
    public String unlink(Actor actor, long id, String key) {
        return acts.once(actor, key, () -> {
            LinkStore.Link link = links.link(id).orElseThrow(NotThere::new);
            linkable(actor, link.item());
            Seen target = sight.of(actor, link.target());
            links.remove(id);
            recorder.note(
                    actor,
                    link.item(),
                    "link.removed",
                    "took a link away: " + link.kind().words() + " "
                            + target.document().number(),
                    "");
            return "/documents/" + link.item() + "/refers-to";
        });
    }

    /** Whether this person may draw links from a document. */
    public static boolean mayLink(Actor actor, Seen seen) {
        return seen.all()
                && actor.access().may(Right.CHANGE, seen.document().place())
                && !seen.spine().isChangePaper();
    }

    private Seen linkable(Actor actor, long item) {
        Seen seen = sight.locked(actor, item);
        if (!seen.all()) throw new NotThere();
        actor.access().ask(Right.CHANGE, seen.document().place()).ifPresent(r -> {
            throw new Refused(r);
        });
        return seen;
    }
}
