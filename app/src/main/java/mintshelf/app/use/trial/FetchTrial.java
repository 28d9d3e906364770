package mintshelf.app.use.trial;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.MayFetch;
import mintshelf.app.sight.Packed;
import mintshelf.app.sight.Trials;
import mintshelf.app.sight.Trials.Tried;
import mintshelf.app.sight.Trials.Whole;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.VersionName;
import org.springframework.stereotype.Service;

/** The files of a trial, in the folders of their documents: the latest of each line, else the version at which it begins. */
@Service
public class FetchTrial {
    private final Trials trials;
    private final VersionStore versions;
    private final MayFetch may;
    private final Recorder recorder;
    private final UnitOfWork unit;

    public FetchTrial(Trials trials, VersionStore versions, MayFetch may, Recorder recorder, UnitOfWork unit) {
        this.trials = trials;
        this.versions = versions;
        this.may = may;
        this.recorder = recorder;
        this.unit = unit;
    }

    /** An archive: its name, its files, and what it says of itself. */
    public record Bundle(String name, List<Packed> files, String says) {}

    public Bundle bundle(Actor actor, long trial) {
        Whole whole = trials.whole(actor, trial);
        List<Packed> files = new ArrayList<>();
        List<String> says =
                new ArrayList<>(List.of(whole.of() + ", " + whole.trial().title()));
        List<Tried> fetched = new ArrayList<>();
        for (Tried tried : whole.lines()) {
            VersionName name = tried.line().gets();
            VersionRow row = versions.version(tried.item(), name).orElseThrow(NotThere::new);
            String path = Packed.folders(tried.original().spine()) + row.fileName();
            Optional<Refusal> refusal = may.refusal(actor, tried.original(), row);
            if (refusal.isPresent()) {
                says.add("Not here: " + path + ". " + refusal.get().says());
                continue;
            }
            files.add(new Packed(path, row.content()));
            says.add(path + "  " + name.shortly());
            fetched.add(tried);
        }
        unit.run(() -> fetched.forEach(t -> recorder.note(
                actor,
                t.item(),
                "trial.version.fetched",
                "fetched " + t.line().gets().says() + " for trial "
                        + whole.trial().line(),
                "")));
        return new Bundle(
                whole.first().original().document().number() + " "
                        + whole.trial().line() + ".zip",
                files,
                String.join("\n", says) + "\n");
    }
}
