package mintshelf.app.effect.deed;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import mintshelf.app.effect.SheetValues;
import mintshelf.app.effect.SheetWriter;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.round.RoundStore;
import mintshelf.core.route.Effect;
import mintshelf.core.signoff.Round;
import org.springframework.stereotype.Component;

/** Writes the title block from the record: number, revision, who signed what. */
@Component
class WriteSheet implements Deed {
    private final VersionStore versions;
    private final RoundStore rounds;
    private final SheetWriter sheets;
    private final SheetValues values;

    WriteSheet(VersionStore versions, RoundStore rounds, SheetWriter sheets, SheetValues values) {
        this.rounds = rounds;
        this.versions = versions;
        this.sheets = sheets;
        this.values = values;
    }

    @Override
    public Effect effect() {
        return Effect.WRITE_SHEET;
    }

    @Override
    public void carryOut(Setting setting, List<Mover> movers) {
        Map<Long, List<Round>> readings = readings(movers);
        for (Mover one : movers) {
            List<Round> signed =
                    new ArrayList<>(readings.getOrDefault(one.revision().id(), List.of()));
            setting.round()
                    .filter(r -> signed.stream().noneMatch(s -> s.id() == r.id()))
                    .ifPresent(signed::add);
            sheets.write(
                            setting.actor(),
                            one.document(),
                            one.revision().id(),
                            one.out().content(),
                            values.released(
                                    one.document(), one.label(), one.to().name(), signed),
                            "title block written from the record")
                    .ifPresent(number -> one.goesWith(
                            versions.version(one.document().id(), number).orElseThrow()));
        }
    }

    /** On a route with more than one round the sheet shows who signed in each. */
    private Map<Long, List<Round>> readings(List<Mover> movers) {
        return rounds.readings(movers.stream()
                .filter(m -> m.route().moves().stream()
                                .filter(x -> x.does(Effect.OPEN_ROUND))
                                .count()
                        > 1)
                .map(m -> m.revision().id())
                .toList());
    }
}
