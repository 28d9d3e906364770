package mintshelf.app.use.revision;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.Bundles;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.StartRevision;
import mintshelf.app.effect.Telling;
import mintshelf.app.effect.deed.Setting;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.OrderStore;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.RevisionRow;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.record.RecordStore;
import mintshelf.app.store.round.RoundStore;
import mintshelf.core.access.Right;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Document;
import mintshelf.core.document.Revision;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.By;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Move;
import mintshelf.core.route.Route;
import mintshelf.core.route.Way;
import mintshelf.core.signoff.Round;
import mintshelf.core.signoff.SignOff;
import org.springframework.stereotype.Service;

/** Revisions: start the next one, drop a pending one, move along the route. */
@Service
public class Revisions {
    private final Sight sight;
    private final DocumentStore documents;
    private final VersionStore versions;
    private final RevisionStore revisions;
    private final SpineStore spines;
    private final HoldStore holds;
    private final HouseStore house;
    private final RoundStore rounds;
    private final OrderStore orders;
    private final StartRevision start;
    private final Bundles bundles;
    private final Telling telling;
    private final RecordStore record;
    private final Acts acts;
    private final Recorder recorder;
    private final Clock clock;

    public Revisions(
            Sight sight,
            DocumentStore documents,
            VersionStore versions,
            RevisionStore revisions,
            SpineStore spines,
            HoldStore holds,
            HouseStore house,
            RoundStore rounds,
            OrderStore orders,
            StartRevision start,
            Bundles bundles,
            Telling telling,
            RecordStore record,
            Acts acts,
            Recorder recorder,
            Clock clock) {
        this.sight = sight;
        this.documents = documents;
        this.versions = versions;
        this.revisions = revisions;
        this.spines = spines;
        this.holds = holds;
        this.house = house;
        this.rounds = rounds;
        this.orders = orders;
        this.start = start;
        this.bundles = bundles;
        this.telling = telling;
        this.record = record;
        this.acts = acts;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** The label that the next revision of a document gets, or why there is none. */
    public String nextLabel(Document document) {
        return start.nextLabel(document);
    }

    /** Why a move of a document writes nothing into its sheet, though it is meant to; else empty. */
    public Optional<String> silent(Seen seen, Route route, Move move) {
        return bundles.silent(route, move, seen.spine().content());
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
        start.start(actor, document, why, details);
        if (!checkOut) return;
        Document started = spines.spine(document.id()).orElseThrow().document();
        holds.take(List.of(started), actor.person(), "", why, clock.instant());
        recorder.note(
                actor,
                document.id(),
                "hold.taken",
                started.head().number(),
                "checked out version " + started.head().number(),
                why);
    }

    /** Drops the pending revision: the released one is what everybody works from again; the versions stay in history. */
    public String drop(Actor actor, long item, String key, int expectedVersion, String reason) {
        String why = Texts.required("The reason", reason, 500).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            Seen seen = sight.locked(actor, item);
            if (!seen.all()) throw new NotThere();
            Sight.expectVersion(seen, expectedVersion);
            Document document = seen.document();
            Optional.ofNullable(orders.open(List.of(item)).get(item)).ifPresent(on -> {
                throw Refused.because(
                        "order.goes_with",
                        document.number() + " is on " + on.number() + ".",
                        "Stop the order first; nothing was dropped.");
            });
            dropRefusal(actor, document).ifPresent(r -> {
                throw new Refused(r);
            });
            Instant now = clock.instant();
            Revision pending = document.pending().orElseThrow();
            document.holder().ifPresent(h -> holds.end(h.hold(), HoldStore.Ending.DROPPED, actor.person(), why, now));
            Route route = house.edition(pending.stage().edition());
            boolean free = labelIsFree(item, pending);
            revisions.dropRevision(
                    pending.id(), route.firstOf(StageClass.CLOSED).orElseThrow(), free, now);
            long released = revisions.revisions(item).stream()
                    .filter(r -> r.revision().released())
                    .map(r -> r.releasedVersion().orElseThrow())
                    .map(n -> versions.version(item, n).orElseThrow().id())
                    .findFirst()
                    .orElseThrow();
            documents.setHead(item, document.line(), released);
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

    /** A label is free again when nobody but who started the revision has made, fetched or been asked about a version of it. */
    private boolean labelIsFree(long item, Revision pending) {
        RevisionRow row = revisions.revisions(item).stream()
                .filter(r -> r.revision().id() == pending.id())
                .findFirst()
                .orElseThrow();
        List<Integer> numbers = versions.versions(item).stream()
                .filter(v -> v.revision() == pending.id())
                .map(v -> v.number())
                .toList();
        return !rounds.named(pending.id())
                && !orders.names(pending.id())
                && !revisions.othersWorkedOn(pending.id(), row.startedById())
                && !record.wasFetchedByOthers(item, numbers, row.startedById());
    }

    /** Moves a document along its route, with all effects of the move. */
    public String move(Actor actor, long item, String key, String moveCode, int expectedVersion, String remark) {
        String why = Texts.optional("The remark", remark, 500).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            // What was sent together is locked together, in one order.
            Optional<Long> open = rounds.openRound(item);
            List<Long> together = open.map(r ->
                            rounds.items(r).stream().map(RoundStore.Item::item).toList())
                    .orElse(List.of(item));
            List<Seen> all = open.isPresent() ? sight.lockedWithPapers(actor, together) : sight.locked(actor, together);
            Seen seen =
                    all.stream().filter(s -> s.spine().id() == item).findFirst().orElseThrow();
            if (!seen.all()) throw new NotThere();
            Sight.expectVersion(seen, expectedVersion);
            By by = By.handSaying(why);
            Plan<Bundles.Going> plan = bundles.plan(actor, List.of(seen), Way.named(moveCode), by);
            Refused.unlessOpen(plan, "move.refused", "It stays where it is.");
            Move move = plan.going().get(0).move().orElseThrow();
            // Sending goes by its own page, which says who is asked; what a round decides its last signature makes.
            if (move.does(Effect.OPEN_ROUND) || move.isMadeByRound()) throw new NotThere();
            if (move.does(Effect.END_ROUND)) {
                takeBack(actor, seen, all, open.orElseThrow(NotThere::new), why);
                return "/documents/" + item + "?taken-back";
            }
            bundles.carryOut(plan, Setting.of(actor, by, why, clock.instant(), all));
            return "/documents/" + item;
        });
    }

