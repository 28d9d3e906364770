package mintshelf.core.trial;

import static mintshelf.core.Documents.document;
import static mintshelf.core.Documents.heldBy;
import static mintshelf.core.Documents.person;
import static mintshelf.core.Documents.preparing;
import static mintshelf.core.Documents.released;
import static mintshelf.core.Documents.revision;
import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import mintshelf.core.access.Access;
import mintshelf.core.access.Right;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.document.Head;
import mintshelf.core.document.Holder;
import mintshelf.core.hold.HoldRules;
import mintshelf.core.hold.Returned;
import mintshelf.core.revision.StageClass;
import org.junit.jupiter.api.Test;

class TrialRulesTest {
    private static final Access DESIGNER = person(1, Right.SEE_ALL, Right.CHANGE);
    private static final Access READER = person(2, Right.SEE_RELEASED);
    private static final Access KEEPER = person(3, Right.SEE_ALL, Right.KEEP_SHELF);
    private static final ContentHash OTHER = ContentHash.compute("lighter".getBytes(StandardCharsets.UTF_8));

    private static Document tried(Document original, Optional<Holder> holder) {
        return original.onTrial(1, 31, new Head(700, 2, original.head().revision(), OTHER, OTHER), holder);
    }

    @Test
    void beginsOnWhatIsReleasedToo() {
        assertThat(TrialRules.start(released(), DESIGNER, 0)).isEmpty();
        assertThat(TrialRules.start(preparing(Optional.of(heldBy(9))), DESIGNER, TrialRules.MOST_OPEN - 1))
                .isEmpty();
    }

    @Test
    void beginsNotWithoutTheRightNorOnWhatIsOutOfUseNorBeyondWhatIsSeen() {
        assertThat(code(TrialRules.start(released(), READER, 0))).isEqualTo("access.missing");
        Document withdrawn =
                document(Optional.empty(), Optional.of(revision("B", StageClass.WITHDRAWN)), Optional.empty());
        assertThat(code(TrialRules.start(withdrawn, DESIGNER, 0))).isEqualTo("trial.out_of_use");
        assertThat(TrialRules.start(released(), DESIGNER, TrialRules.MOST_OPEN))
                .get()
                .satisfies(r -> assertThat(r.says()).contains("9 trials under way", "Adopt or drop"));
    }

    @Test
    void aTriedDocumentIsAskedByTheSameRulesAndCalledByItsLine() {
        Document tried = tried(released(), Optional.empty());
        assertThat(tried.number()).isEqualTo("TG40-3030 t1");
        assertThat(tried.ownNumber()).isEqualTo("TG40-3030");
        assertThat(released().ownNumber()).isEqualTo("TG40-3030");
        assertThat(tried.line()).isEqualTo(31);
        assertThat(tried.isTried()).isTrue();
        assertThat(released().isTried()).isFalse();
        assertThat(HoldRules.checkOut(released(), DESIGNER)).isPresent();
        assertThat(HoldRules.checkOut(tried, DESIGNER)).isEmpty();
        assertThat(HoldRules.checkOut(tried(released(), Optional.of(heldBy(9))), DESIGNER)
                        .orElseThrow()
                        .says())
                .contains("TG40-3030 t1 is held by Person 9");
    }

    @Test
    void whatComesBackToItIsTakenUnderItsOwnHold() {
        Holder mine = new Holder(
                77, 1, "Person 1", revision("A", StageClass.PREPARING).startedAt(), "", "", 700);
        Document tried = tried(released(), Optional.of(mine));
        ContentHash fresh = ContentHash.compute(new byte[] {1});
        assertThat(HoldRules.checkIn(tried, DESIGNER, new HoldRules.Brought(fresh), 77))
                .isEqualTo(new Returned.NewVersion(2));
        assertThat(HoldRules.checkIn(tried, DESIGNER, new HoldRules.Brought(OTHER), 77))
                .isInstanceOf(Returned.Unchanged.class);
        assertThat(HoldRules.checkIn(tried, DESIGNER, new HoldRules.Brought(fresh), 78))
                .isInstanceOf(Returned.KeptAsStray.class);
    }

