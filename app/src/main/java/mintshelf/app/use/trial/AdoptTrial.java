package mintshelf.app.use.trial;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.EndTrial;
import mintshelf.app.effect.FactValues;
import mintshelf.app.effect.KeepContent;
import mintshelf.app.effect.NewVersions;
import mintshelf.app.effect.References;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Trials;
import mintshelf.app.sight.Trials.Tried;
import mintshelf.app.sight.Trials.Whole;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore.Added;
import mintshelf.app.store.structure.Reference;
import mintshelf.app.use.trial.PlanAdoption.Other;
import mintshelf.app.use.trial.PlanAdoption.Plan;
import mintshelf.app.use.trial.PlanAdoption.Row;
import mintshelf.app.use.trial.PlanAdoption.Way;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.VersionName;
import mintshelf.core.drawing.merge.ThreeWay;
import org.springframework.stereotype.Service;

/** Makes the result of a trial the next versions of its documents, and ends it, with other trials of the same documents: whole or not at all. */
@Service
public class AdoptTrial {
    private final PlanAdoption plans;
    private final Trials trials;
    private final NewVersions versions;
    private final FactValues values;
    private final References references;
    private final KeepContent keep;
    private final KeepAdopted adopted;
    private final EndTrial end;
    private final Acts acts;

    public AdoptTrial(
            PlanAdoption plans,
            Trials trials,
            NewVersions versions,
            FactValues values,
            References references,
            KeepContent keep,
            KeepAdopted adopted,
            EndTrial end,
            Acts acts) {
        this.plans = plans;
        this.trials = trials;
        this.versions = versions;
        this.values = values;
        this.references = references;
        this.keep = keep;
        this.adopted = adopted;
        this.end = end;
        this.acts = acts;
    }

    /**
     * What was chosen.
     *
     * @param items documents whose results are adopted
     * @param over of sheets whose originals moved on, the numbers of the differences that go over
     * @param dropping other trials that end with it
     * @param shown how everything stood when it was looked at
     */
    public record Choice(
            Set<Long> items, Map<Long, Set<Integer>> over, Collection<Long> dropping, String comment, String shown) {}

