package mintshelf.app.use.change;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.effect.ChangePaper;
import mintshelf.app.effect.FilePaper;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Numbered;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.house.Kind;
import mintshelf.core.access.Right;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.change.PaperLine;
import mintshelf.core.change.PaperType;
import mintshelf.core.change.Priority;
import mintshelf.core.change.Sequence;
import mintshelf.core.numbering.NumberKey;
import org.springframework.stereotype.Service;

/** Makes change orders from selections, and changes their lines while they are outlined. */
@Service
public class AskForChange {
    /** Documents on one order. */
    public static final int MOST = 500;

    /** What an order says in short stands on every sheet that it revises. */
    private static final int SHORT = 72;

    private final Sight sight;
    private final Numbered numbered;
    private final PaperStore orders;
    private final OrderLines lines;
    private final ChangePaper papers;
    private final FilePaper file;
    private final Acts acts;
    private final Telling telling;
    private final Recorder recorder;

    public AskForChange(
            Sight sight,
            Numbered numbered,
            PaperStore orders,
            OrderLines lines,
            ChangePaper papers,
            FilePaper file,
            Acts acts,
            Telling telling,
            Recorder recorder) {
        this.sight = sight;
        this.numbered = numbered;
        this.orders = orders;
        this.lines = lines;
        this.papers = papers;
        this.file = file;
        this.acts = acts;
        this.telling = telling;
        this.recorder = recorder;
    }

    /**
     * A document that is asked about: what its line would be, or why it has none.
     *
     * @param ahead the open orders that it is on, the first one first: the new one would go after them
     */
    public record Row(Seen seen, Optional<PaperLine.What> what, Optional<Refusal> refusal, List<Sequence.Ahead> ahead) {
        /** Id of the order behind which it would go; 0 for none. */
        public long after() {
            return ahead.isEmpty() ? 0 : ahead.get(ahead.size() - 1).order();
        }

        /** Number of the order behind which it would go. */
        public String last() {
            return ahead.isEmpty() ? "" : ahead.get(ahead.size() - 1).number();
        }
    }

    /**
     * What is said of lines when they are put on an order.
     *
     * @param reasons why each is changed, by document; where empty the order's reason stands
     * @param after the order behind which each goes that is on an open one, by document
     * @param request one that the order takes up
     * @param kind code of the kind of a new order; empty for the house's first
     */
    public record Said(
            Map<Long, String> reasons, Map<Long, Long> after, Optional<Long> request, Optional<String> kind) {
        /** Of an order of the house's first kind. */
        public Said(Map<Long, String> reasons, Map<Long, Long> after, Optional<Long> request) {
            this(reasons, after, request, Optional.empty());
        }

        public static Said of(Map<Long, String> reasons) {
            return new Said(reasons, Map.of(), Optional.empty());
        }
    }

    /** Whether the paper is an order that takes more lines from the actor. */
    public boolean grows(Actor actor, Seen paper) {
        return paper.spine().isOrder()
                && papers.isOutlined(paper)
                && actor.access().may(Right.CHANGE, paper.document().place());
    }

    /** Orders that documents could still be put on: outlined ones, the latest first. */
    public List<Seen> outlined(Actor actor) {
        Map<Long, Seen> seen =
                new LinkedHashMap<>(sight.of(actor, orders.visible(actor.access(), Long.MAX_VALUE, 100)));
        return seen.values().stream()
                .filter(s -> s.all() && papers.isOutlined(s))
                .toList();
    }

    /** The kinds of papers of a type that the house has, the one that the actor used last first. */
    public List<Kind> kinds(Actor actor, PaperType type) {
        return file.kinds().offered(actor, type);
    }

    /**
     * The documents whose numbers somebody wrote, parted by lines, commas or semicolons, each once.
     *
     * @throws Refused with all numbers of which they see no document
     */
    public List<Long> named(Actor actor, String written) {
        List<String> numbers = Arrays.stream(written.split("[\\n,;]"))
                .map(Texts::line)
                .filter(n -> !n.isEmpty())
                .distinct()
                .limit(MOST + 1L)
                .toList();
        if (numbers.isEmpty() || numbers.size() > MOST) {
            throw Refused.because(
                    numbers.isEmpty() ? "number.missing" : "order.many",
                    numbers.isEmpty() ? "No number was written." : "More than " + MOST + " numbers were written.",
                    numbers.isEmpty() ? "Write one a line." : "Ask for them in portions.");
        }
        Map<String, Seen> found = numbered.named(actor, numbers);
        List<String> unknown =
                numbers.stream().filter(n -> !found.containsKey(n)).toList();
        if (!unknown.isEmpty()) {
            throw Refused.because(
                    "number.unknown",
                    "No document that you see has the number " + Texts.shorten(String.join(", ", unknown), 300) + ".",
                    "Correct it; go back to what you wrote.");
        }
        return numbers.stream().map(n -> found.get(n).spine().id()).distinct().toList();
    }

