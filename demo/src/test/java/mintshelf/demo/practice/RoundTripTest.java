package mintshelf.demo.practice;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import mintshelf.app.Browser;
import mintshelf.app.Server;
import mintshelf.app.use.desk.Tokens;
import mintshelf.companion.Companion;
import mintshelf.companion.machine.DesktopNotices.Notifications;
import mintshelf.companion.machine.Machine;
import org.freedesktop.dbus.connections.impl.DBusConnection;
import org.freedesktop.dbus.connections.impl.DBusConnectionBuilder;
import org.freedesktop.dbus.types.UInt32;
import org.freedesktop.dbus.types.Variant;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import picocli.CommandLine;

/**
 * The trip of a drawing from its page to a program and back, in a session with a display: the browser hands its link to the machine, the machine to the
 * companion, that opens the stand-in editor; what is saved there is told by the desktop, and its answer opens the plan.
 */
@Tag("browser")
class RoundTripTest {
    @TempDir
    Path home;

    private final List<Process> processes = new ArrayList<>();
    private final Map<String, String> session = new HashMap<>();
    private final Desktop desktop = new Desktop();
    private DBusConnection bus;
    private Path opened;

    /** A desktop that notes what it is to show. */
    static final class Desktop implements Notifications {
        final BlockingQueue<String> titles = new LinkedBlockingQueue<>();

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
            titles.add(summary);
            return new UInt32(7);
        }

        @Override
        public void CloseNotification(UInt32 id) {
            titles.add("settled");
        }

        @Override
        public String getObjectPath() {
            return "/org/freedesktop/Notifications";
        }
    }

    private String started(ProcessBuilder builder) throws IOException {
        Process process = builder.redirectError(ProcessBuilder.Redirect.DISCARD).start();
        processes.add(process);
        return process.inputReader().readLine();
    }

    @BeforeEach
    void session() throws Exception {
        Path bin = Files.createDirectories(home.resolve("bin"));
        opened = home.resolve("opened");
        // Links of the scheme go the machine's way; windows of the browser are opened by the test, in the one it
        // drives.
        Path shim = bin.resolve("xdg-open");
        Files.writeString(
                shim,
                "#!/bin/sh\ncase \"$1\" in mint-shelf:*) exec /usr/bin/xdg-open \"$1\" ;; esac\nprintf '%s\\n' \"$1\" >> '"
                        + opened + "'\n");
        Files.setPosixFilePermissions(shim, PosixFilePermissions.fromString("rwxr-xr-x"));
        String display = started(
                new ProcessBuilder("Xvfb", "-displayfd", "1", "-screen", "0", "1280x900x24", "-nolisten", "tcp"));
        String address = started(new ProcessBuilder("dbus-daemon", "--session", "--nofork", "--print-address"));
        session.putAll(Map.of(
                "PATH",
                bin + ":/usr/bin:/bin",
                "HOME",
                home.toString(),
                "DISPLAY",
                ":" + display,
                "DBUS_SESSION_BUS_ADDRESS",
                address));
        bus = DBusConnectionBuilder.forAddress(address).withShared(false).build();
        bus.requestBusName("org.freedesktop.Notifications");
        bus.exportObject(desktop);
    }

    @AfterEach
    void end() throws InterruptedException {
        if (bus != null) bus.disconnect();
        for (int i = processes.size() - 1; i >= 0; i--) {
            processes.get(i).descendants().forEach(ProcessHandle::destroy);
            processes.get(i).destroy();
            processes.get(i).waitFor(10, TimeUnit.SECONDS);
        }
    }

    private void companion(String... arguments) {
        StringWriter said = new StringWriter();
        CommandLine line = Companion.commandLine(new Machine(Machine.Kind.LINUX, home, session));
        line.setOut(new PrintWriter(said)).setErr(new PrintWriter(said));
        assertThat(line.execute(arguments)).as(said.toString()).isZero();
    }

    /** What the machine was asked to open: the line that is the {@code n}th, from 0. */
    private String opened(int n) throws Exception {
        for (int i = 0; i < 300; i++) {
            List<String> lines = Files.exists(opened) ? Files.readAllLines(opened) : List.of();
            if (lines.size() > n) return lines.get(n);
            Thread.sleep(50);
        }
        throw new AssertionError("Nothing more was opened.");
    }

    @Test
    void threeClicksFromThePageToTheNextVersion() throws Exception {
        Server server = Server.shared();
        long shelf = server.shelf();
        long item = server.file("priya", shelf, "drawing", "gland plate.dxf", StandInEditorTest.plate(), false);
        Path folder = Files.createDirectories(home.resolve("desk"));
        String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
        String editor = "dxf=\"" + java + "\" -XX:TieredStopAtLevel=1 -cp \"" + System.getProperty("java.class.path")
                + "\" mintshelf.demo.Demo editor";
        String desk = "BENCH-3 " + Server.key().substring(0, 6);
        String code = server.bean(Tokens.class).code(server.actor("priya"));
        companion("desk", "pair", server.origin(), code, "--name", desk, "--desk", folder.toString());
        companion("desk", "register", "--program", editor, "--desk", folder.toString());
        assertThat(opened(0)).contains("/desk/programs?opens=");
        ProcessBuilder watch = new ProcessBuilder(
                home.resolve(".local/share/mint-shelf/mint-shelf").toString(), "desk", "watch", "--all");
        watch.environment().putAll(session);
        processes.add(watch.redirectErrorStream(true)
                .redirectOutput(home.resolve("watch.log").toFile())
                .start());
        try (Browser browser = new Browser(server.origin(), session)) {
            browser.signIn("priya");
            browser.open(opened(0).substring(server.origin().length()));
            browser.press("Open files there from this browser");
            browser.open("/documents/" + item);
            browser.find("[data-open='work']").click();
            browser.awaitText("version 1 is open on " + desk + "; you hold it now.");
            Path file = folder.resolve(server.shelfName(shelf)).resolve("gland plate.dxf");
            assertThat(file).hasBinaryContent(StandInEditorTest.plate());
            assertThat(server.document(item).holder()).isPresent();

            browser.driver().get(opened(1));
            browser.awaitText("gland plate.dxf");
            var field = browser.driver().findElements(By.name("diameter")).get(0);
            field.clear();
            field.sendKeys("11");
            browser.press("Change");
            browser.awaitText("has 11 now.");
            browser.press("Save");
            browser.awaitText("Saved.");
            assertThat(desktop.titles.poll(15, TimeUnit.SECONDS)).endsWith(" is ahead: 1 difference");
            browser.press("Close");

            bus.sendMessage(new Notifications.ActionInvoked(desktop.getObjectPath(), new UInt32(7), "check-in"));
            String plan = opened(2);
            assertThat(plan).contains("/check-in?items=" + item).contains("&brought=" + item + ".");
            browser.driver().get(plan);
            browser.awaitText("from your desk " + desk);
            browser.awaitText("1 difference");
            browser.find("#comment").sendKeys("hole 11, as the bolt is");
            browser.press("Check in 1 document");
            browser.await(b -> server.document(item).head().number() == 2);
            assertThat(server.document(item).holder()).isEmpty();
            assertThat(server.bytes(item)).isEqualTo(Files.readAllBytes(file));
        }
        companion("desk", "status", "--desk", folder.toString());
        companion("desk", "register", "--away", "--desk", folder.toString());
        assertThat(home.resolve(".local/share/applications/mint-shelf.desktop")).doesNotExist();
    }
}
