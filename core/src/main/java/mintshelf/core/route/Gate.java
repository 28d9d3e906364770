package mintshelf.core.route;

/** What a move demands before it opens. */
public enum Gate {
    HELD_BY_NOBODY("nobody holds it"),
    FACTS_FILLED("the facts that its kind requires are filled"),
    /** The last signature makes the move. */
    SIGNED_OFF("everybody who is asked has signed"),
    /** The signatures open the move; a person makes it. */
    BOARD_SIGNED("the board has signed"),
    LINES_READY("all its lines are ready");

    private final String words;

    Gate(String words) {
        this.words = words;
    }

    /** As in "when {words}". */
    public String words() {
        return words;
    }
}
