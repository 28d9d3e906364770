package mintshelf.core.drawing.check;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.core.Dxf;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.check.CheckRules.Rule;
import mintshelf.core.drawing.dxf.Dimensions;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.titleblock.SheetMap;
import mintshelf.core.drawing.titleblock.SheetScale;
import org.junit.jupiter.api.Test;

class SheetCheckTest {
    private static final String FRAME =
            "0 LWPOLYLINE;8 FRAME;90 4;70 1;10 0;20 0;10 420;20 0;10 420;20 297;10 0;20 297";
    private static final String TITLE =
            "0 INSERT;66 1;2 TITLE;10 0;20 0" + attribute("NUMBER", "TG40-3030") + attribute("TITLE", "Gland plate")
                    + attribute("REV", "C") + attribute("SCALE", "1:2") + attribute("MATERIAL", "316L") + ";0 SEQEND";

    private static String attribute(String tag, String value) {
        int row = List.of("NUMBER", "TITLE", "REV", "SCALE", "MATERIAL", "FIND", "QTY")
                .indexOf(tag);
        // Lines of a parts list follow each other.
        if (tag.equals("FIND") || tag.equals("QTY") || value.contains("-10"))
            row += value.matches("1|.*-1010") ? 10 : 20;
        return ";0 ATTRIB;8 TEXT;10 " + (tag.equals("QTY") ? 330 : 260) + ";20 " + (20 + 6 * row) + ";40 3.5;1 " + value
                + ";2 " + tag;
    }

    private static List<Finding> check(CheckRules rules, Map<String, String> record, String... entities) {
        List<String> tags = new ArrayList<>(List.of("0 SECTION", "2 BLOCKS", "0 BLOCK", "2 TITLE", "0 ENDBLK"));
        tags.addAll(List.of("0 BLOCK", "2 PARTS_ROW", "0 ENDBLK", "0 ENDSEC", "0 SECTION", "2 ENTITIES"));
        for (String entity : entities) tags.addAll(List.of(entity.split(";")));
        tags.addAll(List.of("0 ENDSEC", "0 EOF"));
        byte[] bytes = Dxf.of("\n", StandardCharsets.UTF_8, tags.toArray(new String[0]));
        DxfDrawing drawing = ((Outcome.Granted<DxfDrawing>) DxfDrawing.read(bytes)).value();
        return SheetCheck.check(drawing, rules, SheetMap.readyMade().read(drawing), record, Set.of("mass"));
    }

    private static List<Finding> check(String... entities) {
        return check(CheckRules.hints(), Map.of(), entities);
    }

    @Test
    void aSheetThatKeepsTheRulesHasNoFindings() {
        assertThat(check(FRAME, TITLE, "0 LINE;8 OUTLINE;10 50;20 50;11 90;21 50"))
                .isEmpty();
    }

    @Test
    void whatTheTitleBlockLacksOrSaysOtherwiseThanTheRecordIsFound() {
        List<Finding> found = check(
                CheckRules.hints(),
                Map.of("number", "TG40-3031", "title", "Gland plate"),
                FRAME,
                TITLE.replace("316L", " "));
        assertThat(found)
                .extracting(Finding::says)
                .containsExactly(
                        "The title block has no material.",
                        "The sheet says number “TG40-3030”, the record “TG40-3031”.");
        assertThat(check(FRAME)).extracting(Finding::rule).containsExactly(Rule.TITLE_BLOCK);
    }

    @Test
    void aMassThatTheRecordSaysFinerIsNoContradiction() {
        String with = TITLE.replace(";0 SEQEND", attribute("MASS", "0.74") + ";0 SEQEND");
        assertThat(check(CheckRules.hints(), Map.of("mass", "0.7384"), FRAME, with))
                .isEmpty();
        assertThat(check(CheckRules.hints(), Map.of("mass", "0.7484"), FRAME, with))
                .extracting(Finding::says)
                .containsExactly("The sheet says mass “0.74”, the record “0.7484”.");
    }

    private static String line(String find, String number) {
        return "0 INSERT;66 1;2 PARTS_ROW;10 0;20 0" + attribute("FIND", find) + attribute("QTY", "2")
                + attribute("NUMBER", number) + ";0 SEQEND";
    }

    private static String balloon(String number, double x) {
        return "0 CIRCLE;8 DIM;10 " + x + ";20 200;40 5;0 TEXT;8 DIM;10 " + x + ";20 198.25;40 3.5;1 " + number
                + ";72 1;11 " + x + ";21 198.25";
    }

    @Test
    void linesOfThePartsListAndBalloonsBelongTogether() {
        assertThat(check(
                        FRAME,
                        TITLE,
                        line("1", "TG40-1010"),
                        line("2", "TG40-1020"),
                        balloon("1", 60),
                        balloon("2", 90)))
                .isEmpty();
        List<Finding> found =
                check(FRAME, TITLE, line("1", "TG40-1010"), line("2", "TG40-1020"), balloon("1", 60), balloon("7", 90));
        assertThat(found)
                .extracting(Finding::says)
                .containsExactly(
                        "Line 2 of the parts list (TG40-1020) has no balloon.",
                        "The balloon 7 has no line in the parts list.");
        assertThat(found.get(1).zone()).isEqualTo("B2");
        assertThat(check(FRAME, TITLE, balloon("7", 90)))
                .as("no parts list, no balloons")
                .isEmpty();
    }

