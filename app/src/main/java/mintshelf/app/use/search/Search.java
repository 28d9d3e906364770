package mintshelf.app.use.search;

import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.RoundSight;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.search.Ask;
import mintshelf.app.store.search.NodeIndex;
import mintshelf.core.search.Condition;
import mintshelf.core.search.Question;
import mintshelf.core.search.SearchText;
import mintshelf.core.search.Wanted;
import org.springframework.stereotype.Service;

/**
 * Finds documents: which ones, the index knows; what they are and whether somebody may see them, the database says before anything is
 * shown.
 */
@Service
public class Search {
    /** Hits that can be paged through: who wants more narrows it down. */
    public static final int MOST = 10_000;

    private final NodeIndex index;
    private final SearchNames names;
    private final FacetViews facets;
    private final WhyFound why;
    private final VersionStore versions;
    private final RoundSight rounds;
    private final Sight sight;
    private final Clock clock;

    Search(
            NodeIndex index,
            SearchNames names,
            FacetViews facets,
            WhyFound why,
            VersionStore versions,
            RoundSight rounds,
            Sight sight,
            Clock clock) {
        this.index = index;
        this.names = names;
        this.facets = facets;
        this.why = why;
        this.versions = versions;
        this.rounds = rounds;
        this.sight = sight;
        this.clock = clock;
    }

    /**
     * What is wanted.
     *
     * @param versions whether all versions are looked through
     * @param facets whether hits are counted by what they are
     */
    public record Wish(String q, Ask.Order order, boolean versions, int from, int most, boolean facets) {
        public Wish {
            from = Math.max(0, Math.min(from, MOST));
        }

        /** The first hits of what fits best. */
        public static Wish first(String q, int most) {
            return new Wish(q, Ask.Order.FIT, false, 0, most, false);
        }
    }

    /**
     * A document that was found.
     *
     * @param says the line of its content that says what was looked for, its former number, or the comment of its version; empty when
     *     its name does
     * @param version that fits, where all versions were looked through
     */
    public record Hit(Seen seen, String says, Optional<VersionStore.Brief> version) {}

    /**
     * What was found.
     *
     * @param total how many fit; of those that may be seen
     * @param alike whether nothing is written so, and what is written alike was taken
     * @param making how far the index is that is being made for the first time: nothing can be found yet
     */
    public record Found(
            Question question,
            List<Hit> hits,
            int total,
            List<FacetViews.View> facets,
            boolean alike,
            Optional<NodeIndex.Progress> making) {
        static final Found NOTHING =
                new Found(new Question(List.of(), List.of()), List.of(), 0, List.of(), false, Optional.empty());
    }

    /** What a text asks, for a person. */
    public Question question(Actor actor, String q) {
        return Question.of(SearchText.read(q), names.of(actor), clock.instant(), ZoneId.of(actor.zone()));
    }

    /** Finds, as things stand. */
    public Found find(Actor actor, Wish wish) {
        return find(actor, wish, Optional.empty());
    }

    /** Finds what has moved from a moment on. */
    Found movedSince(Actor actor, Wish wish, Instant since) {
        return find(actor, wish, Optional.of(since));
    }

    private Found find(Actor actor, Wish wish, Optional<Instant> since) {
        SearchText text = SearchText.read(wish.q());
        SearchNames.Of known = names.of(actor);
        Question asked = Question.of(text, known, clock.instant(), ZoneId.of(actor.zone()));
        Question question = since.map(asked::movedSince).orElse(asked);
        if (question.isEmpty()) return new Found(question, List.of(), 0, List.of(), false, Optional.empty());
        Ask ask = new Ask(
                question,
                text.plain(),
                actor.access(),
                own(actor, question),
                wish.versions(),
                wish.order(),
                wish.from(),
                wish.most(),
                wish.facets() ? FacetViews.asked(known) : List.of());
        Optional<Ask.Answer> answer = index.ask(ask);
        if (answer.isEmpty()) {
            return new Found(
                    question,
                    List.of(),
                    0,
                    List.of(),
                    false,
                    Optional.of(index.progress().orElse(new NodeIndex.Progress(0, 0))));
        }
        Ask.Answer a = answer.get();
        return new Found(
                question,
                hits(actor, question, a.hits(), wish.versions()),
                a.total(),
                facets.of(question, known, a.facets(), a.total()),
                a.alike(),
                Optional.empty());
    }

