package mintshelf.companion.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.StringReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import javax.xml.parsers.DocumentBuilderFactory;
import mintshelf.companion.machine.Machine.Kind;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.xml.sax.InputSource;

class RegistrationTest {
    private static final String ODD = "/opt/mint shelf/100% \"odd\" $place's/mint-shelf";

    @TempDir
    Path home;

    private Path asked;

    /** Programs of the machine that only note what they were asked. */
    @BeforeEach
    void programs() throws IOException {
        asked = home.resolve("asked");
        Path bin = Files.createDirectories(home.resolve("bin"));
        for (String name : new String[] {"xdg-mime", "update-desktop-database", "systemctl", "thunar", "reg.exe"}) {
            Path program = bin.resolve(name);
            Files.writeString(program, "#!/bin/sh\necho " + name + " \"$@\" >> '" + asked + "'\n");
            Files.setPosixFilePermissions(program, PosixFilePermissions.fromString("rwxr-xr-x"));
        }
    }

    private Machine machine(Kind kind) {
        return new Machine(kind, home, Map.of("PATH", home.resolve("bin").toString()));
    }

    private Map<String, String> files() throws IOException {
        Map<String, String> found = new TreeMap<>();
        try (Stream<Path> all = Files.walk(home)) {
            for (Path file : all.filter(Files::isRegularFile).toList()) {
                String path = home.relativize(file).toString();
                if (!path.startsWith("bin/") && !path.equals("asked")) found.put(path, Files.readString(file));
            }
        }
        return found;
    }

    @Test
    void aDesktopOfLinuxLearnsTheSchemeTheEntriesAndTheWatch() throws IOException {
        Registration registration = Registration.of(machine(Kind.LINUX), Path.of(ODD));
        assertThat(registration.isThere()).isFalse();
        registration.put();
        assertThat(registration.isThere()).isTrue();
        Map<String, String> files = files();
        assertThat(files.get(".local/share/applications/mint-shelf.desktop"))
                .contains("MimeType=x-scheme-handler/mint-shelf;")
                .contains("Exec=\"/opt/mint shelf/100%% \\\\\"odd\\\\\" \\\\$place's/mint-shelf\" desk open %u");
        assertThat(files.get(".config/systemd/user/mint-shelf-watch.service")).contains("desk watch --all");
        assertThat(files).containsKey(".config/autostart/mint-shelf-watch.desktop");
        for (String manager : new String[] {".local/share/nautilus", ".local/share/nemo", ".config/caja"}) {
            String script = manager + "/scripts/Mint Shelf/Check in…";
            assertThat(files.get(script)).endsWith(" desk act check-in -- \"$@\"\n");
            assertThat(Files.isExecutable(home.resolve(script))).isTrue();
        }
        assertThat(files.get(".local/share/kio/servicemenus/mint-shelf.desktop"))
                .contains("Actions=look;work;check-in;ask;undo;next;", "[Desktop Action undo]");
        assertThat(files.get(".local/share/file-manager/actions/mint-shelf-work.desktop"))
                .contains("Type=Action", "desk act work -- %F");
        assertThat(Files.readString(asked))
                .contains("xdg-mime default mint-shelf.desktop x-scheme-handler/mint-shelf")
                .contains("systemctl --user enable --now mint-shelf-watch.service");
    }

    @Test
    void aScriptStartsTheLauncherWhateverItsPathIs() throws Exception {
        Path odd = Files.createDirectories(home.resolve("it's \"odd\" $HOME"));
        Path launcher =
                Files.writeString(odd.resolve("mint-shelf"), "#!/bin/sh\nprintf '%s|' \"$@\" > '" + asked + "'\n");
        Files.setPosixFilePermissions(launcher, PosixFilePermissions.fromString("rwxr-xr-x"));
        Registration.of(new Machine(Kind.LINUX, home, Map.of()), launcher).put();
        Process script = new ProcessBuilder(
                        home.resolve(".local/share/nautilus/scripts/Mint Shelf/Work on it")
                                .toString(),
                        "gland plate.dxf",
                        "-x")
                .start();
        assertThat(script.waitFor()).isZero();
        assertThat(Files.readString(asked)).isEqualTo("desk|act|work|--|gland plate.dxf|-x|");
    }

