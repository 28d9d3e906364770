package mintshelf.core.signoff;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.access.Access;
import mintshelf.core.access.Grant;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import mintshelf.core.access.Role;
import mintshelf.core.access.Scope;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Refusal;
import mintshelf.core.route.SignOffLine;
import org.junit.jupiter.api.Test;

class SignOffRulesTest {
    private static final Instant THEN = Instant.parse("2026-11-17T08:00:00Z");
    private static final LocalDate DAY = LocalDate.parse("2026-11-19");
    private static final Place PLACE = new Place(1, List.of(10L), 7);
    private static final long HEDDA = 1;
    private static final long MARIT = 2;
    private static final long LEAD = 3;
    private static final long PRIYA = 4;
    private static final Ask CHECK = ask(11, 1, "checker", 1, "checked", Optional.empty());
    private static final Ask APPROVE = ask(12, 2, "board-member", 1, "approved", Optional.empty());

    private static Ask ask(long id, int step, String role, int needed, String meaning, Optional<Long> person) {
        return new Ask(
                id,
                new SignOffLine(step, role, needed, meaning, meaning + "_by", meaning, 2),
                role.replace('-', ' '),
                person,
                person.map(p -> "Person " + p).orElse(""),
                DAY,
                Optional.empty());
    }

    private static Access with(long person, String role, Scope scope) {
        return new Access(person, "P", List.of(new Grant(1, "x", new Role(role, role, Set.of(Right.SIGN)), scope, "")));
    }

    private static SignOff answer(Ask ask, long person, Decision decision) {
        return new SignOff(ask.id(), person, "Person " + person, decision, "", THEN, Optional.empty(), "", "");
    }

    private static Round round(List<Ask> asks, SignOff... given) {
        return new Round(1, 1, PRIYA, "Priya", THEN, "", Round.State.OPEN, Optional.empty(), asks, List.of(given));
    }

    private static Optional<String> refused(Round round, Ask ask, Access access) {
        return SignOffRules.ask(round, ask, access, Set.of(PRIYA), List.of(PLACE), DAY)
                .map(Refusal::code);
    }

    @Test
    void stepsAreAskedOneAfterTheOther() {
        Round fresh = round(List.of(APPROVE, CHECK));
        assertThat(fresh.waiting()).containsExactly(CHECK);
        assertThat(refused(fresh, APPROVE, with(LEAD, "board-member", Scope.EVERYWHERE)))
                .contains("sign.step");
        Round checked = round(List.of(CHECK, APPROVE), answer(CHECK, HEDDA, Decision.REMARKED));
        assertThat(SignOffRules.opened(fresh, checked)).containsExactly(APPROVE);
        Round all = round(
                List.of(CHECK, APPROVE), answer(CHECK, HEDDA, Decision.SIGNED), answer(APPROVE, LEAD, Decision.SIGNED));
        assertThat(all.openStep()).isEmpty();
        assertThat(all.missing()).isEmpty();
    }

    @Test
    void onlyTheRoleAtThePlaceAnswers() {
        Round round = round(List.of(CHECK));
        assertThat(refused(round, CHECK, with(HEDDA, "checker", Scope.EVERYWHERE)))
                .isEmpty();
        assertThat(refused(round, CHECK, with(HEDDA, "checker", Scope.shelf(2))))
                .contains("sign.role");
        assertThat(refused(round, CHECK, with(LEAD, "board-member", Scope.EVERYWHERE)))
                .contains("sign.role");
    }

    @Test
    void whoWorkedOnARevisionDoesNotSignIt() {
        assertThat(refused(round(List.of(CHECK)), CHECK, with(PRIYA, "checker", Scope.EVERYWHERE)))
                .contains("sign.own");
    }

    @Test
    void aNamedPersonIsAskedAloneUntilTheyAbstain() {
        Ask named = ask(11, 1, "checker", 1, "checked", Optional.of(MARIT));
        Access hedda = with(HEDDA, "checker", Scope.EVERYWHERE);
        assertThat(refused(round(List.of(named)), named, hedda)).contains("sign.other");
        Round abstained = round(List.of(named), answer(named, MARIT, Decision.ABSTAINED));
        assertThat(refused(abstained, named, hedda)).isEmpty();
        assertThat(refused(abstained, named, with(MARIT, "checker", Scope.EVERYWHERE)))
                .contains("sign.done");
        assertThat(abstained.missing()).hasSize(1);
    }

