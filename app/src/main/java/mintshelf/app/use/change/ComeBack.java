package mintshelf.app.use.change;

import java.time.Clock;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.document.Spine;
import mintshelf.app.store.document.SpineStore;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/** Tells who asked when the day has come until which a request was deferred; it goes before the board again by their hand. */
@Service
public class ComeBack {
    private static final int PORTION = 100;

    private final PaperStore papers;
    private final SpineStore spines;
    private final Telling telling;
    private final Recorder recorder;
    private final Settings settings;
    private final UnitOfWork unit;
    private final Clock clock;

    public ComeBack(
            PaperStore papers,
            SpineStore spines,
            Telling telling,
            Recorder recorder,
            Settings settings,
            UnitOfWork unit,
            Clock clock) {
        this.papers = papers;
        this.spines = spines;
        this.telling = telling;
        this.recorder = recorder;
        this.settings = settings;
        this.unit = unit;
        this.clock = clock;
    }

    /** How many have come back. */
    @Scheduled(initialDelayString = "PT3M", fixedDelayString = "PT20M")
    public int tell() {
        LocalDate today = LocalDate.ofInstant(clock.instant(), settings.zone());
        int told = 0;
        for (long request : papers.due(today, PORTION)) if (unit.run(() -> tell(request, today))) told++;
        return told;
    }

    private boolean tell(long request, LocalDate today) {
        spines.lock(List.of(request));
        // Another node may have told, somebody may have asked again meanwhile.
        Optional<PaperStore.Paper> due = papers.request(request)
                .filter(p -> p.deferredUntil().filter(d -> !d.isAfter(today)).isPresent());
        if (due.isEmpty()) return false;
        papers.defer(request, Optional.empty());
        Spine spine = spines.spine(request).orElseThrow();
        String says = spine.document().number() + " was deferred until today: put it before the board again";
        telling.byItself(spine.author(), List.of(spine.author()), "request.due", request, says, "/requests/" + request);
        recorder.noteByItself(request, "request.due", "has come back: the day is there until which it was deferred");
        return true;
    }
}
