package mintshelf.app.ground;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;

/** Counts what is read, and looks at the count each time. */
public abstract class CountedInput extends FilterInputStream {
    private long all;

    protected CountedInput(InputStream in) {
        super(in);
    }

    /** @param all bytes that came until now */
    protected abstract void came(long all) throws IOException;

    @Override
    public int read() throws IOException {
        int one = in.read();
        if (one >= 0) came(++all);
        return one;
    }

    @Override
    public int read(byte[] bytes, int from, int length) throws IOException {
        int some = in.read(bytes, from, length);
        if (some > 0) came(all += some);
        return some;
    }
}
