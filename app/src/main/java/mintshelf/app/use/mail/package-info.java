/** Mails on their way. */
package mintshelf.app.use.mail;
