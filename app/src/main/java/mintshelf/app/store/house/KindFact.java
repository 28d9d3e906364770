package mintshelf.app.store.house;

import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.RequiredAt;

/** A fact on a kind's fact sheet. */
public record KindFact(long kind, FactDefinition fact, RequiredAt required) {}
