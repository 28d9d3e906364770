package mintshelf.app.use.round;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.Asking;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Numbered;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.round.BesideStore.Paper;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.core.signoff.LookAt;
import org.springframework.stereotype.Component;

/** Papers that lie beside a round, to look at and not decided: versions, and what differs between two. */
@Component
public class LayBeside {
    private static final int SUGGESTED = 8;

    private final Sight sight;
    private final Numbered numbered;
    private final VersionStore versions;
    private final LinkStore links;

    LayBeside(Sight sight, Numbered numbered, VersionStore versions, LinkStore links) {
        this.sight = sight;
        this.numbered = numbered;
        this.versions = versions;
        this.links = links;
    }

    /**
     * A paper as somebody may see it.
     *
     * @param old the version that it is compared with
     */
    public record Laid(Seen seen, VersionRow version, Optional<VersionRow> old) {}

    /**
     * The papers that a sender names. Refused where one names nothing that they see, or what the round decides anyway.
     *
     * @param items the documents that are sent
     */
    List<Paper> read(Actor actor, Asking.Beside beside, Collection<Long> items) {
        List<LookAt> wanted = LookAt.read(beside.typed()).orElseThrow(Refused::new);
        Set<Paper> papers = new LinkedHashSet<>();
        sight.of(actor, beside.ticked().keySet()).forEach((item, seen) -> {
            if (items.contains(item)) return;
            version(seen, Optional.ofNullable(beside.ticked().get(item)))
                    .ifPresent(v -> papers.add(new Paper(item, v.id(), Optional.empty())));
        });
        for (LookAt one : wanted) papers.addAll(named(actor, one, items));
        if (papers.size() > LookAt.MOST) throw new Refused(LookAt.tooMany(papers.size()));
        return List.copyOf(papers);
    }

    private List<Paper> named(Actor actor, LookAt one, Collection<Long> items) {
        List<Seen> all = numbered.all(actor, one.number());
        if (all.isEmpty()) throw unknown("No document that you see has the number " + one.number() + ".");
        List<Paper> papers = new ArrayList<>();
        boolean decided = false;
        for (Seen seen : all) {
            boolean sent = items.contains(seen.spine().id());
            Optional<VersionRow> version = version(seen, one.version());
            Optional<VersionRow> old = one.old().flatMap(n -> version(seen, Optional.of(n)));
            if (version.isEmpty() || (one.old().isPresent() && old.isEmpty())) continue;
            // Its own latest version is what is decided; an older one, and what differs, are to be looked at.
            boolean same = sent && old.isEmpty() && version.get().number() == seen.version();
            decided |= same;
            if (!same) papers.add(new Paper(seen.spine().id(), version.get().id(), old.map(VersionRow::id)));
        }
        if (!papers.isEmpty()) return papers;
        throw decided
                ? unknown(one.number() + " is what the round decides.")
                : unknown(one.number() + " has no such version that you see.");
    }

    private static Refused unknown(String says) {
        return Refused.because(
                "beside.unknown", says, "Under “to look at, not decided”, write another or none; nothing was sent.");
    }

    /** A version that the person may see; without a wish the one that they get. */
    private Optional<VersionRow> version(Seen seen, Optional<Integer> number) {
        int wanted = number.orElse(seen.version());
        if (!seen.all() && wanted != seen.version()) return Optional.empty();
        return versions.version(seen.spine().id(), wanted);
    }

    /** Those of papers that the actor sees; the others are not there for them. */
    public List<Laid> seen(Actor actor, List<Paper> papers) {
        if (papers.isEmpty()) return List.of();
        Map<Long, Seen> seen = sight.of(actor, papers.stream().map(Paper::item).toList());
        Set<Long> ids = new LinkedHashSet<>();
        papers.forEach(p -> {
            ids.add(p.version());
            p.old().ifPresent(ids::add);
        });
        Map<Long, VersionRow> rows = versions.versionsById(ids);
        List<Laid> laid = new ArrayList<>();
        for (Paper paper : papers) {
            Seen one = seen.get(paper.item());
            VersionRow version = rows.get(paper.version());
            if (one == null || version == null) continue;
            Optional<VersionRow> old = paper.old().map(rows::get);
            if (one.all() || (old.isEmpty() && version.number() == one.version()))
                laid.add(new Laid(one, version, old));
        }
        return laid;
    }

    /** What a sender might lay beside: what the documents show and what shows them, where it is not sent itself. */
    public List<Laid> suggested(Actor actor, Collection<Long> items) {
        Set<Long> others = new LinkedHashSet<>();
        for (LinkStore.Link link : links.around(items)) {
            if (!items.contains(link.item())) others.add(link.item());
            if (!items.contains(link.target())) others.add(link.target());
        }
        List<Laid> laid = new ArrayList<>();
        for (Seen seen : sight.of(actor, others).values()) {
            if (laid.size() == SUGGESTED) break;
            if (seen.document().dropped()) continue;
            version(seen, Optional.empty()).ifPresent(v -> laid.add(new Laid(seen, v, Optional.empty())));
        }
        return laid;
    }
}
