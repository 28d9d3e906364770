package mintshelf.app.use.round;

import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.setup.Settings;
import mintshelf.app.sight.RoundSight;
import mintshelf.app.sight.RoundSight.RoundLine;
import mintshelf.app.sight.RoundSight.RoundView;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.RevisionRow;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.KindFact;
import mintshelf.app.store.redline.RemarkStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.document.Revision;
import mintshelf.core.redline.Citing;
import mintshelf.core.redline.Remark;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Move;
import mintshelf.core.route.Route;
import mintshelf.core.signoff.Round;
import org.springframework.stereotype.Service;

/** Rounds as their pages show them. */
@Service
public class ReadRounds {
    private final RoundSight sight;
    private final FactStore facts;
    private final RevisionStore revisions;
    private final VersionStore versions;
    private final HouseStore house;
    private final RemarkStore remarks;
    private final Settings settings;
    private final Clock clock;

    public ReadRounds(
            RoundSight sight,
            FactStore facts,
            RevisionStore revisions,
            VersionStore versions,
            HouseStore house,
            RemarkStore remarks,
            Settings settings,
            Clock clock) {
        this.sight = sight;
        this.facts = facts;
        this.revisions = revisions;
        this.versions = versions;
        this.house = house;
        this.remarks = remarks;
        this.settings = settings;
        this.clock = clock;
    }

    /** Open remarks on the documents of a round, by document. */
    public Map<Long, List<Remark>> remarks(RoundView view) {
        return remarks.open(view.lines().stream()
                .filter(l -> l.seen().all())
                .map(l -> l.item().item())
                .toList());
    }

    /**
     * The words of an answer that cites remarks.
     *
     * @param cites ids; those that are no open remarks on the round's documents are passed over
     */
    public String citing(Actor actor, long round, String typed, Collection<Long> cites) {
        if (cites.isEmpty()) return typed;
        List<Remark> cited = remarks(sight.round(actor, round)).values().stream()
                .flatMap(List::stream)
                .filter(r -> cites.contains(r.id()))
                .sorted(Comparator.comparing(Remark::id))
                .toList();
        return Citing.words(typed, cited, LONGEST_WORDS);
    }

    private static final int LONGEST_WORDS = 2000;

    /** Who makes the move that a signed round opened, in words; empty where the last sign-off made it, or nothing waits. */
    public Optional<String> waitsForHand(RoundView view) {
        if (view.round().state() != Round.State.SIGNED) return Optional.empty();
        Document first = view.lines().get(0).seen().document();
        Route route = house.edition(first.current().stage().edition());
        return route.decided(first.current().stage().code())
                .filter(m -> !m.isMadeByRound())
                .map(m -> m.who().words());
    }

    public RoundView round(Actor actor, long id) {
        return sight.round(actor, id);
    }

    /** Who signed what is in force of a document. */
    public List<RoundSight.Signed> signed(Seen seen) {
        return sight.signed(seen);
    }

    /** Who signed in the readings before an open round. */
    public List<String> signedBefore(RoundView view) {
        return sight.signedBefore(view);
    }

    /** The version that a round decides on; the round was seen before. */
    public VersionRow version(RoundLine line) {
        return versions.version(line.item().item(), line.item().number()).orElseThrow();
    }

    /** The label of the revision that a former version belongs to, where it is another one than the round's: "A" stays A after B is out. */
    public Optional<String> formerRevision(long item, VersionRow former, VersionRow now) {
        if (former.revision() == now.revision()) return Optional.empty();
        return revisions.revisions(item).stream()
                .map(RevisionRow::revision)
                .filter(r -> r.id() == former.revision())
                .map(Revision::shown)
                .findFirst();
    }

    /**
     * The return before a round: the version that was returned, who returned it and what they said.
     *
     * @param mine whether the actor did
     */
    public record Return(VersionRow version, String name, String remark, boolean mine) {}

    public Optional<Return> returnedBefore(Actor actor, RoundView view, RoundLine line) {
        long item = line.item().item();
        return sight.returnedBefore(actor, item, view.round().id())
                .flatMap(before -> before.lines().stream()
                        .filter(l -> l.item().item() == item)
                        .findFirst()
                        .flatMap(l -> before.returning()
                                .map(s -> new Return(version(l), s.name(), s.remark(), s.person() == actor.person()))));
    }