    @Test
    void knowsWhetherItsOriginalMovedOn() {
        Document original = preparing(Optional.empty());
        assertThat(TrialRules.original(original, original.head().version())).isEqualTo(TrialRules.Original.AS_IT_WAS);
        assertThat(TrialRules.original(original, 1)).isEqualTo(TrialRules.Original.MOVED_ON);
    }

    @Test
    void isAdoptedWhereTheOriginalCouldBeChanged() {
        Document original = preparing(Optional.empty());
        assertThat(TrialRules.adopt(original, tried(original, Optional.empty()), DESIGNER))
                .isEmpty();
        assertThat(TrialRules.adopt(released(), tried(released(), Optional.empty()), DESIGNER)
                        .orElseThrow()
                        .says())
                .contains("Start the next revision");
        Document held = preparing(Optional.of(heldBy(9)));
        assertThat(code(TrialRules.adopt(held, tried(held, Optional.empty()), DESIGNER)))
                .isEqualTo("hold.taken");
        Document mine = preparing(Optional.of(heldBy(1)));
        assertThat(code(TrialRules.adopt(mine, tried(mine, Optional.empty()), DESIGNER)))
                .isEqualTo("hold.mine");
    }

    @Test
    void isNotAdoptedWhereTheOriginalIsOutOfUseOrGoneOrIsBeingDecidedOn() {
        Document withdrawn =
                document(Optional.empty(), Optional.of(revision("B", StageClass.WITHDRAWN)), Optional.empty());
        assertThat(TrialRules.adopt(withdrawn, tried(withdrawn, Optional.empty()), DESIGNER)
                        .orElseThrow()
                        .reason())
                .contains("withdrawn");
        Document deciding =
                document(Optional.of(revision("B", StageClass.DECIDING)), Optional.empty(), Optional.empty());
        assertThat(code(TrialRules.adopt(deciding, tried(deciding, Optional.empty()), DESIGNER)))
                .isEqualTo("stage.deciding");
        assertThat(code(TrialRules.adopt(
                        preparing(Optional.empty()), tried(preparing(Optional.empty()), Optional.empty()), READER)))
                .isEqualTo("access.missing");
    }

    @Test
    void isNotAdoptedWhileItIsHeldOrHasNothingNew() {
        Document original = preparing(Optional.empty());
        assertThat(TrialRules.adopt(original, tried(original, Optional.of(heldBy(9))), DESIGNER)
                        .orElseThrow()
                        .says())
                .contains("TG40-3030 t1 is held by Person 9");
        assertThat(TrialRules.adopt(original, tried(original, Optional.of(heldBy(1))), DESIGNER)
                        .orElseThrow()
                        .says())
                .contains("You hold TG40-3030 t1");
        Document same = original.onTrial(1, 31, original.head(), Optional.empty());
        assertThat(code(TrialRules.adopt(original, same, DESIGNER))).isEqualTo("trial.same");
    }

    @Test
    void isDroppedByWhoStartedItOrKeepsAllItsShelves() {
        List<mintshelf.core.access.Place> places = List.of(released().place());
        assertThat(TrialRules.drop(1, "Person 1", places, DESIGNER)).isEmpty();
        assertThat(TrialRules.drop(1, "Person 1", places, KEEPER)).isEmpty();
        assertThat(TrialRules.drop(9, "Person 9", places, DESIGNER)
                        .orElseThrow()
                        .says())
                .contains("Person 9 or a data manager");
        assertThat(TrialRules.drop(9, "Person 9", List.of(), KEEPER)).isPresent();
    }

    @Test
    void anOpinionButAPlainYesSaysWhy() {
        assertThat(Opinion.of("AGAINST")).contains(Opinion.AGAINST);
        assertThat(Opinion.of("maybe")).isEmpty();
        assertThat(Opinion.FOR.asksWords()).isFalse();
        assertThat(Opinion.REMARKED.asksWords()).isTrue();
        assertThat(Opinion.AGAINST.asksWords()).isTrue();
    }

    private static String code(Optional<Refusal> refusal) {
        return refusal.map(Refusal::code).orElse("");
    }
}
