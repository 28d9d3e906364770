package mintshelf.app.effect;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.ListStore;
import mintshelf.app.store.document.Spine;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.KindFact;
import mintshelf.app.store.output.OutputStore;
import mintshelf.app.store.structure.ReferenceStore;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.Document;
import mintshelf.core.document.Revision;
import mintshelf.core.revision.RevisionRules;
import mintshelf.core.revision.RevisionSeries;
import mintshelf.core.revision.ShippedSeries;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Move;
import mintshelf.core.route.MoveRules;
import mintshelf.core.route.Route;
import mintshelf.core.signoff.Round;
import org.springframework.stereotype.Component;

/** Carries out moves along a route with all their effects, within the caller's transaction; that they open was asked before. */
@Component
public class Moves {
    /** How a released sheet becomes a PDF; a new recipe makes new outputs beside the old ones. */
    public static final String PDF_RECIPE = "sheet-1";

    private final DocumentStore documents;
    private final HouseStore house;
    private final ListStore lists;
    private final OutputStore outputs;
    private final SheetWriter sheets;
    private final ReferenceStore references;
    private final Recorder recorder;
    private final Clock clock;

    public Moves(
            DocumentStore documents,
            HouseStore house,
            ListStore lists,
            OutputStore outputs,
            SheetWriter sheets,
            ReferenceStore references,
            Recorder recorder,
            Clock clock) {
        this.documents = documents;
        this.house = house;
        this.lists = lists;
        this.outputs = outputs;
        this.sheets = sheets;
        this.references = references;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** The label that the next revision of a document gets, or why there is none. */
    public String nextLabel(Document document) {
        Kind kind = house.kind(document.place().kind());
        RevisionSeries series = ShippedSeries.of(kind.revisionSeries());
        return RevisionRules.nextLabel(series, documents.usedLabels(document.id()))
                .orElseThrow(Refused::new);
    }

    /** Labels of the facts that a document's kind requires for release and its current revision lacks. */
    public List<String> emptyFacts(Document document) {
        Map<String, String> values = documents.facts(document.current().id());
        return house.factSheets().getOrDefault(document.place().kind(), List.of()).stream()
                .filter(f -> f.required() != KindFact.Required.NEVER)
                .filter(f -> !values.containsKey(f.fact().name()))
                .map(f -> f.fact().label())
                .toList();
    }

    /**
     * Starts the next revision of a released document; where its label is reserved now, the sheet shows it at once.
     *
     * @return the new revision's id
     */
    public long start(Actor actor, Document document, String why, String details) {
        Instant now = clock.instant();
        Kind kind = house.kind(document.place().kind());
        Route route = house.latest(kind.route());
        Optional<String> label = kind.labelAtStart() ? Optional.of(nextLabel(document)) : Optional.empty();
        long revision =
                documents.startRevision(document.id(), label, route.firstStage(), actor.person(), why, details, now);
        documents.copyFacts(document.released().orElseThrow().id(), revision);
        boolean written = route.moves().stream().anyMatch(m -> m.does(Effect.WRITE_SHEET));
        if (label.isPresent() && written) {
            Spine spine = documents.spine(document.id()).orElseThrow();
            sheets.write(
                    actor,
                    document,
                    revision,
                    spine.content(),
                    sheets.unsigned(document, label.get(), route.firstStage().name()),
                    "title block shows revision " + label.get());
        }
        documents.touch(document.id(), now);
        lists.noteRecent(actor.person(), document.id(), "started revision", now);
        recorder.note(
                actor,
                document.id(),
                "revision.started",
                label.map(l -> "started revision " + l).orElse("started the next revision"),
                why);
        return revision;
    }

    /**
     * Makes a move with its effects.
     *
     * @param signed the round whose last sign-off makes it; empty for a move by hand
     */
    public void carryOut(Actor actor, Document document, Route route, Move move, String why, Optional<Round> signed) {
        Instant now = clock.instant();
        Revision revision = MoveRules.revision(move, document).orElseThrow();
        String label = revision.label().orElse("");
        if (move.does(Effect.FIX_LABEL) && label.isEmpty()) {
            label = nextLabel(document);
            documents.fixLabel(revision.id(), label);
        }
        if (move.does(Effect.SUPERSEDE_FORMER)) {
            // First the former one leaves, then this one enters: the database lets one be in force at a time.
            document.released().ifPresent(former -> supersede(actor, document, former, now));
        }
        VersionRow out =
                documents.version(document.id(), document.head().number()).orElseThrow();
        int signedNumber = out.number();
        if (move.does(Effect.WRITE_SHEET)) {
            Optional<Integer> written = sheets.write(
                    actor,
                    document,
                    revision.id(),
                    out.content(),
                    sheets.released(document, label, route.stage(move.to()).name(), signed),
                    "title block written from the record");
            if (written.isPresent())
                out = documents.version(document.id(), written.get()).orElseThrow();
        }
        StageClass to = route.stage(move.to()).stageClass();
        documents.setStage(revision.id(), route.stage(move.to()), now);
        if (to == StageClass.RELEASED) {
            documents.noteRelease(revision.id(), out.id(), now);
            references.freeze(revision.id(), out.id());
        }
        if (move.does(Effect.MAKE_PDF) && out.content().kind() == ContentKind.DXF) {
            outputs.want(out.id(), "PDF", PDF_RECIPE, now);
        }
        documents.touch(document.id(), now);
        lists.noteRecent(actor.person(), document.id(), "moved", now);
        String written = out.number() == signedNumber
                ? silent(route, move, out.content())
                        .map(silent -> "; nothing was written into the sheet: " + silent)
                        .orElse("")
                : ", written from version " + signedNumber;
        recorder.note(
                actor,
                document.id(),
                "revision." + move.to(),
                out.number(),
                switch (to) {
                    case RELEASED ->
                        label.isEmpty()
                                ? "is " + route.stage(move.to()).name().toLowerCase(java.util.Locale.ROOT)
                                        + " with version " + out.number()
                                : "released revision " + label + " with version " + out.number() + written
                                        + (signed.isEmpty() ? "" : ", by the last sign-off of its round");
                    case WITHDRAWN -> "withdrew revision " + label;
                    default ->
                        "moved " + (label.isEmpty() ? "it" : "revision " + label) + " to "
                                + route.stage(move.to()).name();
                },
                why);
    }

    /** Why a move that releases writes nothing into a sheet that it is meant to write into; else empty. */
    public Optional<String> silent(Route route, Move move, StoredContent content) {
        boolean writes = move.does(Effect.WRITE_SHEET) && route.stage(move.to()).stageClass() == StageClass.RELEASED;
        return writes ? sheets.silent(content) : Optional.empty();
    }

    private void supersede(Actor actor, Document document, Revision former, Instant now) {
        Route route = house.edition(former.stage().edition());
        documents.setStage(former.id(), route.firstOf(StageClass.SUPERSEDED).orElseThrow(), now);
        recorder.note(actor, document.id(), "revision.superseded", "superseded revision " + former.shown(), "");
    }
}
