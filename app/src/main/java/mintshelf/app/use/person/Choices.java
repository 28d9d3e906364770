package mintshelf.app.use.person;

import java.util.Map;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.person.SettingStore;
import org.springframework.stereotype.Service;

/** What people chose for their own pages. */
@Service
public class Choices {
    private final SettingStore chosen;
    private final UnitOfWork unit;

    public Choices(SettingStore chosen, UnitOfWork unit) {
        this.chosen = chosen;
        this.unit = unit;
    }

    public Map<String, String> settings(long person) {
        return chosen.settings(person);
    }

    /** Keeps how a person likes their pages. */
    public void choose(Actor actor, String name, String value) {
        if (!name.matches("[a-z_.0-9]{1,60}") || value.length() > 2000) throw new NotThere();
        unit.run(() -> chosen.set(actor.person(), name, value));
    }
}
