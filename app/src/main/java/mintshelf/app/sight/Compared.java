package mintshelf.app.sight;

import mintshelf.core.drawing.compare.Comparison;

/** What changed between two sheets, with a picture of both one over the other. */
public record Compared(Comparison comparison, String svg) {}
