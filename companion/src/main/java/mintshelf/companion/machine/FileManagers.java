package mintshelf.companion.machine;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import mintshelf.companion.machine.Registration.Written;

/**
 * Entries on files in the common file managers of Linux: scripts for those that have a folder of them, a service menu, actions of the Desktop Entry
 * Specification's extension for file managers, and the list of actions that one of them keeps in a file of its own.
 */
final class FileManagers {
    static final String MENU = "Mint Shelf";

    /** Folders of scripts, below the person's data or settings. */
    private static final List<String> SCRIPTS_OF_DATA = List.of("nautilus/scripts", "nemo/scripts");

    private static final String SCRIPTS_OF_SETTINGS = "caja/scripts";

    private static final String ACTIONS = "Thunar/uca.xml";
    private static final Pattern OURS =
            Pattern.compile("\\s*<action>\\s*<unique-id>mint-shelf-[a-z-]+</unique-id>.*?</action>", Pattern.DOTALL);

    private FileManagers() {}

    static List<Written> entries(Machine machine, String launcher) {
        List<Written> files = new ArrayList<>();
        List<Path> folders = new ArrayList<>();
        SCRIPTS_OF_DATA.forEach(f -> folders.add(machine.data().resolve(f)));
        folders.add(machine.config().resolve(SCRIPTS_OF_SETTINGS));
        for (Path folder : folders) {
            for (FileAct act : FileAct.values())
                files.add(new Written(folder.resolve(MENU).resolve(act.words()), script(launcher, act), true));
        }
        files.add(new Written(
                machine.data().resolve("kio/servicemenus/mint-shelf.desktop"), serviceMenu(launcher), true));
        for (FileAct act : FileAct.values()) {
            files.add(new Written(
                    machine.data().resolve("file-manager/actions/mint-shelf-" + act.code() + ".desktop"),
                    action(launcher, act),
                    false));
        }
        return files;
    }

    /** The files that are chosen come as arguments, relative to the folder that is shown, which is where the script is started. */
    private static String script(String launcher, FileAct act) {
        return "#!/bin/sh\nexec " + Quoted.shell(launcher) + " desk act " + act.code() + " -- \"$@\"\n";
    }

    private static String command(String launcher, FileAct act) {
        return Quoted.exec(launcher) + " desk act " + act.code() + " -- %F";
    }

    private static String serviceMenu(String launcher) {
        StringBuilder menu = new StringBuilder(
                        "[Desktop Entry]\nType=Service\nName=Mint Shelf\nMimeType=application/octet-stream;\n")
                .append("X-KDE-Submenu=")
                .append(MENU)
                .append("\nActions=");
        for (FileAct act : FileAct.values()) menu.append(act.code()).append(';');
        menu.append('\n');
        for (FileAct act : FileAct.values()) {
            menu.append("\n[Desktop Action ")
                    .append(act.code())
                    .append("]\nName=")
                    .append(act.words())
                    .append("\nExec=")
                    .append(command(launcher, act))
                    .append('\n');
        }
        return menu.toString();
    }

    private static String action(String launcher, FileAct act) {
        return """
                [Desktop Entry]
                Type=Action
                Name=%s: %s
                Profiles=files;

                [X-Action-Profile files]
                MimeTypes=all/allfiles;
                Exec=%s
                """.formatted(MENU, act.words(), command(launcher, act));
    }

    /** Puts our entries into the list of actions that one file manager keeps, or takes them out; what else stands there stays. */
    static void putActions(Machine machine, Optional<String> launcher) throws IOException {
        Path list = machine.config().resolve(ACTIONS);
        boolean there = Files.exists(list);
        if (!there && (launcher.isEmpty() || machine.program("thunar").isEmpty())) return;
        String before =
                there ? Files.readString(list) : "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<actions>\n</actions>\n";
        String without = OURS.matcher(before).replaceAll("");
        int end = without.lastIndexOf("</actions>");
        if (end < 0) return; // it is no such list: whoever wrote it knows why
        StringBuilder ours = new StringBuilder();
        launcher.ifPresent(l -> {
            for (FileAct act : FileAct.values()) ours.append(listed(l, act));
        });
        String now = without.substring(0, end).stripTrailing() + ours + "\n" + without.substring(end);
        if (now.equals(before)) return;
        Files.createDirectories(list.getParent());
        Files.writeString(list, now);
    }

    private static String listed(String launcher, FileAct act) {
        String all = "<audio-files/><image-files/><other-files/><text-files/><video-files/>";
        return "\n<action>\n  <unique-id>mint-shelf-" + act.code() + "</unique-id>\n  <name>"
                + Quoted.xml(MENU + ": " + act.words()) + "</name>\n  <command>"
                + Quoted.xml(Quoted.shell(launcher) + " desk act " + act.code() + " -- %F")
                + "</command>\n  <patterns>*</patterns>\n  " + all + "\n</action>";
    }
}