    /**
     * Something to be counted.
     *
     * @param since only what has moved from then on
     */
    public record Count(String q, boolean versions, Optional<Instant> since) {}

    /** How many fit, of each, of those that may be seen; none while the index is being made. */
    public List<Integer> counts(Actor actor, List<Count> wanted) {
        SearchNames.Of known = names.of(actor);
        Instant now = clock.instant();
        List<Ask> asks = new ArrayList<>();
        for (Count count : wanted) {
            SearchText text = SearchText.read(count.q());
            Question question = Question.of(text, known, now, ZoneId.of(actor.zone()));
            if (count.since().isPresent())
                question = question.movedSince(count.since().get());
            asks.add(new Ask(
                    question,
                    text.plain(),
                    actor.access(),
                    own(actor, question),
                    count.versions(),
                    Ask.Order.NUMBER,
                    0,
                    0,
                    List.of()));
        }
        return index.counts(asks);
    }

    private Map<Wanted.Mine, Set<Long>> own(Actor actor, Question question) {
        Map<Wanted.Mine, Set<Long>> own = new HashMap<>();
        for (Condition condition : question.conditions()) {
            if (condition.wanted() instanceof Wanted.Own mine) {
                own.computeIfAbsent(
                        mine.mine(),
                        m -> documents(
                                m == Wanted.Mine.WAITS_FOR_ME ? rounds.waitingFor(actor) : rounds.sentBy(actor)));
            }
        }
        return own;
    }

    private static Set<Long> documents(List<RoundSight.RoundView> views) {
        Set<Long> items = new HashSet<>();
        views.forEach(v -> v.lines().forEach(l -> items.add(l.seen().spine().id())));
        return items;
    }

    private List<Hit> hits(Actor actor, Question question, List<Ask.Hit> found, boolean all) {
        Map<Long, Seen> seen =
                sight.of(actor, found.stream().map(Ask.Hit::item).distinct().toList());
        if (all) return versions(found, seen);
        List<String> words = question.words();
        // What its own row shows needs no reason.
        List<Seen> unsaid = words.isEmpty()
                ? List.of()
                : seen.values().stream().filter(s -> !saysItself(s, words)).toList();
        Map<Long, String> says = why.of(unsaid, words);
        List<Hit> hits = new ArrayList<>();
        for (Ask.Hit hit : found) {
            Seen s = seen.get(hit.item());
            if (s != null) hits.add(new Hit(s, says.getOrDefault(hit.item(), ""), Optional.empty()));
        }
        return hits;
    }

    private static boolean saysItself(Seen seen, List<String> words) {
        var d = seen.document();
        return SearchText.has(words, d.number() + " " + d.title() + " " + d.fileName());
    }

    private List<Hit> versions(List<Ask.Hit> found, Map<Long, Seen> seen) {
        Map<Long, Set<Integer>> wanted = new HashMap<>();
        found.stream()
                .filter(h -> seen.containsKey(h.item()))
                .forEach(h ->
                        wanted.computeIfAbsent(h.item(), i -> new TreeSet<>()).add(h.version()));
        Map<Ask.Hit, VersionStore.Brief> read = new HashMap<>();
        versions.brief(wanted).forEach(v -> read.put(new Ask.Hit(v.item(), v.number()), v));
        List<Hit> hits = new ArrayList<>();
        for (Ask.Hit hit : found) {
            Seen s = seen.get(hit.item());
            VersionStore.Brief version = read.get(hit);
            // What never went out is not for who sees released ones only.
            if (s == null || version == null || !(s.all() || version.wasOut())) continue;
            hits.add(new Hit(s, version.comment(), Optional.of(version)));
        }
        return hits;
    }
}
