package mintshelf.app.effect.deed;

import java.util.List;
import mintshelf.core.route.Effect;

/** What an effect of a route is when it is done, over all documents of an act whose moves have it. One class each. */
public interface Deed {
    Effect effect();

    /** Within the caller's transaction; that the moves open was asked before. */
    void carryOut(Setting setting, List<Mover> movers);
}
