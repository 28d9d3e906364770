package mintshelf.core.redline;

/**
 * What a mark marks: a primitive of the sheet that it was drawn on.
 *
 * @param point which point of the mark lies on it, -1 where the whole mark belongs to it
 * @param handle of the entity, 0 where the file gives none
 * @param path names of the blocks that it stands in
 * @param place where on it
 * @param middle of its box: tells apart what one entity draws, and finds what has no handle
 */
public record Anchor(int point, long handle, String path, Point place, Point middle) {}
