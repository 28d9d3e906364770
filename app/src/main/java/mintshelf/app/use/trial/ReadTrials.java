package mintshelf.app.use.trial;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.ModelFormat;
import mintshelf.app.sight.PdfSheets;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.sight.Trials;
import mintshelf.app.sight.Trials.Tried;
import mintshelf.app.sight.Trials.Whole;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.trial.OpinionStore;
import mintshelf.app.store.trial.TrialStore;
import mintshelf.app.store.trial.TrialStore.Line;
import mintshelf.app.store.trial.TrialStore.State;
import mintshelf.app.store.trial.TrialStore.Trial;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.content.ContentKind;
import org.springframework.stereotype.Service;

/** Trials as their pages show them. */
@Service
public class ReadTrials {
    /** Rounds of a trial that its page shows. */
    private static final int ROUNDS = 20;

    /** Trials that are read at once for a list, of which those that the person sees are shown. */
    private static final int AT_ONCE = 100;

    private final Trials trials;
    private final TrialStore store;
    private final OpinionStore opinions;
    private final VersionStore versions;
    private final Sight sight;
    private final AskOpinions ask;

    public ReadTrials(
            Trials trials,
            TrialStore store,
            OpinionStore opinions,
            VersionStore versions,
            Sight sight,
            AskOpinions ask) {
        this.trials = trials;
        this.store = store;
        this.opinions = opinions;
        this.versions = versions;
        this.sight = sight;
        this.ask = ask;
    }

    /**
     * A document on the page of a trial.
     *
     * @param versions on its line, the oldest first
     * @param since how many versions of the original came since the trial began
     * @param checkOut what is in the way of checking it out
     * @param mayBreak whether the actor may end the hold that somebody else has on it
     */
    public record Row(
            Tried tried,
            List<VersionRow> versions,
            int since,
            Optional<Refusal> checkOut,
            boolean mine,
            boolean mayBreak) {
        /** The last part of the address at which a version is looked at; empty where nothing shows it large. */
        public String look(VersionRow version) {
            if (ModelFormat.of(version).isPresent()) return "model";
            StoredContent content = version.drawn().content();
            return content.kind() == ContentKind.DXF || PdfSheets.isPaper(content) ? "sheet" : "";
        }
    }

    /**
     * @param rounds the latest first
     * @param asked whether the actor is asked what they think of it
     * @param adopts whether it is offered to the actor to adopt it: who may change all of its documents, once there is something
     */
    public record View(
            Whole whole,
            List<Row> rows,
            List<OpinionStore.Round> rounds,
            boolean asked,
            boolean adopts,
            Optional<Refusal> drop,
            Optional<Refusal> ask) {
        public boolean holdsAny() {
            return rows.stream().anyMatch(Row::mine);
        }

        /** Documents that the actor could check out now. */
        public List<Long> free() {
            return rows.stream()
                    .filter(r -> r.checkOut().isEmpty())
                    .map(r -> r.tried().item())
                    .toList();
        }

        public Optional<OpinionStore.Round> open() {
            return rounds.stream().filter(OpinionStore.Round::isOpen).findFirst();
        }
    }

    public View view(Actor actor, long trial) {
        Whole whole = trials.whole(actor, trial);
        Map<Long, List<VersionRow>> made =
                versions.ofLines(whole.lines().stream().map(t -> t.line().id()).toList());
        List<Row> rows = new ArrayList<>();
        for (Tried tried : whole.lines()) {
            Optional<Long> holder = tried.line().holder().map(h -> h.person());
            boolean mine = holder.filter(h -> h == actor.person()).isPresent();
            rows.add(new Row(
                    tried,
                    made.getOrDefault(tried.line().id(), List.of()),
                    tried.original().document().head().number() - tried.line().fromNumber(),
                    TrialHolds.refusal(actor, whole, tried),
                    mine,
                    holder.isPresent()
                            && !mine
                            && actor.access()
                                    .may(
                                            Right.KEEP_SHELF,
                                            tried.original().document().place())));
        }
        List<OpinionStore.Round> rounds = opinions.of(trial, ROUNDS);
        boolean changes = whole.lines().stream()
                .allMatch(t ->
                        actor.access().may(Right.CHANGE, t.original().document().place()));
        return new View(
                whole,
                rows,
                rounds,
                rounds.stream().anyMatch(r -> r.waitsFor(actor.person())),
                whole.trial().isOpen()
                        && whole.isWhole()
                        && changes
                        && whole.lines().stream().anyMatch(t -> t.line().begun()),
                DropTrial.refusal(actor, whole),
                ask.refusal(actor, whole));
    }

    /** Beside a document, the latest first: the trial, the document on it, and the versions there. */
    public record Beside(Whole whole, Tried tried, List<VersionRow> versions) {}

    /** A document whose trials are listed; not there for who does not see it at work. */
    public Seen document(Actor actor, long item) {
        Seen seen = sight.of(actor, item);
        if (!seen.all()) throw new NotThere();
        return seen;
    }

    /** The trials beside a document that the actor sees at work. */
    public List<Beside> beside(Actor actor, long item) {
        if (!sight.of(actor, item).all()) return List.of();
        List<Whole> all = trials.beside(actor, item);
        Map<Whole, Tried> its = new LinkedHashMap<>();
        for (Whole whole : all)
            whole.lines().stream().filter(t -> t.item() == item).findFirst().ifPresent(t -> its.put(whole, t));
        Map<Long, List<VersionRow>> made = its.isEmpty()
                ? Map.of()
                : versions.ofLines(its.values().stream().map(t -> t.line().id()).toList());
        List<Beside> beside = new ArrayList<>();
        its.forEach((whole, tried) -> beside.add(
                new Beside(whole, tried, made.getOrDefault(tried.line().id(), List.of()))));
        return beside;
    }

    /** The trial of a line of a document, by its number; not there for who does not see it. */
    public long ofLine(Actor actor, long item, int number) {
        return beside(actor, item).stream()
                .filter(b -> b.tried().line().number() == number)
                .map(b -> b.whole().trial().id())
                .findFirst()
                .orElseThrow(NotThere::new);
    }

    /**
     * Trials that the actor sees something of.
     *
     * @param next from where the list goes on; empty at its end
     */
    public record Listed(List<Whole> trials, Optional<Long> next) {}

    /** Those before one of them, the latest first; {@code most} a page. */
    public Listed list(Actor actor, State state, long before, int most) {
        List<Whole> found = new ArrayList<>();
        long from = before;
        while (true) {
            List<Trial> some = store.before(from, Set.of(state), AT_ONCE);
            for (Whole whole : trials.many(actor, some)) {
                if (found.size() == most)
                    return new Listed(
                            found, Optional.of(found.get(most - 1).trial().id()));
                found.add(whole);
            }
            if (some.size() < AT_ONCE) return new Listed(found, Optional.empty());
            from = some.get(some.size() - 1).id();
        }
    }

    /** What the actor holds on trials, by trial. */
    public Map<Long, Long> held(Actor actor) {
        Map<Long, Long> held = new LinkedHashMap<>();
        for (Line line : store.heldBy(actor.person(), 500)) held.merge(line.trial(), 1L, Long::sum);
        return held;
    }
}
