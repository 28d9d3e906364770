package mintshelf.core.house;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import mintshelf.core.base.Refusal;
import mintshelf.core.house.ChangeControlRule.Sentence;
import mintshelf.core.house.ChangeControlRule.Starts;
import mintshelf.core.signoff.Asked;
import org.junit.jupiter.api.Test;

class ChangeControlRuleTest {
    private static final Asked CHECKING = new Asked(Asked.Kind.GROUP, "7");

    private static Sentence sentence(String kind, String shelf, Starts starts) {
        return new Sentence(kind, shelf, starts, Optional.empty(), Optional.empty());
    }

    private static List<String> reasons(Sentence... sentences) {
        return new ChangeControlRule(List.of(sentences))
                .ask(RulesTest.HOUSE).stream().map(Refusal::reason).toList();
    }

    @Test
    void theFirstSentenceThatFitsDecides() {
        ChangeControlRule rule = new ChangeControlRule(List.of(
                sentence("drawing", "1", Starts.BY_HAND),
                sentence("drawing", "", Starts.BY_ORDER),
                new Sentence("", "1", Starts.BY_SOME, Optional.of(CHECKING), Optional.empty())));
        assertThat(rule.of("drawing", 1).starts()).isEqualTo(Starts.BY_HAND);
        assertThat(rule.of("drawing", 2).starts()).isEqualTo(Starts.BY_ORDER);
        assertThat(rule.of("template", 1).some()).contains(CHECKING);
        assertThat(rule.of("template", 2)).isEqualTo(ChangeControlRule.USUAL);
        assertThat(rule.ask(RulesTest.HOUSE)).isEmpty();
    }

    @Test
    void itSaysItInSentences() {
        assertThat(new ChangeControlRule(List.of(
                                sentence("drawing", "1", Starts.BY_ORDER),
                                new Sentence("", "", Starts.BY_SOME, Optional.of(CHECKING), Optional.of(CHECKING))))
                        .lines(RulesTest.HOUSE))
                .extracting(RuleLine::says)
                .containsExactly(
                        "Of a drawing on TG40 Tide gauge: an order over requests starts the next revision.",
                        "Of any document: of those who may change it, only these start the next revision: the group Checking; told is the group Checking.");
    }

    @Test
    void whatIsNeverReachedNamesNobodyOrDoesNotSayWhoIsRefused() {
        assertThat(reasons(sentence("", "", Starts.BY_HAND), sentence("drawing", "1", Starts.BY_ORDER)))
                .containsExactly("Sentence 2 is never reached: sentence 1 decides first.");
        assertThat(reasons(sentence("drawing", "", Starts.BY_HAND), sentence("", "1", Starts.BY_ORDER)))
                .as("they cross, and neither covers the other")
                .isEmpty();
        assertThat(reasons(sentence("nothing", "9", Starts.BY_ORDER)))
                .containsExactly(
                        "Sentence 1 names a kind that is not there.", "Sentence 1 names a shelf that is not there.");
        assertThat(reasons(sentence("", "", Starts.BY_SOME))).containsExactly("Sentence 1 does not say who may.");
        assertThat(reasons(new Sentence(
                        "",
                        "",
                        Starts.BY_SOME,
                        Optional.of(new Asked(Asked.Kind.PERSON, "99")),
                        Optional.of(new Asked(Asked.Kind.ROLE, "none")))))
                .containsExactly(
                        "Sentence 1 names whom nobody knows here: 99.",
                        "Sentence 1 names whom nobody knows here: none.");
    }
}
