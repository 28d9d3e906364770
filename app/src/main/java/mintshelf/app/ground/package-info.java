/** What every act stands on: who acts, the act done once, its transaction with its retry, refusals as answers. Knows no documents. */
package mintshelf.app.ground;
