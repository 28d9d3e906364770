package mintshelf.app.sight;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.house.RuleStore;
import mintshelf.app.store.outbox.OutboxStore;
import mintshelf.app.store.round.RoundListStore;
import mintshelf.app.store.round.RoundStore;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import mintshelf.core.base.ContentHash;
import mintshelf.core.revision.StageClass;
import mintshelf.core.signoff.Ask;
import mintshelf.core.signoff.Round;
import mintshelf.core.signoff.SignOff;
import mintshelf.core.signoff.SignOffRules;
import mintshelf.core.signoff.WorkingDays;
import org.springframework.stereotype.Component;

/** Loads rounds as a person may see them: only with all of their documents. */
@Component
public class RoundSight {
    /** Rounds of a document that are looked through for the one before another. */
    private static final int BEFORE = 50;

    private static final int MOST_IN_TRAY = 500;

    private final RoundStore rounds;
    private final RoundListStore lists;
    private final OutboxStore outbox;
    private final RuleStore rules;
    private final Sight sight;
    private final Settings settings;
    private final Clock clock;

    public RoundSight(
            RoundStore rounds,
            RoundListStore lists,
            OutboxStore outbox,
            RuleStore rules,
            Sight sight,
            Settings settings,
            Clock clock) {
        this.settings = settings;
        this.clock = clock;
        this.rounds = rounds;
        this.lists = lists;
        this.outbox = outbox;
        this.rules = rules;
        this.sight = sight;
    }

    /** A document of a round. */
    public record RoundLine(Seen seen, RoundStore.Item item) {}

    /**
     * A round as a person sees it.
     *
     * @param mine what waits for the person in it
     * @param authors who may not sign, for they worked on it
     */
    public record RoundView(
            Round round, List<RoundLine> lines, Optional<Ask> mine, Set<Long> authors, List<OutboxStore.Told> told) {
        /** What a sign-off on this picture binds to. */
        public ContentHash digest() {
            return SignOffRules.digest(
                    lines.stream().map(l -> l.item().digest()).toList());
        }

        /** The answer that sent it back. */
        public Optional<SignOff> returning() {
            return round.returning();
        }

        public List<Place> places() {
            return lines.stream().map(l -> l.seen().document().place()).toList();
        }

        /** Who was told of an ask by mail. */
        public List<OutboxStore.Told> told(Ask ask) {
            return told.stream().filter(t -> t.ask() == ask.id()).toList();
        }

        /** What became of the mails of an ask, in words. */
        public List<String> mails(Ask ask) {
            List<String> said = new ArrayList<>();
            say(said, ask, OutboxStore.State.SENT, "mailed to ");
            say(said, ask, OutboxStore.State.WAITING, "a mail is on its way to ");
            say(said, ask, OutboxStore.State.FAILED, "the mail did not reach ");
            return said;
        }

        private void say(List<String> said, Ask ask, OutboxStore.State state, String words) {
            List<String> names = told(ask).stream()
                    .filter(t -> t.state() == state)
                    .map(t -> state == OutboxStore.State.FAILED && !t.says().isEmpty()
                            ? t.name() + " (" + t.says() + ")"
                            : t.name())
                    .toList();
            if (!names.isEmpty()) said.add(words + String.join(", ", names));
        }
    }

    /** The day of the house. */
    public LocalDate today() {
        return LocalDate.ofInstant(clock.instant(), settings.zone());
    }

    /** The days on which the house works. */
    public WorkingDays days() {
        return rules.days();
    }

    public RoundView round(Actor actor, long id) {
        return rounds(actor, List.of(id)).stream().findFirst().orElseThrow(NotThere::new);
    }

    /** The open round of a document that the actor sees. */
    /** The rounds of a document, the latest first. */
    public List<RoundView> historyOf(Actor actor, long item, int most) {
        return rounds(actor, rounds.roundsOf(item, most));
    }

    public Optional<RoundView> ofDocument(Actor actor, long item) {
        return rounds.openRound(item)
                .flatMap(id -> rounds(actor, List.of(id)).stream().findFirst());
    }

