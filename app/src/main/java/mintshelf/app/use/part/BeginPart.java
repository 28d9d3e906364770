package mintshelf.app.use.part;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.FreshCopy;
import mintshelf.app.effect.FreshFacts;
import mintshelf.app.effect.FreshPart;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.IntoFolders;
import mintshelf.app.sight.Places;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.KindFact;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.core.access.Right;
import mintshelf.core.base.Texts;
import mintshelf.core.bom.Comes;
import mintshelf.core.bom.PartFacts;
import mintshelf.core.fact.FactType;
import org.springframework.stereotype.Service;

/** A new part that has neither drawing nor model: bought, named in bills of materials by its number. */
@Service
public class BeginPart {
    private final HouseStore house;
    private final ShelfStore shelves;
    private final IntoFolders into;
    private final FreshPart fresh;
    private final FreshCopy numbers;
    private final FreshFacts facts;
    private final Acts acts;

    public BeginPart(
            HouseStore house,
            ShelfStore shelves,
            IntoFolders into,
            FreshPart fresh,
            FreshCopy numbers,
            FreshFacts facts,
            Acts acts) {
        this.house = house;
        this.shelves = shelves;
        this.into = into;
        this.fresh = fresh;
        this.numbers = numbers;
        this.facts = facts;
        this.acts = acts;
    }

    /**
     * What somebody wants.
     *
     * @param folder where it lies; without one the first where the actor may file parts
     * @param kind without one the first that the house has
     * @param number empty for the next one of the series
     * @param said of its facts, by short name
     */
    public record Wish(
            Optional<Long> folder, Optional<Long> kind, String number, String title, Map<String, String> said) {}

    /** A field of a fact. */
    public record Field(KindFact fact, String value) {
        public boolean isOpen() {
            return true;
        }

        public FactType type() {
            return fact.fact().type();
        }
    }

    /** @param coming the number that it would get; empty where its series gives none */
    public record View(Kind kind, List<Kind> kinds, Folder folder, Optional<String> coming, List<Field> fields) {}

    /** Whether somebody may make a part anywhere. */
    public boolean offers(Actor actor) {
        return house.kinds().stream().anyMatch(Kind::isPart)
                && into.of(actor).stream().flatMap(t -> t.folders().stream()).anyMatch(f -> offers(actor, f));
    }

    private boolean offers(Actor actor, Folder folder) {
        return !kinds(actor, folder).isEmpty();
    }

    /** What the page offers; nothing is changed. Not there where the actor may make no parts. */
    public View view(Actor actor, Wish wish) {
        Folder folder = folder(actor, wish.folder());
        List<Kind> kinds = kinds(actor, folder);
        Kind kind = kinds.stream()
                .filter(k -> wish.kind().filter(w -> w == k.id()).isPresent())
                .findFirst()
                .orElse(kinds.get(0));
        Map<String, String> said = said(actor, kind, wish);
        return new View(
                kind,
                kinds,
                folder,
                numbers.number(kind, folder.shelf(), said),
                facts.sheet(kind).stream()
                        .filter(f -> f.fact().use().source().isTyped())
                        .map(f -> new Field(f, said.getOrDefault(f.fact().name(), "")))
                        .toList());
    }

    /** Makes it; the address of its page. */
    public String make(Actor actor, String key, Wish wish) {
        String title = Texts.required("The title", wish.title(), 200).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            Folder folder = folder(actor, wish.folder());
            Kind kind = kinds(actor, folder).stream()
                    .filter(k -> wish.kind().filter(w -> w == k.id()).isPresent())
                    .findFirst()
                    .orElseThrow(NotThere::new);
            Map<String, String> said = new HashMap<>(wish.said());
            facts.sheet(kind).stream()
                    .filter(f -> !f.fact().use().source().isTyped())
                    .forEach(f -> said.remove(f.fact().name()));
            return "/documents/"
                    + fresh.make(actor, kind, folder, wish.number(), title, said)
                            .item();
        });
    }

    /** What was typed, over what is preset; a part without a file is bought, where nobody says otherwise. */
    private Map<String, String> said(Actor actor, Kind kind, Wish wish) {
        Map<String, String> said = new HashMap<>();
        said.put(PartFacts.COMES, Comes.BOUGHT.word());
        said.putAll(wish.said());
        return facts.said(actor, kind, said);
    }

    private Folder folder(Actor actor, Optional<Long> wanted) {
        return into.of(actor).stream()
                .flatMap(t -> t.folders().stream())
                .filter(f -> wanted.map(w -> w == f.id()).orElse(true))
                .filter(f -> offers(actor, f))
                .findFirst()
                .orElseThrow(NotThere::new);
    }

    private List<Kind> kinds(Actor actor, Folder folder) {
        return house.kinds().stream()
                .filter(Kind::isPart)
                .filter(k -> actor.access().may(Right.FILE, Places.of(shelves, folder, k.id())))
                .toList();
    }
}
