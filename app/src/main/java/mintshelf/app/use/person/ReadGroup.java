package mintshelf.app.use.person;

import java.util.ArrayList;
import java.util.List;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.store.house.RuleStore;
import mintshelf.app.store.person.GrantStore;
import mintshelf.app.store.person.GroupStore;
import mintshelf.app.store.person.GroupStore.Group;
import mintshelf.core.access.Grant;
import mintshelf.core.house.SignOffRule;
import mintshelf.core.signoff.Asked;
import org.springframework.stereotype.Service;

/** A group as its page shows it: who is in it, what it gives, what it is asked and told. */
@Service
public class ReadGroup {
    private final GroupStore groups;
    private final GrantStore grants;
    private final RuleStore rules;

    ReadGroup(GroupStore groups, GrantStore grants, RuleStore rules) {
        this.groups = groups;
        this.grants = grants;
        this.rules = rules;
    }

    /**
     * A group.
     *
     * @param gains what whoever is in it may do and is asked, in sentences; for who keeps the house rules and for its own people
     */
    public record View(Group group, List<String> gains) {}

    public View group(Actor actor, long id) {
        Group group =
                groups.groups().stream().filter(g -> g.id() == id).findFirst().orElseThrow(NotThere::new);
        boolean own = HouseRules.keeps(actor) || group.people().containsKey(actor.person());
        return new View(group, own ? gains(group) : List.of());
    }

    private List<String> gains(Group group) {
        List<String> gains = new ArrayList<>();
        for (Grant grant : grants.ofGroup(group.id())) {
            String may = grant.role().rights().isEmpty()
                    ? "may nothing"
                    : "may "
                            + String.join(
                                    ", ",
                                    grant.role().inOrder().stream()
                                            .map(r -> r.words())
                                            .toList());
            gains.add("Is " + grant.role().name() + ", " + grant.where() + ": " + may + ".");
        }
        Asked asked = new Asked(Asked.Kind.GROUP, Long.toString(group.id()));
        for (SignOffRule rule : rules.signOffs()) {
            rule.asked().stream()
                    .filter(l -> l.who().equals(asked))
                    .forEach(l -> gains.add(
                            "Is asked to sign as " + l.meaning() + " by the sign-off rule “" + rule.name() + "”."));
        }
        rules.distribution().stream()
                .filter(s -> s.who().equals(asked))
                .forEach(s -> gains.add("Is told when " + s.moment().words() + "."));
        return gains;
    }
}
