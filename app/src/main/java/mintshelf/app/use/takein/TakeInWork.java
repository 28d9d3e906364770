package mintshelf.app.use.takein;

import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.Grants;
import mintshelf.app.store.takein.TakeIn;
import mintshelf.app.store.takein.TakeIn.State;
import mintshelf.app.store.takein.TakeInStore;
import mintshelf.app.store.takein.TakeInStore.Work;
import mintshelf.app.store.takein.TakenFile;
import mintshelf.app.store.takein.TakenFileStore;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/**
 * Goes on with taking-ins: unpacks, reads, files, in portions that count only while the lease is the worker's. Whatever node is free
 * does; what a killed one left is gone on with from its last whole portion.
 */
@Service
public class TakeInWork {
    private static final Logger LOG = LoggerFactory.getLogger(TakeInWork.class);
    private static final Duration LEASE = Duration.ofMinutes(1);
    private static final Duration TURN = Duration.ofMinutes(2);
    private static final int TRIES = 5;
    private static final int READ_AT_ONCE = 40;

    private final TakeInStore takeIns;
    private final TakenFileStore files;
    private final UnpackTaken unpack;
    private final ReadTaken read;
    private final DryRun dryRun;
    private final FilePortion portion;
    private final Grants people;
    private final TellTaken tell;
    private final UnitOfWork unit;

    public TakeInWork(
            TakeInStore takeIns,
            TakenFileStore files,
            UnpackTaken unpack,
            ReadTaken read,
            DryRun dryRun,
            FilePortion portion,
            Grants people,
            TellTaken tell,
            UnitOfWork unit) {
        this.takeIns = takeIns;
        this.files = files;
        this.unpack = unpack;
        this.read = read;
        this.dryRun = dryRun;
        this.portion = portion;
        this.people = people;
        this.tell = tell;
        this.unit = unit;
    }

    @Scheduled(initialDelayString = "PT2S", fixedDelayString = "PT1S")
    public void run() {
        while (goOnWithNext()) {
            // until nothing waits
        }
    }

    /** Whether something waited. */
    public boolean goOnWithNext() {
        Optional<Work> next = unit.run(() -> takeIns.take(tell.now(), tell.now().plus(LEASE)));
        if (next.isEmpty()) return false;
        Turn turn = new Turn(next.get());
        try {
            TakeIn takeIn = takeIns.takeIn(turn.work.id()).orElseThrow();
            Actor actor = people.actor(takeIn.person())
                    .orElseThrow(() -> Refused.because(
                            "take.left", "Who asked for it has left.", "Somebody else begins it anew."));
            goOn(actor, takeIn, turn);
        } catch (Refused e) {
            stop(turn, e.refusal().says());
        } catch (NotThere e) {
            stop(turn, "The folder is not there for you any more.");
        } catch (RuntimeException | IOException e) {
            LOG.warn("Going on with the taking-in {} failed, try {}", turn.work.id(), turn.work.tries(), e);
            if (turn.work.tries() >= TRIES) {
                stop(turn, "It could not be done; the log of the server says why.");
            } else {
                unit.run(() -> takeIns.letGo(turn.work, tell.now().plusSeconds(1L << turn.work.tries())));
            }
        }
        return true;
    }

    /** The time of one worker at one taking-in: its lease, renewed as it goes on. */
    private final class Turn {
        private Work work;
        private final Instant until = tell.now().plus(TURN);

        Turn(Work work) {
            this.work = work;
        }

        boolean renew() {
            return did(() -> true).isPresent();
        }

        /** As {@link #renew}, of small steps: the lease is renewed when some of it has passed. */
        boolean goesOn() {
            return tell.now()
                            .isBefore(work.leaseUntil()
                                    .minus(LEASE.multipliedBy(3).dividedBy(4)))
                    || renew();
        }

        boolean isOver() {
            return tell.now().isAfter(until);
        }

