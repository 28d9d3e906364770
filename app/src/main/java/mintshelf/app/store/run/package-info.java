/** What acts over sets did: reports with addresses. */
package mintshelf.app.store.run;
