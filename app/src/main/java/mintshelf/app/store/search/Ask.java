package mintshelf.app.store.search;

import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.core.access.Access;
import mintshelf.core.search.Question;
import mintshelf.core.search.Wanted;

/**
 * A question to the index.
 *
 * @param plain the words of it as one text, for numbers
 * @param own what only the asking person's papers say, by document
 * @param versions whether all versions are looked through, not documents as they stand
 * @param from how many hits are passed over
 * @param facets names of fields that are counted; none where nothing is
 */
public record Ask(
        Question question,
        String plain,
        Access access,
        Map<Wanted.Mine, Set<Long>> own,
        boolean versions,
        Order order,
        int from,
        int most,
        List<Facet> facets) {

    /** How hits are ordered; what is equal in it, by number. */
    public enum Order {
        /** What fits best first. */
        FIT,
        NUMBER,
        TITLE,
        /** Latest first. */
        CHANGED
    }

    /** What hits are counted by. */
    public sealed interface Facet {
        /** A thing that every document has. */
        record Known(Wanted.Field field) implements Facet {}

        /** A fact, by id. */
        record Fact(long id) implements Facet {}
    }

    /** A hit; with the version that fits where all versions are looked through. */
    public record Hit(long item, int version) {}

    /** How many hits have a value: its term as {@link Wanted.Among} has it, or a fact's text. */
    public record Count(String term, int hits) {}

    /**
     * What was found.
     *
     * @param total of all hits
     * @param alike whether nothing fitted as it was typed, and what is written alike was taken
     */
    public record Answer(List<Hit> hits, int total, Map<Facet, List<Count>> facets, boolean alike) {}
}
