package mintshelf.core.hold;

import static mintshelf.core.Documents.TOMASZ;
import static mintshelf.core.Documents.heldBy;
import static mintshelf.core.Documents.preparing;
import static mintshelf.core.hold.HoldRulesTest.DESIGNER;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.Optional;
import mintshelf.core.document.Document;
import mintshelf.core.hold.AlongRules.Fate;
import mintshelf.core.hold.AlongRules.Verdict;
import mintshelf.core.hold.AlongRules.Via;
import org.junit.jupiter.api.Test;

class AlongRulesTest {
    private static final Document FREE = preparing(Optional.empty());
    private static final Document TAKEN = preparing(Optional.of(heldBy(TOMASZ)));

    private static Verdict verdict(Document document, Via via, boolean library) {
        return AlongRules.verdict(document, DESIGNER, via, library, false);
    }

    @Test
    void whatWasAskedForIsCheckedOutOrStaysWithItsReason() {
        assertThat(verdict(FREE, Via.ASKED, false).fates()).containsExactly(Fate.HOLD);
        assertThat(verdict(TAKEN, Via.ASKED, false).fates()).containsExactly(Fate.STAY);
        assertThat(verdict(TAKEN, Via.ASKED, false).why())
                .hasValueSatisfying(r -> assertThat(r.code()).isEqualTo("hold.taken"));
    }

    @Test
    void aDrawingGoesAlongHeldAndAComponentAsACopyUnlessThePersonLikesItOtherwise() {
        assertThat(verdict(FREE, Via.DRAWING, false).proposed()).isEqualTo(Fate.HOLD);
        assertThat(verdict(FREE, Via.COMPONENT, false).proposed()).isEqualTo(Fate.COPY);
        assertThat(verdict(FREE, Via.COMPONENT, false).mayHold()).isTrue();
        assertThat(AlongRules.verdict(FREE, DESIGNER, Via.COMPONENT, false, true)
                        .proposed())
                .isEqualTo(Fate.HOLD);
    }

    @Test
    void whatCannotBeHeldAndWhatIsOfALibraryComesAsACopy() {
        assertThat(verdict(TAKEN, Via.COMPONENT, false).fates()).containsExactly(Fate.COPY, Fate.STAY);
        Verdict library = AlongRules.verdict(FREE, DESIGNER, Via.COMPONENT, true, true);
        assertThat(library.mayHold()).isFalse();
        assertThat(library.why()).isPresent();
        assertThat(verdict(FREE, Via.ASKED, true).mayHold())
                .as("asked for by itself it can be checked out")
                .isTrue();
    }

    @Test
    void whatIsBroughtComesAsACopyUnlessItCanBeHeldOrCannotStandThere() {
        Verdict free = AlongRules.brought(FREE, DESIGNER, "TG40-3000", false);
        assertThat(free.fates()).containsExactly(Fate.COPY, Fate.HOLD, Fate.STAY);
        assertThat(free.why()).isEmpty();
        Verdict taken = AlongRules.brought(TAKEN, DESIGNER, "TG40-3000", false);
        assertThat(taken.fates()).containsExactly(Fate.COPY, Fate.STAY);
        assertThat(taken.why()).hasValueSatisfying(r -> assertThat(r.code()).isEqualTo("hold.taken"));
        Document mine = preparing(Optional.of(heldBy(DESIGNER.person())));
        assertThat(AlongRules.brought(mine, DESIGNER, "TG40-3000", false).fates())
                .containsExactly(Fate.STAY);
        Verdict around = AlongRules.brought(FREE, DESIGNER, "TG40-3000", true);
        assertThat(around.fates()).containsExactly(Fate.STAY);
        assertThat(around.why()).hasValueSatisfying(r -> assertThat(r.reason()).contains("TG40-3000 stands in it"));
    }

    @Test
    void thePlanEndsInASentence() {
        assertThat(AlongRules.sentence(2, 5, 0)).isEqualTo("2 documents will be held by you, 5 come as copies.");
        assertThat(AlongRules.sentence(1, 1, 1))
                .isEqualTo("1 document will be held by you, 1 comes as a copy, 1 stays.");
    }
}
