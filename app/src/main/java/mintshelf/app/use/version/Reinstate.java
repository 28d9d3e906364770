package mintshelf.app.use.version;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.NewVersions;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.References;
import mintshelf.app.effect.run.SetAct;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.run.Run;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Document;
import mintshelf.core.hold.HoldRules;
import org.springframework.stereotype.Service;

/** Makes an earlier version current again, as a new version; of one document or of many. */
@Service
public class Reinstate implements SetAct {
    private final Sight sight;
    private final VersionStore kept;
    private final NewVersions versions;
    private final References references;
    private final Acts acts;
    private final Recorder recorder;

    public Reinstate(
            Sight sight, VersionStore kept, NewVersions versions, References references, Acts acts, Recorder recorder) {
        this.sight = sight;
        this.kept = kept;
        this.versions = versions;
        this.references = references;
        this.acts = acts;
        this.recorder = recorder;
    }

    /** What stands in the way; nothing when it may be. Not under a hold, the actor's own too: see {@link HoldRules#between}. */
    public static Optional<Refusal> refusal(Actor actor, Document document, VersionRow version) {
        if (version.number() == document.head().number()) {
            return Optional.of(Refusal.of(
                    "version.latest",
                    "Version " + version.number() + " is the latest already.",
                    "Pick an earlier one on the strip."));
        }
        if (version.content().hash().equals(document.head().content())) {
            return Optional.of(Refusal.of(
                    "version.same",
                    "The latest version has the same content as version " + version.number() + ".",
                    "There is nothing to bring back."));
        }
        return HoldRules.between(document, actor.access());
    }

    /** Makes version {@code number} the next version. */
    public String reinstate(Actor actor, long item, String key, int number, int expectedVersion, String comment) {
        Wish wish = Wish.version(number, comment);
        return acts.once(actor, key, () -> {
            carryOut(actor, List.of(new Run.Due(item, Integer.toString(expectedVersion))), wish);
            return "/documents/" + item + "?reinstated";
        });
    }

    @Override
    public Run.What what() {
        return Run.What.REINSTATE;
    }

    @Override
    public String says(List<PlanLine> going, Wish wish) {
        return "Make version " + number(wish) + " of " + Numbers.count(going.size(), "document", "documents")
                + " current again";
    }

    private static int number(Wish wish) {
        return wish.version().orElseThrow(NotThere::new);
    }

    @Override
    public Plan<PlanLine> plan(Actor actor, Collection<Long> items, Wish wish) {
        List<Plan.Row<PlanLine>> rows = new ArrayList<>();
        for (Seen seen : sight.of(actor, items).values()) {
            Optional<VersionRow> old = seen.all() ? kept.version(seen.spine().id(), number(wish)) : Optional.empty();
            List<Refusal> inTheWay = old.map(
                            v -> refusal(actor, seen.document(), v).stream().toList())
                    .orElseGet(() -> List.of(Refusal.of(
                            "version.none",
                            seen.document().number() + " has no version " + number(wish) + " that you see.",
                            "Leave it out.")));
            rows.add(Plan.Row.asked(PlanLine.of(seen), inTheWay));
        }
        return new Plan<>(rows);
    }

    @Override
    public List<Run.Row> carryOut(Actor actor, List<Run.Due> rows, Wish wish) {
        String words = Texts.optionalLines("The comment", wish.words(), 10_000).orElseThrow(Refused::new);
        Map<Long, Seen> all = new HashMap<>();
        sight.locked(actor, rows.stream().map(Run.Due::item).toList())
                .forEach(s -> all.put(s.spine().id(), s));
        return rows.stream()
                .map(row -> one(actor, all.get(row.item()), Integer.parseInt(row.expected()), number(wish), words))
                .toList();
    }

    private Run.Row one(Actor actor, Seen seen, int expected, int number, String words) {
        if (!seen.all()) throw new NotThere();
        Sight.expectVersion(seen, expected);
        Document document = seen.document();
        VersionRow old = kept.version(document.id(), number).orElseThrow(NotThere::new);
        refusal(actor, document, old).ifPresent(r -> {
            throw new Refused(r);
        });
        VersionStore.Added added = versions.add(
                actor,
                document,
                new NewVersions.Made(
                        old.content(),
                        references.of(old.id()),
                        words.isEmpty() ? "copy of version " + number : words,
                        VersionRow.MadeBy.REINSTATED,
                        Optional.of(document.head().version()),
                        Optional.of(old.id()),
                        "version " + number + " was made current again"));
        int made = added.number();
        recorder.note(
                actor,
                document.id(),
                "version.added",
                made,
                "made version " + number + " current again as version " + made,
                words);
        return new Run.Row(document.id(), "version", made);
    }
}
