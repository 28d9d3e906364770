package mintshelf.core.content;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Random;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;

class PictureSizeTest {
    private static byte[] picture(String format, int width, int height) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB), format, out);
        return out.toByteArray();
    }

    /** A JPEG whose camera says how it was held; {@code order} is II or MM. */
    private static byte[] held(byte[] jpeg, String order, int orientation) {
        boolean little = order.equals("II");
        byte[] tiff = {
            (byte) order.charAt(0),
            (byte) order.charAt(1),
            0,
            0,
            0,
            0,
            0,
            0,
            0,
            0,
            0,
            0,
            0,
            0,
            0,
            0,
            0,
            0,
            0,
            0,
            0,
            0,
            0,
            0,
            0,
            0
        };
        put(tiff, 2, 2, 42, little);
        put(tiff, 4, 4, 8, little);
        put(tiff, 8, 2, 1, little);
        put(tiff, 10, 2, 274, little);
        put(tiff, 12, 2, 3, little);
        put(tiff, 14, 4, 1, little);
        put(tiff, 18, 2, orientation, little);
        byte[] exif = "Exif\0\0".getBytes(StandardCharsets.US_ASCII);
        byte[] all = new byte[jpeg.length + 4 + exif.length + tiff.length];
        all[0] = (byte) 0xff;
        all[1] = (byte) 0xd8;
        all[2] = (byte) 0xff;
        all[3] = (byte) 0xe1;
        put(all, 4, 2, 2 + exif.length + tiff.length, false);
        System.arraycopy(exif, 0, all, 6, exif.length);
        System.arraycopy(tiff, 0, all, 6 + exif.length, tiff.length);
        System.arraycopy(jpeg, 2, all, 6 + exif.length + tiff.length, jpeg.length - 2);
        return all;
    }

    private static void put(byte[] bytes, int at, int length, int value, boolean little) {
        for (int i = 0; i < length; i++) {
            bytes[at + i] = (byte) (value >> (8 * (little ? i : length - 1 - i)));
        }
    }

    @Test
    void itIsTheSizeThatTheFileSays() throws IOException {
        for (String format : new String[] {"png", "jpeg", "gif"}) {
            assertThat(PictureSize.of(picture(format, 640, 480))).as(format).contains(new PictureSize(640, 480));
        }
    }

    @Test
    void aPhotographThatLiesOnItsSideIsShownUpright() throws IOException {
        byte[] jpeg = picture("jpeg", 640, 480);
        for (String order : new String[] {"II", "MM"}) {
            for (int turned = 1; turned <= 8; turned++) {
                PictureSize wanted = turned >= 5 ? new PictureSize(480, 640) : new PictureSize(640, 480);
                assertThat(PictureSize.of(held(jpeg, order, turned)))
                        .as(order + turned)
                        .contains(wanted);
            }
        }
    }

    @Test
    void theFirstBytesAreEnough() throws IOException {
        byte[] png = picture("png", 3000, 2000);
        assertThat(PictureSize.of(Arrays.copyOf(png, 200))).contains(new PictureSize(3000, 2000));
    }

    @Test
    void whatIsNoneHasNone() throws IOException {
        byte[] svg = "<svg width=\"10\" height=\"10\"/>".getBytes(StandardCharsets.US_ASCII);
        assertThat(PictureSize.of(svg)).isEmpty();
        assertThat(PictureSize.of(new byte[0])).isEmpty();
        Random random = new Random(7);
        byte[] good = held(picture("jpeg", 64, 48), "II", 6);
        for (int i = 0; i < 3000; i++) {
            byte[] bad = Arrays.copyOf(good, 5 + random.nextInt(good.length - 5));
            for (int k = 0; k < 6; k++) bad[4 + random.nextInt(bad.length - 4)] = (byte) random.nextInt();
            PictureSize.of(bad).ifPresent(s -> assertThat(s.width()).isPositive());
        }
    }
}
