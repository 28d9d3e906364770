package mintshelf.app.effect.deed;

import java.util.List;
import mintshelf.app.effect.Recorder;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.core.document.Revision;
import mintshelf.core.document.Stage;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.Effect;
import org.springframework.stereotype.Component;

/** The former revision leaves before this one enters: the database lets one be in force at a time. */
@Component
class SupersedeFormer implements Deed {
    private final RevisionStore revisions;
    private final HouseStore house;
    private final Recorder recorder;

    SupersedeFormer(RevisionStore revisions, HouseStore house, Recorder recorder) {
        this.revisions = revisions;
        this.house = house;
        this.recorder = recorder;
    }

    @Override
    public Effect effect() {
        return Effect.SUPERSEDE_FORMER;
    }

    @Override
    public void carryOut(Setting setting, List<Mover> movers) {
        for (Mover one : movers) {
            one.document().released().ifPresent(former -> supersede(setting, one, former));
        }
    }

    private void supersede(Setting setting, Mover one, Revision former) {
        Stage superseded = house.edition(former.stage().edition())
                .firstOf(StageClass.SUPERSEDED)
                .orElseThrow();
        revisions.setStage(former.id(), superseded, setting.now());
        recorder.note(
                setting.actor(),
                one.document().id(),
                "revision.superseded",
                "superseded revision " + former.shown(),
                "");
    }
}
