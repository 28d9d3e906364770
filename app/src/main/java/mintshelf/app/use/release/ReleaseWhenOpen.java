package mintshelf.app.use.release;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.UUID;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.Grants;
import mintshelf.app.store.release.WishStore;
import mintshelf.app.store.release.WishStore.Wish;
import mintshelf.app.use.release.ReleasePlan.Line;
import mintshelf.app.use.release.ReleasePlan.Verdict;
import mintshelf.core.access.Right;
import mintshelf.core.base.Texts;
import mintshelf.core.release.WhenOpen;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/**
 * Releases by itself what somebody asked for before it was open, in their name and with their rights, as soon as nothing is in its way.
 * Until then it can be taken back. Whatever node is free looks, under a lease.
 */
@Service
public class ReleaseWhenOpen {
    private static final Logger LOG = LoggerFactory.getLogger(ReleaseWhenOpen.class);
    private static final Duration LEASE = Duration.ofMinutes(2);
    private static final Duration AGAIN = Duration.ofSeconds(20);
    /** Releases of one person that wait: each is looked at again and again. */
    private static final int MOST = 40;

    private final ReadReleasePlan plans;
    private final ReleaseTogether together;
    private final WishStore wishes;
    private final Grants people;
    private final Telling telling;
    private final Recorder recorder;
    private final Acts acts;
    private final UnitOfWork unit;
    private final Clock clock;

    ReleaseWhenOpen(
            ReadReleasePlan plans,
            ReleaseTogether together,
            WishStore wishes,
            Grants people,
            Telling telling,
            Recorder recorder,
            Acts acts,
            UnitOfWork unit,
            Clock clock) {
        this.plans = plans;
        this.together = together;
        this.wishes = wishes;
        this.people = people;
        this.telling = telling;
        this.recorder = recorder;
        this.acts = acts;
        this.unit = unit;
        this.clock = clock;
    }

    /** Why a plan cannot be left to itself; nothing where it can. */
    public static Optional<String> not(ReleasePlan plan) {
        if (plan.opens()) return Optional.of("It is open.");
        if (plan.moving().isEmpty()) return Optional.of("Nothing is left to release.");
        if (plan.hidden() > 0) return Optional.of("Some of it is not shown to you.");
        boolean may = plan.moving().stream()
                .flatMap(l -> l.refusals().stream())
                .noneMatch(r -> r.code().equals("access.missing"));
        return may ? Optional.empty() : Optional.of("You may not release all of it.");
    }

    /**
     * Asks for a release when it opens.
     *
     * @param seen digest of the plan that the page showed
     * @return whether it waits now; not where the plan has become another one
     */
    public boolean ask(Actor actor, Collection<Long> items, String key, String seen, String remark) {
        String said = Texts.optional("The remark", remark, 500).orElseThrow(Refused::new);
        ReleasePlan plan = plans.plan(actor, items);
        if (!plan.digest().equals(seen)) return false;
        not(plan).ifPresent(why -> {
            throw Refused.because("release.not_later", why, "Look at its plan; nothing was changed.");
        });
        Set<Long> asked = new LinkedHashSet<>(items);
        acts.once(actor, key, () -> {
            if (!waiting(plan).isEmpty()) {
                throw Refused.because(
                        "release.waits", "It waits already to be released when it opens.", "Nothing was changed.");
            }
            if (wishes.waitingOf(actor.person()).size() >= MOST) {
                throw Refused.because(
                        "release.many",
                        MOST + " releases of yours wait already.",
                        "Take some back, under Runs; nothing was changed.");
            }
            List<WishStore.Item> all = new ArrayList<>();
            plan.moving().forEach(l -> all.add(new WishStore.Item(l.item(), asked.contains(l.item()), ready(l))));
            Set<Long> moving = new HashSet<>();
            all.forEach(i -> moving.add(i.item()));
            asked.stream()
                    .filter(i -> !moving.contains(i))
                    .forEach(i -> all.add(new WishStore.Item(i, true, Optional.empty())));
            long id = wishes.add(actor.person(), named(plan), said, all, clock.instant());
            for (Line line : plan.moving()) {
                if (!asked.contains(line.item())) continue;
                recorder.note(
                        actor,
                        line.item(),
                        "release.asked",
                        line.seen().version(),
                        "asked that it is released when nothing is in the way, with what goes along",
                        said);
            }
            return Long.toString(id);
        });
        return true;
    }

    private static Optional<Integer> ready(Line line) {
        return line.verdict() == Verdict.GOES ? Optional.of(line.seen().version()) : Optional.empty();
    }

    /** Those that wait for documents of a plan. */
    public List<Wish> waiting(ReleasePlan plan) {
        return wishes.waiting(plan.asked().stream().map(s -> s.spine().id()).toList());
    }

    /**
     * One of the actor's that waits.
     *
     * @param items ids of the documents that were asked for
     */
    public record Waiting(Wish wish, List<Long> items) {}

    /** The actor's own that wait. */
    public List<Waiting> mine(Actor actor) {
        return wishes.waitingOf(actor.person()).stream()
                .map(w -> new Waiting(w, asked(w.id())))
                .toList();
    }

    private List<Long> asked(long wish) {
        return wishes.items(wish).stream()
                .filter(WishStore.Item::asked)
                .map(WishStore.Item::item)
                .toList();
    }

    /** Whether somebody may take a wish back: who asked for it, and who keeps the shelves of what it names. */
    public static boolean mayTakeBack(Actor actor, Wish wish, ReleasePlan plan) {
        return wish.person() == actor.person()
                || plan.asked().stream()
                        .allMatch(s -> actor.access()
                                .may(Right.KEEP_SHELF, s.document().place()));
    }

