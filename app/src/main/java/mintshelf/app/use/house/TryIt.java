package mintshelf.app.use.house;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.Asking;
import mintshelf.app.effect.DrawNumbers;
import mintshelf.app.effect.FactPresets;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.sight.FileFacts;
import mintshelf.app.sight.Grants;
import mintshelf.app.sight.Places;
import mintshelf.app.store.house.FilingRuleStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.KindFact;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.core.access.Grant;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.FileName;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.FactSource;
import mintshelf.core.fact.RequiredAt;
import mintshelf.core.filing.FilingRule;
import mintshelf.core.filing.Proposal;
import mintshelf.core.revision.RevisionSeries;
import mintshelf.core.revision.ShippedSeries;
import mintshelf.core.route.Move;
import mintshelf.core.route.Route;
import org.springframework.stereotype.Service;

/** What the rules would make of a file that somebody files somewhere: asked of the same objects that file it. Nothing is stored. */
@Service
public class TryIt {
    private static final int AHEAD = 3;
    /** Rights that answer "who could do what" for a document. */
    private static final List<Right> ASKED =
            List.of(Right.FILE, Right.CHANGE, Right.SIGN, Right.KEEP_SHELF, Right.SEE_ALL, Right.SEE_RELEASED);

    private final FilingRuleStore filing;
    private final HouseStore house;
    private final DrawNumbers numbers;
    private final ShelfStore shelves;
    private final FileFacts files;
    private final ReadingRoom room;
    private final Grants grants;
    private final Asking asking;
    private final FactPresets presets;

    TryIt(
            FilingRuleStore filing,
            HouseStore house,
            DrawNumbers numbers,
            ShelfStore shelves,
            FileFacts files,
            ReadingRoom room,
            Grants grants,
            Asking asking,
            FactPresets presets) {
        this.filing = filing;
        this.house = house;
        this.numbers = numbers;
        this.shelves = shelves;
        this.files = files;
        this.room = room;
        this.grants = grants;
        this.asking = asking;
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

    /** A fact with what it would be, why, and from when it must be. */
    public record TriedFact(String label, String value, String why, RequiredAt required) {
        public boolean isMissing() {
            return value.isEmpty() && required != RequiredAt.NEVER;
        }
    }

    /** Whom a line of a sign-off rule would ask. */
    public record TriedAsk(String says, List<String> people, LocalDate due) {}

    /**
     * What would become of it.
     *
     * @param kind empty where no filing rule fits: whoever files it chooses
     * @param numbers the next ones; empty where {@code number} stands on the sheet or in the file's name
     * @param labels the first and those after it
     * @param may what the person could do, with the grants that give it
     * @param asks whom its first round would ask
     */
    public record Tried(
            String fileName,
            Optional<Kind> kind,
            String kindWhy,
            String number,
            String numberWhy,
            List<String> numbers,
            Optional<Refusal> noNumber,
            String title,
            String titleWhy,
            List<String> labels,
            String labelWhy,
            List<TriedFact> facts,
            Optional<Route> route,
            Map<String, String> may,
            List<String> mayNot,
            List<TriedAsk> asks,
            String person) {}

    /**
     * @param file its name and its bytes; no bytes where only a name is asked about
     * @param person who would file it
     */
    public Tried of(Actor actor, String file, byte[] bytes, long person, long folder) {
        HouseRules.ask(actor);
        Actor who = grants.actor(person).orElseThrow(NotThere::new);
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
        Map<String, String> may = new LinkedHashMap<>();
        List<String> mayNot = new ArrayList<>();
        place.ifPresent(p -> ASKED.forEach(right -> {
            List<Grant> through = who.access().through(right, p);
            if (through.isEmpty()) mayNot.add(right.words());
            else may.put(right.words(), through.get(0).role().name());
        }));
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
                kind.map(k -> labels(k, proposal.revision())).orElse(List.of()),
                kind.map(k -> proposal.revisionWhy() + "; taken " + (k.labelAtStart() ? "at the start" : "at release"))
                        .orElse(""),
                sheet.stream()
                        .map(f -> tried(f, facts, proposal.facts(), content))
                        .toList(),
                route,
                may,
                mayNot,
                route.isPresent() && place.isPresent() ? asks(route.get(), place.get(), person) : List.of(),
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

    private static List<String> labels(Kind kind, String said) {
        RevisionSeries series = ShippedSeries.of(kind.revisionSeries());
        List<String> labels = new ArrayList<>();
        String label = said.isEmpty() ? series.first() : said;
        labels.add(label);
        while (labels.size() <= AHEAD
                && series.next(labels.get(labels.size() - 1)) instanceof Outcome.Granted<String> next) {
            labels.add(next.value());
        }
        return labels;
    }

    private static TriedFact tried(
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
        return new TriedFact(fact.label(), value, why, of.required());
    }

    /** Along the usual way to where somebody is asked first. */
    private List<TriedAsk> asks(Route route, Place place, long author) {
        Optional<Move> opens = route.opensRound(route.firstStage().code());
        Optional<Move> decided = opens.flatMap(m -> route.decided(m.to()));
        return decided.map(m -> asking
                        .lines(
                                Set.of(author),
                                List.of(place),
                                asking.demand(List.of(m)).lines())
                        .stream()
                        .map(l -> new TriedAsk(
                                l.anybody() + " as " + l.line().meaning(),
                                l.candidates().stream()
                                        .map(PersonStore.Person::name)
                                        .toList(),
                                l.due()))
                        .toList())
                .orElse(List.of());
    }
}
