package mintshelf.app.ground;

import mintshelf.core.access.Right;

/** What house rules ask of who keeps them. */
public final class HouseRules {
    private HouseRules() {}

    /** Whether somebody keeps the house rules: the whole house's, for a grant on one shelf keeps no house. */
    public static boolean keeps(Actor actor) {
        return actor.access().mayEverywhere(Right.KEEP_HOUSE_RULES);
    }

    /** Refuses who does not keep the house rules. */
    public static void ask(Actor actor) {
        if (keeps(actor)) return;
        throw Refused.because(
                "access.missing", "Only who keeps the house rules may see and change them.", "Ask a data manager.");
    }
}
