/** What all pages share: the frame, the words, answers with files, what a fault says. */
package mintshelf.app.page;
