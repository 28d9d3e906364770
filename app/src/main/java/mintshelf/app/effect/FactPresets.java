package mintshelf.app.effect;

import java.time.Clock;
import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.house.KindFact;
import mintshelf.core.fact.Computed;
import mintshelf.core.fact.FactDefinition;
import org.springframework.stereotype.Component;

/** What facts of a new document are before anybody says otherwise: as the house presets them, put together last. */
@Component
public class FactPresets {
    private final Settings settings;
    private final Clock clock;

    public FactPresets(Settings settings, Clock clock) {
        this.settings = settings;
        this.clock = clock;
    }

    /** What the facts of a sheet are today where who files says nothing else, by their short names. */
    public Map<String, String> of(String login, Collection<KindFact> sheet) {
        LocalDate today = LocalDate.ofInstant(clock.instant(), settings.zone());
        Map<String, String> presets = new HashMap<>();
        for (KindFact fact : sheet) {
            String preset = fact.fact().use().presetFor(fact.fact().type(), login, today);
            if (!preset.isEmpty()) presets.put(fact.fact().name(), preset);
        }
        return presets;
    }

    /** What is said of a sheet's facts: what was read or typed, else its preset, and what follows from both. */
    public Map<String, String> said(String login, List<KindFact> sheet, Map<String, String> read) {
        List<FactDefinition> facts = sheet.stream().map(KindFact::fact).toList();
        Map<String, String> said = of(login, sheet);
        said.putAll(read);
        Computed.of(facts, said).forEach((fact, value) -> said.put(fact.name(), value));
        return said;
    }
}
