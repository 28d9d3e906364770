package mintshelf.app.use.release;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.Bundles;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.MadeOf;
import mintshelf.app.sight.RoundSight;
import mintshelf.app.sight.RoundSight.RoundView;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.app.use.release.ReleasePlan.Line;
import mintshelf.app.use.release.ReleasePlan.Verdict;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.release.Blocks;
import mintshelf.core.release.ReleaseSet;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.By;
import mintshelf.core.route.Move;
import mintshelf.core.route.Route;
import mintshelf.core.route.Way;
import mintshelf.core.structure.StructureGraph.Use;
import org.springframework.stereotype.Service;

/**
 * Finds what has to be released together and asks every gate of it. Statements follow the levels of the structure and the gates, not
 * the documents.
 */
@Service
public class ReadReleasePlan {
    /** Links are read in portions: a reader of links has a limit of its own. */
    private static final int PORTION = 50;

    /** What stays has no order of its own; every look at a plan shows it in the same one. */
    private static final Comparator<Seen> BY_NUMBER = Comparator.comparing(
                    (Seen s) -> s.document().number())
            .thenComparingLong(s -> s.spine().id());

    private final Sight sight;
    private final MadeOf made;
    private final LinkStore links;
    private final Bundles bundles;
    private final HouseStore house;
    private final RoundSight rounds;

    public ReadReleasePlan(
            Sight sight, MadeOf made, LinkStore links, Bundles bundles, HouseStore house, RoundSight rounds) {
        this.sight = sight;
        this.made = made;
        this.links = links;
        this.bundles = bundles;
        this.house = house;
        this.rounds = rounds;
    }

    /** What lies below and beside, as far as it is not in force. */
    private final class Around {
        private final Map<Long, Seen> seen = new LinkedHashMap<>();
        private final Set<Long> known = new HashSet<>();
        private final List<Use> uses = new ArrayList<>();
        private final List<ReleaseSet.Shows> shows = new ArrayList<>();

        boolean inForce(long item) {
            Seen one = seen.get(item);
            return one != null && one.document().released().isPresent();
        }

        void gather(Actor actor, Collection<Long> from) {
            Set<Long> frontier = new LinkedHashSet<>(from);
            known.addAll(frontier);
            while (!frontier.isEmpty()) {
                Set<Long> next = new LinkedHashSet<>();
                for (Use use : made.of(frontier)) {
                    uses.add(use);
                    next.add(use.component());
                }
                List<Long> all = List.copyOf(frontier);
                for (int i = 0; i < all.size(); i += PORTION) {
                    for (LinkStore.Link link : links.around(all.subList(i, Math.min(all.size(), i + PORTION)))) {
                        if (link.kind() != LinkStore.Kind.SHOWS) continue;
                        shows.add(new ReleaseSet.Shows(link.item(), link.target()));
                        next.add(link.item());
                        next.add(link.target());
                    }
                }
                next.removeAll(known);
                known.addAll(next);
                seen.putAll(sight.of(actor, next));
                next.removeIf(item -> !seen.containsKey(item) || inForce(item));
                frontier = next;
            }
        }
    }

    /** The plan for some documents whose work in preparation the actor sees. */
    public ReleasePlan plan(Actor actor, Collection<Long> items) {
        Map<Long, Seen> asked = sight.of(actor, items);
        if (asked.isEmpty() || asked.values().stream().anyMatch(s -> !s.all())) throw new NotThere();
        Around around = new Around();
        around.seen.putAll(asked);
        around.gather(actor, asked.keySet());
        ReleaseSet set = ReleaseSet.of(asked.keySet(), around.uses, around.shows, around::inForce);
        List<ReleaseSet.Member> members = new ArrayList<>();
        int hidden = 0;
        for (ReleaseSet.Member member : set.members()) {
            Seen seen = around.seen.get(member.item());
            if (seen == null || !seen.all()) hidden++;
            else members.add(member);
        }
        Map<Long, Plan.Row<Bundles.Going>> rows = asked(actor, members, around.seen);
        List<Line> lines = new ArrayList<>();
        List<Blocks.Kept> kept = new ArrayList<>();
        for (ReleaseSet.Member member : members) {
            Line line = line(member, around.seen, rows.get(member.item()));
            lines.add(line);
            if (line.verdict() == Verdict.BLOCKED) kept.add(new Blocks.Kept(line.item(), line.refusals()));
        }
        Set<Long> drawn = new HashSet<>(set.enough());
        lines.forEach(l -> drawn.add(l.item()));
        return new ReleasePlan(
                List.copyOf(asked.values()),
                lines,
                set.enough().stream()
                        .map(around.seen::get)
                        .filter(Objects::nonNull)
                        .sorted(BY_NUMBER)
                        .toList(),
                around.uses.stream()
                        .filter(u -> drawn.contains(u.parent()) && drawn.contains(u.component()))
                        .toList(),
                Blocks.of(kept),
                waiting(actor, lines),
                first(lines, around, set.enough()),
                hidden);
    }

