package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.house.KeepRates;
import mintshelf.app.use.record.ReadRecord;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.search.Search;
import mintshelf.app.use.structure.KeepBaselines;
import mintshelf.app.use.structure.KeepBomLines;
import mintshelf.app.use.structure.KeepBomLines.Typed;
import mintshelf.app.use.structure.KeepVariants;
import mintshelf.app.use.structure.ReadBom;
import mintshelf.app.use.structure.ReadBom.Asked;
import mintshelf.app.use.structure.ReadBom.Read;
import mintshelf.core.bom.Effectivity;
import mintshelf.core.bom.RollUp;
import mintshelf.core.bom.Serial;
import mintshelf.core.bom.Variant;
import mintshelf.core.structure.StructureView;
import org.junit.jupiter.api.Test;

/** Variants, lines of some products only, values in the place of sums, other currencies: on the real database. */
class VariantsTest {
    private final Server server = Server.shared();
    private final ReadBom read = server.bean(ReadBom.class);
    private final KeepBomLines lines = server.bean(KeepBomLines.class);
    private final KeepVariants variants = server.bean(KeepVariants.class);
    private final long shelf = server.shelf();
    private final String mark = Server.key().substring(0, 6);
    private final Actor priya = server.actor("priya");
    private final long arm = file("arm", Map.of("mass", "2", "cost", "10"));
    private final long top = file("top", Map.of(), "arm" + mark + ".stp", 4);

    private long file(String name, Map<String, String> facts, Object... filesAndCounts) {
        long item = server.file(
                "priya",
                shelf,
                "part-model",
                name + mark + ".stp",
                number(name),
                StructureTest.assembly(name + mark, filesAndCounts),
                false);
        server.bean(KeepFacts.class).keep(priya, item, Server.key(), name, facts, Map.of());
        return item;
    }

    private String number(String name) {
        return "V" + mark + "-" + name;
    }

    private void keep(Variant... some) {
        variants.keep(priya, arm, Server.key(), List.of(some));
    }

    private Variant left() {
        return new Variant("left", number("L"), Map.of("mass", "2.5"));
    }

    private Variant right() {
        return new Variant("right", number("R"), Map.of());
    }

    private static String code(Runnable act) {
        try {
            act.run();
            return "";
        } catch (Refused e) {
            return e.refusal().code();
        }
    }

    private Typed typed(String number, String quantity, String variant, Effectivity.Typed when) {
        return new Typed(0, "", number, "", quantity, "pc", "", "", "", variant, when);
    }

    private void ofFile(String quantity, String variant, Effectivity.Typed when) {
        lines.say(priya, top, Server.key(), arm, typed("", quantity, variant, when));
    }

    private Read read(Asked which) {
        return read.of(priya, top, StructureView.LATEST, Optional.empty(), LocalDate.EPOCH, which)
                .orElseThrow();
    }

    private List<String> tree(Read of) {
        return of.bom().tree(false, 60, 100).rows().stream()
                .map(r -> r.find() + " "
                        + of.bom().part(r.line().part()).number().replace("V" + mark + "-", "") + " "
                        + r.line().quantity().toPlainString())
                .toList();
    }

    private static Asked serial(String serial) {
        return new Asked(Serial.read(serial).toOptional(), Optional.empty());
    }

    /** A file of two products beside each other, one with its mass. */
    private byte[] ofTwo(String grams) {
        return ("ISO-10303-21;\nHEADER;\nFILE_DESCRIPTION((''),'2;1');\nFILE_NAME('m','" + Server.key()
                        + "',(''),(''),'','gauge works','');\nFILE_SCHEMA(('AP242'));\nENDSEC;\nDATA;\n"
                        + "#10=PRODUCT('" + number("L") + "','left','',());#11=PRODUCT_DEFINITION_FORMATION('','',#10);"
                        + "#12=PRODUCT_DEFINITION('design','',#11,#99);#20=(MASS_UNIT()NAMED_UNIT(*)SI_UNIT($,.GRAM.));"
                        + "#40=PROPERTY_DEFINITION('mass','',#12);#41=PROPERTY_DEFINITION_REPRESENTATION(#40,#42);"
                        + "#42=REPRESENTATION('',(#43),#99);#43=MEASURE_REPRESENTATION_ITEM('mass',MASS_MEASURE("
                        + grams + "),#20);#60=PRODUCT('" + number("arm")
                        + "','right','',());#61=PRODUCT_DEFINITION_FORMATION('','',#60);"
                        + "#62=PRODUCT_DEFINITION('design','',#61,#99);\nENDSEC;\nEND-ISO-10303-21;\n")
                .getBytes(StandardCharsets.US_ASCII);
    }

