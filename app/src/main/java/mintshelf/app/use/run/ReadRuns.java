package mintshelf.app.use.run;

import java.util.List;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.store.run.Run;
import mintshelf.app.store.run.RunStore;
import org.springframework.stereotype.Service;

/** What somebody's acts over sets did. One's own; who keeps the house rules reads those of others too. */
@Service
public class ReadRuns {
    private final RunStore runs;

    public ReadRuns(RunStore runs) {
        this.runs = runs;
    }

    public Run run(Actor actor, long id) {
        return runs.run(id)
                .filter(r -> r.person() == actor.person() || HouseRules.keeps(actor))
                .orElseThrow(NotThere::new);
    }

    /** The address of what the actor's act did, by the act's key. */
    public String address(Actor actor, String key) {
        return "/runs/"
                + runs.of(actor.person(), key).orElseThrow(NotThere::new).id();
    }

    /** The actor's own, the latest first. */
    public List<Run> mine(Actor actor, long before, int most) {
        return runs.of(actor.person(), before, most);
    }
}
