/** The pages of trials: their strips, what is done on them, how they are adopted. */
package mintshelf.app.page.trial;
