package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.CheckSheets;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.run.Run;
import mintshelf.app.store.run.RunStore;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.use.check.KeepCheckRules;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.document.ReadFacts;
import mintshelf.app.use.filing.FileDocuments;
import mintshelf.app.use.filing.FilingSheets;
import mintshelf.app.use.house.FillFacts;
import mintshelf.app.use.house.Tried;
import mintshelf.app.use.house.TryIt;
import mintshelf.app.use.run.ActOverSet;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.drawing.check.CheckRules;
import mintshelf.core.fact.FactForm;
import mintshelf.core.fact.FactHands;
import mintshelf.core.fact.FactSource;
import mintshelf.core.fact.FactType;
import mintshelf.core.fact.FactUse;
import mintshelf.core.fact.RequiredAt;
import mintshelf.core.house.FactRule;
import mintshelf.core.house.KindRule;
import mintshelf.core.house.KindRule.OnSheet;
import mintshelf.core.house.Subject;
import org.junit.jupiter.api.Test;

/** Facts of a house's own: ranges, presets, what names somebody or something, what is put together, who may type them when. */
class FactsHouseTest extends InAHouse {
    private final KeepFacts facts = server.bean(KeepFacts.class);

    private String fact(String name, FactForm form, FactUse use) {
        String code = name + "_" + mark;
        keep(new FactRule(code, name + " " + mark, form, use), 0, "");
        return code;
    }

    /** A kind of drawing of its own with these facts; nothing signs it. */
    private String kind(OnSheet... sheet) {
        return kindLike("drawing", sheet);
    }

    private String kindLike(String base, OnSheet... sheet) {
        keep.copy(server.actor("ines"), Server.key(), Subject.KIND, base, "gauge sheet " + mark);
        String code = "gauge-sheet-" + mark;
        KindRule rule = (KindRule) latest(Subject.KIND, code).rule();
        keep(with(rule, rule.series(), rule.revisions(), "straight", List.of(sheet)), 1, "");
        return code;
    }

    private static OnSheet free(String fact) {
        return new OnSheet(fact, RequiredAt.NEVER);
    }

    private long file(String kind, String text) {
        return server.file("priya", server.shelf(), kind, "g.dxf", Review.sheet(text + " " + Server.key()), false);
    }

    private Map<String, String> values(long item) {
        return server.bean(FactStore.class)
                .facts(server.document(item).current().id());
    }

    private String type(String login, long item, Map<String, String> typed) {
        return code(() -> facts.keep(
                server.actor(login), item, Server.key(), server.document(item).title(), typed, Map.of()));
    }

    private void release(long item) {
        server.release("priya", item);
        assertThat(server.document(item).released()).isPresent();
    }

    @Test
    void presetsAreThereFromTheStartAndWhatFollowsFromThemToo() {
        String alloy = fact("alloy", FactForm.of(FactType.TEXT), FactUse.USUAL.preset("316L"));
        String owner = fact("owner", FactForm.of(FactType.PERSON), FactUse.USUAL.preset("me"));
        String since = fact("since", FactForm.of(FactType.DATE), FactUse.USUAL.preset("today"));
        String call = fact(
                "call",
                FactForm.of(FactType.TEXT),
                FactUse.USUAL.from(FactSource.COMPUTED, "{" + alloy + "} by {" + owner + "}"));
        String kind = kind(free(alloy), free(owner), free(since), free(call));
        long item = file(kind, "preset");
        assertThat(values(item))
                .containsEntry(alloy, "316L")
                .containsEntry(owner, "priya")
                .containsEntry(call, "316L by priya")
                .containsKey(since);
        assertThat(type("priya", item, Map.of(alloy, "2205"))).isEmpty();
        assertThat(values(item)).containsEntry(call, "2205 by priya");
        assertThat(type("priya", item, Map.of(alloy, ""))).isEmpty();
        assertThat(values(item)).doesNotContainKey(alloy).doesNotContainKey(call);
        assertThat(type("priya", item, Map.of(call, "mine"))).isEqualTo("fact.source");
        // Its page says a name where a login is kept, and that nobody types what is put together.
        List<ReadFacts.Line> lines = server.bean(ReadDocument.class)
                .view(server.actor("priya"), item)
                .facts();
        assertThat(lines).extracting(ReadFacts.Line::shown).contains("Priya Malhan");
        assertThat(lines.get(3).closed().orElseThrow().code()).isEqualTo("fact.source");
    }

