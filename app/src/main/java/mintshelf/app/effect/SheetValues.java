package mintshelf.app.effect;

import java.time.Clock;
import java.time.Instant;
import java.time.format.DateTimeFormatter;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.house.RuleStore;
import mintshelf.core.document.Document;
import mintshelf.core.signoff.Ask;
import mintshelf.core.signoff.Round;
import mintshelf.core.signoff.SignOff;
import mintshelf.core.signoff.SignOffLine;
import org.springframework.stereotype.Component;

/** What the shelf writes into title blocks: number, revision, stage, who signed and when. */
@Component
public class SheetValues {
    private final RuleStore rules;
    private final Settings settings;
    private final Clock clock;

    public SheetValues(RuleStore rules, Settings settings, Clock clock) {
        this.rules = rules;
        this.settings = settings;
        this.clock = clock;
    }

    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("yyyy-MM-dd", Locale.ROOT);

    /** What goes onto a sheet that is released. Dates are days of the house, as ISO 8601. */
    public Map<String, String> released(Document document, String label, String stage, List<Round> signed) {
        Map<String, String> values = unsigned(document, label, stage);
        values.put("issued", day(clock.instant()));
        signed.forEach(round -> round.asks().forEach(ask -> signed(values, round, ask)));
        return values;
    }

    private void signed(Map<String, String> values, Round round, Ask ask) {
        List<SignOff> given =
                round.answers(ask).stream().filter(s -> s.decision().signs()).toList();
        if (given.isEmpty()) return;
        SignOffLine line = ask.line();
        String names = given.stream().map(SignOff::signer).collect(Collectors.joining(", "));
        if (!line.fact().isEmpty()) values.put(line.fact(), names);
        if (!line.day().isEmpty())
            values.put(line.day(), day(given.get(given.size() - 1).at()));
    }

    /** What goes onto a sheet that work begins on: the label it is reserved, and nobody's signature. */
    public Map<String, String> unsigned(Document document, String label, String stage) {
        return unsigned(document.number(), label, stage);
    }

    /** As {@link #unsigned(Document, String, String)}, for a document that is just being made. */
    Map<String, String> unsigned(String number, String label, String stage) {
        Map<String, String> values = new HashMap<>();
        values.put("number", number);
        values.put("revision", label);
        values.put("status", stage);
        values.put("issued", "");
        // Whatever route it goes or went: the signatures of a former revision are nobody's on this one.
        rules.signOffFacts().forEach(fact -> values.put(fact, ""));
        return values;
    }

    /** A day of the house, as ISO 8601. */
    String day(Instant at) {
        return DAY.format(at.atZone(settings.zone()));
    }
}
