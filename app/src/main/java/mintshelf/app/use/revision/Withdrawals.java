package mintshelf.app.use.revision;

import java.time.Clock;
import java.util.Collection;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Numbered;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.SuccessorStore;
import org.springframework.stereotype.Component;

/**
 * What goes with a withdrawal: what takes its place, another document that is there and does not lead back; what is withdrawn along.
 */
@Component
class Withdrawals {
    private final Numbered numbered;
    private final SuccessorStore store;
    private final WithdrawAlong along;
    private final Clock clock;

    Withdrawals(Numbered numbered, SuccessorStore store, WithdrawAlong along, Clock clock) {
        this.along = along;
        this.numbered = numbered;
        this.store = store;
        this.clock = clock;
    }

    /** The document that a number names. */
    Seen named(Actor actor, long item, String number) {
        return numbered.successor(actor, item, number);
    }

    /** Refused where one of those that are to go along is needed elsewhere, or no longer belongs here. */
    void expectAlong(Actor actor, Seen withdrawn, String move, Collection<Long> others) {
        if (others.isEmpty()) return;
        along.refusal(actor, withdrawn, move, others).ifPresent(r -> {
            throw new Refused(r);
        });
    }

    /** Within the transaction of the move. */
    void keep(Actor actor, Seen withdrawn, Seen successor) {
        store.keep(withdrawn.spine().id(), successor.spine().id(), actor.person(), clock.instant());
    }
}
