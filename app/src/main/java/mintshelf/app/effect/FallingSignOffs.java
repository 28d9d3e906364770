package mintshelf.app.effect;

import java.time.Clock;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.round.RoundStore;
import mintshelf.app.store.structure.ReferenceStore;
import mintshelf.core.access.Place;
import mintshelf.core.base.ContentHash;
import mintshelf.core.document.Document;
import mintshelf.core.signoff.Round;
import mintshelf.core.signoff.SignOff;
import mintshelf.core.signoff.SignOffRules;
import org.springframework.stereotype.Component;

/** Lets the sign-offs of a round fall when what was signed is no longer what stands there, and tells the signers why. */
@Component
public class FallingSignOffs {
    private final RoundStore rounds;
    private final SpineStore spines;
    private final FactStore facts;
    private final ReferenceStore references;
    private final Telling telling;
    private final Recorder recorder;
    private final Clock clock;

    public FallingSignOffs(
            RoundStore rounds,
            SpineStore spines,
            FactStore facts,
            ReferenceStore references,
            Telling telling,
            Recorder recorder,
            Clock clock) {
        this.rounds = rounds;
        this.spines = spines;
        this.facts = facts;
        this.references = references;
        this.telling = telling;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** What a sign-off on a document binds to as it stands now. */
    public RoundStore.Item item(Document document) {
        ContentHash digest = SignOffRules.digest(
                document.head().content(),
                facts.facts(document.pending().orElseThrow().id()),
                References.digests(references.of(document.head().version())),
                document.number(),
                document.title());
        return new RoundStore.Item(
                document.id(), document.head().version(), document.head().number(), digest);
    }

    /**
     * After a change of a document, under its lock: if it is in an open round and its digest moved, all sign-offs of the round
     * fall, and who is asked now is asked for what stands there.
     *
     * @return whether a round looked at it
     */
    public boolean changed(Actor actor, long itemId, String what) {
        Optional<Long> open = rounds.openRound(itemId);
        if (open.isEmpty()) return false;
        rounds.lock(open.get());
        Document document = spines.spine(itemId).orElseThrow().document();
        RoundStore.Item now = item(document);
        boolean same = rounds.items(open.get()).stream()
                .anyMatch(i -> i.item() == itemId && i.digest().equals(now.digest()) && i.version() == now.version());
        if (same) return true;
        Round round = rounds.round(open.get()).orElseThrow();
        if (!round.isOpen()) {
            throw Refused.because(
                    "round.signed",
                    document.number() + " is signed and waits to be carried out.",
                    "Take it back first; nothing was changed.");
        }
        long revision = document.pending().orElseThrow().id();
        if (!rounds.readings(List.of(revision))
                .getOrDefault(revision, List.of())
                .isEmpty()) {
            throw Refused.because(
                    "round.read",
                    document.number() + " was signed in an earlier reading, as it stands.",
                    "Return it first: it goes through both readings again. Nothing was changed.");
        }
        Instant at = clock.instant();
        rounds.rebind(round.id(), now);
        List<SignOff> standing =
                round.signOffs().stream().filter(SignOff::stands).toList();
        // Who has signed some of the sheets has signed what stands no more.
        Map<Long, String> signers = new LinkedHashMap<>();
        standing.forEach(s -> signers.put(s.person(), s.name()));
        round.begun().forEach(b -> signers.put(b.person(), b.name()));
        if (signers.isEmpty()) {
            tellWhenStuck(actor, round.id(), document);
            return true;
        }
        String why = document.number() + ": " + what;
        rounds.fall(round.id(), why, at);
        for (RoundStore.Item i : rounds.items(round.id())) {
            recorder.note(
                    actor,
                    i.item(),
                    "signoff.fell",
                    i.number(),
                    "let the sign-offs of " + String.join(", ", signers.values()) + " fall",
                    why);
        }
        telling.tell(
                actor,
                signers.keySet(),
                "signoff.fell",
                Optional.of(round.id()),
                itemId,
                "Your sign-off on " + document.number() + " fell: " + what,
                "/rounds/" + round.id());
        tellWhenStuck(actor, round.id(), document);
        return true;
    }

    /** Whoever changes it has worked on it, and signs it no more. */
    private void tellWhenStuck(Actor actor, long roundId, Document document) {
        Round round = rounds.round(roundId).orElseThrow();
        List<Long> items =
                rounds.items(roundId).stream().map(RoundStore.Item::item).toList();
        List<Place> places = spines.spines(items).values().stream()
                .map(s -> s.document().place())
                .toList();
        Set<Long> authors = rounds.authors(List.of(roundId)).getOrDefault(roundId, Set.of());
        telling.tellWhenStuck(actor, round, authors, places, document.id(), document.number());
    }
}
