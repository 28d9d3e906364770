/** Rounds: sending, signing, asking others. */
package mintshelf.app.use.round;
