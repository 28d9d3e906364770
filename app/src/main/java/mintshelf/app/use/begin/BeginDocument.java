package mintshelf.app.use.begin;

import java.time.Clock;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.FreshCopy;
import mintshelf.app.effect.FreshFacts;
import mintshelf.app.effect.NewDocuments;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.KindFact;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.FactSource;
import mintshelf.core.fact.FactType;
import mintshelf.core.fact.FactsAlong;
import org.springframework.stereotype.Service;

/** New from a template, new from a document: the file with a title block of its own, a number of its own, its facts said anew where the kind wants it. */
@Service
public class BeginDocument {
    private final Sight sight;
    private final NewPlaces places;
    private final FreshCopy copy;
    private final FreshFacts facts;
    private final HoldStore holds;
    private final Recorder recorder;
    private final Acts acts;
    private final Clock clock;

    public BeginDocument(
            Sight sight,
            NewPlaces places,
            FreshCopy copy,
            FreshFacts facts,
            HoldStore holds,
            Recorder recorder,
            Acts acts,
            Clock clock) {
        this.sight = sight;
        this.places = places;
        this.copy = copy;
        this.facts = facts;
        this.holds = holds;
        this.recorder = recorder;
        this.acts = acts;
        this.clock = clock;
    }

    /**
     * What somebody wants.
     *
     * @param folder where it goes; without one beside the document, or where they file
     * @param kind what it is; without one what the document is, or what the filing rules say of a template's file
     * @param number empty for the next one of the series
     * @param said of its facts, by short name; what is not named goes along from the document
     */
    public record Wish(
            Optional<Long> folder,
            Optional<Long> kind,
            String number,
            String title,
            Map<String, String> said,
            boolean hold) {}

    /** A field of a fact. */
    public record Field(KindFact fact, String value, Optional<Refusal> closed) {
        public boolean isOpen() {
            return closed.isEmpty();
        }

        public FactType type() {
            return fact.fact().type();
        }

        public String shown() {
            return value;
        }
    }

    /**
     * What the page offers.
     *
     * @param version of the document of which the new one is a copy
     * @param coming the number that it would get
     * @param cleared what the document says and the new one does not
     * @param refusal why nothing can be made there
     */
    public record View(
            Seen from,
            int version,
            boolean template,
            Kind kind,
            List<Kind> kinds,
            Folder folder,
            Optional<String> coming,
            List<Field> fields,
            List<FactDefinition> cleared,
            Optional<Refusal> refusal) {}

    /** Nothing is changed. Not there where the actor may file nowhere. */
    public View view(Actor actor, long document, Wish wish) {
        Seen from = sight.of(actor, document);
        boolean template = NewPlaces.isTemplate(from);
        Folder folder = places.folder(actor, from, template, wish.folder());
        List<Kind> kinds = places.kinds(actor, from, folder);
        Kind kind = places.kind(from, template, kinds, wish.kind());
        FactsAlong along = facts.along(from, kind);
        Map<String, String> said = said(actor, kind, along, wish);
        List<Field> fields = facts.sheet(kind).stream()
                .filter(f -> f.fact().use().source() != FactSource.COMPUTED)
                .map(f -> new Field(f, said.getOrDefault(f.fact().name(), ""), closed(f)))
                .filter(f -> f.isOpen() || !f.value().isEmpty())
                .toList();
        return new View(
                from,
                version(from, template),
                template,
                kind,
                kinds,
                folder,
                copy.number(kind, folder.shelf(), said),
                fields,
                along.cleared(),
                refusal(actor, from, template, places.of(folder, kind)));
    }

    private Map<String, String> said(Actor actor, Kind kind, FactsAlong along, Wish wish) {
        Map<String, String> said = new HashMap<>(along.kept());
        said.putAll(typed(kind, wish));
        return facts.said(actor, kind, said);
    }

    /** What was typed of the facts that people type: what a file says of itself goes along with it. */
    private Map<String, String> typed(Kind kind, Wish wish) {
        Map<String, String> typed = new HashMap<>(wish.said());
        facts.sheet(kind).stream()
                .filter(f -> closed(f).isPresent())
                .forEach(f -> typed.remove(f.fact().name()));
        return typed;
    }

    private static Optional<Refusal> closed(KindFact fact) {
        return fact.fact().use().source().isTyped()
                ? Optional.empty()
                : Optional.of(Refusal.of(
                        "fact.source", fact.fact().label() + " is what the file says.", "It goes along with it."));
    }

    /** What is copied: of a template what is in force, of a document what the actor gets. */
    private static int version(Seen from, boolean template) {
        return template ? from.spine().releasedVersion().orElse(from.version()) : from.version();
    }

    private Optional<Refusal> refusal(Actor actor, Seen from, boolean template, Place place) {
        return FreshCopy.nothing(from)
                .or(() -> actor.access().ask(Right.FILE, place))
                .or(() -> places.bytes(actor, from, version(from, template)));
    }

    /** Makes the document, held by the actor where that is wanted and allowed; the address of its page. */
    public String make(Actor actor, long document, String key, Wish wish) {
        String title = Texts.required("The title", wish.title(), 200).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            Seen from = sight.of(actor, document);
            boolean template = NewPlaces.isTemplate(from);
            Folder folder = places.folder(actor, from, template, wish.folder());
            Kind kind = places.kind(from, template, places.kinds(actor, from, folder), wish.kind());
            // The page falls back where a folder takes no such kind; the act does what it was asked to, or nothing.
            if (wish.kind().filter(k -> k != kind.id()).isPresent()) throw new NotThere();
            Place place = places.of(folder, kind);
            refusal(actor, from, template, place).ifPresent(r -> {
                throw new Refused(r);
            });
            Map<String, String> said =
                    new LinkedHashMap<>(facts.along(from, kind).kept());
            said.putAll(typed(kind, wish));
            NewDocuments.Made made = copy.make(
                    actor,
                    from,
                    version(from, template),
                    new FreshCopy.As(
                            kind,
                            folder,
                            wish.number(),
                            title,
                            said,
                            "Begun from " + from.document().number() + " version " + version(from, template)));
            boolean held = wish.hold() && !kind.isPart() && actor.access().may(Right.CHANGE, place);
            if (held) {
                Seen seen = sight.of(actor, made.item());
                holds.take(List.of(seen.document()), actor.person(), "", "", clock.instant());
                recorder.note(actor, made.item(), "hold.taken", made.number(), "holds it from its beginning on", "");
            }
            return "/documents/" + made.item() + (held ? "?taken" : "");
        });
    }

    /** Templates that are in force and shown to the actor, by number; one more than the page has where there are more. */
    public List<Seen> templates(Actor actor, int from, int most) {
        if (places.into(actor).isEmpty()) throw new NotThere();
        return List.copyOf(sight.of(actor, places.templates(actor, from, most)).values());
    }
}
