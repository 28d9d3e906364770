/** Taking-ins: what was brought, what is to become of it, how far they are. */
package mintshelf.app.store.takein;
