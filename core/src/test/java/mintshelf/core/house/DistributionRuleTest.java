package mintshelf.core.house;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import mintshelf.core.house.DistributionRule.Sentence;
import mintshelf.core.house.DistributionRule.Way;
import mintshelf.core.notice.MailTime;
import mintshelf.core.notice.Moment;
import mintshelf.core.signoff.Asked;
import org.junit.jupiter.api.Test;

/** Who is told of what, in sentences, and what a house does not keep. */
class DistributionRuleTest {
    private static final Asked CHECKING = new Asked(Asked.Kind.GROUP, "7");
    private static final Sentence SHOP = new Sentence(Moment.RELEASE, "drawing", "1", CHECKING);

    private static List<String> wrong(Sentence... sentences) {
        return RulesTest.codes(new DistributionRule(List.of(sentences)));
    }

    @Test
    void itIsReadInSentences() {
        DistributionRule rule = new DistributionRule(
                List.of(SHOP, new Sentence(Moment.STAGE, "", "", new Asked(Asked.Kind.PERSON, "3"))));
        assertThat(rule.lines(RulesTest.HOUSE))
                .extracting(RuleLine::says)
                .containsExactly(
                        "When a revision comes into force, or out of it, of a drawing on TG40 Tide gauge: the group"
                                + " Checking is told.",
                        "When it moves along its route, of any document: Marit Solvang is told.");
        assertThat(rule.ask(RulesTest.HOUSE)).isEmpty();
    }

    @Test
    void aSentenceIsAboutItsMomentItsKindAndItsShelf() {
        assertThat(SHOP.isAbout(Moment.RELEASE, "drawing", 1)).isTrue();
        assertThat(SHOP.isAbout(Moment.VERSION, "drawing", 1)).isFalse();
        assertThat(SHOP.isAbout(Moment.RELEASE, "template", 1)).isFalse();
        assertThat(SHOP.isAbout(Moment.RELEASE, "drawing", 11)).isFalse();
        assertThat(new Sentence(Moment.RELEASE, "", "", CHECKING).isAbout(Moment.RELEASE, "any", 99))
                .isTrue();
    }

    @Test
    void theHouseSaysWhenAndWithWhat() {
        DistributionRule rule = new DistributionRule(List.of(
                new Sentence(Moment.RELEASE, "", "", CHECKING, Way.PDF, Optional.of(MailTime.DAILY)),
                new Sentence(Moment.STAGE, "", "", CHECKING, Way.LINK, Optional.of(MailTime.AT_ONCE))));
        assertThat(rule.lines(RulesTest.HOUSE))
                .extracting(RuleLine::says)
                .containsExactly(
                        "When a revision comes into force, or out of it, of any document: the group Checking is told"
                                + " each morning, together, with the sheet as PDF.",
                        "When it moves along its route, of any document: the group Checking is told at once.");
        assertThat(rule.ask(RulesTest.HOUSE)).isEmpty();
    }

    /** What is in preparation is looked at here by whoever may; its bytes go to nobody by themselves. */
    @Test
    void onlyWhatIsInForceGoesOutAsAFile() {
        for (Moment moment : Moment.values()) {
            for (Way way : Way.values()) {
                assertThat(wrong(new Sentence(moment, "", "", CHECKING, way, Optional.empty())))
                        .hasSize(way.sends() && moment != Moment.RELEASE ? 1 : 0);
            }
        }
        assertThat(wrong(new Sentence(Moment.RELEASE, "", "", CHECKING, Way.LINK, Optional.of(MailTime.NEVER))))
                .hasSize(1);
    }

    @Test
    void whatNamesNobodyOrNothingIsNotKept() {
        assertThat(wrong(SHOP, SHOP)).as("twice").hasSize(1);
        assertThat(wrong(new Sentence(Moment.RELEASE, "gone", "", CHECKING))).hasSize(1);
        assertThat(wrong(new Sentence(Moment.RELEASE, "", "9", CHECKING))).hasSize(1);
        assertThat(wrong(new Sentence(Moment.RELEASE, "", "", new Asked(Asked.Kind.ROLE, "gone"))))
                .hasSize(1);
        assertThat(wrong()).as("nobody is told").isEmpty();
    }
}
