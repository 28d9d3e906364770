/** The exchange structure of ISO 10303-21, and what it says of products. */
package mintshelf.core.model.step;
