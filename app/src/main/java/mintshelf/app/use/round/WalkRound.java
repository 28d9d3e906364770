package mintshelf.app.use.round;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.CheckSheets;
import mintshelf.app.sight.RoundSight.RoundLine;
import mintshelf.app.sight.RoundSight.RoundView;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.round.BesideStore;
import mintshelf.app.store.round.BesideStore.Found;
import mintshelf.core.signoff.SignOff;
import org.springframework.stereotype.Service;

/** A round gone through sheet by sheet: which are signed, which were opened, what lies beside, what the checks said. */
@Service
public class WalkRound {
    private final BesideStore beside;
    private final LayBeside papers;
    private final CheckSheets checks;
    private final VersionStore versions;
    private final UnitOfWork unit;

    WalkRound(BesideStore beside, LayBeside papers, CheckSheets checks, VersionStore versions, UnitOfWork unit) {
        this.beside = beside;
        this.papers = papers;
        this.checks = checks;
        this.versions = versions;
        this.unit = unit;
    }

    /** How far somebody has come with a sheet. */
    public enum State {
        SIGNED("signed"),
        LOOKED("looked at"),
        CHANGED("changed since"),
        UNOPENED("not opened"),
        NOT_MINE("");

        private final String words;

        State(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** A sheet of the walk. */
    public record Row(RoundLine line, State state) {
        public long item() {
            return line.item().item();
        }
    }

    /**
     * The sheets of a round in their order, and the one that is looked at.
     *
     * @param at place of the one that is looked at
     */
    public record Walk(List<Row> rows, int at) {
        public Row here() {
            return rows.get(at);
        }

        public Optional<Row> before() {
            return at == 0 ? Optional.empty() : Optional.of(rows.get(at - 1));
        }

        public Optional<Row> next() {
            return at == rows.size() - 1 ? Optional.empty() : Optional.of(rows.get(at + 1));
        }

        public long count(String state) {
            return rows.stream().filter(r -> r.state() == State.valueOf(state)).count();
        }

        /** How many are left to sign. */
        public long left() {
            return rows.size() - count("SIGNED");
        }

        /** What is left beside the one that is looked at, in words: "2 looked at, 2 not opened". */
        public String rest() {
            List<Row> others = rows.stream()
                    .filter(r -> r.item() != here().item() && r.state() != State.SIGNED)
                    .toList();
            return others.stream()
                    .collect(Collectors.groupingBy(Row::state, TreeMap::new, Collectors.counting()))
                    .entrySet()
                    .stream()
                    .map(e -> e.getValue() + " " + e.getKey().words())
                    .collect(Collectors.joining(", "));
        }
    }

    /** The walk as the actor sees it, who looks at a sheet now; where they are asked, that is noted for their own eyes. */
    public Walk walk(Actor actor, RoundView view, RoundLine shown) {
        long round = view.round().id();
        if (view.mine().isPresent()) {
            unit.run(() -> beside.opened(
                    actor.person(), round, shown.item().item(), shown.item().version()));
        }
        Opened opened = view.mine().isPresent() ? opened(actor, round) : new Opened(Set.of(), Set.of());
        boolean whole = view.round().signOffs().stream().anyMatch(s -> given(s) && s.person() == actor.person());
        Set<Long> signed =
                view.mine().map(a -> view.round().signedBy(a, actor.person())).orElse(Set.of());
        List<Row> rows = new ArrayList<>();
        int at = 0;
        for (RoundLine line : view.lines()) {
            if (line.item().item() == shown.item().item()) at = rows.size();
            State state = whole || signed.contains(line.item().item())
                    ? State.SIGNED
                    : view.mine().isEmpty() ? State.NOT_MINE : opened.state(line);
            rows.add(new Row(line, state));
        }
        return new Walk(rows, at);
    }

    private static boolean given(SignOff s) {
        return s.stands() && s.decision().signs();
    }

    private record Opened(Set<Long> items, Set<Long> versions) {
        State state(RoundLine line) {
            if (versions.contains(line.item().version())) return State.LOOKED;
            return items.contains(line.item().item()) ? State.CHANGED : State.UNOPENED;
        }
    }

    private Opened opened(Actor actor, long round) {
        var opened = beside.opened(actor.person(), round);
        return new Opened(opened.keySet(), Set.copyOf(opened.values()));
    }

    /** What lies beside, as far as the actor sees it. */
    public List<LayBeside.Laid> papers(Actor actor, RoundView view) {
        return papers.seen(actor, beside.papers(view.round().id()));
    }

    /** What a sender might lay beside. */
    public List<LayBeside.Laid> suggested(Actor actor, SendToReview.Plan plan) {
        return papers.suggested(
                actor, plan.rows().stream().map(r -> r.seen().spine().id()).toList());
    }

    /** What the checks said of a document when it was sent; empty where none were asked. */
    public List<Found> found(RoundView view, RoundLine line) {
        return beside.found(view.round().id(), line.item().item());
    }

    /** What the checks say now and did not say when it was sent. */
    public List<String> sinceThen(RoundView view, RoundLine line, VersionRow version, List<Found> then) {
        if (!view.round().isOpen() || then.isEmpty()) return List.of();
        List<String> known = then.stream().map(Found::says).toList();
        return checks.findings(line.seen().document(), version).orElse(List.of()).stream()
                .map(h -> h.finding().says())
                .filter(says -> known.stream()
                        .noneMatch(k -> says.startsWith(k.endsWith("…") ? k.substring(0, k.length() - 1) : k)))
                .toList();
    }

    /** The version of a document that the actor signed last before a round, where it is another one than is decided now. */
    public Optional<VersionRow> signedLast(Actor actor, RoundView view, RoundLine line) {
        return beside.signedLast(
                        actor.person(), line.item().item(), view.round().id())
                .filter(n -> n != line.item().number())
                .flatMap(n -> versions.version(line.item().item(), n));
    }
}
