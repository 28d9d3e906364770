package mintshelf.app.effect;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.KindFact;
import mintshelf.core.access.Right;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.document.FileName;
import mintshelf.core.fact.FactValue;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.revision.RevisionRules;
import mintshelf.core.revision.ShippedSeries;
import org.springframework.stereotype.Component;

/**
 * New documents that begin as what another one is: the same file, kind, folder and facts under a number of their own. Only of files that
 * stand by themselves. Within the caller's transaction.
 */
@Component
public class FreshCopy {
    private static final int TRIES = 100;

    private final NewDocuments documents;
    private final DocumentStore files;
    private final VersionStore versions;
    private final FactStore facts;
    private final References references;
    private final HouseStore house;
    private final DrawNumbers draw;
    private final Recorder recorder;

    public FreshCopy(
            NewDocuments documents,
            DocumentStore files,
            VersionStore versions,
            FactStore facts,
            References references,
            HouseStore house,
            DrawNumbers draw,
            Recorder recorder) {
        this.documents = documents;
        this.files = files;
        this.versions = versions;
        this.facts = facts;
        this.references = references;
        this.house = house;
        this.draw = draw;
        this.recorder = recorder;
    }

    /** Why nothing new begins as a copy of this one; nothing when it can. */
    public Optional<Refusal> refusal(Actor actor, Seen from) {
        Document document = from.document();
        if (from.spine().isChangePaper() || document.dropped()) {
            return Optional.of(Refusal.of(
                    "copy.nothing",
                    document.number() + (document.dropped() ? " was dropped." : " is a paper of a change."),
                    "Name a document that is there."));
        }
        Optional<Refusal> missing = actor.access().ask(Right.FILE, document.place());
        if (missing.isPresent()) return missing;
        boolean refers = versions.version(document.id(), from.version())
                .map(v -> !references.of(v.id()).isEmpty())
                .orElse(true);
        return refers
                ? Optional.of(Refusal.of(
                        "copy.refers",
                        document.number() + " refers to other files.",
                        "File the new one from your desk, and add it to the order; or name one that stands by itself."))
                : Optional.empty();
    }

    /** The number that a copy would get now; empty where the series gives none. */
    public Optional<String> number(Seen from) {
        Document document = from.document();
        return draw.ahead(
                                kind(document),
                                document.place().shelf(),
                                facts.facts(from.current().id()),
                                1)
                        instanceof Outcome.Granted<List<String>> ahead
                ? ahead.value().stream().findFirst()
                : Optional.empty();
    }

    private Kind kind(Document document) {
        return house.kind(document.place().kind());
    }

    /**
     * Makes a document that begins as what the actor sees of another one.
     *
     * @param wanted its number; empty for the next one of the series
     * @return its id
     */
    public long make(Actor actor, Seen from, String wanted, String title, String comment) {
        refusal(actor, from).ifPresent(r -> {
            throw new Refused(r);
        });
        Document document = from.document();
        Kind kind = kind(document);
        long shelf = document.place().shelf();
        Map<String, FactValue> values = facts.values(from.current().id());
        Map<String, String> texts = new LinkedHashMap<>();
        values.forEach((name, value) -> texts.put(name, value.text()));
        Map<KindFact, FactValue> kept = new LinkedHashMap<>();
        for (KindFact fact : house.factSheets().getOrDefault(kind.id(), List.of())) {
            FactValue value = values.get(fact.fact().name());
            if (value != null) kept.put(fact, value);
        }
        NumberKey number = draw.take(actor.person(), kind, shelf, wanted, texts).orElseThrow(Refused::new);
        long folder = from.spine().path().get(from.spine().path().size() - 1).id();
        NewDocuments.Made made = documents.add(
                actor,
                new NewDocuments.New(
                        kind,
                        from.spine().path().get(from.spine().path().size() - 1),
                        number,
                        title,
                        fileName(
                                folder,
                                number.number(),
                                FileName.of(document.fileName()).extension()),
                        RevisionRules.firstLabel(ShippedSeries.of(kind.revisionSeries()), kind.labelAtStart(), "")
                                .orElseThrow(Refused::new),
                        "Begun as a copy of " + document.number() + " version " + from.version(),
                        kept,
                        versions.version(document.id(), from.version())
                                .orElseThrow()
                                .content(),
                        comment));
        recorder.recent(actor, made.item(), "made");
        recorder.note(
                actor,
                made.item(),
                "version.added",
                made.number(),
                "made " + number.number() + " as a copy of " + document.number() + " version " + from.version() + ", "
                        + comment,
                "");
        return made.item();
    }

    /** The number with the ending; with a figure behind it where a file of that name is there. */
    private FileName fileName(long folder, String number, String extension) {
        String end = extension.isEmpty() ? "" : "." + extension;
        for (int i = 1; i < TRIES; i++) {
            FileName name = FileName.of(number + (i == 1 ? "" : " " + i) + end);
            if (!files.fileNameIsTaken(folder, name)) return name;
        }
        throw Refused.because(
                "file.name", "There are a hundred files named “" + number + "” here.", "Nothing was made.");
    }
}
