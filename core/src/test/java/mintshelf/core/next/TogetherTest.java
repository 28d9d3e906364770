package mintshelf.core.next;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

class TogetherTest {
    private static Map<Long, Act> acts(Act... acts) {
        Map<Long, Act> offered = new LinkedHashMap<>();
        for (Act act : acts) offered.put(10L + offered.size(), act);
        return offered;
    }

    @Test
    void whatAllOfThemOfferIsOfferedOfAll() {
        assertThat(Together.of(acts(Act.CHECK_OUT, Act.CHECK_OUT)))
                .contains(new Together(Act.CHECK_OUT, List.of(10L, 11L)));
    }

    @Test
    void whatIsMorePressingOfOneComesFirst() {
        assertThat(Together.of(acts(Act.CHECK_OUT, Act.CHECK_IN, Act.START_REVISION)))
                .contains(new Together(Act.CHECK_IN, List.of(11L)));
        assertThat(Together.of(acts(Act.SEND, Act.SIGN))).contains(new Together(Act.SIGN, List.of(11L)));
        assertThat(Together.of(acts(Act.LOOK, Act.START_REVISION, Act.START_REVISION)))
                .contains(new Together(Act.START_REVISION, List.of(11L, 12L)));
    }

    @Test
    void whatCanOnlyBeLookedAtOffersNothing() {
        assertThat(Together.of(acts(Act.LOOK, Act.LOOK))).isEmpty();
        assertThat(Together.of(Map.of())).isEmpty();
    }

    @Test
    void everyActButLookingIsOffered() {
        for (Act act : Act.values()) {
            if (act == Act.LOOK || act == Act.UNDO_CHECK_OUT) continue;
            assertThat(Together.of(acts(act))).as(act.words()).isPresent();
        }
    }
}
