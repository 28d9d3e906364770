/** What makes drawings alike: marks of their shapes and words that stay when a view moves, turns or is scaled. Knows no documents. */
package mintshelf.core.drawing.alike;
