package mintshelf.companion.machine;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.freedesktop.dbus.annotations.DBusInterfaceName;
import org.freedesktop.dbus.connections.impl.DBusConnection;
import org.freedesktop.dbus.connections.impl.DBusConnectionBuilder;
import org.freedesktop.dbus.exceptions.DBusException;
import org.freedesktop.dbus.exceptions.DBusExecutionException;
import org.freedesktop.dbus.interfaces.DBusInterface;
import org.freedesktop.dbus.messages.DBusSignal;
import org.freedesktop.dbus.types.UInt32;
import org.freedesktop.dbus.types.Variant;

/** Notices of the desktop: Desktop Notifications Specification 1.2, over the bus of the session (D-Bus). */
public final class DesktopNotices implements Notices {
    private static final String NAME = "org.freedesktop.Notifications";
    private static final String PATH = "/org/freedesktop/Notifications";
    private static final Pattern SOCKET = Pattern.compile("^unix:path=([^,;]+)");

    /** How long one stays that nobody has to look at, in ms. */
    private static final int STAYS = 8_000;

    /** What the desktop answers to; public, for the bus makes it. */
    @DBusInterfaceName(NAME)
    public interface Notifications extends DBusInterface {
        /** Shows a notice, in the place of an earlier one where that has a number; gives its number. */
        @SuppressWarnings("checkstyle:MethodName")
        UInt32 Notify(
                String program,
                UInt32 replaces,
                String icon,
                String summary,
                String body,
                List<String> actions,
                Map<String, Variant<?>> hints,
                int stays);

        /** Takes a notice away. */
        @SuppressWarnings("checkstyle:MethodName")
        void CloseNotification(UInt32 id);

        /** A button of a notice was pressed. */
        class ActionInvoked extends DBusSignal {
            private final UInt32 id;
            private final String key;

            public ActionInvoked(String path, UInt32 id, String key) throws DBusException {
                super(path, id, key);
                this.id = id;
                this.key = key;
            }
        }

        /** A notice is gone: it was looked at, it ran out, or it was put away. */
        class NotificationClosed extends DBusSignal {
            private final UInt32 id;

            public NotificationClosed(String path, UInt32 id, UInt32 reason) throws DBusException {
                super(path, id, reason);
                this.id = id;
            }
        }
    }

    private final DBusConnection bus;
    private final Notifications desktop;
    private final Map<String, UInt32> standing = new HashMap<>();
    private final Map<UInt32, Consumer<String>> waiting = new ConcurrentHashMap<>();

    private DesktopNotices(DBusConnection bus, Notifications desktop) throws DBusException {
        this.bus = bus;
        this.desktop = desktop;
        bus.addSigHandler(Notifications.ActionInvoked.class, s -> {
            Consumer<String> chosen = waiting.remove(s.id);
            if (chosen != null) chosen.accept(s.key);
        });
        bus.addSigHandler(Notifications.NotificationClosed.class, s -> waiting.remove(s.id));
    }

    /** The notices of a session's desktop; nothing where there is no bus. */
    public static Optional<Notices> of(Machine machine) {
        Optional<DBusConnection> bus = bus(machine);
        try {
            return bus.isEmpty()
                    ? Optional.empty()
                    : Optional.of(
                            new DesktopNotices(bus.get(), bus.get().getRemoteObject(NAME, PATH, Notifications.class)));
        } catch (DBusException | DBusExecutionException e) {
            bus.ifPresent(DBusConnection::disconnect);
            return Optional.empty();
        }
    }

    /** The bus of a machine's session; nothing where it has none. */
    static Optional<DBusConnection> bus(Machine machine) {
        String address = machine.says("DBUS_SESSION_BUS_ADDRESS");
        if (machine.kind() != Machine.Kind.LINUX || address.isEmpty() || isGone(address)) return Optional.empty();
        try {
            return Optional.of(
                    DBusConnectionBuilder.forAddress(address).withShared(false).build());
        } catch (DBusException | DBusExecutionException e) {
            return Optional.empty();
        }
    }

    /** A socket that is not there is not waited for. */
    private static boolean isGone(String address) {
        Matcher path = SOCKET.matcher(address);
        return path.find() && !Files.exists(Path.of(path.group(1)));
    }

    @Override
    public synchronized void tell(Notice notice, Consumer<String> chosen) {
        List<String> actions = new ArrayList<>();
        notice.answers().forEach(a -> {
            actions.add(a.code());
            actions.add(a.words());
        });
        UInt32 before = standing.getOrDefault(notice.about(), new UInt32(0));
        Map<String, Variant<?>> hints = new HashMap<>();
        hints.put("desktop-entry", new Variant<>("mint-shelf"));
        hints.put("urgency", new Variant<>((byte) (notice.urgent() ? 2 : 1)));
        try {
            UInt32 id = desktop.Notify(
                    "Mint Shelf",
                    before,
                    "",
                    notice.title(),
                    markup(notice.says()),
                    actions,
                    hints,
                    notice.urgent() ? 0 : STAYS);
            if (!notice.about().isEmpty()) standing.put(notice.about(), id);
            waiting.put(id, chosen);
        } catch (DBusExecutionException e) {
            // The desktop that showed notices is gone, or ended its session: what is told is not lost, the page says it
            // too.
            standing.clear();
        }
    }

    @Override
    public synchronized void settled(String about) {
        UInt32 id = standing.remove(about);
        if (id == null) return;
        waiting.remove(id);
        try {
            desktop.CloseNotification(id);
        } catch (DBusExecutionException e) {
            // It was looked at, or the desktop is gone: either way it does not stand there.
        }
    }

    /** Bodies may be read as markup: what is text stays text. */
    private static String markup(String text) {
        return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;");
    }

    @Override
    public void close() {
        bus.disconnect();
    }
}
