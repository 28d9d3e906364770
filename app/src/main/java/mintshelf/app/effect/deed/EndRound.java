package mintshelf.app.effect.deed;

import java.util.List;
import mintshelf.app.store.round.BundleStore;
import mintshelf.app.store.round.RoundStore;
import mintshelf.core.route.Effect;
import mintshelf.core.signoff.Round;
import org.springframework.stereotype.Component;

/** Ends the round and its bundle; what was signed falls when it is taken back. */
@Component
class EndRound implements Deed {
    private final RoundStore rounds;
    private final BundleStore bundles;

    EndRound(RoundStore rounds, BundleStore bundles) {
        this.rounds = rounds;
        this.bundles = bundles;
    }

    @Override
    public Effect effect() {
        return Effect.END_ROUND;
    }

    @Override
    public void carryOut(Setting setting, List<Mover> movers) {
        Round round = setting.round().orElseThrow();
        Round.State as = setting.ends().orElseThrow();
        if (as == Round.State.TAKEN_BACK)
            rounds.fall(round.id(), "taken back by " + setting.actor().name(), setting.now());
        rounds.end(round.id(), as, setting.actor().person(), setting.why(), setting.now());
        bundles.closeBundle(round.bundle(), setting.now());
    }
}
