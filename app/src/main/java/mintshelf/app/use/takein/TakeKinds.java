package mintshelf.app.use.takein;

import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Places;
import mintshelf.app.store.house.FilingRuleStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.core.access.Right;
import mintshelf.core.filing.FilingRule;
import mintshelf.core.revision.ShippedSeries;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.Route;
import mintshelf.core.takein.Grounds.Known;
import mintshelf.core.takein.TakeRules.Stands;
import org.springframework.stereotype.Component;

/** The kinds as which somebody may take in files. */
@Component
class TakeKinds {
    private final HouseStore house;
    private final FilingRuleStore filing;
    private final ShelfStore shelves;

    TakeKinds(HouseStore house, FilingRuleStore filing, ShelfStore shelves) {
        this.house = house;
        this.filing = filing;
        this.shelves = shelves;
    }

    List<FilingRule> rules() {
        return filing.all();
    }

    Kind kind(long id) {
        return house.kind(id);
    }

    /** Those that the actor may file below a folder, by their ids in the house's order; papers of changes are made by changes. */
    Map<Long, Known> known(Actor actor, Folder top) {
        Map<Long, Known> known = new LinkedHashMap<>();
        for (Kind kind : house.kinds()) {
            if (!kind.isFiled() || !actor.access().may(Right.FILE, Places.of(shelves, top, kind.id()))) continue;
            known.put(
                    kind.id(),
                    new Known(
                            kind.id(),
                            kind.name(),
                            kind.aspect(),
                            ShippedSeries.of(kind.revisionSeries()),
                            stands(house.latest(kind, top.shelf()))));
        }
        return known;
    }

    private static Set<Stands> stands(Route route) {
        Set<Stands> stands = EnumSet.of(Stands.IN_PREPARATION);
        if (route.firstOf(StageClass.RELEASED).isPresent()) stands.add(Stands.RELEASED);
        if (route.firstOf(StageClass.SUPERSEDED).isPresent()) stands.add(Stands.SUPERSEDED);
        if (route.firstOf(StageClass.WITHDRAWN).isPresent()) stands.add(Stands.WITHDRAWN);
        return stands;
    }
}
