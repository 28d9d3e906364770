package mintshelf.app.use.round;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.Asking;
import mintshelf.app.sight.RoundSight.RoundLine;
import mintshelf.app.sight.RoundSight.RoundView;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.house.HouseStore;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.Move;
import mintshelf.core.route.Route;
import mintshelf.core.signoff.Ask;
import mintshelf.core.signoff.Round;
import mintshelf.core.signoff.SignOff;
import org.springframework.stereotype.Service;

/** The route of what is reviewed, with the names of those who are met on it. */
@Service
public class ReadWay {
    private static final int STOPS = 20;

    private final HouseStore house;
    private final Asking asking;

    ReadWay(HouseStore house, Asking asking) {
        this.house = house;
        this.asking = asking;
    }

    /**
     * A route and where something stands on it.
     *
     * @param at code of the stage
     * @param names whom one meets, in words, by the code of the stage
     */
    public record Way(Route route, String at, Map<String, List<String>> names) {}

    /** The way of what a round decides: who has signed, who is asked, who comes after. */
    public Way way(RoundView view) {
        List<Seen> all = view.lines().stream().map(RoundLine::seen).toList();
        Seen first = first(all);
        Route route = house.edition(first.current().stage().edition());
        String at = first.current().stage().code();
        Map<String, List<String>> names = new LinkedHashMap<>();
        if (view.round().isOpen()) {
            names.put(
                    at,
                    view.round().asks().stream().map(a -> says(view.round(), a)).toList());
            later(route, at, all, names);
        }
        return new Way(route, at, names);
    }

    private static String says(Round round, Ask ask) {
        List<SignOff> given = round.answers(ask);
        if (given.isEmpty()) return ask.whom() + ": " + ask.line().meaning() + "?";
        SignOff last = given.get(given.size() - 1);
        return last.name() + ": "
                + (last.decision().signs()
                        ? ask.line().meaning()
                        : last.decision().words());
    }

    /** The way of what is about to be sent. */
    public Optional<Way> way(SendToReview.Plan plan) {
        if (plan.rows().isEmpty()) return Optional.empty();
        List<Seen> all = plan.rows().stream().map(SendToReview.Row::seen).toList();
        Seen first = first(all);
        Route route = house.edition(first.current().stage().edition());
        String at = first.current().stage().code();
        Optional<Move> send = route.opensRound(at);
        if (send.isEmpty()) return Optional.empty();
        Map<String, List<String>> names = new LinkedHashMap<>();
        names.put(
                send.get().to(),
                plan.lines().stream()
                        .map(l -> l.anybody() + ": " + l.line().meaning())
                        .toList());
        later(route, send.get().to(), all, names);
        return Optional.of(new Way(route, at, names));
    }

    /** Whom the stops behind one ask by their rules as they stand. */
    private void later(Route route, String from, List<Seen> all, Map<String, List<String>> names) {
        String at = from;
        for (int i = 0; i < STOPS; i++) {
            Optional<Move> on = route.decided(at);
            if (on.isEmpty() || names.containsKey(on.get().to())) return;
            at = on.get().to();
            if (route.stage(at).stageClass() != StageClass.DECIDING) return;
            Optional<Move> decided = route.decided(at);
            if (decided.isEmpty()) return;
            List<String> said = new ArrayList<>();
            asking.lines(all, asking.demand(List.of(decided.get())).lines())
                    .forEach(l -> said.add(l.anybody() + ": " + l.line().meaning()));
            names.put(at, said);
        }
    }

    private static Seen first(List<Seen> all) {
        return all.stream().filter(s -> !s.spine().isOrder()).findFirst().orElse(all.get(0));
    }
}