    @Test
    void aFactNamesPeopleWhoAreHereAndDocumentsThatOneMaySee() {
        String owner = fact("owner", FactForm.of(FactType.PERSON), FactUse.USUAL);
        String fits = fact("fits", FactForm.of(FactType.DOCUMENT), FactUse.USUAL);
        String mass = fact("mass", FactForm.of(FactType.NUMBER).in("kg").within("0.5", "40"), FactUse.USUAL);
        String kind = kind(free(owner), free(fits), free(mass));
        long item = file(kind, "names");
        long other = server.file("priya", server.shelf(), "o.txt", "other", false);
        String number = server.document(other).number();
        assertThat(type("priya", item, Map.of(owner, "Tomasz Okrent", fits, number.toLowerCase(Locale.ROOT))))
                .isEmpty();
        assertThat(values(item)).containsEntry(owner, "tomasz").containsEntry(fits, number);
        assertThat(type("priya", item, Map.of(owner, "Nobody At All"))).isEqualTo("fact.person");
        assertThat(type("priya", item, Map.of(fits, "X-" + mark))).isEqualTo("fact.document");
        assertThat(type("priya", item, Map.of(mass, "41"))).isEqualTo("fact.form");
        assertThat(values(item)).doesNotContainKey(mass);
        ReadFacts.Line line = server.bean(ReadDocument.class)
                .view(server.actor("priya"), item)
                .facts()
                .get(1);
        assertThat(line.item()).isEqualTo(other);
        // A reader who does not see the other one reads its number and is led nowhere.
        release(item);
        ReadFacts.Line read = server.bean(ReadDocument.class)
                .view(server.actor("rafael"), item)
                .facts()
                .get(1);
        assertThat(read.shown()).isEqualTo(number);
        assertThat(read.item()).isZero();
    }

    @Test
    void whatIsInForceChangesAsTheHouseSaysAndNeverWhatItsSheetSays() {
        FactHands keeper = new FactHands(Optional.of(Right.CHANGE), Optional.empty(), Optional.of(Right.KEEP_SHELF));
        String stock = fact("stock", FactForm.of(FactType.TEXT), FactUse.USUAL.by(keeper));
        String fixed = fact("fixed", FactForm.of(FactType.TEXT), FactUse.USUAL);
        String kind = kind(free(stock), free(fixed));
        long item = file(kind, "force");
        assertThat(type("priya", item, Map.of(stock, "S-1"))).isEmpty();
        release(item);
        assertThat(type("priya", item, Map.of(stock, "S-2"))).isEqualTo("fact.hands");
        assertThat(type("ines", item, Map.of(fixed, "x"))).isEqualTo("fact.closed");
        int version = server.document(item).head().number();
        assertThat(type("ines", item, Map.of(stock, "S-2"))).isEmpty();
        assertThat(values(item)).containsEntry(stock, "S-2");
        assertThat(server.document(item).head().number())
                .as("a typed change makes no version")
                .isEqualTo(version);
        // A title does not change by the way.
        assertThat(code(() -> facts.keep(
                        server.actor("ines"), item, Server.key(), "Another title", Map.of(stock, "S-3"), Map.of())))
                .isEqualTo("stage.closed");
        assertThat(values(item)).containsEntry(stock, "S-2");
    }

