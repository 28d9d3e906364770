package mintshelf.app.use.takein;

import java.time.Clock;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.notice.NoticeStore;
import mintshelf.app.store.takein.TakeIn;
import mintshelf.app.store.takein.TakenFileStore.Filter;
import mintshelf.core.base.Numbers;
import org.springframework.stereotype.Component;

/** Tells whose taking-in it is how far it came, and the house's record what came in. */
@Component
class TellTaken {
    private final NoticeStore notices;
    private final Recorder recorder;
    private final Clock clock;

    TellTaken(NoticeStore notices, Recorder recorder, Clock clock) {
        this.notices = notices;
        this.recorder = recorder;
        this.clock = clock;
    }

    Instant now() {
        return clock.instant();
    }

    void planned(TakeIn takeIn, Map<Filter, Integer> counts) {
        tell(
                takeIn,
                Numbers.count(counts.get(Filter.ALL), "file is read: ", "files are read: ") + counts.get(Filter.GOES)
                        + " go, " + (counts.get(Filter.STOPS) + counts.get(Filter.WAITS)) + " want mending, "
                        + counts.get(Filter.LEFT_OUT) + " are left out");
    }

    void filed(Actor actor, TakeIn takeIn, int documents, int left) {
        String says = Numbers.count(documents, "document is taken in", "documents are taken in")
                + (left == 0 ? "" : ", " + Numbers.count(left, "file is", "files are") + " left to be mended");
        tell(takeIn, says);
        recorder.noteHouse(actor, "taken.in", "took in “" + takeIn.name() + "”: " + says, "");
    }

    void stopped(TakeIn takeIn, String why) {
        tell(takeIn, "stopped: " + why);
    }

    private void tell(TakeIn takeIn, String says) {
        notices.tell(
                takeIn.person(),
                "take-in",
                Optional.empty(),
                takeIn.person(),
                "“" + takeIn.name() + "”: " + says,
                "/take-ins/" + takeIn.id(),
                clock.instant());
    }
}
