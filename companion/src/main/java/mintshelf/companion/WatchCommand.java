package mintshelf.companion;

import java.io.IOException;
import java.time.Duration;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import mintshelf.companion.machine.DesktopNotices;
import mintshelf.companion.machine.DesktopTray;
import mintshelf.companion.machine.Notices;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** Tells what is saved on a desk and what changes on the shelf, until it is stopped. */
@Command(name = "watch", description = "tells what is saved here and what changes, until Ctrl-C")
final class WatchCommand extends OnDesk {
    private static final long TICK = 100; // ms

    @Option(names = "--seconds", description = "how long; else without end")
    private long seconds = Long.MAX_VALUE / 2_000_000_000L;

    @Option(names = "--every", description = "after how many seconds the shelf is asked although nothing was saved")
    private long every = 300;

    @Option(names = "--all", description = "all desks that are registered on this machine")
    private boolean all;

    private String said = "";

    @Override
    int run() throws IOException {
        List<DeskFolder> desks = all ? new Helper(machine()).desks() : List.of(DeskFolder.of(folder));
        if (desks.isEmpty()) {
            out().println("No desk is registered on this machine.");
            return 1;
        }
        List<WatchLock> locks = new ArrayList<>();
        List<Watch> watches = new ArrayList<>();
        try (Notices notices = DesktopNotices.of(machine()).orElseGet(Printed::new)) {
            for (DeskFolder desk : desks) {
                Optional<WatchLock> lock = WatchLock.of(desk);
                if (lock.isEmpty()) {
                    out().println(desk.name() + " is watched already.");
                    continue;
                }
                locks.add(lock.get());
                watches.add(new Watch(machine(), desk, out(), notices, Duration.ofSeconds(every)));
            }
            if (!watches.isEmpty()) watch(watches, notices);
            return 0;
        } finally {
            for (Watch watch : watches) watch.close();
            for (WatchLock lock : locks) lock.close();
        }
    }

    private void watch(List<Watch> watches, Notices notices) throws IOException {
        // Links come for all desks of the machine: who watches one of them alone leaves them to their own program.
        Optional<LinkBox> box = all ? Optional.of(LinkBox.open(machine())) : Optional.empty();
        BiConsumer<String, String> no = (title, says) -> {
            out().println(title + ". " + says);
            out().flush();
            notices.tell(Notices.Notice.of(title, says), chosen -> {});
        };
        Opening links = new Opening(machine(), out(), no);
        Optional<DesktopTray> tray =
                DesktopTray.of(machine(), () -> watches.get(0).openDesk());
        ExecutorService opening = Executors.newSingleThreadExecutor(r -> {
            Thread thread = new Thread(r, "links");
            thread.setDaemon(true);
            return thread;
        });
        try {
            long until = System.nanoTime() + Duration.ofSeconds(seconds).toNanos();
            while (System.nanoTime() < until) {
                if (box.isPresent()) for (String link : box.get().taken()) opening.execute(() -> open(link, links, no));
                for (Watch watch : watches) tick(watch);
                tray.ifPresent(t -> say(t, watches));
                Thread.sleep(TICK);
            }
            for (Watch watch : watches) watch.last(System.nanoTime(), LocalTime.now(ZoneId.systemDefault()));
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        } finally {
            opening.shutdown();
            tray.ifPresent(DesktopTray::close);
            if (box.isPresent()) box.get().close();
        }
    }

    private static void say(DesktopTray tray, List<Watch> watches) {
        String word =
                watches.stream().map(Watch::wants).filter(w -> !w.isEmpty()).collect(Collectors.joining("; "));
        tray.say(word, !word.isEmpty());
    }

    /** One desk whose drive went away, or whose settings are broken, does not end the watch of the others; it is said once. */
    private void tick(Watch watch) {
        try {
            watch.tick(System.nanoTime(), LocalTime.now(ZoneId.systemDefault()));
        } catch (IOException | RuntimeException e) {
            String says = String.valueOf(e.getMessage());
            if (says.equals(said)) return;
            said = says;
            out().println(says);
            out().flush();
        }
    }

    private static void open(String link, Opening opening, BiConsumer<String, String> no) {
        try {
            opening.open(link);
        } catch (RuntimeException e) {
            // One link that fails is no reason to watch no more.
            no.accept("Nothing was opened", String.valueOf(e.getMessage()));
        }
    }

    /** Where there is no desktop, what is told is printed, and answered by commands. */
    private static final class Printed implements Notices {
        @Override
        public void tell(Notice notice, Consumer<String> chosen) {
            // The watch prints it already.
        }

        @Override
        public void settled(String about) {
            // What was printed stands there.
        }

        @Override
        public void close() {}
    }
}
