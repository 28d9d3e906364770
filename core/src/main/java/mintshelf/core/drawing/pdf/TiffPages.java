package mintshelf.core.drawing.pdf;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.Iterator;
import java.util.List;
import java.util.Set;
import javax.imageio.ImageIO;
import javax.imageio.ImageReadParam;
import javax.imageio.ImageReader;
import javax.imageio.event.IIOReadProgressListener;
import javax.imageio.stream.ImageInputStream;
import javax.imageio.stream.MemoryCacheImageInputStream;
import mintshelf.core.base.Outcome;

/**
 * The pages of a scan (TIFF 6.0), shown as those of a PDF are. Its directories are walked here, once each, before any picture is opened; a
 * page beyond {@link #LARGEST} is refused before it is read, and what takes longer than {@link #LONGEST} is given up.
 */
public final class TiffPages {
    /** Bits of one page unpacked. */
    private static final long LARGEST = 96L << 23;

    private static final long LONGEST = 10_000_000_000L;
    private static final int WIDTH = 256;
    private static final int HEIGHT = 257;
    private static final int BITS = 258;
    private static final int SAMPLES = 277;
    private static final int ACROSS = 282;
    private static final int UNIT = 296;
    private static final int SHORT = 3;
    private static final int LONG = 4;
    private static final int RATIONAL = 5;
    private static final double INCH = 25.4;
    /** Of a scan that does not say how large a dot is. */
    private static final double USUAL = 200;

    private TiffPages() {}

    private record Directory(long width, long height, long bits, double millimetre) {
        boolean isModest() {
            return width > 0 && height > 0 && width < 1 << 17 && height < 1 << 17 && width * height * bits <= LARGEST;
        }
    }

    private static <T> Outcome<T> unread(String why) {
        return Outcome.refused(
                "tiff.unread",
                "The pages of this TIFF cannot be shown: " + why + ".",
                "Fetch a copy and open it there.");
    }

    /** Its pages, or why none can be shown. O(pages). */
    public static Outcome<PdfPages.Pages> of(byte[] tiff) {
        Outcome<List<Directory>> read = directories(tiff);
        if (!(read instanceof Outcome.Granted<List<Directory>> all))
            return Outcome.refused(read.refusal().orElseThrow());
        List<PdfPages.Page> pages = new ArrayList<>();
        for (Directory one : all.value()) {
            if (pages.size() == PdfPages.MOST) break;
            pages.add(new PdfPages.Page(
                    Math.max(1, one.width() * one.millimetre()),
                    Math.max(1, one.height() * one.millimetre()),
                    0,
                    0,
                    one.millimetre(),
                    false));
        }
        return pages.isEmpty()
                ? unread("it has none")
                : Outcome.granted(new PdfPages.Pages(pages, all.value().size()));
    }

    private static Outcome<List<Directory>> directories(byte[] tiff) {
        if (tiff.length < 8) return unread("it is damaged");
        ByteBuffer in = ByteBuffer.wrap(tiff).order(tiff[0] == 'I' ? ByteOrder.LITTLE_ENDIAN : ByteOrder.BIG_ENDIAN);
        if (in.getShort(2) != 42) return unread("it is of a kind that is not read here");
        List<Directory> all = new ArrayList<>();
        Set<Long> seen = new HashSet<>();
        try {
            for (long at = in.getInt(4) & 0xffffffffL; at != 0 && all.size() < 10 * PdfPages.MOST; ) {
                if (!seen.add(at) || at > tiff.length - 6L) return unread("it is damaged");
                int entries = in.getShort((int) at) & 0xffff;
                all.add(directory(in, (int) at + 2, entries));
                at = in.getInt((int) at + 2 + 12 * entries) & 0xffffffffL;
            }
        } catch (IndexOutOfBoundsException e) {
            return unread("it is damaged");
        }
        return Outcome.granted(all);
    }

