package mintshelf.core.document;

import mintshelf.core.revision.StageClass;

/** A stage of a route's edition. */
public record Stage(long edition, String code, String name, StageClass stageClass, int position) {}
