package mintshelf.app.use.house;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.DrawNumbers;
import mintshelf.app.effect.FactPresets;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.sight.FileFacts;
import mintshelf.app.sight.Places;
import mintshelf.app.store.house.FilingRuleStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.KindFact;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.core.access.Place;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.FileName;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.FactSource;
import mintshelf.core.filing.FilingRule;
import mintshelf.core.filing.Proposal;
import mintshelf.core.route.Route;
import org.springframework.stereotype.Service;

/** What the rules would make of a file that somebody files somewhere: asked of the same objects that file it. Nothing is stored. */
@Service
public class TryIt {
    private static final int AHEAD = 3;

    private final FilingRuleStore filing;
    private final HouseStore house;
    private final DrawNumbers numbers;
    private final ShelfStore shelves;
    private final FileFacts files;
    private final ReadingRoom room;
    private final TriedAnswers answers;
    private final FactPresets presets;

    TryIt(
            FilingRuleStore filing,
            HouseStore house,
            DrawNumbers numbers,
            ShelfStore shelves,
            FileFacts files,
            ReadingRoom room,
            TriedAnswers answers,
            FactPresets presets) {
        this.filing = filing;
        this.house = house;
        this.numbers = numbers;
        this.shelves = shelves;
        this.files = files;
        this.room = room;
        this.answers = answers;
        this.presets = presets;
    }

    /** A folder that something could be filed in. */
    public record Spot(long folder, String path) {}

    /** Every folder of every shelf, as something could be filed there; at most {@code most}. */
    public List<Spot> spots(Actor actor, int most) {
        HouseRules.ask(actor);
        List<Spot> spots = new ArrayList<>();
        for (ShelfStore.Shelf shelf : shelves.shelves()) {
            for (ShelfStore.Folder folder : shelves.folders(shelf.id())) {
                if (spots.size() == most) return spots;
                spots.add(new Spot(
                        folder.id(), folder.parent().isEmpty() ? shelf.name() : shelf.name() + " › " + folder.name()));
            }
        }
        return spots;
    }

    /**
     * @param file its name and its bytes; no bytes where only a name is asked about
     * @param person who would file it
     */
    public Tried of(Actor actor, String file, byte[] bytes, long person, long folder) {
        HouseRules.ask(actor);
        Actor who = answers.actor(person);
        ShelfStore.Folder in = shelves.folder(folder).orElseThrow(NotThere::new);
        FileName name = FileName.of(file);
        byte[] head = bytes.length > ContentKind.SAMPLE ? Arrays.copyOf(bytes, ContentKind.SAMPLE) : bytes;
        ContentKind content = bytes.length == 0 ? guessed(name) : ContentKind.of(head);
        Map<String, String> said = bytes.length == 0 ? Map.of() : room.apart(() -> files.said(content, bytes));
        Proposal proposal = Proposal.of(FilingRule.first(filing.all(), name, content.name()), name, said);
        Optional<Kind> kind = proposal.kind().map(house::kind);
        List<KindFact> sheet = kind.map(k -> house.factSheets().getOrDefault(k.id(), List.of()))
                .orElse(List.of());
        Map<String, String> facts = presets.said(who.login(), sheet, proposal.facts());
        Optional<Route> route = kind.map(k -> house.latest(k, in.shelf()));
        Optional<Place> place = kind.map(k -> Places.of(shelves, in, k.id()));
        List<String> ahead = List.of();
        Optional<Refusal> noNumber = Optional.empty();
        if (kind.isPresent() && proposal.number().isEmpty()) {
            Outcome<List<String>> next = numbers.ahead(kind.get(), in.shelf(), facts, AHEAD);
            noNumber = next.refusal();
            if (next instanceof Outcome.Granted<List<String>> granted) ahead = granted.value();
        }
        Tried.May may = place.map(p -> answers.may(who, p)).orElse(Tried.May.NOTHING);
        return new Tried(
                name.name(),
                kind,
                proposal.kindWhy(),
                proposal.number(),
                proposal.numberWhy(),
                ahead,
                noNumber,
                proposal.title(),
                proposal.titleWhy(),
                kind.map(k -> TriedAnswers.labels(k, proposal.revision())).orElse(List.of()),
                kind.map(k -> proposal.revisionWhy() + "; taken " + (k.labelAtStart() ? "at the start" : "at release"))
                        .orElse(""),
                sheet.stream()
                        .map(f -> tried(f, facts, proposal.facts(), content))
                        .toList(),
                route,
                route.map(Route::firstStage),
                false,
                may,
                route.isPresent() && place.isPresent()
                        ? answers.asks(
                                route.get(), route.get().firstStage().code(), Set.of(person), List.of(place.get()))
                        : List.of(),
                who.name());
    }

    /** Of a name alone: what its extension stands for. */
    private static ContentKind guessed(FileName name) {
        return switch (name.extension().toLowerCase(Locale.ROOT)) {
            case "dxf" -> ContentKind.DXF;
            case "stp", "step", "p21" -> ContentKind.STEP;
            case "pdf" -> ContentKind.PDF;
            case "png" -> ContentKind.PNG;
            case "jpg", "jpeg" -> ContentKind.JPEG;
            case "svg" -> ContentKind.SVG;
            case "docx", "xlsx", "odt", "ods" -> ContentKind.OFFICE;
            case "txt", "csv", "md" -> ContentKind.TEXT;
            default -> ContentKind.OTHER;
        };
    }

    private static Tried.Fact tried(
            KindFact of, Map<String, String> facts, Map<String, String> read, ContentKind content) {
        FactDefinition fact = of.fact();
        String value = facts.getOrDefault(fact.name(), "");
        String why = value.isEmpty()
                ? of.required().words()
                : fact.use().source() == FactSource.COMPUTED
                        ? "put together from " + fact.use().formula()
                        : read.containsKey(fact.name())
                                ? "from " + FileFacts.place(content)
                                : "as the house presets it";
        return new Tried.Fact(fact.label(), value, why, of.required());
    }
}
