package mintshelf.app.use.swap;

import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.effect.HandJob;
import mintshelf.app.effect.References;
import mintshelf.app.effect.RewriteReferences;
import mintshelf.app.effect.StartRevision;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Grants;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.document.VersionStore.Added;
import mintshelf.app.store.structure.Reference;
import mintshelf.app.use.swap.Parents.Both;
import mintshelf.app.use.swap.Parents.Parent;
import mintshelf.core.access.Right;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Holder;
import mintshelf.core.model.step.StepTexts.Called;
import mintshelf.core.reuse.Swaps.Fate;
import org.springframework.stereotype.Component;

/** Exchanges documents in the file of one parent, or hands that over as a job; within the transaction of the swap. */
@Component
class Exchange {
    private final Sight sight;
    private final References references;
    private final RewriteReferences rewrite;
    private final StartRevision start;
    private final HandJob jobs;
    private final VersionStore versions;
    private final Grants grants;

    Exchange(
            Sight sight,
            References references,
            RewriteReferences rewrite,
            StartRevision start,
            HandJob jobs,
            VersionStore versions,
            Grants grants) {
        this.sight = sight;
        this.references = references;
        this.rewrite = rewrite;
        this.start = start;
        this.jobs = jobs;
        this.versions = versions;
        this.grants = grants;
    }

    /** "TG40-1 for TG40-2": what comes in first. */
    String says(Parent parent, Both both) {
        return "exchange "
                + both.pairs().stream()
                        .filter(p -> parent.olds().contains(p.old()))
                        .map(p -> both.number(p.old()) + " for " + both.number(p.now()))
                        .collect(Collectors.joining(", "));
    }

    /** All pairs in words. */
    String pairs(Both both) {
        return both.pairs().stream()
                .map(p -> both.number(p.now()) + " in place of " + both.number(p.old()))
                .collect(Collectors.joining(", "));
    }

    /** Writes it; gives the number of the version. Refused where the file does not let itself be written. */
    int write(Actor actor, Parent parent, Both both, String why) {
        Seen seen = parent.seen();
        if (parent.fate() == Fate.REVISED) {
            start.start(actor, seen.document(), Texts.shorten(why, 200), pairs(both));
            seen = sight.of(actor, seen.spine().id());
        }
        Map<Long, Reference.Component> heads =
                references.heads(new LinkedHashSet<>(both.comesIn().values()));
        Map<Long, Reference.Component> comesIn = new HashMap<>();
        Map<String, Called> called = new HashMap<>();
        both.comesIn().forEach((old, now) -> {
            if (!parent.olds().contains(old)) return;
            comesIn.put(old, Optional.ofNullable(heads.get(now)).orElseThrow(NotThere::new));
            Seen out = both.of(old);
            Seen in = both.of(now);
            called.put(
                    out.document().number(),
                    new Called(
                            in.document().number(),
                            out.document().title(),
                            in.document().title()));
        });
        Outcome<Added> written =
                rewrite.exchange(actor, seen, parent.paths(), comesIn, called, "put " + pairs(both, parent), why);
        if (written instanceof Outcome.Granted<Added> added)
            return added.value().number();
        Refusal why2 = written.refusal().orElseThrow();
        throw Refused.because(
                why2.code(),
                seen.document().number() + ": " + why2.reason(),
                "Leave it out or as a job; nothing was changed anywhere.");
    }

    private static String pairs(Both both, Parent parent) {
        return both.pairs().stream()
                .filter(p -> parent.olds().contains(p.old()))
                .map(p -> both.number(p.now()) + " in the place of " + both.number(p.old()))
                .collect(Collectors.joining(", "));
    }

    /** Hands the work over to who holds it, else to who saved it last, else to the actor; gives the job's id. */
    long job(Actor actor, Parent parent, Both both, String why) {
        Seen seen = parent.seen();
        Set<Long> could = new LinkedHashSet<>();
        seen.document().holder().map(Holder::person).ifPresent(could::add);
        versions.version(seen.spine().id(), seen.document().head().number())
                .map(VersionRow::author)
                .ifPresent(could::add);
        could.add(actor.person());
        long person = could.stream()
                .filter(p -> grants.actor(p)
                        .filter(a ->
                                a.access().may(Right.CHANGE, seen.document().place()))
                        .isPresent())
                .findFirst()
                .orElse(actor.person());
        String says = Texts.shorten("E" + says(parent, both).substring(1) + " in its file: " + why, 500);
        return jobs.hand(
                actor,
                List.of(seen),
                new HandJob.Work(
                        Optional.empty(),
                        says,
                        Optional.empty(),
                        List.of(person),
                        grants.actor(person).map(Actor::name).orElse(actor.name()),
                        Optional.empty()));
    }
}
