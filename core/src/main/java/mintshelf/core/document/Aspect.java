package mintshelf.core.document;

/** What side of a thing an item is: the drawing, the model, a paper about it, or the part itself. They may share one number. */
public enum Aspect {
    DRAWING,
    MODEL,
    PAPER,
    PART
}
