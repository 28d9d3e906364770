package mintshelf.app.store.run;

import java.time.Instant;
import java.util.List;
import java.util.Optional;

/**
 * What an act over a set did, or is at.
 *
 * @param personName who acted
 * @param says in one sentence
 * @param done rows that are done, of {@code total}
 */
public record Run(
        long id,
        long person,
        String personName,
        What what,
        String says,
        List<Row> rows,
        State state,
        int done,
        int total,
        Instant begun,
        Optional<Instant> ended) {
    public Run {
        rows = List.copyOf(rows);
    }

    /** What was done. */
    public enum What {
        CHECK_IN("check-in"),
        CHECK_OUT("check-out");

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

    /**
     * A row of the report.
     *
     * @param item id of the document
     * @param became in one word: "version", "held"
     * @param number of the version that is meant, or of what else {@code became} names
     */
    public record Row(long item, String became, long number) {}
}
