/** People, grants, invitations, sign-in, the first of a house. */
package mintshelf.app.use.person;
