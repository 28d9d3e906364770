/** Settings, sign-in, what is started with the server. */
package mintshelf.app.setup;
