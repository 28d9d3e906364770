package mintshelf.app.effect;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.FactNames;
import mintshelf.app.sight.FileFacts;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.KindFact;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Document;
import mintshelf.core.document.Stage;
import mintshelf.core.fact.Computed;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.FactReader;
import mintshelf.core.fact.FactSource;
import mintshelf.core.fact.FactValue;
import mintshelf.core.revision.StageClass;
import org.springframework.stereotype.Component;

/** Writes facts of revisions: what is typed is asked for, what is put together follows. Within the caller's transaction. */
@Component
public class FactValues {
    private final FactStore facts;
    private final HouseStore house;
    private final VersionStore versions;
    private final FileFacts files;
    private final FactNames names;

    public FactValues(FactStore facts, HouseStore house, VersionStore versions, FileFacts files, FactNames names) {
        this.facts = facts;
        this.house = house;
        this.versions = versions;
        this.files = files;
        this.names = names;
    }

    /** Why an actor may not type a fact of the revision that they see; nothing when they may. */
    public Optional<Refusal> closed(Actor actor, Seen seen, FactDefinition fact) {
        if (!fact.use().source().isTyped()) {
            boolean computed = fact.use().source() == FactSource.COMPUTED;
            return Optional.of(Refusal.of(
                    "fact.source",
                    fact.label() + (computed ? " is put together from other facts." : " is what the file says."),
                    computed ? "Change those." : "Change it there and check in."));
        }
        return notNow(actor, seen, fact);
    }

    /** Why no order changes a fact of what is in force; nothing where one may: what the house lets change once released, and nothing else says. */
    public Optional<Refusal> closedToOrders(Seen seen, FactDefinition fact) {
        if (!fact.use().source().isTyped()
                || fact.use().hands().in(StageClass.RELEASED).isEmpty()) {
            return Optional.of(Refusal.of(
                    "fact.closed", fact.label() + " is part of what was released.", "Let the order revise it."));
        }
        String sheet = said(seen).getOrDefault(fact.name(), "");
        return sheet.isEmpty()
                ? Optional.empty()
                : Optional.of(Refusal.of(
                        "fact.on_sheet",
                        "The released file says " + fact.label() + " " + quoted(sheet) + ".",
                        "Let the order revise it, so that both change."));
    }

    /** What was typed of a fact, as it is kept; refused where it is no value of it. */
    public String read(Actor actor, FactDefinition fact, String raw) {
        return FactReader.read(fact, raw, names.of(actor))
                .orElseThrow(Refused::new)
                .map(FactValue::text)
                .orElse("");
    }

    /** Changes facts of what is in force as an order says, whose board decided on them. What changed, in words. */
    public List<String> byOrder(Actor actor, Seen seen, Map<String, String> wanted) {
        long revision = seen.document().released().orElseThrow().id();
        Map<String, String> before = facts.facts(revision);
        List<FactDefinition> sheet = sheet(seen.document());
        List<String> said = new ArrayList<>();
        for (FactDefinition fact : sheet) {
            if (!wanted.containsKey(fact.name())) continue;
            closedToOrders(seen, fact).ifPresent(r -> {
                throw new Refused(r);
            });
            String current = before.getOrDefault(fact.name(), "");
            Optional<FactValue> value = FactReader.read(fact, wanted.get(fact.name()), names.of(actor))
                    .orElseThrow(Refused::new);
            String now = value.map(FactValue::text).orElse("");
            if (current.equals(now)) continue;
            facts.setFact(revision, fact.id(), value);
            said.add(fact.label() + " " + quoted(current) + " → " + quoted(now));
        }
        if (!said.isEmpty()) said.addAll(compute(sheet, revision));
        return said;
    }

    /** What stands in the way but for the fact's source. */
    private Optional<Refusal> notNow(Actor actor, Seen seen, FactDefinition fact) {
        Document document = seen.document();
        Stage stage = seen.current().stage();
        if (!house.edition(stage.edition()).rule(stage.code()).facts()) {
            return Optional.of(Refusal.of(
                    "stage.facts",
                    fact.label() + " does not change in “" + stage.name() + "”.",
                    "Take it to another stage first."));
        }
        Optional<Refusal> hands =
                fact.use().hands().ask(fact.label(), stage.stageClass(), actor.access(), document.place());
        if (hands.isPresent() || seen.pending().isEmpty()) return hands;
        return heldByAnother(actor, document);
    }

    /** Why an actor does not change what a document under way says of itself: somebody else holds it. */
    public static Optional<Refusal> heldByAnother(Actor actor, Document document) {
        return document.holder()
                .filter(h -> h.person() != actor.person())
                .map(h -> Refusal.of(
                        "hold.taken",
                        document.number() + " is held by " + h.name() + ".",
                        "Ask " + h.name() + " first."));
    }

    /** The facts that documents of a kind record, in their order. */
    public List<FactDefinition> sheet(Document document) {
        return house.factSheets().getOrDefault(document.place().kind(), List.of()).stream()
                .map(KindFact::fact)
                .toList();
    }

