package mintshelf.core.signoff;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.core.access.Access;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.VersionDigest;
import mintshelf.core.route.SignOffLine;

/** Who may sign what, and what a signature is bound to. */
public final class SignOffRules {
    private SignOffRules() {}

    /**
     * What a sign-off on one document binds to: its content, its facts, what it was saved with, and the number and title that
     * a reader finds it by.
     *
     * @param facts of the revision as they stand
     * @param references digests of the captured components by path
     */
    public static ContentHash digest(
            ContentHash content,
            Map<String, String> facts,
            Map<String, ContentHash> references,
            String number,
            String title) {
        Map<String, String> all = new HashMap<>(facts);
        all.put(" number", number);
        all.put(" title", title);
        return VersionDigest.of(content, all, references);
    }

    /** The digest of a bundle: over those of its documents, in the order given. */
    public static ContentHash digest(Collection<ContentHash> documents) {
        var digest = ContentHash.digest();
        documents.forEach(d -> digest.update(d.bytes()));
        return ContentHash.of(digest.digest());
    }

    /** Whether somebody has the role, and with it the right to sign, at all the places. */
    public static boolean hasRole(Access access, String role, Collection<Place> places) {
        return places.stream()
                .allMatch(place -> access.grants().stream()
                        .anyMatch(g -> g.role().code().equals(role)
                                && g.role().rights().contains(Right.SIGN)
                                && g.scope().covers(place)));
    }

    /**
     * What keeps a person from answering an ask; empty when it waits for them.
     *
     * @param authors everybody who made a version of the revisions in the bundle: four eyes means two people
     * @param places of the documents in the bundle
     * @param today who stands in for somebody does so on the days of their absence
     */
    public static Optional<Refusal> ask(
            Round round, Ask ask, Access access, Set<Long> authors, Collection<Place> places, LocalDate today) {
        if (!round.isOpen()) {
            return refusal("round.ended", "This round was " + round.state().words() + ".", "Nothing waits for you.");
        }
        boolean abstained = round.answers(ask).stream()
                .anyMatch(s ->
                        ask.person().filter(p -> p == s.person()).isPresent() && s.decision() == Decision.ABSTAINED);
        boolean named = ask.person().isPresent() && !abstained;
        boolean standsIn = ask.deputy(today).filter(d -> d == access.person()).isPresent();
        if (named && ask.person().get() != access.person() && !standsIn) {
            return refusal("sign.other", ask.personName() + " is asked for this.", "");
        }
        if (!hasRole(access, ask.line().role(), places)) {
            return refusal("sign.role", "This asks " + ask.whom() + ".", "Your roles do not answer it.");
        }
        if (authors.contains(access.person())) {
            return refusal(
                    "sign.own",
                    "You worked on this revision; somebody else signs it.",
                    "Ask " + ask.roleName().toLowerCase(Locale.ROOT) + "s who did not.");
        }
        boolean answered = round.signOffs().stream().anyMatch(s -> s.stands() && s.person() == access.person());
        if (answered) return refusal("sign.done", "You answered in this round.", "One person signs once.");
        if (round.lacks(ask) == 0) return refusal("sign.enough", "This is signed already.", "");
        if (round.waiting().stream().noneMatch(a -> a.id() == ask.id())) {
            return refusal("sign.step", "An earlier step is not signed yet.", "You are told when it is.");
        }
        return Optional.empty();
    }

    /** The ask that waits for a person, if one does: the one that names them before one that anybody may answer. */
    public static Optional<Ask> waitingFor(
            Round round, Access access, Set<Long> authors, Collection<Place> places, LocalDate today) {
        return round.waiting().stream()
                .filter(a -> ask(round, a, access, authors, places, today).isEmpty())
                .min(Comparator.comparing(
                        a -> a.person().filter(p -> p == access.person()).isEmpty()));
    }

    /**
     * The asks that wait and that nobody is left to answer: who could has abstained, has answered, or has worked on it meanwhile.
     *
     * @param candidates who has the role at all the places and has not worked on it, by ask
     */
    public static List<Ask> nobodyLeft(Round round, Map<Long, Set<Long>> candidates) {
        Set<Long> answered = round.signOffs().stream()
                .filter(SignOff::stands)
                .map(SignOff::person)
                .collect(Collectors.toSet());
        return round.waiting().stream()
                .filter(ask -> {
                    Set<Long> could = candidates.getOrDefault(ask.id(), Set.of());
                    // Who was named and abstained has given the ask to everybody with the role.
                    boolean named =
                            ask.person().filter(p -> !answered.contains(p)).isPresent();
                    long left = could.stream()
                            .filter(p -> !answered.contains(p))
                            .filter(p -> !named || p.equals(ask.person().get()))
                            .count();
                    return left < round.lacks(ask);
                })
                .toList();
    }

    /** The day that is a number of working days after another; Saturdays and Sundays do not count. */
    public static LocalDate due(LocalDate from, int workingDays) {
        LocalDate day = from;
        for (int left = workingDays; left > 0; ) {
            day = day.plusDays(1);
            if (isWorkingDay(day)) left--;
        }
        return day;
    }

    public static boolean isWorkingDay(LocalDate day) {
        return day.getDayOfWeek() != DayOfWeek.SATURDAY && day.getDayOfWeek() != DayOfWeek.SUNDAY;
    }

    /** The steps that open when an answer was given: asks that wait after it and did not before. */
    public static List<Ask> opened(Round before, Round after) {
        List<Long> waited = before.waiting().stream().map(Ask::id).toList();
        return after.waiting().stream().filter(a -> !waited.contains(a.id())).toList();
    }

    private static Optional<Refusal> refusal(String code, String reason, String remedy) {
        return Optional.of(Refusal.of(code, reason, remedy));
    }

    /**
     * Whom documents ask together whose rules differ: every line of each, once where two say the same, in the order of the steps.
     * Of two that differ in number or days the larger number and the fewer days stand.
     */
    public static List<SignOffLine> union(Collection<List<SignOffLine>> rules) {
        Map<List<Object>, SignOffLine> lines = new LinkedHashMap<>();
        for (List<SignOffLine> rule : rules) {
            for (SignOffLine line : rule) {
                lines.merge(
                        List.of(line.role(), line.meaning(), line.fact(), line.day()),
                        line,
                        (a, b) -> new SignOffLine(
                                Math.max(a.step(), b.step()),
                                a.role(),
                                Math.max(a.needed(), b.needed()),
                                a.meaning(),
                                a.fact(),
                                a.day(),
                                Math.min(a.days(), b.days())));
            }
        }
        return lines.values().stream()
                .sorted(Comparator.comparingInt(SignOffLine::step))
                .toList();
    }
}
