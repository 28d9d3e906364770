package mintshelf.app.use;

import mintshelf.app.store.content.StoredContent;

/** A file of an archive: its path in it, with slashes, and its bytes. */
public record Packed(String path, StoredContent content) {}
