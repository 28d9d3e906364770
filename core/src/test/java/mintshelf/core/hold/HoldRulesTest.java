package mintshelf.core.hold;

import static mintshelf.core.Documents.CONTENT;
import static mintshelf.core.Documents.PRIYA;
import static mintshelf.core.Documents.TOMASZ;
import static mintshelf.core.Documents.document;
import static mintshelf.core.Documents.heldBy;
import static mintshelf.core.Documents.part;
import static mintshelf.core.Documents.person;
import static mintshelf.core.Documents.preparing;
import static mintshelf.core.Documents.released;
import static mintshelf.core.Documents.revision;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import mintshelf.core.access.Access;
import mintshelf.core.access.Right;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.document.Head;
import mintshelf.core.hold.HoldRules.Brought;
import mintshelf.core.revision.StageClass;
import org.junit.jupiter.api.Test;

class HoldRulesTest {
    static final Access DESIGNER = person(PRIYA, Right.SEE_ALL, Right.CHANGE);
    private static final ContentHash OTHER = ContentHash.compute(new byte[] {2});

    private static String code(Optional<Refusal> refusal) {
        return refusal.map(Refusal::code).orElse("granted");
    }

    @Test
    void whatIsFreeAndInPreparationMayBeCheckedOut() {
        assertThat(HoldRules.checkOut(preparing(Optional.empty()), DESIGNER)).isEmpty();
    }

    @Test
    void eachReasonThatForbidsACheckOutIsNamed() {
        assertThat(code(HoldRules.checkOut(preparing(Optional.of(heldBy(TOMASZ))), DESIGNER)))
                .isEqualTo("hold.taken");
        assertThat(code(HoldRules.checkOut(preparing(Optional.of(heldBy(PRIYA))), DESIGNER)))
                .isEqualTo("hold.mine");
        assertThat(code(HoldRules.checkOut(released(), DESIGNER))).isEqualTo("stage.closed");
        assertThat(code(HoldRules.checkOut(preparing(Optional.empty()), person(PRIYA, Right.SEE_ALL))))
                .isEqualTo("access.missing");
        Document deciding =
                document(Optional.of(revision("A", StageClass.DECIDING)), Optional.empty(), Optional.empty());
        assertThat(code(HoldRules.checkOut(deciding, DESIGNER))).isEqualTo("stage.deciding");
    }

    @Test
    void whatHasNoFileIsNotCheckedOut() {
        assertThat(code(HoldRules.checkOut(part(preparing(Optional.empty())), DESIGNER)))
                .isEqualTo("part.no_file");
        assertThat(code(HoldRules.between(part(preparing(Optional.empty())), DESIGNER)))
                .isEqualTo("part.no_file");
        // Who may not change it is told that first.
        assertThat(code(HoldRules.checkOut(part(preparing(Optional.empty())), person(PRIYA, Right.SEE_ALL))))
                .isEqualTo("access.missing");
    }

    @Test
    void aRefusalNamesTheHolder() {
        Refusal refusal = HoldRules.checkOut(preparing(Optional.of(heldBy(TOMASZ))), DESIGNER)
                .orElseThrow();
        assertThat(refusal.says()).contains("Person 6");
    }

    @Test
    void breakingNeedsTheRightAndAReason() {
        Document held = preparing(Optional.of(heldBy(TOMASZ)));
        assertThat(code(HoldRules.breakHold(held, DESIGNER, "away"))).isEqualTo("access.missing");
        Access keeper = person(PRIYA, Right.KEEP_SHELF);
        assertThat(code(HoldRules.breakHold(held, keeper, " "))).isEqualTo("hold.reason");
        assertThat(code(HoldRules.breakHold(held, keeper, "away until Monday"))).isEqualTo("granted");
        assertThat(code(HoldRules.breakHold(preparing(Optional.empty()), keeper, "x")))
                .isEqualTo("hold.none");
    }

    @Test
    void changedBytesUnderMyHoldBecomeTheNextVersion() {
        assertThat(HoldRules.checkIn(preparing(Optional.of(heldBy(PRIYA))), DESIGNER, new Brought(OTHER), 99))
                .isEqualTo(new Returned.NewVersion(4));
    }

    @Test
    void theSameBytesMakeNoVersion() {
        assertThat(HoldRules.checkIn(preparing(Optional.of(heldBy(PRIYA))), DESIGNER, new Brought(CONTENT), 99))
                .isEqualTo(new Returned.Unchanged());
    }

    @Test
    void theSameBytesWithNewerComponentsMakeAVersionThatTakesThemUp() {
        Document held = preparing(Optional.of(heldBy(PRIYA)));
        assertThat(HoldRules.checkIn(held, DESIGNER, new Brought(CONTENT, false, Optional.empty(), 2), 99))
                .isEqualTo(new Returned.TakesUp(2));
    }

    @Test
    void aFileThatWasOnlySavedOnceMoreMakesNoVersionUnlessItsComponentsMoved() {
        Document held = preparing(Optional.of(heldBy(PRIYA)));
        assertThat(HoldRules.checkIn(held, DESIGNER, new Brought(OTHER, true, Optional.empty(), 0), 99))
                .isEqualTo(new Returned.OnlySaved());
        assertThat(HoldRules.checkIn(held, DESIGNER, new Brought(OTHER, true, Optional.empty(), 1), 99))
                .isEqualTo(new Returned.NewVersion(4));
    }

    @Test
    void aFileThatWouldStandInItselfIsKeptAsAStray() {
        Refusal ring = Refusal.of("reference.ring", "A › B › A", "");
        assertThat(HoldRules.checkIn(
                        preparing(Optional.of(heldBy(PRIYA))),
                        DESIGNER,
                        new Brought(OTHER, false, Optional.of(ring), 0),
                        99))
                .isEqualTo(new Returned.KeptAsStray(ring));
    }

    @Test
    void whatComesWithoutAValidHoldIsKeptAsAStray() {
        assertThat(stray(preparing(Optional.empty()), 99)).isEqualTo("hold.none");
        assertThat(stray(preparing(Optional.of(heldBy(TOMASZ))), 99)).isEqualTo("hold.taken");
        assertThat(stray(preparing(Optional.of(heldBy(PRIYA))), 98)).isEqualTo("hold.other");
        Document d = preparing(Optional.of(heldBy(PRIYA)));
        Document moved = new Document(
                d.id(),
                d.number(),
                d.title(),
                d.fileName(),
                d.place(),
                d.line(),
                new Head(500, 5, d.head().revision(), CONTENT, CONTENT),
                d.pending(),
                d.released(),
                d.lastEnded(),
                d.holder(),
                false);
        assertThat(stray(moved, 99)).isEqualTo("base.old");
    }

    private static String stray(Document document, long hold) {
        return ((Returned.KeptAsStray) HoldRules.checkIn(document, DESIGNER, new Brought(OTHER), hold))
                .refusal()
                .code();
    }

    @Test
    void aReturnedFileFindsItsRowByNameAndByTheNameWithoutTheCopyNumber() {
        List<ReturnedFile.Held> held = List.of(
                new ReturnedFile.Held(1, "cone.dxf"),
                new ReturnedFile.Held(2, "ring (1).dxf"),
                new ReturnedFile.Held(3, "ring.dxf"));
        assertThat(ReturnedFile.match("CONE.dxf", held)).containsExactly(1L);
        assertThat(ReturnedFile.match("cone (2).dxf", held)).containsExactly(1L);
        assertThat(ReturnedFile.match("ring (1).dxf", held)).containsExactly(2L);
        assertThat(ReturnedFile.match("other.dxf", held)).isEmpty();
    }
}