    @Test
    void smallAndOddLettersAreFoundWithTheirZone() {
        List<Finding> found = check(
                FRAME,
                TITLE,
                "0 TEXT;8 TEXT;10 62;20 270;40 1.8;1 small",
                "0 TEXT;8 TEXT;10 150;20 150;40 4.2;1 odd",
                "0 TEXT;8 TEXT;10 160;20 150;40 4.2;1 odd too");
        assertThat(found).extracting(Finding::rule).containsExactly(Rule.TEXT_HEIGHT, Rule.TEXT_SERIES);
        assertThat(found.get(0).zone()).isEqualTo("A2");
        assertThat(found.get(1).count()).isEqualTo(2);
    }

    @Test
    void dimensionsThatWereTypedAreHeldAgainstWhatIsDrawnAtTheSheetsScale() {
        String dimension = "0 DIMENSION;8 DIM;2 *D1;70 0;10 90;20 60;11 70;21 61;13 50;23 50;14 90;24 50";
        assertThat(check(FRAME, TITLE, dimension)).isEmpty();
        assertThat(check(FRAME, TITLE, dimension + ";1 80"))
                .extracting(Finding::rule)
                .containsExactly(Rule.DIMENSION_OVERRIDDEN);
        assertThat(check(FRAME, TITLE, dimension + ";1 82")).singleElement().satisfies(f -> {
            assertThat(f.rule()).isEqualTo(Rule.DIMENSION_WRONG);
            assertThat(f.says()).isEqualTo("A dimension says “82” where 80.00 is drawn.");
            assertThat(f.zone()).isEqualTo("E2");
        });
        assertThat(check(FRAME, TITLE, dimension + ";1 <> H11")).isEmpty();
    }

    @Test
    void doubledAndEmptyLinesAndWhatLiesOffTheSheetAreFound() {
        String line = "0 LINE;8 OUTLINE;10 50;20 50;11 90;21 50";
        assertThat(check(
                        FRAME,
                        TITLE,
                        line,
                        "0 LINE;8 OUTLINE;10 90;20 50;11 50;21 50",
                        "0 LINE;8 OUTLINE;10 9;20 9;11 9;21 9",
                        "0 CIRCLE;8 OUTLINE;10 800;20 50;40 5",
                        "0 INSERT;2 GONE;10 5;20 5"))
                .extracting(Finding::rule)
                .containsExactly(Rule.DOUBLED, Rule.NO_LENGTH, Rule.OFF_SHEET, Rule.MISSING_REFERENCE);
    }

    @Test
    void aSheetOfNoFormatAndAnOddScaleAreFound() {
        assertThat(check(TITLE.replace("1:2", "1:3"), "0 LINE;8 A;10 0;20 0;11 300;21 310"))
                .extracting(Finding::rule)
                .containsExactly(Rule.SHEET_FORMAT, Rule.SCALE);
        assertThat(SheetScale.isRecommended(5)).isTrue();
        assertThat(SheetScale.isRecommended(0.0005)).isTrue();
        assertThat(SheetScale.isRecommended(0.4)).isFalse();
        assertThat(SheetScale.of("M 1:2")).isEmpty();
    }

    @Test
    void rulesAreReadAndWrittenAsTextAndAWrongLineIsNamed() {
        CheckRules rules = ((Outcome.Granted<CheckRules>) RuleFile.read(
                        "# ours\nsheet-format = off\nscale = binding\nleast-text = 3.5\nlayers = outline, DIM\n"))
                .value();
        assertThat(rules.severities()).doesNotContainKey(Rule.SHEET_FORMAT).containsKey(Rule.LAYERS);
        for (CheckRules each : List.of(
                CheckRules.hints(),
                new CheckRules(Map.of(Rule.LAYERS, CheckRules.Severity.BINDING), List.of(), 3.5, Set.of("DIM")),
                new CheckRules(Map.of(Rule.SCALE, CheckRules.Severity.HINT), List.of("title"), 2, Set.of("DIM")))) {
            assertThat(RuleFile.read(RuleFile.write(each))).isEqualTo(Outcome.granted(each));
        }
        assertThat(((Outcome.Granted<CheckRules>) RuleFile.read(RuleFile.write(rules))).value())
                .isEqualTo(rules);
        assertThat(check(rules, Map.of(), FRAME.replace("FRAME", "DIM"), TITLE.replace("1:2", "1:3")))
                .filteredOn(Finding::isBinding)
                .extracting(Finding::rule)
                .containsExactly(Rule.SCALE);
        for (String wrong : List.of("scale", "scale = perhaps", "no-rule = off", "least-text = wide")) {
            assertThat(RuleFile.read("# x\n" + wrong).refusal().orElseThrow().reason())
                    .startsWith("Line 2");
        }
    }

    @Test
    void aDimensionsSizeIsReadOutOfItsText() {
        assertThat(Dimensions.number("4X Ø5.5 H11")).hasValue(5.5);
        assertThat(Dimensions.number("R10")).hasValue(10);
        assertThat(Dimensions.number("64,5")).hasValue(64.5);
        assertThat(Dimensions.number("see note 3")).isEmpty();
    }
}