    @Test
    void whatBecameRequiredIsFilledWhereItIsEmptyAndNowhereElse() {
        String heat = fact("heat", FactForm.of(FactType.TEXT).like("H\\d{3}"), FactUse.USUAL);
        String kind = kind(free(heat));
        List<Long> items = new ArrayList<>();
        for (int i = 0; i < 3; i++) items.add(file(kind, "fill" + i));
        long said = file(kind, "said");
        type("priya", said, Map.of(heat, "H999"));
        long out = file(kind, "out");
        release(out);
        FillFacts fill = server.bean(FillFacts.class);
        var ines = server.actor("ines");
        assertThat(fill.lacking(ines, kind)).containsEntry(heat, 3);
        assertThat(fill.lacking(ines, kind, heat)).containsExactlyElementsOf(items);
        ActOverSet over = server.bean(ActOverSet.class);
        List<Long> all = new ArrayList<>(items);
        all.addAll(List.of(said, out));
        assertThat(over.plan(ines, Run.What.FILL, all, Wish.fill(heat, "")).going())
                .hasSize(3);
        assertThat(code(() ->
                        over.begin(ines, Run.What.FILL, all, Wish.fill(heat, "hot"), Optional.empty(), Server.key())))
                .isEqualTo("fact.form");
        assertThat(fill.lacking(ines, kind)).containsEntry(heat, 3);
        long run = over.begin(ines, Run.What.FILL, all, Wish.fill(heat, "H123"), Optional.empty(), Server.key());
        assertThat(server.bean(RunStore.class).rows(run, 0, 10))
                .extracting(Run.Row::became)
                .containsExactly("filled", "filled", "filled");
        items.forEach(i -> assertThat(values(i)).containsEntry(heat, "H123"));
        assertThat(values(said)).containsEntry(heat, "H999");
        assertThat(values(out)).doesNotContainKey(heat);
        assertThat(fill.lacking(ines, kind)).doesNotContainKey(heat);
        assertThat(code(() -> fill.plan(server.actor("priya"), items, Wish.fill(heat, ""))))
                .isEqualTo("access.missing");
    }

    @Test
    void whatTheSheetAloneSaysIsNotTypedNotEvenOnTheFilingSheet() {
        String format = fact("paper", FactForm.of(FactType.TEXT), FactUse.USUAL.from(FactSource.SHEET, ""));
        String kind = kind(new OnSheet(format, RequiredAt.RELEASE));
        FilingSheets filing = server.bean(FilingSheets.class);
        long sheet = filing.open(
                server.actor("priya"),
                server.shelf(),
                OptionalLong.empty(),
                List.of(server.bring("priya", "p.dxf", Review.sheet("paper " + Server.key()))));
        var row = filing.sheet(server.actor("priya"), sheet).lines().get(0).row();
        filing.keep(server.actor("priya"), sheet, List.of(row.withFacts(Map.of(format, "A0"))));
        assertThat(filing.sheet(server.actor("priya"), sheet)
                        .lines()
                        .get(0)
                        .row()
                        .facts())
                .doesNotContainKey(format);
        long item = file(kind, "sheet");
        assertThat(type("priya", item, Map.of(format, "A0"))).isEqualTo("fact.source");
        Document document = server.document(item);
        assertThat(values(item)).doesNotContainKey(format);
        assertThat(document.current().pending()).isTrue();
    }

    private static byte[] model(String alloy, double grams, String unit) {
        return ("ISO-10303-21;\nHEADER;\nFILE_DESCRIPTION((''),'2;1');\nFILE_NAME('m','" + Server.key()
                        + "',(''),(''),'','gauge works','');\nFILE_SCHEMA(('AUTOMOTIVE_DESIGN'));\nENDSEC;\nDATA;\n"
                        + "#10=PRODUCT('TG-1','Clamp','',());#11=PRODUCT_DEFINITION_FORMATION('','',#10);"
                        + "#12=PRODUCT_DEFINITION('design','',#11,#99);#20=(MASS_UNIT()NAMED_UNIT(*)" + unit + ");"
                        + "#40=PROPERTY_DEFINITION('Weight','',#12);#41=PROPERTY_DEFINITION_REPRESENTATION(#40,#42);"
                        + "#42=REPRESENTATION('',(#43),#99);#43=MEASURE_REPRESENTATION_ITEM('Weight',MASS_MEASURE("
                        + grams + "),#20);#50=PROPERTY_DEFINITION('Alloy','',#12);"
                        + "#51=PROPERTY_DEFINITION_REPRESENTATION(#50,#52);#52=REPRESENTATION('',(#53),#99);"
                        + "#53=DESCRIPTIVE_REPRESENTATION_ITEM('Alloy','" + alloy + "');\nENDSEC;\nEND-ISO-10303-21;\n")
                .getBytes(StandardCharsets.UTF_8);
    }

    private static final String GRAM = "SI_UNIT($,.GRAM.)";

