package mintshelf.core.signoff;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** Answers on several documents: whole when one person has answered all of them. */
class AnswersTest {
    private static final Instant THEN = Instant.parse("2026-11-26T08:00:00Z");

    private static Answers.Given given(long ask, long person, long item, Decision decision, String remark) {
        return new Answers.Given(
                ask,
                person,
                "Person " + person,
                item,
                decision,
                remark,
                THEN.plusSeconds(item),
                Optional.empty(),
                "",
                "");
    }

    private static Answers.Given signed(long person, long item) {
        return given(1, person, item, Decision.SIGNED, "");
    }

    @Test
    void whatStandsOnEveryDocumentIsWholeTheOtherIsBegun() {
        Answers answers = Answers.of(List.of(signed(7, 1), signed(8, 1), signed(7, 2), signed(7, 3)), 3);
        assertThat(answers.whole()).extracting(SignOff::person).containsExactly(7L);
        assertThat(answers.whole().get(0).at()).as("when the last was signed").isEqualTo(THEN.plusSeconds(3));
        assertThat(answers.begun()).extracting(Answers.Begun::person).containsExactly(8L);
        assertThat(answers.begun().get(0).items()).containsExactly(1L);
    }

    @Test
    void aRemarkOnOneSheetIsARemarkAndTheSameWordsStandOnce() {
        Answers answers = Answers.of(
                List.of(
                        given(1, 7, 1, Decision.SIGNED, ""),
                        given(1, 7, 2, Decision.REMARKED, "Round the edge."),
                        given(1, 7, 3, Decision.SIGNED, ""),
                        given(1, 7, 4, Decision.REMARKED, "Round the edge.")),
                4);
        assertThat(answers.whole().get(0).decision()).isEqualTo(Decision.REMARKED);
        assertThat(answers.whole().get(0).remark()).isEqualTo("Round the edge.");
    }

    @Test
    void whatFellIsNoPartOfWhatIsGivenAgain() {
        Answers.Given fell = new Answers.Given(
                1, 7, "Person 7", 1, Decision.SIGNED, "", THEN, Optional.of(THEN.plusSeconds(9)), "changed", "");
        Answers answers = Answers.of(List.of(fell, signed(7, 2)), 2);
        assertThat(answers.whole()).isEmpty();
        assertThat(answers.begun()).hasSize(1);
        assertThat(answers.begun().get(0).items()).containsExactly(2L);
        assertThat(Answers.of(List.of(fell, signed(7, 2), signed(7, 1)), 2).whole())
                .extracting(SignOff::stands)
                .containsExactly(true);
    }

    @Test
    void aSheetAmongOthersAnswersNothingAndTheLastOneDoes() {
        Ask ask = new Ask(
                1,
                new SignOffLine(1, "checker", 1, "checked", "", "", 2),
                "Checker",
                Optional.empty(),
                "",
                java.time.LocalDate.EPOCH,
                Optional.empty(),
                Set.of());
        Round half = round(ask, Answers.of(List.of(signed(7, 1)), 2));
        assertThat(half.lacks(ask)).isEqualTo(1);
        assertThat(half.waiting()).containsExactly(ask);
        assertThat(half.signedBy(ask, 7)).containsExactly(1L);
        assertThat(half.signedBy(ask, 8)).isEmpty();
        assertThat(half.begun(ask)).hasSize(1);
        Round other = round(ask, Answers.of(List.of(signed(7, 1), signed(8, 1), signed(8, 2)), 2));
        assertThat(other.lacks(ask)).isZero();
        assertThat(other.begun(ask)).as("somebody else answered it").isEmpty();
    }

    private static Round round(Ask ask, Answers answers) {
        return new Round(
                1,
                1,
                9,
                "P",
                THEN,
                "",
                Round.State.OPEN,
                Policy.FIRST_RETURN,
                Optional.empty(),
                List.of(ask),
                answers.whole(),
                answers.begun());
    }

    /** In whatever order: never whole twice, never both, and whole exactly where every document is there. */
    @Test
    void whateverTheOrderAnAnswerIsWholeExactlyWhenNothingLacks() {
        for (int seed = 0; seed < 300; seed++) {
            Random random = new Random(seed);
            int documents = 1 + random.nextInt(5);
            List<Answers.Given> all = new ArrayList<>();
            Map<Long, Set<Long>> by = new HashMap<>();
            for (int i = 0; i < 20; i++) {
                long person = 1L + random.nextInt(4);
                long item = 1L + random.nextInt(documents);
                if (by.computeIfAbsent(person, p -> new HashSet<>()).add(item)) all.add(signed(person, item));
            }
            Answers answers = Answers.of(all, documents);
            for (long person = 1; person <= 4; person++) {
                long who = person;
                int has = by.getOrDefault(who, Set.of()).size();
                assertThat(answers.whole().stream()
                                .filter(s -> s.person() == who)
                                .count())
                        .as("seed %d", seed)
                        .isEqualTo(has == documents ? 1 : 0);
                assertThat(answers.begun().stream()
                                .filter(b -> b.person() == who)
                                .count())
                        .isEqualTo(has > 0 && has < documents ? 1 : 0);
            }
        }
    }
}
