package mintshelf.app.use.content;

import java.time.Clock;
import java.time.Duration;
import mintshelf.app.effect.ReserveNumbers;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.act.ActStore;
import mintshelf.app.store.content.PieceStore;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.content.UploadStore;
import mintshelf.app.store.person.SignInStore;
import mintshelf.app.store.structure.StructureLogStore;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/** Removes what nobody waits for any more: uploads that were given up, pieces that nothing holds, old keys of acts, old lines of the
 * structure's log. */
@Service
public class CollectContent {
    private static final int PORTION = 50;
    private final PieceStore pieces;
    private final UploadStore uploads;
    private final ReserveNumbers numbers;
    private final ActStore acts;
    private final SignInStore signIns;
    private final StructureLogStore log;
    private final UnitOfWork unit;
    private final Clock clock;

    public CollectContent(
            PieceStore pieces,
            UploadStore uploads,
            ReserveNumbers numbers,
            ActStore acts,
            SignInStore signIns,
            StructureLogStore log,
            UnitOfWork unit,
            Clock clock) {
        this.pieces = pieces;
        this.uploads = uploads;
        this.numbers = numbers;
        this.acts = acts;
        this.signIns = signIns;
        this.log = log;
        this.unit = unit;
        this.clock = clock;
    }

    /** Runs on every node; what another node has locked is passed over. */
    @Scheduled(initialDelayString = "PT5M", fixedDelayString = "PT10M")
    public void collect() {
        int dropped = unit.run(() -> {
            var expired = uploads.expired(clock.instant(), PORTION);
            numbers.gone(expired.stream().map(Upload::id).toList());
            expired.forEach((Upload upload) -> uploads.drop(upload));
            return expired.size();
        });
        if (dropped > 0) unit.run(() -> pieces.collect(2000));
        unit.run(() -> log.purge());
        unit.run(() -> acts.forget(clock.instant(), Duration.ofDays(7)));
        unit.run(() -> signIns.forgetSignInsBefore(clock.instant().minus(Duration.ofDays(1))));
    }
}
