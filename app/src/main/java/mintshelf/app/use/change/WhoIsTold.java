package mintshelf.app.use.change;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.change.RequestStore;
import mintshelf.app.store.change.ToldStore;
import mintshelf.app.store.document.Spine;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.RuleStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.round.RoundStore;
import mintshelf.core.change.PaperType;
import mintshelf.core.house.DistributionRule.Sentence;
import mintshelf.core.notice.Moment;
import mintshelf.core.signoff.Round;
import mintshelf.core.signoff.SignOff;
import org.springframework.stereotype.Component;

/** Who learns that an order is carried out: those whose work it is, whom somebody named besides, and whom the house tells of notices. */
@Component
public class WhoIsTold {
    private final RequestStore requests;
    private final ToldStore told;
    private final RoundStore rounds;
    private final SpineStore spines;
    private final HouseStore house;
    private final RuleStore rules;
    private final PersonStore people;
    private final Telling telling;

    WhoIsTold(
            RequestStore requests,
            ToldStore told,
            RoundStore rounds,
            SpineStore spines,
            HouseStore house,
            RuleStore rules,
            PersonStore people,
            Telling telling) {
        this.requests = requests;
        this.told = told;
        this.rounds = rounds;
        this.spines = spines;
        this.house = house;
        this.rules = rules;
        this.people = people;
        this.telling = telling;
    }

    /**
     * Somebody who is told, or who was taken off the list.
     *
     * @param why as in "signed"
     */
    public record One(long person, String name, String why, boolean told) {}

    /**
     * @param people whose list can be changed, by name
     * @param house names whom the house's distribution tells besides
     * @param others people who are not on it, by number
     */
    public record Told(List<One> people, List<String> house, Map<String, String> others) {
        Set<Long> receivers() {
            Set<Long> all = new LinkedHashSet<>();
            people.stream().filter(One::told).forEach(o -> all.add(o.person()));
            return all;
        }
    }

    Told of(Seen paper, Optional<Round> board) {
        Map<Long, String> why = new LinkedHashMap<>();
        why.put(paper.spine().author(), "opened the order");
        List<Long> taken = requests.requestsOf(paper.spine().id());
        spines.spines(taken).values().stream().map(Spine::author).forEach(a -> why.putIfAbsent(a, "asked for it"));
        board.ifPresent(b -> {
            why.putIfAbsent(b.by(), "put it before the board");
            b.signOffs().stream().map(SignOff::person).forEach(p -> why.putIfAbsent(p, "signed"));
            rounds.authors(List.of(b.id())).values().stream()
                    .flatMap(Collection::stream)
                    .forEach(p -> why.putIfAbsent(p, "worked on it"));
        });
        Map<Long, Boolean> said = told.of(paper.spine().id());
        said.forEach((person, is) -> {
            if (is) why.putIfAbsent(person, "named for it");
        });
        List<One> all = new ArrayList<>();
        for (PersonStore.Person p : people.people(why.keySet())) {
            all.add(new One(p.id(), p.name(), why.getOrDefault(p.id(), ""), said.getOrDefault(p.id(), true)));
        }
        Map<String, String> others = new LinkedHashMap<>(people.names());
        why.keySet().forEach(p -> others.remove(Long.toString(p)));
        return new Told(all, house(paper), others);
    }

    private List<String> house(Seen paper) {
        String kind = house.kind(PaperType.NOTICE).code();
        Set<String> names = new LinkedHashSet<>();
        for (Sentence s : rules.distribution()) {
            if (s.isAbout(Moment.RELEASE, kind, paper.document().place().shelf())) {
                people.asked(s.who()).forEach(p -> names.add(p.name()));
            }
        }
        return List.copyOf(names);
    }

    /** Keeps whom somebody chose, where that is another list than the one that it would be. */
    void choose(Seen paper, Told shown, Collection<Long> chosen) {
        Map<Long, Boolean> said = new LinkedHashMap<>();
        Set<Long> wanted = new HashSet<>(chosen);
        for (One one : shown.people()) {
            boolean is = wanted.remove(one.person());
            if (!is) said.put(one.person(), false);
            else if (one.why().equals("named for it")) said.put(one.person(), true);
        }
        for (long person : wanted) {
            if (shown.others().containsKey(Long.toString(person))) said.put(person, true);
        }
        told.keep(paper.spine().id(), said);
    }

    void tell(Actor actor, Collection<Long> receivers, Seen paper, Round board, String says) {
        telling.tell(
                actor,
                receivers,
                "order.carried_out",
                Optional.of(board.id()),
                paper.spine().id(),
                says,
                "/orders/" + paper.spine().id());
    }
}
