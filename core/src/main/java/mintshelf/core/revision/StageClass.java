package mintshelf.core.revision;

/** The class of a stage: rules read it, pages show the stage's name. After ISO 7200 (document status) and IEC 82045. */
public enum StageClass {
    /** Work goes on; content may change. */
    PREPARING,
    /** Others decide; content does not change. */
    DECIDING,
    /** In force. */
    RELEASED,
    /** Was in force, until a later revision took its place. */
    SUPERSEDED,
    /** Taken out of force. */
    WITHDRAWN,
    /** Ended without having been in force. */
    CLOSED;

    /** Whether this revision is still on its way to release. */
    public boolean isPending() {
        return this == PREPARING || this == DECIDING;
    }

    /** Whether readers who see released work only may see it: what is in force or was. */
    public boolean wasReleased() {
        return this == RELEASED || this == SUPERSEDED || this == WITHDRAWN;
    }
}
