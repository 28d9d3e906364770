package mintshelf.app.store.house;

import mintshelf.core.fact.FactDefinition;

/** A fact on a kind's fact sheet. */
public record KindFact(long kind, FactDefinition fact, Required required) {
    /** From when on a fact must have a value. */
    public enum Required {
        NEVER,
        FILING,
        RELEASE
    }
}
