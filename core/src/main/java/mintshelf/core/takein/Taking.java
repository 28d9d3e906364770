package mintshelf.core.takein;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.core.base.Refusal;
import mintshelf.core.takein.TakeRules.Stands;

/**
 * What becomes of a file, and why.
 *
 * @param at the file's place
 * @param kind id of its kind; empty where none is known
 * @param number empty: the series draws one
 * @param label of its revision; empty: the first of the series, or none for what is in preparation and gets its label with the release
 * @param folder path below the folder in which all is taken in
 * @param why where number, title and revision are from, in words
 * @param document the files of one document have the same; documents come in the order in which they are filed
 * @param step its place in the document's history, from 0
 * @param stops what is in the way
 * @param hints what is worth a look, and stops nothing
 */
public record Taking(
        int at,
        Verdict verdict,
        Optional<Long> kind,
        String number,
        String title,
        String label,
        Stands stands,
        Optional<LocalDate> date,
        String signers,
        List<String> former,
        String folder,
        Map<String, String> facts,
        String why,
        int document,
        int step,
        List<Refusal> stops,
        List<Refusal> hints) {

    /** Whether a file is taken in. */
    public enum Verdict {
        /** It becomes a document, or a revision of one. */
        GOES,
        /** Something is in its way. */
        STOPS,
        /** Nothing is in its own way, but in that of another revision of the same document. */
        WAITS,
        LEFT_OUT
    }

    Taking with(Verdict other, int ofDocument, int at) {
        return new Taking(
                this.at,
                other,
                kind,
                number,
                title,
                label,
                stands,
                date,
                signers,
                former,
                folder,
                facts,
                why,
                ofDocument,
                at,
                stops,
                hints);
    }
}
