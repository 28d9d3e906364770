package mintshelf.app.effect.deed;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.output.OutputStore;
import mintshelf.core.document.OutputFormat;
import mintshelf.core.document.Outputs;
import mintshelf.core.route.Effect;
import org.springframework.stereotype.Component;

/** Asks for what a kind names to be made of what is released; it is made after the act. */
@Component
public class WantOutputs implements Deed {
    /** How a released version becomes an output; a new recipe makes new outputs beside the old ones. */
    public static final String RECIPE = "sheet-2";

    private final OutputStore outputs;
    private final HouseStore house;

    public WantOutputs(OutputStore outputs, HouseStore house) {
        this.outputs = outputs;
        this.house = house;
    }

    @Override
    public Effect effect() {
        return Effect.MAKE_OUTPUTS;
    }

    @Override
    public void carryOut(Setting setting, List<Mover> movers) {
        Map<Long, Outputs> named = new HashMap<>();
        house.kinds().forEach(k -> named.put(k.id(), k.outputs()));
        for (Mover one : movers) {
            List<OutputFormat> formats = named.getOrDefault(
                            one.document().place().kind(), Outputs.USUAL)
                    .of(one.out().content().kind());
            for (OutputFormat format : formats) {
                outputs.want(one.out().id(), format.name(), RECIPE, setting.now());
            }
        }
    }
}
