package mintshelf.app.use.round;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.setup.Settings;
import mintshelf.app.sight.Grants;
import mintshelf.app.sight.RoundSight;
import mintshelf.app.sight.RoundSight.RoundView;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.round.ReminderStore;
import mintshelf.core.access.Right;
import mintshelf.core.base.Days;
import mintshelf.core.document.Document;
import mintshelf.core.signoff.Ask;
import mintshelf.core.signoff.Reminders;
import mintshelf.core.signoff.WorkingDays;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/** Open rounds as who keeps order sees them, and saying again what waits: by itself by the calendar, or by hand once a day. */
@Service
public class RemindRounds {
    private static final Logger LOG = LoggerFactory.getLogger(RemindRounds.class);
    private static final int PORTION = 100;
    /** Rounds that the page lists. */
    public static final int MOST = 200;

    private final RoundSight sight;
    private final ReminderStore reminders;
    private final Telling telling;
    private final Grants grants;
    private final Acts acts;
    private final UnitOfWork unit;
    private final Recorder recorder;
    private final Settings settings;
    private final Clock clock;

    public RemindRounds(
            RoundSight sight,
            ReminderStore reminders,
            Telling telling,
            Grants grants,
            Acts acts,
            UnitOfWork unit,
            Recorder recorder,
            Settings settings,
            Clock clock) {
        this.sight = sight;
        this.reminders = reminders;
        this.telling = telling;
        this.grants = grants;
        this.acts = acts;
        this.unit = unit;
        this.recorder = recorder;
        this.settings = settings;
        this.clock = clock;
    }

    /**
     * An open round with what it waits for.
     *
     * @param due the earliest day of what waits
     * @param over working days over that day; 0 where it is not over
     * @param waits of whom it waits, with who stands in for whom; empty where nobody is left who could answer
     * @param said what was said again, the latest last
     */
    public record OpenRound(
            RoundView view,
            LocalDate due,
            int over,
            boolean late,
            boolean dueToday,
            List<PersonStore.Person> waits,
            Optional<String> standsIn,
            List<ReminderStore.Said> said) {
        /** Overdue, due today, or later. */
        public String when() {
            return late ? "Overdue" : dueToday ? "Due today" : "Later";
        }
    }

    /** Whether a person keeps order somewhere: whom the page is for. */
    public static boolean keeps(Actor actor) {
        return actor.access().maySomewhere(Right.KEEP_SHELF);
    }

    /** The open rounds of the places where the actor keeps order, the latest first; what is due first before what is due later. */
    public List<OpenRound> open(Actor actor) {
        if (!keeps(actor)) throw new NotThere();
        List<OpenRound> open = new ArrayList<>();
        WorkingDays days = sight.days();
        for (long after = 0; open.size() < MOST; ) {
            RoundSight.Portion portion = sight.open(actor, after, PORTION);
            if (portion.last().isEmpty()) break;
            after = portion.last().get();
            portion.views().stream()
                    .filter(v -> !v.round().waiting().isEmpty())
                    .filter(v ->
                            v.places().stream().allMatch(p -> actor.access().may(Right.KEEP_SHELF, p)))
                    .limit(MOST - open.size())
                    .forEach(v -> open.add(of(v, days)));
        }
        Map<Long, List<ReminderStore.Said>> said =
                reminders
                        .of(open.stream()
                                .flatMap(o -> o.view().round().waiting().stream())
                                .map(Ask::id)
                                .toList())
                        .stream()
                        .collect(Collectors.groupingBy(ReminderStore.Said::ask));
        return open.stream()
                .map(o -> new OpenRound(
                        o.view(),
                        o.due(),
                        o.over(),
                        o.late(),
                        o.dueToday(),
                        o.waits(),
                        o.standsIn(),
                        o.view().round().waiting().stream()
                                .flatMap(a -> said.getOrDefault(a.id(), List.of()).stream())
                                .toList()))
                .sorted(Comparator.comparing(OpenRound::due)
                        .thenComparing(o -> o.view().round().at()))
                .toList();
    }

