package mintshelf.app.use.change;

import java.time.Clock;
import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.setup.Settings;
import mintshelf.app.sight.RoundSight;
import mintshelf.app.sight.RoundSight.RoundView;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.FlowStore;
import mintshelf.app.store.change.PaperStore;
import mintshelf.core.change.Flow;
import mintshelf.core.change.LineState;
import mintshelf.core.change.OrderRules;
import mintshelf.core.change.Pace;
import mintshelf.core.change.PaperLine;
import mintshelf.core.change.PaperType;
import mintshelf.core.revision.StageClass;
import mintshelf.core.signoff.Ask;
import org.springframework.stereotype.Service;

/** Requests and orders as a list, by where they stand. */
@Service
public class ReadChanges {
    /** Sheets that a row shows: a change is known by its parts. */
    private static final int SHEETS = 3;

    /** Papers that are looked at for whether their board is late. */
    private static final int MOST_LATE = 500;

    private final PaperStore papers;
    private final FlowStore flow;
    private final Sight sight;
    private final RoundSight rounds;
    private final Settings settings;
    private final Clock clock;

    public ReadChanges(
            PaperStore papers, FlowStore flow, Sight sight, RoundSight rounds, Settings settings, Clock clock) {
        this.papers = papers;
        this.flow = flow;
        this.sight = sight;
        this.rounds = rounds;
        this.settings = settings;
        this.clock = clock;
    }

    /** What of the papers is listed. */
    public enum Which {
        OPEN("open"),
        MINE("mine"),
        TO_DECIDE("to decide"),
        OVERDUE("overdue"),
        DONE("accepted or carried out"),
        ENDED("declined or stopped"),
        EVERYTHING("everything");

        private final String words;

        Which(String words) {
            this.words = words;
        }

        /** The classes of the stages in which they are; all where it is empty. */
        Set<StageClass> stands() {
            return switch (this) {
                case OPEN, MINE -> EnumSet.of(StageClass.DECIDING, StageClass.PREPARING);
                case TO_DECIDE, OVERDUE -> EnumSet.of(StageClass.DECIDING);
                case DONE -> EnumSet.of(StageClass.RELEASED);
                case ENDED -> EnumSet.of(StageClass.CLOSED);
                case EVERYTHING -> EnumSet.noneOf(StageClass.class);
            };
        }

        public String words() {
            return words;
        }
    }

    /**
     * A paper in the list.
     *
     * @param sheets of its documents that the actor may see, {@code more} besides
     * @param waits whom it waits for; empty where it waits for nobody by name
     * @param yours whether the actor is asked
     * @param days since it came to its stage
     * @param due how many days it is over its day; 0 where it is not, or has none
     */
    public record Row(
            Seen seen,
            PaperStore.Paper paper,
            FlowStore.Listed listed,
            List<Seen> sheets,
            int more,
            int lines,
            int done,
            String waits,
            boolean yours,
            long days,
            long due) {
        public boolean isOrder() {
            return paper.type() == PaperType.ORDER;
        }
    }

    /** Rows that stand alike, in their order. */
    public record Group(String stage, StageClass stands, List<Row> rows) {}

    /** @param counts of each choice */
    public record View(List<Group> groups, Map<Which, Integer> counts, boolean more) {}

    /**
     * The flow of the papers that the actor may see, over the last weeks.
     *
     * @param shelf of one product; empty for all
     */
    public Flow flow(Actor actor, int weeks, Optional<Long> shelf) {
        LocalDate today = LocalDate.ofInstant(clock.instant(), settings.zone());
        return Flow.of(flow.spans(actor.access(), first(today, weeks), settings.zone(), shelf), today, weeks);
    }

