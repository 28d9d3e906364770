package mintshelf.app.use.change;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.StartRevision;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.change.RequestStore;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.change.OrderRules;
import mintshelf.core.change.PaperLine;
import mintshelf.core.document.Document;
import mintshelf.core.revision.StageClass;
import org.springframework.stereotype.Service;

/** Begins the revisions that an accepted request asks for, where no order takes it up. */
@Service
public class GoOnWithRequest {
    private final Sight sight;
    private final PaperStore papers;
    private final RequestStore store;
    private final StartRevision start;
    private final Acts acts;
    private final Recorder recorder;

    public GoOnWithRequest(
            Sight sight, PaperStore papers, RequestStore store, StartRevision start, Acts acts, Recorder recorder) {
        this.sight = sight;
        this.papers = papers;
        this.store = store;
        this.start = start;
        this.acts = acts;
        this.recorder = recorder;
    }

    /** All of them or none; a revision that is under way already is taken along. */
    public String start(Actor actor, long request, String key) {
        return acts.once(actor, key, () -> {
            List<PaperLine> lines = papers.lines(request);
            Set<Long> ids = new TreeSet<>();
            lines.forEach(l -> ids.add(l.item()));
            ids.add(request);
            Map<Long, Seen> seen = sight.lockedWithPapers(actor, ids).stream()
                    .collect(Collectors.toMap(s -> s.spine().id(), s -> s));
            Seen paper = seen.get(request);
            if (!paper.all() || papers.request(request).isEmpty()) throw new NotThere();
            Set<Refusal> inTheWay = new LinkedHashSet<>();
            if (paper.current().stage().stageClass() != StageClass.RELEASED) {
                inTheWay.add(Refusal.of(
                        "request.open",
                        paper.document().number() + " is "
                                + paper.current().stage().name() + ".",
                        "Its revisions start when it is accepted."));
            }
            store.orderOf(request)
                    .ifPresent(order -> inTheWay.add(Refusal.of(
                            "request.order",
                            "An order has taken " + paper.document().number() + " up.",
                            "The order starts its lines.")));
            if (lines.stream().anyMatch(l -> l.toRevision().isPresent())) {
                inTheWay.add(
                        Refusal.of("request.started", "Its revisions were started already.", "Look at its documents."));
            }
            for (PaperLine line : lines) {
                Document document = seen.get(line.item()).document();
                if (!seen.get(line.item()).all()) throw new NotThere();
                actor.access().ask(Right.CHANGE, document.place()).ifPresent(inTheWay::add);
                OrderRules.start(document).ifPresent(inTheWay::add);
            }
            papers.open(ids)
                    .forEach((item, on) -> inTheWay.add(Refusal.of(
                            "order.goes_with",
                            seen.get(item).document().number() + " goes with " + on.number() + ".",
                            "Put the request on that order.")));
            Refused.unlessEmpty(List.copyOf(inTheWay), "request.refused", "No revision was started.");
            String number = paper.document().number();
            for (PaperLine line : lines) {
                Document document = seen.get(line.item()).document();
                String why = line.reason().isEmpty() ? paper.document().title() : line.reason();
                long revision = document.pending().isPresent()
                        ? document.pending().get().id()
                        : start.start(actor, document, Texts.shorten(number + ": " + Texts.line(why), 200), "");
                papers.setTo(line.id(), revision);
            }
            recorder.note(actor, request, "request.started", "started the revisions that it asks for", "");
            return "/requests/" + request;
        });
    }
}
