package mintshelf.app.effect.deed;

import java.util.List;
import mintshelf.app.effect.Asking;
import mintshelf.app.store.round.RoundStore;
import mintshelf.core.route.Effect;
import org.springframework.stereotype.Component;

/** Asks for sign-offs: one round over all that goes together, what stays where it is too. */
@Component
class OpenRound implements Deed {
    private final RoundStore rounds;
    private final Asking asking;

    OpenRound(RoundStore rounds, Asking asking) {
        this.rounds = rounds;
        this.asking = asking;
    }

    @Override
    public Effect effect() {
        return Effect.OPEN_ROUND;
    }

    @Override
    public void carryOut(Setting setting, List<Mover> movers) {
        Setting.Asks asks = setting.asks().orElseThrow();
        long bundle = rounds.openBundle(
                setting.together().stream().map(s -> s.spine().id()).toList(),
                setting.actor().person(),
                setting.now());
        asking.open(setting.actor(), bundle, setting.together(), asks.lines(), asks.note(), asks.wishes());
    }
}
