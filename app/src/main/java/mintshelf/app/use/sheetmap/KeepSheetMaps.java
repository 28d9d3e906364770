package mintshelf.app.use.sheetmap;

import java.time.Clock;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sheets;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.NumberStore;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.RouteStore;
import mintshelf.app.store.house.SheetMapStore;
import mintshelf.app.store.house.SheetMapStore.Edition;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.titleblock.SheetMap;
import mintshelf.core.house.RuleDifference;
import mintshelf.core.house.SheetLines;
import mintshelf.core.numbering.NumberKey;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Service;

/** The library of sheet maps. A map that is changed gets its next edition; what was written with an earlier one stays proven. */
@Service
public class KeepSheetMaps {
    private static final int MOST = 200;

    private final SheetMapStore maps;
    private final VersionStore versions;
    private final NumberStore numbers;
    private final Sheets sheets;
    private final Sight sight;
    private final Acts acts;
    private final Recorder recorder;
    private final Clock clock;

    public KeepSheetMaps(
            SheetMapStore maps,
            VersionStore versions,
            NumberStore numbers,
            Sheets sheets,
            Sight sight,
            Acts acts,
            Recorder recorder,
            Clock clock) {
        this.maps = maps;
        this.versions = versions;
        this.numbers = numbers;
        this.sheets = sheets;
        this.sight = sight;
        this.acts = acts;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** The latest edition of each map, those out of use too. */
    public List<Edition> all(Actor actor) {
        HouseRules.ask(actor);
        return maps.all();
    }

    public Edition map(Actor actor, long id) {
        HouseRules.ask(actor);
        return maps.find(id).orElseThrow(NotThere::new);
    }

    /** What a map finds on the sheet of a document. */
    public record Tried(
            Seen seen,
            List<SheetMap.Said> said,
            List<Map<String, String>> rows,
            boolean format,
            List<SheetMap.Placed> texts) {}

    /** Holds a map against the sheet of the document with this number; nothing where that is none that the actor sees. */
    public Optional<Tried> tried(Actor actor, SheetMap map, String number, int mostTexts) {
        HouseRules.ask(actor);
        Optional<Seen> seen = NumberKey.of(number) instanceof Outcome.Granted<NumberKey> key
                ? sight.of(actor, numbers.items(key.value())).values().stream().findFirst()
                : Optional.empty();
        return seen.flatMap(s -> versions.version(s.spine().id(), s.version())
                .flatMap(v -> sheets.opened(v.content()))
                .map(drawing -> tried(s, map, drawing, mostTexts)));
    }

    private static Tried tried(Seen seen, SheetMap map, DxfDrawing drawing, int mostTexts) {
        return new Tried(
                seen,
                map.found(drawing),
                map.revisions().map(r -> r.read(drawing)).orElse(List.of()),
                map.isFor(drawing),
                SheetMap.placed(drawing).stream().limit(mostTexts).toList());
    }

    /**
     * Adds a map, or the next edition of the one with its name.
     *
     * @param shown the edition that the page showed, 0 for a new map: one that somebody changed since is not overwritten unseen
     */
    public String keep(Actor actor, String key, SheetMap map, boolean inUse, int shown, String why) {
        HouseRules.ask(actor);
        String said = Texts.optional("The reason", why, 300).orElseThrow(Refused::new);
        String name = Texts.required("The name", map.name(), 60).orElseThrow(Refused::new);
        List<String> wrong = map.wrong();
        if (!wrong.isEmpty()) {
            throw Refused.because("sheet_map.wrong", String.join(" ", wrong), "Nothing was changed.");
        }
        return acts.once(actor, key, () -> {
            Optional<Edition> there = maps.all().stream()
                    .filter(e -> e.map().name().toLowerCase(Locale.ROOT).equals(name.toLowerCase(Locale.ROOT)))
                    .findFirst();
            if (shown == 0 && there.isPresent()) {
                throw Refused.because(
                        "sheet_map.there", "There is a sheet map “" + name + "” already.", "Choose another name.");
            }
            int now = there.map(Edition::edition).orElse(0);
            if (now != shown) {
                throw Refused.because(
                        "page.old",
                        "The sheet map “" + name + "” is at edition " + now + "; your page showed edition " + shown
                                + ".",
                        "Look at it again; nothing was changed.");
            }
            SheetMap named = new SheetMap(
                    there.map(e -> e.map().name()).orElse(name),
                    map.block(),
                    map.format(),
                    map.fields(),
                    map.revisions());
            if (there.filter(e -> e.map().equals(named) && e.inUse() == inUse).isPresent()) return "/sheet-maps";
            try {
                maps.add(named, inUse, new RouteStore.Made(OptionalLong.of(actor.person()), clock.instant(), said));
            } catch (DuplicateKeyException e) {
                throw Refused.because(
                        "page.old",
                        "Somebody kept the sheet map “" + name + "” at this moment.",
                        "Look at it again; nothing was changed.");
            }
            String how = there.isEmpty() ? "added" : inUse ? "changed" : "took out of use";
            recorder.noteHouse(actor, "house.sheet_map", how + " the sheet map “" + named.name() + "”", said);
            return "/sheet-maps";
        });
    }

    /** The editions of the map that an edition is of, the latest first. */
    public List<Edition> editions(Actor actor, long id) {
        return maps.editions(map(actor, id), MOST);
    }

    /** What the later of two editions says otherwise. */
    public static List<RuleDifference> between(Edition was, Edition now) {
        return RuleDifference.between(SheetLines.of(was.map(), was.inUse()), SheetLines.of(now.map(), now.inUse()));
    }

    /** Makes what an earlier edition says the next edition. */
    public String setBack(Actor actor, String key, long id, int number, int shown) {
        Edition old = editions(actor, id).stream()
                .filter(e -> e.edition() == number)
                .findFirst()
                .orElseThrow(NotThere::new);
        return keep(actor, key, old.map(), old.inUse(), shown, "as edition " + number + " had it");
    }
}
