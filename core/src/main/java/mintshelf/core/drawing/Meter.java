package mintshelf.core.drawing;

/** Asked while a scene grows: reading may go on while there is room for what it makes. */
@FunctionalInterface
public interface Meter {
    /** For who has no limit but the machine's. */
    Meter UNBOUNDED = bytes -> true;

    /**
     * Takes room.
     *
     * @param bytes of memory, about, that come on top of what was taken
     * @return whether there is room; without it reading ends in a refusal
     */
    boolean takes(long bytes);
}
