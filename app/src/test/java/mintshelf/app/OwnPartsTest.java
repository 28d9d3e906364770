package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Cases;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.part.BeginPart;
import mintshelf.app.use.release.ReadReleasePlan;
import mintshelf.app.use.release.ReleasePlan;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.structure.ReadBom;
import mintshelf.core.base.Refusal;
import mintshelf.core.bom.BomPart;
import mintshelf.core.route.By;
import mintshelf.core.route.Gate;
import mintshelf.core.structure.StructureView;
import org.junit.jupiter.api.Test;

/** A part with revisions of its own beside the model that draws it: the house says so, and lists show what the part says. */
class OwnPartsTest extends InBom {
    private final Actor ines = server.actor("ines");

    private long own(Actor who, String name, String mass) {
        long kind = server.bean(HouseStore.class).kinds().stream()
                .filter(Kind::isPart)
                .findFirst()
                .orElseThrow()
                .id();
        String at = server.bean(BeginPart.class)
                .make(
                        who,
                        Server.key(),
                        new BeginPart.Wish(
                                Optional.of(server.bean(ShelfStore.class)
                                        .root(shelf)
                                        .id()),
                                Optional.of(kind),
                                number(name),
                                "Bought " + name,
                                Map.of("mass", mass, "comes", "bought", "unit", "pc", "cost", "7")));
        return Long.parseLong(at.substring("/documents/".length()));
    }

    /** The mass of the only line of a BOM, and the tab that it shows. */
    private String line(Actor who, long top, StructureView view, LocalDate day) {
        ReadBom.Read read = server.bean(ReadBom.class)
                .of(who, top, view, Optional.empty(), day)
                .orElseThrow();
        BomPart part = read.bom().part(read.bom().lines(0).get(0).part());
        return part.revision() + " "
                + part.mass().own().map(m -> m.toPlainString()).orElse("none");
    }

    private String latest(long top) {
        return line(priya, top, StructureView.LATEST, LocalDate.EPOCH);
    }

    private void say(long item, String mass) {
        server.bean(KeepFacts.class)
                .keep(ines, item, Server.key(), server.document(item).title(), Map.of("mass", mass), Map.of());
    }

    @Test
    void onlyWhoKeepsTheHouseRulesGivesADrawnThingAPartOfItsOwn() {
        part("pin", Map.of("mass", "1"));
        try {
            own(priya, "pin", "2");
        } catch (Refused e) {
            assertThat(e.refusal().code()).isEqualTo("part.described");
            assertThat(e.refusal().says()).contains("Who keeps the house rules");
            assertThat(own(ines, "pin", "2")).isPositive();
            return;
        }
        throw new AssertionError("it was made");
    }

    @Test
    void listsShowWhatThePartSaysOfTheRevisionThatTheViewHas() throws Exception {
        long pin = part("pin", Map.of("mass", "1"));
        long top = assembly("top", "pin", 3);
        assertThat(latest(top)).isEqualTo("A 1");
        long own = own(ines, "pin", "2");
        assertThat(latest(top)).as("its part speaks for it").isEqualTo("A 2");
        Web web = Web.as(server, "priya");
        assertThat(web.get("/documents/" + own).body())
                .contains("with its part model", "The part of what is drawn under its number");
        assertThat(web.get("/documents/" + pin).body()).contains("with its bought part");
        server.release("priya", pin);
        server.release("ines", own);
        server.release("priya", top);
        server.bean(StartRevisions.class).start(ines, List.of(own), Server.key(), "lighter", "", true);
        say(own, "1.5");
        assertThat(latest(top)).isEqualTo("B 1.5");
        assertThat(line(priya, top, StructureView.LATEST_RELEASED, LocalDate.EPOCH))
                .isEqualTo("A 2");
        assertThat(line(server.actor("rafael"), top, StructureView.LATEST, LocalDate.EPOCH))
                .as("who reads what is released learns of no revision under way")
                .isEqualTo("A 2");
        server.release("ines", own);
        assertThat(line(priya, top, StructureView.LATEST_RELEASED, LocalDate.EPOCH))
                .isEqualTo("B 1.5");
        assertThat(line(priya, top, StructureView.AS_RELEASED, LocalDate.EPOCH))
                .as("what was frozen has the one that was in force then")
                .isEqualTo("A 2");
        assertThat(server.document(pin).released().orElseThrow().shown())
                .as("the model goes on with its own")
                .isEqualTo("A");
    }

    @Test
    void beforeThePartWasInForceTheModelSpeaksForIt() {
        long pin = part("pin", Map.of("mass", "1"));
        long top = assembly("top", "pin", 3);
        server.release("priya", pin);
        server.release("priya", top);
        own(ines, "pin", "2");
        assertThat(line(priya, top, StructureView.AS_RELEASED, LocalDate.EPOCH)).isEqualTo("A 1");
        assertThat(line(server.actor("rafael"), top, StructureView.LATEST, LocalDate.EPOCH))
                .isEqualTo("A 1");
        assertThat(latest(top)).isEqualTo("A 2");
    }

    @Test
    void anAssemblyWaitsForThePartOfWhatItConsistsOf() throws Exception {
        long pin = part("pin", Map.of("mass", "1"));
        long top = assembly("top", "pin", 3);
        server.release("priya", pin);
        long own = own(ines, "pin", "2");
        assertThat(server.bean(ReadReleasePlan.class).plan(ines, List.of(top)).lines())
                .as("the plan offers what the gate asks for")
                .extracting(ReleasePlan.Line::item)
                .contains(own, top)
                .doesNotContain(pin);
        assertThat(gate(top)).contains("Not released: " + number("pin") + ".");
        server.release("ines", own);
        assertThat(gate(top)).isEmpty();
    }

    /** What the gate of its components says against an assembly. */
    private String gate(long top) {
        Actor actor = server.actor("ines");
        Seen seen = server.bean(Sight.class).of(actor, top);
        return new Gate.ComponentsReleased()
                .ask(server.bean(Cases.class).of(actor, List.of(seen)).get(top), By.HAND).stream()
                        .map(Refusal::reason)
                        .collect(Collectors.joining());
    }
}