    private OpenRound of(RoundView view, WorkingDays days) {
        LocalDate today = sight.today();
        List<Ask> waiting = view.round().waiting();
        LocalDate due =
                waiting.stream().map(Ask::due).min(Comparator.naturalOrder()).orElseThrow();
        List<PersonStore.Person> waits = waiting.stream()
                .flatMap(a -> telling.waitedFor(view.round(), a, view.authors(), view.places()).stream())
                .distinct()
                .toList();
        Optional<String> standsIn = waiting.stream()
                .flatMap(a -> a.away().filter(w -> w.covers(today)).stream()
                        .map(w -> a.personName() + " is away until " + w.until()
                                + (w.deputy().isEmpty() ? "; nobody stands in" : "; " + w.deputyName() + " stands in")))
                .findFirst();
        return new OpenRound(
                view, due, days.over(due, today), due.isBefore(today), due.equals(today), waits, standsIn, List.of());
    }

    /** Reminds of what waits in some rounds, by hand; what was said today already is not said twice. */
    public String remind(Actor actor, String key, List<Long> rounds) {
        if (!keeps(actor)) throw new NotThere();
        return acts.once(actor, key, () -> {
            int mails = 0;
            int passed = 0;
            for (OpenRound open : open(actor)) {
                if (!rounds.contains(open.view().round().id())) continue;
                int said = 0;
                for (Ask ask : open.view().round().waiting()) {
                    boolean fresh = reminders.note(
                            ask.id(), "HAND", sight.today(), Optional.of(actor.person()), clock.instant());
                    if (fresh) said += said(actor.person(), open.view(), ask);
                    else passed++;
                }
                mails += said;
                if (said > 0) note(actor, open.view(), "reminded those who are asked to sign");
            }
            return "/open-rounds?reminded=" + mails + (passed > 0 ? "&before=" + passed : "");
        });
    }

    private int said(long by, RoundView view, Ask ask) {
        return telling.remind(by, view.round(), ask, view.authors(), view.places());
    }

    private void note(Actor actor, RoundView view, String says) {
        view.lines()
                .forEach(l -> recorder.note(
                        actor, l.item().item(), "signoff.reminded", l.item().number(), says, ""));
    }

    /** Once a quarter of an hour, on every node: of two that would say the same the database takes one. */
    @Scheduled(initialDelayString = "PT1M", fixedDelayString = "PT15M")
    void byItself() {
        try {
            remindToday(sight.today());
        } catch (RuntimeException e) {
            LOG.warn("Reminding failed; it is tried again in a quarter of an hour", e);
        }
    }

    /** Says what is to be said of all open rounds on a day; how many questions that were. */
    public int remindToday(LocalDate today) {
        int said = 0;
        Actor server = grants.server();
        WorkingDays days = sight.days();
        for (long after = 0; ; ) {
            RoundSight.Portion portion = sight.open(server, after, PORTION);
            if (portion.last().isEmpty()) return said;
            after = portion.last().get();
            for (RoundView view : portion.views()) {
                for (Ask ask : view.round().waiting()) said += remind(view, ask, today, days) ? 1 : 0;
            }
        }
    }

    private boolean remind(RoundView view, Ask ask, LocalDate today, WorkingDays days) {
        Instant now = clock.instant();
        LocalDate asked = LocalDate.ofInstant(view.round().at(), settings.zone());
        Optional<Reminders.Kind> kind = Reminders.today(asked, ask.due(), today, days);
        if (kind.isEmpty()) return false;
        return unit.run(() -> {
            if (!reminders.note(ask.id(), kind.get().name(), ask.due(), Optional.empty(), now)) return false;
            said(view.round().by(), view, ask);
            if (kind.get() == Reminders.Kind.RAISED) {
                Document first = view.lines().get(0).seen().document();
                int more = view.lines().size() - 1;
                telling.raise(
                        view.round(),
                        view.places(),
                        first.id(),
                        first.number() + (more > 0 ? " and " + more + " more wait" : " waits") + " to be signed as "
                                + ask.line().meaning() + " by " + ask.whom() + "; it was due " + Days.words(ask.due()));
            }
            return true;
        });
    }
}
