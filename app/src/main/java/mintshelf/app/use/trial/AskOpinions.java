package mintshelf.app.use.trial;

import java.time.Clock;
import java.time.LocalDate;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.setup.Settings;
import mintshelf.app.sight.Trials;
import mintshelf.app.sight.Trials.Tried;
import mintshelf.app.sight.Trials.Whole;
import mintshelf.app.store.person.GrantStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.trial.OpinionStore;
import mintshelf.app.store.trial.OpinionStore.Ending;
import mintshelf.app.store.trial.OpinionStore.Round;
import mintshelf.core.access.Access;
import mintshelf.core.access.Right;
import mintshelf.core.base.Days;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.trial.Opinion;
import org.springframework.stereotype.Service;

/** The rounds of a trial: people are asked what they think of exact versions of it. */
@Service
public class AskOpinions {
    /** People who are asked at once. */
    private static final int MOST_ASKED = 30;

    private final Trials trials;
    private final GrantStore grants;
    private final PersonStore people;
    private final OpinionStore opinions;
    private final Telling telling;
    private final Recorder recorder;
    private final Acts acts;
    private final Settings settings;
    private final Clock clock;

    public AskOpinions(
            Trials trials,
            GrantStore grants,
            PersonStore people,
            OpinionStore opinions,
            Telling telling,
            Recorder recorder,
            Acts acts,
            Settings settings,
            Clock clock) {
        this.trials = trials;
        this.grants = grants;
        this.people = people;
        this.opinions = opinions;
        this.telling = telling;
        this.recorder = recorder;
        this.acts = acts;
        this.settings = settings;
        this.clock = clock;
    }

    /** What is in the way of asking. */
    public Optional<Refusal> refusal(Actor actor, Whole whole) {
        if (!whole.trial().isOpen()) return Optional.of(TrialHolds.ended(whole));
        if (!whole.isWhole())
            return Optional.of(Refusal.of(
                    "access.missing",
                    "You do not see all of its documents.",
                    "Ask somebody who works on all of them."));
        for (Tried tried : whole.lines()) {
            Optional<Refusal> missing =
                    actor.access().ask(Right.CHANGE, tried.original().document().place());
            if (missing.isPresent()) return missing;
        }
        if (whole.lines().stream().noneMatch(t -> t.line().begun()))
            return Optional.of(Refusal.of(
                    "trial.empty",
                    "Nothing was checked in on it yet.",
                    "Check a version in first; then ask about it."));
        if (opinions.open(whole.trial().id()).isPresent())
            return Optional.of(Refusal.of(
                    "trial.asked",
                    "Opinions on it are being asked already.",
                    "Wait for them, or take the question back."));
        return Optional.empty();
    }

    /** Who could be asked: everybody else who sees all of its documents at work. */
    public List<PersonStore.Person> candidates(Actor actor, Whole whole) {
        Map<Long, PersonStore.Person> all = new TreeMap<>();
        grants.rolesWith(Right.SEE_ALL).forEach(role -> people.withRole(role).forEach(p -> all.put(p.id(), p)));
        return all.values().stream()
                .filter(p -> !p.left() && p.id() != actor.person() && sees(p, whole))
                .sorted(Comparator.comparing(PersonStore.Person::name))
                .toList();
    }

    private boolean sees(PersonStore.Person person, Whole whole) {
        Access access = grants.access(person.id(), person.name());
        return whole.lines().stream()
                .allMatch(t -> access.may(Right.SEE_ALL, t.original().document().place()));
    }

    /** The day that it is in the house. */
    public LocalDate today() {
        return LocalDate.ofInstant(clock.instant(), settings.zone());
    }

