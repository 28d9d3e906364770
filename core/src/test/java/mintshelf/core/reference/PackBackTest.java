package mintshelf.core.reference;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import mintshelf.core.reference.PackBack.Match;
import mintshelf.core.reference.PackBack.Sent;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class PackBackTest {
    private static final List<Sent> SENT = List.of(
            new Sent(1, "TG40-3000", "TG40/3000 Head/head.stp"),
            new Sent(2, "TG40-3010", "TG40/3000 Head/housing.stp"),
            new Sent(3, "TG40-3010", "TG40/3000 Head/housing.dxf"),
            new Sent(4, "TG40-301", "TG40/Other/plate.stp"),
            new Sent(5, "TG40-4000", "TG40/Other/head.stp"));

    private static List<Long> of(String... came) {
        return PackBack.match(SENT, List.of(came)).stream()
                .map(m -> m.document().orElse(0L))
                .toList();
    }

    @Test
    void byItsPlaceAlsoBelowFoldersOfTheirs() {
        assertThat(of("TG40/3000 Head/head.stp", "tg40\\Other\\HEAD.STP", "./TG40/3000 Head/housing.dxf"))
                .containsExactly(1L, 5L, 3L);
        assertThat(of("Yard/back 2/TG40/3000 Head/head.stp")).containsExactly(1L);
    }

    @Test
    void byANameThatOnlyOneHas() {
        assertThat(of("housing.stp", "x/plate.stp")).containsExactly(2L, 4L);
        assertThat(of("head.stp")).as("two have it").containsExactly(0L);
    }

    @Test
    void byTheLongestNumberInFrontThatOnlyOneHas() {
        assertThat(of("TG40-3000_rev2.stp")).containsExactly(1L);
        assertThat(of("tg40-301 better.stp")).containsExactly(4L);
        assertThat(of("TG40-3010 new.stp")).as("a sheet and a model").containsExactly(0L);
        assertThat(of("TG40-30001.stp")).as("another number").containsExactly(0L);
        assertThat(of("bracket.stp")).containsExactly(0L);
    }

    @Test
    void ofTwoForOneDocumentTheFirst() {
        List<Match> all = PackBack.match(SENT, List.of("housing.stp", "old/housing.stp"));
        assertThat(all.get(0).document()).contains(2L);
        assertThat(all.get(1).refusal())
                .get()
                .satisfies(r -> assertThat(r.code()).isEqualTo("pack.twice"));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "../housing.stp",
                "a/../../b.stp",
                "/etc/housing.stp",
                "C:\\housing.stp",
                "\\\\yard\\housing.stp",
                "a\nb",
                ""
            })
    void whatLeadsOutIsNotTaken(String path) {
        assertThat(PackBack.match(SENT, List.of(path)).get(0).refusal())
                .get()
                .satisfies(r -> assertThat(r.code()).isEqualTo("pack.path"));
    }
}
