package mintshelf.app.use;

import mintshelf.core.access.Right;

/** What house rules ask of who keeps them. */
public final class HouseRules {
    private HouseRules() {}

    /** Refuses who does not keep the house rules. */
    public static void ask(Actor actor) {
        if (actor.access().maySomewhere(Right.KEEP_HOUSE_RULES)) return;
        throw Refused.because(
                "access.missing", "Only who keeps the house rules may see and change them.", "Ask a data manager.");
    }
}