    /** What does not wait for the others: without it an assembly that is signed would wait for parts that wait for it. */
    private static List<Line> first(List<Line> lines, Around around, Set<Long> enough) {
        List<Long> could = lines.stream()
                .filter(l -> l.verdict() == Verdict.GOES)
                .map(Line::item)
                .toList();
        boolean all = lines.stream().allMatch(l -> l.verdict() == Verdict.GOES || l.verdict() == Verdict.STAYS);
        if (all) return List.of();
        Set<Long> fine = new HashSet<>(enough);
        lines.stream().filter(l -> l.verdict() == Verdict.STAYS).forEach(l -> fine.add(l.item()));
        Set<Long> alone = ReleaseSet.alone(could, around.uses, around.shows, fine);
        return lines.stream().filter(l -> alone.contains(l.item())).toList();
    }

    /** Every document along the way that it goes next: released by a hand, decided by its round, sent to who signs it. */
    private Map<Long, Plan.Row<Bundles.Going>> asked(
            Actor actor, List<ReleaseSet.Member> members, Map<Long, Seen> seen) {
        List<Seen> all = members.stream().map(m -> seen.get(m.item())).toList();
        Map<Long, Plan.Row<Bundles.Going>> rows = new HashMap<>();
        for (Plan.Row<Bundles.Going> row : bundles.plan(actor, all, s -> way(s.document()), s -> by(s.document()))
                .rows()) {
            rows.put(row.of().document().id(), row);
        }
        return rows;
    }

    private Way way(Document document) {
        if (!isUnderWay(document)) return (route, d) -> new Way.Found(Optional.empty(), Optional.empty());
        if (isDecided(document)) return Way.decided();
        return sends(document) ? Way.toReview() : Way.released();
    }

    private By by(Document document) {
        return !isDecided(document) && sends(document) ? By.SENDING : By.HAND;
    }

    private static boolean isUnderWay(Document document) {
        return document.pending().isPresent();
    }

    private static boolean isDecided(Document document) {
        return document.current().stage().stageClass() == StageClass.DECIDING;
    }

    private boolean sends(Document document) {
        Route route = house.edition(document.current().stage().edition());
        String stage = document.current().stage().code();
        return route.releases(stage).isEmpty() && route.opensRound(stage).isPresent();
    }

    private Line line(ReleaseSet.Member member, Map<Long, Seen> seen, Plan.Row<Bundles.Going> row) {
        Seen one = seen.get(member.item());
        Optional<Seen> of =
                member.why() == ReleaseSet.Why.ASKED ? Optional.empty() : Optional.ofNullable(seen.get(member.of()));
        Optional<String> move = row.of().move().map(Move::name);
        if (!isUnderWay(one.document())) return still(member, one, of);
        if (isDecided(one.document())) {
            List<Refusal> others = row.refusals().stream()
                    .filter(r -> !r.code().equals("gate.sign_offs"))
                    .toList();
            Verdict verdict = others.isEmpty() ? Verdict.WAITS : Verdict.BLOCKED;
            return new Line(one, member.why(), of, verdict, move, others);
        }
        if (!row.refusals().isEmpty()) return new Line(one, member.why(), of, Verdict.BLOCKED, move, row.refusals());
        return new Line(one, member.why(), of, sends(one.document()) ? Verdict.SEND : Verdict.GOES, move, List.of());
    }

    /** What nobody works on: in force it stays, out of force it is in the way of whatever needs it. */
    private static Line still(ReleaseSet.Member member, Seen one, Optional<Seen> of) {
        if (one.document().released().isPresent()) {
            return new Line(one, member.why(), of, Verdict.STAYS, Optional.empty(), List.of());
        }
        Refusal gone = Refusal.of(
                "release.gone",
                one.document().number() + " is " + one.current().stage().name().toLowerCase(Locale.ROOT) + ".",
                "Put another one in its place, or start its next revision.");
        return new Line(one, member.why(), of, Verdict.BLOCKED, Optional.empty(), List.of(gone));
    }

    private List<RoundView> waiting(Actor actor, List<Line> lines) {
        List<Long> items = lines.stream()
                .filter(l -> l.verdict() == Verdict.WAITS)
                .map(Line::item)
                .toList();
        if (items.isEmpty()) return List.of();
        Map<Long, RoundView> byId = new LinkedHashMap<>();
        rounds.ofDocuments(actor, items)
                .values()
                .forEach(v -> byId.putIfAbsent(v.round().id(), v));
        return List.copyOf(byId.values());
    }
}
