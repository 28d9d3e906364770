package mintshelf.core.route;

import java.util.List;
import mintshelf.core.access.Right;

/**
 * The way from one stage to the next.
 *
 * @param name what the button says: "Release"
 * @param who the right that makes it
 */
public record Move(
        String code, String name, String from, String to, Right who, List<Gate> gates, List<Effect> effects) {
    public Move {
        gates = List.copyOf(gates);
        effects = List.copyOf(effects);
    }
}
