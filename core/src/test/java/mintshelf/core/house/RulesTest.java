package mintshelf.core.house;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import mintshelf.core.access.Right;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.change.PaperType;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.Aspect;
import mintshelf.core.document.Stage;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.FactForm;
import mintshelf.core.fact.FactLookup;
import mintshelf.core.fact.FactReader;
import mintshelf.core.fact.FactType;
import mintshelf.core.fact.FactUse;
import mintshelf.core.fact.RequiredAt;
import mintshelf.core.house.KindRule.OnSheet;
import mintshelf.core.house.RuleDifference.What;
import mintshelf.core.revision.RevisionSeries;
import mintshelf.core.revision.ShippedSeries;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Gates;
import mintshelf.core.route.Move;
import mintshelf.core.route.Route;
import mintshelf.core.signoff.Policy;
import mintshelf.core.signoff.SignOffLine;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class RulesTest {
    static final Stage PREPARATION = new Stage(1, "preparation", "In preparation", StageClass.PREPARING, 1);
    static final Stage RELEASED = new Stage(1, "released", "Released", StageClass.RELEASED, 2);
    private static final Route STRAIGHT = new Route(
            1,
            "straight",
            "Straight",
            List.of(PREPARATION, RELEASED),
            List.of(new Move(
                    "release",
                    "Release",
                    "preparation",
                    "released",
                    Right.CHANGE,
                    List.of(Gates.HELD_BY_NOBODY, Gates.FACTS_FILLED),
                    List.of(Effect.FIX_LABEL))));
    private static final Route NOTICE = new Route(2, "notice", "Notice", List.of(PREPARATION, RELEASED), List.of());
    private static final Route ORDERS = new Route(
            3,
            "orders",
            "Change order",
            STRAIGHT.stages(),
            List.of(new Move(
                    "go", "Go", "preparation", "released", Right.CHANGE, List.of(), List.of(Effect.RELEASE_LINES))));
    static final FactRule MATERIAL = new FactRule("material", "Material", FactForm.of(FactType.TEXT), FactUse.USUAL);
    static final SignOffRule CHECK = new SignOffRule(
            "check",
            "Check",
            List.of(new SignOffLine(1, "checker", 1, "checked", "checked_by", "checked", 2)),
            Policy.FIRST_RETURN);
    static final House HOUSE = new House(
            Map.of("drawing", "drawing", "template", "template", "bought", "bought part"),
            Map.of("documents", "Documents"),
            Map.of("straight", STRAIGHT, "notice", NOTICE, "orders", ORDERS),
            Map.of("material", MATERIAL),
            Map.of("check", CHECK),
            Map.of("checker", "Checker"),
            Map.of("7", "Checking"),
            Map.of("3", "Marit Solvang"),
            Map.of("1", "TG40 Tide gauge"),
            Set.of("bought"));

    static KindRule kind(String revisions, String route, Optional<PaperType> paper, OnSheet... facts) {
        return new KindRule(
                "drawing",
                "drawing",
                Aspect.DRAWING,
                "sheet",
                "documents",
                revisions,
                true,
                route,
                paper,
                List.of(facts));
    }

    static List<String> codes(Rule rule) {
        return rule.ask(HOUSE).stream().map(Refusal::code).toList();
    }

    @Test
    void aKindSaysWhatItFixesInWords() {
        KindRule drawing = kind("asme", "straight", Optional.empty(), new OnSheet("material", RequiredAt.RELEASE));
        assertThat(drawing.ask(HOUSE)).isEmpty();
        assertThat(drawing.lines(HOUSE))
                .extracting(l -> l.subject() + ": " + l.says())
                .containsExactly(
                        "Name: drawing",
                        "Number: drawn from the series Documents",
                        "Revision: A, B, C … Y, AA … by ASME Y14.35; taken at the start of work",
                        "Route: Straight",
                        "Made at release: PDF for keeping, sealed; called {number}_{revision}",
                        "Material: required before review and release");
    }

    @Test
    void aKindNamesOnlyWhatIsThere() {
        assertThat(codes(new KindRule(
                        "x",
                        " ",
                        Aspect.PAPER,
                        "folded",
                        "none",
                        "runes",
                        false,
                        "nowhere",
                        Optional.empty(),
                        List.of(new OnSheet("mass", RequiredAt.NEVER)))))
                .containsExactly("text.missing", "kind.series", "revision.series", "kind.route", "kind.fact");
        assertThat(codes(kind(
                        "asme",
                        "straight",
                        Optional.empty(),
                        new OnSheet("material", RequiredAt.NEVER),
                        new OnSheet("material", RequiredAt.FILING))))
                .containsExactly("kind.fact");
    }

    @Test
    void aPaperGoesARouteThatDoesItsWorkAndNothingElseGoesThatOne() {
        assertThat(codes(kind("numbers", "orders", Optional.of(PaperType.ORDER))))
                .isEmpty();
        assertThat(codes(kind("numbers", "straight", Optional.of(PaperType.ORDER))))
                .containsExactly("kind.route");
        assertThat(codes(kind("numbers", "orders", Optional.empty()))).containsExactly("kind.route");
        assertThat(codes(kind("numbers", "notice", Optional.of(PaperType.NOTICE))))
                .isEmpty();
        assertThat(codes(kind("numbers", "notice", Optional.empty())))
                .as("nobody could move along it")
                .containsExactly("kind.route");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "TG40-{n:4}; ''",
                "{material}-{yyyy}-{n:3}{check}; ''",
                "TG40; series.counter",
                "{n:4}{n:4}; series.counter",
                "TG{40-{n:4}; series.form",
                "{surface}-{n:4}; series.no_fact",
                "A/{n:4}; number.form",
                "a-very-long-text-that-nobody-would-ever-want-to-write-on-a-sheet-{n:4}; number.long",
                "this-text-fits-with-a-short-number-but-not-with-a-long-one-{n:1}; number.long"
            })
    void aSeriesIsKeptOnlyWhereItsNumbersAreNumbers(String pattern, String code) {
        SeriesRule series = new SeriesRule("s", "Series", pattern, SeriesRule.Counts.SHELF);
        assertThat(codes(series)).isEqualTo(code.isEmpty() ? List.of() : List.of(code));
    }

    @Test
    void aFactThatHasValuesKeepsItsType() {
        assertThat(codes(new FactRule(
                        "material", "Stuff", FactForm.of(FactType.TEXT).like("[A-Z0-9-]+"), FactUse.USUAL)))
                .isEmpty();
        assertThat(codes(new FactRule(
                        "material", "Material", FactForm.of(FactType.NUMBER).in("kg"), FactUse.USUAL)))
                .containsExactly("fact.type");
    }

    @Test
    void aFactsValuesAreSaid() {
        assertThat(new FactRule("f", "F", FactForm.oneOf(List.of("A0", "A1", "A2")), FactUse.USUAL).values())
                .isEqualTo("A0, A1 or A2");
        assertThat(new FactRule("f", "F", FactForm.of(FactType.NUMBER).in("kg"), FactUse.USUAL).values())
                .isEqualTo("a number in kg");
        assertThat(new FactRule("f", "F", FactForm.of(FactType.TEXT).like("\\d+:\\d+"), FactUse.USUAL).values())
                .isEqualTo("a text of the form \\d+:\\d+");
    }

    @ParameterizedTest
    @CsvSource({
        "Mass, NUMBER, kg, '', '', fact.code",
        "n, NUMBER, '', '', '', fact.code",
        "mass, TEXT, kg, '', '', fact.unit",
        "mass, CHOICE, '', '', '', fact.choices",
        "mass, TEXT, '', '', 'a|b', fact.choices",
        "mass, CHOICE, '', '', 'a|A', fact.choices",
        "mass, TEXT, '', '(', '', rule.form",
        "mass, TEXT, '', '(?=ahead)', '', rule.form"
    })
    void aFactThatCannotBeFilledIsRefused(
            String name, FactType type, String unit, String form, String choices, String code) {
        List<String> values = choices.isEmpty() ? List.of() : List.of(choices.split("\\|"));
        assertThat(codes(new FactRule(name, "Label", new FactForm(type, unit, form, values, "", ""), FactUse.USUAL)))
                .containsExactly(code);
    }

    /** With a form that backtracking readers try in exponentially many ways. */
    @Test
    void aFormIsAskedInLinearTimeWhateverItSays() {
        FactRule hostile =
                new FactRule("mass", "Mass", FactForm.of(FactType.TEXT).like("(a+)+b"), FactUse.USUAL);
        assertThat(codes(hostile)).isEmpty();
        var read = FactReader.read(
                new FactDefinition(1, "mass", "Mass", FactForm.of(FactType.TEXT).like("(a+)+b"), FactUse.USUAL),
                "a".repeat(499),
                FactLookup.AS_SAID);
        assertThat(read.refusal()).isPresent();
    }

    @Test
    void filingRulesThatNeverFitAreRefused() {
        FilingOrder.Sentence template = new FilingOrder.Sentence(List.of(), "template", "template");
        FilingOrder.Sentence drawings = new FilingOrder.Sentence(List.of(ContentKind.DXF), "", "drawing");
        FilingOrder.Sentence all = new FilingOrder.Sentence(List.of(), "", "drawing");
        assertThat(codes(new FilingOrder(List.of(template, drawings, all)))).isEmpty();
        assertThat(codes(new FilingOrder(List.of(all, drawings)))).containsExactly("filing.never");
        assertThat(codes(new FilingOrder(List.of(new FilingOrder.Sentence(List.of(), "screw", "bought")))))
                .containsExactly("filing.part");
        assertThat(HOUSE.filed()).containsOnlyKeys("drawing", "template");
        assertThat(codes(new FilingOrder(List.of(drawings, drawings)))).containsExactly("filing.twice");
        assertThat(codes(new FilingOrder(List.of(new FilingOrder.Sentence(List.of(), "(", "nothing")))))
                .containsExactly("filing.kind", "rule.form");
        assertThat(new FilingOrder(List.of(template, drawings)).lines(HOUSE))
                .extracting(RuleLine::says)
                .containsExactly(
                        "A file with template in its name is filed as template.",
                        "A DXF drawing is filed as drawing.",
                        "A changed copy of a document keeps the kind of what it was copied from.");
    }

    @Test
    void aRouteSaysItsMovesAndAsksOnlyByRulesThatAreThere() {
        assertThat(new RouteRule(STRAIGHT).lines(HOUSE))
                .extracting(RuleLine::says)
                .contains(
                        "Whoever may change documents may take it from In preparation to Released, when nobody holds it"
                                + " and the facts that its kind requires are filled; then fix the revision's label.");
        Move signed = new Move(
                "release",
                "Release",
                "preparation",
                "released",
                Right.SIGN,
                List.of(Gates.SIGNED_OFF),
                List.of(),
                "gone");
        Route route = new Route(4, "r", "R", STRAIGHT.stages(), List.of(signed));
        assertThat(codes(new RouteRule(route))).contains("route.sign_off");
        assertThat(new RouteRule(route).lines(HOUSE))
                .last()
                .extracting(RuleLine::says)
                .asString()
                .startsWith("The last sign-off takes it from In preparation to Released")
                .endsWith("It asks by the sign-off rule “gone”.");
    }

    @Test
    void editionsAreComparedLineByLineAndInTheirOrder() {
        List<RuleLine> was = List.of(line("a", "1"), line("b", "2"), line("c", "3"), line("d", "4"));
        List<RuleLine> now = List.of(line("d", "4"), line("a", "1"), line("b", "two"), line("e", "5"));
        assertThat(RuleDifference.between(was, now))
                .containsExactly(
                        new RuleDifference(What.MOVED, "d", "4", "4"),
                        new RuleDifference(What.CHANGED, "b", "2", "two"),
                        new RuleDifference(What.ADDED, "e", "", "5"),
                        new RuleDifference(What.GONE, "c", "3", ""));
        assertThat(RuleDifference.between(was, was)).isEmpty();
    }

    /** What is said of two editions is enough to make one of the other, but for the places of what was moved. */
    @Test
    void comparingIsCompleteOverRandomEditions() {
        Random random = new Random(15);
        for (int round = 0; round < 500; round++) {
            List<RuleLine> was = some(random);
            List<RuleLine> now = some(random);
            List<RuleDifference> all = RuleDifference.between(was, now);
            List<RuleLine> made = new ArrayList<>(was);
            for (RuleDifference d : all) {
                if (d.what() != What.ADDED) made.remove(line(d.subject(), d.was()));
                if (d.what() != What.GONE) made.add(line(d.subject(), d.now()));
            }
            assertThat(made).containsExactlyInAnyOrderElementsOf(now);
            assertThat(RuleDifference.between(now, was).stream().filter(d -> d.what() == What.ADDED))
                    .as("what is gone one way is added the other")
                    .hasSize((int)
                            all.stream().filter(d -> d.what() == What.GONE).count());
        }
    }

    private static List<RuleLine> some(Random random) {
        List<RuleLine> lines = new ArrayList<>();
        for (int key = 0; key < 8; key++) {
            if (random.nextInt(3) > 0) lines.add(line("k" + key, "" + random.nextInt(2)));
        }
        if (random.nextBoolean()) Collections.shuffle(lines, random);
        return lines;
    }

    private static RuleLine line(String key, String says) {
        return new RuleLine(key, key, says);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"asme", "asme dash", "letters", "numbers", "padded 2 0", "two-part", "two-phase", "list P|A|B"})
    void theSevenSeriesAndAListAreRead(String text) {
        RevisionSeries series = ((Outcome.Granted<RevisionSeries>) ShippedSeries.read(text)).value();
        assertThat(series.next(series.first()).isGranted()).isTrue();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "runes",
                "padded",
                "padded x y",
                "padded 99 1",
                "padded 2 -3",
                "list ",
                "list A|A",
                "list A||B",
                "list a-label-that-fits-no-cell|B"
            })
    void whatIsNoSeriesIsRefusedInWords(String text) {
        assertThat(ShippedSeries.read(text).refusal().orElseThrow().code()).isEqualTo("revision.series");
    }

    @ParameterizedTest
    @CsvSource({"Gland plates, gland-plates", "  Ø 6.6 !, 6-6", "Übersicht 2026, bersicht-2026", "???, rule"})
    void aCodeIsMadeOfAName(String name, String code) {
        assertThat(Texts.code(name, "rule", c -> false)).isEqualTo(code);
        assertThat(Texts.code(name, "rule", code::equals)).isEqualTo(code + "-2");
        assertThat(Texts.code(name.repeat(20), "rule", c -> !c.endsWith("-999")))
                .hasSizeLessThanOrEqualTo(40)
                .matches("[a-z0-9-]+");
    }

    @Test
    void aListNeedsItsLabelsOnce() {
        assertThatIllegalArgumentException().isThrownBy(() -> ShippedSeries.of("list A|A"));
    }
}
