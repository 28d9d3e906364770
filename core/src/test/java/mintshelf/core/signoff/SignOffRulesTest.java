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
                Optional.empty(),
                Set.of());
    }

    private static Access with(long person, String role, Scope scope) {
        return new Access(person, "P", List.of(new Grant(1, "x", new Role(role, role, Set.of(Right.SIGN)), scope, "")));
    }

    private static SignOff answer(Ask ask, long person, Decision decision) {
        return new SignOff(ask.id(), person, "Person " + person, decision, "", THEN, Optional.empty(), "", "");
    }

    private static Round round(List<Ask> asks, SignOff... given) {
        return new Round(
                1,
                1,
                PRIYA,
                "Priya",
                THEN,
                "",
                Round.State.OPEN,
                Policy.FIRST_RETURN,
                Optional.empty(),
                asks,
                List.of(given));
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

    private static Ask asked(Asked who, Optional<Long> person, Set<Long> members, boolean fourEyes) {
        return new Ask(
                21,
                new SignOffLine(1, who, 1, "seen", "", "", 2, fourEyes, false),
                who.kind() == Asked.Kind.GROUP ? "Checking" : "",
                person,
                person.map(p -> "Person " + p).orElse(""),
                DAY,
                Optional.empty(),
                members);
    }

    @Test
    void aGroupAsksThoseInItWhoMaySignAndAPersonThemselves() {
        Access hedda = with(HEDDA, "checker", Scope.EVERYWHERE);
        Ask group = asked(new Asked(Asked.Kind.GROUP, "7"), Optional.empty(), Set.of(HEDDA, PRIYA), true);
        assertThat(group.whom()).isEqualTo("one of Checking");
        assertThat(refused(round(List.of(group)), group, hedda)).isEmpty();
        assertThat(refused(round(List.of(group)), group, with(MARIT, "checker", Scope.EVERYWHERE)))
                .contains("sign.role");
        assertThat(refused(round(List.of(group)), group, new Access(HEDDA, "P", List.of())))
                .as("in the group, without the right")
                .contains("sign.role");
        assertThat(refused(round(List.of(group)), group, with(PRIYA, "checker", Scope.EVERYWHERE)))
                .contains("sign.own");
        Ask two = asked(new Asked(Asked.Kind.GROUP, "7"), Optional.empty(), Set.of(HEDDA, PRIYA), false);
        assertThat(refused(round(List.of(two)), two, with(PRIYA, "checker", Scope.EVERYWHERE)))
                .as("who prepared it may sign too")
                .isEmpty();
        Ask marit = asked(new Asked(Asked.Kind.PERSON, "2"), Optional.of(MARIT), Set.of(), true);
        assertThat(refused(round(List.of(marit)), marit, with(MARIT, "quality", Scope.EVERYWHERE)))
                .isEmpty();
        assertThat(refused(round(List.of(marit)), marit, hedda)).contains("sign.other");
        Ask instead = asked(new Asked(Asked.Kind.PERSON, "2"), Optional.of(HEDDA), Set.of(), true);
        assertThat(refused(round(List.of(instead)), instead, hedda))
                .as("named in the rule's person's place")
                .isEmpty();
        Round abstained = round(List.of(marit), answer(marit, MARIT, Decision.ABSTAINED));
        assertThat(refused(abstained, marit, hedda)).as("nobody asked Hedda").contains("sign.role");
    }

    /** Everybody of the step is heard before a return ends the round; of the first return policy it ends at once. */
    @Test
    void everybodyIsHeardBeforeAReturnEndsTheRound() {
        Ask also = ask(13, 1, "board-member", 2, "seen", Optional.empty());
        Round patient = new Round(
                1,
                1,
                PRIYA,
                "P",
                THEN,
                "",
                Round.State.OPEN,
                Policy.EVERYBODY_HEARD,
                Optional.empty(),
                List.of(CHECK, also, APPROVE),
                List.of(answer(CHECK, HEDDA, Decision.RETURNED)));
        assertThat(patient.goesBack()).isFalse();
        assertThat(patient.waiting()).containsExactly(also);
        assertThat(patient.lacks(CHECK)).as("its answer is a return").isZero();
        Round heard = new Round(
                1,
                1,
                PRIYA,
                "P",
                THEN,
                "",
                Round.State.OPEN,
                Policy.EVERYBODY_HEARD,
                Optional.empty(),
                List.of(CHECK, also, APPROVE),
                List.of(
                        answer(CHECK, HEDDA, Decision.RETURNED),
                        answer(also, MARIT, Decision.SIGNED),
                        answer(also, LEAD, Decision.RETURNED)));
        assertThat(heard.goesBack()).as("the second step is not asked").isTrue();
        assertThat(heard.returns()).extracting(SignOff::person).containsExactly(HEDDA, LEAD);
        assertThat(round(List.of(CHECK, also), answer(CHECK, HEDDA, Decision.RETURNED))
                        .goesBack())
                .isTrue();
        assertThat(round(List.of(CHECK), answer(CHECK, HEDDA, Decision.SIGNED)).goesBack())
                .isFalse();
    }

    @Test
    void theMoreCarefulOfTwoLinesHolds() {
        SignOffLine plain = new SignOffLine(1, "checker", 1, "checked", "by", "at", 3);
        SignOffLine strict =
                new SignOffLine(2, new Asked(Asked.Kind.ROLE, "checker"), 0, "checked", "by", "at", 1, true, true);
        assertThat(SignOffRules.union(List.of(List.of(plain), List.of(strict)))).containsExactly(strict);
    }

    @Test
    void aRoundThatEndedWaitsForNobody() {
        Round ended = new Round(
                1,
                1,
                PRIYA,
                "P",
                THEN,
                "",
                Round.State.RETURNED,
                Policy.FIRST_RETURN,
                Optional.of(THEN),
                List.of(CHECK),
                List.of());
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
        assertThat(WorkingDays.USUAL.due(friday, 0)).isEqualTo(friday);
        assertThat(WorkingDays.USUAL.due(friday, 1)).isEqualTo(LocalDate.parse("2026-11-23"));
        assertThat(WorkingDays.USUAL.due(friday, 6)).isEqualTo(LocalDate.parse("2026-11-30"));
        assertThat(WorkingDays.USUAL.due(LocalDate.parse("2026-11-22"), 1)).isEqualTo(LocalDate.parse("2026-11-23"));
    }
}
