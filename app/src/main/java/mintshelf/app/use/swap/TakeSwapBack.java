package mintshelf.app.use.swap;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.NewVersions;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.References;
import mintshelf.app.effect.run.SetAct;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.document.VersionStore.Added;
import mintshelf.app.store.run.Run;
import mintshelf.app.store.run.RunStore;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Refusal;
import mintshelf.core.hold.HoldRules;
import org.springframework.stereotype.Service;

/** Takes back what a swap wrote, where nothing moved on since: each parent gets the content again that it had before. */
@Service
public class TakeSwapBack implements SetAct {
    private final RunStore runs;
    private final Sight sight;
    private final VersionStore kept;
    private final NewVersions versions;
    private final References references;
    private final Recorder recorder;

    public TakeSwapBack(
            RunStore runs,
            Sight sight,
            VersionStore kept,
            NewVersions versions,
            References references,
            Recorder recorder) {
        this.runs = runs;
        this.sight = sight;
        this.kept = kept;
        this.versions = versions;
        this.references = references;
        this.recorder = recorder;
    }

    @Override
    public Run.What what() {
        return Run.What.SWAP_BACK;
    }

    @Override
    public boolean isWhole() {
        return true;
    }

    @Override
    public String says(List<PlanLine> going, Wish wish) {
        return "Take a swap back in " + Numbers.count(going.size(), "document", "documents");
    }

    /** Documents that a swap of the actor's wrote, with the version that it made of each; as what is not there for a run of another one. */
    public Map<Long, Integer> written(Actor actor, long run) {
        boolean mine = runs.run(run)
                .filter(r -> r.person() == actor.person() && r.what() == Run.What.SWAP)
                .isPresent();
        if (!mine) throw new NotThere();
        Map<Long, Integer> written = new LinkedHashMap<>();
        for (Run.Row row : runs.rows(run, 0, Integer.MAX_VALUE))
            if (row.became().equals("version")) written.put(row.item(), (int) row.number());
        return written;
    }

    private Map<Long, Integer> written(Actor actor, Wish wish) {
        String run = wish.move().filter(m -> m.matches("[0-9]{1,18}")).orElseThrow(NotThere::new);
        return written(actor, Long.parseLong(run));
    }

    @Override
    public Plan<PlanLine> plan(Actor actor, Collection<Long> items, Wish wish) {
        Map<Long, Integer> written = written(actor, wish);
        List<Plan.Row<PlanLine>> rows = new ArrayList<>();
        for (Seen seen : sight.of(actor, items).values()) {
            if (!seen.all()) {
                rows.add(Plan.Row.asked(PlanLine.of(seen), List.of(SetAct.notShown(seen))));
                continue;
            }
            Optional<VersionRow> before = before(seen, written);
            Optional<Refusal> refusal = refusal(actor, seen, written, before);
            rows.add(Plan.Row.asked(
                    PlanLine.of(
                            seen,
                            "as version " + before.map(VersionRow::number).orElse(0)
                                    + " was, with what it referred to"),
                    refusal.stream().toList()));
        }
        return new Plan<>(rows);
    }

    /** The version that the swap started from. */
    private Optional<VersionRow> before(Seen seen, Map<Long, Integer> written) {
        int made = written.getOrDefault(seen.spine().id(), 0);
        return made < 2 ? Optional.empty() : kept.version(seen.spine().id(), made - 1);
    }

    private static Optional<Refusal> refusal(
            Actor actor, Seen seen, Map<Long, Integer> written, Optional<VersionRow> before) {
        String number = seen.document().number();
        if (before.isEmpty())
            return Optional.of(
                    Refusal.of("swap.not_written", "The swap did not write " + number + ".", "Leave it out."));
        if (seen.version() != written.getOrDefault(seen.spine().id(), 0))
            return Optional.of(Refusal.of(
                    "swap.moved_on",
                    number + " has moved on to version " + seen.version() + " since the swap.",
                    "Swap it the other way round, or make an earlier version current again."));
        return HoldRules.between(seen.document(), actor.access());
    }

    @Override
    public List<Run.Row> carryOut(Actor actor, List<Run.Due> due, Wish wish) {
        Map<Long, Integer> written = written(actor, wish);
        Map<Long, Seen> all = new HashMap<>();
        sight.locked(actor, due.stream().map(Run.Due::item).toList())
                .forEach(s -> all.put(s.spine().id(), s));
        return due.stream().map(d -> one(actor, all.get(d.item()), d, written)).toList();
    }

    private Run.Row one(Actor actor, Seen seen, Run.Due due, Map<Long, Integer> written) {
        if (!seen.all()) throw new Refused(SetAct.notShown(seen));
        Sight.expectVersion(seen, Integer.parseInt(due.expected()));
        Optional<VersionRow> before = before(seen, written);
        refusal(actor, seen, written, before).ifPresent(r -> {
            throw new Refused(r);
        });
        VersionRow old = before.orElseThrow();
        String says = "took a swap back: as version " + old.number();
        Added added = versions.add(
                actor,
                seen.document(),
                new NewVersions.Made(
                        old.content(),
                        references.of(old.id()),
                        says,
                        VersionRow.MadeBy.REINSTATED,
                        Optional.of(seen.document().head().version()),
                        Optional.of(old.id()),
                        "a swap was taken back"));
        recorder.note(actor, seen.document().id(), "version.added", added.number(), says, "");
        return new Run.Row(seen.document().id(), "version", added.number());
    }
}