    /** The start of the Monday with which as many weeks begin, this one among them. */
    private Instant first(LocalDate today, int weeks) {
        return today.with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY))
                .minusWeeks(weeks - 1L)
                .atStartOfDay(settings.zone())
                .toInstant();
    }

    /**
     * How long those papers stayed at each of their stages; into how many parts the time is cut is {@code parts}, which has to divide
     * the weeks or lies near.
     */
    public List<Pace> pace(Actor actor, int weeks, int parts, Optional<Long> shelf) {
        LocalDate today = LocalDate.ofInstant(clock.instant(), settings.zone());
        int days = Math.max(1, (weeks * 7 + parts - 1) / parts);
        return Pace.of(flow.stays(actor.access(), first(today, weeks), days, shelf), parts);
    }

    /** The products that papers of the actor's sight are of: the names of their shelves by id. */
    public Map<Long, String> products(Actor actor) {
        return flow.products(actor.access());
    }

    public View list(Actor actor, Which which, int page, int most) {
        Set<Long> toDecide = new HashSet<>();
        List<RoundView> waiting = rounds.waitingFor(actor);
        waiting.forEach(v -> v.lines().stream()
                .filter(l -> l.seen().spine().isOrder() || l.seen().spine().isRequest())
                .forEach(l -> toDecide.add(l.item().item())));
        Set<Long> late = late(actor);
        FlowStore.Chosen chosen = switch (which) {
            case MINE -> new FlowStore.Chosen.Of(actor.person());
            case TO_DECIDE -> new FlowStore.Chosen.These(toDecide);
            case OVERDUE -> new FlowStore.Chosen.These(late);
            default -> new FlowStore.Chosen.At(which.stands());
        };
        List<FlowStore.Listed> all = flow.listed(actor.access(), chosen, page * most, most + 1);
        boolean more = all.size() > most;
        List<Row> rows = rows(actor, more ? all.subList(0, most) : all, toDecide);
        Map<String, List<Row>> byStage = new LinkedHashMap<>();
        rows.forEach(r -> byStage.computeIfAbsent(r.listed().stage(), s -> new ArrayList<>())
                .add(r));
        List<Group> groups = new ArrayList<>();
        byStage.forEach(
                (stage, own) -> groups.add(new Group(stage, own.get(0).listed().stands(), own)));
        return new View(groups, counts(actor, toDecide.size(), late.size()), more);
    }

    /** Papers of which somebody who is asked now was to answer before today. */
    private Set<Long> late(Actor actor) {
        LocalDate today = LocalDate.ofInstant(clock.instant(), settings.zone());
        List<Long> perhaps = flow.perhapsLate(actor.access(), today, MOST_LATE);
        Set<Long> late = new HashSet<>();
        if (perhaps.isEmpty()) return late;
        rounds.ofDocuments(actor, perhaps).forEach((item, view) -> {
            if (open(view).filter(a -> a.due().isBefore(today)).isPresent()) late.add(item);
        });
        return late;
    }

    private Map<Which, Integer> counts(Actor actor, int toDecide, int late) {
        List<FlowStore.Count> known = flow.counts(actor.access());
        Map<Which, Integer> counts = new LinkedHashMap<>();
        for (Which which : Which.values()) {
            int count = known.stream()
                    .filter(c -> which.stands().isEmpty() || which.stands().contains(c.stands()))
                    .mapToInt(c -> which == Which.MINE ? c.mine() : c.all())
                    .sum();
            counts.put(
                    which,
                    switch (which) {
                        case TO_DECIDE -> toDecide;
                        case OVERDUE -> late;
                        default -> count;
                    });
        }
        return counts;
    }

    private List<Row> rows(Actor actor, List<FlowStore.Listed> all, Set<Long> toDecide) {
        List<Long> ids = all.stream().map(FlowStore.Listed::item).toList();
        Map<Long, Seen> seen = sight.of(actor, ids);
        Map<Long, PaperStore.Paper> said = papers.papers(ids);
        Map<Long, List<PaperLine>> lines = papers.lines(ids);
        Set<Long> items = new HashSet<>();
        lines.values().forEach(list -> list.forEach(l -> items.add(l.item())));
        Map<Long, Seen> documents = sight.of(actor, items);
        Map<Long, RoundView> board = rounds.ofDocuments(
                actor,
                all.stream()
                        .filter(l -> l.stands() == StageClass.DECIDING)
                        .map(FlowStore.Listed::item)
                        .filter(i -> seen.containsKey(i) && seen.get(i).all())
                        .toList());
        LocalDate today = LocalDate.ofInstant(clock.instant(), settings.zone());
        List<Row> rows = new ArrayList<>();
        for (FlowStore.Listed listed : all) {
            if (!seen.containsKey(listed.item())) continue;
            List<PaperLine> own = lines.getOrDefault(listed.item(), List.of());
            List<Seen> sheets = own.stream()
                    .map(l -> documents.get(l.item()))
                    .filter(s -> s != null)
                    .limit(SHEETS)
                    .toList();
            Optional<RoundView> round = Optional.ofNullable(board.get(listed.item()));
            Optional<Ask> next = round.flatMap(ReadChanges::open);
            rows.add(new Row(
                    seen.get(listed.item()),
                    said.get(listed.item()),
                    listed,
                    sheets,
                    own.size() - sheets.size(),
                    own.size(),
                    done(own, documents),
                    toDecide.contains(listed.item())
                            ? "you"
                            : next.map(Ask::whom).orElse(""),
                    toDecide.contains(listed.item()),
                    today.toEpochDay()
                            - LocalDate.ofInstant(listed.since(), settings.zone())
                                    .toEpochDay(),
                    next.map(a -> Math.max(0, today.toEpochDay() - a.due().toEpochDay()))
                            .orElse(0L)));
        }
        return rows;
    }

    /** The first of those who are asked now. */
    private static Optional<Ask> open(RoundView view) {
        return view.round().waiting().stream().findFirst();
    }

    private static int done(List<PaperLine> lines, Map<Long, Seen> documents) {
        int done = 0;
        for (PaperLine line : lines) {
            Seen document = documents.get(line.item());
            if (document == null) continue;
            LineState state = OrderRules.state(line, document.document(), List.of());
            if (state.isDone()) done++;
        }
        return done;
    }
}
