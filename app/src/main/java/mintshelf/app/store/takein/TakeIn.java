package mintshelf.app.store.takein;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import mintshelf.core.base.Refusal;
import mintshelf.core.takein.TakeRules;

/**
 * A taking-in.
 *
 * @param name as its person calls it: "old drive K"
 * @param table name of the file of its table; empty for none
 * @param archive the upload of the archive from which its files come
 * @param general what the dry run says of no single file
 * @param done how far its work is, of {@code total}: files that are unpacked or read, documents that are filed
 * @param says why its work stopped; mostly empty
 */
public record TakeIn(
        long id,
        long person,
        String personName,
        long shelf,
        long folder,
        String name,
        State state,
        TakeRules rules,
        String table,
        Optional<Long> archive,
        List<Refusal> general,
        int done,
        int total,
        String says,
        Instant begun,
        Instant moved,
        Optional<Instant> ended) {

    /** How far it is. */
    public enum State {
        /** Files come. */
        BRINGING("files are brought"),
        UNPACKING("the archive is unpacked"),
        READING("the files are read"),
        /** The dry run stands, and is mended. */
        OPEN("to be looked at"),
        FILING("the documents are filed"),
        DONE("taken in"),
        DROPPED("given up");

        private final String words;

        State(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        public boolean isWorking() {
            return this == UNPACKING || this == READING || this == FILING;
        }
    }

    public boolean isOpen() {
        return state == State.OPEN;
    }

    public boolean isBringing() {
        return state == State.BRINGING;
    }

    public boolean isDone() {
        return state == State.DONE;
    }

    public boolean isWorking() {
        return state.isWorking();
    }
}
