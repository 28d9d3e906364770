package mintshelf.companion;

import java.io.IOException;
import java.util.Map;
import java.util.Optional;
import mintshelf.companion.Companion.Unreadable;
import mintshelf.companion.machine.QuietHours;
import mintshelf.companion.machine.Registration;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** Makes the machine know the desk: links of pages, entries in file managers, the watch. */
@Command(
        name = "register",
        description =
                "lets pages and file managers of this machine work with this desk, and watches it; --away takes it all back")
final class RegisterCommand extends OnDesk {
    @Option(names = "--away", description = "takes it all back")
    private boolean away;

    @Option(names = "--quiet", description = "hours in which nothing is told, as 18:00-07:30; none for no such hours")
    private Optional<String> quiet = Optional.empty();

    @Option(
            names = "--program",
            description =
                    "opens files of an ending with another program than the machine would: dxf=COMMAND; dxf= for the machine's own")
    private Map<String, String> programs = Map.of();

    @Override
    int run() throws IOException {
        Helper helper = new Helper(machine());
        if (quiet.isPresent()) {
            Optional<QuietHours> hours = QuietHours.read(quiet.get());
            if (hours.isEmpty() && !quiet.get().equals("none"))
                throw new Unreadable("“" + quiet.get() + "” says no two times; write them as 18:00-07:30.");
            helper.quiet(hours);
        }
        for (Map.Entry<String, String> one : programs.entrySet()) helper.program(one.getKey(), one.getValue());
        DeskFolder desk = DeskFolder.of(folder);
        return away ? away(helper, desk) : put(helper, desk);
    }

    private int put(Helper helper, DeskFolder desk) throws IOException {
        ShelfClient client = desk.client(machine());
        String tag = client.put("/desks/" + ShelfClient.encode(desk.name()) + "/opens")
                .path("tag")
                .asString();
        desk.opens(Optional.of(tag));
        helper.add(desk);
        Registration.of(machine(), Launcher.of(machine())).put();
        ShelfFolders.say(machine(), desk, client);
        String page = client.origin() + "/desk/programs?opens=" + ShelfClient.encode(desk.name());
        out().println(desk.name() + " is registered: pages open files here, file managers know it, and it is watched.");
        out().println("One thing is left: let your browser open files there, at " + page);
        machine().open(page);
        return 0;
    }

    private int away(Helper helper, DeskFolder desk) throws IOException {
        boolean others = helper.remove(desk);
        desk.opens(Optional.empty());
        ShelfFolders.silence(desk);
        if (!others) Registration.of(machine(), Launcher.of(machine())).away();
        try {
            desk.client(machine()).delete("/desks/" + ShelfClient.encode(desk.name()) + "/opens");
        } catch (ShelfClient.Refusal | Unreadable e) {
            out().println("The shelf was not told: " + e.getMessage());
        }
        out().println(
                        others
                                ? desk.name() + " is registered no more; another desk of this machine still is."
                                : desk.name() + " is registered no more. Its files stay where they lie.");
        return 0;
    }
}
