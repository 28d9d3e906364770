package mintshelf.app.use.change;

import java.time.Clock;
import java.util.List;
import java.util.Optional;
import mintshelf.app.effect.ChangePaper;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.OpenPapers;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.ImpactStore;
import mintshelf.app.store.change.PaperStore;
import mintshelf.core.base.Texts;
import mintshelf.core.change.Impact;
import mintshelf.core.change.Impact.Verdict;
import mintshelf.core.change.PaperLine;
import org.springframework.stereotype.Service;

/** Says against the rule, in words, how far a change reaches. */
@Service
public class KeepImpact {
    private final Sight sight;
    private final PaperStore papers;
    private final ImpactStore said;
    private final ChangePaper write;
    private final Acts acts;
    private final Recorder recorder;
    private final Clock clock;

    public KeepImpact(
            Sight sight,
            PaperStore papers,
            ImpactStore said,
            ChangePaper write,
            Acts acts,
            Recorder recorder,
            Clock clock) {
        this.sight = sight;
        this.papers = papers;
        this.said = said;
        this.write = write;
        this.acts = acts;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** What is said of a document: of a line the first two, of another one any of them. */
    public enum Says {
        INTERCHANGEABLE("is interchangeable"),
        NEW_NUMBER("needs a new number"),
        REVISED("is revised"),
        TAKES("takes it as it is"),
        SPARED("is not touched"),
        AS_BY_RULE("is what the rule says");

        private final String words;

        Says(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * Says one thing of one document that a paper's change reaches.
     *
     * @param why in words; none is needed of a line, nor for going back to the rule
     */
    public String say(Actor actor, long paper, long item, String key, Says says, String why) {
        boolean free = says == Says.AS_BY_RULE;
        return acts.once(actor, key, () -> {
            Seen locked = sight.lockedWithPapers(actor, List.of(paper)).get(0);
            if (papers.paper(paper).isEmpty() || !locked.all()) throw new NotThere();
            if (!OpenPapers.mayWrite(actor, locked)) {
                throw Refused.because(
                        "paper.frozen",
                        locked.document().number() + " is "
                                + locked.current().stage().name() + "; what it says stays.",
                        "Take it back first; nothing was changed.");
            }
            write.withOrder(paper).ifPresent(r -> {
                throw new Refused(r);
            });
            Seen document = sight.of(actor, item);
            if (!document.all()) throw new NotThere();
            Optional<PaperLine> line =
                    papers.lines(paper).stream().filter(l -> l.item() == item).findFirst();
            String reason = line.isPresent() || free
                    ? Texts.optional("The reason", why, 300).orElseThrow(Refused::new)
                    : Texts.required("The reason", why, 300).orElseThrow(Refused::new);
            if (line.isPresent()) {
                if (says != Says.INTERCHANGEABLE && says != Says.NEW_NUMBER) {
                    throw Refused.because(
                            "reach.line",
                            document.document().number() + " is a line: it is changed.",
                            "Say whether it is interchangeable, or take it off.");
                }
                papers.setInterchangeable(line.get().id(), says == Says.INTERCHANGEABLE);
            } else if (free) {
                if (!said.takeBack(paper, item)) return address(paper);
            } else {
                keep(actor, paper, item, says, reason);
            }
            write.write(actor, actor.person(), paper, "said how far it reaches");
            recorder.note(
                    actor,
                    paper,
                    "reach.said",
                    "said that " + document.document().number() + " " + says.words(),
                    reason);
            return address(paper);
        });
    }

    private void keep(Actor actor, long paper, long item, Says says, String why) {
        Optional<Boolean> interchangeable = says == Says.INTERCHANGEABLE ? Optional.of(true) : Optional.empty();
        Optional<Impact.Against> against = switch (says) {
            case NEW_NUMBER -> Optional.of(new Impact.Against(Optional.of(Verdict.NEW_NUMBER)));
            case REVISED -> Optional.of(new Impact.Against(Optional.of(Verdict.REVISED)));
            case TAKES -> Optional.of(new Impact.Against(Optional.of(Verdict.TAKES)));
            case SPARED -> Optional.of(new Impact.Against(Optional.empty()));
            case INTERCHANGEABLE, AS_BY_RULE -> Optional.empty();
        };
        said.say(paper, item, interchangeable, against, why, actor.person(), clock.instant());
    }

    private static String address(long paper) {
        return "/changes/" + paper + "/reach";
    }
}
