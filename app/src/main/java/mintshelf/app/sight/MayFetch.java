package mintshelf.app.sight;

import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.document.RevisionRow;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.house.HouseStore;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.document.Stage;
import mintshelf.core.hold.HoldRules;
import org.springframework.stereotype.Component;

/** Whether the files of a version may be fetched, as the stop of its route says; whoever may not can still look at them here. */
@Component
public class MayFetch {
    private final HouseStore house;
    private final RevisionStore revisions;

    public MayFetch(HouseStore house, RevisionStore revisions) {
        this.house = house;
        this.revisions = revisions;
    }

    /** Why an actor may not fetch a version that they see; nothing when they may. What has no file is not fetched. */
    public Optional<Refusal> refusal(Actor actor, Seen seen, VersionRow version) {
        return seen.document().part() ? Optional.of(HoldRules.noFile(seen.document())) : copied(actor, seen, version);
    }

    /** Why an actor may not make something of what is in a version that they see; nothing when they may. */
    public Optional<Refusal> copied(Actor actor, Seen seen, VersionRow version) {
        // A trial is in preparation whatever the stage of its document is.
        if (version.name().isTrial()) return Optional.empty();
        Document document = seen.document();
        Stage stage = stage(seen, version);
        Optional<Right> needed =
                house.edition(stage.edition()).rule(stage.code()).fetch();
        boolean holds =
                document.holder().filter(h -> h.person() == actor.person()).isPresent();
        if (needed.isEmpty() || holds || actor.access().may(needed.get(), document.place())) return Optional.empty();
        return Optional.of(Refusal.of(
                "stage.fetch",
                "In “" + stage.name() + "” the files of " + document.number() + " are fetched by those who may "
                        + needed.get().words() + ".",
                "Look at it here, or ask one of them."));
    }

    /** As {@link #refusal}, thrown. */
    public void ask(Actor actor, Seen seen, VersionRow version) {
        refusal(actor, seen, version).ifPresent(r -> {
            throw new Refused(r);
        });
    }

    private Stage stage(Seen seen, VersionRow version) {
        if (version.revision() == seen.current().id()) return seen.current().stage();
        return revisions.revisions(seen.spine().id()).stream()
                .map(RevisionRow::revision)
                .filter(r -> r.id() == version.revision())
                .findFirst()
                .orElse(seen.current())
                .stage();
    }
}