    /** Takes the bundle of a document back from its signers: all of it, for it was sent together. */
    private void takeBack(Actor actor, Seen seen, List<Seen> all, long open, String why) {
        rounds.lock(open);
        Round round = rounds.round(open).orElseThrow();
        if (round.state() != Round.State.OPEN && round.state() != Round.State.SIGNED) {
            throw Refused.because("round.ended", "This round has ended meanwhile.", "Look at the document again.");
        }
        By by = By.handSaying(why);
        Plan<Bundles.Going> plan = bundles.plan(actor, all, Way.back(), by);
        Refused.unlessOpen(plan, "move.refused", "It stays where it is.");
        bundles.carryOut(plan, Setting.of(actor, by, why, clock.instant(), all).ending(round, Round.State.TAKEN_BACK));
        Set<Long> asked = new LinkedHashSet<>(
                round.signOffs().stream().map(SignOff::person).toList());
        Set<Long> authors = rounds.authors(List.of(round.id())).getOrDefault(round.id(), Set.of());
        asked.addAll(telling.asked(
                round, authors, all.stream().map(s -> s.document().place()).toList()));
        telling.tell(
                actor,
                asked,
                "round.taken_back",
                Optional.of(round.id()),
                seen.spine().id(),
                actor.name() + " took " + seen.document().number() + " back from review: " + why,
                "/rounds/" + round.id());
    }
}