    /** What an order over these documents would hold. */
    public List<Row> plan(Actor actor, Collection<Long> items) {
        if (items.isEmpty() || items.size() > MOST) throw new NotThere();
        List<Seen> all = List.copyOf(sight.of(actor, items).values());
        if (all.isEmpty()) throw new NotThere();
        return lines.rows(actor, all);
    }

    /**
     * Opens an order over documents; all of them or none.
     *
     * @param reasons why each is changed, by document; where empty the order's reason stands
     * @return the address of the order
     */
    public String ask(
            Actor actor, Collection<Long> items, String key, String title, String reason, Map<Long, String> reasons) {
        return ask(actor, items, key, title, reason, Said.of(reasons));
    }

    /** As {@link #ask(Actor, Collection, String, String, String, Map)}. */
    public String ask(Actor actor, Collection<Long> items, String key, String title, String reason, Said said) {
        String named = Texts.required("In short", title, SHORT).orElseThrow(Refused::new);
        String why = Texts.optionalLines("The reason", reason, 2000).orElseThrow(Refused::new);
        if (why.isEmpty())
            throw Refused.because("text.missing", "The reason is empty.", "Say what is wrong or wanted.");
        if (items.isEmpty() || items.size() > MOST) throw new NotThere();
        return acts.once(actor, key, () -> {
            List<Row> rows = lines.rows(actor, sight.locked(actor, items));
            Kind kind = file.kinds().of(PaperType.ORDER, said.kind());
            long shelf = rows.get(0).seen().document().place().shelf();
            NumberKey number = file.number(kind, shelf);
            long order = file.file(
                    actor,
                    kind,
                    shelf,
                    number,
                    named,
                    number.number() + ".json",
                    papers.begun(PaperType.ORDER, number.number(), named, why),
                    "opened");
            orders.add(order, PaperType.ORDER, why, "", Priority.USUAL);
            said.request().ifPresent(r -> lines.takeUp(actor, order, number.number(), r));
            lines.add(actor, order, number.number(), 1, rows, said.reasons(), said.after());
            papers.write(actor, actor.person(), order, "wrote its lines");
            recorder.recent(actor, order, "opened");
            recorder.note(
                    actor,
                    order,
                    "order.opened",
                    "opened " + number.number() + " over " + Numbers.count(rows.size(), "document", "documents"),
                    Texts.shorten(why, 500));
            List<Long> board = telling.withRole(
                    "board-member",
                    rows.stream().map(r -> r.seen().document().place()).toList());
            telling.tell(
                    actor,
                    board,
                    "order.asked",
                    Optional.empty(),
                    order,
                    actor.name() + " asks for " + number.number() + " " + named
                            + (rows.stream().allMatch(r -> r.ahead().isEmpty())
                                    ? ": start the work, or stop it"
                                    : ": it waits for another order first"),
                    "/orders/" + order);
            return "/orders/" + order;
        });
    }

    /** Puts more documents on an outlined order. */
    public String addTo(Actor actor, long order, Collection<Long> items, String key, Map<Long, String> reasons) {
        return addTo(actor, order, items, key, Said.of(reasons));
    }

    /** As {@link #addTo(Actor, long, Collection, String, Map)}. Those that are lines already stay. */
    public String addTo(Actor actor, long order, Collection<Long> items, String key, Said said) {
        return acts.once(actor, key, () -> {
            List<Long> all = new ArrayList<>(items);
            all.add(order);
            List<Seen> locked = sight.lockedWithPapers(actor, all);
            Seen paper = papers.outlined(actor, locked, order);
            List<PaperLine> there = orders.lines(order);
            Set<Long> named = there.stream().map(PaperLine::item).collect(Collectors.toSet());
            List<Row> rows = lines.rows(
                    actor,
                    locked.stream()
                            .filter(s -> s.spine().id() != order
                                    && !named.contains(s.spine().id()))
                            .toList());
            int position = there.stream().mapToInt(PaperLine::position).max().orElse(0) + 1;
            if (there.size() + rows.size() > MOST) {
                throw Refused.because(
                        "order.many",
                        "An order has " + MOST + " documents at most.",
                        "Put the rest on another one; nothing was added.");
            }
            String number = paper.document().number();
            said.request().ifPresent(r -> lines.takeUp(actor, order, number, r));
            lines.add(actor, order, number, position, rows, said.reasons(), said.after());
            papers.write(actor, actor.person(), order, "added lines");
            return "/orders/" + order;
        });
    }
}
