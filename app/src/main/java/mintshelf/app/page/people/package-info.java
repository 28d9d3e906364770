/** People, grants, invitations. */
package mintshelf.app.page.people;
