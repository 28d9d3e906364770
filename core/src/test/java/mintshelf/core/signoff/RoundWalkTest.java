package mintshelf.core.signoff;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.core.access.Access;
import mintshelf.core.access.Grant;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import mintshelf.core.access.Role;
import mintshelf.core.access.Scope;
import org.junit.jupiter.api.Test;

/** Rounds walked at random: k of n, persons named and roles, abstaining, falling. The laws hold after every step. */
class RoundWalkTest {
    private static final Instant THEN = Instant.parse("2026-11-17T08:00:00Z");
    private static final LocalDate DAY = LocalDate.parse("2026-11-19");
    private static final List<Place> PLACES = List.of(new Place(1, List.of(10L), 7));
    private static final List<String> ROLES = List.of("checker", "board-member", "welder");
    private static final int PEOPLE = 8;

    private final Map<Long, Access> people = new HashMap<>();
    private final Set<Long> authors = new HashSet<>();

    private void people(Random random) {
        people.clear();
        authors.clear();
        for (long p = 1; p <= PEOPLE; p++) {
            List<Grant> grants = new ArrayList<>();
            for (String role : ROLES) {
                if (random.nextInt(3) == 0) continue;
                grants.add(new Grant(p, "x", new Role(role, role, Set.of(Right.SIGN)), Scope.EVERYWHERE, ""));
            }
            people.put(p, new Access(p, "Person " + p, grants));
        }
        authors.add(1L);
    }

    private List<Ask> asks(Random random) {
        List<Ask> asks = new ArrayList<>();
        int lines = 1 + random.nextInt(4);
        for (int i = 0; i < lines; i++) {
            String role = ROLES.get(random.nextInt(ROLES.size()));
            boolean named = random.nextInt(3) == 0;
            Optional<Long> person = named ? Optional.of(1L + random.nextInt(PEOPLE)) : Optional.empty();
            asks.add(new Ask(
                    10 + i,
                    new SignOffLine(
                            1 + random.nextInt(3),
                            role,
                            named ? 1 : 1 + random.nextInt(3),
                            "meaning " + i,
                            "fact" + i,
                            "day" + i,
                            2),
                    role,
                    person,
                    person.map(p -> "Person " + p).orElse(""),
                    DAY,
                    Optional.empty(),
                    Set.of()));
        }
        return asks;
    }

    private static Round round(List<Ask> asks, List<SignOff> given) {
        return new Round(
                1, 1, 1, "Person 1", THEN, "", Round.State.OPEN, Policy.FIRST_RETURN, Optional.empty(), asks, given);
    }

    private Set<Long> candidates(Ask ask) {
        return people.values().stream()
                .filter(a -> SignOffRules.hasRole(a, ask.line().who().code(), PLACES))
                .map(Access::person)
                .filter(p -> !authors.contains(p))
                .collect(Collectors.toSet());
    }

    @Test
    void theLawsHoldAfterEveryStepOfManyWalks() {
        int ended = 0;
        int stuck = 0;
        for (int seed = 0; seed < 600; seed++) {
            Random random = new Random(seed);
            people(random);
            List<Ask> asks = asks(random);
            List<SignOff> given = new ArrayList<>();
            for (int step = 0; step < 60; step++) {
                Round round = round(asks, given);
                laws(round);
                if (round.openStep().isEmpty()) {
                    ended++;
                    break;
                }
                if (!SignOffRules.nobodyLeft(round, asks.stream().collect(Collectors.toMap(Ask::id, this::candidates)))
                        .isEmpty()) {
                    assertThat(finishes(round))
                            .as("seed %d: who is left cannot end it", seed)
                            .isFalse();
                    stuck++;
                    break;
                }
                long person = 1L + random.nextInt(PEOPLE);
                Optional<Ask> mine = SignOffRules.waitingFor(
                        round, Objects.requireNonNull(people.get(person)), authors, PLACES, LocalDate.EPOCH);
                if (mine.isPresent()) {
                    Decision decision = random.nextInt(6) == 0
                            ? Decision.ABSTAINED
                            : random.nextBoolean() ? Decision.SIGNED : Decision.REMARKED;
                    given.add(answer(mine.get(), person, decision));
                } else if (random.nextInt(12) == 0 && !given.isEmpty()) {
                    given.replaceAll(RoundWalkTest::fallen); // the content was changed: all of them fall
                }
            }
        }
        assertThat(ended).as("most come to their end").isGreaterThan(150);
        assertThat(stuck).as("some cannot").isGreaterThan(10);
    }

    private static SignOff answer(Ask ask, long person, Decision decision) {
        return new SignOff(ask.id(), person, "Person " + person, decision, "", THEN, Optional.empty(), "", "");
    }

    private static SignOff fallen(SignOff s) {
        return s.stands()
                ? new SignOff(
                        s.ask(),
                        s.person(),
                        s.name(),
                        s.decision(),
                        s.remark(),
                        s.at(),
                        Optional.of(THEN),
                        "changed",
                        "")
                : s;
    }

    /** Whether the people who are left could end the step that is open, each signing wherever they may. */
    private boolean finishes(Round round) {
        Round now = round;
        for (int turn = 0; turn < PEOPLE + 1; turn++) {
            boolean signed = false;
            for (Access access : people.values()) {
                Optional<Ask> ask = SignOffRules.waitingFor(now, access, authors, PLACES, LocalDate.EPOCH);
                if (ask.isEmpty()) continue;
                List<SignOff> more = new ArrayList<>(now.signOffs());
                more.add(answer(ask.get(), access.person(), Decision.SIGNED));
                now = round(now.asks(), more);
                signed = true;
            }
            if (!signed) break;
        }
        return now.openStep().isEmpty();
    }

    private void laws(Round round) {
        List<SignOff> standing =
                round.signOffs().stream().filter(SignOff::stands).toList();
        assertThat(standing.stream().map(SignOff::person).distinct().count())
                .as("one person answers once")
                .isEqualTo(standing.size());
        for (SignOff s : standing) {
            Ask ask = round.asks().stream()
                    .filter(a -> a.id() == s.ask())
                    .findFirst()
                    .orElseThrow();
            assertThat(authors).as("four eyes").doesNotContain(s.person());
            assertThat(candidates(ask)).contains(s.person());
        }
        for (Ask ask : round.asks()) {
            long signed = round.answers(ask).stream()
                    .filter(s -> s.decision().signs())
                    .count();
            assertThat(signed)
                    .as("never more than needed")
                    .isLessThanOrEqualTo(ask.line().needed());
            assertThat(round.lacks(ask)).isEqualTo((int) (ask.line().needed() - signed));
        }
        // What waits is of one step, and no earlier step lacks anything.
        Set<Integer> steps = round.waiting().stream().map(a -> a.line().step()).collect(Collectors.toSet());
        assertThat(steps.size()).isLessThanOrEqualTo(1);
        assertThat(round.openStep().isEmpty()).isEqualTo(round.missing().isEmpty());
        for (Ask ask : round.asks()) {
            if (round.openStep().isPresent()
                    && ask.line().step() < round.openStep().get()) {
                assertThat(round.lacks(ask)).isZero();
            }
            if (round.openStep().isPresent()
                    && ask.line().step() > round.openStep().get()) {
                assertThat(round.answers(ask))
                        .as("nobody answers ahead of their step")
                        .isEmpty();
            }
        }
        for (Access access : people.values()) {
            SignOffRules.waitingFor(round, access, authors, PLACES, LocalDate.EPOCH)
                    .ifPresent(ask -> assertThat(round.waiting()).contains(ask));
        }
    }
}
