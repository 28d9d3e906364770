package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.run.SetAct;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.run.Run;
import mintshelf.app.use.run.ActOverSet;
import mintshelf.app.use.search.Search;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Refusal;
import org.junit.jupiter.api.Test;

/** What was filed as one kind becomes another. */
class ChangeKindTest {
    private final Server server = Server.shared();
    private final ActOverSet over = server.bean(ActOverSet.class);
    private final HouseStore house = server.bean(HouseStore.class);
    private final Actor ines = server.actor("ines");
    private final Actor priya = server.actor("priya");
    private final long shelf = server.shelf();

    private Kind kind(String code) {
        return house.kind(code);
    }

    private Plan<SetAct.PlanLine> plan(Actor actor, String kind, Long... items) {
        return over.plan(
                actor,
                Run.What.CHANGE_KIND,
                List.of(items),
                Wish.into(kind(kind).id()));
    }

    private void change(Actor actor, String kind, Long... items) {
        over.begin(
                actor,
                Run.What.CHANGE_KIND,
                List.of(items),
                Wish.into(kind(kind).id()),
                Optional.empty(),
                Server.key());
    }

    private static List<String> codes(Plan<SetAct.PlanLine> plan) {
        return plan.rows().stream()
                .flatMap(r -> r.refusals().stream())
                .map(Refusal::code)
                .toList();
    }

    private long file(String kind, String name) {
        return server.file(
                "priya", shelf, kind, name, (name + Server.key()).getBytes(StandardCharsets.US_ASCII), false);
    }

    @Test
    void aReportBecomesASpecificationAndGoesItsRoute() {
        long item = file("report", "CK-" + shelf + "11 flow.txt");
        String number = server.document(item).number();
        assertThat(plan(priya, "specification", item).going().get(0).says())
                .first()
                .isEqualTo("from " + kind("report").name());
        change(priya, "specification", item);
        assertThat(server.document(item).place().kind())
                .isEqualTo(kind("specification").id());
        assertThat(server.document(item).number()).isEqualTo(number);
        assertThat(server.document(item).head().number()).isEqualTo(1);
        assertThat(house.edition(server.document(item)
                                .pending()
                                .orElseThrow()
                                .stage()
                                .edition())
                        .name())
                .isEqualTo(house.latest(kind("specification"), shelf).name());
        // It can be released as what it is now, and the way back is the same act.
        assertThat(plan(priya, "specification", item).going()).isEmpty();
        assertThat(codes(plan(priya, "specification", item))).isEmpty();
        change(priya, "report", item);
        assertThat(server.document(item).place().kind())
                .isEqualTo(kind("report").id());
        var found = server.bean(Search.class).find(priya, Search.Wish.first(number, 10));
        assertThat(found.total()).isEqualTo(1);
    }

    @Test
    void anotherAspectTakesTheNumberAlongWhereItIsFreeThere() {
        long drawing = file(Server.PLAIN, "CK-" + shelf + "21 plate.txt");
        String number = server.document(drawing).number();
        assertThat(kind("part-model").aspect()).isNotEqualTo(kind(Server.PLAIN).aspect());
        change(priya, "part-model", drawing);
        assertThat(server.document(drawing).number()).isEqualTo(number);
        long twin = server.file(
                "priya", shelf, Server.PLAIN, number + ".txt", Server.key().getBytes(StandardCharsets.US_ASCII), false);
        if (server.document(twin).number().equals(number)) {
            assertThat(codes(plan(priya, "part-model", twin))).containsExactly("number.used");
            assertThat(codes(plan(priya, Server.PLAIN, drawing))).containsExactly("number.used");
        }
    }

    @Test
    void whatIsHeldOrWasOutOrIsNotTheirsStays() {
        long held = server.file("priya", shelf, "ck held " + shelf + ".txt", "h" + shelf, true);
        long out = server.released(shelf, "ck out " + shelf + ".txt");
        assertThat(codes(plan(ines, "report", held))).containsExactly("hold.taken");
        assertThat(codes(plan(priya, "report", out))).containsExactly("kind.keeps");
        assertThat(codes(plan(server.actor("hedda"), "report", held))).contains("access.missing");
        assertThatThrownBy(() -> plan(server.actor("rafael"), "report", held)).isInstanceOf(NotThere.class);
        change(ines, "report", out);
        assertThat(server.document(out).released()).isPresent();
        assertThat(server.document(out).place().kind()).isEqualTo(kind("report").id());
    }

    @Test
    void thePageShowsThePlanAndDoesIt() {
        long item = file("report", "CK-" + shelf + "31 page.txt");
        Web web = Web.as(server, "priya");
        assertThat(web.get("/change-kind?items=" + item).body()).contains("choose a kind");
        String address =
                "/change-kind?items=" + item + "&to=" + kind("specification").id();
        assertThat(web.get(address).body()).contains("Give 1 document this kind");
        web.post(
                "/change-kind",
                Map.of(
                        "items", Long.toString(item),
                        "to", Long.toString(kind("specification").id()),
                        "actKey", Server.key()));
        assertThat(server.document(item).place().kind())
                .isEqualTo(kind("specification").id());
        assertThat(web.get("/change-kind?items=" + item + "&to=99999999").statusCode())
                .isEqualTo(404);
    }
}