        /** Some of the work in one transaction, if it is still the worker's. */
        Optional<Boolean> did(Supplier<Boolean> some) {
            Instant lease = tell.now().plus(LEASE);
            Work before = work;
            // Known by the new lease only once it stands: what is rolled back, or tried again, has the old one.
            Optional<Boolean> did = unit.run(
                    () -> takeIns.renewed(before, lease).isPresent() ? Optional.of(some.get()) : Optional.empty());
            if (did.isPresent()) work = new Work(before.id(), before.state(), lease, before.tries());
            return did;
        }
    }

    private void goOn(Actor actor, TakeIn takeIn, Turn turn) throws IOException {
        switch (takeIn.state()) {
            case UNPACKING -> unpack(actor, takeIn, turn);
            case READING -> read(actor, takeIn, turn);
            case FILING -> file(actor, takeIn, turn);
            default -> {
                // was moved meanwhile
            }
        }
    }

    private void unpack(Actor actor, TakeIn takeIn, Turn turn) throws IOException {
        // Begun anew it passes over what is there, and counts it.
        unit.run(() -> takeIns.again(takeIn.id()));
        boolean all = unpack.unpack(actor, takeIn, turn::goesOn);
        if (!all) return;
        turn.did(() -> {
            takeIns.move(takeIn.id(), State.READING, files.countUnread(takeIn.id()), "", tell.now());
            return true;
        });
    }

    private void read(Actor actor, TakeIn takeIn, Turn turn) {
        while (!turn.isOver()) {
            List<TakenFile> next = files.unread(takeIn.id(), READ_AT_ONCE);
            if (next.isEmpty()) {
                turn.did(() -> {
                    takeIns.lock(takeIn.id());
                    dryRun.plan(actor, takeIn);
                    takeIns.move(takeIn.id(), State.OPEN, 0, "", tell.now());
                    tell.planned(takeIn, files.counts(takeIn.id()));
                    return true;
                });
                return;
            }
            List<TakenFileStore.Read> said = read.read(next);
            boolean mine = turn.did(() -> {
                        files.read(takeIn.id(), said);
                        takeIns.did(takeIn.id(), said.size());
                        return true;
                    })
                    .isPresent();
            if (!mine) return;
        }
        unit.run(() -> takeIns.letGo(turn.work, tell.now()));
    }

    private void file(Actor actor, TakeIn takeIn, Turn turn) {
        FileTaken.Within within = unit.run(() -> portion.begin(actor, takeIn));
        while (!turn.isOver()) {
            Optional<Boolean> more = portion.next(within, some -> turn.did(some));
            if (more.isEmpty()) return;
            if (more.get()) continue;
            turn.did(() -> {
                int left = files.counts(takeIn.id()).get(TakenFileStore.Filter.STOPS)
                        + files.counts(takeIn.id()).get(TakenFileStore.Filter.WAITS);
                int filed = files.filed(takeIn.id());
                takeIns.move(takeIn.id(), left == 0 ? State.DONE : State.OPEN, 0, "", tell.now());
                if (left > 0) dryRun.plan(actor, takeIn);
                else portion.done(takeIn);
                tell.filed(actor, takeIn, filed, left);
                return true;
            });
            return;
        }
        unit.run(() -> takeIns.letGo(turn.work, tell.now()));
    }

    /** Back to where its person can do something, and why. */
    private void stop(Turn turn, String why) {
        turn.did(() -> {
            State back = turn.work.state() == State.FILING ? State.OPEN : State.BRINGING;
            // An archive that cannot be unpacked would be in the way of all that is brought in its place.
            if (turn.work.state() == State.UNPACKING) takeIns.dropArchive(turn.work.id());
            takeIns.move(turn.work.id(), back, 0, why, tell.now());
            tell.stopped(takeIns.takeIn(turn.work.id()).orElseThrow(), why);
            return true;
        });
    }
}