    /**
     * Takes what was typed of the revision that the actor sees; all of it, or it refuses.
     *
     * @param was what the page showed, by fact name; a fact that somebody changed since is not overwritten unseen
     * @param why it changes; some facts ask for it once they are in force
     * @return what changed, in words; empty for nothing
     */
    public List<String> type(Actor actor, Seen seen, Map<String, String> typed, Map<String, String> was, String why) {
        long revision = seen.current().id();
        Map<String, String> before = facts.facts(revision);
        List<FactDefinition> sheet = sheet(seen.document());
        List<String> said = new ArrayList<>();
        for (FactDefinition fact : sheet) {
            String raw = typed.get(fact.name());
            String shown = was.get(fact.name());
            if (raw == null || raw.equals(shown)) continue;
            String current = before.getOrDefault(fact.name(), "");
            if (shown != null && !shown.equals(current)) {
                throw Refused.because(
                        "page.old",
                        fact.label() + " is " + quoted(current) + " now; your page showed " + quoted(shown) + ".",
                        "Look at it again; nothing was changed.");
            }
            Optional<FactValue> value =
                    FactReader.read(fact, raw, names.of(actor)).orElseThrow(Refused::new);
            String now = value.map(FactValue::text).orElse("");
            if (current.equals(now)) continue;
            inTheWay(actor, seen, fact, raw)
                    .or(() -> fact.use()
                            .hands()
                            .unsaid(fact.label(), seen.current().stage().stageClass(), why))
                    .ifPresent(r -> {
                        throw new Refused(r);
                    });
            facts.setFact(revision, fact.id(), value);
            said.add(fact.label() + " " + quoted(current) + " → " + quoted(now));
        }
        if (!said.isEmpty()) said.addAll(compute(sheet, revision));
        return said;
    }

    private Optional<Refusal> inTheWay(Actor actor, Seen seen, FactDefinition fact, String raw) {
        boolean released = seen.current().stage().stageClass() == StageClass.RELEASED;
        boolean read = fact.use().source() == FactSource.SHEET;
        Optional<Refusal> closed = read ? notNow(actor, seen, fact) : closed(actor, seen, fact);
        if (closed.isPresent() || (!read && !released)) return closed;
        String sheet = said(seen).getOrDefault(fact.name(), "");
        // What the sheet says and the record does not is taken over by hand.
        if (read) return sheet.equals(raw) ? Optional.empty() : closed(actor, seen, fact);
        return sheet.isEmpty()
                ? Optional.empty()
                : Optional.of(Refusal.of(
                        "fact.on_sheet",
                        "The released file says " + fact.label() + " " + quoted(sheet) + ".",
                        "Start the next revision to change both."));
    }

    private Map<String, String> said(Seen seen) {
        return versions.version(seen.document().id(), seen.version())
                .map(v -> files.of(v.content()))
                .orElse(Map.of());
    }

    /** Reads what a file says, so that it is known when a transaction asks for it. */
    public void look(StoredContent content) {
        files.of(content);
    }

    /** Puts together what follows from the others. */
    public List<String> compute(List<FactDefinition> sheet, long revision) {
        if (sheet.stream().noneMatch(f -> f.use().source() == FactSource.COMPUTED)) return List.of();
        Map<String, String> values = facts.facts(revision);
        List<String> said = new ArrayList<>();
        Computed.of(sheet, values).forEach((fact, now) -> {
            String before = values.getOrDefault(fact.name(), "");
            if (before.equals(now)) return;
            facts.setFact(
                    revision, fact.id(), now.isEmpty() ? Optional.empty() : Optional.of(new FactValue.Words(now)));
            said.add(fact.label() + " " + quoted(before) + " → " + quoted(now));
        });
        return said;
    }

    /**
     * Takes over what the designer changed in the title block, or in a model. What stands there as it stood before leaves the record alone, for
     * somebody may have put it right there meanwhile.
     *
     * @return what was taken over, in words; empty for nothing
     */
    public String takeOver(Actor actor, Document document, StoredContent content) {
        Map<String, String> now = files.of(content);
        if (now.isEmpty()) return "";
        Map<String, String> before =
                files.of(versions.version(document.id(), document.head().number())
                        .orElseThrow()
                        .content());
        long revision = document.pending().orElseThrow().id();
        Map<String, String> kept = facts.facts(revision);
        List<FactDefinition> sheet = sheet(document);
        List<String> taken = new ArrayList<>();
        for (FactDefinition fact : sheet) {
            String name = fact.name();
            String said = now.get(name);
            if (said == null || !fact.use().source().isRead()) continue;
            if (said.equals(before.get(name)) || said.equals(kept.get(name))) continue;
            if (!(FactReader.read(fact, said, names.of(actor)) instanceof Outcome.Granted<Optional<FactValue>> read)) {
                continue;
            }
            facts.setFact(revision, fact.id(), read.value());
            taken.add(fact.label() + " “" + Texts.shorten(said, 60) + "”");
        }
        if (!taken.isEmpty()) compute(sheet, revision);
        return Texts.shorten(String.join(", ", taken), 300);
    }

    private static String quoted(String value) {
        return value.isEmpty() ? "empty" : "“" + value + "”";
    }
}
