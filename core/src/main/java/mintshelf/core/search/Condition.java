package mintshelf.core.search;

/**
 * A condition of a search.
 *
 * @param not whether the documents are wanted that it does not hold of
 * @param says as a chip reads: "in review", "held by me", "mass over 2 kg"
 * @param source the part of the search that it was typed as
 */
public record Condition(Wanted wanted, boolean not, String says, String source) {}
