package mintshelf.companion.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import mintshelf.companion.machine.DesktopNotices.Notifications;
import org.freedesktop.dbus.types.UInt32;
import org.freedesktop.dbus.types.Variant;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Over a real bus of its own, with a desktop on it that only notes what it is to show. */
class DesktopNoticesTest extends OnBus {
    private final Desktop desktop = new Desktop();

    /** What a desktop is asked to show. */
    record Shown(long replaces, String title, String says, List<String> actions, long id) {}

    static final class Desktop implements Notifications {
        final BlockingQueue<Shown> shown = new LinkedBlockingQueue<>();
        final BlockingQueue<Long> closed = new LinkedBlockingQueue<>();
        private long next = 40;

        @Override
        public UInt32 Notify(
                String program,
                UInt32 replaces,
                String icon,
                String summary,
                String body,
                List<String> actions,
                Map<String, Variant<?>> hints,
                int stays) {
            long id = replaces.longValue() > 0 ? replaces.longValue() : ++next;
            shown.add(new Shown(replaces.longValue(), summary, body, List.copyOf(actions), id));
            return new UInt32(id);
        }

        @Override
        public void CloseNotification(UInt32 id) {
            closed.add(id.longValue());
        }

        @Override
        public String getObjectPath() {
            return "/org/freedesktop/Notifications";
        }

        Shown await() throws InterruptedException {
            Shown one = shown.poll(10, TimeUnit.SECONDS);
            assertThat(one).as("nothing was shown").isNotNull();
            return one;
        }
    }

    @BeforeEach
    void show() throws Exception {
        bus.requestBusName("org.freedesktop.Notifications");
        bus.exportObject(desktop);
    }

    @Test
    void aNoticeIsShownItsAnswerComesBackAndALaterOneTakesItsPlace() throws Exception {
        BlockingQueue<String> chosen = new LinkedBlockingQueue<>();
        try (Notices notices = DesktopNotices.of(machine).orElseThrow()) {
            Notices.Notice ahead = new Notices.Notice(
                    "TG40/gland.dxf",
                    "TG40-3030 is ahead: 4 differences",
                    "<b>5 & 6</b>",
                    List.of(new Notices.Answer("check-in", "Check in…"), new Notices.Answer("go-on", "Go on")),
                    false);
            notices.tell(ahead, chosen::add);
            Shown first = desktop.await();
            assertThat(first.title()).isEqualTo("TG40-3030 is ahead: 4 differences");
            assertThat(first.says()).as("text stays text").isEqualTo("&lt;b&gt;5 &amp; 6&lt;/b&gt;");
            assertThat(first.actions()).containsExactly("check-in", "Check in…", "go-on", "Go on");
            assertThat(first.replaces()).isZero();
            bus.sendMessage(
                    new Notifications.ActionInvoked(desktop.getObjectPath(), new UInt32(first.id()), "check-in"));
            assertThat(chosen.poll(10, TimeUnit.SECONDS)).isEqualTo("check-in");

            notices.tell(ahead, chosen::add);
            assertThat(desktop.await().replaces()).as("of the same file").isEqualTo(first.id());
            notices.tell(Notices.Notice.of("Another", "one"), chosen::add);
            assertThat(desktop.await().replaces()).isZero();

            notices.settled("TG40/gland.dxf");
            assertThat(desktop.closed.poll(10, TimeUnit.SECONDS)).isEqualTo(first.id());
            notices.settled("TG40/gland.dxf");
            notices.tell(ahead, chosen::add);
            assertThat(desktop.await().replaces())
                    .as("what is told after it is new")
                    .isZero();
            assertThat(desktop.closed).as("closed once").isEmpty();
        }
    }

    @Test
    void whereThereIsNoBusThereAreNone() {
        assertThat(DesktopNotices.of(new Machine(Machine.Kind.LINUX, Path.of("/home"), Map.of())))
                .isEmpty();
        assertThat(DesktopNotices.of(new Machine(
                        Machine.Kind.LINUX,
                        Path.of("/home"),
                        Map.of("DBUS_SESSION_BUS_ADDRESS", "unix:path=/nowhere/bus"))))
                .isEmpty();
    }

    @Test
    void aDesktopThatIsGoneLosesNothingElse() {
        try (Notices notices = DesktopNotices.of(machine).orElseThrow()) {
            bus.disconnect();
            notices.tell(Notices.Notice.of("Nobody", "shows it"), chosen -> {});
        }
    }
}
