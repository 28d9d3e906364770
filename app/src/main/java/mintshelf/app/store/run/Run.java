package mintshelf.app.store.run;

import java.time.Instant;
import java.util.Optional;

/**
 * What an act over a set is at or did; its rows are read by themselves.
 *
 * @param personName who acts
 * @param says in one sentence
 * @param done rows that are done, of {@code total}
 */
public record Run(
        long id,
        long person,
        String personName,
        What what,
        String says,
        State state,
        int done,
        int total,
        Instant begun,
        Optional<Instant> ended) {

    /** What is done. */
    public enum What {
        CHECK_IN("check-in"),
        CHECK_OUT("check-out"),
        MOVE("move"),
        SIGN("sign"),
        REINSTATE("reinstate"),
        TAKE_UP("take-up"),
        MOVE_OVER("move over"),
        FILL("fill"),
        RELOCATE("relocate"),
        WRITE_NAMES("write names"),
        CHANGE_KIND("change kind"),
        SWAP("swap"),
        SWAP_BACK("swap back"),
        NEW_DESIGN("new-design");

        private final String words;

        What(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** How it stands. */
    public enum State {
        WORKING,
        DONE,
        STOPPED
    }

    public boolean isWorking() {
        return state == State.WORKING;
    }

    public boolean isStopped() {
        return state == State.STOPPED;
    }

    /**
     * A row of the report.
     *
     * @param item id of the document
     * @param became in one word: "version", "held"; empty while it waits
     * @param number of the version that is meant, or of what else {@code became} names
     */
    public record Row(long item, String became, long number) {
        public boolean waits() {
            return became.isEmpty();
        }
    }

    /**
     * A row that is to be done.
     *
     * @param expected how the document was seen when the act was asked for: what has moved on since is not done unseen
     */
    public record Due(long item, String expected) {}
}