    /** The open rounds that the actor sees, by those of the documents that are in one. */
    public Map<Long, RoundView> ofDocuments(Actor actor, Collection<Long> items) {
        Map<Long, Long> open = rounds.openRounds(items);
        Map<Long, RoundView> seen = new HashMap<>();
        rounds(actor, new TreeSet<>(open.values()))
                .forEach(v -> seen.put(v.round().id(), v));
        Map<Long, RoundView> byItem = new LinkedHashMap<>();
        for (long item : items) {
            RoundView view = seen.get(open.getOrDefault(item, 0L));
            if (view != null && view.round().isOpen()) byItem.put(item, view);
        }
        return byItem;
    }

    /** The numbers of those of the documents that the actor sees whole. */
    public Map<Long, String> numbers(Actor actor, Collection<Long> items) {
        Map<Long, String> numbers = new LinkedHashMap<>();
        sight.of(actor, items).forEach((item, seen) -> {
            if (seen.all()) numbers.put(item, seen.document().number());
        });
        return numbers;
    }

    /** A round that the actor may know of, with its documents locked in their order and then itself: what an act begins with. */
    public RoundView locked(Actor actor, long id) {
        round(actor, id);
        List<Long> items =
                rounds.items(id).stream().map(RoundStore.Item::item).sorted().toList();
        sight.lockedWithPapers(actor, items);
        rounds.lock(id);
        return round(actor, id);
    }

    /** The last round of a document, when it was returned: where work on it begins anew. */
    public Optional<RoundView> returned(Actor actor, long item) {
        List<Long> last = rounds.roundsOf(item, 1);
        return rounds(actor, last).stream()
                .filter(v -> v.round().state() == Round.State.RETURNED)
                .findFirst();
    }

    /**
     * The round before one, when that was returned: what its signers look at first is what became of that.
     *
     * @param round the later one
     */
    public Optional<RoundView> returnedBefore(Actor actor, long item, long round) {
        return rounds.roundsOf(item, BEFORE).stream()
                .filter(id -> id < round)
                .findFirst()
                .flatMap(id -> rounds(actor, List.of(id)).stream().findFirst())
                .filter(v -> v.round().state() == Round.State.RETURNED);
    }

    /** Whom the last round of a document asked by name, by what they were asked for. */
    public Map<String, Long> askedBefore(Actor actor, long item) {
        Map<String, Long> named = new HashMap<>();
        rounds(actor, rounds.roundsOf(item, 1))
                .forEach(v -> v.round()
                        .asks()
                        .forEach(a ->
                                a.person().ifPresent(p -> named.put(a.line().meaning(), p))));
        return named;
    }

    /** Who signed what is asked about in the readings before this open round: "checked by Hedda Lysgaard". */
    public List<String> signedBefore(RoundView view) {
        if (!view.round().isOpen()) return List.of();
        return signed(view.lines().get(0).seen().document().current().id()).stream()
                .map(s -> s.meaning() + " by " + s.name())
                .toList();
    }

    /**
     * A signature on a revision as it stands.
     *
     * @param round where it was given
     * @param signer who signed, and for whom
     */
    public record Signed(long round, String name, String signer, String meaning, Instant at) {}

    /** Who signed what is in force, for who sees work in preparation; empty for what was released without a round. */
    public List<Signed> signed(Seen seen) {
        Optional<Long> released = seen.document().released().map(r -> r.id());
        return seen.all() && released.isPresent() ? signed(released.get()) : List.of();
    }

    private List<Signed> signed(long revision) {
        List<Signed> signed = new ArrayList<>();
        for (Round reading : rounds.readings(List.of(revision)).getOrDefault(revision, List.of())) {
            for (Ask ask : reading.asks()) {
                reading.answers(ask).stream()
                        .filter(s -> s.decision().signs())
                        .forEach(s -> signed.add(new Signed(
                                reading.id(), s.name(), s.signer(), ask.line().meaning(), s.at())));
            }
        }
        return signed;
    }

