/** Bills of materials: what a product needs, how much of it, what it weighs and costs (ISO 7573; ISO 10303-44 for structures). */
package mintshelf.core.bom;
