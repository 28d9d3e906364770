package mintshelf.core.redline;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.access.Access;
import mintshelf.core.access.Grant;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import mintshelf.core.access.Role;
import mintshelf.core.access.Scope;
import mintshelf.core.base.Refusal;
import mintshelf.core.drawing.Box;
import mintshelf.core.redline.Remark.State;
import org.junit.jupiter.api.Test;

class RemarkRulesTest {
    private static final long HEDDA = 1;
    private static final long PRIYA = 2;

    static Remark remark(Mark mark, State state, Remark.Reply... replies) {
        return remark(mark, state, "Round this edge", replies);
    }

    static Remark remark(Mark mark, State state, String line, Remark.Reply... replies) {
        return new Remark(
                7,
                "7f5d7a3e-0000-4000-8000-000000000007",
                70,
                3,
                "Model",
                "C4-2",
                Remark.Kind.CHANGE,
                state,
                line,
                "",
                HEDDA,
                "Hedda Lysgaard",
                "",
                Optional.empty(),
                Instant.EPOCH,
                mark,
                Box.EMPTY,
                List.of(replies));
    }

    private static Remark in(State state, Remark.Reply... replies) {
        return remark(Sheets.mark(Tool.NOTE, Sheets.scene(Sheets.plate()), 50, 50), state, replies);
    }

    private static Access access(long person, Right... rights) {
        Role role = new Role("r", "R", Set.of(rights));
        return new Access(
                person, "P", rights.length == 0 ? List.of() : List.of(new Grant(1, "P", role, Scope.EVERYWHERE, "")));
    }

    private static final Place PLACE = new Place(1, List.of(2L), 3);

    private static String set(Remark remark, State to, String why, Access access) {
        return RemarkRules.set(remark, to, why, access, PLACE)
                .map(Refusal::code)
                .orElse("");
    }

    @Test
    void whoMayRedlineMarks() {
        assertThat(RemarkRules.mark(access(PRIYA, Right.REDLINE, Right.SEE_ALL), PLACE))
                .isEmpty();
        assertThat(RemarkRules.mark(access(PRIYA, Right.REDLINE, Right.SEE_RELEASED), PLACE))
                .isPresent();
        assertThat(RemarkRules.mark(access(PRIYA, Right.CHANGE), PLACE)).isPresent();
        assertThat(RemarkRules.mark(access(PRIYA), PLACE)).isPresent();
    }

    @Test
    void itsAuthorOrWhoeverChangesTheDocumentSetsItDone() {
        Remark open = in(State.OPEN);
        assertThat(set(open, State.DONE, "", access(HEDDA, Right.REDLINE))).isEmpty();
        assertThat(set(open, State.DONE, "", access(PRIYA, Right.CHANGE))).isEmpty();
        assertThat(set(open, State.DONE, "", access(PRIYA, Right.REDLINE))).isEqualTo("access.missing");
        assertThat(set(in(State.DONE), State.DONE, "", access(HEDDA))).isEqualTo("remark.already");
    }

    @Test
    void decliningNeedsWords() {
        assertThat(set(in(State.OPEN), State.DECLINED, " ", access(PRIYA, Right.CHANGE)))
                .isEqualTo("remark.why");
        assertThat(set(in(State.ANSWERED), State.DECLINED, "Not ours", access(PRIYA, Right.CHANGE)))
                .isEmpty();
    }

    @Test
    void onlyItsAuthorWithdrawsItAndTakesThatBack() {
        assertThat(set(in(State.OPEN), State.WITHDRAWN, "", access(PRIYA, Right.CHANGE)))
                .isEqualTo("remark.others");
        assertThat(set(in(State.DONE), State.WITHDRAWN, "", access(HEDDA))).isEmpty();
        assertThat(set(in(State.WITHDRAWN), State.OPEN, "", access(PRIYA, Right.CHANGE)))
                .isEqualTo("remark.others");
        assertThat(set(in(State.WITHDRAWN), State.OPEN, "", access(HEDDA))).isEmpty();
        assertThat(set(in(State.WITHDRAWN), State.DONE, "", access(HEDDA))).isEqualTo("remark.withdrawn");
    }

    @Test
    void whatIsClosedIsOpenedAgainByWhoeverMayTalk() {
        assertThat(set(in(State.DONE), State.OPEN, "", access(PRIYA, Right.REDLINE)))
                .isEmpty();
        assertThat(set(in(State.DONE), State.OPEN, "", access(PRIYA))).isEqualTo("access.missing");
        assertThat(set(in(State.ANSWERED), State.OPEN, "", access(HEDDA))).isEqualTo("remark.already");
        assertThat(set(in(State.OPEN), State.ANSWERED, "", access(HEDDA))).isEqualTo("remark.state");
    }

    @Test
    void anothersReplyAnswersItItsAuthorsAsksAgain() {
        assertThat(RemarkRules.afterReply(in(State.OPEN), PRIYA)).isEqualTo(State.ANSWERED);
        assertThat(RemarkRules.afterReply(in(State.ANSWERED), HEDDA)).isEqualTo(State.OPEN);
        assertThat(RemarkRules.afterReply(in(State.DONE), PRIYA)).isEqualTo(State.DONE);
        assertThat(RemarkRules.reply(in(State.WITHDRAWN), access(PRIYA, Right.REDLINE), PLACE))
                .isPresent();
        assertThat(RemarkRules.reply(in(State.DONE), access(PRIYA, Right.CHANGE), PLACE))
                .isEmpty();
        assertThat(RemarkRules.reply(in(State.OPEN), access(PRIYA), PLACE)).isPresent();
    }

    @Test
    void onlyItsAuthorWritesItAnewWhileNobodyAnswered() {
        Remark.Reply other = new Remark.Reply("a", PRIYA, "Priya", Instant.EPOCH, "Why?", Optional.empty());
        Remark.Reply own = new Remark.Reply("b", HEDDA, "Hedda", Instant.EPOCH, "And", Optional.empty());
        assertThat(RemarkRules.edit(in(State.OPEN), access(HEDDA))).isEmpty();
        assertThat(RemarkRules.edit(in(State.OPEN, own), access(HEDDA))).isEmpty();
        assertThat(RemarkRules.edit(in(State.OPEN, other), access(HEDDA))).isPresent();
        assertThat(RemarkRules.edit(in(State.DONE), access(HEDDA))).isPresent();
        assertThat(RemarkRules.edit(in(State.OPEN), access(PRIYA, Right.CHANGE)))
                .isPresent();
    }

    @Test
    void onlyOpenChangesAreInTheWay() {
        assertThat(in(State.OPEN).isOpenChange()).isTrue();
        assertThat(in(State.ANSWERED).isOpenChange()).isTrue();
        assertThat(in(State.DONE).isOpenChange()).isFalse();
        assertThat(in(State.OPEN).initials()).isEqualTo("HL");
    }
}
