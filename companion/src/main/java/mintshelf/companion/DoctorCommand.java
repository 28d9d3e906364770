package mintshelf.companion;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.Proxy;
import java.net.URI;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import mintshelf.companion.Companion.Unreadable;
import mintshelf.companion.machine.DesktopNotices;
import mintshelf.companion.machine.Machine;
import mintshelf.companion.machine.Notices;
import mintshelf.companion.machine.Proxies;
import mintshelf.companion.machine.Registration;
import mintshelf.core.base.Numbers;
import picocli.CommandLine.Command;

/** Says what is wrong with a desk and its machine, and how it is mended; 1 when anything is. */
@Command(name = "doctor", description = "says what is wrong with this desk and this machine, and how to mend it")
final class DoctorCommand extends OnDesk {
    /** How far a clock may be off, in seconds. */
    private static final long OFF = 120;

    /** Room below which a desk is said to be full. */
    private static final long ROOM = 512L << 20;

    /** @param mend nothing where all is well */
    private record Finding(String about, String says, Optional<String> mend) {
        static Finding well(String about, String says) {
            return new Finding(about, says, Optional.empty());
        }

        static Finding ill(String about, String says, String mend) {
            return new Finding(about, says, Optional.of(mend));
        }
    }

    @Override
    int run() throws IOException {
        DeskFolder desk = DeskFolder.of(folder);
        List<Finding> found = new ArrayList<>();
        found.add(folder(desk));
        found.add(room(desk));
        found.add(rights(desk));
        shelf(desk, found);
        found.add(links(desk));
        found.add(watch(desk));
        found.add(notices());
        for (Finding f : found) {
            out().println((f.mend().isEmpty() ? "well  " : "mend  ") + f.about() + ": " + f.says());
            f.mend().ifPresent(m -> out().println("      " + m));
        }
        return found.stream().allMatch(f -> f.mend().isEmpty()) ? 0 : 1;
    }

    private static Finding folder(DeskFolder desk) {
        return Files.isWritable(desk.root())
                ? Finding.well("folder", desk.root().toString())
                : Finding.ill(
                        "folder", desk.root() + " cannot be written to.", "Give yourself the right to write there.");
    }

    private static Finding room(DeskFolder desk) throws IOException {
        long free = Files.getFileStore(desk.root()).getUsableSpace();
        return free > ROOM
                ? Finding.well("room", Numbers.size(free) + " are free")
                : Finding.ill(
                        "room",
                        "only " + Numbers.size(free) + " are free.",
                        "Make room: what comes to the desk would not lie down.");
    }

    private static Finding rights(DeskFolder desk) throws IOException {
        return desk.isReadByOthers()
                ? Finding.ill(
                        "token",
                        "others on this machine can read it.",
                        "chmod 600 " + desk.root().resolve(".mint-desk.json"))
                : Finding.well("token", "only you can read it");
    }

    /** What the server says to it, and what lies between. */
    private void shelf(DeskFolder desk, List<Finding> found) {
        ShelfClient client = desk.client(machine());
        Proxy proxy = new Proxies(machine()).select(URI.create(client.origin())).get(0);
        found.add(Finding.well(
                "proxy", proxy.type() == Proxy.Type.DIRECT ? "none is used" : String.valueOf(proxy.address())));
        try {
            String name = client.get("/me").path("name").asString();
            found.add(Finding.well("shelf", client.origin() + " answers, to " + name));
            OptionalLong ahead = client.clockAhead();
            if (ahead.isPresent() && Math.abs(ahead.getAsLong()) > OFF)
                found.add(Finding.ill(
                        "clock",
                        "it is " + Math.abs(ahead.getAsLong()) + " s " + (ahead.getAsLong() > 0 ? "ahead" : "behind")
                                + ".",
                        "Let the system set it: nothing is lost by it, but times of saves are told wrong."));
            else found.add(Finding.well("clock", "it agrees with the shelf's"));
        } catch (ShelfClient.NotPaired e) {
            found.add(Finding.ill(
                    "shelf",
                    "the token of this desk is not in force any more.",
                    "Pair the folder again: mint-shelf desk pair " + client.origin() + " CODE --name " + desk.name()));
        } catch (ShelfClient.Refusal | Unreadable | UncheckedIOException e) {
            found.add(Finding.ill(
                    "shelf",
                    String.valueOf(e.getMessage()),
                    "Look whether the address opens in the browser; proxies are taken from https_proxy and no_proxy."));
        }
    }

    private Finding links(DeskFolder desk) throws IOException {
        Machine machine = machine();
        boolean there = desk.opens().isPresent()
                && new Helper(machine).desks().stream().anyMatch(d -> d.root().equals(desk.root()))
                && Registration.of(machine, Launcher.of(machine)).isThere();
        if (!there)
            return Finding.ill(
                    "links", "pages cannot open files here.", "mint-shelf desk register --desk " + desk.root());
        if (machine.kind() == Machine.Kind.LINUX) {
            Optional<String> said = machine.ask("xdg-mime", "query", "default", "x-scheme-handler/mint-shelf");
            if (said.isEmpty() || !said.get().strip().equals("mint-shelf.desktop"))
                return Finding.ill(
                        "links",
                        said.isEmpty() ? "xdg-mime is not installed." : "another program takes them.",
                        "Install xdg-utils, and register once more.");
        }
        return Finding.well("links", "pages open files here");
    }

    private static Finding watch(DeskFolder desk) throws IOException {
        Optional<WatchLock> lock = WatchLock.of(desk);
        if (lock.isEmpty()) return Finding.well("watch", "what is saved is told");
        lock.get().close();
        return Finding.ill(
                "watch",
                "nothing watches this desk.",
                "mint-shelf desk watch; it begins with your session once the desk is registered.");
    }

    private Finding notices() {
        Optional<Notices> desktop = DesktopNotices.of(machine());
        desktop.ifPresent(Notices::close);
        return desktop.isPresent()
                ? Finding.well("notices", "the desktop shows them")
                : Finding.well("notices", "there is no desktop; the watch prints them");
    }
}
