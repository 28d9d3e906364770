package mintshelf.app.effect.deed;

import java.util.List;
import mintshelf.app.store.output.OutputStore;
import mintshelf.core.content.ContentKind;
import mintshelf.core.route.Effect;
import org.springframework.stereotype.Component;

/** Asks for the PDF of what is released; it is made after the act. */
@Component
public class MakePdf implements Deed {
    /** How a released sheet becomes a PDF; a new recipe makes new outputs beside the old ones. */
    public static final String RECIPE = "sheet-1";

    private final OutputStore outputs;

    public MakePdf(OutputStore outputs) {
        this.outputs = outputs;
    }

    @Override
    public Effect effect() {
        return Effect.MAKE_PDF;
    }

    @Override
    public void carryOut(Setting setting, List<Mover> movers) {
        for (Mover one : movers) {
            if (one.out().content().kind() == ContentKind.DXF)
                outputs.want(one.out().id(), "PDF", RECIPE, setting.now());
        }
    }
}