    @Test
    void productsOfOneFileFillInTheTableAndNothingIsKeptBeforeSomebodyDoes() throws Exception {
        Web web = Web.as(server, "priya");
        String at = "/documents/" + arm + "/variants";
        assertThat(web.get(at).body()).contains("from=file");
        assertThat(web.get(at + "?from=file").body()).contains("the file has one product");
        server.checkOut("priya", arm);
        server.checkIn("priya", arm, ofTwo("410."), true);
        String page = web.get(at + "?from=file").body();
        assertThat(page)
                .contains("left: new; right: new", "value=\"" + number("L") + "\"", "value=\"0.41\"")
                .as("its own number is the document's, not a variant's")
                .doesNotContain("value=\"" + number("arm") + "\"");
        assertThat(variants.read(priya, arm).variants()).isEmpty();
        keep(
                new Variant("left", number("L"), Map.of("mass", "0.41", "cost", "12")),
                new Variant("right", "", Map.of()));
        server.checkIn("priya", arm, ofTwo("430."), false);
        assertThat(web.get(at + "?from=file").body())
                .contains("left: mass 0.41 → 0.43. Nothing is kept", "value=\"12\"")
                .doesNotContain("left: new");
        server.release("priya", arm);
        assertThat(web.get(at).body()).doesNotContain("from=file");
        assertThat(web.get(at + "?from=file").body()).doesNotContain("0.43");
        assertThat(Web.as(server, "rafael").get(at + "?from=file").body()).doesNotContain("0.43");
    }

    @Test
    void linesNameVariantsByTheirNamesAndPartNumbers() {
        keep(left(), right());
        ofFile("2", "LEFT", Effectivity.Typed.NOTHING);
        lines.write(priya, top, Server.key(), typed("v" + mark + "-r", "2", "", Effectivity.Typed.NOTHING));
        Read now = read(Asked.ANY);
        assertThat(tree(now)).containsExactly("1 L 2", "2 R 2");
        assertThat(now.mass().top().known()).isEqualByComparingTo("9");
        assertThat(now.bom().part(now.bom().lines(0).get(0).part()).title()).isEqualTo("arm, left");
        // The form of the line that was typed by a part number has the document's number and the variant.
        KeepBomLines.Form form = lines.form(priya, top, "2");
        assertThat(form.typed().number()).isEqualTo(number("arm"));
        assertThat(form.typed().variant()).isEqualTo("right");
        assertThat(form.variants()).hasSize(2);
        assertThat(code(() -> ofFile("2", "middle", Effectivity.Typed.NOTHING))).isEqualTo("variant.gone");
        // One that is gone later is said, and keeps the sum from being complete.
        keep(right());
        Read without = read(Asked.ANY);
        assertThat(without.stands()).anyMatch(s -> s.lacks().equals("no variant “left” here"));
        assertThat(without.mass().lacking())
                .extracting(RollUp.Lack::why)
                .containsExactly("it has no variant “left” here");
        assertThat(Web.as(server, "priya").get("/documents/" + top + "/bom").body())
                .contains("no variant “left” here");
    }

    @Test
    void aRevisionBeginsWithTheVariantsOfTheOneBeforeAndSaysWhatChanged() {
        keep(left(), right());
        server.release("priya", arm);
        assertThat(code(() -> keep(left()))).isEqualTo("bom.frozen");
        server.bean(StartRevisions.class).start(priya, List.of(arm), Server.key(), "more", "", false);
        assertThat(variants.read(priya, arm).variants()).hasSize(2);
        assertThat(variants.read(priya, arm).changes()).isEmpty();
        keep(new Variant("left", number("L"), Map.of("mass", "2.75")), new Variant("wide", "", Map.of()));
        assertThat(variants.read(priya, arm).changes())
                .containsExactly("left: mass 2.5 → 2.75", "wide: new", "right: gone");
        // Who reads what is released knows of A only.
        String body =
                Web.as(server, "rafael").get("/documents/" + arm + "/variants").body();
        assertThat(body).contains("right", "2.5").doesNotContain("wide", "2.75", "Keep the variants");
    }

    @Test
    void aPartNumberIsFoundByWhoSeesTheRevisionThatHasIt() {
        keep(left());
        assertThat(found("priya", number("L")))
                .containsExactly(number("arm") + ": " + number("L") + " is its variant “left”");
        assertThat(found("rafael", number("L"))).isEmpty();
        server.release("priya", arm);
        assertThat(found("rafael", number("L"))).hasSize(1);
        server.bean(StartRevisions.class).start(priya, List.of(arm), Server.key(), "more", "", false);
        keep(left(), right());
        assertThat(found("priya", number("R"))).hasSize(1);
        assertThat(found("rafael", number("R"))).isEmpty();
        // What the revision under way has no more is found by those who read what is in force.
        keep(right());
        assertThat(found("priya", number("L"))).isEmpty();
        assertThat(found("rafael", number("L"))).hasSize(1);
    }

