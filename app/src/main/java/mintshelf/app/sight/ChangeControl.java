package mintshelf.app.sight;

import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.document.Spine;
import mintshelf.app.store.house.RuleStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.house.ChangeControlRule;
import mintshelf.core.house.ChangeControlRule.Starts;
import mintshelf.core.signoff.Asked;
import org.springframework.stereotype.Component;

/** What the house's change control says of documents: whether somebody may start their next revisions, and who is told. */
@Component
public class ChangeControl {
    private final RuleStore rules;
    private final PersonStore people;

    public ChangeControl(RuleStore rules, PersonStore people) {
        this.rules = rules;
        this.people = people;
    }

    /** As it stands now, for as many documents as are asked about; one statement, and one for each group or role that it names. */
    public Now now() {
        return new Now(rules.changeControl(), people);
    }

    /** The change control in force at a moment. */
    public static final class Now {
        private final ChangeControlRule rule;
        private final PersonStore people;
        private final Map<Asked, Set<Long>> members = new HashMap<>();

        private Now(ChangeControlRule rule, PersonStore people) {
            this.rule = rule;
            this.people = people;
        }

        private ChangeControlRule.Sentence of(Spine spine) {
            return rule.of(spine.kindCode(), spine.document().place().shelf());
        }

        private Set<Long> members(Asked who) {
            return members.computeIfAbsent(who, w -> {
                Set<Long> all = new LinkedHashSet<>();
                people.asked(w).forEach(p -> all.add(p.id()));
                return all;
            });
        }

        /** How a document's next revision begins. */
        public Starts starts(Spine spine) {
            return of(spine).starts();
        }

        /** Whether some kind or shelf says that what is revised needs a new number. */
        public boolean declares() {
            return rule.sentences().stream().anyMatch(s -> !s.isInterchangeable());
        }

        /** Whether a document that is revised because of what it refers to keeps its number. */
        public boolean isInterchangeable(Spine spine) {
            return of(spine).isInterchangeable();
        }

        /** Why the house does not let an actor start the next revision by hand; nothing when it does. */
        public Optional<Refusal> refusal(Actor actor, Spine spine) {
            ChangeControlRule.Sentence sentence = of(spine);
            String number = spine.document().number();
            if (sentence.starts().isByPaper()) {
                boolean asks = sentence.starts() == Starts.BY_REQUEST;
                return Optional.of(Refusal.of(
                        asks ? "revision.by_request" : "revision.by_order",
                        "The next revision of " + number + " is started by a change "
                                + (asks ? "request that is accepted." : "order."),
                        "Ask for a change."));
            }
            if (sentence.some().isEmpty() || members(sentence.some().get()).contains(actor.person())) {
                return Optional.empty();
            }
            return Optional.of(Refusal.of(
                    "revision.by_some",
                    "You are none of those who start the next revision of " + number + ".",
                    "Ask for a change, or ask who keeps the house's rules."));
        }

        /** Who is told that a document's next revision was started. */
        public Set<Long> told(Spine spine) {
            return of(spine).told().map(this::members).orElse(Set.of());
        }
    }
}
