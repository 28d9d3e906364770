package mintshelf.companion.machine;

import static org.assertj.core.api.Assumptions.assumeThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import org.freedesktop.dbus.connections.impl.DBusConnection;
import org.freedesktop.dbus.connections.impl.DBusConnectionBuilder;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;

/** A machine with a real message bus of its own, and the connection of a stand-in desktop to it. */
abstract class OnBus {
    Machine machine;
    DBusConnection bus;
    private Process daemon;

    @BeforeEach
    void begin() throws Exception {
        assumeThat(Files.isExecutable(Path.of("/usr/bin/dbus-daemon"))).isTrue();
        daemon = new ProcessBuilder("dbus-daemon", "--session", "--nofork", "--print-address").start();
        String address = daemon.inputReader().readLine();
        machine = new Machine(Machine.Kind.LINUX, Path.of("/home"), Map.of("DBUS_SESSION_BUS_ADDRESS", address));
        bus = DBusConnectionBuilder.forAddress(address).withShared(false).build();
    }

    @AfterEach
    void end() {
        if (bus != null) bus.disconnect();
        if (daemon != null) daemon.destroy();
    }
}
