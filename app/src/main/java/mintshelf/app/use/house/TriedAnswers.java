package mintshelf.app.use.house;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.Asking;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.Grants;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.person.PersonStore;
import mintshelf.core.access.Grant;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import mintshelf.core.base.Outcome;
import mintshelf.core.revision.RevisionSeries;
import mintshelf.core.revision.ShippedSeries;
import mintshelf.core.route.Move;
import mintshelf.core.route.Route;
import org.springframework.stereotype.Component;

/** What is answered alike of a file and of a document: who could do what, who would be asked by when, which labels come. */
@Component
class TriedAnswers {
    private static final int AHEAD = 3;

    /** Rights that answer "who could do what" for a document. */
    private static final List<Right> ASKED =
            List.of(Right.FILE, Right.CHANGE, Right.SIGN, Right.KEEP_SHELF, Right.SEE_ALL, Right.SEE_RELEASED);

    private final Grants grants;
    private final Asking asking;

    TriedAnswers(Grants grants, Asking asking) {
        this.grants = grants;
        this.asking = asking;
    }

    Actor actor(long person) {
        return grants.actor(person).orElseThrow(NotThere::new);
    }

    Tried.May may(Actor who, Place place) {
        Map<String, String> may = new LinkedHashMap<>();
        List<String> not = new ArrayList<>();
        for (Right right : ASKED) {
            List<Grant> through = who.access().through(right, place);
            if (through.isEmpty()) not.add(right.words());
            else may.put(right.words(), through.get(0).role().name());
        }
        return new Tried.May(may, not);
    }

    /** The label that is there, or the first, and the next three of its series. */
    static List<String> labels(Kind kind, String said) {
        RevisionSeries series = ShippedSeries.of(kind.revisionSeries());
        List<String> labels = new ArrayList<>();
        labels.add(said.isEmpty() ? series.first() : said);
        while (labels.size() <= AHEAD
                && series.next(labels.get(labels.size() - 1)) instanceof Outcome.Granted<String> next) {
            labels.add(next.value());
        }
        return labels;
    }

    /** Whom a document in a stage asks, or would ask first along the usual way from there. */
    List<Tried.Ask> asks(Route route, String stage, Set<Long> authors, List<Place> places) {
        Optional<Move> decided =
                route.decided(stage).or(() -> route.opensRound(stage).flatMap(m -> route.decided(m.to())));
        return decided.map(m -> asking
                        .lines(authors, places, asking.demand(List.of(m)).lines())
                        .stream()
                        .map(l -> new Tried.Ask(
                                l.anybody() + " as " + l.line().meaning(),
                                l.candidates().stream()
                                        .map(PersonStore.Person::name)
                                        .toList(),
                                l.due()))
                        .toList())
                .orElse(List.of());
    }
}
