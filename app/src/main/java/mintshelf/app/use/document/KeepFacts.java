package mintshelf.app.use.document;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.FallingSignOffs;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.KindFact;
import mintshelf.core.access.Right;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Document;
import mintshelf.core.fact.FactReader;
import mintshelf.core.fact.FactValue;
import org.springframework.stereotype.Service;

/** Changes of a document without its file: its title and facts. */
@Service
public class KeepFacts {
    private final Sight sight;
    private final DocumentStore documents;
    private final FactStore facts;
    private final RevisionStore revisions;
    private final HouseStore house;
    private final FallingSignOffs signOffs;
    private final Acts acts;
    private final Recorder recorder;
    private final Clock clock;

    public KeepFacts(
            Sight sight,
            DocumentStore documents,
            FactStore facts,
            RevisionStore revisions,
            HouseStore house,
            FallingSignOffs signOffs,
            Acts acts,
            Recorder recorder,
            Clock clock) {
        this.sight = sight;
        this.documents = documents;
        this.facts = facts;
        this.revisions = revisions;
        this.house = house;
        this.signOffs = signOffs;
        this.acts = acts;
        this.recorder = recorder;
        this.clock = clock;
    }

    /**
     * Keeps the title and the typed facts of the pending revision; all of them or none.
     *
     * @param was what the page showed, by fact name; a fact that somebody changed since is not overwritten unseen
     */
    public String keep(
            Actor actor, long item, String key, String title, Map<String, String> typed, Map<String, String> was) {
        return acts.once(actor, key, () -> {
            Seen seen = sight.locked(actor, item);
            Document document = seen.document();
            refuseUnlessUnderWay(actor, document);
            List<String> said = new ArrayList<>();
            String newTitle = Texts.required("The title", title, 200).orElseThrow(Refused::new);
            if (!newTitle.equals(document.title())) {
                revisions.setTitle(item, document.pending().orElseThrow().id(), newTitle, clock.instant());
                said.add("title “" + document.title() + "” → “" + newTitle + "”");
            }
            long revision = document.pending().orElseThrow().id();
            Map<String, String> before = facts.facts(revision);
            for (KindFact fact :
                    house.factSheets().getOrDefault(document.place().kind(), List.of())) {
                String raw = typed.get(fact.fact().name());
                String shownBefore = was.get(fact.fact().name());
                if (raw == null || raw.equals(shownBefore)) continue;
                String current = before.getOrDefault(fact.fact().name(), "");
                if (shownBefore != null && !shownBefore.equals(current)) {
                    throw Refused.because(
                            "page.old",
                            fact.fact().label() + " is " + shown(current) + " now; your page showed "
                                    + shown(shownBefore) + ".",
                            "Look at it again; nothing was changed.");
                }
                Outcome<Optional<FactValue>> read = FactReader.read(fact.fact(), raw);
                Optional<FactValue> value = read.orElseThrow(Refused::new);
                String old = current;
                String now = value.map(FactValue::text).orElse("");
                if (old.equals(now)) continue;
                facts.setFact(revision, fact.fact().id(), value);
                said.add(fact.fact().label() + " " + shown(old) + " → " + shown(now));
            }
            if (!said.isEmpty()) {
                documents.touch(item, clock.instant());
                revisions.noteHand(revision, actor.person());
                String changed = String.join(", ", said);
                recorder.note(actor, item, "facts.changed", "changed " + changed, "");
                signOffs.changed(actor, item, changed);
            }
            return "/documents/" + item;
        });
    }

    private static String shown(String value) {
        return value.isEmpty() ? "empty" : "“" + value + "”";
    }

    /** In a round facts may still be put right: then the sign-offs that were given fall. */
    private static void refuseUnlessUnderWay(Actor actor, Document document) {
        actor.access().ask(Right.CHANGE, document.place()).ifPresent(r -> {
            throw new Refused(r);
        });
        if (document.pending().isEmpty()) {
            throw Refused.because(
                    "stage.closed",
                    document.number() + " is not under way; its facts do not change.",
                    "Start the next revision first.");
        }
        document.holder().filter(h -> h.person() != actor.person()).ifPresent(h -> {
            throw Refused.because(
                    "hold.taken",
                    document.number() + " is held by " + h.name() + ".",
                    "Ask " + h.name() + " to change it.");
        });
    }
}
