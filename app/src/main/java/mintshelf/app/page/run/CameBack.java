package mintshelf.app.page.run;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.page.Rows;
import mintshelf.app.sight.CheckSheets;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.hold.StrayStore.Stray;
import mintshelf.app.store.run.Run;
import mintshelf.app.use.compare.CountDifferences;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.document.ReadVersion;
import mintshelf.app.use.hold.ReadHeld;
import mintshelf.app.use.job.ReadJobs;
import mintshelf.core.hold.Became.Fate;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** What became of files that were checked in, one by one. */
@Component
public class CameBack {
    private final ReadHeld held;
    private final ReadDocument read;
    private final ReadVersion readVersion;
    private final CountDifferences count;
    private final CheckSheets checks;
    private final ReadJobs jobs;

    public CameBack(
            ReadHeld held,
            ReadDocument read,
            ReadVersion readVersion,
            CountDifferences count,
            CheckSheets checks,
            ReadJobs jobs) {
        this.held = held;
        this.read = read;
        this.readVersion = readVersion;
        this.count = count;
        this.checks = checks;
        this.jobs = jobs;
    }

    /** What became of a file: the document, and the version or the stray; what a version of a trial is called. */
    public record Done(
            Seen seen,
            Fate fate,
            long number,
            Stray stray,
            Integer differences,
            String checked,
            boolean held,
            VersionRow tried) {}

    /** Null where it was dropped, or its person may not see it any more. */
    private Stray stray(Actor actor, long id) {
        try {
            return readVersion.stray(actor, id);
        } catch (NotThere e) {
            return null;
        }
    }

    /** Puts what became of each file into the page's model. */
    String done(Actor actor, List<Run.Row> rows, Model model) {
        List<Done> done = new ArrayList<>();
        Set<Long> there = held.still(actor, rows.stream().map(Run.Row::item).toList()).stream()
                .map(s -> s.spine().id())
                .collect(Collectors.toSet());
        model.addAttribute("gone", rows.size() - there.size());
        for (Run.Row row : rows) {
            if (!there.contains(row.item())) continue;
            Fate fate = Fate.of(row.became());
            ReadDocument.View view = read.view(actor, row.item());
            Seen seen = view.seen();
            long number = row.number();
            boolean version = fate == Fate.VERSION;
            Stray stray = fate == Fate.STRAY ? stray(actor, number) : null;
            Integer differences = version && number > 1 ? differences(view, (int) number) : null;
            String checked = version
                    ? version(view, (int) number)
                            .flatMap(v -> checks.findings(seen.document(), v))
                            .map(CheckSheets::says)
                            .orElse("")
                    : "";
            boolean held = seen.document()
                    .holder()
                    .filter(h -> h.person() == actor.person())
                    .isPresent();
            VersionRow tried = fate == Fate.TRIAL && seen.all()
                    ? readVersion.tried(actor, row.item()).stream()
                            .filter(v -> v.id() == number)
                            .findFirst()
                            .orElse(null)
                    : null;
            done.add(new Done(seen, fate, number, stray, differences, checked, held, tried));
        }
        model.addAttribute("done", done);
        model.addAttribute(
                "jobs",
                jobs.mineOn(
                        actor,
                        done.stream()
                                .filter(d -> d.fate() == Fate.VERSION)
                                .map(d -> d.seen().spine().id())
                                .toList()));
        model.addAttribute(
                "sendable",
                Rows.joined(done.stream()
                        .filter(d -> d.fate() == Fate.VERSION && held.sends(d.seen()))
                        .map(Done::seen)
                        .toList()));
        return "hold/done";
    }

    /** How many differences a version has to the one before it; nothing where this person does not see both. */
    private Integer differences(ReadDocument.View view, int number) {
        Optional<VersionRow> before = version(view, number - 1);
        return version(view, number)
                .flatMap(now -> before.flatMap(old -> count.of(old, now)))
                .orElse(null);
    }

    private static Optional<VersionRow> version(ReadDocument.View view, int number) {
        return view.versions().stream().filter(v -> v.number() == number).findFirst();
    }
}
