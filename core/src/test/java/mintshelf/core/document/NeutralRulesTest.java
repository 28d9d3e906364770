package mintshelf.core.document;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Optional;
import mintshelf.core.Documents;
import mintshelf.core.access.Access;
import mintshelf.core.access.Right;
import mintshelf.core.content.ContentKind;
import mintshelf.core.revision.StageClass;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class NeutralRulesTest {
    @ParameterizedTest
    @CsvSource({
        "OTHER, plate.prt, true",
        "OFFICE, report.docx, true",
        "ZIP, pump.asm, true",
        "TEXT, plate.igs, true",
        "TEXT, notes.txt, false",
        "TEXT, README, false",
        "OTHER, clamp.stl, false",
        "ZIP, clamp.3mf, false",
        "DXF, plate.dxf, false",
        "STEP, plate.stp, false",
        "PDF, plate.pdf, false",
        "PNG, plate.png, false",
        "EMPTY, plate.prt, false"
    })
    void aFileThatNobodyHereDrawsIsShownByWhatLiesBesideIt(ContentKind kind, String name, boolean wanted) {
        assertThat(NeutralForm.isWanted(kind, FileName.of(name))).isEqualTo(wanted);
    }

    @ParameterizedTest
    @CsvSource({
        "STEP, a.txt, STEP",
        "DXF, a, DXF",
        "PDF, a.pdf, PDF",
        "TIFF, a.tif, TIFF",
        "ZIP, a.3mf, THREE_MF",
        "ZIP, a.zip,",
        "OTHER, a.stl, STL",
        "TEXT, a.stl, STL",
        "TEXT, a.txt,",
        "OTHER, a.prt,",
        "OFFICE, a.docx,",
        "GIF, a.gif,",
        "EMPTY, a.stl,"
    })
    void theFormIsToldFromTheContent(ContentKind kind, String name, NeutralForm form) {
        assertThat(NeutralForm.of(kind, FileName.of(name))).isEqualTo(Optional.ofNullable(form));
    }

    @ParameterizedTest
    @CsvSource({
        "plate.prt, plate.stp, true",
        "Plate.PRT, plate.PDF, true",
        "plate.prt, plate.prt, false",
        "plate.prt, plates.stp, false",
        "plate, plate.stp, true"
    })
    void aCopyHasTheNameOfItsFile(String main, String copy, boolean belongs) {
        assertThat(NeutralRules.belongs(FileName.of(main), FileName.of(copy))).isEqualTo(belongs);
    }

    @Test
    void whatIsOutIsAddedToAndNothingOfItReplaced() {
        FileName main = FileName.of("plate.prt");
        FileName copy = FileName.of("plate.stp");
        Optional<NeutralForm> step = Optional.of(NeutralForm.STEP);
        assertThat(NeutralRules.take(new NeutralRules.To(main, ContentKind.OTHER, 3, true, false), copy, step))
                .isEmpty();
        assertThat(NeutralRules.take(new NeutralRules.To(main, ContentKind.OTHER, 3, false, true), copy, step))
                .isEmpty();
        assertThat(NeutralRules.take(new NeutralRules.To(main, ContentKind.OTHER, 3, true, true), copy, step))
                .hasValueSatisfying(r -> assertThat(r.code()).isEqualTo("neutral.out"));
        assertThat(NeutralRules.take(
                        new NeutralRules.To(main, ContentKind.OTHER, 3, false, false), copy, Optional.empty()))
                .hasValueSatisfying(r -> assertThat(r.code()).isEqualTo("neutral.form"));
    }

    @Test
    void nobodyLaysAnotherPictureUnderASignature() {
        Access designer = Documents.person(Documents.PRIYA, Right.CHANGE);
        Access keeper = Documents.person(Documents.TOMASZ, Right.CHANGE, Right.KEEP_SHELF);
        FileName main = FileName.of("plate.prt");
        assertThat(NeutralRules.bring(Documents.released(), designer, main, ContentKind.OTHER, true))
                .hasValueSatisfying(r -> assertThat(r.code()).isEqualTo("access.missing"));
        assertThat(NeutralRules.bring(Documents.released(), keeper, main, ContentKind.OTHER, true))
                .isEmpty();
        assertThat(NeutralRules.bring(
                        Documents.document(
                                Optional.of(Documents.revision("B", StageClass.DECIDING)),
                                Optional.empty(),
                                Optional.empty()),
                        designer,
                        main,
                        ContentKind.OTHER,
                        false))
                .hasValueSatisfying(r -> assertThat(r.code()).isEqualTo("neutral.decides"));
        assertThat(NeutralRules.bring(Documents.released(), keeper, FileName.of("a.dxf"), ContentKind.DXF, false))
                .hasValueSatisfying(r -> assertThat(r.code()).isEqualTo("neutral.own"));
    }

    @Test
    void theGateSaysWhichVersionThePictureIsOf() {
        assertThat(NeutralRules.notCurrent("TG40-1010", 4, Optional.of(3)).reason())
                .isEqualTo("The neutral copy of TG40-1010 shows version 3, the file is at 4.");
        assertThat(NeutralRules.notCurrent("TG40-1010", 4, Optional.empty()).reason())
                .isEqualTo("TG40-1010 has no neutral copy.");
    }
}
