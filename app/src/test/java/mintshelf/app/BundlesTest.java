package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import mintshelf.app.effect.Bundles;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.app.use.revision.MoveDocument;
import mintshelf.app.use.structure.KeepLinks;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Refusal;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.By;
import mintshelf.core.route.Way;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.Test;

/** What is planned together: by statements that do not grow with the set, each document with its own gates. */
class BundlesTest {
    private final Server server = Server.shared();
    private final Review review = new Review(server);
    private final Bundles bundles = server.bean(Bundles.class);
    private final Sight sight = server.bean(Sight.class);

    private List<Seen> seen(String login, List<Long> items) {
        return List.copyOf(sight.of(server.actor(login), items).values());
    }

    private int statements(String login, List<Long> items, Way way) {
        List<Seen> all = seen(login, items);
        assertThat(all).hasSize(items.size());
        int before = Server.statements();
        Plan<Bundles.Going> plan = bundles.plan(server.actor(login), all, way, By.HAND);
        assertThat(plan.rows()).hasSize(items.size());
        return Server.statements() - before;
    }

    @Test
    void statementsOfAPlanDoNotGrowWithTheSet() {
        long shelf = server.shelf();
        long model = server.file("priya", shelf, "model " + Server.key() + ".txt", "model", false);
        ManyDocuments.fill(server.db(), shelf, model, 1600);
        List<Long> preparing = server.db()
                .resultQuery(
                        "select i.id from item i join revision r on r.item = i.id and r.pending_mark = 1"
                                + " where i.shelf = ? order by i.id",
                        shelf)
                .fetch(0, Long.class);
        assertThat(preparing).hasSizeGreaterThan(1000);
        Way release = Way.named("release");
        statements("priya", preparing.subList(0, 10), release);
        int ten = statements("priya", preparing.subList(0, 10), release);
        int hundred = statements("priya", preparing.subList(0, 100), release);
        int thousand = statements("priya", preparing.subList(0, 1000), release);
        assertThat(hundred).isEqualTo(ten);
        // Beyond 512 ids a statement is sent in portions.
        assertThat(thousand).isLessThanOrEqualTo(2 * ten).isLessThan(30);
    }

    @Test
    void statementsForSheetsDoNotGrowWithThemEither() {
        long shelf = server.shelf();
        List<Long> few = List.of(review.drawing(shelf, "few 1.dxf"), review.drawing(shelf, "few 2.dxf"));
        List<Long> more = new ArrayList<>(few);
        for (int i = 0; i < 10; i++) more.add(review.drawing(shelf, "more " + i + ".dxf"));
        // A sheet is read once, by itself, and what its rules say is kept.
        statements("priya", more, Way.toReview());
        assertThat(statements("priya", more, Way.toReview())).isEqualTo(statements("priya", few, Way.toReview()));
    }

    @Test
    void eachDocumentOfABundleIsAskedItsOwnGatesAndTheOthersStayAsTheyAre() {
        long shelf = server.shelf();
        long free = review.drawing(shelf, "free.dxf");
        long held = review.drawing(shelf, "held.dxf");
        server.checkOut("tomasz", held);
        long straight = server.file("priya", shelf, "straight.txt", "x", false);
        Plan<Bundles.Going> plan = bundles.plan(
                server.actor("priya"), seen("priya", List.of(free, held, straight)), Way.toBoard(), By.SENDING);
        assertThat(plan.rows())
                .extracting(Plan.Row::stand)
                .containsExactly(Plan.Stand.GOES, Plan.Stand.CANNOT, Plan.Stand.STAYS);
        assertThat(plan.opens()).isFalse();
        assertThat(plan.refusals())
                .extracting(Refusal::reason)
                .containsExactly(server.document(held).number() + " is held by Tomasz Okrent.");
    }

    @Test
    void whatStandsInAnAssemblyIsReleasedFirstOrWithIt() {
        String mark = Server.key().substring(0, 8);
        long shelf = server.shelf();
        long part = server.file(
                "priya", shelf, "part-model", "pin " + mark + ".stp", StructureTest.assembly("p" + mark), false);
        long top = server.file(
                "priya",
                shelf,
                "assembly-model",
                "top " + mark + ".stp",
                StructureTest.assembly("t" + mark, "pin " + mark + ".stp", 2),
                false);
        Way release = Way.named("release");
        Plan<Bundles.Going> alone = bundles.plan(server.actor("priya"), seen("priya", List.of(top)), release, By.HAND);
        assertThat(alone.refusals()).extracting(Refusal::code).containsExactly("gate.components");
        assertThat(bundles.plan(server.actor("priya"), seen("priya", List.of(top, part)), release, By.HAND)
                        .opens())
                .as("what moves in the same act is not in the way")
                .isTrue();
        assertThat(Web.as(server, "priya").get("/documents/" + top).body())
                .contains("Not released: " + server.document(part).number());
        server.bean(MoveDocument.class).move(server.actor("priya"), part, Server.key(), "release", 1, "");
        server.bean(MoveDocument.class).move(server.actor("priya"), top, Server.key(), "release", 1, "");
        assertThat(server.bean(RevisionStore.class)
                        .revisions(top)
                        .get(0)
                        .revision()
                        .stage()
                        .stageClass())
                .isEqualTo(StageClass.RELEASED);
    }

    @Test
    void aSheetThatIsOlderThanItsModelIsNotReleased() {
        String mark = Server.key().substring(0, 8);
        long shelf = server.shelf();
        long model = server.file(
                "priya", shelf, "part-model", "older " + mark + ".stp", StructureTest.assembly("m" + mark), false);
        long drawing = review.drawing(shelf, "older " + mark + ".dxf");
        server.bean(KeepLinks.class)
                .link(
                        server.actor("priya"),
                        drawing,
                        Server.key(),
                        LinkStore.Kind.SHOWS,
                        server.document(model).number());
        long round = review.send("priya", drawing);
        review.sign("hedda", round);
        server.checkOut("priya", model);
        server.checkIn("priya", model, StructureTest.assembly("changed " + mark), false);
        assertThat(Assertions.catchThrowable(() -> review.sign("oluwaseun", round)))
                .hasMessageContaining("was changed after this sheet");
        assertThat(server.document(drawing).released()).isEmpty();
    }
}
