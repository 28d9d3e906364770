/** Small services in the place of those that a house has: a provider of single sign-on. For the demo and the tests, never for more. */
package mintshelf.standin;
