package mintshelf.app.effect;

import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.structure.Reference;
import org.springframework.stereotype.Component;

/** What a new document that begins as a copy refers to, and what it came from. */
@Component
class FreshTies {
    private final References references;
    private final Links links;
    private final FirstReferences first;
    private final FreezeBom bom;
    private final Recorder recorder;

    FreshTies(References references, Links links, FirstReferences first, FreezeBom bom, Recorder recorder) {
        this.bom = bom;
        this.recorder = recorder;
        this.references = references;
        this.links = links;
        this.first = first;
    }

    /**
     * The copy refers by the same names to what is found from where it lies.
     *
     * @param source version of which it is a copy
     */
    void tie(
            Actor actor,
            NewDocuments.Made made,
            StoredContent content,
            long from,
            long source,
            FreshCopy.Inside inside) {
        links.byNumber(actor, made.item());
        if (inside.derived()) links.derived(actor, made.item(), from, source);
        else links.started(actor, made.item(), from);
        FirstReferences.Of of = new FirstReferences.Of(made.item(), made.revision(), made.version(), content);
        if (inside.refersTo().isPresent()) first.keep(of, inside.refersTo().get());
        else
            first.keep(
                    of, references.of(source).stream().map(Reference::written).toList(), Optional.of(source));
        bom.begins(made.revision(), made.version(), source);
    }

    void tell(Actor actor, NewDocuments.Made made, String says, String comment) {
        recorder.recent(actor, made.item(), "made");
        recorder.note(actor, made.item(), "version.added", made.number(), says, comment);
    }
}
