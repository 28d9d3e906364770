package mintshelf.app.sight;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.store.trial.TrialStore;
import mintshelf.app.store.trial.TrialStore.Line;
import mintshelf.app.store.trial.TrialStore.Trial;
import org.springframework.stereotype.Component;

/** Trials as a person may see them: of documents of which they see work in preparation. To others there are none. */
@Component
public class Trials {
    private final Sight sight;
    private final TrialStore trials;

    public Trials(Sight sight, TrialStore trials) {
        this.sight = sight;
        this.trials = trials;
    }

    /**
     * A document of a trial.
     *
     * @param original on its main line
     * @param tried the same on the line of the trial
     */
    public record Tried(Seen original, Seen tried, Line line) {
        public long item() {
            return line.item();
        }
    }

    /**
     * A trial with those of its documents that the person sees.
     *
     * @param hidden how many documents of it are not for their eyes: whoever sees some of it only looks on
     */
    public record Whole(Trial trial, List<Tried> lines, int hidden) {
        public boolean isWhole() {
            return hidden == 0;
        }

        /** The document that it is named by. */
        public Tried first() {
            return lines.get(0);
        }

        /** "t1 of TG40-3030 and 2 more". */
        public String of() {
            return trial.line() + " of " + first().original().document().number()
                    + (lines.size() == 1 ? "" : " and " + (lines.size() - 1) + " more");
        }

        public List<Long> items() {
            return lines.stream().map(Tried::item).toList();
        }
    }

    /** A trial; not there where the person works on none of its documents. */
    public Whole whole(Actor actor, long trial) {
        return whole(actor, trials.trial(trial).orElseThrow(NotThere::new));
    }

    private Whole whole(Actor actor, Trial trial) {
        return many(actor, List.of(trial)).stream().findFirst().orElseThrow(NotThere::new);
    }

    /**
     * A trial under the caller's transaction, with all its documents locked.
     *
     * @return as it stands now; not there for whoever does not see all of it
     */
    public Whole locked(Actor actor, long id) {
        List<Long> items = trials.linesOf(List.of(id)).stream().map(Line::item).toList();
        if (items.isEmpty()) throw new NotThere();
        // Documents first, as everywhere: two acts that meet never wait for each other in a ring.
        sight.locked(actor, items);
        Whole whole = whole(actor, trials.locked(id).orElseThrow(NotThere::new));
        if (!whole.isWhole()) throw new NotThere();
        return whole;
    }

    /** Trials with what the person sees of them, in their order; those of which they see nothing are left out. */
    public List<Whole> many(Actor actor, List<Trial> asked) {
        List<Line> lines = trials.linesOf(asked.stream().map(Trial::id).toList());
        Map<Long, Seen> seen = seen(actor, lines);
        List<Whole> all = new ArrayList<>();
        for (Trial trial : asked) {
            List<Line> its = lines.stream().filter(l -> l.trial() == trial.id()).toList();
            List<Tried> shown = its.stream()
                    .filter(l -> seen.containsKey(l.item()))
                    .map(l -> on(Optional.ofNullable(seen.get(l.item())).orElseThrow(), l))
                    .toList();
            if (!shown.isEmpty()) all.add(new Whole(trial, shown, its.size() - shown.size()));
        }
        return all;
    }

    private Map<Long, Seen> seen(Actor actor, Collection<Line> lines) {
        Map<Long, Seen> seen = new HashMap<>(
                sight.of(actor, lines.stream().map(Line::item).distinct().toList()));
        seen.values().removeIf(s -> !s.all());
        return seen;
    }

    /** The trials beside a document, the latest first. */
    public List<Whole> beside(Actor actor, long item) {
        List<Long> ids = trials.beside(List.of(item)).stream()
                .map(Line::trial)
                .distinct()
                .toList();
        if (ids.isEmpty()) return List.of();
        Map<Long, Trial> found = trials.trials(ids);
        return many(
                actor,
                found.values().stream()
                        .sorted((a, b) -> Long.compare(b.id(), a.id()))
                        .toList());
    }

    /** Trials under way on any of the documents, the latest first. */
    public List<Whole> underWay(Actor actor, Collection<Long> items) {
        List<Long> ids =
                trials.beside(items).stream().map(Line::trial).distinct().toList();
        if (ids.isEmpty()) return List.of();
        return many(
                actor,
                trials.trials(ids).values().stream()
                        .filter(Trial::isOpen)
                        .sorted((a, b) -> Long.compare(b.id(), a.id()))
                        .toList());
    }

    /** A document as it stands on the line of a trial. */
    public static Tried on(Seen original, Line line) {
        return new Tried(
                original,
                new Seen(
                        original.spine()
                                .onTrial(
                                        original.document()
                                                .onTrial(line.number(), line.id(), line.head(), line.holder()),
                                        line.content()),
                        original.all(),
                        original.revised()),
                line);
    }

    /**
     * Documents as they stand on the trial lines that these holds are of; by document, those alone.
     *
     * @param holds by document: a hold of another document's line is none of its own
     */
    public Map<Long, Tried> byHold(Map<Long, Seen> originals, Map<Long, Long> holds) {
        Map<Long, Tried> tried = new HashMap<>();
        trials.held(holds.values()).forEach((hold, line) -> {
            Seen original = originals.get(line.item());
            if (original != null && hold.equals(holds.get(line.item()))) tried.put(line.item(), on(original, line));
        });
        return tried;
    }

    /** A document on a line of its own, where that is the line of a trial; nothing for its main line. */
    public Optional<Tried> onLine(Seen original, long line) {
        return trials.beside(List.of(original.spine().id())).stream()
                .filter(l -> l.id() == line)
                .findFirst()
                .map(l -> on(original, l));
    }

    /**
     * Documents on the lines of trials, by document; those that the actor does not see at work are left out.
     *
     * @param lines ids of lines of trials, by document
     */
    public Map<Long, Tried> onLines(Map<Long, Seen> originals, Map<Long, Long> lines) {
        Map<Long, Tried> tried = new HashMap<>();
        if (lines.isEmpty()) return tried;
        trials.lines(lines.values()).forEach(line -> {
            Seen original = originals.get(line.item());
            if (original != null && original.all()) tried.put(line.item(), on(original, line));
        });
        return tried;
    }

    /** A document on the line of one of its trials, by its number; nothing where there is none under way, or not for these eyes. */
    public Optional<Tried> onTrial(Seen original, int number) {
        if (!original.all()) return Optional.empty();
        return trials.beside(List.of(original.spine().id())).stream()
                .filter(l -> l.number() == number)
                .filter(this::isUnderWay)
                .findFirst()
                .map(l -> on(original, l));
    }

    /** Whether the trial of a line is under way. */
    public boolean isUnderWay(Line line) {
        return trials.trial(line.trial()).filter(Trial::isOpen).isPresent();
    }

    /** What somebody holds on trials, of what the actor sees at work. */
    public List<Tried> heldBy(Actor actor, long person, int most) {
        List<Line> lines = trials.heldBy(person, most);
        Map<Long, Seen> seen = seen(actor, lines);
        return lines.stream()
                .filter(l -> seen.containsKey(l.item()))
                .map(l -> on(Optional.ofNullable(seen.get(l.item())).orElseThrow(), l))
                .toList();
    }

    /** Ids of the latest versions on the lines of a trial, by document: what stands in the place of the documents for who works on it. */
    public Map<Long, Long> heads(long trial) {
        Map<Long, Long> heads = new HashMap<>();
        trials.linesOf(List.of(trial)).stream()
                .filter(Line::begun)
                .forEach(l -> heads.put(l.item(), l.head().version()));
        return heads;
    }
}
