package mintshelf.core.search;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.FactForm;
import mintshelf.core.fact.FactType;
import mintshelf.core.fact.FactUse;
import org.junit.jupiter.api.Test;

class QuestionTest {
    private static final Instant NOW = Instant.parse("2026-11-24T08:00:00Z");
    private static final FactDefinition MATERIAL = fact(1, "material", "Material", FactType.TEXT, "");
    private static final FactDefinition MASS = fact(2, "mass", "Mass", FactType.NUMBER, "kg");
    private static final FactDefinition DUE = fact(3, "due_day", "Due day", FactType.DATE, "");

    private static FactDefinition fact(long id, String name, String label, FactType type, String unit) {
        return new FactDefinition(id, name, label, new FactForm(type, unit, "", List.of(), "", ""), FactUse.USUAL);
    }

    private static final Known KNOWN = new Known() {
        @Override
        public List<FactDefinition> facts() {
            return List.of(MATERIAL, MASS, DUE);
        }

        @Override
        public List<Named> stages() {
            return List.of(
                    new Named("1/prep", "In preparation", "prep"),
                    new Named("1/rev", "In review", "rev"),
                    new Named("2/rev", "In review", "rev"));
        }

        @Override
        public List<Named> kinds() {
            return List.of(new Named("7", "drawing", "drawing"), new Named("8", "part model", "part-model"));
        }

        @Override
        public List<Named> shelves() {
            return List.of(new Named("4", "TG40 Tide gauge", ""));
        }

        @Override
        public List<Named> folders() {
            return List.of(new Named("41", "1000 Stilling well", ""));
        }

        @Override
        public List<Named> people(String said) {
            return said.equalsIgnoreCase("priya") ? List.of(new Named("11", "Priya Malhan", "priya")) : List.of();
        }

        @Override
        public Named me() {
            return new Named("12", "Ines Kallmar", "ines");
        }
    };

    private static Question ask(String text) {
        return Question.of(SearchText.read(text), KNOWN, NOW, ZoneId.of("UTC"));
    }

    private static String says(String text) {
        Question q = ask(text);
        return q.notUnderstood().isEmpty()
                ? String.join(
                        " · ", q.conditions().stream().map(Condition::says).toList())
                : "? " + String.join(" · ", q.notUnderstood());
    }

    private static Wanted wanted(String text) {
        assertThat(ask(text).notUnderstood()).as(text).isEmpty();
        return ask(text).conditions().get(0).wanted();
    }

    @Test
    void chipsReadAsSentences() {
        assertThat(says("stage:\"in review\",\"in prep\" held:me material:316L mass>2 rev:B kind:drawing on:TG40"))
                .isEqualTo(
                        "in review or in preparation · held by me · material 316L · mass over 2 kg · revision B · drawing"
                                + " · on TG40 Tide gauge");
        assertThat(says("changed>2026-11-01 text:\"hole pattern\" -held:priya is:released,superseded in:1000"))
                .isEqualTo("changed after 1 Nov 2026 · says “hole pattern” · not held by Priya Malhan · released or"
                        + " superseded · in 1000 Stilling well");
        assertThat(
                        says(
                                "held>7d changed>=today released:7d waits:me sent:me number:TG40-30 mass:2..5kg material:* -plate"))
                .isEqualTo(
                        "held for over 7 days · changed since today · released in the last 7 days · waits for me · sent by"
                                + " me · number TG40-30 · mass 2 to 5 kg · with material · without “-plate”"
                                        .replace("“-", "“"));
        assertThat(says("due-day<2026-12 \"Due day\"")).isEqualTo("due day before 2026-12 · “Due day”");
    }

    @Test
    void whatIsNotKnownIsSaidWithWhatThereIs() {
        assertThat(says("stage:parked"))
                .isEqualTo("? stage:parked: “parked” is none; there are in preparation, in review");
        assertThat(says("held:otto")).contains("“otto” is nobody here");
        assertThat(says("mass>heavy")).contains("“heavy” is no number in kg");
        assertThat(says("mass:NaN")).contains("no number");
        assertThat(says("mass:1,5")).contains("one number at a time");
        assertThat(says("material>316")).contains("only numbers and days");
        assertThat(says("changed>soon")).contains("no day such as");
        assertThat(says("changed>2026-02-31")).contains("no day such as");
        assertThat(says("waits:priya")).contains("only “me”");
        assertThat(says("colour:red")).contains("nothing here is called “colour”");
        assertThat(says("kind:,")).isEqualTo("“kind:,”");
        assertThat(ask("plate colour:red").conditions()).hasSize(1);
    }

