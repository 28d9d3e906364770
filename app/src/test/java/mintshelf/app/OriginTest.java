package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.use.design.ReadDesign;
import mintshelf.app.use.design.ReadDesign.Asked;
import mintshelf.app.use.design.ReadOrigin;
import mintshelf.app.use.design.TakeUpOrigin;
import mintshelf.core.document.Document;
import mintshelf.core.drawing.merge.ThreeWay;
import mintshelf.core.structure.StructureView;
import org.junit.jupiter.api.Test;

/** What became of the document that another one was derived from is taken up by it. */
class OriginTest extends InDesign {
    private void change(long item, byte[] bytes) {
        server.checkOut("priya", item);
        server.checkIn("priya", item, bytes, false);
    }

    @Test
    void whatBecameOfASheetGoesOverWhereNothingOfItWasTouched() {
        ReadOrigin origins = server.bean(ReadOrigin.class);
        TakeUpOrigin take = server.bean(TakeUpOrigin.class);
        long sheet = server.file(
                "priya", shelf, "drawing", name(5000, " p.dxf"), from + "5000", plate("5", "deburr"), false);
        Asked alone = new Asked(from + "*", to + "*", false, ReadDesign.plain(sheet, StructureView.LATEST));
        long child = of(make(priya, alone), sheet).id();
        assertThat(origins.view(priya, child).origin().isBehind()).isFalse();
        change(sheet, plate("8", "deburr"));
        ReadOrigin.View view = origins.view(priya, child);
        assertThat(view.refusal()).hasValueSatisfying(r -> assertThat(r.code()).isEqualTo("hold.mine"));
        server.checkIn("priya", child, plate("5", "deburr, R 0.5"), false);
        view = origins.view(priya, child);
        assertThat(view.refusal()).isEmpty();
        assertThat(view.rows()).extracting(r -> r.fate()).containsExactly(ThreeWay.Fate.GOES);
        String shown = view.origin().shown();
        assertThatThrownBy(() -> take.take(priya, child, Server.key(), "1-1-1", List.of(1)))
                .isInstanceOf(Refused.class);
        assertThatThrownBy(() -> take.take(priya, child, Server.key(), shown, List.of()))
                .isInstanceOf(Refused.class);
        assertThatThrownBy(() -> take.take(server.actor("hedda"), child, Server.key(), shown, List.of(1)))
                .isInstanceOf(Refused.class);
        take.take(priya, child, Server.key(), shown, List.of(1));
        assertThat(text(child)).isEqualTo(new String(plate("8", "deburr, R 0.5"), StandardCharsets.US_ASCII));
        assertThat(origins.view(priya, child).origin().isBehind()).isFalse();
        // A second round: the same was changed here too, and is left aside.
        change(child, plate("3", "deburr, R 0.5"));
        change(sheet, plate("9", "deburr"));
        view = origins.view(priya, child);
        assertThat(view.rows()).extracting(r -> r.fate()).containsExactly(ThreeWay.Fate.DECIDE);
        int head = server.document(child).head().number();
        take.leave(priya, child, Server.key(), view.origin().shown());
        assertThat(server.document(child).head().number()).isEqualTo(head);
        assertThat(origins.view(priya, child).origin().isBehind()).isFalse();
        assertThat(Web.as(server, "priya")
                        .get("/documents/" + child + "/origin")
                        .body())
                .contains("Nothing has changed there");
    }

    @Test
    void whatBecameOfAModelGoesOverAsAWholeAndOnlyWhereNothingWasChangedHere() {
        ReadOrigin origins = server.bean(ReadOrigin.class);
        TakeUpOrigin take = server.bean(TakeUpOrigin.class);
        Wish.Design wish = new Wish.Design(
                group, StructureView.LATEST, Map.of(), Optional.empty(), "", List.of(), List.of(), false);
        Map<Long, Document> made = make(priya, new Asked(from + "####", to + "####", false, wish));
        long mine = of(made, group).id();
        change(group, StructureTest.assembly("moved on", name(1110, " part.stp"), 6, name(1010, " part.stp"), 1));
        ReadOrigin.View view = origins.view(priya, mine);
        assertThat(view.origin().way()).isEqualTo(ReadOrigin.Way.WHOLE);
        assertThat(Web.as(server, "priya").get("/documents/" + mine).body()).contains("/origin/count");
        assertThat(Web.as(server, "priya")
                        .get("/documents/" + mine + "/origin/count")
                        .body())
                .contains("version 1 to 2");
        take.take(priya, mine, Server.key(), view.origin().shown(), List.of());
        assertThat(text(mine)).contains("moved on", to.toLowerCase(java.util.Locale.ROOT) + "1110 part.stp");
        assertThat(meant(refersTo(server.document(mine))))
                .containsExactly(of(made, screw).id(), of(made, part).id());
        assertThat(refersTo(server.document(mine)).get(0).written().quantity()).isEqualTo(6);
        // Changed on both sides: only its program can put that together.
        change(mine, StructureTest.assembly("my own", to.toLowerCase(java.util.Locale.ROOT) + "1110 part.stp", 2));
        change(group, StructureTest.assembly("again", name(1110, " part.stp"), 8));
        view = origins.view(priya, mine);
        assertThat(view.origin().way()).isEqualTo(ReadOrigin.Way.BY_HAND);
        String shown = view.origin().shown();
        assertThatThrownBy(() -> take.take(priya, mine, Server.key(), shown, List.of()))
                .isInstanceOf(NotThere.class);
        take.leave(priya, mine, Server.key(), shown);
        assertThat(origins.view(priya, mine).origin().isBehind()).isFalse();
    }
}
