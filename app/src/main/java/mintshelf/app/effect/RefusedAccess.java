package mintshelf.app.effect;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Recent;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import org.springframework.stereotype.Component;

/**
 * Notes in the record what people tried that their roles do not let them. The same again within the hour is one entry, so that nobody
 * fills the record by trying.
 */
@Component
public class RefusedAccess {
    private static final Duration ONCE = Duration.ofHours(1);
    private static final int KEPT = 5_000;

    private final Recorder recorder;
    private final UnitOfWork unit;
    private final Clock clock;

    private record Try(long person, String method, String code, String shape) {}

    private final Map<Try, Instant> noted = Recent.most(KEPT);

    public RefusedAccess(Recorder recorder, UnitOfWork unit, Clock clock) {
        this.recorder = recorder;
        this.unit = unit;
        this.clock = clock;
    }

    /** @param path of the request; it stands in the entry, its numbers do not make another one of it */
    public void note(Actor actor, String method, String path, Refusal refusal) {
        Try tried = new Try(actor.person(), method, refusal.code(), path.replaceAll("\\d+", "#"));
        Instant now = clock.instant();
        synchronized (noted) {
            Instant before = noted.get(tried);
            if (before != null && before.plus(ONCE).isAfter(now)) return;
            noted.remove(tried);
            noted.put(tried, now);
        }
        String where = Texts.shorten(Texts.line(path), 120);
        unit.run(() -> recorder.noteHouse(
                actor,
                "access.refused",
                "was refused " + method + " " + where,
                Texts.shorten(Texts.line(refusal.reason()), 300)));
    }
}