    @Test
    void whatAModelSaysBecomesFactsAndChangesWithIt() {
        String weight = fact(
                "weight",
                FactForm.of(FactType.NUMBER).in("kg"),
                FactUse.USUAL.of("weight").from(FactSource.SHEET, ""));
        String alloy = fact("alloy", FactForm.of(FactType.TEXT), FactUse.USUAL.of("Alloy"));
        String kind = kindLike("part-model", free(weight), free(alloy));
        var priya = server.actor("priya");
        FilingSheets filing = server.bean(FilingSheets.class);
        String name = "clamp " + mark + ".stp";
        byte[] first = model("316L", 485, GRAM);
        assertThat(server.bean(TryIt.class)
                        .of(server.actor("ines"), name, first, priya.person(), folder())
                        .facts())
                .extracting(Tried.Fact::why)
                .as("an unfiled file of another kind")
                .doesNotContain("from the title block");
        long sheet =
                filing.open(priya, server.shelf(), OptionalLong.empty(), List.of(server.bring("priya", name, first)));
        var row = filing.sheet(priya, sheet).lines().get(0).row();
        assertThat(row.facts()).containsEntry(weight, "0.485").containsEntry(alloy, "316L");
        filing.keep(priya, sheet, List.of(row.withKind(server.kind(kind), "")));
        assertThat(server.bean(FileDocuments.class)
                        .file(priya, sheet, Server.key(), true)
                        .problems())
                .isEmpty();
        long item = filing.sheet(priya, sheet).lines().get(0).row().item().orElseThrow();
        assertThat(values(item)).containsEntry(weight, "0.485").containsEntry(alloy, "316L");
        assertThat(type("priya", item, Map.of(weight, "1"))).isEqualTo("fact.source");
        server.checkIn("priya", item, model("316L", 512, GRAM), true);
        assertThat(values(item)).containsEntry(weight, "0.512");
        assertThat(server.db()
                        .fetchOne("select says from record_entry where item = ? order by seq desc limit 1", item)
                        .get(0, String.class))
                .contains("from the model: weight " + mark + " “0.512”");
        assertThat(type("priya", item, Map.of(alloy, "2205"))).isEmpty();
        server.checkIn("priya", item, model("316L", 530, GRAM), true);
        assertThat(values(item))
                .as("what the file says as before leaves what was put right here alone")
                .containsEntry(weight, "0.53")
                .containsEntry(alloy, "2205");
        Web web = Web.as(server, "priya");
        assertThat(web.get("/documents/" + item).body()).contains("1 hint</a>");
        assertThat(web.get("/documents/" + item + "/versions/3/checks").body())
                .contains("The model says " + alloy.replace('_', ' ') + " “316L”, the record “2205”.")
                .doesNotContain("/sheet", "title-block");
        CheckSheets checks = server.bean(CheckSheets.class);
        assertThat(inTheWay(checks, item)).as("a hint keeps nothing").isEmpty();
        server.bean(KeepCheckRules.class)
                .keep(
                        server.actor("ines"),
                        Server.key(),
                        kind,
                        server.bean(KeepCheckRules.class)
                                .of(server.actor("ines"), kind)
                                .edition()
                                .edition(),
                        new CheckRules(
                                Map.of(CheckRules.Rule.MODEL_RECORD, CheckRules.Severity.BINDING),
                                List.of(),
                                2.5,
                                Set.of()),
                        "checker",
                        "");
        assertThat(inTheWay(checks, item))
                .singleElement()
                .satisfies(r -> assertThat(r.says()).contains("“316L”, the record “2205”"));
        server.checkIn("priya", item, model("2207", 9, "SI_UNIT($,.METRE.)"), false);
        assertThat(values(item))
                .as("no mass is measured in metres")
                .containsEntry(weight, "0.53")
                .containsEntry(alloy, "2207");
        assertThat(web.get("/documents/" + item).body()).contains("Every rule is kept");
        assertThat(web.get("/documents/" + item + "/versions/4/checks").body())
                .contains("What the model says of itself is what the record says.");
        release(item);
        assertThat(type("priya", item, Map.of(alloy, "316L"))).isNotEmpty();
    }

    private List<Refusal> inTheWay(CheckSheets checks, long item) {
        return checks.inTheWay(
                Objects.requireNonNull(
                        checks.due(List.of(server.document(item))).get(item)),
                true);
    }

    private long folder() {
        return server.bean(ShelfStore.class).root(server.shelf()).id();
    }

