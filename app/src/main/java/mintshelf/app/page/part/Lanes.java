package mintshelf.app.page.part;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import mintshelf.app.page.RevisionLook;
import mintshelf.app.page.Words;
import mintshelf.app.store.document.RevisionRow;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.use.document.ReadDocument;

/**
 * What bears one number, line below line on one axis of time: versions where they came, revisions while they were in force or are under way. Where
 * several came into force at one moment a bar goes across them.
 *
 * @param width of the drawing in its own units
 */
public record Lanes(int width, int height, List<Tick> ticks, List<Lane> lanes, List<Across> across) {
    private static final int WIDTH = 1236;
    private static final int LEFT = 92;
    private static final int RIGHT = 56;
    private static final int TOP = 20;
    private static final int STEP = 20;
    private static final int MOST_TICKS = 9;
    /** Versions of one line that are drawn; older ones are in its own strip. */
    static final int MOST = 200;

    private static final DateTimeFormatter MONTH = DateTimeFormatter.ofPattern("MMM", Locale.ENGLISH);
    private static final DateTimeFormatter MONTH_OF_YEAR = DateTimeFormatter.ofPattern("MMM yyyy", Locale.ENGLISH);
    /** Steps between marks of the axis, in months. */
    private static final List<Integer> STEPS = List.of(1, 2, 3, 6, 12, 24, 60, 120);

    public record Tick(int x, String label) {}

    /** A line with its bars, and its versions from the left. */
    public record Lane(String name, int y, List<Bar> bars, List<Stop> stops) {}

    public record Bar(int x, int width, String label, String look, String says) {
        /** Whether its label has room in it. */
        public boolean isWide() {
            return width > 14 + 8 * label.length();
        }
    }

    public record Stop(int x, int number, boolean head, boolean released, String says, String href) {}

    /** From the upper line to the lower one at a moment at which all between came into force. */
    public record Across(int x, int from, int to) {}

    static Lanes of(Map<String, ReadDocument.View> views, Words words) {
        Instant from = views.values().stream()
                .flatMap(v -> v.versions().stream())
                .map(VersionRow::at)
                .min(Comparator.naturalOrder())
                .orElse(words.now());
        // It moves with the hour, so that two answers of one minute are alike.
        Instant now = words.now().truncatedTo(ChronoUnit.HOURS).plus(1, ChronoUnit.HOURS);
        long least = Duration.ofDays(8).toSeconds();
        long span = Math.max(least, Duration.between(from, now).toSeconds());
        Axis axis = new Axis(now.minusSeconds(span + span / 40), now);
        List<Lane> lanes = new ArrayList<>();
        Map<Integer, List<Integer>> begun = new TreeMap<>();
        int y = TOP + STEP / 2;
        for (Map.Entry<String, ReadDocument.View> one : views.entrySet()) {
            List<Bar> bars = bars(one.getValue().revisions(), axis, words);
            int at = y;
            bars.stream()
                    .filter(b -> b.look().equals("released") || b.look().equals("superseded"))
                    .map(Bar::x)
                    .distinct()
                    .forEach(x ->
                            begun.computeIfAbsent(x, k -> new ArrayList<>()).add(at));
            lanes.add(new Lane(one.getKey(), y, bars, stops(one.getValue(), axis, words)));
            y += STEP;
        }
        List<Across> across = new ArrayList<>();
        begun.forEach((x, at) -> {
            if (at.size() > 1) across.add(new Across(x, at.get(0), at.get(at.size() - 1)));
        });
        return new Lanes(WIDTH, y, ticks(axis, words), lanes, across);
    }

    private record Axis(Instant from, Instant to) {
        int x(Instant at) {
            double part = (double) Duration.between(from, at).toSeconds()
                    / Duration.between(from, to).toSeconds();
            return (int) Math.round(LEFT + Math.min(1, Math.max(0, part)) * (WIDTH - LEFT - RIGHT));
        }
    }

