package mintshelf.app.use.verify;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.store.content.TextStore;
import mintshelf.app.store.outbox.OutboxStore;
import mintshelf.app.store.output.OutputStore;
import mintshelf.app.store.verify.RunningStore;
import mintshelf.core.base.Numbers;
import org.springframework.core.env.Environment;
import org.springframework.stereotype.Service;

/** How the server runs, part by part, each with what to do where something is to be done. For data managers. */
@Service
public class ReadRunning {
    private static final Duration FAILURES = Duration.ofDays(14);
    private static final Duration LONG = Duration.ofMinutes(15);
    private static final Duration BACKUP = Duration.ofDays(2);
    private static final int MOST_UNREAD = 1000;

    private final RunningStore running;
    private final TextStore texts;
    private final OutboxStore outbox;
    private final OutputStore outputs;
    private final DiskSpace disk;
    private final Acts acts;
    private final Recorder recorder;
    private final Environment environment;
    private final Clock clock;

    ReadRunning(
            RunningStore running,
            TextStore texts,
            OutboxStore outbox,
            OutputStore outputs,
            DiskSpace disk,
            Acts acts,
            Recorder recorder,
            Environment environment,
            Clock clock) {
        this.running = running;
        this.texts = texts;
        this.outbox = outbox;
        this.outputs = outputs;
        this.disk = disk;
        this.acts = acts;
        this.recorder = recorder;
        this.environment = environment;
        this.clock = clock;
    }

    /**
     * One part of the server.
     *
     * @param well whether nothing is to be done
     * @param says how it stands
     * @param remedy what to do; empty where nothing is
     * @param again what can be tried again by a button: {@code mails} or {@code outputs}; empty for nothing
     */
    public record Part(String name, boolean well, String says, String remedy, String again) {
        static Part well(String name, String says) {
            return new Part(name, true, says, "", "");
        }
    }

    /** The whole server: its parts, what its shelves keep, and what the database takes for it. */
    public record Running(List<Part> parts, List<RunningStore.Kept> kept, long files, long database) {
        public boolean isWell() {
            return parts.stream().allMatch(Part::well);
        }
    }

    public Running running(Actor actor) {
        HouseRules.ask(actor);
        Instant now = clock.instant();
        List<Part> parts = new ArrayList<>();
        parts.add(mails(running.mails(now, now.minus(FAILURES)), now));
        parts.add(outputs(running.outputs(now), now));
        parts.add(runs(running.runs(now, now.minus(FAILURES)), now));
        parts.add(words());
        parts.add(
                disk.says().isEmpty()
                        ? Part.well("Disk", "There is room.")
                        : new Part("Disk", false, disk.says(), "Make room on it, or move the database.", ""));
        parts.add(backup(running.lastBackup(), now));
        List<RunningStore.Kept> kept = running.kept();
        return new Running(
                List.copyOf(parts),
                kept,
                kept.stream().mapToLong(RunningStore.Kept::bytes).sum(),
                running.database());
    }

    private static String work(RunningStore.Work w, String one, String many, Instant now) {
        if (w.waiting() == 0) return "Nothing waits.";
        return Numbers.count(w.waiting(), one + " waits", many + " wait")
                + (w.atWork() > 0 ? ", " + w.atWork() + " at work" : "")
                + w.oldest()
                        .filter(o -> Duration.between(o, now).compareTo(LONG) > 0)
                        .map(o -> ", the oldest for "
                                + Numbers.count(
                                        Math.max(1, Duration.between(o, now).toMinutes()), "minute", "minutes"))
                        .orElse("")
                + ".";
    }

    private static boolean isStuck(RunningStore.Work w, Instant now) {
        return w.oldest()
                .filter(o -> Duration.between(o, now).compareTo(LONG) > 0)
                .isPresent();
    }

    private Part mails(RunningStore.Work w, Instant now) {
        boolean server = !environment.getProperty("spring.mail.host", "").isEmpty();
        String says = work(w, "mail", "mails", now);
        if (!server) {
            return new Part(
                    "Mail",
                    w.waiting() == 0,
                    "No mail server is set. " + says,
                    w.waiting() == 0 ? "" : "Set SPRING_MAIL_HOST; what waits is sent then.",
                    "");
        }
        String failed = Numbers.count(w.failed(), "mail", "mails") + " failed in two weeks";
        return part(
                "Mail",
                w,
                says,
                failed,
                "Correct the addresses or the mail server, then send them again.",
                "mails",
                "Look whether the mail server answers.",
                now);
    }

    private static Part outputs(RunningStore.Work w, Instant now) {
        return part(
                "Outputs",
                w,
                work(w, "output", "outputs", now),
                Numbers.count(w.failed(), "one", "of them") + " could not be made",
                "Their documents say why. Try again when the cause is gone.",
                "outputs",
                "A node may be busy; restart one if it does not shrink.",
                now);
    }

    private static Part runs(RunningStore.Work w, Instant now) {
        return part(
                "Runs",
                w,
                work(w, "run", "runs", now),
                Numbers.count(w.failed(), "run", "runs") + " stopped in two weeks",
                "Whoever began one goes on with what is left, on its page.",
                "",
                "A node may be busy; restart one if it does not end.",
                now);
    }

    /** Work that nodes take: well, stuck, or with failures, of which the last one says why. */
    private static Part part(
            String name,
            RunningStore.Work w,
            String says,
            String failed,
            String remedy,
            String again,
            String whenStuck,
            Instant now) {
        if (w.failed() > 0) {
            String last = w.says().isEmpty() ? "without a word" : w.says();
            return new Part(name, false, says + " " + failed + ", the last: " + last, remedy, again);
        }
        return isStuck(w, now) ? new Part(name, false, says, whenStuck, "") : Part.well(name, says);
    }

    private Part words() {
        int unread = texts.unread(TextStore.READABLE, 0, MOST_UNREAD).size();
        if (unread == 0) return Part.well("Words", "All files are read for searches.");
        return Part.well(
                "Words",
                (unread == MOST_UNREAD ? "More than " + MOST_UNREAD : Integer.toString(unread))
                        + " files are still to be read for searches.");
    }

    private static Part backup(Optional<RunningStore.Backup> last, Instant now) {
        if (last.isEmpty()) {
            return new Part(
                    "Backup",
                    false,
                    "None was written by ./shelf backup yet.",
                    "Let the machine run ./shelf backup each night.",
                    "");
        }
        RunningStore.Backup b = last.get();
        long days = Duration.between(b.at(), now).toDays();
        String when = days == 0 ? "today" : Numbers.count(days, "day", "days") + " ago";
        String says = "The last one " + when + ": " + b.file() + ", " + Numbers.size(b.size()) + ".";
        return Duration.between(b.at(), now).compareTo(BACKUP) > 0
                ? new Part("Backup", false, says, "Let the machine run ./shelf backup each night.", "")
                : Part.well("Backup", says);
    }

    /** Tries again what failed. */
    public String again(Actor actor, String key, String what) {
        HouseRules.ask(actor);
        return acts.once(actor, key, () -> {
            Instant now = clock.instant();
            int rows = switch (what) {
                case "mails" -> outbox.again(now.minus(FAILURES), now);
                case "outputs" -> outputs.again(now);
                default -> throw new NotThere();
            };
            recorder.noteHouse(actor, "house.tried_again", "had " + rows + " failed " + what + " tried again", "");
            return "/house/running?again=" + rows;
        });
    }
}
