package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import mintshelf.app.ground.Refused;
import mintshelf.app.use.change.ReadImpact;
import mintshelf.app.use.release.ReadReleasePlan;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.structure.KeepVariants;
import mintshelf.core.bom.Variant;
import mintshelf.core.change.Impact.Line;
import org.junit.jupiter.api.Test;

/** What people write into bills of materials counts as what files refer to: for gates, plans and the reach of changes. */
class WrittenPartsTest extends InBom {
    private List<String> reached(long item, boolean interchangeable) {
        return server
                .bean(ReadImpact.class)
                .of(priya, List.of(new Line(item, interchangeable)), Map.of())
                .rows()
                .stream()
                .map(r -> r.seen().document().number().replace("B" + mark + "-", "") + " "
                        + r.node().verdict().name())
                .toList();
    }

    private List<Long> planned(long item) {
        return server.bean(ReadReleasePlan.class).plan(priya, List.of(item)).lines().stream()
                .map(l -> l.item())
                .toList();
    }

    @Test
    void nothingIsReleasedBeforeWhatIsWrittenIntoIt() {
        long label = part("label", Map.of("comes", "bought"));
        long top = assembly("top");
        write(top, "", number("label"), "", "2", "pc");
        assertThatThrownBy(() -> server.release("priya", top))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("Not released: " + number("label"));
        assertThat(planned(top)).as("it goes along, and first").containsExactly(label, top);
        server.release("priya", label);
        assertThat(planned(top)).containsExactly(top);
        server.release("priya", top);
        assertThat(server.document(top).released()).isPresent();
    }

    @Test
    void aLineOfTheNextRevisionAsksOnlyTheNextRelease() {
        long top = assembly("top");
        server.release("priya", top);
        server.bean(StartRevisions.class).start(priya, List.of(top), Server.key(), "a label", "", true);
        long label = part("label", Map.of());
        write(top, "", number("label"), "", "1", "pc");
        server.checkIn("priya", top, model("top with its label"), false);
        assertThatThrownBy(() -> server.release("priya", top)).hasMessageContaining(number("label"));
        server.release("priya", label);
        server.release("priya", top);
    }

    @Test
    void aChangeReachesIntoWhoseListsItIsWritten() {
        long pin = part("pin", Map.of());
        long arm = assembly("arm", "pin", 2);
        long top = assembly("top");
        write(top, "", number("arm"), "", "1", "pc");
        assembly("rig", "top", 1);
        assertThat(reached(pin, false)).containsExactlyInAnyOrder("pin NEW_NUMBER", "arm REVISED", "top TAKES");
        assertThat(reached(arm, false)).containsExactlyInAnyOrder("arm NEW_NUMBER", "top REVISED", "rig TAKES");
        // What the file refers to as well is one use.
        write(arm, "", number("pin"), "", "1", "pc");
        assertThat(reached(pin, true)).containsExactlyInAnyOrder("pin REVISED", "arm TAKES");
    }

    @Test
    void whatIsReachedSaysWhatOneCostsAndWhichVariantsItCovers() {
        long pin = part("pin", Map.of("cost", "4"));
        server.bean(KeepVariants.class).keep(priya, pin, Server.key(), List.of(new Variant("long", "", Map.of())));
        assembly("arm", "pin", 2);
        server.release("priya", pin);
        assertThat(server.bean(ReadImpact.class)
                        .of(priya, List.of(new Line(pin, true)), Map.of())
                        .rows())
                .extracting(r -> r.part())
                .containsExactly("4.00 EUR each, covers long", "");
    }

    @Test
    void listsThatLeadBackToThemselvesEnd() throws Exception {
        long one = assembly("one");
        long other = assembly("other");
        write(one, "", number("other"), "", "1", "pc");
        // A file is no line by hand: nobody kept it from leading back.
        server.checkOut("priya", other);
        server.checkIn("priya", other, model("other", "one", 1), false);
        assertThat(reached(one, false)).contains("one NEW_NUMBER", "other REVISED");
        assertThat(planned(one)).containsExactlyInAnyOrder(one, other);
        assertThat(Web.as(server, "priya").get("/release-plan?items=" + one).statusCode())
                .isEqualTo(200);
    }
}
