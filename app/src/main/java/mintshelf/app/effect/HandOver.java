package mintshelf.app.effect;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.HeldDocuments;
import mintshelf.app.sight.RoundSight;
import mintshelf.app.sight.RoundSight.RoundView;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.sight.Trials;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.round.RoundListStore;
import mintshelf.app.store.round.RoundStore;
import mintshelf.core.access.Access;
import mintshelf.core.access.Right;
import mintshelf.core.document.Document;
import mintshelf.core.document.VersionName;
import mintshelf.core.signoff.Ask;
import mintshelf.core.signoff.Asked;
import org.springframework.stereotype.Component;

/** Gives what somebody holds, and what is asked of them by name, to somebody else or back to everybody. Within the caller's transaction. */
@Component
public class HandOver {
    /** Documents and rounds that one person's leaving takes along. */
    public static final int MOST = 500;

    private final HoldStore holds;
    private final HeldDocuments lists;
    private final RoundStore rounds;
    private final RoundListStore roundLists;
    private final RoundSight views;
    private final Sight sight;
    private final Telling telling;
    private final Recorder recorder;
    private final Clock clock;

    HandOver(
            HoldStore holds,
            HeldDocuments lists,
            RoundStore rounds,
            RoundListStore roundLists,
            RoundSight views,
            Sight sight,
            Telling telling,
            Recorder recorder,
            Clock clock) {
        this.holds = holds;
        this.lists = lists;
        this.rounds = rounds;
        this.roundLists = roundLists;
        this.views = views;
        this.sight = sight;
        this.telling = telling;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** What somebody holds, by number and kind, and what they are asked by name: "TG40-3030 as checked". */
    public record Carried(List<String> held, List<String> asked) {}

    public Carried carried(Actor actor, long person) {
        List<String> held = Stream.concat(
                        sight.of(actor, lists.heldBy(person, MOST)).values().stream(),
                        lists.onTrials(actor, person, MOST).stream().map(Trials.Tried::tried))
                .map(s -> s.document().number() + " " + s.spine().kindName())
                .toList();
        List<String> asked = new ArrayList<>();
        for (RoundView view : views.rounds(actor, roundLists.naming(person, 0, MOST))) {
            for (Ask ask : asking(view, person)) {
                asked.add(view.lines().get(0).seen().document().number() + " as "
                        + ask.line().meaning());
            }
        }
        return new Carried(held, asked);
    }

    private static List<Ask> asking(RoundView view, long person) {
        if (!view.round().isOpen()) return List.of();
        return view.round().asks().stream()
                .filter(a -> a.person().filter(p -> p == person).isPresent()
                        && view.round().lacks(a) > 0)
                .toList();
    }

    /**
     * Hands all of it on.
     *
     * @param heir with their access; without one holds end, and what was asked by name is asked of everybody whom the rule asks
     */
    public void handOn(Actor actor, PersonStore.Person from, Optional<Access> heir, String why) {
        for (List<Long> held = lists.heldBy(from.id(), MOST); !held.isEmpty(); ) {
            for (Seen seen : sight.lockedWithPapers(actor, held)) hand(actor, seen.document(), from, heir, why);
            List<Long> left = lists.heldBy(from.id(), MOST);
            // What the actor does not see stays, and is not asked for without end.
            held = left.equals(held) ? List.of() : left;
        }
        List<Long> items = lists.onTrials(actor, from.id(), MOST).stream()
                .map(Trials.Tried::item)
                .toList();
        if (!items.isEmpty()) sight.lockedWithPapers(actor, items);
        for (Trials.Tried tried : lists.onTrials(actor, from.id(), MOST))
            hand(actor, tried.tried().document(), from, heir, why);
        for (long after = 0; ; ) {
            List<Long> some = roundLists.naming(from.id(), after, MOST);
            if (some.isEmpty()) return;
            after = some.get(some.size() - 1);
            for (long round : some) {
                RoundView view = views.locked(actor, round);
                for (Ask ask : asking(view, from.id())) ask(actor, view, ask, heir);
            }
        }
    }

    private void note(Actor actor, Document document, String act, int head, String says, String why) {
        if (document.isTried())
            recorder.note(actor, document.id(), "trial." + act, VersionName.line(document.trial()) + ": " + says, why);
        else recorder.note(actor, document.id(), act, head, says, why);
    }

    private void hand(Actor actor, Document document, PersonStore.Person from, Optional<Access> heir, String why) {
        boolean theirs = document.holder().filter(h -> h.person() == from.id()).isPresent();
        if (!theirs) return;
        Instant now = clock.instant();
        if (heir.isPresent()) {
            heir.get().ask(Right.CHANGE, document.place()).ifPresent(r -> {
                throw Refused.because(
                        "leave.heir",
                        heir.get().name() + " may not change " + document.number() + ".",
                        "Name somebody who may, or nobody: then its check-out ends. Nothing was changed.");
            });
        }
        holds.end(document.holder().orElseThrow().hold(), HoldStore.Ending.BROKEN, actor.person(), why, now);
        int head = document.head().number();
        note(actor, document, "hold.broken", head, "ended the check-out of " + from.name(), why);
        if (heir.isEmpty()) return;
        holds.take(List.of(document), heir.get().person(), "", "taken over from " + from.name(), now);
        note(
                actor,
                document,
                "hold.taken",
                head,
                "gave its check-out to " + heir.get().name(),
                why);
        telling.tell(
                actor,
                List.of(heir.get().person()),
                "hold.given",
                Optional.empty(),
                document.id(),
                actor.name() + " gave you the check-out of " + document.number() + ", which " + from.name() + " held",
                "/documents/" + document.id());
    }

    private void ask(Actor actor, RoundView view, Ask ask, Optional<Access> heir) {
        // One person signs once in a round.
        Optional<Long> to = heir.map(Access::person)
                .filter(h -> view.round().asks().stream()
                        .noneMatch(a -> a.id() != ask.id()
                                && a.person().filter(p -> p.equals(h)).isPresent()))
                .filter(h -> view.round().signOffs().stream().noneMatch(x -> x.stands() && x.person() == h))
                .filter(h -> telling.signers(ask.line(), view.authors(), view.places()).stream()
                        .anyMatch(p -> p.id() == h));
        LocalDate today = views.today();
        LocalDate due = ask.due().isBefore(today) ? today : ask.due();
        boolean onlyThey = ask.line().who().kind() == Asked.Kind.PERSON;
        if (to.isEmpty() && onlyThey) {
            // Nobody else is asked by the rule: whoever sent it is told that it waits without end.
            tellWhenStuck(actor, view);
            return;
        }
        rounds.change(ask.id(), to, due);
        var after = rounds.round(view.round().id()).orElseThrow();
        after.waiting().stream()
                .filter(a -> a.id() == ask.id())
                .forEach(a -> telling.ask(actor, after, a, view.authors(), view.places(), after.note()));
        recorder.note(
                actor,
                view.lines().get(0).item().item(),
                "round.asked",
                "asked " + (to.isPresent() ? heir.orElseThrow().name() : ask.anybody()) + " to sign as "
                        + ask.line().meaning(),
                "");
        if (to.isEmpty()) tellWhenStuck(actor, view);
    }

    private void tellWhenStuck(Actor actor, RoundView view) {
        var first = view.lines().get(0);
        telling.tellWhenStuck(
                actor,
                rounds.round(view.round().id()).orElseThrow(),
                view.authors(),
                view.places(),
                first.item().item(),
                first.seen().document().number());
    }
}
