package mintshelf.app.use.revision;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.ListStore;
import mintshelf.app.store.document.RevisionRow;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.record.RecordStore;
import mintshelf.app.use.Actor;
import mintshelf.app.use.Acts;
import mintshelf.app.use.NotThere;
import mintshelf.app.use.Recorder;
import mintshelf.app.use.Refused;
import mintshelf.app.use.Seen;
import mintshelf.app.use.Sight;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
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
import org.springframework.stereotype.Service;

/** Revisions: start the next one, drop a pending one, move along the route. */
@Service
public class Revisions {
    private final Sight sight;
    private final DocumentStore documents;
    private final HoldStore holds;
    private final HouseStore house;
    private final ListStore lists;
    private final RecordStore record;
    private final Acts acts;
    private final Recorder recorder;
    private final Clock clock;

    public Revisions(
            Sight sight,
            DocumentStore documents,
            HoldStore holds,
            HouseStore house,
            ListStore lists,
            RecordStore record,
            Acts acts,
            Recorder recorder,
            Clock clock) {
        this.sight = sight;
        this.documents = documents;
        this.holds = holds;
        this.house = house;
        this.lists = lists;
        this.record = record;
        this.acts = acts;
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

    /** What is in the way of starting the next revision. */
    public static Optional<Refusal> startRefusal(Actor actor, Document document) {
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

    /** Starts the next revision of the documents and, in the same act, checks them out. All of them or none. */
    public String start(
            Actor actor, Collection<Long> items, String key, String reason, String details, boolean checkOut) {
        String why = Texts.required("The reason", reason, 200).orElseThrow(Refused::new);
        String more = Texts.optionalLines("The details", details, 10_000).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            List<Seen> all = sight.locked(actor, items);
            List<String> refused = new ArrayList<>();
            for (Seen seen : all) {
                if (!seen.all()) throw new NotThere();
                startRefusal(actor, seen.document()).ifPresent(r -> refused.add(r.says()));
            }
            if (!refused.isEmpty()) {
                throw Refused.because("revision.refused", String.join(" ", refused), "No revision was started.");
            }
            for (Seen seen : all) startOne(actor, seen.document(), why, more, checkOut);
            return all.size() == 1
                    ? "/documents/" + all.get(0).spine().id() + (checkOut ? "?taken" : "")
                    : "/today" + (checkOut ? "?taken" : "");
        });
    }

    private void startOne(Actor actor, Document document, String why, String details, boolean checkOut) {
        Instant now = clock.instant();
        Kind kind = house.kind(document.place().kind());
        Route route = house.latest(kind.route());
        Optional<String> label = kind.labelAtStart() ? Optional.of(nextLabel(document)) : Optional.empty();
        long revision =
                documents.startRevision(document.id(), label, route.firstStage(), actor.person(), why, details, now);
        documents.copyFacts(document.released().orElseThrow().id(), revision);
        documents.touch(document.id(), now);
        lists.noteRecent(actor.person(), document.id(), "started revision", now);
        recorder.note(
                actor,
                document.id(),
                "revision.started",
                label.map(l -> "started revision " + l).orElse("started the next revision"),
                why);
        if (checkOut) {
            holds.take(document, document.head().version(), actor.person(), "", why, now);
            recorder.note(
                    actor,
                    document.id(),
                    "hold.taken",
                    document.head().number(),
                    "checked out version " + document.head().number(),
                    why);
        }
    }

