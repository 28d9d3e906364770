package mintshelf.app.use.begin;

import java.util.List;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.IntoFolders;
import mintshelf.app.sight.MayFetch;
import mintshelf.app.sight.Places;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.ListStore;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.FilingRuleStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.FileName;
import mintshelf.core.filing.FilingRule;
import org.springframework.stereotype.Component;

/** Where new documents can go, as what. */
@Component
public class NewPlaces {
    /** Kind whose released documents new ones are begun from. */
    public static final String TEMPLATE = "template";

    private final ShelfStore shelves;
    private final HouseStore house;
    private final FilingRuleStore rules;
    private final ListStore lists;
    private final IntoFolders into;
    private final MayFetch fetch;
    private final VersionStore versions;

    public NewPlaces(
            ShelfStore shelves,
            HouseStore house,
            FilingRuleStore rules,
            ListStore lists,
            IntoFolders into,
            MayFetch fetch,
            VersionStore versions) {
        this.fetch = fetch;
        this.versions = versions;
        this.shelves = shelves;
        this.house = house;
        this.rules = rules;
        this.lists = lists;
        this.into = into;
    }

    static boolean isTemplate(Seen from) {
        return from.spine().kindCode().equals(TEMPLATE);
    }

    /** Why the actor may not have the bytes of which the new one would be a copy. */
    Optional<Refusal> bytes(Actor actor, Seen from, int version) {
        return versions.version(from.spine().id(), version).flatMap(v -> fetch.copied(actor, from, v));
    }

    List<IntoFolders.Target> into(Actor actor) {
        return into.of(actor);
    }

    /** The wanted folder; else beside the document, where the actor may file there; else the first place where they may. */
    Folder folder(Actor actor, Seen from, boolean template, Optional<Long> wanted) {
        List<Folder> open =
                into.of(actor).stream().flatMap(t -> t.folders().stream()).toList();
        if (open.isEmpty()) throw new NotThere();
        if (wanted.isPresent()) {
            return open.stream().filter(f -> f.id() == wanted.get()).findFirst().orElseThrow(NotThere::new);
        }
        long beside = from.spine().folder();
        return open.stream()
                .filter(f -> !template && f.id() == beside)
                .findFirst()
                .orElse(open.get(0));
    }

    Place of(Folder folder, Kind kind) {
        return Places.of(shelves, folder, kind.id());
    }

    /** What a new one can be as far as the actor may file it into that folder: parts without a file begin from such parts alone. */
    List<Kind> kinds(Actor actor, Seen from, Folder folder) {
        return house.kinds().stream()
                .filter(k -> from.document().part() ? k.isPart() : k.isFiled())
                .filter(k -> actor.access().may(Right.FILE, of(folder, k)))
                .toList();
    }

    /** The wanted kind; else the document's own; of a template what the filing rules make of such a file. */
    Kind kind(Seen from, boolean template, List<Kind> kinds, Optional<Long> wanted) {
        if (wanted.isPresent()) {
            return kinds.stream()
                    .filter(k -> k.id() == wanted.get())
                    .findFirst()
                    .or(() -> kinds.stream().findFirst())
                    .orElseThrow(NotThere::new);
        }
        long own = from.document().place().kind();
        if (!template) return house.kind(own);
        String ending = FileName.of(from.document().fileName()).extension();
        return FilingRule.first(
                        rules.all(),
                        FileName.of("new." + ending),
                        from.spine().content().kind().name())
                .flatMap(found ->
                        kinds.stream().filter(k -> k.id() == found.kind()).findFirst())
                .or(() -> kinds.stream().filter(k -> k.id() != own).findFirst())
                .orElseGet(() -> house.kind(own));
    }

    List<Long> templates(Actor actor, int from, int most) {
        return lists.released(TEMPLATE, actor.access(), from, most);
    }
}
