/** STEP models of the story's parts and assemblies: real boundary representations that any reader of ISO 10303-21 opens. */
package mintshelf.demo.model;
