package mintshelf.core.content;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Iterator;
import java.util.Optional;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import javax.imageio.stream.MemoryCacheImageInputStream;

/**
 * How large a picture is shown, told from the beginning of its file; nothing of it is unpacked.
 *
 * @param width in pixels, after it was turned as it says
 * @param height likewise
 */
public record PictureSize(int width, int height) {
    /** How many first bytes are wanted at the most: what a camera writes before the picture. */
    public static final int SAMPLE = 1 << 18;

    /** Of a PNG, JPEG or GIF; nothing for others and what is none. */
    public static Optional<PictureSize> of(byte[] head) {
        ContentKind kind = ContentKind.of(head);
        if (kind != ContentKind.PNG && kind != ContentKind.JPEG && kind != ContentKind.GIF) return Optional.empty();
        Iterator<ImageReader> readers = ImageIO.getImageReadersByFormatName(kind.name());
        if (!readers.hasNext()) return Optional.empty();
        ImageReader reader = readers.next();
        try (ImageInputStream in = new MemoryCacheImageInputStream(new ByteArrayInputStream(head))) {
            reader.setInput(in, true, true);
            int width = reader.getWidth(0);
            int height = reader.getHeight(0);
            if (width <= 0 || height <= 0) return Optional.empty();
            return Optional.of(
                    kind == ContentKind.JPEG && isTurned(head)
                            ? new PictureSize(height, width)
                            : new PictureSize(width, height));
        } catch (IOException | RuntimeException e) {
            return Optional.empty();
        } finally {
            reader.dispose();
        }
    }

    /** Whether a JPEG lies on its side: orientation 5 to 8 (Exif 2.32, 4.6.4, tag 274, in its APP1 segment). */
    private static boolean isTurned(byte[] jpeg) {
        ByteBuffer in = ByteBuffer.wrap(jpeg);
        int at = 2;
        while (at + 4 <= jpeg.length && (jpeg[at] & 0xff) == 0xff) {
            int marker = jpeg[at + 1] & 0xff;
            int length = in.getShort(at + 2) & 0xffff;
            if (marker == 0xda || length < 2) return false;
            boolean exif = marker == 0xe1 && length > 16 && at + 10 <= jpeg.length && in.getInt(at + 4) == 0x45786966;
            if (exif) return orientation(jpeg, at + 10, Math.min(jpeg.length, at + 2 + length)) >= 5;
            at += 2 + length;
        }
        return false;
    }

    /** The orientation that a TIFF header's first directory gives; 1 where it gives none. */
    private static int orientation(byte[] bytes, int from, int to) {
        if (to - from < 8) return 1;
        ByteBuffer tiff = ByteBuffer.wrap(bytes, from, to - from).slice();
        tiff.order(tiff.get(0) == 'I' ? ByteOrder.LITTLE_ENDIAN : ByteOrder.BIG_ENDIAN);
        long directory = tiff.getInt(4) & 0xffffffffL;
        if (directory + 2 > tiff.limit()) return 1;
        int entries = tiff.getShort((int) directory) & 0xffff;
        for (int i = 0; i < entries; i++) {
            long entry = directory + 2 + 12L * i;
            if (entry + 12 > tiff.limit()) return 1;
            if ((tiff.getShort((int) entry) & 0xffff) == 274) return tiff.getShort((int) entry + 8) & 0xffff;
        }
        return 1;
    }
}