    @Test
    void allOfItGoesAwayAgainAndWhatOthersWroteStays() throws Exception {
        Path list = Files.createDirectories(home.resolve(".config/Thunar")).resolve("uca.xml");
        String before = "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<actions>\n<action>\n  <unique-id>4711</unique-id>"
                + "\n  <name>Mine</name>\n</action>\n</actions>\n";
        Files.writeString(list, before);
        Files.writeString(
                home.resolve(".config/mimeapps.list"),
                "[Default Applications]\nx-scheme-handler/mint-shelf=mint-shelf.desktop\ntext/plain=editor.desktop\n");
        Registration registration = Registration.of(machine(Kind.LINUX), Path.of(ODD));
        registration.put();
        registration.put();
        String with = Files.readString(list);
        assertThat(with).contains("<unique-id>4711</unique-id>").containsOnlyOnce("mint-shelf-check-in");
        assertThat(DocumentBuilderFactory.newInstance()
                        .newDocumentBuilder()
                        .parse(new InputSource(new StringReader(with)))
                        .getElementsByTagName("action")
                        .getLength())
                .isEqualTo(1 + FileAct.values().length);
        registration.away();
        assertThat(files())
                .containsOnlyKeys(".config/Thunar/uca.xml", ".config/mimeapps.list")
                .containsEntry(".config/Thunar/uca.xml", before)
                .containsEntry(".config/mimeapps.list", "[Default Applications]\ntext/plain=editor.desktop\n");
        assertThat(home.resolve(".local/share/nautilus/scripts/Mint Shelf")).doesNotExist();
    }

    @Test
    void aListThatIsNoneIsLeftAlone() throws IOException {
        Path list = Files.createDirectories(home.resolve(".config/Thunar")).resolve("uca.xml");
        Files.writeString(list, "broken");
        Registration.of(machine(Kind.LINUX), Path.of(ODD)).put();
        assertThat(list).hasContent("broken");
    }

    @Test
    void windowsLearnsItThroughItsRegistryAndForgetsIt() throws IOException {
        Registration registration =
                Registration.of(machine(Kind.WINDOWS), Path.of("C:\\Program Files\\mint-shelf.cmd"));
        registration.put();
        String in = files().get("AppData/Local/mint-shelf/register.reg");
        assertThat(in)
                .startsWith("Windows Registry Editor Version 5.00\r\n")
                .contains("[HKEY_CURRENT_USER\\Software\\Classes\\mint-shelf\\shell\\open\\command]\r\n"
                        + "@=\"\\\"C:\\\\Program Files\\\\mint-shelf.cmd\\\" desk open \\\"%1\\\"\"")
                .contains("\"URL Protocol\"=\"\"")
                .contains("\\shell\\MintShelf\\shell\\3check-in\\command]")
                .contains("CurrentVersion\\Run]");
        assertThat(in.lines().filter(l -> l.startsWith("[")))
                .as("for the person alone")
                .allMatch(l -> l.startsWith("[HKEY_CURRENT_USER\\"));
        registration.away();
        assertThat(Files.readString(asked)).contains("reg.exe import").contains("away.reg");
        assertThat(files()).isEmpty();
    }

    @Test
    void macosLearnsItByACompiledScriptAndAnAgent() throws Exception {
        Registration registration = Registration.of(machine(Kind.MAC), Path.of("/opt/a & b/mint-shelf"));
        registration.put();
        Map<String, String> files = files();
        assertThat(files.get("Library/Application Support/mint-shelf/open.applescript"))
                .contains("on open location", "quoted form of link");
        String agent = files.get("Library/LaunchAgents/mint-shelf.watch.plist");
        DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
        factory.setFeature("http://apache.org/xml/features/nonvalidating/load-external-dtd", false);
        assertThat(factory.newDocumentBuilder()
                        .parse(new InputSource(new StringReader(agent)))
                        .getElementsByTagName("string")
                        .item(1)
                        .getTextContent())
                .isEqualTo("/opt/a & b/mint-shelf");
        registration.away();
        assertThat(files()).isEmpty();
    }
}
