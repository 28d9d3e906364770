package mintshelf.app.effect;

import mintshelf.app.store.structure.BomLineStore;
import mintshelf.app.store.structure.PartStore;
import mintshelf.app.store.structure.ReferenceStore;
import org.springframework.stereotype.Component;

/** Keeps what a revision consists of while it is released: which versions of its components, under which find numbers. Within the caller's transaction. */
@Component
public class FreezeBom {
    private final ReferenceStore references;
    private final BomLineStore lines;
    private final PartStore parts;

    public FreezeBom(ReferenceStore references, BomLineStore lines, PartStore parts) {
        this.references = references;
        this.lines = lines;
        this.parts = parts;
    }

    public void freeze(long revision, long version) {
        references.freeze(revision, version);
        lines.freeze(revision, version);
    }

    /** A revision that comes behind another one goes on with the lines and the variants of that. */
    public void goesOn(long before, long revision) {
        lines.copy(before, revision);
        parts.copy(before, revision);
    }

    /** A document that began as a copy of a version has the lines of that, and variants like those. */
    public void begins(long revision, long version, long source) {
        lines.begin(revision, version, source);
        parts.begin(revision, source);
    }
}
