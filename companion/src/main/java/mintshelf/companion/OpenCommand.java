package mintshelf.companion;

import java.io.UncheckedIOException;
import java.util.Map;
import java.util.Optional;
import mintshelf.companion.Companion.Unreadable;
import mintshelf.companion.machine.DesktopNotices;
import mintshelf.companion.machine.Notices;
import mintshelf.core.desk.DeskLink;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/**
 * Takes a link of a page. Whoever makes a browser follow one of their own reaches nothing: it has to name a desk that is registered here, and a code that
 * its server gave to this desk's own person, once, within two minutes. It cannot name a file, a path or a program.
 */
@Command(name = "open", description = "takes a link of a page, as the browser hands it over")
final class OpenCommand extends OnDesk {
    @Parameters(index = "0")
    private String link = "";

    @Override
    int run() {
        Optional<DeskLink> read = DeskLink.read(link);
        if (read.isEmpty()) return no("That is no link of Mint Shelf", "Nothing was done.");
        String tag = read.get().tag();
        Optional<DeskFolder> desk = new Helper(machine())
                .desks().stream()
                        .filter(d -> d.opens().filter(tag::equals).isPresent())
                        .findFirst();
        if (desk.isEmpty())
            return no(
                    "That link is for a desk that is not on this machine",
                    "Choose the desk of this machine under Companion and tokens.");
        ShelfClient client = desk.get().client(machine());
        JsonNode wanted;
        try {
            wanted = client.post("/desk-links/take", Map.of("code", read.get().code()));
        } catch (ShelfClient.Refusal | Unreadable e) {
            return no("Nothing was opened", e.getMessage());
        }
        long id = wanted.path("id").asLong();
        try {
            String says = new Bringing(machine(), desk.get(), client, out())
                    .open(
                            wanted.path("document").asLong(),
                            wanted.path("version").asInt(),
                            wanted.path("act").asString().equals("work"));
            out().println(says);
            tell(client, id, true, says);
            return 0;
        } catch (ShelfClient.Refusal | Unreadable | UncheckedIOException e) {
            String says = String.valueOf(e.getMessage());
            tell(client, id, false, says);
            return no(wanted.path("number").asString() + " was not opened", says);
        }
    }

    /** For the page that asked; it may be closed by now, and the token revoked. */
    private static void tell(ShelfClient client, long id, boolean done, String says) {
        try {
            client.post("/desk-links/" + id + "/told", Map.of("done", done, "says", says));
        } catch (ShelfClient.Refusal | Unreadable | UncheckedIOException e) {
            return;
        }
    }

    /** There is no terminal behind a browser: the desktop says it, too. */
    private int no(String title, String says) {
        spec.commandLine().getErr().println(title + ". " + says);
        try (Notices notices = notices()) {
            notices.tell(Notices.Notice.of(title, says), chosen -> {});
        }
        return 1;
    }

    private Notices notices() {
        return DesktopNotices.of(machine()).orElseGet(Silent::new);
    }

    /** Where no desktop shows notices. */
    private static final class Silent implements Notices {
        @Override
        public void tell(Notice notice, java.util.function.Consumer<String> chosen) {}

        @Override
        public void close() {}
    }
}