    private List<String> found(String login, String number) {
        return server.bean(Search.class).find(server.actor(login), Search.Wish.first(number, 20)).hits().stream()
                .map(hit -> hit.seen().document().number() + ": " + hit.says())
                .toList();
    }

    @Test
    void aPartNumberIsOneThings() {
        keep(left());
        long other = file("other", Map.of());
        assertThat(code(() -> variants.keep(priya, other, Server.key(), List.of(left()))))
                .isEqualTo("variant.number_taken");
        assertThat(code(() -> keep(new Variant("odd", number("other"), Map.of()))))
                .isEqualTo("variant.number_taken");
        // The number that a variant of the document had stays the document's.
        keep(right());
        assertThat(code(() -> variants.keep(priya, other, Server.key(), List.of(left()))))
                .isEqualTo("variant.number_taken");
        keep(left(), new Variant("same", number("arm"), Map.of()));
        assertThat(variants.read(priya, arm).variants()).hasSize(2);
        assertThat(code(() -> keep(new Variant("odd", "", Map.of("mass", "-1")))))
                .isNotEmpty();
        assertThat(code(() -> keep(new Variant("odd", "", Map.of("comes", "found")))))
                .isNotEmpty();
        assertThat(variants.read(priya, arm).variants()).hasSize(2);
        assertThat(server.bean(ReadRecord.class)
                        .ofDocument(priya, arm, Integer.MAX_VALUE, 50)
                        .toString())
                .contains("variants: left: new");
    }

    @Test
    void theTableOfAPageIsKeptAsItWasTyped() {
        Web web = Web.as(server, "priya");
        Map<String, String> form = new LinkedHashMap<>(Map.of("actKey", Server.key()));
        form.put("name.0", "a, b");
        form.put("fact.0.mass", "3");
        form.put("name.1", "");
        form.put("name.2", "<i>c</i>");
        form.put("number.2", number("C"));
        assertThat(web.post("/documents/" + arm + "/variants", form).statusCode())
                .isEqualTo(302);
        assertThat(variants.read(priya, arm).variants())
                .containsExactly(
                        new Variant("a, b", "", Map.of("mass", "3")), new Variant("<i>c</i>", number("C"), Map.of()));
        String page = web.get("/documents/" + arm + "/variants").body();
        assertThat(page).contains("&lt;i&gt;c&lt;/i&gt;").doesNotContain("<i>c");
        assertThat(web.post(
                                "/documents/" + arm + "/variants",
                                Map.of("actKey", Server.key(), "name.0", "x", "fact.0.nonsense", "1"))
                        .statusCode())
                .isEqualTo(404);
    }

    @Test
    void whoAsksForASerialNumberGetsItsLines() {
        file("lamp", Map.of("mass", "1", "cost", "1"));
        ofFile("", "", new Effectivity.Typed("", "", "", "0149", ""));
        lines.write(
                priya,
                top,
                Server.key(),
                typed(number("lamp"), "1", "", new Effectivity.Typed("", "", "0150", "", "")));
        assertThat(tree(read(serial("149")))).containsExactly("1 arm 4");
        assertThat(tree(read(serial("0150")))).containsExactly("2 lamp 1");
        Read any = read(Asked.ANY);
        assertThat(tree(any)).hasSize(2);
        assertThat(any.mass().lacking()).hasSize(2);
        assertThat(any.mass().top().complete()).isFalse();
        assertThat(read(serial("150")).mass().top())
                .isEqualTo(any.mass().of(any.bom().lines(0).get(1).part()));
        Web web = Web.as(server, "priya");
        assertThat(web.get("/documents/" + top + "/bom").body()).contains("serial 0150 on", "serial up to 0149");
        String one = web.get("/documents/" + top + "/bom?serial=0150").body();
        assertThat(one).contains("1 line is of other products", "Change line 1", "serial=0150");
        assertThat(web.get("/documents/" + top + "/bom?serial=x-y").body()).contains("is no serial number");
        assertThat(web.get("/documents/" + top + "/bom.csv?serial=0150").body())
                .contains("serial 0150 on")
                .doesNotContain(number("arm"));
        assertThat(code(() -> ofFile("", "", new Effectivity.Typed("", "", "9", "8", ""))))
                .isEqualTo("bom.serials");
    }

