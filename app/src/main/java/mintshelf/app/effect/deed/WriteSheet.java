package mintshelf.app.effect.deed;

import java.util.List;
import mintshelf.app.effect.SheetWriter;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.core.route.Effect;
import org.springframework.stereotype.Component;

/** Writes the title block from the record: number, revision, who signed what. */
@Component
class WriteSheet implements Deed {
    private final DocumentStore documents;
    private final SheetWriter sheets;

    WriteSheet(DocumentStore documents, SheetWriter sheets) {
        this.documents = documents;
        this.sheets = sheets;
    }

    @Override
    public Effect effect() {
        return Effect.WRITE_SHEET;
    }

    @Override
    public void carryOut(Setting setting, List<Mover> movers) {
        for (Mover one : movers) {
            sheets.write(
                            setting.actor(),
                            one.document(),
                            one.revision().id(),
                            one.out().content(),
                            sheets.released(
                                    one.document(), one.label(), one.to().name(), setting.round()),
                            "title block written from the record")
                    .ifPresent(number -> one.goesWith(
                            documents.version(one.document().id(), number).orElseThrow()));
        }
    }
}
