package mintshelf.app.use.house;

import java.time.Clock;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.RouteStore;
import mintshelf.app.store.house.SheetMapStore;
import mintshelf.app.store.person.GrantStore;
import mintshelf.core.change.NoticeForm;
import mintshelf.core.drawing.titleblock.SheetMap;
import mintshelf.core.house.CalendarRule;
import mintshelf.core.house.ChangeControlRule;
import mintshelf.core.house.DistributionRule;
import mintshelf.core.house.FilingOrder;
import mintshelf.core.house.NoticeFormRule;
import mintshelf.core.route.Route;
import mintshelf.core.signoff.WorkingDays;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Service;

/**
 * Loads the house rules that are shipped: all of them into an empty house; into one that was kept by an earlier release what it
 * lacks, and the next edition of a route that the house has left as it was shipped. What a house has changed stays the house's.
 */
@Service
public class ImportHouse {
    private final HouseFiles files;
    private final HouseStore house;
    private final RouteStore routes;
    private final RuleWriter rules;
    private final SheetMapStore maps;
    private final GrantStore grants;
    private final UnitOfWork unit;
    private final Clock clock;

    public ImportHouse(
            HouseFiles files,
            HouseStore house,
            RouteStore routes,
            RuleWriter rules,
            SheetMapStore maps,
            GrantStore grants,
            UnitOfWork unit,
            Clock clock) {
        this.files = files;
        this.house = house;
        this.routes = routes;
        this.rules = rules;
        this.clock = clock;
        this.maps = maps;
        this.grants = grants;
        this.unit = unit;
    }

    /** Does nothing where nothing is lacking; of two nodes at once one does it. */
    public void load() {
        if (isWhole()) return;
        try {
            unit.run(() -> {
                write();
                return "";
            });
        } catch (DuplicateKeyException e) {
            if (!isWhole()) throw e; // else another node wrote them at this moment
        }
    }

    private boolean isWhole() {
        if (house.isEmpty() || maps.isEmpty()) return false;
        return files.routes().stream().noneMatch(shipped -> isOld(shipped))
                && lacking().isEmpty();
    }

    /** A route that is not there, or that the house has as an earlier file shipped it. */
    private boolean isOld(HouseFiles.Shipped shipped) {
        Optional<Long> route = routes.route(shipped.route().code());
        if (route.isEmpty()) return true;
        return routes.shipped(route.get())
                .filter(was -> !was.equals(shipped.hash()))
                .isPresent();
    }

    /** Papers of changes that the house has no kind for. */
    private List<HouseFiles.KindFile> lacking() {
        List<Kind> kinds = house.kinds();
        return files.kinds().stream()
                .filter(k -> k.paper() != null)
                .filter(k -> kinds.stream().noneMatch(has -> has.code().equals(k.code())))
                .toList();
    }

    private void write() {
        boolean fresh = house.isEmpty();
        if (maps.isEmpty()) maps.add(SheetMap.readyMade());
        if (fresh) files.roles().forEach(r -> grants.addRole(r.role()));
        // What routes ask by is there before them.
        Set<String> known = rules.house().signOffs().keySet();
        files.signOffs().stream()
                .map(HouseFiles.SignOffFile::rule)
                .filter(r -> !known.contains(r.code()))
                .forEach(r -> rules.write(r, shipped()));
        if (fresh) rules.write(new DistributionRule(List.of()), shipped());
        if (fresh) rules.write(new ChangeControlRule(List.of()), shipped());
        if (fresh) rules.write(new NoticeFormRule(NoticeForm.USUAL.blocks()), shipped());
        if (fresh) rules.write(new CalendarRule(WorkingDays.USUAL.weekend(), List.of()), shipped());
        for (HouseFiles.Shipped shipped : files.routes()) {
            if (isOld(shipped)) route(shipped);
        }
        if (fresh) {
            files.facts().forEach(f -> rules.write(f.rule(), shipped()));
            kinds(files.kinds());
            rules.write(
                    new FilingOrder(files.filingRules().stream()
                            .map(HouseFiles.FilingRuleFile::sentence)
                            .toList()),
                    shipped());
        } else {
            kinds(lacking());
        }
    }

    private RouteStore.Made shipped() {
        return new RouteStore.Made(OptionalLong.empty(), clock.instant(), "");
    }

    private void route(HouseFiles.Shipped shipped) {
        HouseFiles.RouteFile file = shipped.route();
        long route = routes.route(file.code()).orElseGet(() -> routes.newRoute(file.code(), file.name()));
        routes.addEdition(
                route,
                new Route(0, file.code(), file.name(), file.stagesInOrder(), file.movesInOrder()),
                Optional.of(shipped.hash()));
    }

    /** Kinds with the series that they number by, in the order of the file. */
    private void kinds(List<HouseFiles.KindFile> kinds) {
        Set<String> series = new HashSet<>(rules.house().series().keySet());
        for (HouseFiles.KindFile kind : kinds) {
            if (series.add(kind.numbers())) {
                files.series().stream()
                        .filter(s -> s.code().equals(kind.numbers()))
                        .forEach(s -> rules.write(s.rule(), shipped()));
            }
            rules.write(kind.rule(), shipped());
        }
    }
}
