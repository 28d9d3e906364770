package mintshelf.app.store.house;

import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.RequiredAt;

/**
 * A fact on a kind's fact sheet.
 *
 * @param cleared whether a new document that begins as a copy begins without it
 */
public record KindFact(long kind, FactDefinition fact, RequiredAt required, boolean cleared) {}
