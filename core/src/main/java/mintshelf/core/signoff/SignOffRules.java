package mintshelf.core.signoff;

import java.time.LocalDate;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
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
     * Whether a line asks somebody: one of its role at all the places; of its group, or its person, who may sign at all of them.
     *
     * @param members who is in the group that it asks; empty for lines that ask none
     */
    public static boolean asks(SignOffLine line, Set<Long> members, Access access, Collection<Place> places) {
        return switch (line.who().kind()) {
            case ROLE -> hasRole(access, line.who().code(), places);
            case GROUP -> members.contains(access.person()) && maySign(access, places);
            case PERSON -> line.who().id() == access.person() && maySign(access, places);
        };
    }

    /** Whether somebody may sign at all the places, whatever is asked. */
    public static boolean maySign(Access access, Collection<Place> places) {
        return places.stream().allMatch(place -> access.may(Right.SIGN, place));
    }

    /**
     * Whether an ask can be answered by somebody: one whom its line asks; whoever was named instead of the rule's person; a deputy,
     * who needs the role that is asked, and for groups and persons the right to sign.
     */
    public static boolean canAnswer(Ask ask, Access access, Collection<Place> places, LocalDate today) {
        if (asks(ask.line(), ask.members(), access, places)) return true;
        if (ask.line().who().kind() == Asked.Kind.ROLE) return false;
        boolean named = ask.person().filter(p -> p == access.person()).isPresent();
        boolean deputy = ask.deputy(today).filter(p -> p == access.person()).isPresent();
        return (named || deputy) && maySign(access, places);
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
        if (!canAnswer(ask, access, places, today)) {
            return refusal("sign.role", "This asks " + ask.whom() + ".", "Your roles do not answer it.");
        }
        if (ask.line().fourEyes() && authors.contains(access.person())) {
            return refusal(
                    "sign.own", "You worked on this revision; somebody else signs it.", "Ask somebody who did not.");
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
     * Of two that differ in number or days the larger number and the fewer days stand; of two that differ in care, the more careful.
     */
    public static List<SignOffLine> union(Collection<List<SignOffLine>> rules) {
        Map<List<Object>, SignOffLine> lines = new LinkedHashMap<>();
        for (List<SignOffLine> rule : rules) {
            for (SignOffLine line : rule) {
                lines.merge(
                        List.of(line.who(), line.meaning(), line.fact(), line.day()),
                        line,
                        (a, b) -> new SignOffLine(
                                Math.max(a.step(), b.step()),
                                a.who(),
                                a.asksEverybody() || b.asksEverybody()
                                        ? SignOffLine.EVERYBODY
                                        : Math.max(a.needed(), b.needed()),
                                a.meaning(),
                                a.fact(),
                                a.day(),
                                Math.min(a.days(), b.days()),
                                a.fourEyes() || b.fourEyes(),
                                a.password() || b.password()));
            }
        }
        return lines.values().stream()
                .sorted(Comparator.comparingInt(SignOffLine::step))
                .toList();
    }
}
