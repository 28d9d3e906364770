package mintshelf.core.document;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import mintshelf.core.Documents;
import mintshelf.core.access.Access;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.revision.StageClass;
import org.junit.jupiter.api.Test;

class RelocateRulesTest {
    private static final Place SAME_SHELF = new Place(1, List.of(11L), 7);
    private static final Place ELSEWHERE = new Place(2, List.of(20L), 7);
    private final Access designer = Documents.person(Documents.PRIYA, Right.CHANGE, Right.FILE);
    private final Access keeper = Documents.person(Documents.TOMASZ, Right.CHANGE, Right.FILE, Right.KEEP_SHELF);

    private static List<String> codes(List<Refusal> refusals) {
        return refusals.stream().map(Refusal::code).toList();
    }

    @Test
    void whoChangesAndFilesMovesWithinAShelf() {
        assertThat(RelocateRules.inTheWay(designer, Documents.released(), SAME_SHELF, false))
                .isEmpty();
        assertThat(codes(RelocateRules.inTheWay(
                        Documents.person(8, Right.FILE), Documents.released(), SAME_SHELF, false)))
                .containsExactly("access.missing");
        assertThat(codes(RelocateRules.inTheWay(
                        Documents.person(8, Right.CHANGE), Documents.released(), SAME_SHELF, false)))
                .containsExactly("access.missing");
    }

    @Test
    void anotherShelfIsForWhoKeepsBoth() {
        assertThat(codes(RelocateRules.inTheWay(designer, Documents.released(), ELSEWHERE, false)))
                .containsExactly("relocate.keeps");
        assertThat(RelocateRules.inTheWay(keeper, Documents.released(), ELSEWHERE, false))
                .isEmpty();
    }

    @Test
    void whatIsDecidedOnStaysWhereItsSignersSeeIt() {
        Document deciding = Documents.document(
                Optional.of(Documents.revision("A", StageClass.DECIDING)), Optional.empty(), Optional.empty());
        assertThat(codes(RelocateRules.inTheWay(keeper, deciding, ELSEWHERE, false)))
                .containsExactly("relocate.deciding");
        assertThat(RelocateRules.inTheWay(keeper, deciding, SAME_SHELF, false)).isEmpty();
    }

    @Test
    void whatIsHeldStaysWithItsFile() {
        Document held = Documents.preparing(Optional.of(Documents.heldBy(Documents.PRIYA)));
        assertThat(codes(RelocateRules.inTheWay(designer, held, SAME_SHELF, false)))
                .containsExactly("hold.mine");
        assertThat(codes(RelocateRules.changing(keeper, held))).containsExactly("hold.taken");
        assertThat(RelocateRules.changing(keeper, held).get(0).reason()).contains("held by Person 5");
    }

    @Test
    void aNameIsInAFolderOnceAndALibraryIsForLibrarians() {
        assertThat(codes(RelocateRules.inTheWay(designer, Documents.released(), SAME_SHELF, true)))
                .containsExactly("file.name");
        assertThat(codes(RelocateRules.inTheWay(
                        keeper, Documents.released(), new Place(2, List.of(20L), 7, true), false)))
                .containsExactly("access.library");
    }
}
