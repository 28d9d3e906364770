package mintshelf.app.effect;

import java.util.Locale;
import java.util.Optional;
import mintshelf.app.effect.deed.Mover;
import mintshelf.app.effect.deed.Setting;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Move;
import mintshelf.core.route.Route;
import org.springframework.stereotype.Component;

/** What is noted of a document that has moved: its stage, its release, its record. */
@Component
public class Arrivals {
    private final DocumentStore documents;
    private final RevisionStore revisions;
    private final FreezeBom bom;
    private final SheetWriter sheets;
    private final Recorder recorder;

    public Arrivals(
            DocumentStore documents, RevisionStore revisions, FreezeBom bom, SheetWriter sheets, Recorder recorder) {
        this.documents = documents;
        this.revisions = revisions;
        this.bom = bom;
        this.sheets = sheets;
        this.recorder = recorder;
    }

    /** Puts a document where its move leads, with its entry in the record. */
    void arrive(Setting setting, Mover one) {
        long id = one.document().id();
        revisions.setStage(one.revision().id(), one.to(), setting.now());
        if (one.to().stageClass() == StageClass.RELEASED) {
            revisions.noteRelease(one.revision().id(), one.out().id(), setting.now());
            bom.freeze(one.revision().id(), one.out().id());
        }
        documents.touch(id, setting.now());
        recorder.recent(setting.actor(), id, "moved");
        recorder.noteMove(
                setting.actor(),
                id,
                "revision." + one.move().to(),
                one.out().number(),
                says(setting, one),
                setting.whyOf(id),
                one.move().does(Effect.MAIL_OUTPUTS));
    }

    private String says(Setting setting, Mover one) {
        String label = one.label();
        return switch (one.to().stageClass()) {
            case RELEASED ->
                label.isEmpty()
                        ? "is " + one.to().name().toLowerCase(Locale.ROOT) + " with version "
                                + one.out().number()
                        : "released revision " + label + " with version "
                                + one.out().number() + written(one)
                                + (setting.round().isEmpty() ? "" : ", by the last sign-off of its round");
            case WITHDRAWN -> "withdrew revision " + label;
            default ->
                "moved " + (label.isEmpty() ? "it" : "revision " + label) + " to "
                        + one.to().name();
        };
    }

    private String written(Mover one) {
        return one.writtenFrom()
                .map(from -> ", written from version " + from)
                .orElseGet(() -> silent(one.route(), one.move(), one.out().content())
                        .map(why -> "; nothing was written into the sheet: " + why)
                        .orElse(""));
    }

    /** Why a move that releases writes nothing into a sheet that it is meant to write into; else empty. */
    public Optional<String> silent(Route route, Move move, StoredContent content) {
        boolean writes = move.does(Effect.WRITE_SHEET) && route.stage(move.to()).stageClass() == StageClass.RELEASED;
        return writes ? sheets.silent(content) : Optional.empty();
    }
}
