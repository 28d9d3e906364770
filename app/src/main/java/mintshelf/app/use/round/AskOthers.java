package mintshelf.app.use.round;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.setup.Settings;
import mintshelf.app.sight.RoundSight;
import mintshelf.app.sight.RoundSight.RoundView;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.round.RoundStore;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.signoff.Ask;
import mintshelf.core.signoff.Round;
import org.springframework.stereotype.Service;

/** Changes whom a round under way asks, and until when: by who sent it, or who keeps the shelf. */
@Service
public class AskOthers {
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM yyyy", Locale.ENGLISH);

    private final RoundSight sight;
    private final RoundStore rounds;
    private final Telling telling;
    private final Acts acts;
    private final Recorder recorder;
    private final Settings settings;
    private final Clock clock;

    public AskOthers(
            RoundSight sight,
            RoundStore rounds,
            Telling telling,
            Acts acts,
            Recorder recorder,
            Settings settings,
            Clock clock) {
        this.sight = sight;
        this.rounds = rounds;
        this.telling = telling;
        this.acts = acts;
        this.recorder = recorder;
        this.settings = settings;
        this.clock = clock;
    }

    /** What is in the way of changing whom a round asks. */
    public static Optional<Refusal> refusal(Actor actor, RoundView view) {
        boolean keeps = view.places().stream().allMatch(p -> actor.access().may(Right.KEEP_SHELF, p));
        if (view.round().by() != actor.person() && !keeps) {
            return Optional.of(Refusal.of(
                    "access.missing",
                    "Only " + view.round().byName() + " or a data manager changes whom it asks.",
                    "Ask one of them."));
        }
        if (!view.round().isOpen()) {
            return Optional.of(Refusal.of(
                    "round.ended",
                    "This round was " + view.round().state().words() + ".",
                    "Nobody is asked any more."));
        }
        return Optional.empty();
    }

    /** Who could be asked, by ask that lacks a signature: people with its role who have not worked on it. */
    public Map<Long, List<PersonStore.Person>> candidates(RoundView view) {
        Map<Long, List<PersonStore.Person>> all = new TreeMap<>();
        for (Ask ask : view.round().asks()) {
            if (view.round().lacks(ask) == 0) continue;
            all.put(ask.id(), telling.signers(ask.line(), view.authors(), view.places()));
        }
        return all;
    }

    /** The asks that nobody is left to answer. */
    public List<Ask> nobodyLeft(RoundView view) {
        return telling.nobodyLeft(view.round(), view.authors(), view.places());
    }

    /**
     * Asks a person, or everybody with the role, until a day. Who abstained and is asked again may answer again.
     *
     * @param person empty for everybody with the role
     */
    public String change(Actor actor, long id, long askId, String key, Optional<Long> person, LocalDate due) {
        return acts.once(actor, key, () -> {
            RoundView view = sight.locked(actor, id);
            refusal(actor, view).ifPresent(r -> {
                throw new Refused(r);
            });
            Ask ask = view.round().asks().stream()
                    .filter(a -> a.id() == askId)
                    .findFirst()
                    .orElseThrow(NotThere::new);
            if (view.round().lacks(ask) == 0) {
                throw Refused.because("sign.enough", "This is signed already.", "Nobody need be asked for it.");
            }
            Instant now = clock.instant();
            if (due.isBefore(LocalDate.ofInstant(now, settings.zone()))) {
                throw Refused.because("round.due", "That day is over.", "Choose today or a day to come.");
            }
            List<PersonStore.Person> could = telling.signers(ask.line(), view.authors(), view.places());
            Optional<PersonStore.Person> named =
                    person.flatMap(p -> could.stream().filter(c -> c.id() == p).findFirst());
            if (could.isEmpty() || (person.isPresent() && named.isEmpty())) {
                throw Refused.because(
                        "round.person",
                        "Who was chosen cannot sign this: the role is missing, or they worked on it.",
                        "Choose somebody else; a data manager can give somebody the role.");
            }
            rounds.change(askId, person, due);
            rounds.fallAbstained(askId, person, "asked again by " + actor.name(), now);
            Round after = rounds.round(id).orElseThrow();
            Ask changed = after.asks().stream()
                    .filter(a -> a.id() == askId)
                    .findFirst()
                    .orElseThrow();
            if (after.waiting().contains(changed)) {
                telling.ask(actor, after, changed, view.authors(), view.places(), after.note());
            }
            for (RoundSight.RoundLine line : view.lines()) {
                recorder.note(
                        actor,
                        line.item().item(),
                        "round.asked",
                        "asked " + changed.whom() + " to sign as "
                                + changed.line().meaning() + ", by " + DAY.format(due),
                        "");
            }
            return "/rounds/" + id + "?changed";
        });
    }
}
