package mintshelf.core.route;

import java.util.List;
import mintshelf.core.access.Right;

/**
 * The way from one stage to the next.
 *
 * @param name what the button says: "Release"
 * @param who the right that makes it
 * @param signOff code of the sign-off rule by which it asks people to sign; empty where nobody signs
 */
public record Move(
        String code,
        String name,
        String from,
        String to,
        Right who,
        List<Gate> gates,
        List<Effect> effects,
        String signOff) {
    public Move {
        gates = List.copyOf(gates);
        effects = List.copyOf(effects);
    }

    /** A move that nobody signs for. */
    public Move(String code, String name, String from, String to, Right who, List<Gate> gates, List<Effect> effects) {
        this(code, name, from, to, who, gates, effects, "");
    }

    public boolean does(Effect effect) {
        return effects.contains(effect);
    }

    /** Whether who makes it has to say why. */
    public boolean asksReason() {
        return gates.contains(Gates.REASON_GIVEN);
    }

    /** Whether the last sign-off makes it, not a person by hand. */
    public boolean isMadeByRound() {
        return gates.contains(Gates.SIGNED_OFF);
    }

    /** Whether people sign for it. */
    public boolean asksSignOffs() {
        return !signOff.isEmpty();
    }
}
