package mintshelf.app.use.run;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.run.Run;
import mintshelf.app.store.run.RunStore;
import org.springframework.stereotype.Service;

/** What somebody's acts over sets did. One's own; who keeps the house rules reads those of others too. */
@Service
public class ReadRuns {
    private final RunStore runs;
    private final Sight sight;

    public ReadRuns(RunStore runs, Sight sight) {
        this.runs = runs;
        this.sight = sight;
    }

    public Run run(Actor actor, long id) {
        return runs.run(id)
                .filter(r -> r.person() == actor.person() || HouseRules.keeps(actor))
                .orElseThrow(NotThere::new);
    }

    /** Rows of a run that the actor reads, from a position on. */
    public List<Run.Row> rows(Run run, int from, int most) {
        return runs.rows(run.id(), from, most);
    }

    /** The address of what the actor's act did or does, by the act's key; nothing where it was not begun. */
    public Optional<String> begun(Actor actor, String key) {
        return runs.of(actor.person(), key).map(r -> "/runs/" + r.id());
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

    /** The documents of a run's rows, by their ids, as the reader may see them now. */
    public Map<Long, Seen> seen(Actor actor, List<Run.Row> rows) {
        return sight.of(actor, rows.stream().map(Run.Row::item).distinct().toList());
    }

    /** The documents that a run's rows made, by their ids. */
    public Map<Long, Seen> made(Actor actor, List<Run.Row> rows) {
        return sight.of(
                actor,
                rows.stream()
                        .filter(r -> r.became().equals("made"))
                        .map(Run.Row::number)
                        .toList());
    }
}