    /** Asks people what they think of the versions that the trial has now. */
    public String ask(Actor actor, long trial, Collection<Long> asked, String note, LocalDate due, String key) {
        String words = Texts.optionalLines("The note", note, 1000).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            Whole whole = trials.locked(actor, trial);
            refusal(actor, whole).ifPresent(r -> {
                throw new Refused(r);
            });
            if (due.isBefore(today()))
                throw Refused.because("round.due", "That day is over.", "Choose today or a day to come.");
            Set<Long> chosen = new LinkedHashSet<>(asked);
            chosen.remove(actor.person());
            if (chosen.isEmpty() || chosen.size() > MOST_ASKED)
                throw Refused.because(
                        "trial.whom",
                        chosen.isEmpty() ? "Nobody is chosen." : "More than " + MOST_ASKED + " people are chosen.",
                        "Choose who is asked; nothing was sent.");
            for (long person : chosen) {
                PersonStore.Person one =
                        people.person(person).filter(p -> !p.left()).orElseThrow(NotThere::new);
                if (!sees(one, whole))
                    throw Refused.because(
                            "show.access",
                            one.name() + " does not see all of its documents at work.",
                            "Leave them out, or ask a data manager for a grant; nothing was sent.");
            }
            opinions.open(
                    trial,
                    actor.person(),
                    words,
                    due,
                    whole.lines().stream().map(t -> t.line().head().version()).toList(),
                    chosen,
                    clock.instant());
            telling.tell(
                    actor,
                    chosen,
                    "trial.asked",
                    Optional.empty(),
                    whole.first().item(),
                    actor.name() + " asks what you think of trial " + whole.of() + ", “"
                            + whole.trial().title() + "”, by " + Days.words(due)
                            + (words.isEmpty() ? "." : ": " + Texts.shorten(Texts.line(words), 200)),
                    "/trials/" + trial);
            for (Tried tried : whole.lines())
                recorder.note(
                        actor,
                        tried.item(),
                        "trial.asked",
                        "asked " + Numbers.count(chosen.size(), "person", "people") + " about "
                                + tried.line().gets().says(),
                        words);
            return "/trials/" + trial + "?asked";
        });
    }

    /** Says what the actor thinks. Once the last one has answered the round ends, and who asked is told. */
    public String answer(Actor actor, long trial, Opinion opinion, String said, String key) {
        String words = Texts.optionalLines("The words", said, 2000).orElseThrow(Refused::new);
        if (opinion.asksWords() && words.isBlank())
            throw Refused.because(
                    "trial.words", "Say what you mean: a remark, or why not.", "A line is enough; nothing was kept.");
        return acts.once(actor, key, () -> {
            Whole whole = trials.locked(actor, trial);
            Round round = opinions.open(trial)
                    .filter(r -> r.waitsFor(actor.person()))
                    .orElseThrow(() -> Refused.because(
                            "trial.not_asked",
                            "You are not asked about it any more.",
                            "Look at the trial as it stands now; nothing was kept."));
            opinions.answer(round.id(), actor.person(), opinion, words, clock.instant());
            boolean last = round.waitingFor().size() == 1;
            if (last) opinions.end(round.id(), Ending.ANSWERED, clock.instant());
            for (Tried tried : whole.lines())
                recorder.note(
                        actor,
                        tried.item(),
                        "trial.answered",
                        "is " + opinion.words() + ": " + tried.line().gets().says(),
                        words);
            telling.tell(
                    actor,
                    List.of(round.by()),
                    "trial.answered",
                    Optional.empty(),
                    whole.first().item(),
                    actor.name() + " is " + opinion.words() + ": trial " + whole.of()
                            + (words.isEmpty() ? "." : ". " + Texts.shorten(Texts.line(words), 200))
                            + (last ? " Everybody has answered." : ""),
                    "/trials/" + trial);
            return "/trials/" + trial + "?answered";
        });
    }

    /** Takes the question back: who asked, or who may drop the trial. */
    public String takeBack(Actor actor, long trial, String key) {
        return acts.once(actor, key, () -> {
            Whole whole = trials.locked(actor, trial);
            Round round = opinions.open(trial)
                    .orElseThrow(() -> Refused.because(
                            "trial.not_asked", "Nobody is asked about it any more.", "Nothing was changed."));
            if (round.by() != actor.person())
                DropTrial.refusal(actor, whole).ifPresent(r -> {
                    throw Refused.because(
                            "access.missing",
                            "Only " + round.byName() + " or a data manager takes the question back.",
                            "Ask one of them.");
                });
            opinions.end(round.id(), Ending.TAKEN_BACK, clock.instant());
            telling.tell(
                    actor,
                    round.waitingFor(),
                    "trial.taken_back",
                    Optional.empty(),
                    whole.first().item(),
                    actor.name() + " does not ask about trial " + whole.of() + " any more.",
                    "/trials/" + trial);
            for (Tried tried : whole.lines())
                recorder.note(
                        actor,
                        tried.item(),
                        "trial.taken_back",
                        "took the question about " + whole.trial().line() + " back",
                        "");
            return "/trials/" + trial + "?taken-back";
        });
    }

    /** What waits for somebody, with the trials. Trials that they do not see any more are left out. */
    public List<Waits> waiting(Actor actor) {
        return opinions.waitingFor(actor.person(), 100).stream()
                .flatMap(r -> trial(actor, r.trial()).map(w -> new Waits(r, w)).stream())
                .toList();
    }

    private Optional<Whole> trial(Actor actor, long id) {
        try {
            return Optional.of(trials.whole(actor, id));
        } catch (NotThere e) {
            return Optional.empty();
        }
    }

    /** A round that waits for somebody. */
    public record Waits(Round round, Whole whole) {}
}
