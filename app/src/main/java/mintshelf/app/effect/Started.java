package mintshelf.app.effect;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.ChangeControl;
import mintshelf.app.sight.Grants;
import mintshelf.app.store.document.Spine;
import mintshelf.app.store.document.SpineStore;
import mintshelf.core.access.Right;
import mintshelf.core.document.Document;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Route;
import org.springframework.stereotype.Component;

/** What follows when a revision was started: its label stands on the sheet at once, and whom the house names is told. */
@Component
class Started {
    private final SpineStore spines;
    private final SheetWriter sheets;
    private final SheetValues values;
    private final ChangeControl control;
    private final Grants grants;
    private final Telling telling;

    Started(
            SpineStore spines,
            SheetWriter sheets,
            SheetValues values,
            ChangeControl control,
            Grants grants,
            Telling telling) {
        this.spines = spines;
        this.sheets = sheets;
        this.values = values;
        this.control = control;
        this.grants = grants;
        this.telling = telling;
    }

    /** Writes a label that was reserved now onto the sheet, where the route writes sheets. */
    void stamp(Actor actor, Document document, long revision, String label, Route route) {
        if (route.moves().stream().noneMatch(m -> m.does(Effect.WRITE_SHEET))) return;
        Spine spine = spines.spine(document.id()).orElseThrow();
        sheets.write(
                actor,
                document,
                revision,
                spine.content(),
                values.unsigned(document, label, route.firstStage().name()),
                "title block shows revision " + label);
    }

    /** Tells those of them who see work in preparation there. */
    void tell(Actor actor, Document document, String says, String why) {
        Spine spine = spines.spine(document.id()).orElseThrow();
        Set<Long> named = control.now().told(spine);
        List<Long> told = named.stream()
                .filter(p -> grants.actor(p)
                        .filter(a -> a.access().may(Right.SEE_ALL, document.place()))
                        .isPresent())
                .collect(Collectors.toList());
        telling.tell(
                actor,
                told,
                "followed.started",
                Optional.empty(),
                document.id(),
                document.number() + ": " + actor.name() + " " + says + (why.isEmpty() ? "" : ", for " + why),
                "/documents/" + document.id());
    }
}
