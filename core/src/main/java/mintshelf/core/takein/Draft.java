package mintshelf.core.takein;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.core.base.Refusal;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.takein.Grounds.Known;
import mintshelf.core.takein.TakeRules.Stands;
import mintshelf.core.takein.Taking.Verdict;

/** What becomes of a file while it is being found out. */
final class Draft {
    final Found file;
    final List<Refusal> stops = new ArrayList<>();
    final List<Refusal> hints = new ArrayList<>();
    final Map<String, String> facts = new HashMap<>();
    final List<String> former = new ArrayList<>();
    Optional<Known> kind = Optional.empty();
    Optional<NumberKey> number = Optional.empty();
    /** Whether somebody or something said the number. */
    boolean known;

    String title = "";
    String label = "";
    /** Empty where nobody said it. */
    Optional<Stands> said = Optional.empty();

    Optional<LocalDate> date = Optional.empty();
    String signers = "";
    String folder = "";
    String why = "";
    boolean leftOut;

    Draft(Found file) {
        this.file = file;
    }

    void stop(String code, String reason, String remedy) {
        stops.add(Refusal.of(code, reason, remedy));
    }

    void hint(String code, String reason, String remedy) {
        hints.add(Refusal.of(code, reason, remedy));
    }

    void leaveOut(String code, String reason, String remedy) {
        leftOut = true;
        hint(code, reason, remedy);
    }

    /** Whether it takes part in the history of a document. */
    boolean takesPart() {
        return !leftOut;
    }

    Taking taking(Stands stands, Verdict verdict, int document, int step) {
        return new Taking(
                file.at(),
                verdict,
                kind.map(Known::id),
                number.map(NumberKey::number).orElse(""),
                title,
                label,
                stands,
                date,
                signers,
                List.copyOf(former),
                folder,
                Map.copyOf(facts),
                why,
                document,
                step,
                List.copyOf(stops),
                List.copyOf(hints));
    }
}
