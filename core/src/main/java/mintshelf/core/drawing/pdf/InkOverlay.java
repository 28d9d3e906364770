package mintshelf.core.drawing.pdf;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Optional;
import javax.imageio.ImageIO;

/** Two pictures of a page laid over each other, as three in one ink each: what both have, what only the old one has, what only the new one has. */
public final class InkOverlay {
    /** Darker than that is ink, of 255. */
    private static final int INK = 190;

    /** Edges that are drawn half a dot elsewhere are no difference. */
    private static final int NEAR = 2;

    private static final int SAME_COLOUR = 0xaab4ae;
    private static final int OLD_COLOUR = 0x9a5b00;
    private static final int NOW_COLOUR = 0x0a5fb4;

    private InkOverlay() {}

    /** PNG each, of the size of the new one; {@code ratio} is the part of the ink in which they differ. */
    public record Layers(byte[] same, byte[] old, byte[] now, double ratio) {}

    /**
     * @param old PNG of the old page; empty where the page is only in the new one, as {@code now} where it is only in the old one
     */
    public static Layers of(Optional<byte[]> old, Optional<byte[]> now) {
        BufferedImage before = read(old);
        BufferedImage after = read(now);
        int width = Math.max(before.getWidth(), after.getWidth());
        int height = Math.max(before.getHeight(), after.getHeight());
        boolean[] a = ink(before, width, height);
        boolean[] b = ink(after, width, height);
        boolean[] nearA = grown(a, width, height);
        boolean[] nearB = grown(b, width, height);
        BufferedImage same = blank(width, height);
        BufferedImage onlyOld = blank(width, height);
        BufferedImage onlyNew = blank(width, height);
        long differs = 0;
        long all = 0;
        for (int i = 0; i < a.length; i++) {
            if (!a[i] && !b[i]) continue;
            all++;
            boolean lost = a[i] && !nearB[i];
            boolean came = b[i] && !nearA[i];
            if (lost) put(onlyOld, i, width, OLD_COLOUR);
            else if (came) put(onlyNew, i, width, NOW_COLOUR);
            else put(same, i, width, SAME_COLOUR);
            if (lost || came) differs++;
        }
        return new Layers(png(same), png(onlyOld), png(onlyNew), all == 0 ? 0 : (double) differs / all);
    }

    private static BufferedImage read(Optional<byte[]> png) {
        if (png.isEmpty()) return new BufferedImage(1, 1, BufferedImage.TYPE_BYTE_GRAY);
        try {
            return ImageIO.read(new ByteArrayInputStream(png.get()));
        } catch (IOException e) {
            throw new UncheckedIOException("Reading from memory failed", e);
        }
    }

    private static boolean[] ink(BufferedImage image, int width, int height) {
        boolean[] ink = new boolean[width * height];
        if (image.getWidth() == 1 && image.getHeight() == 1) return ink;
        int[] row = new int[image.getWidth()];
        for (int y = 0; y < image.getHeight(); y++) {
            image.getRGB(0, y, row.length, 1, row, 0, row.length);
            for (int x = 0; x < row.length; x++) {
                int rgb = row[x];
                int light = (((rgb >> 16) & 0xff) * 3 + ((rgb >> 8) & 0xff) * 6 + (rgb & 0xff)) / 10;
                ink[y * width + x] = light < INK;
            }
        }
        return ink;
    }

    /** Ink and what lies near it: along the rows, then along the columns. */
    private static boolean[] grown(boolean[] ink, int width, int height) {
        boolean[] wide = new boolean[ink.length];
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                if (!ink[y * width + x]) continue;
                for (int k = Math.max(0, x - NEAR); k <= Math.min(width - 1, x + NEAR); k++) wide[y * width + k] = true;
            }
        }
        boolean[] grown = new boolean[ink.length];
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                if (!wide[y * width + x]) continue;
                for (int k = Math.max(0, y - NEAR); k <= Math.min(height - 1, y + NEAR); k++)
                    grown[k * width + x] = true;
            }
        }
        return grown;
    }

    private static BufferedImage blank(int width, int height) {
        return new BufferedImage(width, height, BufferedImage.TYPE_INT_ARGB);
    }

    private static void put(BufferedImage image, int at, int width, int colour) {
        image.setRGB(at % width, at / width, 0xff000000 | colour);
    }

    private static byte[] png(BufferedImage image) {
        try {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            ImageIO.write(image, "png", out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException("Writing to memory failed", e);
        }
    }
}
