package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.core.access.Right;
import mintshelf.core.fact.FactForm;
import mintshelf.core.fact.FactHands;
import mintshelf.core.fact.FactType;
import mintshelf.core.fact.FactUse;
import mintshelf.core.fact.RequiredAt;
import mintshelf.core.house.FactRule;
import mintshelf.core.house.KindRule;
import mintshelf.core.house.KindRule.OnSheet;
import mintshelf.core.house.Subject;
import org.junit.jupiter.api.Test;

/** A fact that changes with a reason only once it is in force, as the house says of it. */
class FactReasonTest extends InAHouse {
    private final String price = "price_" + mark;
    private final KeepFacts facts = server.bean(KeepFacts.class);

    private long priced() {
        FactHands hands =
                new FactHands(Optional.of(Right.CHANGE), Optional.of(Right.CHANGE), Optional.of(Right.CHANGE), true);
        keep(
                new FactRule(
                        price, "Price " + mark, FactForm.of(FactType.NUMBER).in("EUR"), FactUse.USUAL.by(hands)),
                0,
                "");
        keep.copy(server.actor("ines"), Server.key(), Subject.KIND, "drawing", "reasoned " + mark);
        String code = "reasoned-" + mark;
        KindRule rule = (KindRule) latest(Subject.KIND, code).rule();
        keep(
                with(rule, rule.series(), rule.revisions(), "straight", List.of(new OnSheet(price, RequiredAt.NEVER))),
                1,
                "");
        return server.file("priya", server.shelf(), code, "p.dxf", Review.sheet("p " + Server.key()), false);
    }

    private String type(long item, String value, String why) {
        return code(() -> facts.keep(
                server.actor("priya"),
                item,
                Server.key(),
                server.document(item).title(),
                Map.of(price, value),
                Map.of(),
                why));
    }

    @Test
    void whatIsInForceChangesWithAReasonAndTheRecordSaysIt() {
        long item = priced();
        assertThat(type(item, "84", "")).as("on its way it changes freely").isEmpty();
        server.release("priya", item);
        assertThat(type(item, "79", " ")).isEqualTo("fact.reason");
        assertThat(type(item, "84", "")).as("nothing changes").isEmpty();
        Web web = Web.as(server, "priya");
        assertThat(web.get("/documents/" + item + "?edit=").body())
                .contains("Why it changes", "asked for Price " + mark);
        web.post(
                "/documents/" + item + "/facts",
                Map.of(
                        "actKey",
                        Server.key(),
                        "fact." + price,
                        "79",
                        "was." + price,
                        "84",
                        "why",
                        "the yard asks less"));
        assertThat(web.get("/documents/" + item + "/record").body()).contains("“84” → “79”", "the yard asks less");
        assertThat(web.get("/documents/" + item).body()).contains("79");
    }

    @Test
    void theHouseSaysItInWordsAndByAMark() {
        priced();
        Web house = Web.as(server, "ines");
        assertThat(house.get("/house/facts/" + price).body()).contains("name=\"withReason\"", "with a");
        assertThat(latest(Subject.FACT, price).rule())
                .satisfies(r -> assertThat(((FactRule) r).use().hands().says())
                        .endsWith("once released by those who may change documents, with a reason"));
    }
}
