package mintshelf.app.use.change;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Stream;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.Cases;
import mintshelf.app.sight.OnOrders;
import mintshelf.app.sight.Requests;
import mintshelf.app.sight.RoundSight;
import mintshelf.app.sight.RoundSight.RoundView;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.change.SequenceStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.core.access.Right;
import mintshelf.core.change.Job;
import mintshelf.core.change.LineState;
import mintshelf.core.change.OrderRules;
import mintshelf.core.change.PaperLine;
import mintshelf.core.change.Sequence;
import mintshelf.core.hold.HoldRules;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Move;
import mintshelf.core.route.Route;
import mintshelf.core.signoff.Round;
import org.springframework.stereotype.Service;

/** Change orders as their pages show them. */
@Service
public class ReadOrders {
    private final PaperStore orders;
    private final Sight sight;
    private final Cases cases;
    private final HouseStore house;
    private final RoundSight rounds;
    private final OnOrders goals;
    private final Requests requests;
    private final LineFacts facts;
    private final SequenceStore sequence;

    public ReadOrders(
            PaperStore orders,
            Sight sight,
            Cases cases,
            HouseStore house,
            RoundSight rounds,
            OnOrders goals,
            Requests requests,
            LineFacts facts,
            SequenceStore sequence) {
        this.orders = orders;
        this.sight = sight;
        this.cases = cases;
        this.house = house;
        this.rounds = rounds;
        this.goals = goals;
        this.requests = requests;
        this.facts = facts;
        this.sequence = sequence;
    }

    /**
     * A line as a person sees it.
     *
     * @param seen empty for a document that they may not see: the line then names nothing of it
     * @param instead what takes the place of one that is withdrawn, where they may see it
     * @param ahead the open orders that go before it on its document, as they are seen
     * @param facts what changes of a line that changes facts only, in words
     * @param variants that the line is about; empty for all of it
     * @param describes the variants that it could be about
     * @param compared the new one beside the old one; nothing while there is nothing new, or for one who may not see it
     */
    public record LineView(
            PaperLine line,
            Optional<Seen> seen,
            String from,
            String to,
            LineState state,
            Optional<Seen> instead,
            List<Seen> ahead,
            Optional<Compared> compared,
            List<String> facts,
            List<String> variants,
            List<String> describes) {}

    /** Two versions of a document beside each other: the one that an order has made of it, and what it began from. */
    public record Compared(long item, int now, int old) {
        /** Where they are looked at. */
        public String page() {
            return version() + "/compare?old=" + old;
        }

        /** Where what differs on the sheet is told in short. */
        public String differences() {
            return version() + "/differences?old=" + old;
        }

        /** Where it is told in short what differs of what the document consists of. */
        public String parts() {
            return "/documents/" + item + "/bom/changed?version=" + now + "&old=" + old;
        }

        private String version() {
            return "/documents/" + item + "/versions/" + now;
        }
    }

    /**
     * An order with all that its page shows.
     *
     * @param board its rounds, the latest first; only for who sees work in preparation
     * @param notice what it made
     */
    public record View(
            Seen seen,
            PaperStore.Paper order,
            Route route,
            List<LineView> lines,
            List<RoundView> board,
            Optional<Seen> notice) {
        public long done() {
            return lines.stream().filter(l -> l.state().isDone()).count();
        }

        public long ready() {
            return lines.stream().filter(l -> l.state().step() >= 2).count();
        }

        public String stage() {
            return seen.current().stage().code();
        }

        /** Whether other orders go before it on one of its documents: its work does not start yet. */
        public boolean waits() {
            return lines.stream().anyMatch(l -> l.line().waits());
        }

        /** A mark of how far all lines are: a page that follows changes when it does. */
        public String mark() {
            StringBuilder mark = new StringBuilder(stage());
            lines.forEach(l -> mark.append('|').append(l.state().says()).append(l.to()));
            return Integer.toHexString(mark.toString().hashCode());
        }
    }

    /**
     * What an order offers a person now: what its stage knows, and whether their rights make it.
     *
     * @param starts whether its work starts next
     * @param signed whether the board has signed and somebody may carry it out
     * @param gives whether they may give jobs over its lines
     */
    public record Offers(
            boolean edits,
            boolean starts,
            boolean mayStart,
            boolean asksBoard,
            boolean carries,
            boolean mayCarry,
            boolean signed,
            boolean mayStop,
            boolean takesBack,
            boolean gives) {}

