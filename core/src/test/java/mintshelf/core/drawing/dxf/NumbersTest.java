package mintshelf.core.drawing.dxf;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Random;
import org.junit.jupiter.api.Test;

class NumbersTest {
    private static double real(String text) {
        byte[] bytes = ("##" + text + "##").getBytes(StandardCharsets.ISO_8859_1);
        return Numbers.real(bytes, 2, bytes.length - 2);
    }

    @Test
    void whatIsWrittenWithUpToFifteenDigitsIsReadToTheLastBit() {
        Random random = new Random(14);
        for (int i = 0; i < 20_000; i++) {
            int places = random.nextInt(12);
            String text = String.format(Locale.ROOT, "%." + places + "f", (random.nextDouble() - 0.5) * 2000);
            assertThat(real(text)).as(text).isEqualTo(Double.parseDouble(text));
        }
    }

    @Test
    void anyDoubleIsReadToWithinItsLastPlace() {
        Random random = new Random(15);
        for (int i = 0; i < 20_000; i++) {
            double value = Double.longBitsToDouble(random.nextLong());
            if (!Double.isFinite(value)) continue;
            String text = Double.toString(value);
            assertThat(Math.abs(real(text) - value)).as(text).isLessThanOrEqualTo(Math.ulp(value));
        }
    }

    @Test
    void oddWritingsOfOtherHandsAreNumbers() {
        assertThat(real("  12.5\t")).isEqualTo(12.5);
        assertThat(real("+12,5")).isEqualTo(12.5);
        assertThat(real(".5")).isEqualTo(0.5);
        assertThat(real("5.")).isEqualTo(5);
        assertThat(real("1.5D3")).isEqualTo(1500);
        assertThat(real("1E-3")).isEqualTo(0.001);
        assertThat(real("-0.0")).isEqualTo(-0.0);
        assertThat(real("000000000000000000000000012")).isEqualTo(12);
        assertThat(real("1234567890123456789012345")).isEqualTo(1.2345678901234568e24);
    }

    @Test
    void whatIsNoNumberIsNone() {
        for (String text : new String[] {
            "", " ", "x", "1x", "--1", "1.2.3", "NaN", "Infinity", "1e", "e5", "0x10", "1e5f", "1 2", "-", ".", "+,"
        }) {
            assertThat(real(text)).as("“" + text + "”").isNaN();
        }
        assertThat(real("9".repeat(500))).isNaN();
    }

    @Test
    void handlesAreToBaseSixteen() {
        byte[] bytes = " 1aF ".getBytes(StandardCharsets.ISO_8859_1);
        assertThat(Numbers.hex(bytes, 0, bytes.length)).isEqualTo(0x1af);
        for (String wrong : new String[] {"", "   ", "XYZ", "12345678901234567"}) {
            byte[] b = wrong.getBytes(StandardCharsets.ISO_8859_1);
            assertThat(Numbers.hex(b, 0, b.length)).as(wrong).isEqualTo(-1);
        }
    }

    @Test
    void binaryNumbersKeepTheirSign() {
        byte[] bytes = ByteBuffer.allocate(16)
                .order(ByteOrder.LITTLE_ENDIAN)
                .putShort((short) -3)
                .putInt(-70_000)
                .putDouble(-2.5)
                .array();
        assertThat(Numbers.whole(bytes, 0, 2)).isEqualTo(-3);
        assertThat(Numbers.whole(bytes, 2, 4)).isEqualTo(-70_000);
        assertThat(Numbers.realBinary(bytes, 6)).isEqualTo(-2.5);
        assertThat(Numbers.whole(new byte[] {(byte) 200}, 0, 1)).isEqualTo(-56);
    }
}
