package mintshelf.core.search;

import java.util.List;
import mintshelf.core.fact.FactDefinition;

/** What the names in a search can mean here, for the person who asks: asked for as far as the search names it. */
public interface Known {
    /**
     * Something with a name.
     *
     * @param term by which documents are known to have it
     * @param code another name; empty where it has none
     */
    record Named(String term, String name, String code) {}

    List<FactDefinition> facts();

    List<Named> stages();

    List<Named> kinds();

    /** Shelves that the person may enter. */
    List<Named> shelves();

    /** Folders of these shelves. */
    List<Named> folders();

    /** Who is called so, by login, name or the beginning of it. */
    List<Named> people(String said);

    /** Who asks. */
    Named me();
}
