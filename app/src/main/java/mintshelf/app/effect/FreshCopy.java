package mintshelf.app.effect;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.KindFact;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.app.store.structure.Reference;
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
 * New documents that begin as what another one is: its file with a title block of its own, and its facts but for those that the kind
 * wants said anew, under a number of its own. Within the caller's transaction.
 */
@Component
public class FreshCopy {
    private static final int TRIES = 100;

    private final NewDocuments documents;
    private final DocumentStore files;
    private final VersionStore versions;
    private final HouseStore house;
    private final DrawNumbers draw;
    private final FreshFacts facts;
    private final FreshSheet sheet;
    private final SheetValues values;
    private final FreshTies ties;

    public FreshCopy(
            NewDocuments documents,
            DocumentStore files,
            VersionStore versions,
            HouseStore house,
            DrawNumbers draw,
            FreshFacts facts,
            FreshSheet sheet,
            SheetValues values,
            FreshTies ties) {
        this.documents = documents;
        this.files = files;
        this.versions = versions;
        this.house = house;
        this.draw = draw;
        this.facts = facts;
        this.sheet = sheet;
        this.values = values;
        this.ties = ties;
    }

    /** Why nothing new begins as a copy of this one; nothing when it can. Where it goes is asked apart. */
    public static Optional<Refusal> nothing(Seen from) {
        Document document = from.document();
        if (!from.spine().isChangePaper() && !document.dropped()) return Optional.empty();
        return Optional.of(Refusal.of(
                "copy.nothing",
                document.number() + (document.dropped() ? " was dropped." : " is a paper of a change."),
                "Name a document that is there."));
    }

    /** As {@link #nothing}, for a copy that lies beside it and is of its kind. */
    public Optional<Refusal> refusal(Actor actor, Seen from) {
        return nothing(from)
                .or(() -> actor.access().ask(Right.FILE, from.document().place()));
    }

    /** The number that a copy beside it would get now; empty where the series gives none. */
    public Optional<String> number(Seen from) {
        Document document = from.document();
        Kind kind = house.kind(document.place().kind());
        return number(kind, document.place().shelf(), facts.along(from, kind).kept());
    }

    /** The number that a new document would get now: others may draw it before. */
    public Optional<String> number(Kind kind, long shelf, Map<String, String> said) {
        return draw.ahead(kind, shelf, said, 1) instanceof Outcome.Granted<List<String>> ahead
                ? ahead.value().stream().findFirst()
                : Optional.empty();
    }

    /**
     * What a copy is made as.
     *
     * @param number empty for the next one of the series
     * @param said of its facts, by short name
     * @param comment on its first version
     */
    public record As(Kind kind, Folder folder, String number, String title, Map<String, String> said, String comment) {}

    /** A copy beside the other one, of its kind, with what goes along. */
    public As beside(Seen from, String number, String title, String comment) {
        Kind kind = house.kind(from.document().place().kind());
        Folder folder = from.spine().path().get(0);
        return new As(kind, folder, number, title, facts.along(from, kind).kept(), comment);
    }

    /**
     * What is in a copy where it is not what is in the other one.
     *
     * @param content before its title block is written
     * @param file what its file is called; without one as its number
     * @param refersTo what it refers to; without it what its names lead to from where it lies
     * @param derived whether it is a design of its own that was begun from the other one, and follows what becomes of it
     */
    public record Inside(
            StoredContent content, Optional<FileName> file, Optional<List<Reference>> refersTo, boolean derived) {}

    /**
     * Makes a document that begins as a version of another one that the actor sees. The caller asks whether they may file it
     * there.
     */
    public NewDocuments.Made make(Actor actor, Seen from, int version, As as) {
        VersionRow source = versions.version(from.document().id(), version).orElseThrow();
        return make(actor, from, source, as, new Inside(source.content(), Optional.empty(), Optional.empty(), false));
    }

    /** As {@link #make(Actor, Seen, int, As)}, with something else in it. */
    public NewDocuments.Made make(Actor actor, Seen from, VersionRow source, As as, Inside inside) {
        nothing(from).ifPresent(r -> {
            throw new Refused(r);
        });
        Document document = from.document();
        long shelf = as.folder().shelf();
        Map<KindFact, FactValue> kept = facts.read(actor, as.kind(), as.said());
        Map<String, String> texts = new LinkedHashMap<>();
        kept.forEach((fact, value) -> texts.put(fact.fact().name(), value.text()));
        NumberKey number =
                draw.take(actor.person(), as.kind(), shelf, as.number(), texts).orElseThrow(Refused::new);
        Optional<String> label = RevisionRules.firstLabel(
                        ShippedSeries.of(as.kind().revisionSeries()), as.kind().labelAtStart(), "")
                .orElseThrow(Refused::new);
        StoredContent content = sheet.written(
                as.kind(),
                inside.content(),
                texts,
                onSheet(as, number.number(), label, texts, facts.before(source.revision())),
                label.map(l -> Map.of(
                                "revision",
                                l,
                                "description",
                                "First release",
                                "date",
                                "",
                                "by",
                                actor.name(),
                                "approved",
                                ""))
                        .orElse(Map.of()));
        NewDocuments.Made made = documents.add(
                actor,
                new NewDocuments.New(
                        as.kind(),
                        as.folder(),
                        number,
                        as.title(),
                        inside.file()
                                .orElseGet(() -> fileName(
                                        as.folder().id(),
                                        number.number(),
                                        FileName.of(source.fileName()).extension())),
                        label,
                        "",
                        kept,
                        content,
                        as.comment()));
        ties.tie(actor, made, content, document.id(), source.id(), inside);
        ties.tell(
                actor,
                made,
                "made " + number.number() + " as a copy of " + document.number() + " version " + source.number(),
                as.comment());
        return made;
    }

    /** What its title block says: who it is, nobody's signature, and the facts that are not what they were. */
    private Map<String, String> onSheet(
            As as, String number, Optional<String> label, Map<String, String> now, Map<String, String> before) {
        Map<String, String> all = new HashMap<>(values.unsigned(
                number,
                label.orElse(""),
                house.latest(as.kind(), as.folder().shelf()).firstStage().name()));
        all.put("title", as.title());
        for (KindFact fact : facts.sheet(as.kind())) {
            String name = fact.fact().name();
            String wanted = now.getOrDefault(name, "");
            if (!wanted.equals(before.getOrDefault(name, ""))) all.putIfAbsent(name, wanted);
        }
        return all;
    }

    /** The number with the ending; with a figure behind it where a file of that name is there. */
    FileName fileName(long folder, String number, String extension) {
        String end = extension.isEmpty() ? "" : "." + extension;
        for (int i = 1; i < TRIES; i++) {
            FileName name = FileName.of(number + (i == 1 ? "" : " " + i) + end);
            if (!files.fileNameIsTaken(folder, name)) return name;
        }
        throw Refused.because(
                "file.name", "There are a hundred files named “" + number + "” here.", "Nothing was made.");
    }
}
