package mintshelf.core.redline;

/**
 * A mark on a later version than its own.
 *
 * @param mark where it stands there
 * @param says what became of what it marks; empty where that is as it was
 */
public record Followed(Mark mark, Fate fate, String says) {
    /** What became of what a mark marks. */
    public enum Fate {
        /** All is as it was, or the mark marks nothing that is drawn. */
        KEPT,
        /** It stands elsewhere, unchanged. */
        MOVED,
        /** It was changed, or a part of it is gone; the mark moved with it. */
        CHANGED,
        /** Nothing of it is left; the mark stands where it was. */
        GONE
    }

    /** On the version that it was drawn on. */
    public static Followed own(Mark mark) {
        return new Followed(mark, Fate.KEPT, "");
    }

    public boolean isGone() {
        return fate == Fate.GONE;
    }
}
