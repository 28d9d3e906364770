/** Acts over sets: what each would do, and that it is done in portions, each whole or not at all. */
package mintshelf.app.effect.run;
