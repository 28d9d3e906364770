package mintshelf.core.house;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.drawing.check.CheckRules;
import mintshelf.core.drawing.titleblock.RevisionBlock;
import mintshelf.core.drawing.titleblock.SheetMap;
import org.junit.jupiter.api.Test;

/** Whatever two editions of a sheet map, or of checks, say otherwise is a line. */
class SheetLinesTest {
    private static final SheetMap READY = SheetMap.readyMade();
    private static final RevisionBlock ROWS = RevisionBlock.readyMade();

    private static List<RuleDifference> since(SheetMap now) {
        return RuleDifference.between(SheetLines.of(READY, true), SheetLines.of(now, true));
    }

    private static SheetMap with(List<SheetMap.Field> fields, Optional<RevisionBlock> rows) {
        return new SheetMap(READY.name(), READY.block(), READY.format(), fields, rows);
    }

    @Test
    void theSameSaysTheSame() {
        assertThat(since(READY)).isEmpty();
        assertThat(SheetLines.of(READY, true)).extracting(RuleLine::key).doesNotHaveDuplicates();
    }

    @Test
    void eachPartOfAMapIsALine() {
        assertThat(since(new SheetMap(READY.name(), "FRAME", READY.format(), READY.fields(), READY.revisions())))
                .singleElement()
                .satisfies(d -> assertThat(d.now()).isEqualTo("FRAME"));
        assertThat(since(new SheetMap(READY.name(), READY.block(), "A1", READY.fields(), READY.revisions())))
                .hasSize(1);
        assertThat(RuleDifference.between(SheetLines.of(READY, true), SheetLines.of(READY, false)))
                .singleElement()
                .satisfies(d -> assertThat(d.was()).isEqualTo("yes"));
        SheetMap.Field first = READY.fields().get(0);
        SheetMap.Way other = first.way() == SheetMap.Way.READ ? SheetMap.Way.WRITTEN : SheetMap.Way.READ;
        List<SheetMap.Field> turned = new ArrayList<>(READY.fields());
        turned.set(0, new SheetMap.Field(first.tag(), first.fact(), other, first.spot()));
        assertThat(since(with(turned, READY.revisions())))
                .singleElement()
                .satisfies(d -> assertThat(d.what()).isEqualTo(RuleDifference.What.CHANGED));
        assertThat(since(with(READY.fields().subList(1, READY.fields().size()), READY.revisions())))
                .singleElement()
                .satisfies(d -> assertThat(d.what()).isEqualTo(RuleDifference.What.GONE));
    }

    @Test
    void eachPartOfARevisionBlockIsSaid() {
        List<RevisionBlock> others = List.of(
                rows("ROW", ROWS.most(), ROWS.upwards(), false, false, ROWS.rowHeight(), ROWS.lines()),
                rows(ROWS.block(), ROWS.most() + 1, ROWS.upwards(), false, false, ROWS.rowHeight(), ROWS.lines()),
                rows(ROWS.block(), ROWS.most(), !ROWS.upwards(), false, false, ROWS.rowHeight(), ROWS.lines()),
                rows(ROWS.block(), ROWS.most(), ROWS.upwards(), true, false, ROWS.rowHeight(), ROWS.lines()),
                rows(ROWS.block(), ROWS.most(), ROWS.upwards(), false, true, ROWS.rowHeight(), ROWS.lines()),
                rows(ROWS.block(), ROWS.most(), ROWS.upwards(), false, false, 7.25, ROWS.lines()),
                rows(ROWS.block(), ROWS.most(), ROWS.upwards(), false, false, ROWS.rowHeight(), 3),
                rows(ROWS.block(), ROWS.most(), ROWS.upwards(), false, false, ROWS.rowHeight(), ROWS.lines()));
        for (RevisionBlock a : others) {
            for (RevisionBlock b : others) {
                assertThat(RuleDifference.between(
                                        SheetLines.of(with(READY.fields(), Optional.of(a)), true),
                                        SheetLines.of(with(READY.fields(), Optional.of(b)), true))
                                .isEmpty())
                        .isEqualTo(a.equals(b));
            }
        }
        assertThat(since(with(READY.fields(), Optional.empty())))
                .anyMatch(d -> d.now().equals("the shelf leaves it alone"))
                .filteredOn(d -> d.what() == RuleDifference.What.GONE)
                .hasSize(ROWS.columns().size());
    }

    private static RevisionBlock rows(
            String block, int most, boolean upwards, boolean released, boolean drawn, double height, int lines) {
        return new RevisionBlock(
                block,
                ROWS.columns(),
                most,
                upwards,
                released,
                drawn,
                ROWS.fromRight(),
                ROWS.fromBottom(),
                height,
                ROWS.textHeight(),
                lines);
    }

    @Test
    void eachRuleOfChecksIsALine() {
        CheckRules hints = CheckRules.hints();
        for (CheckRules.Rule rule : CheckRules.Rule.values()) {
            Map<CheckRules.Rule, CheckRules.Severity> other = new EnumMap<>(hints.severities());
            if (other.get(rule) == CheckRules.Severity.BINDING) other.remove(rule);
            else other.put(rule, CheckRules.Severity.BINDING);
            assertThat(checks(new CheckRules(other, hints.demanded(), hints.leastText(), hints.layers()), "checker"))
                    .singleElement()
                    .satisfies(d -> assertThat(d.subject()).isEqualTo(rule.says()));
        }
        assertThat(checks(hints, "checker")).isEmpty();
        assertThat(checks(hints, "data manager"))
                .singleElement()
                .satisfies(d -> assertThat(d.now()).isEqualTo("a data manager"));
        assertThat(checks(new CheckRules(hints.severities(), List.of(), 3.5, Set.of("VISIBLE", "AXES")), "checker"))
                .extracting(RuleDifference::now)
                .containsExactly("nothing", "3.5 mm", "AXES, VISIBLE");
    }

    private static List<RuleDifference> checks(CheckRules now, String role) {
        return RuleDifference.between(SheetLines.of(CheckRules.hints(), "checker"), SheetLines.of(now, role));
    }
}
