package mintshelf.core.route;

import java.util.List;
import java.util.Optional;
import mintshelf.core.access.Access;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;

/**
 * What is known of one document at the moment at which its gates are asked. What is dear to find out is found out when a gate asks
 * for it, for all documents of the act at once.
 */
public interface Case {
    Document document();

    /** Who asks. */
    Access access();

    /** Labels of the facts that its kind requires and its current revision lacks. */
    List<String> emptyFacts();

    /** Files that it refers to and that are missing or ambiguous; empty where all are found. */
    Optional<Refusal> lostReferences();

    /**
     * Findings of binding rules that nobody let pass.
     *
     * @param review whether somebody is to look at the sheet: then one that nobody can read is a finding too
     */
    List<Refusal> findings(boolean review);

    /** What its latest version consists of, its first level. */
    List<Within> components();

    /** Numbers of the models that it shows and that were changed after it. */
    List<String> newerModels();

    /** Numbers of the remarks on its sheets that ask for a change and are open. */
    List<String> openChanges();

    /** In words, what its round still lacks: "checked (a checker)"; nothing where all have signed. */
    List<String> missingSignOffs();

    /** The number of the open order that it is on. */
    Optional<String> order();

    /** For the paper of an order, what keeps its lines. */
    List<Refusal> linesInTheWay();

    /** For the paper of an order, what the goals of its requests keep: those that are neither met nor shown. */
    List<Refusal> goalsInTheWay();

    /** A file that only its own program reads, and whose neutral copy is not of the latest version. */
    List<Refusal> neutralInTheWay();

    /** Whether another document moves in the same act. */
    boolean movesAlong(long item);

    /**
     * A document that stands in another one.
     *
     * @param released whether a revision of it is in force
     */
    record Within(long item, String number, boolean released) {}
}
