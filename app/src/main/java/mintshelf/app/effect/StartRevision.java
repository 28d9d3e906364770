package mintshelf.app.effect;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.ChangeControl;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.revision.RevisionRules;
import mintshelf.core.revision.RevisionSeries;
import mintshelf.core.revision.ShippedSeries;
import mintshelf.core.route.Route;
import org.springframework.stereotype.Component;

/** Starts revisions, within the caller's transaction; that they may start was asked before. */
@Component
public class StartRevision {
    private final DocumentStore documents;
    private final FactStore facts;
    private final FreezeBom bom;
    private final RevisionStore revisions;
    private final HouseStore house;
    private final Started started;
    private final Recorder recorder;
    private final Clock clock;

    public StartRevision(
            DocumentStore documents,
            FactStore facts,
            FreezeBom bom,
            RevisionStore revisions,
            HouseStore house,
            Started started,
            Recorder recorder,
            Clock clock) {
        this.documents = documents;
        this.facts = facts;
        this.bom = bom;
        this.revisions = revisions;
        this.house = house;
        this.started = started;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** What is in the way of starting the next revision of a document by hand; nothing when it may. */
    public static Optional<Refusal> refusal(Actor actor, Seen seen, ChangeControl.Now control) {
        return stands(actor, seen.document()).or(() -> control.refusal(actor, seen.spine()));
    }

    private static Optional<Refusal> stands(Actor actor, Document document) {
        Optional<Refusal> missing = actor.access().ask(Right.CHANGE, document.place());
        if (missing.isPresent()) return missing;
        if (document.pending().isPresent()) {
            return Optional.of(Refusal.of(
                    "revision.pending",
                    "Revision " + document.pending().get().shown() + " of " + document.number() + " is under way.",
                    "Work on that one."));
        }
        if (document.released().isEmpty()) {
            return Optional.of(Refusal.of(
                    "revision.not_released", document.number() + " has no released revision to start from.", ""));
        }
        return document.holder()
                .map(h -> Refusal.of(
                        "hold.taken",
                        document.number() + " is held by " + h.name() + ".",
                        "Ask " + h.name() + " first."));
    }

    /** The labels that are usual next for a document. */
    public List<String> steps(Document document) {
        Kind kind = house.kind(document.place().kind());
        return RevisionRules.steps(ShippedSeries.of(kind.revisionSeries()), revisions.usedLabels(document.id()));
    }

    /** Whether a document's label is taken when work starts. */
    public boolean isLabelAtStart(Document document) {
        return house.kind(document.place().kind()).labelAtStart();
    }

    private String label(Kind kind, Document document, Optional<String> wanted) {
        if (wanted.isEmpty()) return nextLabel(document);
        RevisionSeries series = ShippedSeries.of(kind.revisionSeries());
        return RevisionRules.skipTo(series, revisions.usedLabels(document.id()), wanted.get())
                .orElseThrow(Refused::new);
    }

    /** The label that the next revision of a document gets, or why there is none. */
    public String nextLabel(Document document) {
        Kind kind = house.kind(document.place().kind());
        RevisionSeries series = ShippedSeries.of(kind.revisionSeries());
        return RevisionRules.nextLabel(series, revisions.usedLabels(document.id()))
                .orElseThrow(Refused::new);
    }

    /**
     * Starts the next revision of a released document; where its label is reserved now, the sheet shows it at once.
     *
     * @return the new revision's id
     */
    public long start(Actor actor, Document document, String why, String details) {
        return start(actor, document, why, details, Optional.empty());
    }

    /**
     * As {@link #start(Actor, Document, String, String)}, under another label than the next one.
     *
     * @param wanted a label that comes later; empty for the next one
     */
    public long start(Actor actor, Document document, String why, String details, Optional<String> wanted) {
        Instant now = clock.instant();
        Kind kind = house.kind(document.place().kind());
        Route route = house.latest(kind, document.place().shelf());
        Optional<String> label = kind.labelAtStart() ? Optional.of(label(kind, document, wanted)) : Optional.empty();
        String skipped = label.filter(l -> wanted.isPresent() && !l.equals(nextLabel(document)))
                .map(l -> ", skipping " + nextLabel(document))
                .orElse("");
        long revision =
                revisions.startRevision(document.id(), label, route.firstStage(), actor.person(), why, details, now);
        facts.copyFacts(document.released().orElseThrow().id(), revision);
        bom.goesOn(document.released().orElseThrow().id(), revision);
        label.ifPresent(l -> started.stamp(actor, document, revision, l, route));
        documents.touch(document.id(), now);
        recorder.recent(actor, document.id(), "started revision");
        String says = label.map(l -> "started revision " + l + skipped).orElse("started the next revision");
        recorder.note(actor, document.id(), "revision.started", says, why);
        started.tell(actor, document, says, why);
        return revision;
    }
}
