/** The pages of trials: what is done on them, how they are adopted. */
package mintshelf.app.page.trial;
