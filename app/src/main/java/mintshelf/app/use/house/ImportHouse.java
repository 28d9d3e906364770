package mintshelf.app.use.house;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.KindFact.Required;
import mintshelf.app.store.house.SheetMapStore;
import mintshelf.app.store.person.GrantStore;
import mintshelf.core.drawing.titleblock.SheetMap;
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
    private final SheetMapStore maps;
    private final GrantStore grants;
    private final UnitOfWork unit;

    public ImportHouse(HouseFiles files, HouseStore house, SheetMapStore maps, GrantStore grants, UnitOfWork unit) {
        this.files = files;
        this.house = house;
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
        Optional<Long> route = house.route(shipped.route().code());
        if (route.isEmpty()) return true;
        return house.shipped(route.get())
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
        for (HouseFiles.Shipped shipped : files.routes()) {
            if (isOld(shipped)) route(shipped);
        }
        if (fresh) {
            Map<String, Long> facts = facts();
            kinds(files.kinds(), facts);
            filingRules();
        } else {
            kinds(lacking(), Map.of());
        }
    }

    private void route(HouseFiles.Shipped shipped) {
        HouseFiles.RouteFile file = shipped.route();
        long route = house.route(file.code()).orElseGet(() -> house.newRoute(file.code(), file.name()));
        house.addEdition(
                route,
                file.code(),
                file.name(),
                file.stagesInOrder(),
                file.movesInOrder(),
                Optional.of(shipped.hash()));
    }

    private Map<String, Long> facts() {
        Map<String, Long> ids = new HashMap<>();
        for (HouseFiles.FactFile fact : files.facts()) {
            ids.put(
                    fact.name(),
                    house.addFact(
                            fact.name(),
                            fact.label(),
                            fact.type(),
                            fact.unitOrNone(),
                            fact.patternOrNone(),
                            fact.choicesOrNone()));
        }
        return ids;
    }

    /** Kinds with the series that they number by, in the order of the file. */
    private void kinds(List<HouseFiles.KindFile> kinds, Map<String, Long> facts) {
        Map<String, Long> series = new HashMap<>();
        for (HouseFiles.KindFile kind : kinds) {
            long numbers = series.computeIfAbsent(kind.numbers(), this::series);
            long added = house.addKind(
                            new Kind(
                                    0,
                                    kind.code(),
                                    kind.name(),
                                    kind.aspect(),
                                    kind.glyph(),
                                    numbers,
                                    kind.revisions(),
                                    kind.labelAt().equals("START"),
                                    house.route(kind.route()).orElseThrow(),
                                    Optional.ofNullable(kind.paper())),
                            files.kinds().indexOf(kind) + 1)
                    .id();
            int position = 1;
            for (HouseFiles.KindFactFile fact : kind.factsOrNone()) {
                house.giveFact(added, facts.get(fact.fact()), Required.valueOf(fact.requiredOrNever()), position++);
            }
        }
    }

    private long series(String code) {
        HouseFiles.SeriesFile file = files.series().stream()
                .filter(s -> s.code().equals(code))
                .findFirst()
                .orElseThrow();
        return house.addSeries(file.code(), file.name(), file.pattern(), file.scope());
    }

    private void filingRules() {
        int position = 1;
        for (HouseFiles.FilingRuleFile rule : files.filingRules()) {
            long kind = house.kind(rule.kind()).id();
            for (String content : rule.contentsOrAny()) house.addFilingRule(position, content, rule.namedOrAny(), kind);
            position++;
        }
    }
}
