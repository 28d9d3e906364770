package mintshelf.core.filing;

import java.util.Map;
import java.util.Optional;
import mintshelf.core.document.FileName;

/**
 * A proposed row of the filing sheet: each value with the reason why it stands there.
 *
 * @param number empty: the series draws one when the sheet is filed
 * @param revision empty: the first of the series
 */
public record Proposal(
        Optional<Long> kind,
        String kindWhy,
        String number,
        String numberWhy,
        String title,
        String titleWhy,
        String revision,
        String revisionWhy,
        Map<String, String> facts) {

    /**
     * Proposes number and title: from the title block, else the file name, else the series and the bare name.
     *
     * @param sheet what the title block says, by fact name ("number", "title", "material" …); empty for other files
     */
    public static Proposal of(Optional<FilingRule> rule, FileName name, Map<String, String> sheet) {
        NameReading reading = NameReading.of(name);
        String number;
        String numberWhy;
        String sheetNumber = sheet.getOrDefault("number", "");
        String sheetTitle = sheet.getOrDefault("title", "");
        if (!sheetNumber.isBlank()) {
            number = sheetNumber;
            numberWhy = "from the title block";
        } else if (reading.number().isPresent()) {
            number = reading.number().get();
            numberWhy = "from the file name";
        } else {
            number = "";
            numberWhy = "the next of the series, drawn when it is filed";
        }
        String revision = sheet.getOrDefault("revision", "").strip();
        // A dash stands on sheets that are no revision yet.
        boolean labelled = !revision.isEmpty() && !revision.matches("[-–—._ ]+");
        boolean titled = !sheetTitle.isBlank();
        return new Proposal(
                rule.map(FilingRule::kind),
                rule.map(FilingRule::says).orElse("no filing rule fits"),
                number,
                numberWhy,
                titled ? sheetTitle : reading.title(),
                titled ? "from the title block" : "from the file name",
                labelled ? revision : "",
                labelled ? "from the title block" : "the first of the series",
                Map.copyOf(sheet));
    }
}
