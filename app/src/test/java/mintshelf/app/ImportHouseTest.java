package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import mintshelf.app.store.house.FilingRuleStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.RouteStore;
import mintshelf.app.use.house.ImportHouse;
import mintshelf.core.base.Refusal;
import mintshelf.core.change.PaperType;
import mintshelf.core.fact.RequiredAt;
import mintshelf.core.filing.FilingRule;
import mintshelf.core.route.Gates;
import mintshelf.core.route.Route;
import mintshelf.core.route.RouteProof;
import org.junit.jupiter.api.Test;

/** The shipped house is files that one importer loads; what a house has made of them stays the house's. */
class ImportHouseTest {
    private final Server server = Server.shared();
    private final HouseStore house = server.bean(HouseStore.class);
    private final RouteStore routes = server.bean(RouteStore.class);
    private final ImportHouse importing = server.bean(ImportHouse.class);

    private Route latest(String route) {
        return routes.latest(routes.route(route).orElseThrow());
    }

    private void shipped(long edition, String value) {
        server.db().execute("update route_edition set shipped = " + value + " where id = ?", edition);
    }

    @Test
    void anEmptyHouseHasKindsThatNumberMoveAndAreFiledByRule() {
        assertThat(house.kinds())
                .extracting(Kind::code)
                .contains("drawing", "part-model", "assembly-model", "specification", "change-order", "change-notice");
        assertThat(house.kind(PaperType.ORDER).name()).isEqualTo("change order");
        assertThat(house.kind(PaperType.NOTICE).isChangePaper()).isTrue();
        Kind drawing = house.kind("drawing");
        assertThat(drawing.paper()).isEmpty();
        assertThat(house.factSheets().get(drawing.id()))
                .extracting(f -> f.fact().name() + " " + f.required())
                .startsWith("material " + RequiredAt.RELEASE, "mass " + RequiredAt.NEVER)
                .hasSize(5);
        assertThat(server.bean(FilingRuleStore.class).all())
                .filteredOn(r -> r.kindName().equals("part model"))
                .extracting(FilingRule::contentKind)
                .containsExactly("STEP");
    }

    @Test
    void everyShippedRouteCanBeGoneAndSaysItsGates() {
        for (String code : List.of("straight", "reviewed", "change-order", "notice")) {
            assertThat(RouteProof.ask(latest(code)))
                    .extracting(Refusal::says)
                    .as(code)
                    .isEmpty();
        }
        assertThat(latest("reviewed").move("send").orElseThrow().gates())
                .contains(Gates.SHEET_PASSED, Gates.REFERENCES_FOUND, Gates.OWN_VERSION, Gates.NOT_ON_AN_ORDER);
        assertThat(latest("reviewed").move("release").orElseThrow().gates())
                .contains(Gates.COMPONENTS_RELEASED, Gates.DRAWING_NOT_OLDER, Gates.SIGNED_OFF);
        assertThat(latest("straight").move("withdraw").orElseThrow().asksReason())
                .isTrue();
    }

    @Test
    void aRouteThatIsAsItWasShippedFollowsTheNextFileAndOneThatTheHouseDrewDoesNot() {
        Route before = latest("notice");
        importing.load();
        assertThat(latest("notice").edition()).as("nothing is new").isEqualTo(before.edition());
        shipped(before.edition(), "unhex(repeat('11', 32))");
        importing.load();
        Route next = latest("notice");
        assertThat(next.edition()).isGreaterThan(before.edition());
        assertThat(next.moves()).isEqualTo(before.moves());
        assertThat(next.stages())
                .extracting(s -> s.code() + s.stageClass())
                .isEqualTo(before.stages().stream()
                        .map(s -> s.code() + s.stageClass())
                        .toList());
        importing.load();
        assertThat(latest("notice").edition()).isEqualTo(next.edition());
        var file = server.db()
                .resultQuery("select hex(shipped) from route_edition where id = ?", next.edition())
                .fetchOne(0, String.class);
        shipped(next.edition(), "null");
        importing.load();
        assertThat(latest("notice").edition()).as("the house's own stays").isEqualTo(next.edition());
        shipped(next.edition(), "unhex('" + file + "')");
    }
}
