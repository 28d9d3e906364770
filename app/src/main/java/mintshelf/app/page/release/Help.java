package mintshelf.app.page.release;

import java.util.List;
import mintshelf.app.use.release.ReleasePlan;
import mintshelf.core.release.Blocks.Block;

/**
 * The one button of a remedy.
 *
 * @param href where it leads; empty where it asks people, or where nothing helps from here
 * @param asks whether it asks those who hold the documents
 */
public record Help(String says, String href, boolean asks) {
    private static final Help NONE = new Help("", "", false);

    /** By the code of what is in the way; a code that nothing is known of leads to the first document. */
    static Help of(Block block, ReleasePlan plan, long me) {
        long first = block.items().get(0);
        String document = "/documents/" + first;
        int version = plan.lines().stream()
                .filter(l -> l.item() == first)
                .map(l -> l.seen().version())
                .findFirst()
                .orElse(1);
        return switch (block.code()) {
            case "gate.held" -> held(block, plan, me);
            case "gate.facts" -> new Help("Fill them…", document + "?edit", false);
            case "gate.checks" -> new Help("Its checks…", document + "/versions/" + version + "/checks", false);
            case "gate.remarks" -> new Help("Its remarks…", document + "/remarks", false);
            case "gate.references", "gate.older" -> new Help("What it refers to…", document + "/refers-to", false);
            case "move.no_version" -> new Help("Check out…", "/check-out?items=" + joined(block.items()), false);
            case "access.missing", "access.library" -> NONE;
            default -> new Help("Look at it…", document, false);
        };
    }

    private static Help held(Block block, ReleasePlan plan, long me) {
        boolean mine = plan.lines().stream()
                .filter(l -> block.items().contains(l.item()))
                .anyMatch(l -> l.seen()
                        .document()
                        .holder()
                        .filter(h -> h.person() == me)
                        .isPresent());
        String items = joined(block.items());
        return mine
                ? new Help("Check in…", "/check-in?items=" + items, false)
                : new Help("Ask for " + block.items().size(), "", true);
    }

    static String joined(List<Long> items) {
        return String.join(",", items.stream().map(String::valueOf).toList());
    }
}
