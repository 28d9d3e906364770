package mintshelf.app.use.design;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.KeepContent;
import mintshelf.app.effect.NewVersions;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.References;
import mintshelf.app.effect.RewriteReferences;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore.Added;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.app.store.structure.Reference;
import mintshelf.app.use.design.ReadOrigin.Origin;
import mintshelf.app.use.design.ReadOrigin.Way;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.merge.ThreeWay;
import mintshelf.core.model.step.StepTexts.Called;
import mintshelf.core.reference.Resolution.Filed;
import mintshelf.core.reference.Written;
import mintshelf.core.reference.WrittenAnew;
import org.springframework.stereotype.Service;

/** Takes up what became of the document from which another one was derived, as its next version; or says that it stays as it is. */
@Service
public class TakeUpOrigin {
    private final ReadOrigin read;
    private final Sight sight;
    private final NewVersions versions;
    private final KeepContent keep;
    private final RewriteReferences rewrite;
    private final References references;
    private final LinkStore links;
    private final Recorder recorder;
    private final Acts acts;

    public TakeUpOrigin(
            ReadOrigin read,
            Sight sight,
            NewVersions versions,
            KeepContent keep,
            RewriteReferences rewrite,
            References references,
            LinkStore links,
            Recorder recorder,
            Acts acts) {
        this.read = read;
        this.sight = sight;
        this.versions = versions;
        this.keep = keep;
        this.rewrite = rewrite;
        this.references = references;
        this.links = links;
        this.recorder = recorder;
        this.acts = acts;
    }

    /**
     * Takes up; gives the address of the document.
     *
     * @param shown how the three stood when they were looked at
     * @param numbers of the sheet's differences that go over; of what goes over as a whole any
     */
    public String take(Actor actor, long item, String key, String shown, Collection<Integer> numbers) {
        return acts.once(actor, key, () -> {
            Origin origin = locked(actor, item, shown);
            if (origin.way() == Way.BY_HAND) throw new NotThere();
            Added added = origin.way() == Way.SHEET ? sheet(actor, origin, numbers) : whole(actor, origin);
            said(actor, origin, added.number(), "took up");
            return "/documents/" + item;
        });
    }

    /** Nothing of it goes over: what there is to take up begins behind it from now on. */
    public String leave(Actor actor, long item, String key, String shown) {
        return acts.once(actor, key, () -> {
            Origin origin = locked(actor, item, shown);
            said(actor, origin, origin.mine().number(), "left aside");
            return "/documents/" + item;
        });
    }

    private Origin locked(Actor actor, long item, String shown) {
        Seen seen = sight.locked(actor, item);
        Origin origin = read.origin(actor, item).orElseThrow(NotThere::new);
        if (!origin.shown().equals(shown))
            throw Refused.because(
                    "page.old",
                    seen.document().number() + " or what it was derived from has moved on since your page was made.",
                    "Look at it as it stands now; nothing was changed.");
        read.may(actor, origin).ifPresent(r -> {
            throw new Refused(r);
        });
        return origin;
    }

    private void said(Actor actor, Origin origin, int version, String did) {
        links.holdAgainst(origin.link().id(), origin.theirs().id());
        recorder.note(
                actor,
                origin.seen().spine().id(),
                "origin.taken_up",
                version,
                did + " what became of " + number(origin) + " up to its version "
                        + origin.theirs().number(),
                "");
    }

    private static String number(Origin origin) {
        return origin.other().document().number();
    }

    private Added sheet(Actor actor, Origin origin, Collection<Integer> numbers) {
        ThreeWay three = read.three(origin).orElseThrow(Refused::new);
        Outcome<byte[]> written = three.write(numbers);
        byte[] bytes = written.orElseThrow(Refused::new);
        long taken = three.rows().stream()
                .filter(r -> r.isOpen() && numbers.contains(r.difference().number()))
                .count();
        if (taken == 0)
            throw Refused.because(
                    "origin.nothing",
                    "Nothing is chosen.",
                    "Choose what goes over, or leave all of it aside; nothing was changed.");
        return add(
                actor,
                origin,
                keep.keep(bytes),
                references.of(origin.mine().id()),
                "Takes up " + Numbers.count(taken, "difference", "differences") + " of " + number(origin) + " version "
                        + origin.theirs().number());
    }

