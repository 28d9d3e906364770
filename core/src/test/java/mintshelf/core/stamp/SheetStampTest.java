package mintshelf.core.stamp;

import static java.nio.charset.StandardCharsets.ISO_8859_1;
import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.Charset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import mintshelf.core.Dxf;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.titleblock.SheetMap;
import mintshelf.core.stamp.SheetStamp.Stamped;
import org.junit.jupiter.api.Test;

class SheetStampTest {
    private static final Charset WINDOWS = Charset.forName("windows-1252");
    private static final SheetMap MAP = SheetMap.readyMade();
    private static final Map<String, String> VALUES = Map.of(
            "number",
            "TG40-3030",
            "revision",
            "C",
            "checked_by",
            "Søren Bødker",
            "status",
            "Released",
            "title",
            "never");

    private static Stamped write(byte[] sheet, Map<String, String> values) {
        return ((Outcome.Granted<Stamped>) SheetStamp.write(sheet, MAP, values)).value();
    }

    private static Map<String, String> read(byte[] sheet) {
        return MAP.read(((Outcome.Granted<DxfDrawing>) DxfDrawing.read(sheet)).value());
    }

    /** The lines of the file that differ. */
    private static List<String> changed(byte[] before, byte[] after) {
        String[] old = new String(before, ISO_8859_1).split("\r?\n", -1);
        String[] now = new String(after, ISO_8859_1).split("\r?\n", -1);
        assertThat(now).hasSameSizeAs(old);
        List<String> lines = new ArrayList<>();
        for (int i = 0; i < old.length; i++) if (!old[i].equals(now[i])) lines.add(now[i]);
        return lines;
    }

    @Test
    void onlyMappedValuesChangeAndEveryOtherByteStays() {
        byte[] sheet = Dxf.sheet("\r\n", WINDOWS, "AC1015", "ANSI_1252");
        Stamped stamped = write(sheet, VALUES);
        assertThat(changed(sheet, stamped.bytes()))
                .containsExactly("TG40-3030", "C", new String("Søren Bødker".getBytes(WINDOWS), ISO_8859_1));
        assertThat(new String(stamped.bytes(), ISO_8859_1))
                .contains("  odd blanks stay   \r\n")
                .doesNotContain("never");
        assertThat(stamped.edits())
                .extracting(SheetStamp.Edit::fact)
                .containsExactly("number", "revision", "checked_by");
        assertThat(read(stamped.bytes()))
                .containsEntry("checked_by", "Søren Bødker")
                .containsEntry("title", "Gland plate");
    }

    @Test
    void writingAgainGivesTheSameHashFromTheSignedAndFromTheWrittenSheet() {
        byte[] sheet = Dxf.sheet("\n", WINDOWS, "AC1009", "ANSI_1252");
        Stamped once = write(sheet, VALUES);
        assertThat(write(sheet, VALUES).hash()).isEqualTo(once.hash());
        assertThat(write(once.bytes(), VALUES).hash()).isEqualTo(once.hash());
    }

    @Test
    void whatTheCodePageLacksIsEscapedAndReadBack() {
        for (String name : List.of("Łukasz Żak", "標準 𠮷", "100 %%c wide", "a\\U+00D8b", "50 % of \\P")) {
            for (String version : List.of("AC1009", "AC1027")) {
                Charset charset = version.equals("AC1027") ? UTF_8 : WINDOWS;
                byte[] sheet = Dxf.sheet("\r\n", charset, version, "ANSI_1252");
                byte[] written = write(sheet, Map.of("checked_by", name)).bytes();
                assertThat(read(written)).as(version).containsEntry("checked_by", name);
            }
        }
    }

    @Test
    void aSheetWithoutMappedFieldsStaysAsItIs() {
        byte[] sheet = Dxf.of("\n", WINDOWS, "0 SECTION", "2 ENTITIES", "0 LINE", "10 1.0", "0 ENDSEC", "0 EOF");
        assertThat(write(sheet, VALUES).edits()).isEmpty();
        assertThat(write(sheet, VALUES).bytes()).isEqualTo(sheet);
    }

    @Test
    void theProofHoldsForWhatWasWrittenAndForNothingElse() {
        byte[] sheet = Dxf.sheet("\r\n", WINDOWS, "AC1015", "ANSI_1252");
        byte[] stamped = write(sheet, VALUES).bytes();
        assertThat(SheetStamp.prove(sheet, stamped, MAP, VALUES)).isEmpty();
        Random random = new Random(40);
        for (int i = 0; i < 200; i++) {
            byte[] bent = stamped.clone();
            bent[random.nextInt(bent.length)] ^= (byte) (1 << random.nextInt(8));
            if (Arrays.equals(bent, stamped)) continue;
            assertThat(SheetStamp.prove(sheet, bent, MAP, VALUES))
                    .map(Refusal::code)
                    .contains("stamp.differs");
        }
        assertThat(SheetStamp.prove(sheet, stamped, MAP, Map.of("number", "TG40-9999")))
                .isPresent();
    }

    @Test
    void aValueThatNoFieldTakesIsRefused() {
        byte[] sheet = Dxf.sheet("\r\n", WINDOWS, "AC1009", "ANSI_1252");
        assertThat(SheetStamp.write(sheet, MAP, Map.of("checked_by", "x".repeat(300)))
                        .refusal()
                        .map(Refusal::code))
                .contains("stamp.long");
        assertThat(SheetStamp.write("no drawing".getBytes(UTF_8), MAP, VALUES)
                        .refusal()
                        .map(Refusal::code))
                .contains("stamp.unreadable");
    }
}
