package mintshelf.app.use.change;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.ChangePaper;
import mintshelf.app.effect.FilePaper;
import mintshelf.app.effect.FindEvidence;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.WarnOfReleased;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Requests;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.change.RequestStore;
import mintshelf.app.store.house.Kind;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.change.Cause;
import mintshelf.core.change.PaperLine;
import mintshelf.core.change.PaperType;
import mintshelf.core.change.Priority;
import mintshelf.core.document.Document;
import mintshelf.core.numbering.NumberKey;
import org.springframework.stereotype.Service;

/** Writes a request from a selection: what is wrong or wanted, of which documents. */
@Service
public class OpenRequest {
    private static final int SHORT = 72;

    private final Requests requests;
    private final PaperStore papers;
    private final RequestStore store;
    private final ChangePaper paper;
    private final FilePaper file;
    private final FindEvidence evidence;
    private final WarnOfReleased warn;
    private final Acts acts;
    private final Recorder recorder;

    public OpenRequest(
            Requests requests,
            PaperStore papers,
            RequestStore store,
            ChangePaper paper,
            FilePaper file,
            FindEvidence evidence,
            WarnOfReleased warn,
            Acts acts,
            Recorder recorder) {
        this.requests = requests;
        this.papers = papers;
        this.store = store;
        this.paper = paper;
        this.file = file;
        this.evidence = evidence;
        this.warn = warn;
        this.acts = acts;
        this.recorder = recorder;
    }

    /**
     * What somebody says of a change that they ask for.
     *
     * @param reasons why each document is named, by its id; where empty the whole reason stands
     * @param evidence as it was typed, a line each
     * @param kind code of the kind of request; empty for the house's first
     */
    public record Says(
            String title,
            String reason,
            Optional<Cause> cause,
            Priority priority,
            Map<Long, String> reasons,
            List<String> evidence,
            Optional<String> kind) {
        /** A request of the house's first kind. */
        public Says(
                String title,
                String reason,
                Optional<Cause> cause,
                Priority priority,
                Map<Long, String> reasons,
                List<String> evidence) {
            this(title, reason, cause, priority, reasons, evidence, Optional.empty());
        }
    }

    /** A document that a change is asked of, or why none is. */
    public List<Requests.Row> plan(Actor actor, Collection<Long> items) {
        if (items.isEmpty() || items.size() > AskForChange.MOST) throw new NotThere();
        List<Requests.Row> rows = requests.rows(actor, items);
        if (rows.isEmpty()) throw new NotThere();
        return rows;
    }

    /** Whether who wants a document changed writes a request first, as the house says; else they ask for the order itself. */
    public boolean asksFirst(Seen seen) {
        return requests.asksFirst(seen);
    }

    /**
     * Opens the request; all of its documents or none.
     *
     * @return its address
     */
    public String open(Actor actor, Collection<Long> items, String key, Says says) {
        String title = Texts.required("In short", says.title(), SHORT).orElseThrow(Refused::new);
        String reason = Texts.optionalLines("The reason", says.reason(), 2000).orElseThrow(Refused::new);
        if (reason.isEmpty())
            throw Refused.because("text.missing", "The reason is empty.", "Say what is wrong or wanted.");
        return acts.once(actor, key, () -> {
            List<Requests.Row> rows = plan(actor, items);
            List<String> why = rows.stream()
                    .flatMap(r -> r.refusal().stream())
                    .map(Refusal::says)
                    .toList();
            if (!why.isEmpty() || rows.size() != items.size()) {
                throw Refused.because(
                        "request.refused", String.join(" ", why), "Nothing was asked for; leave those rows out.");
            }
            long shelf = rows.get(0).seen().document().place().shelf();
            Kind kind = file.kinds().of(PaperType.REQUEST, says.kind());
            NumberKey number = file.number(kind, shelf);
            long id = file.file(
                    actor,
                    kind,
                    shelf,
                    number,
                    title,
                    number.number() + ".json",
                    paper.begun(PaperType.REQUEST, number.number(), title, reason),
                    "begun");
            papers.add(
                    id, PaperType.REQUEST, reason, says.cause().map(Cause::name).orElse(""), says.priority());
            int position = 1;
            for (Requests.Row row : rows) line(actor, id, position++, row.seen(), says.reasons());
            Set<String> typed = new LinkedHashSet<>(says.evidence());
            typed.removeIf(String::isBlank);
            for (String one : typed) {
                FindEvidence.Found found = evidence.find(actor, one);
                store.addEvidence(id, found.evidence(""), actor.person());
            }
            paper.write(actor, actor.person(), id, "wrote it");
            recorder.recent(actor, id, "opened");
            recorder.note(
                    actor,
                    id,
                    "request.opened",
                    "asks in " + number.number() + " for a change of "
                            + Numbers.count(rows.size(), "document", "documents"),
                    Texts.shorten(reason, 500));
            if (says.priority() == Priority.NOW) {
                warn.warn(actor, id, number.number(), title, new ArrayList<>(items));
            }
            return "/requests/" + id;
        });
    }

    private void line(Actor actor, long request, int position, Seen seen, Map<Long, String> reasons) {
        Document document = seen.document();
        String reason = Texts.optional(
                        "The reason for " + document.number(), reasons.getOrDefault(document.id(), ""), 500)
                .orElseThrow(Refused::new);
        papers.nameLine(
                request,
                position,
                document.id(),
                PaperLine.What.REVISE,
                reason,
                document.released().map(r -> r.id()));
    }
}
