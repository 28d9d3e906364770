package mintshelf.app.use.design;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.app.use.design.DesignTree.Node;
import mintshelf.app.use.design.DesignTree.Row;
import mintshelf.app.use.design.DesignTree.Tree;
import mintshelf.core.base.Refusal;
import mintshelf.core.reuse.Design.Becomes;
import mintshelf.core.reuse.Design.Verdict;

/**
 * A new design before it is made: what becomes of each thing, and what each new document is called.
 *
 * @param proposed what the rule or the series proposes, by thing
 * @param copies what is made, what stands in others before them
 * @param refusals what keeps it from being made
 */
public record Outline(
        Tree tree, Map<Long, String> proposed, Map<Long, Verdict> verdicts, List<Copy> copies, List<Refusal> refusals) {
    /**
     * A document that is made.
     *
     * @param folder into which it goes, or in which {@code anew} is made for it
     */
    public record Copy(Node from, long thing, String number, String title, String fileName, Folder folder) {}

    public Verdict verdict(Row row) {
        return Optional.ofNullable(verdicts.get(row.id())).orElseThrow();
    }

    /** How many things become what. */
    public long count(Becomes becomes) {
        return verdicts.values().stream().filter(v -> v.becomes() == becomes).count();
    }

    /** What could not be as it was wanted, and was settled. */
    public List<Refusal> settled() {
        List<Refusal> all = new ArrayList<>();
        tree.rows().forEach(r -> verdict(r).settled().ifPresent(all::add));
        return all;
    }

    /** What it is called from then on, by thing: all that the act needs to know. */
    public Map<Long, String> numbers() {
        Map<Long, String> numbers = new java.util.LinkedHashMap<>();
        tree.rows().forEach(r -> {
            Verdict verdict = verdict(r);
            if (verdict.becomes() != Becomes.WITHIN) numbers.put(r.id(), verdict.number());
        });
        return numbers;
    }

    /** References that lead elsewhere in copies: to new ones, to exchanged ones, and those that are taken out. */
    public long rewritten() {
        return copies.stream()
                .flatMap(c -> c.from().refersTo().stream())
                .flatMap(r -> r.component().stream())
                .filter(c -> Optional.ofNullable(tree.thingOf().get(c.item()))
                        .map(verdicts::get)
                        .filter(v -> v.becomes() != Becomes.SHARED && v.becomes() != Becomes.WITHIN)
                        .isPresent())
                .count();
    }

    public long bytes() {
        return copies.stream()
                .mapToLong(c -> c.from().version().content().size())
                .sum();
    }
}
