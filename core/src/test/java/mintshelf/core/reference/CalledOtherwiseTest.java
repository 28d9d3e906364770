package mintshelf.core.reference;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Map;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.model.step.StepTexts.Called;
import org.junit.jupiter.api.Test;

/** Products of models and numbers on sheets that are called otherwise from now on. */
class CalledOtherwiseTest {
    private static final Map<String, Called> OTHER =
            Map.of("ring 2", new Called("ring 2.5", "O-ring", "O-ring, thick"));

    private static final String MODEL = """
            ISO-10303-21;
            HEADER;
            FILE_SCHEMA(('AP242'));
            ENDSEC;
            DATA;
            #1=PRODUCT('head','Head','',());
            #2=PRODUCT ( 'ring 2' , 'O-ring' , 'ring 2' , () );
            #3=PRODUCT('ring 25','O-ring','',());
            #4=DOCUMENT_FILE('ring 2.stp','','',#9,'',$);
            #5=NEXT_ASSEMBLY_USAGE_OCCURRENCE('ring 2:1','ring 2','',#1,#2,$);
            #6=NEXT_ASSEMBLY_USAGE_OCCURRENCE('ring 2 left','ring 25:1','',#1,#3,$);
            ENDSEC;
            END-ISO-10303-21;
            """;

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.US_ASCII);
    }

    private static String text(Outcome<byte[]> written) {
        return new String(written.orElseThrow(r -> new IllegalStateException(r.says())), StandardCharsets.US_ASCII);
    }

    @Test
    void aProductIsCalledOtherwiseWhereverItIsNamedAndNothingElse() {
        assertThat(text(Rewrite.model(bytes(MODEL), Map.of("ring 2.stp", "ring 25.stp"), OTHER)))
                .isEqualTo(MODEL.replace("( 'ring 2' , 'O-ring'", "( 'ring 2.5' , 'O-ring, thick'")
                        .replace("'ring 2:1','ring 2'", "'ring 2.5:1','ring 2.5'")
                        .replace("ring 2.stp", "ring 25.stp"));
    }

    @Test
    void anIdWithSignsBeyondAsciiIsWrittenSoThatItReadsTheSame() {
        Map<String, Called> other = Map.of("ring 2", new Called("Dichtung Ø 2,5 'weich'", "", ""));
        byte[] written = Rewrite.model(bytes(MODEL), Map.of("ring 2.stp", "Ø.stp"), other)
                .orElseThrow(r -> new IllegalStateException(r.says()));
        assertThat(text(Rewrite.model(
                        written,
                        Map.of("Ø.stp", "ring 2.stp"),
                        Map.of("Dichtung Ø 2,5 'weich'", new Called("ring 2", "", "")))))
                .isEqualTo(MODEL);
    }

    private static String sheet(String... textsAndHeights) {
        StringBuilder text = new StringBuilder("0\nSECTION\n2\nENTITIES\n");
        for (int i = 0; i < textsAndHeights.length; i += 2)
            text.append("0\nTEXT\n8\n0\n10\n%d.0\n20\n%s\n40\n2.5\n1\n%s\n"
                    .formatted(10 * i, textsAndHeights[i + 1], textsAndHeights[i]));
        return text.append("0\nENDSEC\n0\nEOF\n").toString();
    }

    @Test
    void aPartsListSaysTheOtherNumberAndItsTitleInThatLineAlone() {
        String old = sheet("3", "20.0", "ring 2", "20.0", "O-ring", "20.0", "O-ring", "40.0", "ring 25", "40.0");
        byte[] file = bytes(old);
        DxfDrawing drawing = ((Outcome.Granted<DxfDrawing>) DxfDrawing.read(file)).value();
        assertThat(SheetNames.says(drawing, OTHER.keySet())).isTrue();
        assertThat(text(SheetNames.exchange(file, OTHER)))
                .isEqualTo(sheet(
                        "3", "20.0", "ring 2.5", "20.0", "O-ring, thick", "20.0", "O-ring", "40.0", "ring 25", "40.0"));
        assertThat(SheetNames.exchange(bytes(sheet("ring 25", "1.0")), OTHER).refusal())
                .isPresent();
        String several =
                "0\nSECTION\n2\nENTITIES\n0\nMTEXT\n8\n0\n10\n1.0\n20\n1.0\n40\n2.5\n1\nring 2\n0\nENDSEC\n0\nEOF\n";
        assertThat(SheetNames.exchange(bytes(several), OTHER)
                        .refusal()
                        .orElseThrow()
                        .code())
                .isEqualTo("rewrite.lines");
    }
}