    private static Directory directory(ByteBuffer in, int from, int entries) {
        long width = 0;
        long height = 0;
        long bits = 1;
        long samples = 1;
        double across = USUAL;
        long unit = 2;
        for (int i = 0; i < entries; i++) {
            int at = from + 12 * i;
            int type = in.getShort(at + 2);
            long value =
                    type == SHORT ? in.getShort(at + 8) & 0xffff : type == LONG ? in.getInt(at + 8) & 0xffffffffL : 0;
            switch (in.getShort(at) & 0xffff) {
                case WIDTH -> width = value;
                case HEIGHT -> height = value;
                // Of several samples the first stands for all: more than two of them do not fit into the entry.
                case BITS -> bits = in.getInt(at + 4) > 2 ? 8 : Math.max(1, value);
                case SAMPLES -> samples = Math.max(1, value);
                case ACROSS -> across = type == RATIONAL ? rational(in, in.getInt(at + 8)) : USUAL;
                case UNIT -> unit = value;
                default -> {
                    // What else it says is not needed here.
                }
            }
        }
        double perInch = unit == 3 ? across * 2.54 : across;
        return new Directory(
                width, height, bits * samples, perInch >= 10 && perInch <= 10_000 ? INCH / perInch : INCH / USUAL);
    }

    private static double rational(ByteBuffer in, int at) {
        double below = in.getInt(at + 4) & 0xffffffffL;
        return below == 0 ? USUAL : (in.getInt(at) & 0xffffffffL) / below;
    }

    /**
     * A page as PNG.
     *
     * @param index from 0 on
     * @param longest pixels of its longer side
     */
    public static Outcome<byte[]> png(byte[] tiff, int index, int longest) {
        Outcome<List<Directory>> read = directories(tiff);
        if (!(read instanceof Outcome.Granted<List<Directory>> all))
            return Outcome.refused(read.refusal().orElseThrow());
        if (index < 0 || index >= Math.min(all.value().size(), PdfPages.MOST)) return unread("it has no such page");
        Directory page = all.value().get(index);
        if (!page.isModest()) return unread("the page has " + page.width() + " × " + page.height() + " dots");
        try (ImageInputStream in = new MemoryCacheImageInputStream(new ByteArrayInputStream(tiff))) {
            Iterator<ImageReader> readers = ImageIO.getImageReadersByFormatName("tiff");
            if (!readers.hasNext()) return unread("nothing here reads it");
            ImageReader reader = readers.next();
            try {
                reader.setInput(in, false, true);
                Clock clock = new Clock(System.nanoTime() + LONGEST);
                reader.addIIOReadProgressListener(clock);
                ImageReadParam param = reader.getDefaultReadParam();
                int step = (int) Math.max(1, Math.max(page.width(), page.height()) / longest);
                param.setSourceSubsampling(step, step, 0, 0);
                BufferedImage image = reader.read(index, param);
                if (clock.isOver) return unread("to read the page takes too long");
                return Outcome.granted(png(image, longest));
            } finally {
                reader.dispose();
            }
        } catch (IOException | RuntimeException e) {
            return unread("it is damaged, or packed in a way that is not read here");
        }
    }

    private static byte[] png(BufferedImage image, int longest) throws IOException {
        double scale = Math.min(1, (double) longest / Math.max(image.getWidth(), image.getHeight()));
        BufferedImage drawn = new BufferedImage(
                Math.max(1, (int) (image.getWidth() * scale)),
                Math.max(1, (int) (image.getHeight() * scale)),
                BufferedImage.TYPE_INT_RGB);
        Graphics2D paint = drawn.createGraphics();
        paint.setColor(Color.WHITE);
        paint.fillRect(0, 0, drawn.getWidth(), drawn.getHeight());
        paint.setRenderingHint(RenderingHints.KEY_INTERPOLATION, RenderingHints.VALUE_INTERPOLATION_BILINEAR);
        paint.drawImage(image, 0, 0, drawn.getWidth(), drawn.getHeight(), null);
        paint.dispose();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(drawn, "png", out);
        return out.toByteArray();
    }

    /** Gives a page up that takes too long. */
    private static final class Clock implements IIOReadProgressListener {
        private final long until;
        private boolean isOver;

        Clock(long until) {
            this.until = until;
        }

        @Override
        public void imageProgress(ImageReader source, float percent) {
            if (System.nanoTime() < until) return;
            isOver = true;
            source.abort();
        }

        @Override
        public void sequenceStarted(ImageReader source, int first) {}

        @Override
        public void sequenceComplete(ImageReader source) {}

        @Override
        public void imageStarted(ImageReader source, int index) {}

        @Override
        public void imageComplete(ImageReader source) {}

        @Override
        public void thumbnailStarted(ImageReader source, int index, int thumbnail) {}

        @Override
        public void thumbnailProgress(ImageReader source, float percent) {}

        @Override
        public void thumbnailComplete(ImageReader source) {}

        @Override
        public void readAborted(ImageReader source) {}
    }
}
