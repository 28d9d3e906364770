package mintshelf.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.base.Refusal;
import org.junit.jupiter.api.Test;

class JobTest {
    private static final LocalDate TODAY = LocalDate.of(2026, 11, 24);

    private static Job job(Optional<Long> person, Job.State state) {
        return new Job(
                1,
                Optional.empty(),
                "thread M6",
                person.isPresent() ? Optional.empty() : Optional.of(9L),
                person,
                Optional.of(TODAY),
                state,
                5,
                Instant.EPOCH,
                Map.of(3L, Optional.empty()));
    }

    private static String code(Optional<Refusal> refusal) {
        return refusal.map(Refusal::code).orElse("");
    }

    @Test
    void theDueDayItselfIsNotLate() {
        Job job = job(Optional.of(6L), Job.State.GIVEN);
        assertThat(job.isLate(TODAY)).isFalse();
        assertThat(job.isLate(TODAY.plusDays(1))).isTrue();
        assertThat(job(Optional.of(6L), Job.State.DONE).isLate(TODAY.plusDays(9)))
                .isFalse();
    }

    @Test
    void itsPersonBeginsItAndOfAGroupWhoeverIsFirst() {
        Job named = job(Optional.of(6L), Job.State.GIVEN);
        assertThat(code(named.begin(6, Set.of(), "Tomasz"))).isEmpty();
        assertThat(named.begin(7, Set.of(7L), "Tomasz").map(Refusal::reason)).contains("Tomasz has this job.");
        Job open = job(Optional.empty(), Job.State.GIVEN);
        assertThat(code(open.begin(7, Set.of(6L, 7L), ""))).isEmpty();
        assertThat(code(open.begin(8, Set.of(6L, 7L), ""))).isEqualTo("job.group");
        assertThat(code(job(Optional.of(6L), Job.State.DONE).begin(6, Set.of(), "")))
                .isEqualTo("job.ended");
    }

    @Test
    void whoHasItOrGaveItSaysThatItIsDone() {
        Job job = job(Optional.of(6L), Job.State.BEGUN);
        assertThat(code(job.finish(6))).isEmpty();
        assertThat(code(job.finish(5))).isEmpty();
        assertThat(code(job.finish(7))).isEqualTo("job.others");
        assertThat(code(job.change(5))).isEmpty();
        assertThat(code(job.change(6))).isEqualTo("job.giver");
        assertThat(code(job(Optional.of(6L), Job.State.DROPPED).change(5))).isEqualTo("job.ended");
    }
}
