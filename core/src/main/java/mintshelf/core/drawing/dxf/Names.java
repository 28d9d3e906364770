package mintshelf.core.drawing.dxf;

import java.util.Arrays;

/** One string for the same bytes, so that types, layers and line types of millions of entities cost nothing. */
final class Names {
    private static final int MOST = 1 << 16;

    private final DxfSource source;
    private String[] names = new String[512];
    private byte[][] keys = new byte[512][];
    private int count;

    Names(DxfSource source) {
        this.source = source;
    }

    /** The text between two places, without the blanks around it. */
    String of(int from, int to) {
        byte[] b = source.bytes;
        int start = from;
        int end = to;
        while (start < end && b[start] == ' ') start++;
        while (end > start && b[end - 1] == ' ') end--;
        int hash = 7;
        for (int i = start; i < end; i++) hash = hash * 31 + b[i];
        int mask = names.length - 1;
        int at = (hash ^ hash >>> 15) & mask;
        while (true) {
            byte[] key = keys[at];
            if (key == null) break;
            if (Arrays.equals(key, 0, key.length, b, start, end)) return names[at];
            at = at + 1 & mask;
        }
        String name = source.text(start, end);
        // Hostile files may name a million layers; beyond a bound they pay for their own strings.
        if (count < MOST && end - start < 1024) {
            keys[at] = Arrays.copyOfRange(b, start, end);
            names[at] = name;
            if (++count * 2 > names.length) grow();
        }
        return name;
    }

    private void grow() {
        String[] oldNames = names;
        byte[][] oldKeys = keys;
        names = new String[oldNames.length * 2];
        keys = new byte[names.length][];
        int mask = names.length - 1;
        for (int i = 0; i < oldKeys.length; i++) {
            byte[] key = oldKeys[i];
            if (key == null) continue;
            int hash = 7;
            for (byte b : key) hash = hash * 31 + b;
            int at = (hash ^ hash >>> 15) & mask;
            while (keys[at] != null) at = at + 1 & mask;
            keys[at] = key;
            names[at] = oldNames[i];
        }
    }
}