    /** Adopts; gives the address of the trial. */
    public String adopt(Actor actor, long trial, Choice choice, String key) {
        String words =
                Texts.optionalLines("The comment", choice.comment(), 10_000).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            Whole whole = trials.locked(actor, trial);
            Plan plan = plans.plan(actor, whole);
            plan.refusal().ifPresent(r -> {
                throw new Refused(r);
            });
            if (!plan.shown().equals(choice.shown()))
                throw Refused.because(
                        "page.old",
                        "Trial " + whole.of() + " or one of its documents has moved on since your page was made.",
                        "Look at it as it stands now; nothing was changed.");
            List<Row> rows = chosen(plan, choice.items());
            List<Other> others = others(plan, choice.dropping());
            Map<Long, List<Reference>> made = references.of(
                    rows.stream().map(r -> r.tried().line().head().version()).toList());
            Map<Long, List<Reference>> refersTo = new HashMap<>();
            for (Row row : rows)
                refersTo.put(
                        row.tried().item(),
                        made.getOrDefault(row.tried().line().head().version(), List.of()));
            Map<Long, Row> byItem = plan.byItem();
            Set<Long> ofTrial = new HashSet<>(trials.heads(trial).values());
            // What stands in others goes first, so that they refer to what it became.
            for (long item : References.componentsFirst(refersTo))
                one(
                        actor,
                        whole,
                        Optional.ofNullable(byItem.get(item)).orElseThrow(),
                        choice.over().getOrDefault(item, Set.of()),
                        ofMain(refersTo.getOrDefault(item, List.of()), ofTrial),
                        words);
            end.adopted(actor, whole, words);
            for (Other other : others) {
                Whole again = trials.locked(actor, other.whole().trial().id());
                end.drop(actor, again, "trial " + whole.of() + " was adopted");
            }
            return "/trials/" + trial + "?adopted";
        });
    }

    private static List<Row> chosen(Plan plan, Set<Long> items) {
        if (items.isEmpty())
            throw Refused.because(
                    "trial.nothing",
                    "Nothing is chosen.",
                    "Choose what is adopted, or drop the trial; nothing was changed.");
        Map<Long, Row> all = plan.byItem();
        if (!all.keySet().containsAll(items)) throw new NotThere();
        List<Row> rows = all.values().stream()
                .filter(r -> items.contains(r.tried().item()))
                .toList();
        List<String> why = new ArrayList<>();
        for (Row row : rows) {
            String number = row.tried().original().document().number();
            row.refusal().map(Refusal::says).ifPresent(why::add);
            if (row.way() == Way.NOTHING) why.add("Nothing was made of " + number + " on this trial.");
        }
        if (!why.isEmpty())
            throw Refused.because("trial.refused", String.join(" ", why), "Nothing was adopted; leave those out.");
        return rows;
    }

    private static List<Other> others(Plan plan, Collection<Long> dropping) {
        List<Other> others = plan.others().stream()
                .filter(o -> dropping.contains(o.whole().trial().id()))
                .toList();
        others.stream().flatMap(o -> o.refusal().stream()).findFirst().ifPresent(r -> {
            throw Refused.because("trial.others", r.reason(), "Leave the other trial as it is; nothing was adopted.");
        });
        return others;
    }

    /** Where a version of the trial stands, the latest of its document does from now on: of what was adopted that is what it became. */
    private List<Reference> ofMain(List<Reference> its, Set<Long> ofTrial) {
        Set<Long> items = new HashSet<>();
        for (Reference r : its)
            r.component().filter(c -> ofTrial.contains(c.version())).ifPresent(c -> items.add(c.item()));
        Map<Long, Reference.Component> heads = items.isEmpty() ? Map.of() : references.heads(items);
        return its.stream()
                .map(r -> new Reference(
                        r.seq(),
                        r.written(),
                        r.state(),
                        r.component()
                                .map(c ->
                                        Optional.ofNullable(heads.get(c.item())).orElse(c))))
                .toList();
    }

    private void one(Actor actor, Whole whole, Row row, Set<Integer> over, List<Reference> refersTo, String words) {
        Tried tried = row.tried();
        String name = tried.line().gets().says();
        StoredContent content = tried.line().content();
        List<Reference> refers = refersTo;
        String says = "";
        if (row.way() == Way.SHEET) {
            ThreeWay three = row.three().orElseThrow();
            long taken = three.rows().stream()
                    .filter(r -> r.isOpen() && over.contains(r.difference().number()))
                    .count();
            if (taken == 0)
                throw Refused.because(
                        "trial.nothing",
                        "Of " + tried.original().document().number() + " no difference is chosen.",
                        "Choose what goes over, or leave the document out; nothing was adopted.");
            content = keep.keep(three.write(over).orElseThrow(Refused::new));
            refers = references.of(tried.original().document().head().version());
            says = ": " + Numbers.count(taken, "difference", "differences");
        } else if (content.kind() == ContentKind.STEP) {
            values.look(content);
        }
        values.takeOver(actor, tried.original().document(), content);
        Added added = versions.add(
                actor,
                tried.original().document(),
                new NewVersions.Made(
                        content,
                        refers,
                        words.isEmpty()
                                ? "Adopts " + name + ", " + whole.trial().title()
                                : words,
                        VersionRow.MadeBy.ADOPTED,
                        Optional.of(tried.original().document().head().version()),
                        Optional.empty(),
                        ""));
        adopted.keep(tried, added.version());
        adopted.note(
                actor,
                tried.item(),
                added.number(),
                "adopted " + name + " of trial "
                        + VersionName.line(whole.trial().number()) + " as version "
                        + added.number() + says
                        + (row.way() == Way.INSTEAD
                                ? "; it takes the place of " + Numbers.count(row.since(), "version", "versions")
                                        + " that came since"
                                : ""),
                words);
    }
}
