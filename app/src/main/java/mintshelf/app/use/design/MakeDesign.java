package mintshelf.app.use.design;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.effect.HandJob;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.run.SetAct;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.app.store.run.Run;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.core.access.Right;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import org.springframework.stereotype.Service;

/** Makes a new design from another one: all its documents, or none. */
@Service
public class MakeDesign implements SetAct {
    private final PlanDesign planning;
    private final MakeCopies copies;
    private final ShelfStore shelves;
    private final HoldStore holds;
    private final HandJob jobs;
    private final Recorder recorder;
    private final Sight sight;
    private final Clock clock;

    public MakeDesign(
            PlanDesign planning,
            MakeCopies copies,
            ShelfStore shelves,
            HoldStore holds,
            HandJob jobs,
            Recorder recorder,
            Sight sight,
            Clock clock) {
        this.planning = planning;
        this.copies = copies;
        this.shelves = shelves;
        this.holds = holds;
        this.jobs = jobs;
        this.recorder = recorder;
        this.sight = sight;
        this.clock = clock;
    }

    @Override
    public Run.What what() {
        return Run.What.NEW_DESIGN;
    }

    @Override
    public boolean isWhole() {
        return true;
    }

    private static Wish.Design design(Wish wish) {
        return wish.design().orElseThrow(NotThere::new);
    }

    /** What was wished, with every number said: what is carried out is what was looked at. */
    public static Wish.Design said(Wish.Design wish, Outline outline) {
        return new Wish.Design(
                wish.root(),
                wish.view(),
                outline.numbers(),
                wish.folder(),
                wish.newFolder(),
                wish.titles(),
                wish.facts(),
                wish.hold());
    }

    @Override
    public String says(List<PlanLine> going, Wish wish) {
        PlanLine top = going.get(going.size() - 1);
        return "Make " + Numbers.count(going.size(), "document", "documents") + " of a new design, "
                + top.to().orElse("") + " from " + top.seen().document().number();
    }

    @Override
    public Plan<PlanLine> plan(Actor actor, Collection<Long> items, Wish wish) {
        return plan(items, planning.asSaid(actor, design(wish)));
    }

    private static Plan<PlanLine> plan(Collection<Long> items, Outline outline) {
        Set<Long> asked = new LinkedHashSet<>(items);
        List<Plan.Row<PlanLine>> rows = new ArrayList<>();
        for (Outline.Copy copy : outline.copies()) {
            if (!asked.remove(copy.from().id())) continue;
            rows.add(Plan.Row.asked(
                    line(copy.from().seen(), copy.from().version().number(), Optional.of(copy.number()), becomes(copy)),
                    List.of()));
        }
        // Its structure moved on since it was looked at: what is asked for is not in it, or more is than was asked for.
        boolean other = !asked.isEmpty() || rows.size() < outline.copies().size();
        Seen top = outline.tree().top().main().seen();
        List<Refusal> refusals = new ArrayList<>(outline.refusals());
        if (other)
            refusals.add(Refusal.of(
                    "design.other",
                    top.document().number() + " consists of other documents than your page showed.",
                    "Look at it as it stands now; nothing was made."));
        if (!refusals.isEmpty())
            rows.add(Plan.Row.asked(line(top, top.version(), Optional.empty(), "is not made"), refusals));
        return new Plan<>(rows);
    }

    private static PlanLine line(Seen seen, int version, Optional<String> number, String says) {
        return new PlanLine(seen, Integer.toString(version), Optional.empty(), number, Optional.empty(), List.of(says));
    }

    private static String becomes(Outline.Copy copy) {
        return copy.number() + " from " + copy.from().number() + " version "
                + copy.from().version().number() + ", " + copy.fileName();
    }

    @Override
    public List<Run.Row> carryOut(Actor actor, List<Run.Due> due, Wish wish) {
        Wish.Design design = design(wish);
        Outline outline = planning.asSaid(actor, design);
        Map<Long, Integer> versions = new HashMap<>();
        due.forEach(d -> versions.put(d.item(), Integer.parseInt(d.expected())));
        Refused.unlessOpen(plan(versions.keySet(), outline), "design.refused", "Nothing was made.");
        for (Outline.Copy copy : outline.copies()) {
            if (!Optional.of(copy.from().version().number())
                    .equals(Optional.ofNullable(versions.get(copy.from().id()))))
                throw Refused.because(
                        "page.old",
                        copy.from().number() + " has moved on since your page was made.",
                        "Look at it as it stands now; nothing was made.");
        }
        List<MakeCopies.Done> done = copies.make(actor, design, outline, folders(actor, design, outline));
        if (design.hold()) hold(actor, done);
        follow(actor, done);
        Map<Long, Long> made = done.stream()
                .collect(Collectors.toMap(
                        d -> d.copy().from().id(), d -> d.made().item()));
        return due.stream()
                .map(d -> new Run.Row(
                        d.item(),
                        "made",
                        Optional.ofNullable(made.get(d.item())).orElseThrow()))
                .toList();
    }

    /** Where each goes; the folder that is wanted for them is made where there is none of its name. */
    private Map<Long, Folder> folders(Actor actor, Wish.Design design, Outline outline) {
        Map<Long, Folder> made = new HashMap<>();
        Map<Long, Folder> folders = new LinkedHashMap<>();
        String name = design.newFolder().strip();
        for (Outline.Copy copy : outline.copies()) {
            Folder in = copy.folder();
            Folder into = name.isEmpty() ? in : made.computeIfAbsent(in.id(), i -> folder(actor, in, name));
            folders.put(copy.from().id(), into);
        }
        return folders;
    }

    private Folder folder(Actor actor, Folder in, String name) {
        Optional<Folder> there = planning.there(in, name);
        if (there.isPresent()) return there.get();
        Folder made = Optional.ofNullable(shelves.below(in, List.of(name), true).get(name))
                .orElseThrow();
        recorder.noteHouse(actor, "folder.added", "added the folder " + name, "");
        return made;
    }

    private void hold(Actor actor, List<MakeCopies.Done> done) {
        List<Seen> mine = sight
                .of(actor, done.stream().map(d -> d.made().item()).toList())
                .values()
                .stream()
                .filter(s -> !s.document().part()
                        && actor.access().may(Right.CHANGE, s.document().place()))
                .toList();
        if (mine.isEmpty()) return;
        holds.take(mine.stream().map(Seen::document).toList(), actor.person(), "", "", clock.instant());
        for (Seen seen : mine)
            recorder.note(actor, seen.spine().id(), "hold.taken", seen.version(), "holds it from its beginning on", "");
    }

    /** What could not be written into files is somebody's job: who made it. */
    private void follow(Actor actor, List<MakeCopies.Done> done) {
        Map<String, List<Long>> left = new LinkedHashMap<>();
        for (MakeCopies.Done one : done)
            for (Refusal why : one.left())
                left.computeIfAbsent(why.says(), w -> new ArrayList<>())
                        .add(one.made().item());
        left.forEach((why, items) -> jobs.hand(
                actor,
                List.copyOf(sight.of(actor, items).values()),
                new HandJob.Work(
                        Optional.empty(),
                        Texts.shorten("Names in its file are still those of what it was made from. " + why, 500),
                        Optional.empty(),
                        List.of(actor.person()),
                        actor.name(),
                        Optional.empty())));
    }
}
