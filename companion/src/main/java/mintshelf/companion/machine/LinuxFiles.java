package mintshelf.companion.machine;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/** What desktops of Linux read: Desktop Entry Specification 1.5, Association between MIME types and applications 1.0, systemd.unit(5). */
final class LinuxFiles {
    static final String SCHEME = "mint-shelf.desktop";
    static final String UNIT = "mint-shelf-watch.service";
    static final String AUTOSTART = "mint-shelf-watch.desktop";

    private LinuxFiles() {}

    static String scheme(String launcher) {
        return """
                [Desktop Entry]
                Type=Application
                Name=Mint Shelf
                Comment=Brings files of the shelf to the desk and opens them
                Exec=%s desk open %%u
                Terminal=false
                NoDisplay=true
                StartupNotify=false
                MimeType=x-scheme-handler/mint-shelf;
                """.formatted(Quoted.exec(launcher));
    }

    /** It begins with the session where systemd keeps it; a second one that the autostart begins finds the first and ends. */
    static String unit(String launcher) {
        return """
                [Unit]
                Description=Mint Shelf tells what is saved on the desk
                After=graphical-session.target
                PartOf=graphical-session.target

                [Service]
                ExecStart=%s desk watch --all
                Restart=on-failure
                RestartSec=30
                Nice=5

                [Install]
                WantedBy=graphical-session.target
                """.formatted(Quoted.exec(launcher));
    }

    static String autostart(String launcher) {
        return """
                [Desktop Entry]
                Type=Application
                Name=Mint Shelf
                Comment=Tells what is saved on the desk
                Exec=%s desk watch --all
                Terminal=false
                NoDisplay=true
                """.formatted(Quoted.exec(launcher));
    }

    /** Takes our scheme out of a list of applications; what else stands there stays. */
    static void forget(Path list) throws IOException {
        if (!Files.exists(list)) return;
        List<String> lines = Files.readAllLines(list);
        List<String> kept = lines.stream()
                .filter(l -> !l.startsWith("x-scheme-handler/mint-shelf="))
                .toList();
        if (kept.size() < lines.size()) Files.write(list, kept);
    }
}
