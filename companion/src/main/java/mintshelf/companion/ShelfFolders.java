package mintshelf.companion;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import mintshelf.companion.machine.Machine;
import tools.jackson.databind.JsonNode;

/** Folders of a desk say in the file manager which shelf they mirror: a file in them says so, as each system reads it. */
final class ShelfFolders {
    /** What Windows reads; what desktops of Linux read begins with a dot. */
    static final String WINDOWS = "desktop.ini";

    private static final String LINUX = ".directory";
    private static final String OURS = "X-Mint-Shelf=true";

    private ShelfFolders() {}

    /** Lets the folders say it that mirror a shelf of which the person knows; a file that somebody else wrote there stays. */
    static void say(Machine machine, DeskFolder desk, ShelfClient client) throws IOException {
        for (JsonNode shelf : client.get("/shelves")) {
            String name = shelf.path("name").asString("");
            if (name.isEmpty()) continue;
            Path folder = desk.place(name);
            if (!Files.isDirectory(folder)) continue;
            String says = "Mirrors the shelf " + name.replaceAll("\\p{Cntrl}", " ") + " of " + client.origin();
            boolean windows = machine.kind() == Machine.Kind.WINDOWS;
            Path file = folder.resolve(windows ? WINDOWS : LINUX);
            if (Files.exists(file) && !Files.readString(file).contains(OURS)) continue;
            Files.writeString(
                    file,
                    windows
                            ? "[.ShellClassInfo]\r\nInfoTip=" + says + "\r\n[ViewState]\r\n" + OURS + "\r\n"
                            : "[Desktop Entry]\nType=Directory\nComment=" + says + "\nIcon=folder-documents\n" + OURS
                                    + "\n");
            if (windows) machine.ask("attrib.exe", "+r", folder.toString());
        }
    }

    /** They say nothing any more. */
    static void silence(DeskFolder desk) throws IOException {
        List<Path> ours = new ArrayList<>();
        try (var folders = Files.list(desk.root())) {
            for (Path folder : folders.filter(Files::isDirectory).toList())
                for (String name : List.of(LINUX, WINDOWS)) {
                    Path file = folder.resolve(name);
                    if (Files.isRegularFile(file) && Files.readString(file).contains(OURS)) ours.add(file);
                }
        }
        for (Path file : ours) Files.delete(file);
    }
}
