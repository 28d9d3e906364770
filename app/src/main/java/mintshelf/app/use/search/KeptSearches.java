package mintshelf.app.use.search;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.search.Ask;
import mintshelf.app.store.search.KeptSearchStore;
import mintshelf.app.store.search.KeptSearchStore.Kept;
import mintshelf.core.access.Right;
import mintshelf.core.base.Texts;
import mintshelf.core.search.SearchText;
import org.springframework.stereotype.Service;

/** Searches that people keep, for themselves or for a group that they are in; and four that everybody has. */
@Service
public class KeptSearches {
    private static final int MOST = 60;
    private static final int NAME = 80;

    private final KeptSearchStore store;
    private final Search search;
    private final Recorder recorder;
    private final Acts acts;
    private final UnitOfWork unit;
    private final Clock clock;

    KeptSearches(KeptSearchStore store, Search search, Recorder recorder, Acts acts, UnitOfWork unit, Clock clock) {
        this.store = store;
        this.search = search;
        this.recorder = recorder;
        this.acts = acts;
        this.unit = unit;
        this.clock = clock;
    }

    /**
     * A search that everybody has.
     *
     * @param works whether only those have it who see work in preparation
     */
    private record Shipped(String name, String q, boolean works) {}

    private static final List<Shipped> SHIPPED = List.of(
            new Shipped("Waits for me", "waits:me", true),
            new Shipped("Sent by me", "sent:me", true),
            new Shipped("Released this week", "is:released released>7d", false),
            new Shipped("Held for over a week", "held>7d", true));

    /**
     * A kept search as a line.
     *
     * @param href where its hits are shown
     * @param fresh how many of the hits have moved since the person looked at them last
     */
    public record Line(String name, String q, String href, int hits, int fresh, Optional<Kept> kept) {}

    /** Those of the actor, counted; of the four that everybody has those with hits. */
    public List<Line> lines(Actor actor) {
        List<Kept> own = store.of(actor.person(), MOST);
        List<Search.Count> asked = new ArrayList<>();
        boolean works = actor.access().maySomewhere(Right.SEE_ALL);
        List<Shipped> shipped =
                SHIPPED.stream().filter(s -> works || !s.works()).toList();
        shipped.forEach(s -> asked.add(new Search.Count(s.q(), false, Optional.empty())));
        for (Kept kept : own) {
            asked.add(new Search.Count(kept.q(), kept.versions(), Optional.empty()));
            asked.add(new Search.Count(kept.q(), kept.versions(), Optional.of(since(kept))));
        }
        List<Integer> counts = search.counts(actor, asked);
        List<Line> lines = new ArrayList<>();
        for (int i = 0; i < own.size(); i++) {
            Kept kept = own.get(i);
            lines.add(new Line(
                    kept.name(),
                    kept.q(),
                    "/searches/" + kept.id(),
                    counts.get(shipped.size() + 2 * i),
                    counts.get(shipped.size() + 2 * i + 1),
                    Optional.of(kept)));
        }
        for (int i = 0; i < shipped.size(); i++) {
            if (counts.get(i) == 0) continue;
            Shipped s = shipped.get(i);
            lines.add(new Line(s.name(), s.q(), "", counts.get(i), 0, Optional.empty()));
        }
        return lines;
    }

    private static Instant since(Kept kept) {
        return kept.looked().orElse(kept.keptAt());
    }

    /** One that is the actor's. */
    public Kept kept(Actor actor, long id) {
        return store.one(actor.person(), id).orElseThrow(NotThere::new);
    }

    /** Shows it: what it finds now is not new any more. */
    public Kept look(Actor actor, long id) {
        Kept kept = kept(actor, id);
        unit.run(() -> store.look(id, actor.person(), clock.instant()));
        return kept;
    }

    /** For whom the actor may keep one, by group. */
    public Map<Long, String> groups(Actor actor) {
        return store.groups(actor.person());
    }

    /** Keeps a search; its address. */
    public String keep(Actor actor, String key, KeptSearchStore.New wanted, boolean told) {
        KeptSearchStore.New kept = checked(actor, wanted);
        return acts.once(actor, key, () -> {
            if (store.of(actor.person(), MOST).size() >= MOST) {
                throw Refused.because(
                        "search.full", "You have " + MOST + " kept searches.", "Drop one; nothing was changed.");
            }
            Instant now = clock.instant();
            long id = store.keep(actor.person(), kept, now);
            store.tell(id, actor.person(), told, now);
            note(actor, kept, "search.kept", "keeps the search “" + kept.name() + "”: " + kept.q());
            return "/searches/" + id;
        });
    }

    /** Changes one that is the actor's own. */
    public String change(Actor actor, String key, long id, KeptSearchStore.New wanted) {
        KeptSearchStore.New kept = checked(actor, wanted);
        return acts.once(actor, key, () -> {
            own(actor, id);
            store.change(id, kept);
            note(actor, kept, "search.changed", "changed the search “" + kept.name() + "”: " + kept.q());
            return "/searches/" + id;
        });
    }

    public String drop(Actor actor, String key, long id) {
        return acts.once(actor, key, () -> {
            Kept kept = own(actor, id);
            store.drop(id);
            note(
                    actor,
                    new KeptSearchStore.New(kept.name(), kept.q(), kept.order(), kept.versions(), kept.group()),
                    "search.dropped",
                    "dropped the search “" + kept.name() + "”");
            return "/search";
        });
    }

    /** Whether the actor is mailed each morning of what is new. */
    public void tell(Actor actor, long id, boolean told) {
        unit.run(() -> {
            kept(actor, id);
            store.tell(id, actor.person(), told, clock.instant());
        });
    }

    private Kept own(Actor actor, long id) {
        Kept kept = kept(actor, id);
        if (kept.isOf(actor.person())) return kept;
        throw Refused.because(
                "search.other", kept.ownerName() + " keeps this search.", "Keep one of your own; nothing was changed.");
    }

    private KeptSearchStore.New checked(Actor actor, KeptSearchStore.New wanted) {
        String name = Texts.required("The name", wanted.name(), NAME).orElseThrow(Refused::new);
        String q = Texts.required("The search", wanted.q(), SearchText.MOST_LETTERS)
                .orElseThrow(Refused::new);
        if (wanted.group().isPresent()
                && !groups(actor).containsKey(wanted.group().get())) throw new NotThere();
        if (search.question(actor, q).isEmpty()) {
            throw Refused.because(
                    "search.nothing",
                    "This asks for nothing that is understood.",
                    "Change the search; nothing was kept.");
        }
        return new KeptSearchStore.New(name, q, wanted.order(), wanted.versions(), wanted.group(), wanted.columns());
    }

    /** What is kept for others stands in the record of the house; what somebody keeps for themselves is theirs. */
    private void note(Actor actor, KeptSearchStore.New kept, String act, String says) {
        if (kept.group().isPresent()) recorder.noteHouse(actor, act, says, "");
    }

    /** The hits of one as a feed shows them, those that moved last first. */
    public Feed feed(Actor actor, long id) {
        Kept kept = kept(actor, id);
        Search.Found found = search.find(actor, new Search.Wish(kept.q(), Ask.Order.CHANGED, false, 0, FEED, false));
        return new Feed(kept, found.hits());
    }

    private static final int FEED = 50;

    public record Feed(Kept kept, List<Search.Hit> hits) {}
}
