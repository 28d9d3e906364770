package mintshelf.app.use.change;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.Evidences;
import mintshelf.app.sight.OnOrders;
import mintshelf.app.sight.OpenPapers;
import mintshelf.app.sight.Requests;
import mintshelf.app.sight.RoundSight;
import mintshelf.app.sight.RoundSight.RoundView;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.change.RequestStore;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.KindFact;
import mintshelf.core.access.Right;
import mintshelf.core.change.Goal;
import mintshelf.core.change.PaperLine;
import mintshelf.core.change.Similar;
import mintshelf.core.document.Revision;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.FactType;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Move;
import mintshelf.core.route.Route;
import org.springframework.stereotype.Service;

/** A request as its page shows it. */
@Service
public class ReadRequests {
    private static final int FACTS = 4;

    private final Sight sight;
    private final Requests requests;
    private final PaperStore papers;
    private final RequestStore store;
    private final HouseStore house;
    private final FactStore facts;
    private final VersionStore versions;
    private final RoundSight rounds;
    private final OnOrders goals;

    public ReadRequests(
            Sight sight,
            Requests requests,
            PaperStore papers,
            RequestStore store,
            HouseStore house,
            FactStore facts,
            VersionStore versions,
            RoundSight rounds,
            OnOrders goals) {
        this.sight = sight;
        this.requests = requests;
        this.papers = papers;
        this.store = store;
        this.house = house;
        this.facts = facts;
        this.versions = versions;
        this.rounds = rounds;
        this.goals = goals;
    }

    /**
     * A line as a person sees it.
     *
     * @param seen empty for a document that they may not see
     * @param facts of the revision in force, in the order of its fact sheet, filled in and never typed
     * @param to label of the revision that was started for it; empty for none
     */
    public record LineView(PaperLine line, Optional<Seen> seen, Map<String, String> facts, String from, String to) {}

    /**
     * @param seen empty for a document that the person may not see
     * @param href where it is looked at: the version, or the two beside each other
     */
    public record EvidenceView(
            RequestStore.Evidence evidence, Optional<Seen> seen, VersionRow version, String says, String href) {}

    public record View(
            Seen seen,
            PaperStore.Paper paper,
            Route route,
            List<LineView> lines,
            List<OnOrders.GoalView> goals,
            List<EvidenceView> evidence,
            List<RoundView> board,
            Optional<Seen> order,
            List<Requests.Like> like) {
        public String stage() {
            return seen.current().stage().code();
        }

        public StageClass stands() {
            return seen.current().stage().stageClass();
        }

        public boolean started() {
            return lines.stream().anyMatch(l -> l.line().toRevision().isPresent());
        }

        public long met() {
            return goals.stream()
                    .filter(g -> g.judgement().state() == Goal.State.MET)
                    .count();
        }
    }

    /** What its stage knows and the actor's rights make. */
    public record Offers(
            boolean edits,
            boolean asks,
            boolean takesBack,
            boolean defers,
            boolean declines,
            boolean drops,
            boolean starts,
            boolean goesOnOrder) {}

    public Offers offers(Actor actor, View view) {
        boolean accepted = view.seen().all()
                && view.stands() == StageClass.RELEASED
                && view.order().isEmpty()
                && !view.started();
        boolean changes =
                actor.access().may(Right.CHANGE, view.seen().document().place());
        return new Offers(
                OpenPapers.mayWrite(actor, view.seen())
                        && !store.isDecidedWithOrder(view.seen().spine().id()),
                makes(actor, view, view.route().doing(Effect.OPEN_ROUND, view.stage())),
                makes(
                        actor,
                        view,
                        view.route()
                                .doing(Effect.END_ROUND, view.stage())
                                .filter(m -> view.board().isEmpty()
                                        || view.board().get(0).round().by() == actor.person())),
                makes(actor, view, named(view, "defer")),
                makes(actor, view, named(view, "decline")),
                makes(actor, view, named(view, "drop")) && (view.seen().spine().author() == actor.person() || changes),
                accepted && changes,
                changes
                        && view.seen().all()
                        && view.stands() != StageClass.CLOSED
                        && view.order().isEmpty()
                        && !view.started());
    }

    private static Optional<Move> named(View view, String code) {
        return view.route().from(view.stage()).stream()
                .filter(m -> m.code().equals(code))
                .findFirst();
    }

    private static boolean makes(Actor actor, View view, Optional<Move> move) {
        return view.seen().all()
                && move.filter(m -> actor.access()
                                .may(m.who(), view.seen().document().place()))
                        .isPresent();
    }

