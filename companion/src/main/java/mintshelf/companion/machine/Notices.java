package mintshelf.companion.machine;

import java.util.List;
import java.util.function.Consumer;

/** Where a person is told what the companion has to say, and may answer. */
public interface Notices extends AutoCloseable {
    /** An answer: its code, and the words on its button. */
    record Answer(String code, String words) {}

    /**
     * A notice.
     *
     * @param about what it is about: a later notice of the same takes its place
     * @param urgent whether it stays until somebody looks
     */
    record Notice(String about, String title, String says, List<Answer> answers, boolean urgent) {
        public Notice {
            answers = List.copyOf(answers);
        }

        /** One without answers. */
        public static Notice of(String title, String says) {
            return new Notice("", title, says, List.of(), false);
        }
    }

    /** Tells; a chosen answer comes back by its code, from another thread. */
    void tell(Notice notice, Consumer<String> chosen);

    /** What a notice was about is settled: it need not stand any longer. */
    void settled(String about);

    @Override
    void close();
}