    @Test
    void aRuleThatCouldNeverBeKeptIsRefusedInWords() {
        assertThat(code(() -> fact(
                        "typed",
                        FactForm.of(FactType.TEXT),
                        FactUse.USUAL.of("Alloy").from(FactSource.TYPED, ""))))
                .isEqualTo("fact.property");
        assertThat(code(() -> fact("range", FactForm.of(FactType.NUMBER).within("5", "1"), FactUse.USUAL)))
                .isEqualTo("fact.range");
        assertThatThrownBy(
                        () -> fact("preset", FactForm.of(FactType.NUMBER).within("1", "5"), FactUse.USUAL.preset("9")))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("9 is more than 5");
        assertThatThrownBy(() -> latest(Subject.FACT, "preset_" + mark)).isInstanceOf(NotThere.class);
    }

    @Test
    void aFactIsMadeAndChangedThroughItsPageAndTypedThroughTheDocuments() {
        Web ines = Web.as(server, "ines");
        String code = "torque_" + mark;
        Map<String, String> made = new HashMap<>(Map.of(
                "actKey", Server.key(), "label", "Torque " + mark, "code", code, "type", "NUMBER", "unit", "Nm"));
        assertThat(ines.post("/house/facts", made).statusCode()).isEqualTo(302);
        Map<String, String> form = new HashMap<>(Map.of(
                "actKey", Server.key(),
                "edition", "1",
                "label", "Torque " + mark,
                "unit", "Nm",
                "least", "1,5",
                "most", "90",
                "source", "TYPED",
                "preset", "20",
                "preparing", "CHANGE",
                "deciding", "NOBODY"));
        form.put("released", "KEEP_SHELF");
        assertThat(ines.post("/house/facts/" + code, form).statusCode()).isEqualTo(302);
        FactRule kept = (FactRule) latest(Subject.FACT, code).rule();
        assertThat(kept.form().least()).isEqualTo("1.5");
        assertThat(kept.use().hands())
                .isEqualTo(new FactHands(Optional.of(Right.CHANGE), Optional.empty(), Optional.of(Right.KEEP_SHELF)));
        assertThat(ines.get("/house/facts/" + code + "?beside=1").body())
                .contains("a number in Nm, from 1.5 to 90")
                .contains("once released by those who may keep the shelf in order");

        long item = file(kind(free(code)), "torque");
        assertThat(values(item)).containsEntry(code, "20");
        Web priya = Web.as(server, "priya");
        assertThat(priya.get("/documents/" + item + "?edit=").body())
                .contains("name=\"fact." + code + "\"")
                .contains("Torque " + mark + ", Nm");
        Map<String, String> typed = new HashMap<>(Map.of(
                "actKey",
                Server.key(),
                "title",
                server.document(item).title(),
                "was." + code,
                "20",
                "fact." + code,
                "45 Nm"));
        assertThat(priya.post("/documents/" + item + "/facts", typed).statusCode())
                .isEqualTo(302);
        String page = priya.get("/documents/" + item).body();
        assertThat(page).contains("45 Nm");
        assertThat(page).as("the strip marks where it was typed").contains("class=\"typed\"", "“20” → “45”");
        release(item);
        assertThat(priya.get("/documents/" + item).body()).doesNotContain("?edit=");
        assertThat(ines.get("/documents/" + item + "?edit=").body())
                .as("who keeps the shelf types the fact, and no title")
                .contains("name=\"fact." + code + "\"")
                .doesNotContain("id=\"ftitle\"");
        assertThat(Web.as(server, "rafael").get("/documents/" + item).body()).doesNotContain("class=\"typed\"");
    }

    @Test
    void whileOneTypesPeopleAndDocumentsAreOffered() {
        long item = server.file("priya", server.shelf(), "offered" + mark + ".txt", "x", false);
        Web priya = Web.as(server, "priya");
        assertThat(priya.get("/look-up/people?q=okre").body()).contains("\"tomasz\"", "Tomasz Okrent");
        assertThat(priya.get("/look-up/people?q=%25").body()).isEqualTo("[]");
        assertThat(priya.get("/look-up/documents?q=offered" + mark).body())
                .contains(server.document(item).number());
        assertThat(Web.as(server, "rafael")
                        .get("/look-up/documents?q=offered" + mark)
                        .body())
                .as("a reader is offered nothing that is prepared")
                .isEqualTo("[]");
    }
}