    /** Drops the pending revision: the released one is what everybody works from again; the versions stay in history. */
    public String drop(Actor actor, long item, String key, int expectedVersion, String reason) {
        String why = Texts.required("The reason", reason, 500).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            Seen seen = sight.locked(actor, item);
            if (!seen.all()) throw new NotThere();
            Sight.expectVersion(seen, expectedVersion);
            Document document = seen.document();
            dropRefusal(actor, document).ifPresent(r -> {
                throw new Refused(r);
            });
            Instant now = clock.instant();
            Revision pending = document.pending().orElseThrow();
            document.holder().ifPresent(h -> holds.end(h.hold(), HoldStore.Ending.DROPPED, actor.person(), why, now));
            Route route = house.edition(pending.stage().edition());
            boolean free = labelIsFree(item, pending);
            documents.dropRevision(
                    pending.id(), route.firstOf(StageClass.CLOSED).orElseThrow(), free, now);
            long released = documents.revisions(item).stream()
                    .filter(r -> r.revision().released())
                    .map(r -> r.releasedVersion().orElseThrow())
                    .map(n -> documents.version(item, n).orElseThrow().id())
                    .findFirst()
                    .orElseThrow();
            documents.setHead(document.line(), released);
            documents.touch(item, now);
            recorder.note(
                    actor,
                    item,
                    "revision.dropped",
                    "dropped revision " + pending.shown()
                            + (free ? "; its label is free again" : "; its label stays used"),
                    why);
            return "/documents/" + item;
        });
    }

    /** What is in the way of dropping the pending revision. */
    public static Optional<Refusal> dropRefusal(Actor actor, Document document) {
        Optional<Refusal> missing = actor.access().ask(Right.CHANGE, document.place());
        if (missing.isPresent()) return missing;
        if (document.pending().isEmpty()) {
            return Optional.of(Refusal.of("revision.none", "No revision of " + document.number() + " is pending.", ""));
        }
        if (document.released().isEmpty()) {
            return Optional.of(Refusal.of(
                    "revision.first",
                    document.number() + " has no released revision to go back to.",
                    "Drop the document instead, if it was filed by mistake."));
        }
        if (document.pending().get().stage().stageClass() != StageClass.PREPARING) {
            return Optional.of(
                    Refusal.of("stage.deciding", document.number() + " is being decided on.", "Take it back first."));
        }
        return document.holder()
                .filter(h -> h.person() != actor.person())
                .map(h -> Refusal.of(
                        "hold.taken",
                        document.number() + " is held by " + h.name() + ".",
                        "Ask " + h.name() + " first."));
    }

    /** A label is free again when nobody but who started the revision has made or fetched a version of it. */
    private boolean labelIsFree(long item, Revision pending) {
        RevisionRow row = documents.revisions(item).stream()
                .filter(r -> r.revision().id() == pending.id())
                .findFirst()
                .orElseThrow();
        List<Integer> numbers = documents.versions(item).stream()
                .filter(v -> v.revision() == pending.id())
                .map(v -> v.number())
                .toList();
        return !documents.othersWorkedOn(pending.id(), row.startedById())
                && !record.wasFetchedByOthers(item, numbers, row.startedById());
    }

    /** Moves a document along its route, with all effects of the move. */
    public String move(Actor actor, long item, String key, String moveCode, int expectedVersion, String remark) {
        String why = Texts.optional("The remark", remark, 500).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            Seen seen = sight.locked(actor, item);
            if (!seen.all()) throw new NotThere();
            Sight.expectVersion(seen, expectedVersion);
            Document document = seen.document();
            Route route = house.edition(document.current().stage().edition());
            Move move = route.move(moveCode).orElseThrow(NotThere::new);
            List<Refusal> inTheWay = MoveRules.ask(move, document, actor.access(), emptyFacts(document));
            if (!inTheWay.isEmpty()) {
                throw Refused.because(
                        inTheWay.get(0).code(),
                        String.join(" ", inTheWay.stream().map(Refusal::says).toList()),
                        "It stays where it is.");
            }
            if (MoveRules.asksReason(route, move) && why.isEmpty()) {
                throw Refused.because("move.reason", move.name() + " needs a reason.", "Others read it.");
            }
            carryOut(actor, document, route, move, why);
            return "/documents/" + item;
        });
    }

    private List<String> emptyFacts(Document document) {
        var values = documents.facts(document.current().id());
        return house.factSheets().getOrDefault(document.place().kind(), List.of()).stream()
                .filter(f -> f.required() != mintshelf.app.store.house.KindFact.Required.NEVER)
                .filter(f -> !values.containsKey(f.fact().name()))
                .map(f -> f.fact().label())
                .toList();
    }

    private void carryOut(Actor actor, Document document, Route route, Move move, String why) {
        Instant now = clock.instant();
        Revision revision = MoveRules.revision(move, document).orElseThrow();
        String label = revision.label().orElse("");
        if (move.effects().contains(Effect.FIX_LABEL) && label.isEmpty()) {
            label = nextLabel(document);
            documents.fixLabel(revision.id(), label);
        }
        if (move.effects().contains(Effect.SUPERSEDE_FORMER)) {
            // First the former one leaves, then this one enters: the database lets one be in force at a time.
            document.released().ifPresent(former -> supersede(actor, document, former, now));
        }
        StageClass to = route.stage(move.to()).stageClass();
        documents.setStage(revision.id(), route.stage(move.to()), now);
        if (to == StageClass.RELEASED)
            documents.noteRelease(revision.id(), document.head().version(), now);
        documents.touch(document.id(), now);
        lists.noteRecent(actor.person(), document.id(), "moved", now);
        recorder.note(
                actor,
                document.id(),
                "revision." + move.to(),
                document.head().number(),
                switch (to) {
                    case RELEASED ->
                        "released revision " + label + " with version "
                                + document.head().number();
                    case WITHDRAWN -> "withdrew revision " + label;
                    default ->
                        "moved revision " + label + " to "
                                + route.stage(move.to()).name();
                },
                why);
    }

    private void supersede(Actor actor, Document document, Revision former, Instant now) {
        Route route = house.edition(former.stage().edition());
        documents.setStage(former.id(), route.firstOf(StageClass.SUPERSEDED).orElseThrow(), now);
        recorder.note(actor, document.id(), "revision.superseded", "superseded revision " + former.shown(), "");
    }
}
