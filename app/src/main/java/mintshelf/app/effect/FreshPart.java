package mintshelf.app.effect;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.KindFact;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.core.fact.FactValue;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.revision.RevisionRules;
import mintshelf.core.revision.ShippedSeries;
import org.springframework.stereotype.Component;

/** New parts that have neither drawing nor model. Within the caller's transaction. */
@Component
public class FreshPart {
    private final NewDocuments documents;
    private final DrawNumbers draw;
    private final FreshFacts facts;
    private final PartCard card;
    private final FreshCopy copies;
    private final Links links;
    private final Recorder recorder;

    FreshPart(
            NewDocuments documents,
            DrawNumbers draw,
            FreshFacts facts,
            PartCard card,
            FreshCopy copies,
            Links links,
            Recorder recorder) {
        this.documents = documents;
        this.draw = draw;
        this.facts = facts;
        this.card = card;
        this.copies = copies;
        this.links = links;
        this.recorder = recorder;
    }

    /**
     * Makes one with its first version. The caller asks whether the actor may file it there.
     *
     * @param typed its number; empty for the next one of the series
     * @param said of its facts, by short name
     */
    public NewDocuments.Made make(
            Actor actor, Kind kind, Folder folder, String typed, String title, Map<String, String> said) {
        Map<KindFact, FactValue> values = facts.read(actor, kind, said);
        Map<String, String> texts = new LinkedHashMap<>();
        values.forEach((fact, value) -> texts.put(fact.fact().name(), value.text()));
        // Whether what is drawn has a part with revisions of its own is the house's to say.
        boolean ownLine = HouseRules.keeps(actor);
        NumberKey number = draw.take(actor.person(), kind, folder.shelf(), typed, texts, ownLine)
                .orElseThrow(Refused::new);
        Optional<String> label = RevisionRules.firstLabel(
                        ShippedSeries.of(kind.revisionSeries()), kind.labelAtStart(), "")
                .orElseThrow(Refused::new);
        NewDocuments.Made made = documents.add(
                actor,
                new NewDocuments.New(
                        kind,
                        folder,
                        number,
                        title,
                        copies.fileName(folder.id(), number.number(), "json"),
                        label,
                        "",
                        values,
                        card.of(kind.id(), texts),
                        "What it says of itself"));
        links.byNumber(actor, made.item());
        recorder.recent(actor, made.item(), "made");
        recorder.note(actor, made.item(), "version.added", made.number(), "made the part " + number.number(), "");
        return made;
    }
}
