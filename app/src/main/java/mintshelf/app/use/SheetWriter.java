package mintshelf.app.use;

import java.time.Clock;
import java.time.Instant;
import java.time.format.DateTimeFormatter;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.house.SheetMapStore;
import mintshelf.app.store.output.OutputStore;
import mintshelf.core.document.Document;
import mintshelf.core.document.VersionDigest;
import mintshelf.core.signoff.Ask;
import mintshelf.core.signoff.Round;
import mintshelf.core.signoff.SignOff;
import mintshelf.core.stamp.SheetStamp;
import mintshelf.core.stamp.SheetStamp.Stamped;
import org.springframework.stereotype.Component;

/**
 * Writes what the record says into a sheet, as a version of its own with a proof; the version that was signed stays as it is.
 * Within the transaction of the move that asks for it.
 */
@Component
public class SheetWriter {
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("yyyy-MM-dd", Locale.ROOT);

    private final DocumentStore documents;
    private final Sheets sheets;
    private final Contents contents;
    private final OutputStore outputs;
    private final Settings settings;
    private final Clock clock;

    public SheetWriter(
            DocumentStore documents,
            Sheets sheets,
            Contents contents,
            OutputStore outputs,
            Settings settings,
            Clock clock) {
        this.documents = documents;
        this.sheets = sheets;
        this.contents = contents;
        this.outputs = outputs;
        this.settings = settings;
        this.clock = clock;
    }

    /** What goes onto a sheet that is released. Dates are days of the house, as ISO 8601. */
    public Map<String, String> released(Document document, String label, String stage, Optional<Round> signed) {
        Map<String, String> values = unsigned(document, label, stage);
        values.put("issued", day(clock.instant()));
        if (signed.isEmpty()) return values;
        for (Ask ask : signed.get().asks()) {
            String fact = ask.line().fact();
            List<SignOff> given = signed.get().answers(ask).stream()
                    .filter(s -> s.decision().signs())
                    .toList();
            if (fact.isEmpty() || given.isEmpty()) continue;
            values.put(fact, given.stream().map(SignOff::name).collect(Collectors.joining(", ")));
            values.put(
                    fact.replaceFirst("_by$", ""),
                    day(given.get(given.size() - 1).at()));
        }
        return values;
    }

    /** What goes onto a sheet that work begins on: the label it is reserved, and nobody's signature. */
    public Map<String, String> unsigned(Document document, String label, String stage) {
        Map<String, String> values = new HashMap<>();
        values.put("number", document.number());
        values.put("revision", label);
        values.put("status", stage);
        for (String empty : List.of("issued", "checked_by", "checked", "approved_by", "approved"))
            values.put(empty, "");
        return values;
    }

    private String day(Instant at) {
        return DAY.format(at.atZone(settings.zone()));
    }

    /**
     * Writes the values into the sheet of a document's head and makes it the next version.
     *
     * @param revision to which the version belongs
     * @param content of the head
     * @return its number; nothing when the content is no sheet that a map knows, or nothing on it changes
     */
    public Optional<Integer> write(
            Actor actor,
            Document document,
            long revision,
            StoredContent content,
            Map<String, String> values,
            String comment) {
        Optional<byte[]> signed = sheets.drawing(content);
        if (signed.isEmpty()) return Optional.empty();
        Optional<SheetMapStore.Edition> map = sheets.mapFor(signed.get());
        if (map.isEmpty()) return Optional.empty();
        Stamped stamped =
                SheetStamp.write(signed.get(), map.get().map(), values).orElseThrow(Refused::new);
        if (stamped.edits().isEmpty()) return Optional.empty();
        SheetStamp.prove(signed.get(), stamped.bytes(), map.get().map(), values).ifPresent(differs -> {
            throw new Refused(differs);
        });
        Instant now = clock.instant();
        StoredContent written = contents.keep(stamped.bytes());
        Map<String, String> facts = documents.facts(revision);
        long head = document.head().version();
        int number = documents.addVersion(
                new DocumentStore.NewVersion(
                        document.id(),
                        revision,
                        written.id(),
                        document.fileName(),
                        VersionDigest.of(written.hash(), facts),
                        comment,
                        actor.person(),
                        VersionRow.MadeBy.STAMPED,
                        Optional.of(head),
                        Optional.of(documents.substance(head)),
                        Optional.empty(),
                        facts),
                now);
        long version = documents.version(document.id(), number).orElseThrow().id();
        outputs.prove(
                new OutputStore.Proof(version, head, map.get().id(), stamped.signed(), stamped.hash(), values),
                stamped.edits());
        return Optional.of(number);
    }
}
