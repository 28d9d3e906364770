package mintshelf.app.use.columns;

import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.person.GroupStore;
import mintshelf.app.store.person.SettingStore;
import mintshelf.core.bom.Bom;
import mintshelf.core.bom.PartFacts;
import mintshelf.core.fact.FactDefinition;
import org.springframework.stereotype.Service;

/**
 * Facts as columns of bills of materials, for each of engineering, purchasing and manufacturing: one's own choice, else that of one's group,
 * else none.
 */
@Service
public class BomColumns {
    public static final int MOST = 4;
    private static final String SETTING = "bom.";

    /** What stands there anyway. */
    private static final Set<String> ALWAYS =
            Set.of(PartFacts.MASS, PartFacts.COST, PartFacts.COMES, PartFacts.UNIT, PartFacts.CURRENCY);

    private static final Set<String> BOUGHT =
            Set.of(PartFacts.LEAD_TIME, PartFacts.SUPPLIER, PartFacts.SUPPLIER_NUMBER);

    private final SettingStore settings;
    private final GroupStore groups;
    private final HouseStore house;
    private final Acts acts;
    private final Recorder recorder;

    BomColumns(SettingStore settings, GroupStore groups, HouseStore house, Acts acts, Recorder recorder) {
        this.settings = settings;
        this.groups = groups;
        this.house = house;
        this.acts = acts;
        this.recorder = recorder;
    }

    /**
     * A column.
     *
     * @param name of its fact
     * @param label with the unit
     */
    public record Column(String name, String label) {}

    /** A fact that can be a column, and whether it is one now. */
    public record Choice(String name, String label, boolean chosen) {}

    /**
     * What can be chosen.
     *
     * @param own whether the actor chose: else a group's choice counts, or none
     * @param groups for which the actor may choose
     */
    public record Choices(List<Choice> facts, boolean own, List<GroupStore.Group> groups) {}

    private static String name(Bom.For who) {
        return SETTING + who.word();
    }

    /** The columns that somebody sees; one statement, two where they chose nothing. */
    public List<Column> of(Actor actor, Bom.For who) {
        Optional<String> own =
                Optional.ofNullable(settings.settings(actor.person()).get(name(who)));
        String kept = own.or(() -> settings.ofGroups(actor.person(), name(who))).orElse("");
        List<String> names = Arrays.asList(kept.split(","));
        return possible(who).stream()
                .filter(f -> names.contains(f.name()))
                .map(f -> new Column(f.name(), f.labelled()))
                .toList();
    }

    private List<FactDefinition> possible(Bom.For who) {
        return house.facts().stream()
                .filter(f -> !ALWAYS.contains(f.name()))
                .filter(f -> who != Bom.For.PURCHASING || !BOUGHT.contains(f.name()))
                .toList();
    }

    public Choices choices(Actor actor, Bom.For who) {
        List<String> now = of(actor, who).stream().map(Column::name).toList();
        return new Choices(
                possible(who).stream()
                        .map(f -> new Choice(f.name(), f.labelled(), now.contains(f.name())))
                        .toList(),
                settings.settings(actor.person()).containsKey(name(who)),
                HouseRules.keeps(actor) ? groups.groups() : List.of());
    }

    /**
     * Keeps a choice, the first few of its facts.
     *
     * @param group whose people see it who chose nothing themselves; nothing for one's own pages
     */
    public void choose(Actor actor, String key, Bom.For who, Collection<String> wanted, Optional<Long> group) {
        String value = possible(who).stream()
                .map(FactDefinition::name)
                .filter(wanted::contains)
                .limit(MOST)
                .collect(Collectors.joining(","));
        if (group.isPresent()) HouseRules.ask(actor);
        acts.once(actor, key, () -> {
            if (group.isEmpty()) {
                settings.set(actor.person(), name(who), value);
                return "";
            }
            GroupStore.Group of = groups.groups().stream()
                    .filter(g -> g.id() == group.get())
                    .findFirst()
                    .orElseThrow(NotThere::new);
            settings.setForGroup(of.id(), name(who), value.isEmpty() ? Optional.empty() : Optional.of(value));
            recorder.noteHouse(
                    actor,
                    "columns.chosen",
                    "bills of materials for " + who.word() + " show " + of.name() + " "
                            + (value.isEmpty() ? "no further facts" : value.replace(",", ", ")),
                    "");
            return "";
        });
    }

    /** One's own choice is forgotten: that of one's group counts again. */
    public void forget(Actor actor, String key, Bom.For who) {
        acts.once(actor, key, () -> {
            settings.forget(actor.person(), name(who), false);
            return "";
        });
    }
}
