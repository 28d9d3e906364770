package mintshelf.core.takein;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Aspect;
import mintshelf.core.document.FileName;
import mintshelf.core.filing.FilingRule;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.revision.RevisionSeries;
import mintshelf.core.takein.TakeRules.Stands;

/** What is on the shelf already, and what the house rules say, as far as a taking-in asks. */
public interface Grounds {
    /**
     * A kind of document.
     *
     * @param stops how revisions can stand on its route
     */
    record Known(long id, String name, Aspect aspect, RevisionSeries series, Set<Stands> stops) {}

    List<FilingRule> rules();

    /** None for a kind that may not be filed here. */
    Optional<Known> kind(long id);

    Optional<Known> kindNamed(String name);

    /** Whether a number is or was in use for an aspect. */
    boolean isUsed(Aspect aspect, NumberKey number);

    /** The number of the document, as the actor may see it, that has a content already. */
    Optional<String> withContent(String content);

    /** Whether a file of this name lies in a folder already, given by its path below the folder in which all is taken in. */
    boolean isTaken(String folder, FileName name);

    /** Whether a file of this name lies anywhere where files are looked for. */
    boolean isThere(FileName name);

    /** Which facts of a kind cannot be read as they are said. */
    List<Refusal> facts(long kind, Map<String, String> said);

    LocalDate today();
}
