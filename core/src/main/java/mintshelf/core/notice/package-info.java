/** What people are told of, and when: kinds of notices, when a mail of one goes out, moments that somebody follows. */
package mintshelf.core.notice;
