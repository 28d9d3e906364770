package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.use.hold.BringFor;
import mintshelf.app.use.hold.BringFor.Row;
import mintshelf.app.use.hold.CheckOut;
import mintshelf.app.use.relocate.Rename;
import mintshelf.core.hold.AlongRules.Fate;
import org.junit.jupiter.api.Test;

/** A hit is put where a parent that somebody holds looks for it. */
class BringForTest {
    private final Server server = Server.shared();
    private final BringFor bring = server.bean(BringFor.class);
    private final CheckOut checkOut = server.bean(CheckOut.class);
    private final Actor tomasz = server.actor("tomasz");
    private final long shelf = server.shelf();
    private final String mark = Server.key().substring(0, 8);

    private long model(String name, Object... uses) {
        return server.file("tomasz", shelf, "part-model", name, StructureTest.assembly(name, uses), false);
    }

    private Row row(BringFor.Plan plan, long item) {
        return plan.rows().stream()
                .filter(r -> r.seen().spine().id() == item)
                .findFirst()
                .orElseThrow();
    }

    private void hold(long item) {
        checkOut.take(tomasz, List.of(item), Server.key(), "", "");
    }

    @Test
    void theLastThatWasCheckedOutIsTheParentAndEachRowSaysWhereItLies() {
        long part = model("part" + mark + ".stp");
        long sub = model("sub" + mark + ".stp", "part" + mark + ".stp", 2);
        long first = model("first" + mark + ".stp");
        long last = model("last" + mark + ".stp");
        hold(first);
        hold(last);
        BringFor.Plan plan = bring.plan(tomasz, List.of(sub), Optional.empty());
        assertThat(plan.parent().orElseThrow().spine().id()).isEqualTo(last);
        assertThat(plan.held()).extracting(s -> s.spine().id()).startsWith(last, first);
        assertThat(plan.rows()).extracting(r -> r.seen().spine().id()).containsExactly(sub, part);
        assertThat(row(plan, sub).from()).isEqualTo("sub" + mark + ".stp");
        assertThat(row(plan, sub).verdict().fates()).containsExactly(Fate.COPY, Fate.HOLD, Fate.STAY);
        assertThat(row(plan, part).looks()).isEmpty();
        String to = bring.bring(tomasz, last, Map.of(sub, Fate.COPY, part, Fate.COPY), Server.key(), "");
        assertThat(server.document(sub).holder()).isEmpty();
        String page = Web.as(server, "tomasz").get(to).body();
        assertThat(page)
                .contains("2 copies for " + server.document(last).number())
                .contains("/desk?bring=")
                .doesNotContain("You hold 0");
    }

    @Test
    void whatIsCheckedOutWithItIsHeldForThatParent() {
        long part = model("held" + mark + ".stp");
        long other = model("copied" + mark + ".stp");
        long parent = model("above" + mark + ".stp");
        hold(parent);
        String key = Server.key();
        Map<Long, Fate> chosen = Map.of(part, Fate.HOLD, other, Fate.COPY);
        String to = bring.bring(tomasz, parent, chosen, key, "BENCH-3");
        assertThat(bring.bring(tomasz, parent, chosen, key, "BENCH-3")).isEqualTo(to);
        assertThat(server.document(part).holder().orElseThrow().person()).isEqualTo(tomasz.person());
        assertThat(server.document(part).holder().orElseThrow().purpose())
                .isEqualTo("for " + server.document(parent).number());
        assertThat(Web.as(server, "tomasz").get(to).body()).contains("You hold 1 document, 1 comes as a copy");
        // What is mine already lies on my desk.
        Row again = row(bring.plan(tomasz, List.of(part), Optional.of(parent)), part);
        assertThat(again.verdict().fates()).containsExactly(Fate.STAY);
        assertThat(again.verdict().why().orElseThrow().reason()).contains("You hold it");
    }

    @Test
    void whatSomebodyElseHoldsComesAsACopyAlone() {
        long part = model("theirs" + mark + ".stp");
        checkOut.take(server.actor("priya"), List.of(part), Server.key(), "", "");
        long parent = model("mine" + mark + ".stp");
        hold(parent);
        Row row = row(bring.plan(tomasz, List.of(part), Optional.of(parent)), part);
        assertThat(row.verdict().fates()).containsExactly(Fate.COPY, Fate.STAY);
        assertThatThrownBy(() -> bring.bring(tomasz, parent, Map.of(part, Fate.HOLD), Server.key(), ""))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("held");
        assertThatThrownBy(() -> bring.bring(tomasz, parent, Map.of(part, Fate.STAY), Server.key(), ""))
                .isInstanceOf(Refused.class);
    }

    @Test
    void anAssemblyDoesNotComeForWhatStandsInIt() {
        long part = model("inner" + mark + ".stp");
        long above = model("outer" + mark + ".stp", "inner" + mark + ".stp", 1);
        hold(part);
        Row row = row(bring.plan(tomasz, List.of(above), Optional.of(part)), above);
        assertThat(row.verdict().fates()).containsExactly(Fate.STAY);
        assertThat(row.verdict().why().orElseThrow().code()).isEqualTo("structure.ring");
    }

    @Test
    void aParentThatSaysAnOldNameIsNamed() {
        long part = model("old" + mark + ".stp");
        long parent = model("says" + mark + ".stp", "old" + mark + ".stp", 1);
        server.bean(Rename.class)
                .rename(
                        tomasz,
                        part,
                        Server.key(),
                        server.document(part).head().number(),
                        server.document(part).number(),
                        "new" + mark + ".stp",
                        "");
        hold(parent);
        Row row = row(bring.plan(tomasz, List.of(part), Optional.of(parent)), part);
        assertThat(row.looks()).contains("old" + mark + ".stp");
        assertThat(row.from()).isEqualTo("new" + mark + ".stp");
        assertThat(Web.as(server, "tomasz")
                        .get("/bring-for?items=" + part + "&for=" + parent)
                        .body())
                .contains("where its file says old" + mark + ".stp still");
    }

    @Test
    void whoHoldsNothingIsToldAndNobodyBringsForWhatOthersHold() {
        long part = model("alone" + mark + ".stp");
        long parent = model("top" + mark + ".stp");
        hold(parent);
        assertThat(Web.as(server, "rafael").get("/bring-for?items=" + part).statusCode())
                .isEqualTo(404);
        assertThatThrownBy(() -> bring.plan(server.actor("ines"), List.of(part), Optional.of(parent)))
                .isInstanceOf(NotThere.class);
        assertThat(Web.as(server, "hedda").get("/bring-for?items=" + part).body())
                .contains("You hold nothing that could look for it");
    }
}
