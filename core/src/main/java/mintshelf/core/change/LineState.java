package mintshelf.core.change;

/**
 * How far a line is.
 *
 * @param step 0 not started, 1 in work, 2 ready for the board, 3 being decided on, 4 released
 * @param says in words: "held by Priya Malhan", "ready"
 */
public record LineState(int step, String says) {
    /** How many steps a line goes. */
    public static final int LAST = 4;

    public boolean isReady() {
        return step == 2;
    }

    public boolean isDone() {
        return step == LAST;
    }
}
