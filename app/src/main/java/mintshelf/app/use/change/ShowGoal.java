package mintshelf.app.use.change;

import mintshelf.app.effect.ChangePaper;
import mintshelf.app.effect.FindEvidence;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.OnOrders;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.change.GoalStore;
import mintshelf.core.access.Right;
import mintshelf.core.base.Texts;
import mintshelf.core.revision.StageClass;
import org.springframework.stereotype.Service;

/** Says on an order by what a goal of one of its requests is seen to be reached: a report, a new one beside the old one. */
@Service
public class ShowGoal {
    private final ChangePaper papers;
    private final OnOrders orders;
    private final GoalStore store;
    private final FindEvidence evidence;
    private final Acts acts;

    public ShowGoal(ChangePaper papers, OnOrders orders, GoalStore store, FindEvidence evidence, Acts acts) {
        this.papers = papers;
        this.orders = orders;
        this.store = store;
        this.evidence = evidence;
        this.acts = acts;
    }

    /** Whether the actor may say so on this order now: until its board is asked. */
    public static boolean may(Actor actor, Seen order) {
        return order.all()
                && order.current().stage().stageClass() == StageClass.PREPARING
                && actor.access().may(Right.CHANGE, order.document().place());
    }

    /**
     * Names what shows a goal, in place of what was named before.
     *
     * @param typed as {@link FindEvidence} reads it; empty takes away what was named
     */
    public String show(Actor actor, long order, String key, long goal, String typed, String note) {
        String words = Texts.optional("The note", note, 300).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            Seen paper = papers.locked(actor, order).paper();
            String number = paper.document().number();
            if (!may(actor, paper)) {
                throw Refused.because(
                        "order.frozen",
                        number + " is " + paper.current().stage().name() + ", or you may not change it.",
                        "Take it back first; nothing was changed.");
            }
            if (orders.goalsOf(actor, order).stream().noneMatch(g -> g.goal().id() == goal)) {
                throw Refused.because(
                        "goal.none", number + " answers no such goal.", "Look at it again; nothing was changed.");
            }
            if (typed.isBlank()) {
                store.hide(order, goal);
            } else {
                FindEvidence.Found found = evidence.find(actor, typed);
                if (found.spot().isPresent()) {
                    throw Refused.because(
                            "goal.spot",
                            "A goal is shown by a version, not by a place in it.",
                            "Leave the place out; say it in the words beside.");
                }
                store.show(
                        order,
                        new GoalStore.Shown(
                                goal,
                                found.seen().spine().id(),
                                found.version().id(),
                                found.against().map(v -> v.id()),
                                words),
                        actor.person());
            }
            papers.write(
                    actor, actor.person(), order, typed.isBlank() ? "took away what showed a goal" : "showed a goal");
            return "/orders/" + order;
        });
    }
}
