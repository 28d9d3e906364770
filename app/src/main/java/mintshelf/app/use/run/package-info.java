/** Reading what acts over sets did. */
package mintshelf.app.use.run;
