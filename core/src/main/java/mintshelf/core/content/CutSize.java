package mintshelf.core.content;

/**
 * How large the pieces are that a content is cut into. Text gets small ones, so that a small edit changes little; what does not
 * compress gets large ones, so that there are few rows.
 */
public enum CutSize {
    /** For text: 2 KiB to 64 KiB, about 8 KiB on average. */
    SMALL(2 << 10, 8 << 10, 64 << 10),
    /** For what does not compress: 64 KiB to 1 MiB, about 256 KiB on average. */
    LARGE(64 << 10, 256 << 10, 1 << 20);

    private final int least;
    private final int average;
    private final int most;

    CutSize(int least, int average, int most) {
        this.least = least;
        this.average = average;
        this.most = most;
    }

    public int least() {
        return least;
    }

    public int average() {
        return average;
    }

    public int most() {
        return most;
    }

    /** The size of the first sample by which a content chooses; the choice depends on the content alone. */
    public static final int SAMPLE = 64 << 10;

    /** LARGE when a sample of {@code plain} bytes stays above 9/10 of its size when compressed. */
    public static CutSize forSample(int plain, int compressed) {
        return compressed * 10L > plain * 9L ? LARGE : SMALL;
    }
}
