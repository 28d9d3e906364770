package mintshelf.core.drawing.dxf;

import java.awt.Color;
import mintshelf.core.drawing.Style;

/** The numbered colours of exchange drawings, on white paper: light ones are darkened until they can be read. */
final class Colours {
    private static final int[] FIRST = {
        0, 0xff0000, 0xffff00, 0x00ff00, 0x00ffff, 0x0000ff, 0xff00ff, 0, 0x808080, 0xc0c0c0
    };
    private static final double[] VALUES = {1, 0.65, 0.5, 0.3, 0.15};
    private static final int[] GREYS = {0x333333, 0x505050, 0x696969, 0x828282, 0xbebebe, 0xffffff};

    private Colours() {}

    /** 1 to 255; 7 and what is no colour are the paper's ink. */
    static int of(int index) {
        int n = Math.abs(index);
        if (n == 7 || n == 0 || n > 255) return Style.INK;
        if (n < FIRST.length) return readable(FIRST[n]);
        if (n >= 250) return readable(GREYS[n - 250]);
        float hue = (n / 10 - 1) * 15 / 360f;
        int shade = n % 10;
        return readable(Color.HSBtoRGB(hue, shade % 2 == 0 ? 1 : 0.5f, (float) VALUES[shade / 2]) & 0xffffff);
    }

    /** Scaled down until its luminance (ITU-R BT.709) leaves enough contrast to white; white itself is the ink. */
    static int readable(int rgb) {
        if (rgb == 0xffffff) return Style.INK;
        double r = rgb >> 16 & 0xff;
        double g = rgb >> 8 & 0xff;
        double b = rgb & 0xff;
        double luminance = (0.2126 * r + 0.7152 * g + 0.0722 * b) / 255;
        double most = 0.42;
        if (luminance <= most) return rgb;
        double k = most / luminance;
        return (int) (r * k) << 16 | (int) (g * k) << 8 | (int) (b * k);
    }
}
