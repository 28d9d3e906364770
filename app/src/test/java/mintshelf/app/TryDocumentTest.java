package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import mintshelf.app.ground.Refused;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.house.Tried;
import mintshelf.app.use.house.TryDocument;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.Test;

/** Try it, of a document that is here: where it stands, where its facts come from, who could do what with it. */
class TryDocumentTest extends InAHouse {
    private final TryDocument tries = server.bean(TryDocument.class);
    private final Review review = new Review(server);
    private final long shelf = server.shelf();

    private Tried of(long item, String person) {
        return tries.of(
                        server.actor("ines"),
                        server.document(item).number().toLowerCase(Locale.ROOT),
                        server.actor(person).person())
                .orElseThrow();
    }

    private static Tried.Fact fact(Tried tried, String label) {
        return tried.facts().stream()
                .filter(f -> f.label().equals(label))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void itStandsWhereItStandsAndSaysWhereItsFactsComeFrom() {
        long item = review.drawing(shelf, "tried " + mark + ".dxf");
        Tried tried = of(item, "priya");
        assertThat(tried.filed()).isTrue();
        assertThat(tried.kind().orElseThrow().code()).isEqualTo("drawing");
        assertThat(tried.labels()).containsExactly("A", "B", "C", "D");
        assertThat(tried.stage().orElseThrow().name()).isEqualTo("In preparation");
        assertThat(fact(tried, "Material").why()).isEqualTo("from the title block");
        assertThat(fact(tried, "Mass").why()).isEqualTo("may stay empty");
        assertThat(tried.may().rights()).containsEntry("change documents", "Designer");
        assertThat(tried.asks().get(0).people()).contains("Hedda Lysgaard");
        server.bean(KeepFacts.class)
                .keep(
                        server.actor("priya"),
                        item,
                        Server.key(),
                        "Tried",
                        Map.of("material", "2205", "mass", "0.5"),
                        Map.of());
        Tried typed = of(item, "rafael");
        assertThat(fact(typed, "Material").why()).isEqualTo("typed; the title block says “316L”");
        assertThat(fact(typed, "Mass").value()).isEqualTo("0.5 kg");
        assertThat(typed.may().not()).contains("change documents");
        review.send("priya", item);
        Tried sent = of(item, "priya");
        assertThat(sent.stage().orElseThrow().name()).isEqualTo("In review");
        assertThat(sent.asks()).as("whom it asks there").isNotEmpty();
        String page = Web.as(server, "ines")
                .get("/house/try?name=" + server.document(item).number())
                .body();
        assertThat(page).contains("it stands in In review", "its own", "typed; the title block says");
    }

    @Test
    void onlyKeepersOfTheHouseTryAndAnyOtherTextIsAFile() {
        long item = review.drawing(shelf, "other " + mark + ".dxf");
        String number = server.document(item).number();
        Assertions.assertThatThrownBy(() -> tries.of(
                        server.actor("priya"), number, server.actor("priya").person()))
                .isInstanceOf(Refused.class);
        long ines = server.actor("ines").person();
        for (String name : List.of("nothing " + mark + ".dxf", "", "\u202e", "x".repeat(300))) {
            assertThat(tries.of(server.actor("ines"), name, ines)).as(name).isEmpty();
        }
        review.release(item);
        Tried out = of(item, "rafael");
        assertThat(out.stage().orElseThrow().name()).isEqualTo("Released");
        assertThat(out.asks()).isEmpty();
        assertThat(out.may().rights()).containsKey("see what is released");
    }
}
