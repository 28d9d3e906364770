package mintshelf.app.effect;

import java.time.Clock;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.redline.RemarkStore;
import mintshelf.core.document.Document;
import mintshelf.core.redline.Remark;
import mintshelf.core.redline.Remark.Reply;
import mintshelf.core.redline.Remark.State;
import org.springframework.stereotype.Component;

/** Adds to threads of remarks: words, a new state, or both; in the record, and told to who is in the thread. */
@Component
public class SetRemarks {
    private final RemarkStore remarks;
    private final Recorder recorder;
    private final Telling telling;
    private final Clock clock;

    SetRemarks(RemarkStore remarks, Recorder recorder, Telling telling, Clock clock) {
        this.remarks = remarks;
        this.recorder = recorder;
        this.telling = telling;
        this.clock = clock;
    }

    /** Sets a remark to a state, with words or without. */
    public void set(Actor actor, Document document, Remark remark, State to, String why) {
        remarks.reply(remark.id(), actor.person(), why, Optional.of(to), to, clock.instant());
        String became = to == State.OPEN ? "opened remark " + remark.number() + " again" : did(remark, to);
        recorder.note(actor, remark.item(), "remark." + to.words(), remark.version(), became, why);
        tell(
                actor,
                document,
                remark,
                actor.name() + " " + became + " on " + document.number() + (why.isEmpty() ? "" : ": " + why));
    }

    private static String did(Remark remark, State to) {
        return switch (to) {
            case DONE -> "set remark " + remark.number() + " done";
            case DECLINED -> "declined remark " + remark.number();
            case WITHDRAWN -> "withdrew remark " + remark.number();
            default -> "answered remark " + remark.number();
        };
    }

    /** Adds words. */
    public void reply(Actor actor, Document document, Remark remark, String says, State now) {
        remarks.reply(remark.id(), actor.person(), says, Optional.empty(), now, clock.instant());
        recorder.note(
                actor, remark.item(), "remark.replied", remark.version(), "replied to remark " + remark.number(), says);
        tell(
                actor,
                document,
                remark,
                actor.name() + " replied to " + remark.number() + " on " + document.number() + ": " + says);
    }

    /** Its author and whoever spoke in its thread. */
    private void tell(Actor actor, Document document, Remark remark, String says) {
        Set<Long> receivers = new LinkedHashSet<>(List.of(remark.author()));
        remark.replies().stream().map(Reply::person).forEach(receivers::add);
        telling.tell(
                actor,
                telling.seeing(receivers, document.place()),
                "remark.answered",
                Optional.empty(),
                remark.item(),
                says,
                address(remark));
    }

    /** Where a remark is looked at, on the latest version. */
    public static String address(Remark remark) {
        return "/documents/" + remark.item() + "/remarks/" + remark.id();
    }
}