    /** Takes a wish back; who asked for it is told when it was somebody else. Gives the documents that were asked for. */
    public List<Long> takeBack(Actor actor, long id, String key) {
        Wish wish = wishes.wish(id).orElseThrow(NotThere::new);
        List<Long> items = asked(id);
        ReleasePlan plan = plans.plan(actor, items);
        if (!mayTakeBack(actor, wish, plan)) throw new NotThere();
        acts.once(actor, key, () -> {
            Instant now = clock.instant();
            if (!wishes.end(id, "TAKEN_BACK", OptionalLong.of(actor.person()), "", now)) {
                throw Refused.because(
                        "release.ended", "It does not wait any more.", "Look at the plan; nothing was changed.");
            }
            for (long item : items) {
                recorder.note(
                        actor,
                        item,
                        "release.taken_back",
                        "took back that it is released when nothing is in the way",
                        "");
            }
            telling.tell(
                    actor,
                    List.of(wish.person()),
                    "release.taken_back",
                    Optional.empty(),
                    items.get(0),
                    actor.name() + " took back that " + named(plan) + " is released when it opens",
                    at(items));
            return "";
        });
        return items;
    }

    private static String named(ReleasePlan plan) {
        String first = plan.asked().get(0).document().number();
        return plan.asked().size() == 1
                ? first
                : first + " and " + (plan.asked().size() - 1) + " more";
    }

    private static String at(List<Long> items) {
        return "/release-plan?items="
                + String.join(",", items.stream().map(String::valueOf).toList());
    }

    @Scheduled(initialDelayString = "PT5S", fixedDelayString = "PT5S")
    void byItself() {
        try {
            while (lookAtNext()) {
                // until none is due
            }
        } catch (RuntimeException e) {
            LOG.warn("A release that waits could not be looked at; it is tried again", e);
        }
    }

    /** Looks at the next that is due. Whether one was. */
    public boolean lookAtNext() {
        Instant now = clock.instant();
        Optional<Long> next = unit.run(() -> wishes.take(now, now.plus(LEASE)));
        if (next.isEmpty()) return false;
        look(next.get());
        return true;
    }

    /** Looks at one now, due or not. */
    public void look(long id) {
        wishes.wish(id).filter(Wish::waits).ifPresent(this::look);
    }

    private void look(Wish wish) {
        long id = wish.id();
        List<WishStore.Item> all = wishes.items(id);
        List<Long> items = all.stream()
                .filter(WishStore.Item::asked)
                .map(WishStore.Item::item)
                .toList();
        Optional<Actor> actor = people.actor(wish.person());
        if (actor.isEmpty()) {
            unit.run(() ->
                    wishes.end(id, "STOPPED", OptionalLong.empty(), "Who asked for it has left.", clock.instant()));
            return;
        }
        ReleasePlan plan;
        try {
            plan = plans.plan(actor.get(), items);
        } catch (NotThere e) {
            stop(actor.get(), wish, items, "Some of it is not there for you any more");
            return;
        }
        Map<Long, Optional<Integer>> seen = new HashMap<>();
        all.forEach(i -> seen.put(i.item(), i.ready()));
        WhenOpen.Verdict verdict = new WhenOpen(seen)
                .judge(
                        plan.moving().stream()
                                .map(l -> new WhenOpen.Now(
                                        l.item(),
                                        l.seen().document().number(),
                                        l.seen().version()))
                                .toList(),
                        plan.opens());
        if (verdict instanceof WhenOpen.Changed changed) stop(actor.get(), wish, items, changed.says());
        else if (verdict instanceof WhenOpen.Nothing) end(actor.get(), wish, items, "DONE", "is released");
        else if (verdict instanceof WhenOpen.Opens) release(actor.get(), wish, items, plan);
        else unit.run(() -> wishes.wait(id, clock.instant().plus(AGAIN)));
    }

    private void release(Actor actor, Wish wish, List<Long> items, ReleasePlan plan) {
        // Of this wish and this plan the act is done once: two nodes, or a look after a kill, find the same key.
        String key = UUID.nameUUIDFromBytes(
                        ("release wish " + wish.id() + " " + plan.digest()).getBytes(StandardCharsets.UTF_8))
                .toString();
        Optional<Integer> released = Optional.empty();
        try {
            released = together.release(actor, items, key, plan.digest(), wish.remark(), new ReleaseTogether.Within() {
                @Override
                public boolean stands() {
                    return wishes.locked(wish.id());
                }

                @Override
                public void done(int all) {
                    String with = all == 1 ? "" : " with " + (all - 1) + " that went along";
                    ended(actor, wish, items, "DONE", "is released" + with + ", as you asked");
                }
            });
        } catch (Refused e) {
            LOG.info(
                    "Release wish {} was open and is not: {}",
                    wish.id(),
                    e.refusal().says());
        }
        if (released.isEmpty())
            unit.run(() -> wishes.wait(wish.id(), clock.instant().plus(AGAIN)));
    }

    private void end(Actor actor, Wish wish, List<Long> items, String state, String says) {
        unit.run(() -> ended(actor, wish, items, state, says));
    }

    /** Ends it in the caller's transaction, and tells who asked. */
    private void ended(Actor actor, Wish wish, List<Long> items, String state, String says) {
        if (!wishes.end(wish.id(), state, OptionalLong.empty(), says, clock.instant())) return;
        telling.self(
                actor,
                "release." + state.toLowerCase(Locale.ROOT),
                items.get(0),
                wish.named() + " " + says + ".",
                at(items));
    }

    private void stop(Actor actor, Wish wish, List<Long> items, String why) {
        end(actor, wish, items, "STOPPED", "is not released by itself any more: " + Texts.shorten(why, 300));
    }
}
