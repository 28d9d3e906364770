package mintshelf.app.use.filing;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.DrawNumbers;
import mintshelf.app.effect.FactPresets;
import mintshelf.app.effect.ReserveNumbers;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.FactNames;
import mintshelf.app.sight.Places;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.filing.FilingStore.Filing;
import mintshelf.app.store.filing.FilingStore.Row;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.KindFact;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.FileName;
import mintshelf.core.fact.FactReader;
import mintshelf.core.fact.FactValue;
import mintshelf.core.fact.RequiredAt;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.revision.RevisionRules;
import mintshelf.core.revision.ShippedSeries;
import org.springframework.stereotype.Component;

/** Whether a row of a filing sheet can become a document, and which. */
@Component
public class CheckRows {
    private final DocumentStore documents;
    private final DrawNumbers draw;
    private final ReserveNumbers reserved;
    private final HouseStore house;
    private final ShelfStore shelves;
    private final FactNames names;
    private final FactPresets presets;
    private final StandsAs stands;
    private final Sight sight;

    public CheckRows(
            DocumentStore documents,
            DrawNumbers draw,
            ReserveNumbers reserved,
            HouseStore house,
            ShelfStore shelves,
            FactNames names,
            FactPresets presets,
            StandsAs stands,
            Sight sight) {
        this.stands = stands;
        this.sight = sight;
        this.documents = documents;
        this.draw = draw;
        this.reserved = reserved;
        this.house = house;
        this.shelves = shelves;
        this.names = names;
        this.presets = presets;
    }

    static void refuse(Map<Long, List<Refusal>> problems, Row row, String code, String why, String remedy) {
        problems.computeIfAbsent(row.id(), r -> new ArrayList<>()).add(Refusal.of(code, why, remedy));
    }

    /**
     * What a row becomes, or all that is in its way.
     *
     * @param upload its file
     * @param problems by row; what is in the way is added
     */
    Optional<ReadyRow> ready(
            Actor actor,
            Filing filing,
            Row row,
            Upload upload,
            Map<Long, List<KindFact>> factSheets,
            Map<Long, List<Refusal>> problems) {
        if (upload.state() != Upload.State.COMPLETE) {
            refuse(problems, row, "upload.gone", "Its bytes were not kept that long.", "Drop the file again.");
            return Optional.empty();
        }
        if (row.kind().isEmpty()) {
            refuse(problems, row, "filing.kind", "No kind is chosen.", "Choose what this document is.");
            return Optional.empty();
        }
        Kind kind = house.kind(row.kind().get());
        Folder above = shelves.folder(row.folder())
                .filter(f -> f.shelf() == filing.shelf())
                .orElseThrow(NotThere::new);
        // Made with what lies in it: what is refused in the end was never there.
        Folder folder = row.path().isEmpty()
                ? above
                : shelves.below(above, List.of(row.path()), true).get(row.path());
        Place place = Places.of(shelves, folder, kind.id());
        actor.access()
                .ask(Right.FILE, place)
                .ifPresent(r -> problems.computeIfAbsent(row.id(), x -> new ArrayList<>())
                        .add(r));
        Outcome<String> title = Texts.required("The title", row.title(), 200);
        title.refusal()
                .ifPresent(r -> problems.computeIfAbsent(row.id(), x -> new ArrayList<>())
                        .add(r));
        Map<KindFact, FactValue> facts = facts(actor, row, factSheets.getOrDefault(kind.id(), List.of()), problems);
        FileName file = FileName.of(upload.fileName());
        if (documents.fileNameIsTaken(folder.id(), file)) {
            refuse(
                    problems,
                    row,
                    "file.name",
                    "A file named “" + file.name() + "” is in this folder already.",
                    "Choose another folder, or leave the row out.");
        }
        boolean out = row.origin().released();
        if (out) {
            stands.refusal(actor, kind, filing.shelf())
                    .ifPresent(r -> problems.computeIfAbsent(row.id(), x -> new ArrayList<>())
                            .add(r));
        }
        Optional<Long> from = row.origin().startedFrom();
        if (from.isPresent() && sight.of(actor, List.of(from.get())).isEmpty()) {
            refuse(
                    problems,
                    row,
                    "filing.from",
                    "What it was started from is not there for you.",
                    "Take the tick away.");
        }
        Optional<NumberKey> number = number(actor, filing, kind, row, facts, problems);
        Outcome<Optional<String>> label = RevisionRules.firstLabel(
                ShippedSeries.of(kind.revisionSeries()),
                kind.labelAtStart() || row.origin().released(),
                row.revision());
        label.refusal()
                .ifPresent(r -> problems.computeIfAbsent(row.id(), x -> new ArrayList<>())
                        .add(r));
        if (number.isEmpty() || problems.containsKey(row.id())) return Optional.empty();
        return Optional.of(new ReadyRow(
                row,
                kind,
                folder,
                place,
                number.get(),
                title.orElseThrow(Refused::new),
                label.orElseThrow(Refused::new),
                file,
                facts));
    }

    private Map<KindFact, FactValue> facts(
            Actor actor, Row row, List<KindFact> sheet, Map<Long, List<Refusal>> problems) {
        Map<KindFact, FactValue> values = new LinkedHashMap<>();
        Map<String, String> said = presets.said(actor.login(), sheet, row.facts());
        for (KindFact fact : sheet) {
            Outcome<Optional<FactValue>> read =
                    FactReader.read(fact.fact(), said.getOrDefault(fact.fact().name(), ""), names.of(actor));
            read.refusal()
                    .ifPresent(r -> problems.computeIfAbsent(row.id(), x -> new ArrayList<>())
                            .add(r));
            if (!(read instanceof Outcome.Granted<Optional<FactValue>> granted)) continue;
            granted.value().ifPresent(v -> values.put(fact, v));
            if (granted.value().isEmpty() && fact.required() == RequiredAt.FILING) {
                refuse(
                        problems,
                        row,
                        "fact.missing",
                        fact.fact().label() + " is empty.",
                        "Its kind needs it from the start.");
            }
        }
        return values;
    }

    /** The number that is kept for the row, the typed or read one when it is free, else the next of the series. */
    private Optional<NumberKey> number(
            Actor actor,
            Filing filing,
            Kind kind,
            Row row,
            Map<KindFact, FactValue> facts,
            Map<Long, List<Refusal>> problems) {
        Map<String, String> words = new LinkedHashMap<>();
        facts.forEach((fact, value) -> words.put(fact.fact().name(), value.text()));
        Optional<NumberKey> kept = reserved.take(row.id(), row.number(), kind, filing.shelf(), words);
        if (kept.isPresent()) return kept;
        Outcome<NumberKey> taken = draw.take(actor.person(), kind, filing.shelf(), row.number(), words);
        taken.refusal()
                .ifPresent(r -> problems.computeIfAbsent(row.id(), x -> new ArrayList<>())
                        .add(r));
        return taken instanceof Outcome.Granted<NumberKey> number ? Optional.of(number.value()) : Optional.empty();
    }

    /** Gives back the numbers that are kept for rows of which no document was made. */
    void giveBack(Actor actor, List<Row> rows) {
        reserved.giveBack(actor.person(), rows.stream().map(Row::id).toList());
    }

    /** The facts of every kind. */
    Map<Long, List<KindFact>> factSheets() {
        return house.factSheets();
    }
}
