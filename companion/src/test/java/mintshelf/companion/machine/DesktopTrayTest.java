package mintshelf.companion.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import mintshelf.companion.machine.DesktopTray.Item;
import mintshelf.companion.machine.DesktopTray.Watcher;
import org.freedesktop.dbus.interfaces.Properties;
import org.junit.jupiter.api.Test;

/** Over a real bus of its own, with a tray on it that asks what trays ask. */
class DesktopTrayTest extends OnBus {
    private final Tray tray = new Tray();
    private final BlockingQueue<String> clicks = new LinkedBlockingQueue<>();

    static final class Tray implements Watcher {
        final BlockingQueue<String> items = new LinkedBlockingQueue<>();

        @Override
        public void RegisterStatusNotifierItem(String service) {
            items.add(service);
        }

        @Override
        public String getObjectPath() {
            return "/StatusNotifierWatcher";
        }
    }

    private String property(String item, String name) throws Exception {
        Object value = bus.getRemoteObject(item, "/StatusNotifierItem", Properties.class)
                .Get("org.kde.StatusNotifierItem", name);
        return value.toString();
    }

    @Test
    void aTrayIsToldTheWordAndAClickComesBack() throws Exception {
        bus.requestBusName("org.kde.StatusNotifierWatcher");
        bus.exportObject(tray);
        BlockingQueue<String> changed = new LinkedBlockingQueue<>();
        bus.addSigHandler(Item.NewToolTip.class, s -> changed.add("tip"));
        try (DesktopTray mine =
                DesktopTray.of(machine, () -> clicks.add("clicked")).orElseThrow()) {
            String item = tray.items.poll(10, TimeUnit.SECONDS);
            assertThat(item).isNotNull();
            assertThat(property(item, "Status")).isEqualTo("Passive");
            mine.say("2 ahead, 1 strayed", true);
            assertThat(changed.poll(10, TimeUnit.SECONDS)).isEqualTo("tip");
            assertThat(property(item, "Title")).isEqualTo("Mint Shelf: 2 ahead, 1 strayed");
            assertThat(property(item, "Status")).isEqualTo("Active");
            mine.say("2 ahead, 1 strayed", true);
            assertThat(changed.poll(300, TimeUnit.MILLISECONDS))
                    .as("the same is said once")
                    .isNull();
            assertThat(bus.getRemoteObject(item, "/StatusNotifierItem", Properties.class)
                            .GetAll("org.kde.StatusNotifierItem"))
                    .containsKeys("Category", "Id", "IconPixmap", "ToolTip", "ItemIsMenu", "Menu");
            bus.getRemoteObject(item, "/StatusNotifierItem", Item.class).Activate(1, 2);
            assertThat(clicks.poll(10, TimeUnit.SECONDS)).isEqualTo("clicked");
        }
    }

    @Test
    void whereThereIsNoTrayThereIsNoWord() {
        assertThat(DesktopTray.of(machine, () -> {})).isEmpty();
        assertThat(DesktopTray.of(new Machine(Machine.Kind.LINUX, Path.of("/home"), Map.of()), () -> {}))
                .isEmpty();
    }
}