    /** The rounds that may be seen, in the order asked for; the number of statements does not grow with them. */
    public List<RoundView> rounds(Actor actor, Collection<Long> ids) {
        Map<Long, Round> loaded = rounds.rounds(ids);
        Map<Long, List<RoundStore.Item>> items = rounds.items(loaded.keySet());
        Map<Long, Set<Long>> authors = rounds.authors(loaded.keySet());
        Set<Long> documents = new HashSet<>();
        items.values().forEach(list -> list.forEach(i -> documents.add(i.item())));
        Map<Long, Seen> seen = sight.of(actor, documents);
        Map<Long, List<OutboxStore.Told>> told = new HashMap<>();
        outbox.told(loaded.values().stream()
                        .flatMap(r -> r.asks().stream())
                        .map(Ask::id)
                        .toList())
                .forEach(t ->
                        told.computeIfAbsent(t.ask(), a -> new ArrayList<>()).add(t));
        List<RoundView> views = new ArrayList<>();
        for (Round round : loaded.values()) {
            List<RoundStore.Item> own = items.getOrDefault(round.id(), List.of());
            boolean all = own.stream()
                    .allMatch(i ->
                            seen.containsKey(i.item()) && seen.get(i.item()).all());
            if (!all) continue;
            List<RoundLine> lines =
                    own.stream().map(i -> new RoundLine(seen.get(i.item()), i)).toList();
            Set<Long> worked = authors.getOrDefault(round.id(), Set.of());
            List<Place> places =
                    lines.stream().map(l -> l.seen().document().place()).toList();
            views.add(new RoundView(
                    round,
                    lines,
                    SignOffRules.waitingFor(round, actor.access(), worked, places, today()),
                    worked,
                    round.asks().stream()
                            .flatMap(a -> told.getOrDefault(a.id(), List.of()).stream())
                            .toList()));
        }
        return views;
    }

    /** The rounds that wait for the actor, the one due first first. One statement when none can. */
    public List<RoundView> waitingFor(Actor actor) {
        if (!actor.access().maySomewhere(Right.SIGN)) return List.of();
        List<String> roles = actor.access().giving(Right.SIGN).stream()
                .map(g -> g.role().code())
                .distinct()
                .toList();
        List<Long> maybe = lists.maybeWaiting(actor.person(), roles, MOST_IN_TRAY);
        if (maybe.isEmpty()) return List.of();
        return rounds(actor, maybe).stream()
                .filter(v -> v.mine().isPresent())
                .sorted(Comparator.comparing(
                        (RoundView v) -> v.mine().orElseThrow().due()))
                .toList();
    }

    /** A document that came back to who sent it, and that nobody has sent again. */
    public record CameBack(RoundView view, RoundLine line) {
        public Seen seen() {
            return line.seen();
        }

        public SignOff returning() {
            return view.returning().orElseThrow();
        }
    }

    /** What came back to the actor and was not sent again, the latest first. The number of statements does not grow with it. */
    public List<CameBack> cameBack(Actor actor) {
        List<RoundView> views = rounds(actor, lists.returnedTo(actor.person(), 50));
        Set<Long> open = rounds.returned(views.stream()
                .flatMap(v -> v.lines().stream())
                .map(l -> l.item().item())
                .toList());
        Set<Long> named = new HashSet<>();
        return views.stream()
                .filter(v -> v.returning().isPresent())
                .flatMap(v -> v.lines().stream().map(l -> new CameBack(v, l)))
                .filter(c -> c.seen().all() && open.contains(c.line().item().item()))
                .filter(c -> c.seen()
                        .pending()
                        .filter(r -> r.stage().stageClass() == StageClass.PREPARING)
                        .isPresent())
                .filter(c -> named.add(c.line().item().item()))
                .toList();
    }

    /** The open rounds behind one that the actor sees with all of their documents, the oldest first; and where to look on from. */
    public record Portion(List<RoundView> views, Optional<Long> last) {}

    public Portion open(Actor actor, long after, int most) {
        List<Long> ids = lists.openRounds(after, most);
        return new Portion(rounds(actor, ids), ids.isEmpty() ? Optional.empty() : Optional.of(ids.get(ids.size() - 1)));
    }

    /** The open rounds that the actor sent. */
    public List<RoundView> sentBy(Actor actor) {
        return rounds(actor, lists.sentBy(actor.person(), 50));
    }
}