    /** Each move asks for the right that its route says. */
    public Offers offers(Actor actor, View view) {
        boolean all = view.seen().all();
        Optional<Move> start = view.route().doing(Effect.START_LINES, view.stage());
        Optional<Move> board = view.route().doing(Effect.OPEN_ROUND, view.stage());
        Optional<Move> carry = view.route().doing(Effect.RELEASE_LINES, view.stage());
        Optional<Move> stop = view.route().from(view.stage()).stream()
                .filter(m -> view.route().stage(m.to()).stageClass() == StageClass.CLOSED)
                .findFirst();
        Optional<Move> back = view.route().doing(Effect.END_ROUND, view.stage());
        boolean signed = !view.board().isEmpty() && view.board().get(0).round().state() == Round.State.SIGNED;
        return new Offers(
                all
                        && start.isPresent()
                        && actor.access()
                                .may(Right.CHANGE, view.seen().document().place()),
                all && start.isPresent(),
                all && !view.waits() && makes(actor, view, start),
                all && makes(actor, view, board),
                all && carry.isPresent(),
                all && signed && makes(actor, view, carry),
                signed,
                all && makes(actor, view, stop),
                all && makes(actor, view, back),
                all
                        && view.seen().current().stage().stageClass().isPending()
                        && Job.mayGive(actor.access(), view.seen().document().place()));
    }

    /** The documents of an order whose work has begun and is not ready, that nobody holds and that the actor may check out. */
    public List<Seen> takeable(Actor actor, View view) {
        return view.lines().stream()
                .filter(l -> l.line().toRevision().isPresent() && !l.state().isReady())
                .flatMap(l -> l.seen().stream())
                .filter(s -> s.all()
                        && HoldRules.checkOut(s.document(), actor.access()).isEmpty())
                .toList();
    }

    private static boolean makes(Actor actor, View view, Optional<Move> move) {
        return move.filter(
                        m -> actor.access().may(m.who(), view.seen().document().place()))
                .isPresent();
    }

    public View order(Actor actor, long id) {
        Seen seen = sight.of(actor, id);
        PaperStore.Paper order = orders.order(id).orElseThrow(NotThere::new);
        List<PaperLine> lines = orders.lines(id);
        List<Long> ids = new ArrayList<>();
        lines.forEach(l -> {
            ids.add(l.item());
            l.successor().ifPresent(ids::add);
        });
        order.notice().ifPresent(ids::add);
        Map<Long, Seen> documents = sight.of(actor, ids);
        List<RoundView> board = seen.all() ? rounds.historyOf(actor, id, 20) : List.of();
        return new View(
                seen,
                order,
                house.edition(seen.current().stage().edition()),
                oneBehindTheOther(lines(actor, id, lines, documents)),
                board,
                order.notice().map(documents::get));
    }

    private List<LineView> lines(Actor actor, long order, List<PaperLine> lines, Map<Long, Seen> seen) {
        Map<Long, List<String>> changing = facts.says(order, lines, seen);
        Map<Long, LineVariants.Of> variants = facts.variants(order, lines, seen);
        Map<Long, String> labels = this.orders.labels(lines.stream()
                .flatMap(l -> Stream.concat(l.fromRevision().stream(), l.toRevision().stream()))
                .toList());
        Map<Long, List<String>> empty = cases.emptyFacts(
                seen.values().stream().filter(Seen::all).map(Seen::document).toList());
        Map<Long, List<Sequence.Ahead>> before = sequence.before(lines);
        Map<Long, Seen> orders = sight.of(
                actor,
                before.values().stream()
                        .flatMap(List::stream)
                        .map(Sequence.Ahead::order)
                        .distinct()
                        .toList());
        Map<Long, Integer> released = this.orders.releasedWith(lines.stream()
                .flatMap(l -> Stream.concat(l.fromRevision().stream(), l.toRevision().stream()))
                .toList());
        List<LineView> shown = new ArrayList<>();
        for (PaperLine line : lines) {
            Optional<Seen> one = Optional.ofNullable(seen.get(line.item()));
            LineVariants.Of about = variants.getOrDefault(line.item(), LineVariants.Of.NONE);
            LineState state = one.filter(Seen::all)
                    .map(s -> OrderRules.state(
                            line,
                            s.document(),
                            empty.getOrDefault(line.item(), List.of()),
                            !changing.getOrDefault(line.item(), List.of()).isEmpty()))
                    .orElseGet(
                            () -> one.isPresent() ? new LineState(LineState.LAST, "released") : new LineState(0, ""));
            shown.add(new LineView(
                    line,
                    one,
                    line.fromRevision().map(labels::get).orElse("–"),
                    line.withdraws()
                            ? "ends"
                            : line.factsOnly()
                                    ? line.fromRevision().map(labels::get).orElse("–")
                                    : line.toRevision().map(labels::get).orElse("next"),
                    state,
                    line.successor().map(seen::get),
                    before.getOrDefault(line.item(), List.of()).stream()
                            .map(a -> orders.get(a.order()))
                            .filter(Objects::nonNull)
                            .toList(),
                    one.filter(Seen::all).flatMap(s -> compared(line, s, released)),
                    changing.getOrDefault(line.item(), List.of()),
                    about.named(),
                    about.describes()));
        }
        return shown;
    }

