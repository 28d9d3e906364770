/** Who may do what where, and through which grant. Who a person is, is left to the sign-in. */
package mintshelf.core.access;