    @Test
    void aLineOfOtherDaysIsLeftOutAndStaysToBeChanged() {
        ofFile("", "", new Effectivity.Typed("2990-01-01", "", "", "", ""));
        Read now = read(Asked.ANY);
        assertThat(tree(now)).isEmpty();
        assertThat(now.left())
                .singleElement()
                .satisfies(l -> assertThat(l.find()).isEqualTo("1"));
        assertThat(lines.form(priya, top, "1").typed().when().from()).isEqualTo("2990-01-01");
        // A baseline of today has nothing of it.
        assertThat(server.bean(KeepBaselines.class)
                        .plan(priya, KeepBaselines.Of.structure(top, StructureView.LATEST, LocalDate.EPOCH))
                        .lines())
                .hasSize(1);
        assertThat(read.of(priya, top, StructureView.ON_DATE, Optional.empty(), LocalDate.of(2990, 1, 1))
                        .orElseThrow()
                        .bom()
                        .lines(0))
                .hasSize(1);
        ofFile("", "", new Effectivity.Typed("", "", "", "", "L1 L2"));
        assertThat(tree(read(new Asked(Optional.empty(), Optional.of("L2"))))).hasSize(1);
        assertThat(tree(read(new Asked(Optional.empty(), Optional.of("L3"))))).isEmpty();
    }

    @Test
    void whatWasWeighedCountsUntilSomebodyTakesItBackOrTheNextRevisionBegins() {
        variants.say(priya, top, Server.key(), RollUp.Of.MASS, "9.1", "weighed");
        assertThat(read(Asked.ANY).mass().top()).isEqualTo(new RollUp.Value(new BigDecimal("9.1"), true));
        assertThat(Web.as(server, "priya").get("/documents/" + top + "/bom").body())
                .contains("as said: weighed (its lines come to 8 kg)");
        assertThat(code(() -> variants.say(priya, top, Server.key(), RollUp.Of.COST, "9", " ")))
                .isNotEmpty();
        assertThat(code(() -> variants.say(priya, top, Server.key(), RollUp.Of.COST, "NaN", "x")))
                .isEqualTo("bom.amount");
        for (long one : List.of(arm, top)) server.release("priya", one);
        assertThat(code(() -> variants.say(priya, top, Server.key(), RollUp.Of.MASS, "", "")))
                .isEqualTo("bom.frozen");
        server.bean(StartRevisions.class).start(priya, List.of(top), Server.key(), "more", "", false);
        assertThat(read(Asked.ANY).mass().top().known()).isEqualByComparingTo("8");
        variants.say(priya, top, Server.key(), RollUp.Of.MASS, "9.2", "weighed again");
        variants.say(priya, top, Server.key(), RollUp.Of.MASS, "", "");
        assertThat(read(Asked.ANY).mass().top().known()).isEqualByComparingTo("8");
    }

    @Test
    void costsInOtherCurrenciesNeedARateOfTheHouse() {
        Actor ines = server.actor("ines");
        KeepRates rates = server.bean(KeepRates.class);
        server.bean(KeepFacts.class)
                .keep(priya, arm, Server.key(), "arm", Map.of("cost", "100", "currency", "ZWX"), Map.of());
        assertThat(read(Asked.ANY).cost().lacking())
                .extracting(RollUp.Lack::why)
                .containsExactly("its cost is in ZWX, of which the house has no rate");
        rates.keep(ines, Server.key(), "zwx", "0.25");
        assertThat(read(Asked.ANY).cost().top().known()).isEqualByComparingTo("100");
        List<String> codes = new ArrayList<>();
        for (String odd : List.of("", "E", "1E3", "-1", "0", "NaN", "1e308"))
            codes.add(code(() -> rates.keep(ines, Server.key(), "ZWX", odd)));
        assertThat(codes).containsOnly("rate.number");
        assertThat(code(() -> rates.keep(ines, Server.key(), "EUR", "1"))).isEqualTo("rate.code");
        assertThat(code(() -> rates.keep(priya, Server.key(), "ZWX", "1"))).isEqualTo("access.missing");
        rates.drop(ines, Server.key(), "ZWX");
        assertThat(read(Asked.ANY).cost().top().complete()).isFalse();
    }

    @Test
    void whereItStandsInQuantityAndCost() {
        Web web = Web.as(server, "priya");
        assertThat(web.get("/documents/" + arm + "/where-used").body())
                .contains("1 pc weighs 2 kg and costs 10.00 EUR: what it comes to", "8 kg", "40.00 EUR");
        long bare = file("bare", Map.of());
        file("above", Map.of(), "bare" + mark + ".stp", 2);
        assertThat(web.get("/documents/" + bare + "/where-used").body()).doesNotContain("what it comes to");
    }
}
