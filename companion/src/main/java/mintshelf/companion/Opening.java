package mintshelf.companion;

import java.io.PrintWriter;
import java.io.UncheckedIOException;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.BiConsumer;
import mintshelf.companion.Companion.Unreadable;
import mintshelf.companion.machine.Machine;
import mintshelf.core.desk.DeskLink;
import tools.jackson.databind.JsonNode;

/**
 * Does what a link of a page asks for. Whoever makes a browser follow one of their own reaches nothing: it has to name a desk that is registered here, and
 * a code that its server gave to this desk's own person, once, within two minutes. It cannot name a file, a path or a program.
 */
final class Opening {
    private final Machine machine;
    private final PrintWriter out;
    private final BiConsumer<String, String> no;
    /** A watch opens many: connections to their servers stay. */
    private final Map<String, ShelfClient> clients = new ConcurrentHashMap<>();

    /** @param no takes what stood in the way: a title, and a sentence */
    Opening(Machine machine, PrintWriter out, BiConsumer<String, String> no) {
        this.machine = machine;
        this.out = out;
        this.no = no;
    }

    /** Whether it was done. */
    boolean open(String link) {
        Optional<DeskLink> read = DeskLink.read(link);
        if (read.isEmpty()) return refused("That is no link of Mint Shelf", "Nothing was done.");
        String tag = read.get().tag();
        Optional<DeskFolder> desk = new Helper(machine)
                .desks().stream()
                        .filter(d -> d.opens().filter(tag::equals).isPresent())
                        .findFirst();
        if (desk.isEmpty())
            return refused(
                    "That link is for a desk that is not on this machine",
                    "Choose the desk of this machine under Companion and tokens.");
        ShelfClient client = clients.computeIfAbsent(
                desk.get().root() + " " + tag, place -> desk.get().client(machine));
        JsonNode wanted;
        try {
            wanted = client.post("/desk-links/take", Map.of("code", read.get().code()));
        } catch (ShelfClient.Refusal | Unreadable | UncheckedIOException e) {
            return refused("Nothing was opened", String.valueOf(e.getMessage()));
        }
        long id = wanted.path("id").asLong();
        try {
            String says = new Bringing(machine, desk.get(), client, out)
                    .open(
                            wanted.path("document").asLong(),
                            "",
                            Integer.toString(wanted.path("version").asInt()),
                            wanted.path("act").asString().equals("work"));
            out.println(says);
            out.flush();
            tell(client, id, true, says);
            return true;
        } catch (ShelfClient.Refusal | Unreadable | UncheckedIOException e) {
            String says = String.valueOf(e.getMessage());
            tell(client, id, false, says);
            return refused(wanted.path("number").asString() + " was not opened", says);
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

    private boolean refused(String title, String says) {
        no.accept(title, says);
        return false;
    }
}
