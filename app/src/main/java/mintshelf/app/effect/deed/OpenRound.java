package mintshelf.app.effect.deed;

import java.util.List;
import java.util.Map;
import mintshelf.app.effect.Asking;
import mintshelf.app.effect.SentWith;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.round.BundleStore;
import mintshelf.core.route.Effect;
import mintshelf.core.signoff.Round;
import org.springframework.stereotype.Component;

/** Asks for sign-offs: one round over all that goes together, what stays where it is too. */
@Component
class OpenRound implements Deed {
    private final BundleStore bundles;
    private final Asking asking;
    private final SentWith with;

    OpenRound(BundleStore bundles, Asking asking, SentWith with) {
        this.with = with;
        this.bundles = bundles;
        this.asking = asking;
    }

    @Override
    public Effect effect() {
        return Effect.OPEN_ROUND;
    }

    @Override
    public void carryOut(Setting setting, List<Mover> movers) {
        if (setting.asks().isPresent()) {
            open(
                    setting,
                    setting.actor().person(),
                    setting.together(),
                    setting.asks().get());
            return;
        }
        // A round that opens the next one: its rule is asked as it stands, and it stays the round of who sent it first.
        List<Seen> all = movers.stream().map(Mover::seen).toList();
        Asking.Demand demand = asking.demand(movers.stream()
                .flatMap(m -> m.route().decided(m.to().code()).stream())
                .toList());
        List<Asking.AskedLine> lines = asking.lines(all, demand.lines());
        Asking.nobody(lines).ifPresent(r -> {
            throw new Refused(r);
        });
        Round before = setting.round().orElseThrow();
        open(
                setting,
                before.by(),
                all,
                new Asking.Asks(
                        lines,
                        demand.policy(),
                        before.note(),
                        Asking.Wishes.named(Map.of()),
                        with.papers(before.id())));
    }

    private void open(Setting setting, long sender, List<Seen> all, Asking.Asks asks) {
        long bundle = bundles.openBundle(all.stream().map(s -> s.spine().id()).toList(), sender, setting.now());
        with.keep(asking.open(setting.actor(), sender, bundle, all, asks), all, asks.papers());
    }
}