    /**
     * Rounds to be signed one after the other.
     *
     * @param can what waits for the actor
     * @param cannot rounds that do not, each with why
     * @param none numbers of documents that are in no open round
     */
    public record Many(List<Waiting> can, Map<RoundView, Refusal> cannot, List<String> none) {
        /** Whether one of the signatures asks for the password again. */
        public boolean asksPassword() {
            return can.stream()
                    .anyMatch(w -> w.view().mine().orElseThrow().line().password());
        }
    }

    /** The open rounds of documents that the actor may see, each once; without documents, what waits for the actor. */
    public Many many(Actor actor, List<Long> items) {
        if (items.isEmpty()) return new Many(inTray(actor), Map.of(), List.of());
        LocalDate today = sight.today();
        List<Waiting> can = new ArrayList<>();
        Map<RoundView, Refusal> cannot = new LinkedHashMap<>();
        List<String> none = new ArrayList<>();
        Map<Long, RoundView> open = sight.ofDocuments(actor, items);
        sight.numbers(actor, items).forEach((item, number) -> {
            if (!open.containsKey(item)) none.add(number);
        });
        for (RoundView view : new LinkedHashSet<>(open.values())) {
            Optional<Refusal> refusal = SignRound.refusal(actor, view, today);
            if (refusal.isPresent()) cannot.put(view, refusal.get());
            else can.add(waiting(view, today));
        }
        return new Many(can, cannot, none);
    }

    private Waiting waiting(RoundView view, LocalDate today) {
        return new Waiting(
                view,
                view.mine().orElseThrow().due().isBefore(today),
                changes(view.lines().get(0)));
    }

    /** What the actor is asked for. */
    public record Waiting(RoundView view, boolean overdue, List<String> changes) {}

    /** What waits for the actor, the one due first first. */
    public List<Waiting> inTray(Actor actor) {
        LocalDate today = LocalDate.ofInstant(clock.instant(), settings.zone());
        return sight.waitingFor(actor).stream().map(v -> waiting(v, today)).toList();
    }

    /** What the actor sent and others have not answered. */
    public List<RoundView> sent(Actor actor) {
        return sight.sentBy(actor);
    }

    /** The address of the page that takes a round back: of its first document that is decided on, an order before its lines. */
    public Optional<String> takeBack(RoundView view) {
        for (RoundLine line : view.lines()) {
            Document d = line.seen().document();
            Optional<Move> back = house.edition(d.current().stage().edition())
                    .back(d.current().stage().code())
                    .filter(m -> m.does(Effect.END_ROUND));
            if (back.isPresent())
                return Optional.of(
                        "/documents/" + d.id() + "/moves/" + back.get().code());
        }
        return Optional.empty();
    }

    /** Whom the last round of a plan's first document asked by name, by what they were asked for. */
    public Map<String, Long> askedBefore(Actor actor, SendToReview.Plan plan) {
        return plan.rows().isEmpty()
                ? Map.of()
                : sight.askedBefore(actor, plan.rows().get(0).seen().spine().id());
    }

    /** What the pending revision changes, in a few words each: its reason, facts that differ from the released one. */
    public List<String> changes(RoundLine line) {
        Document document = line.seen().document();
        List<String> changes = new ArrayList<>();
        Optional<Revision> pending = document.pending();
        // A request releases nothing: what it says is what is wanted.
        if (pending.isEmpty() || line.seen().spine().isRequest()) return changes;
        if (document.released().isEmpty()) return List.of("first release");
        if (!pending.get().reason().isEmpty()) changes.add(pending.get().reason());
        Map<String, String> before = facts.facts(document.released().get().id());
        Map<String, String> now = facts.facts(pending.get().id());
        for (KindFact fact : house.factSheets().getOrDefault(document.place().kind(), List.of())) {
            String name = fact.fact().name();
            String old = before.getOrDefault(name, "–");
            String is = now.getOrDefault(name, "–");
            if (!old.equals(is)) changes.add(fact.fact().label() + " " + old + " → " + is);
        }
        return changes;
    }
}
