/** What moves do beside changing the stage: each effect of a route is a deed here, carried out over a set. */
package mintshelf.app.effect.deed;
