/** Signing in, first start, invitations. */
package mintshelf.app.page.signin;
