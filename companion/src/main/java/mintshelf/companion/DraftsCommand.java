package mintshelf.companion;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import mintshelf.companion.Companion.Unreadable;
import mintshelf.companion.watch.Drafts;
import mintshelf.companion.watch.Drafts.Draft;
import mintshelf.core.base.Numbers;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** What was saved of a file on the way, kept on this machine while it was watched; and the way back to one of them. */
@Command(name = "drafts", description = "what was saved of a file on the way; --back N puts one back in its place")
final class DraftsCommand extends OnDesk {
    @Parameters(index = "0")
    private Path file = Path.of("");

    @Option(
            names = "--back",
            description = "number of the one that is put back; what lies there is kept as a draft first")
    private Optional<Integer> back = Optional.empty();

    @Override
    int run() throws IOException {
        DeskFolder desk = DeskFolder.of(file);
        String path = desk.path(file).orElseThrow();
        Drafts drafts = desk.drafts();
        List<Draft> all = drafts.of(path);
        if (all.isEmpty()) {
            out().println("Nothing of " + path + " is kept. Saves of a held file are kept while the desk is watched.");
            return back.isPresent() ? 1 : 0;
        }
        if (back.isPresent()) return putBack(desk, path, all);
        Path lying = desk.place(path);
        DateTimeFormatter when =
                DateTimeFormatter.ofPattern("d MMM HH:mm:ss", Locale.ENGLISH).withZone(ZoneId.systemDefault());
        for (int i = 0; i < all.size(); i++) {
            Draft d = all.get(i);
            out().println(String.format(
                    "%2d  %s  %s%s", i + 1, when.format(d.at()), Numbers.size(d.size()), from(drafts, d, lying, path)));
        }
        return 0;
    }

    /** How far a draft is from what lies there. */
    private static String from(Drafts drafts, Draft draft, Path lying, String path) throws IOException {
        if (Files.exists(lying) && DeskFolder.hash(lying).equals(draft.hash())) return "  as it lies here";
        Optional<Path> content = drafts.content(draft.hash());
        if (content.isEmpty() || !Files.exists(lying)) return "";
        OptionalInt differences = Ahead.differences(content.get(), lying, path);
        return differences.isEmpty()
                ? ""
                : "  " + Numbers.count(differences.getAsInt(), "difference", "differences") + " from what lies here";
    }

    private int putBack(DeskFolder desk, String path, List<Draft> all) throws IOException {
        int wanted = back.orElse(0);
        if (wanted < 1 || wanted > all.size())
            throw new Unreadable(
                    "There is no draft " + wanted + "; " + all.size() + (all.size() == 1 ? " is" : " are") + " kept.");
        Drafts drafts = desk.drafts();
        Draft draft = all.get(wanted - 1);
        Path content = drafts.content(draft.hash())
                .orElseThrow(() -> new Unreadable("Its bytes are gone from this machine; nothing was changed."));
        Path place = desk.place(path);
        // First its bytes beside the place: keeping what lies there may push this one out.
        Path part = Files.createTempFile(place.getParent(), ".mint", ".part");
        try {
            Files.copy(content, part, StandardCopyOption.REPLACE_EXISTING);
            if (Files.exists(place) && !isKept(drafts, path, place)) {
                out().println("What lay there is too large to be kept as a draft; it was set aside as “"
                        + desk.aside(path) + "”.");
            }
            Files.move(part, place, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
        } finally {
            Files.deleteIfExists(part);
        }
        out().println(path + " is as it was saved then. What lay there is kept.");
        return 0;
    }

    private static boolean isKept(Drafts drafts, String path, Path place) throws IOException {
        String hash = DeskFolder.hash(place);
        return drafts.keep(path, place, hash, Instant.now())
                || drafts.of(path).stream().anyMatch(d -> d.hash().equals(hash));
    }
}
