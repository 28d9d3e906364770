package mintshelf.core.house;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Aspect;
import mintshelf.core.fact.FactForm;
import mintshelf.core.fact.FactSource;
import mintshelf.core.fact.FactType;
import mintshelf.core.fact.FactUse;
import mintshelf.core.fact.RequiredAt;
import mintshelf.core.house.KindRule.OnSheet;
import org.junit.jupiter.api.Test;

/** Facts that a house keeps, and those that it does not. */
class FactRulesTest {
    @Test
    void aRangeLeavesSomethingAndBelongsToNumbersAndDays() {
        FactForm mass = FactForm.of(FactType.NUMBER).in("kg");
        assertThat(RulesTest.codes(new FactRule("mass", "Mass", mass.within("0.5", "40"), FactUse.USUAL)))
                .isEmpty();
        assertThat(RulesTest.codes(new FactRule("mass", "Mass", mass.within("40", "0.5"), FactUse.USUAL)))
                .containsExactly("fact.range");
        assertThat(RulesTest.codes(new FactRule("mass", "Mass", mass.within("heavy", ""), FactUse.USUAL)))
                .containsExactly("fact.range");
        FactForm day = FactForm.of(FactType.DATE);
        assertThat(RulesTest.codes(new FactRule("due", "Due", day.within("2026-01-01", ""), FactUse.USUAL)))
                .isEmpty();
        assertThat(RulesTest.codes(new FactRule("due", "Due", day.within("2026-13-01", ""), FactUse.USUAL)))
                .containsExactly("fact.range");
        assertThat(RulesTest.codes(
                        new FactRule("word", "Word", FactForm.of(FactType.TEXT).within("a", "b"), FactUse.USUAL)))
                .containsExactly("fact.range");
        assertThat(mass.within("0.5", "40").says()).isEqualTo("a number in kg, from 0.5 to 40");
        assertThat(day.within("2026-01-01", "").says()).isEqualTo("a day, 2026-01-01 or later");
    }

    @Test
    void aPresetIsAValueOfItsFact() {
        FactForm mass = FactForm.of(FactType.NUMBER).within("0.5", "40");
        assertThat(RulesTest.codes(new FactRule("mass", "Mass", mass, FactUse.USUAL.preset("1"))))
                .isEmpty();
        assertThat(RulesTest.codes(new FactRule("mass", "Mass", mass, FactUse.USUAL.preset("41"))))
                .containsExactly("fact.preset");
        FactForm person = FactForm.of(FactType.PERSON);
        assertThat(RulesTest.codes(new FactRule("owner", "Owner", person, FactUse.USUAL.preset("me"))))
                .isEmpty();
        assertThat(RulesTest.codes(new FactRule("owner", "Owner", person, FactUse.USUAL.preset("priya"))))
                .containsExactly("fact.preset");
        assertThat(RulesTest.codes(new FactRule("on", "On", FactForm.of(FactType.DATE), FactUse.USUAL.preset("today"))))
                .isEmpty();
        assertThat(RulesTest.codes(
                        new FactRule("on", "On", FactForm.of(FactType.DATE), FactUse.USUAL.preset("tomorrow"))))
                .containsExactly("fact.preset");
    }

    @Test
    void whatIsPutTogetherEnds() {
        FactForm text = FactForm.of(FactType.TEXT);
        FactRule computed =
                new FactRule("call", "Call-out", text, FactUse.USUAL.from(FactSource.COMPUTED, "{material} bright"));
        assertThat(RulesTest.codes(computed)).isEmpty();
        assertThat(RulesTest.codes(
                        new FactRule("call", "C", text, FactUse.USUAL.from(FactSource.COMPUTED, "{call} again"))))
                .containsExactly("fact.formula");
        assertThat(RulesTest.codes(
                        new FactRule("call", "C", text, FactUse.USUAL.from(FactSource.COMPUTED, "{nothing}"))))
                .containsExactly("fact.formula");
        assertThat(RulesTest.codes(new FactRule("call", "C", text, FactUse.USUAL.from(FactSource.TYPED, "{material}"))))
                .containsExactly("fact.formula");
        assertThat(RulesTest.codes(new FactRule(
                        "call",
                        "C",
                        FactForm.of(FactType.NUMBER),
                        FactUse.USUAL.from(FactSource.COMPUTED, "{material}"))))
                .containsExactly("fact.formula");
        // What another is put together from cannot be put together itself, whichever is kept first.
        House with = new House(
                RulesTest.HOUSE.kinds(),
                RulesTest.HOUSE.series(),
                RulesTest.HOUSE.routes(),
                Map.of("material", RulesTest.MATERIAL, "call", computed),
                RulesTest.HOUSE.signOffs(),
                RulesTest.HOUSE.roles(),
                RulesTest.HOUSE.groups(),
                RulesTest.HOUSE.people(),
                RulesTest.HOUSE.shelves(),
                RulesTest.HOUSE.parts());
        FactRule turned = new FactRule("material", "Material", text, FactUse.USUAL.from(FactSource.COMPUTED, "{call}"));
        assertThat(turned.ask(with)).extracting(Refusal::code).contains("fact.formula");
    }

    @Test
    void whatCanComeFromNowhereIsNotRequired() {
        House read = new House(
                RulesTest.HOUSE.kinds(),
                RulesTest.HOUSE.series(),
                RulesTest.HOUSE.routes(),
                Map.of(
                        "material",
                        new FactRule(
                                "material",
                                "Material",
                                FactForm.of(FactType.TEXT),
                                FactUse.USUAL.from(FactSource.SHEET, ""))),
                RulesTest.HOUSE.signOffs(),
                RulesTest.HOUSE.roles(),
                RulesTest.HOUSE.groups(),
                RulesTest.HOUSE.people(),
                RulesTest.HOUSE.shelves(),
                RulesTest.HOUSE.parts());
        for (RequiredAt required : RequiredAt.values()) {
            KindRule drawing = RulesTest.kind("asme", "straight", Optional.empty(), new OnSheet("material", required));
            assertThat(drawing.ask(read)).isEmpty();
            KindRule model = new KindRule(
                    "model",
                    "model",
                    Aspect.MODEL,
                    "part",
                    "documents",
                    "asme",
                    true,
                    "straight",
                    Optional.empty(),
                    List.of(new OnSheet("material", required)));
            assertThat(model.ask(read)).hasSize(required == RequiredAt.NEVER ? 0 : 1);
        }
    }
}
