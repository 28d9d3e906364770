/** What people want to be told: following, showing something to somebody, when mails come. */
package mintshelf.app.use.notice;
