package mintshelf.app.use.trial;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.sight.Sheets;
import mintshelf.app.sight.Trials;
import mintshelf.app.sight.Trials.Tried;
import mintshelf.app.sight.Trials.Whole;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.content.ContentKind;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.merge.ThreeWay;
import mintshelf.core.trial.TrialRules;
import org.springframework.stereotype.Component;

/** What adopting a trial would do: document by document, and to the other trials of the same documents. */
@Component
public class PlanAdoption {
    private final Trials trials;
    private final VersionStore versions;
    private final Sheets sheets;
    private final ReadingRoom room;

    public PlanAdoption(Trials trials, VersionStore versions, Sheets sheets, ReadingRoom room) {
        this.trials = trials;
        this.versions = versions;
        this.sheets = sheets;
        this.room = room;
    }

    /** How the result of a trial becomes the next version. */
    public enum Way {
        /** The original is as it was: the file of the trial, byte for byte. */
        AS_IT_IS,
        /** The original moved on: its sheet takes up the differences of the trial. */
        SHEET,
        /** The original moved on, and nobody here puts the two together: the file of the trial, in the place of what came since. */
        INSTEAD,
        /** Nothing was made of it on the trial. */
        NOTHING
    }

    /**
     * A document of the plan.
     *
     * @param three of a sheet whose original moved on, what becomes of each difference
     * @param since how many versions of the original came since the trial began
     */
    public record Row(Tried tried, Way way, Optional<ThreeWay> three, int since, Optional<Refusal> refusal) {
        public boolean isOpen() {
            return way != Way.NOTHING && refusal.isEmpty();
        }

        /** Whether it is adopted unless somebody says otherwise: not where it would take the place of what came since. */
        public boolean isProposed() {
            return isOpen() && way != Way.INSTEAD;
        }

        /** What is told of the differences of a sheet: all but those of its form. */
        public List<ThreeWay.Row> differences() {
            return three.map(ThreeWay::rows).orElse(List.of()).stream()
                    .filter(r -> r.fate() != ThreeWay.Fate.OWN)
                    .toList();
        }
    }

    /** Another trial of the same documents, which may end with it. */
    public record Other(Whole whole, Optional<Refusal> refusal) {}

    /**
     * @param shown how everything stood when it was looked at
     * @param refusal why nothing of it can be adopted at all
     */
    public record Plan(Whole whole, List<Row> rows, List<Other> others, String shown, Optional<Refusal> refusal) {
        public boolean opens() {
            return refusal.isEmpty() && rows.stream().anyMatch(Row::isOpen);
        }

        public Map<Long, Row> byItem() {
            return rows.stream()
                    .collect(Collectors.toMap(r -> r.tried().item(), r -> r, (a, b) -> a, LinkedHashMap::new));
        }
    }

    public Plan plan(Actor actor, long trial) {
        return plan(actor, trials.whole(actor, trial));
    }

    Plan plan(Actor actor, Whole whole) {
        List<Row> rows = new ArrayList<>();
        for (Tried tried : whole.lines()) rows.add(row(actor, tried));
        Optional<Refusal> refusal = Optional.empty();
        if (!whole.trial().isOpen()) refusal = Optional.of(TrialHolds.ended(whole));
        else if (!whole.isWhole())
            refusal = Optional.of(Refusal.of(
                    "access.missing",
                    "You do not see all of its documents.",
                    "Somebody who works on all of them adopts it."));
        return new Plan(whole, rows, others(actor, whole), shown(whole), refusal);
    }

    /** By which it is known whether what is adopted is what was looked at. */
    private static String shown(Whole whole) {
        return whole.lines().stream()
                .map(t -> t.item() + ":" + t.original().document().head().number() + "-"
                        + t.line().gets().address())
                .collect(Collectors.joining("."));
    }

    private List<Other> others(Actor actor, Whole whole) {
        Map<Long, Other> others = new LinkedHashMap<>();
        for (Tried tried : whole.lines())
            for (Whole other : trials.beside(actor, tried.item()))
                if (other.trial().isOpen()
                        && other.trial().id() != whole.trial().id())
                    others.computeIfAbsent(other.trial().id(), id -> new Other(other, DropTrial.refusal(actor, other)));
        return List.copyOf(others.values());
    }

    private Row row(Actor actor, Tried tried) {
        if (!tried.line().begun()) return new Row(tried, Way.NOTHING, Optional.empty(), 0, Optional.empty());
        Optional<Refusal> refusal =
                TrialRules.adopt(tried.original().document(), tried.tried().document(), actor.access());
        if (TrialRules.original(tried.original().document(), tried.line().from()) == TrialRules.Original.AS_IT_WAS)
            return new Row(tried, Way.AS_IT_IS, Optional.empty(), 0, refusal);
        int since = tried.original().document().head().number() - tried.line().fromNumber();
        Outcome<ThreeWay> three = three(tried);
        return new Row(tried, three.isGranted() ? Way.SHEET : Way.INSTEAD, three.toOptional(), since, refusal);
    }

    /** The original as it was, the trial, and the original as it is, held against each other; refused for what is no sheet that can be read. */
    private Outcome<ThreeWay> three(Tried tried) {
        StoredContent now = tried.original().spine().content();
        StoredContent theirs = tried.line().content();
        StoredContent was = from(tried).content();
        if (!List.of(now, theirs, was).stream().allMatch(c -> c.kind() == ContentKind.DXF))
            return Outcome.refused("trial.no_sheet", "It is no sheet.", "");
        return room.apart(() -> {
            DxfDrawing base = sheets.opened(was).orElse(null);
            DxfDrawing trial = sheets.opened(theirs).orElse(null);
            DxfDrawing mine = sheets.opened(now).orElse(null);
            if (base == null || trial == null || mine == null)
                return Outcome.refused("trial.unread", "One of the three sheets cannot be read here.", "");
            return ThreeWay.of(base, trial, mine, sheets.scale(trial));
        });
    }

    /** The version of the original at which the trial began. */
    VersionRow from(Tried tried) {
        return versions.versionsById(List.of(tried.line().from())).values().stream()
                .findFirst()
                .orElseThrow();
    }
}
