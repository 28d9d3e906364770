package mintshelf.app.use.columns;

import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.person.SettingStore;
import mintshelf.core.fact.FactDefinition;
import org.springframework.stereotype.Service;

/** Facts as columns of lists: up to three of one's choice, behind those that every list has. */
@Service
public class FactColumns {
    public static final int MOST = 3;
    private static final String SETTING = "columns";
    private static final String WIDTH_SETTING = "widths.";
    private static final int MOST_LISTS = 100;
    private static final Pattern LIST = Pattern.compile("shelf|found|used|structure|kept-\\d{1,18}");
    private static final Pattern WIDTHS =
            Pattern.compile("(?:[a-z][a-z0-9_-]{0,63}:\\d{2,4}(?: [a-z][a-z0-9_-]{0,63}:\\d{2,4}){0,19})?");

    private final SettingStore settings;
    private final HouseStore house;
    private final FactStore facts;
    private final UnitOfWork unit;

    FactColumns(SettingStore settings, HouseStore house, FactStore facts, UnitOfWork unit) {
        this.settings = settings;
        this.house = house;
        this.facts = facts;
        this.unit = unit;
    }

    /** A column. */
    public record Column(String name, String label) {}

    /** The columns, and what stands in them, by document. */
    public record Shown(List<Column> columns, Map<Long, Map<String, String>> values) {
        static final Shown NONE = new Shown(List.of(), Map.of());

        /** What stands in a column for a document; empty where it has no such fact. */
        public String of(Seen seen, Column column) {
            return values.getOrDefault(seen.spine().id(), Map.of()).getOrDefault(column.name(), "");
        }
    }

    /** A fact that can be a column, and whether it is one for the actor. */
    public record Choice(String name, String label, boolean chosen) {}

    public List<Choice> choices(Actor actor) {
        return choices(chosen(actor));
    }

    /** What can be a column, those chosen that a list has of its own. */
    public List<Choice> choices(List<String> chosen) {
        return house.facts().stream()
                .map(f -> new Choice(f.name(), f.label(), chosen.contains(f.name())))
                .toList();
    }

    private List<String> chosen(Actor actor) {
        String kept = settings.settings(actor.person()).getOrDefault(SETTING, "");
        return kept.isEmpty() ? List.of() : Arrays.asList(kept.split(","));
    }

    /** Those of some names that are facts of the house, the first three of them. */
    public List<String> known(Collection<String> wanted) {
        return house.facts().stream()
                .map(FactDefinition::name)
                .filter(wanted::contains)
                .limit(MOST)
                .toList();
    }

    /** Keeps the choice: facts of the house, the first three of them. */
    public void choose(Actor actor, Collection<String> wanted) {
        List<String> known = known(wanted);
        unit.run(() -> settings.set(actor.person(), SETTING, String.join(",", known)));
    }

    /**
     * Keeps how wide the columns of a list are for the actor.
     *
     * @param list "shelf", "found", "used", "structure", or "kept-12" for the list of a kept search
     * @param widths in pixels by column, "num:140 c-stage:90"; empty as they usually are
     */
    public void widen(Actor actor, String list, String widths) {
        if (!LIST.matcher(list).matches() || !WIDTHS.matcher(widths).matches()) throw new NotThere();
        String name = WIDTH_SETTING + list;
        unit.run(() -> {
            if (widths.isEmpty()) {
                settings.forget(actor.person(), name, false);
                return;
            }
            long kept = settings.settings(actor.person()).keySet().stream()
                    .filter(n -> n.startsWith(WIDTH_SETTING) && !n.equals(name))
                    .count();
            // Of lists that are long gone nobody takes the widths away: the next ones begin anew.
            if (kept >= MOST_LISTS) settings.forget(actor.person(), WIDTH_SETTING, true);
            settings.set(actor.person(), name, widths);
        });
    }

    /** The actor's columns for documents, as the actor sees these; one statement for all of them. */
    public Shown of(Actor actor, Collection<Seen> rows) {
        return of(chosen(actor), rows);
    }

    /** As {@link #of(Actor, Collection)}, with columns that a list has of its own. */
    public Shown of(List<String> chosen, Collection<Seen> rows) {
        if (chosen.isEmpty() || rows.isEmpty()) return Shown.NONE;
        List<FactDefinition> wanted =
                house.facts().stream().filter(f -> chosen.contains(f.name())).toList();
        Map<Long, Map<String, String>> values =
                facts.facts(rows.stream().map(s -> s.current().id()).toList());
        Map<Long, Map<String, String>> shown = new HashMap<>();
        for (Seen row : rows) {
            Map<String, String> of = new HashMap<>();
            Map<String, String> own = values.getOrDefault(row.current().id(), Map.of());
            for (FactDefinition fact : wanted) {
                String text = own.getOrDefault(fact.name(), "");
                if (!text.isEmpty()) of.put(fact.name(), fact.unit().isEmpty() ? text : text + " " + fact.unit());
            }
            shown.put(row.spine().id(), of);
        }
        return new Shown(
                wanted.stream().map(f -> new Column(f.name(), f.label())).toList(), shown);
    }
}