    private Added whole(Actor actor, Origin origin) {
        List<Reference> theirs = references.of(origin.theirs().id());
        Map<Long, Long> here = here(origin);
        Set<Long> lie = new java.util.HashSet<>(Set.of(origin.seen().spine().id()));
        theirs.forEach(r -> r.component().ifPresent(c -> lie.add(here.getOrDefault(c.item(), c.item()))));
        Map<Long, Filed> filed = references.filed(lie);
        Filed mine = Optional.ofNullable(filed.get(origin.seen().spine().id())).orElseThrow(NotThere::new);
        Map<String, String> paths = new LinkedHashMap<>();
        for (Reference r : theirs)
            r.component()
                    .flatMap(c -> Optional.ofNullable(filed.get(here.getOrDefault(c.item(), c.item()))))
                    .flatMap(f -> WrittenAnew.path(r.written().path(), mine, f))
                    .ifPresent(p -> paths.put(r.written().path(), p));
        RewriteReferences.Copied content = rewrite.copied(
                origin.theirs().content(),
                new RewriteReferences.Otherwise(paths, Set.of(), called(actor, origin, here), Set.of()));
        content.left().stream().findFirst().ifPresent(r -> {
            throw new Refused(r);
        });
        Map<Long, Reference.Component> heads = references.heads(here.values());
        List<Reference> refersTo = new ArrayList<>();
        for (Reference r : theirs) {
            String path = r.written().path();
            refersTo.add(new Reference(
                    r.seq(),
                    new Written(
                            r.written().role(),
                            paths.getOrDefault(path, path),
                            r.written().quantity()),
                    r.state(),
                    r.component()
                            .map(c -> Optional.ofNullable(here.get(c.item()))
                                    .flatMap(h -> Optional.ofNullable(heads.get(h)))
                                    .orElse(c))));
        }
        return add(
                actor,
                origin,
                content.content(),
                refersTo,
                "Takes up " + number(origin) + " version " + origin.theirs().number());
    }

    /** What stands here for what stands there: the derived ones of its components, by what they were derived from. */
    private Map<Long, Long> here(Origin origin) {
        List<Long> mine = references.of(origin.mine().id()).stream()
                .flatMap(r -> r.component().stream())
                .map(Reference.Component::item)
                .distinct()
                .toList();
        Map<Long, Long> here = new HashMap<>();
        links.origins(mine).forEach((item, from) -> here.putIfAbsent(from, item));
        return here;
    }

    private Map<String, Called> called(Actor actor, Origin origin, Map<Long, Long> here) {
        Map<String, Called> called = new HashMap<>();
        Map<Long, Seen> there = sight.of(actor, here.keySet());
        Map<Long, Seen> mine = sight.of(actor, here.values());
        here.forEach((from, item) -> {
            Seen was = there.get(from);
            Seen is = mine.get(item);
            if (was != null && is != null) called.put(was.document().number(), name(was, is));
        });
        called.put(number(origin), name(origin.other(), origin.seen()));
        return called;
    }

    private static Called name(Seen was, Seen is) {
        return new Called(
                is.document().number(), was.document().title(), is.document().title());
    }

    private Added add(Actor actor, Origin origin, StoredContent content, List<Reference> refersTo, String comment) {
        return versions.add(
                actor,
                origin.seen().document(),
                new NewVersions.Made(
                        content,
                        refersTo,
                        comment,
                        VersionRow.MadeBy.TAKEN_UP,
                        Optional.of(origin.mine().id()),
                        Optional.empty(),
                        ""));
    }
}