    public View request(Actor actor, long id) {
        Seen seen = sight.of(actor, id);
        PaperStore.Paper paper = papers.request(id).orElseThrow(NotThere::new);
        List<PaperLine> lines = papers.lines(id);
        List<RequestStore.Evidence> evidence = store.evidence(id);
        Set<Long> named = new HashSet<>();
        lines.forEach(l -> named.add(l.item()));
        evidence.forEach(e -> named.add(e.item()));
        Optional<Long> order = store.orderOf(id);
        order.ifPresent(named::add);
        Map<Long, Seen> documents = sight.of(actor, named);
        boolean writes = OpenPapers.mayWrite(actor, seen);
        return new View(
                seen,
                paper,
                house.edition(seen.current().stage().edition()),
                lines(lines, documents),
                goals.goals(actor, store.goals(id, house.facts()), lines, documents),
                evidence(evidence, documents),
                seen.all() ? rounds.historyOf(actor, id, 20) : List.of(),
                order.map(documents::get),
                writes ? like(actor, seen, paper, lines) : List.of());
    }

    private List<Requests.Like> like(Actor actor, Seen seen, PaperStore.Paper paper, List<PaperLine> lines) {
        return requests.like(
                actor,
                new Similar.Of(
                        paper.item(),
                        lines.stream().map(PaperLine::item).toList(),
                        seen.document().title() + " " + paper.reason(),
                        paper.cause()),
                5);
    }

    private List<LineView> lines(List<PaperLine> lines, Map<Long, Seen> documents) {
        Map<Long, List<KindFact>> sheets = house.factSheets();
        List<Long> revisions = new ArrayList<>();
        documents.values().forEach(s -> s.document().released().ifPresent(r -> revisions.add(r.id())));
        Map<Long, Map<String, String>> values = facts.facts(revisions);
        Set<Long> named = new HashSet<>();
        lines.forEach(l -> {
            l.fromRevision().ifPresent(named::add);
            l.toRevision().ifPresent(named::add);
        });
        Map<Long, String> labels = papers.labels(named);
        List<LineView> views = new ArrayList<>();
        for (PaperLine line : lines) {
            Optional<Seen> seen = Optional.ofNullable(documents.get(line.item()));
            Map<String, String> shown = new LinkedHashMap<>();
            seen.ifPresent(s -> {
                Map<String, String> own = s.document()
                        .released()
                        .map(Revision::id)
                        .map(values::get)
                        .orElse(Map.of());
                for (KindFact fact : sheets.getOrDefault(s.document().place().kind(), List.of())) {
                    String value = own.getOrDefault(fact.fact().name(), "");
                    if (value.isEmpty() || shown.size() >= FACTS) continue;
                    String unit = fact.fact().unit();
                    shown.put(fact.fact().label(), unit.isEmpty() ? value : value + " " + unit);
                }
            });
            views.add(new LineView(
                    line,
                    seen,
                    shown,
                    line.fromRevision().map(labels::get).orElse("–"),
                    seen.filter(Seen::all)
                            .flatMap(s -> line.toRevision())
                            .map(labels::get)
                            .orElse("")));
        }
        return views;
    }

    private List<EvidenceView> evidence(List<RequestStore.Evidence> all, Map<Long, Seen> documents) {
        Set<Long> ids = new HashSet<>();
        all.forEach(e -> {
            ids.add(e.version());
            e.against().ifPresent(ids::add);
        });
        Map<Long, VersionRow> rows = versions.versionsById(ids);
        List<EvidenceView> views = new ArrayList<>();
        for (RequestStore.Evidence one : all) {
            VersionRow version = rows.get(one.version());
            // Of what is only seen released, no other version is named.
            Optional<Seen> seen = Optional.ofNullable(documents.get(one.item()))
                    .filter(s -> s.all() || s.version() == version.number());
            Optional<VersionRow> old = one.against().map(rows::get);
            views.add(new EvidenceView(
                    one,
                    seen,
                    version,
                    Evidences.says(version, old, one.spot()),
                    Evidences.href(one.item(), version, old, one.spot())));
        }
        return views;
    }

    /** Facts on which a goal of these lines can be set: what their kinds have and people or files fill. */
    public List<FactDefinition> goalFacts(View view) {
        Map<Long, List<KindFact>> sheets = house.factSheets();
        Map<String, FactDefinition> all = new LinkedHashMap<>();
        view.lines().stream()
                .flatMap(l -> l.seen().stream())
                .flatMap(s -> sheets.getOrDefault(s.document().place().kind(), List.of()).stream())
                .map(KindFact::fact)
                .filter(f -> f.type() != FactType.PERSON && f.type() != FactType.DOCUMENT)
                .forEach(f -> all.putIfAbsent(f.name(), f));
        return List.copyOf(all.values());
    }
}
