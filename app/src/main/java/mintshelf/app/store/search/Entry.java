package mintshelf.app.store.search;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.core.fact.FactValue;

/**
 * A document, or a version of one, as it is found by those who see it so.
 *
 * @param version number of a version; empty for the document as it stands
 * @param all whether who sees work in preparation finds it
 * @param released whether who sees released ones only finds it
 * @param numbers current first, then former ones and those of variants
 * @param traits of its sheet, with blanks between
 * @param stages edition and code, with what class each is
 * @param facts by id
 */
record Entry(
        long item,
        Optional<Integer> version,
        boolean all,
        boolean released,
        List<String> numbers,
        String sort,
        String title,
        String fileName,
        List<String> words,
        String traits,
        String comment,
        Placed placed,
        List<StageOf> stages,
        List<String> revisions,
        Optional<Held> held,
        String format,
        Instant changed,
        Optional<Instant> releasedAt,
        Map<Long, FactValue> facts) {

    /** Where it lies and what it is. */
    record Placed(long shelf, List<Long> folders, long kind, long author, String paper) {}

    record StageOf(long edition, String code, String stageClass) {
        String term() {
            return edition + "/" + code;
        }
    }

    record Held(long person, Instant since) {}
}