    /** What bears one number stands together: a drawing and its model are one thing. */
    private static List<LineView> oneBehindTheOther(List<LineView> lines) {
        Map<String, List<LineView>> byNumber = new LinkedHashMap<>();
        for (LineView line : lines) {
            String number = line.seen()
                    .map(s -> s.document().number())
                    .orElse("hidden " + line.line().item());
            byNumber.computeIfAbsent(number, n -> new ArrayList<>()).add(line);
        }
        return byNumber.values().stream().flatMap(List::stream).toList();
    }

    /** The old one beside what its order released, or beside what is there of it now. */
    private static Optional<Compared> compared(PaperLine line, Seen seen, Map<Long, Integer> released) {
        Optional<Integer> old = line.fromRevision().map(released::get);
        if (old.isEmpty() || line.toRevision().isEmpty()) return Optional.empty();
        Optional<Integer> out = line.toRevision().map(released::get);
        boolean here = seen.document().head().revision() == line.toRevision().get();
        if (out.isEmpty() && !here) return Optional.empty();
        int fresh = out.orElse(seen.document().head().number());
        return fresh <= old.get()
                ? Optional.empty()
                : Optional.of(new Compared(seen.spine().id(), fresh, old.get()));
    }

    /** A change of a document: its order, and what that does or did. */
    public record ChangeOf(Seen order, PaperStore.Done done) {
        /** As in "B by", "withdrawn by", "goes on with". */
        public String says() {
            boolean ended = order.current().stage().stageClass() == StageClass.CLOSED;
            if (ended) return "not by";
            if (done.turn() > 1) return "later by";
            boolean out = done.turn() == 0;
            if (done.what() == PaperLine.What.WITHDRAW) return out ? "withdrawn by" : "is to be withdrawn by";
            if (done.what() == PaperLine.What.FACTS) return out ? "facts changed by" : "facts are to be changed by";
            if (done.label().isEmpty()) return "next by";
            return done.label() + " by";
        }
    }

    /** The orders that a document is or was on, that the actor may see, the latest first. */
    public List<ChangeOf> of(Actor actor, long document) {
        List<PaperStore.Done> all = orders.of(document, 10);
        Map<Long, Seen> seen =
                sight.of(actor, all.stream().map(PaperStore.Done::order).toList());
        return all.stream()
                .filter(d -> seen.containsKey(d.order()))
                .map(d -> new ChangeOf(seen.get(d.order()), d))
                .toList();
    }

    /** The rounds in which these papers wait for the actor's decision, by paper. */
    public Map<Long, Long> waiting(Actor actor, Collection<Long> papers) {
        Map<Long, Long> waiting = new HashMap<>();
        rounds.ofDocuments(actor, papers).forEach((paper, view) -> {
            if (view.mine().isPresent()) waiting.put(paper, view.round().id());
        });
        return waiting;
    }

    /** The open requests on a document that the actor may see. */
    public List<Seen> requests(Actor actor, long document) {
        return requests.openOn(actor, List.of(document)).getOrDefault(document, List.of());
    }

    /** The requests that an order has taken up, that the actor may see. */
    public List<Seen> takenUp(Actor actor, long order) {
        return goals.taken(actor, order);
    }

    /** The goals of those requests, and what the order shows for them. */
    public List<OnOrders.GoalView> goals(Actor actor, long order) {
        return goals.goalsOf(actor, order);
    }

    public Seen paper(Actor actor, long id) {
        return sight.of(actor, id);
    }

    /** The order that made a notice. */
    public Optional<Long> ofNotice(long notice) {
        return orders.ofNotice(notice);
    }
}