    private static List<Bar> bars(List<RevisionRow> revisions, Axis axis, Words words) {
        List<Bar> bars = new ArrayList<>();
        for (RevisionRow r : revisions) {
            Instant begin = r.releasedAt().orElse(r.revision().startedAt());
            Instant end = end(r, revisions).orElse(axis.to());
            String look = RevisionLook.of(r);
            int x = axis.x(begin);
            // What is in force goes on as a thin line below the revision that is under way.
            Optional<Instant> next = r.revision().released()
                    ? revisions.stream()
                            .filter(o -> o.revision().pending())
                            .map(o -> o.revision().startedAt())
                            .filter(at -> at.isAfter(begin))
                            .findFirst()
                    : Optional.empty();
            if (next.isPresent()) {
                int on = axis.x(next.get());
                bars.add(new Bar(
                        on,
                        Math.max(1, axis.x(end) - on),
                        "",
                        "goes-on",
                        r.revision().shown() + " in force"));
                end = next.get();
            }
            bars.add(new Bar(
                    x,
                    Math.max(6, axis.x(end) - x),
                    r.revision().shown(),
                    look,
                    r.revision().shown() + ", "
                            + r.releasedAt()
                                    .map(at -> "released " + words.shortly(at))
                                    .orElse("begun "
                                            + words.shortly(r.revision().startedAt()))
                            + (look.equals("withdrawn") ? ", withdrawn " + words.shortly(r.stageSince()) : "")));
        }
        return bars;
    }

    /** What is in force or under way has no end yet; what was replaced ends with what replaced it. */
    private static Optional<Instant> end(RevisionRow r, Collection<RevisionRow> all) {
        if (r.revision().pending() || r.revision().released()) return Optional.empty();
        return r.releasedAt()
                .flatMap(own -> all.stream()
                        .flatMap(o -> o.releasedAt().stream())
                        .filter(at -> at.isAfter(own))
                        .min(Comparator.naturalOrder()))
                .or(() -> Optional.of(r.stageSince()));
    }

    private static List<Stop> stops(ReadDocument.View view, Axis axis, Words words) {
        List<VersionRow> all = view.versions();
        long item = view.seen().spine().id();
        return all.subList(Math.max(0, all.size() - MOST), all.size()).stream()
                .map(v -> new Stop(
                        axis.x(v.at()),
                        v.number(),
                        v.number() == view.seen().version(),
                        view.revisions().stream()
                                .anyMatch(r -> r.releasedVersion()
                                        .filter(n -> n == v.number())
                                        .isPresent()),
                        "Version " + v.number() + ", " + v.by() + ", " + words.moment(v.at()) + ": "
                                + words.firstLine(v.comment()),
                        "/documents/" + item + "?version=" + v.number()))
                .toList();
    }

    private static List<Tick> ticks(Axis axis, Words words) {
        LocalDate first = axis.from().atZone(words.zone()).toLocalDate();
        LocalDate last = words.today();
        long months = Math.max(1, ChronoUnit.MONTHS.between(first, last));
        int step =
                STEPS.stream().filter(s -> months / s <= MOST_TICKS).findFirst().orElse(240);
        LocalDate at = first.withDayOfMonth(1);
        while (!at.isAfter(first) || (at.getYear() * 12 + at.getMonthValue() - 1) % step != 0) at = at.plusMonths(1);
        List<Tick> ticks = new ArrayList<>();
        for (; !at.isAfter(last); at = at.plusMonths(step)) {
            int x = axis.x(at.atStartOfDay(words.zone()).toInstant());
            boolean year = ticks.isEmpty() || at.getMonthValue() == 1;
            // The last one leaves room for the word at the end.
            if (x < WIDTH - RIGHT - 60) ticks.add(new Tick(x, (year ? MONTH_OF_YEAR : MONTH).format(at)));
        }
        return ticks;
    }
}
