package mintshelf.app.store.content;

import mintshelf.core.base.ContentHash;
import mintshelf.core.content.ContentKind;

/** A sealed content. */
public record StoredContent(long id, ContentHash hash, long size, ContentKind kind) {}
