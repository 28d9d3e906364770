package mintshelf.demo.model;

import java.util.List;

/**
 * A profile with holes, extruded along z.
 *
 * @param outer turns left
 * @param holes turn right
 */
record Solid(Profile outer, List<Profile> holes, double from, double to) {}
