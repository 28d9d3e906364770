/** Following, showing something to somebody, when mails come. */
package mintshelf.app.page.notice;
