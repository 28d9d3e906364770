/** Rounds of sign-offs: who is asked, what an answer means, when a round is decided, and what lets an answer fall. */
package mintshelf.core.signoff;
