package mintshelf.app.use.change;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.ChangePaper;
import mintshelf.app.effect.FindEvidence;
import mintshelf.app.effect.WarnOfReleased;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Requests;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.change.RequestStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.change.Cause;
import mintshelf.core.change.Goal;
import mintshelf.core.change.PaperLine;
import mintshelf.core.change.PaperSpot;
import mintshelf.core.change.Priority;
import mintshelf.core.fact.FactDefinition;
import org.springframework.stereotype.Service;

/** Changes what a request says while it is written: its words, its lines, its evidence, its goals. */
@Service
public class WriteRequest {
    private static final int MOST_GOALS = 50;
    static final int MOST_EVIDENCE = 100;

    private final Sight sight;
    private final Requests requests;
    private final PaperStore papers;
    private final RequestStore store;
    private final ChangePaper paper;
    private final FindEvidence evidence;
    private final HouseStore house;
    private final WarnOfReleased warn;
    private final Acts acts;

    public WriteRequest(
            Sight sight,
            Requests requests,
            PaperStore papers,
            RequestStore store,
            ChangePaper paper,
            FindEvidence evidence,
            HouseStore house,
            WarnOfReleased warn,
            Acts acts) {
        this.sight = sight;
        this.requests = requests;
        this.papers = papers;
        this.store = store;
        this.paper = paper;
        this.evidence = evidence;
        this.house = house;
        this.warn = warn;
        this.acts = acts;
    }

    private interface Change {
        void make(Seen request);
    }

    private String change(Actor actor, long request, String key, String says, Change change) {
        return acts.once(actor, key, () -> {
            Seen seen = paper.written(actor, sight.lockedWithPapers(actor, List.of(request)), request);
            change.make(seen);
            paper.write(actor, actor.person(), request, says);
            return "/requests/" + request;
        });
    }

    /**
     * The words of a request and the reasons of its lines.
     *
     * @param reasons by line
     * @param removed lines that go, with their goals; one stays at least
     */
    public String say(
            Actor actor,
            long request,
            String key,
            String reason,
            Optional<Cause> cause,
            Priority priority,
            Map<Long, String> reasons,
            Collection<Long> removed) {
        String why = Texts.optionalLines("The reason", reason, 2000).orElseThrow(Refused::new);
        if (why.isEmpty())
            throw Refused.because("text.missing", "The reason is empty.", "Say what is wrong or wanted.");
        return change(actor, request, key, "changed what it says", seen -> {
            List<PaperLine> lines = papers.lines(request);
            if (lines.stream().allMatch(l -> removed.contains(l.id()))) {
                throw Refused.because(
                        "request.lines", "A request without documents changes nothing.", "Drop it instead.");
            }
            boolean sooner = priority == Priority.NOW
                    && papers.request(request).orElseThrow().priority() != Priority.NOW;
            papers.set(request, why, cause.map(Cause::name).orElse(""), priority);
            if (sooner) {
                warn.warn(
                        actor,
                        request,
                        seen.document().number(),
                        seen.document().title(),
                        lines.stream().map(PaperLine::item).toList());
            }
            for (PaperLine line : lines) {
                if (removed.contains(line.id())) {
                    papers.removeLine(line);
                } else if (reasons.containsKey(line.id())) {
                    papers.setLineReason(
                            line.id(),
                            Texts.optional("A line's reason", reasons.get(line.id()), 500)
                                    .orElseThrow(Refused::new));
                }
            }
        });
    }

    /** Names more documents; all of them or none. Those that it names already stay. */
    public String name(Actor actor, long request, String key, Collection<Long> items) {
        return change(actor, request, key, "named more documents", seen -> {
            List<PaperLine> lines = papers.lines(request);
            List<Long> fresh = items.stream()
                    .filter(i -> lines.stream().noneMatch(l -> l.item() == i))
                    .toList();
            List<Requests.Row> rows = requests.rows(actor, fresh);
            Refused.unlessEmpty(
                    rows.stream().flatMap(r -> r.refusal().stream()).toList(),
                    "request.refused",
                    "Nothing was added; leave those out.");
            if (rows.size() != fresh.size() || lines.size() + rows.size() > AskForChange.MOST) throw new NotThere();
            int position = lines.stream().mapToInt(PaperLine::position).max().orElse(0) + 1;
            for (Requests.Row row : rows) {
                papers.nameLine(
                        request,
                        position++,
                        row.seen().spine().id(),
                        PaperLine.What.REVISE,
                        "",
                        row.seen().document().released().map(r -> r.id()));
            }
        });
    }

    /** As {@link FindEvidence} reads it; what stands there already is not added again. */
    public String addEvidence(Actor actor, long request, String key, String typed, String note) {
        String words = Texts.optional("The note", note, 300).orElseThrow(Refused::new);
        return change(actor, request, key, "added evidence", seen -> {
            FindEvidence.Found found = evidence.find(actor, typed);
            List<RequestStore.Evidence> there = store.evidence(request);
            if (there.size() >= MOST_EVIDENCE) {
                throw Refused.because("evidence.many", "It has " + MOST_EVIDENCE + " already.", "Take one away first.");
            }
            Optional<Long> against = found.against().map(v -> v.id());
            boolean known = there.stream()
                    .anyMatch(e -> e.version() == found.version().id()
                            && e.against().equals(against)
                            && e.spot().map(PaperSpot::page).equals(found.spot().map(PaperSpot::page)));
            if (!known) store.addEvidence(request, found.evidence(words), actor.person());
        });
    }

    public String removeEvidence(Actor actor, long request, String key, long id) {
        return change(actor, request, key, "took evidence away", seen -> store.removeEvidence(request, id));
    }

    /** Sets a goal on a fact of a line, as it was typed. */
    public String addGoal(
            Actor actor, long request, String key, long item, String fact, Goal.Relation relation, String wanted) {
        return change(actor, request, key, "set a goal", seen -> {
            if (papers.lines(request).stream().noneMatch(l -> l.item() == item)) {
                throw Refused.because("goal.line", "It names no such document.", "Choose one of its lines.");
            }
            FactDefinition definition = house.facts().stream()
                    .filter(f -> f.name().equals(fact))
                    .findFirst()
                    .orElseThrow(() ->
                            new Refused(Refusal.of("goal.fact", "There is no such fact.", "Choose one of the list.")));
            if (store.goals(request, house.facts()).size() >= MOST_GOALS) {
                throw Refused.because("goal.many", "It has " + MOST_GOALS + " goals already.", "Take one away first.");
            }
            store.addGoal(request, Goal.read(item, definition, relation, wanted).orElseThrow(Refused::new));
        });
    }

    public String removeGoal(Actor actor, long request, String key, long id) {
        return change(actor, request, key, "took a goal away", seen -> store.removeGoal(request, id));
    }
}