    @Test
    void whoIsNamedAnswersTheirOwnAskBeforeOneThatAnybodyMayAnswer() {
        Ask hers = ask(13, 1, "checker", 1, "checked", Optional.of(HEDDA));
        Access hedda = with(HEDDA, "checker", Scope.EVERYWHERE);
        Access marit = with(MARIT, "checker", Scope.EVERYWHERE);
        Round open = round(List.of(CHECK, hers, APPROVE));
        assertThat(SignOffRules.waitingFor(open, hedda, Set.of(), List.of(PLACE), DAY))
                .contains(hers);
        assertThat(SignOffRules.waitingFor(open, marit, Set.of(), List.of(PLACE), DAY))
                .contains(CHECK);
        Round half = round(List.of(CHECK, hers, APPROVE), answer(hers, HEDDA, Decision.SIGNED));
        assertThat(SignOffRules.waitingFor(half, hedda, Set.of(), List.of(PLACE), DAY))
                .isEmpty();
        assertThat(half.openStep()).contains(1);
    }

    @Test
    void onePersonSignsOnceInARound() {
        List<Grant> both =
                new ArrayList<>(with(HEDDA, "checker", Scope.EVERYWHERE).grants());
        both.addAll(with(HEDDA, "board-member", Scope.EVERYWHERE).grants());
        Round checked = round(List.of(CHECK, APPROVE), answer(CHECK, HEDDA, Decision.SIGNED));
        assertThat(refused(checked, APPROVE, new Access(HEDDA, "H", both))).contains("sign.done");
    }

    @Test
    void severalOfARoleMayBeNeeded() {
        Ask two = ask(11, 1, "checker", 2, "checked", Optional.empty());
        Round half = round(List.of(two, APPROVE), answer(two, HEDDA, Decision.SIGNED));
        assertThat(half.lacks(two)).isEqualTo(1);
        assertThat(half.waiting()).containsExactly(two);
        assertThat(refused(half, two, with(MARIT, "checker", Scope.EVERYWHERE))).isEmpty();
    }

    @Test
    void whatFellIsAskedAgainOfTheSamePerson() {
        SignOff fell = new SignOff(
                11, HEDDA, "Hedda", Decision.SIGNED, "", THEN, Optional.of(THEN), "Material 316L → 304", "");
        Round round = round(List.of(CHECK, APPROVE), fell);
        assertThat(round.waiting()).containsExactly(CHECK);
        assertThat(refused(round, CHECK, with(HEDDA, "checker", Scope.EVERYWHERE)))
                .isEmpty();
    }

    @Test
    void aRoundThatEndedWaitsForNobody() {
        Round ended = new Round(
                1, 1, PRIYA, "P", THEN, "", Round.State.RETURNED, Optional.of(THEN), List.of(CHECK), List.of());
        assertThat(ended.waiting()).isEmpty();
        assertThat(refused(ended, CHECK, with(HEDDA, "checker", Scope.EVERYWHERE)))
                .contains("round.ended");
    }

    @Test
    void theDigestSeesContentFactsComponentsNumberAndTitle() {
        ContentHash content = ContentHash.compute(new byte[] {1});
        ContentHash base =
                SignOffRules.digest(content, Map.of("material", "316L"), Map.of(), "TG40-3030", "Gland plate");
        assertThat(List.of(
                        SignOffRules.digest(
                                ContentHash.compute(new byte[] {2}),
                                Map.of("material", "316L"),
                                Map.of(),
                                "TG40-3030",
                                "Gland plate"),
                        SignOffRules.digest(
                                content,
                                Map.of("material", "316L"),
                                Map.of("tg40-3050.stp", content),
                                "TG40-3030",
                                "Gland plate"),
                        SignOffRules.digest(content, Map.of("material", "304"), Map.of(), "TG40-3030", "Gland plate"),
                        SignOffRules.digest(content, Map.of(), Map.of(), "TG40-3030", "Gland plate"),
                        SignOffRules.digest(content, Map.of("material", "316L"), Map.of(), "TG40-3031", "Gland plate"),
                        SignOffRules.digest(content, Map.of("material", "316L"), Map.of(), "TG40-3030", "Gland")))
                .doesNotContain(base)
                .doesNotHaveDuplicates();
    }

    @Test
    void dueDaysSkipTheWeekend() {
        LocalDate friday = LocalDate.parse("2026-11-20");
        assertThat(SignOffRules.due(friday, 0)).isEqualTo(friday);
        assertThat(SignOffRules.due(friday, 1)).isEqualTo(LocalDate.parse("2026-11-23"));
        assertThat(SignOffRules.due(friday, 6)).isEqualTo(LocalDate.parse("2026-11-30"));
        assertThat(SignOffRules.due(LocalDate.parse("2026-11-22"), 1)).isEqualTo(LocalDate.parse("2026-11-23"));
    }
}
