package mintshelf.app.use.house;

import java.math.BigDecimal;
import java.time.Clock;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.RateStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Texts;
import mintshelf.core.bom.BomUnits;
import mintshelf.core.bom.PartFacts;
import org.springframework.stereotype.Service;

/** What other currencies are in that of the house. */
@Service
public class KeepRates {
    /** Currencies of a house beside its own. */
    static final int MOST = 60;

    private final RateStore rates;
    private final HouseStore house;
    private final PersonStore people;
    private final Acts acts;
    private final Recorder recorder;
    private final Clock clock;

    public KeepRates(RateStore rates, HouseStore house, PersonStore people, Acts acts, Recorder recorder, Clock clock) {
        this.rates = rates;
        this.house = house;
        this.people = people;
        this.acts = acts;
        this.recorder = recorder;
        this.clock = clock;
    }

    /**
     * The table.
     *
     * @param own the currency of the house; empty where it says none
     * @param who names of who wrote the rates
     */
    public record Table(String own, List<RateStore.Rate> rates, Map<Long, String> who) {}

    public Table table(Actor actor) {
        HouseRules.ask(actor);
        List<RateStore.Rate> all = rates.all();
        Map<Long, String> who = all.stream()
                .map(RateStore.Rate::person)
                .distinct()
                .collect(Collectors.toMap(
                        p -> p, p -> people.person(p).map(o -> o.name()).orElse("")));
        return new Table(own(), all, who);
    }

    private String own() {
        return PartFacts.of(house.facts(), Map.of()).currency();
    }

    /** Writes what one unit of a currency is in that of the house. */
    public String keep(Actor actor, String key, String code, String rate) {
        HouseRules.ask(actor);
        return acts.once(actor, key, () -> {
            String currency = code.strip().toUpperCase(Locale.ROOT);
            if (!currency.matches("[A-Z]{3}") || currency.equals(own()))
                throw Refused.because(
                        "rate.code",
                        "“" + Texts.shorten(code.strip(), 20) + "” is no other currency.",
                        "Write its three letters (ISO 4217); nothing was changed.");
            BigDecimal value = BomUnits.rate(rate).orElseThrow(Refused::new);
            Map<String, BigDecimal> now = rates.rates();
            if (!now.containsKey(currency) && now.size() >= MOST)
                throw Refused.because(
                        "rate.many", "There are " + MOST + " currencies already.", "Take one away first.");
            rates.keep(currency, value, actor.person(), clock.instant());
            String was = now.containsKey(currency) ? Numbers.plain(now.getOrDefault(currency, value)) + " → " : "";
            recorder.noteHouse(
                    actor, "rate.kept", "one " + currency + " is " + was + Numbers.plain(value) + " " + own(), "");
            return "/house/currencies";
        });
    }

    /** Takes a currency away: costs in it are unknown from then on, and say so. */
    public String drop(Actor actor, String key, String code) {
        HouseRules.ask(actor);
        return acts.once(actor, key, () -> {
            if (!rates.rates().containsKey(code)) throw new NotThere();
            rates.drop(code);
            recorder.noteHouse(actor, "rate.dropped", "has no rate of " + code + " any more", "");
            return "/house/currencies";
        });
    }
}
