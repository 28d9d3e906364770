package mintshelf.app.page;

import mintshelf.app.store.document.RevisionRow;

/** How a revision looks where it is drawn along time. */
public final class RevisionLook {
    private RevisionLook() {}

    /** One of {@code pending released superseded withdrawn dropped}. */
    public static String of(RevisionRow r) {
        if (r.dropped()) return "dropped";
        return switch (r.revision().stage().stageClass()) {
            case PREPARING, DECIDING -> "pending";
            case RELEASED -> "released";
            case SUPERSEDED -> "superseded";
            case WITHDRAWN -> "withdrawn";
            case CLOSED -> "dropped";
        };
    }
}
