/** What a document is for the rules: its place, its revisions, its head version, its holder; file names; the digest of a version. */
package mintshelf.core.document;
