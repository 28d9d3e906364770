package mintshelf.core.drawing.pdf;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Arrays;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageWriter;
import javax.imageio.stream.ImageOutputStream;
import mintshelf.core.base.Outcome;
import org.junit.jupiter.api.Test;

class TiffPagesTest {
    private static byte[] tiff(int... widths) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        ImageWriter writer = ImageIO.getImageWritersByFormatName("tiff").next();
        try (ImageOutputStream out = ImageIO.createImageOutputStream(bytes)) {
            writer.setOutput(out);
            writer.prepareWriteSequence(null);
            for (int width : widths) {
                BufferedImage image = new BufferedImage(width, 300, BufferedImage.TYPE_BYTE_GRAY);
                for (int i = 0; i < 100; i++) image.setRGB(i, i, 0xffffff);
                writer.writeToSequence(new IIOImage(image, null, null), null);
            }
            writer.endWriteSequence();
        } finally {
            writer.dispose();
        }
        return bytes.toByteArray();
    }

    /** A scan that says only how large it is, and where its next page begins. */
    private static byte[] bare(int width, int height, int next) {
        ByteBuffer out = ByteBuffer.allocate(8 + 2 + 24 + 4).order(ByteOrder.LITTLE_ENDIAN);
        out.put((byte) 'I').put((byte) 'I').putShort((short) 42).putInt(8);
        out.putShort((short) 2);
        out.putShort((short) 256).putShort((short) 4).putInt(1).putInt(width);
        out.putShort((short) 257).putShort((short) 4).putInt(1).putInt(height);
        out.putInt(next);
        return out.array();
    }

    private static String refused(Outcome<?> outcome) {
        return outcome.refusal().orElseThrow().reason();
    }

    @Test
    void allPagesOfAScanAreDrawn() throws IOException {
        byte[] file = tiff(400, 200, 250);
        PdfPages.Pages pages = TiffPages.of(file).orElseThrow(r -> new IllegalStateException(r.says()));
        assertThat(pages.count()).isEqualTo(3);
        assertThat(pages.pages().get(0).width())
                .isGreaterThan(pages.pages().get(1).width());
        BufferedImage second = ImageIO.read(new ByteArrayInputStream(
                TiffPages.png(file, 1, 1000).orElseThrow(r -> new IllegalStateException(r.says()))));
        assertThat(second.getWidth()).isEqualTo(200);
        BufferedImage small = ImageIO.read(new ByteArrayInputStream(
                TiffPages.png(file, 0, 100).orElseThrow(r -> new IllegalStateException(r.says()))));
        assertThat(small.getWidth()).isLessThanOrEqualTo(100);
        assertThat(refused(TiffPages.png(file, 3, 100))).contains("no such page");
        assertThat(refused(TiffPages.png(file, -1, 100))).contains("no such page");
    }

    @Test
    void aPageThatIsTooLargeIsRefusedBeforeItIsRead() {
        assertThat(TiffPages.of(bare(60_000, 60_000, 0)).refusal())
                .as("how many pages there are can be told")
                .isEmpty();
        assertThat(refused(TiffPages.png(bare(60_000, 60_000, 0), 0, 1000))).contains("60000 × 60000 dots");
        assertThat(refused(TiffPages.png(bare(0, 0, 0), 0, 1000))).contains("dots");
        assertThat(refused(TiffPages.png(bare(-1, -1, 0), 0, 1000))).contains("dots");
    }

    @Test
    void damageAndRingsOfPagesAreSaid() throws IOException {
        assertThat(refused(TiffPages.of(bare(10, 10, 8)))).contains("damaged");
        assertThat(refused(TiffPages.of(bare(10, 10, 9999)))).contains("damaged");
        assertThat(refused(TiffPages.of(new byte[3]))).contains("damaged");
        byte[] file = tiff(400, 200);
        for (int cut = 0; cut < file.length; cut += 1013) {
            byte[] part = Arrays.copyOf(file, cut);
            TiffPages.of(part);
            TiffPages.png(part, 0, 100);
        }
        assertThat(refused(TiffPages.png(bare(10, 10, 0), 0, 100))).contains("damaged");
    }
}