    @Test
    void stagesOfAllEditionsAreMeantByTheirName() {
        assertThat(wanted("stage:\"In Review\""))
                .isEqualTo(new Wanted.Among(Wanted.Field.STAGE, Set.of("1/rev", "2/rev")));
        assertThat(wanted("held:nobody")).isEqualTo(new Wanted.Among(Wanted.Field.HOLDER, Set.of("nobody")));
        assertThat(wanted("is:held")).isEqualTo(new Wanted.Among(Wanted.Field.HOLDER, Set.of()));
        assertThat(wanted("is:pending"))
                .isEqualTo(new Wanted.Among(Wanted.Field.STAGE_CLASS, Set.of("PREPARING", "DECIDING")));
    }

    @Test
    void timesAreStretchesWithEnds() {
        Instant day = Instant.parse("2026-11-01T00:00:00Z");
        Instant next = Instant.parse("2026-11-02T00:00:00Z");
        assertThat(wanted("changed:2026-11-01")).isEqualTo(within(day, next));
        assertThat(wanted("changed>2026-11-01")).isEqualTo(from(next));
        assertThat(wanted("changed>=2026-11-01")).isEqualTo(from(day));
        assertThat(wanted("changed<2026-11-01")).isEqualTo(until(day));
        assertThat(wanted("changed<=2026-11-01")).isEqualTo(until(next));
        assertThat(wanted("changed>2w")).isEqualTo(from(NOW.minus(Duration.ofDays(14))));
        assertThat(wanted("changed<2d")).isEqualTo(until(NOW.minus(Duration.ofDays(2))));
        assertThat(wanted("held>2d"))
                .as("longer is earlier")
                .isEqualTo(new Wanted.Within(
                        Wanted.Moment.HELD, Optional.empty(), Optional.of(NOW.minus(Duration.ofDays(2)))));
    }

    private static Wanted within(Instant from, Instant until) {
        return new Wanted.Within(Wanted.Moment.CHANGED, Optional.of(from), Optional.of(until));
    }

    private static Wanted from(Instant from) {
        return new Wanted.Within(Wanted.Moment.CHANGED, Optional.of(from), Optional.empty());
    }

    private static Wanted until(Instant until) {
        return new Wanted.Within(Wanted.Moment.CHANGED, Optional.empty(), Optional.of(until));
    }

    @Test
    void moreThanIsNotTheNumberItselfAndIsIs() {
        assertThat(holds("mass>2", 2)).isFalse();
        assertThat(holds("mass>=2", 2)).isTrue();
        assertThat(holds("mass<2", 2)).isFalse();
        assertThat(holds("mass<=2kg", 2)).isTrue();
        assertThat(holds("mass:0.3", 0.1 + 0.2)).isTrue();
        assertThat(holds("mass:2..5", 5)).isTrue();
        assertThat(holds("mass:2..5", 5.001)).isFalse();
        double day = 20_000; // 2024-10-04
        assertThat(holds("due_day:2024-10", day)).isTrue();
        assertThat(holds("due_day>2024-10-04", day)).isFalse();
        assertThat(holds("due_day<=2024-10-04", day)).isTrue();
    }

    private static boolean holds(String text, double value) {
        Wanted.FactWithin within = (Wanted.FactWithin) wanted(text);
        return within.least() <= value && value <= within.most();
    }

    @Test
    void aChipIsTakenOutAndAnotherPutIn() {
        Question q = ask("plate stage:\"in review\" colour:red -held:me");
        assertThat(q.without(q.conditions().get(1))).isEqualTo("plate -held:me");
        assertThat(q.with("kind:drawing")).isEqualTo("plate stage:\"in review\" -held:me kind:drawing");
        assertThat(ask("").with("kind:drawing")).isEqualTo("kind:drawing");
        assertThat(Question.typed("part model")).isEqualTo("\"part model\"");
        assertThat(Question.typed("a\"b,c")).isEqualTo("\"ab,c\"");
        assertThat(Question.typed("B")).isEqualTo("B");
        assertThat(q.words()).containsExactly("plate");
    }
}
