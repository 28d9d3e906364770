package mintshelf.app.use.round;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.effect.Bundles;
import mintshelf.app.effect.FallingSignOffs;
import mintshelf.app.effect.PasswordAgain;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.Telling;
import mintshelf.app.effect.deed.Setting;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.RoundSight;
import mintshelf.app.sight.RoundSight.RoundView;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.round.RoundStore;
import mintshelf.core.access.Right;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Document;
import mintshelf.core.document.Stage;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.By;
import mintshelf.core.route.Move;
import mintshelf.core.route.Way;
import mintshelf.core.signoff.Ask;
import mintshelf.core.signoff.Decision;
import mintshelf.core.signoff.Round;
import mintshelf.core.signoff.SignOff;
import mintshelf.core.signoff.SignOffRules;
import org.springframework.stereotype.Service;

/** Answers of the people who are asked in a round. The last sign-off makes the move at once, in the same transaction. */
@Service
public class SignRound {
    private final RoundSight sight;
    private final RoundStore rounds;
    private final Bundles bundles;
    private final FallingSignOffs signOffs;
    private final PasswordAgain again;
    private final Telling telling;
    private final Acts acts;
    private final Recorder recorder;
    private final Clock clock;

    public SignRound(
            RoundSight sight,
            RoundStore rounds,
            Bundles bundles,
            FallingSignOffs signOffs,
            PasswordAgain again,
            Telling telling,
            Acts acts,
            Recorder recorder,
            Clock clock) {
        this.sight = sight;
        this.rounds = rounds;
        this.bundles = bundles;
        this.signOffs = signOffs;
        this.again = again;
        this.telling = telling;
        this.acts = acts;
        this.recorder = recorder;
        this.clock = clock;
    }

    /**
     * Records an answer.
     *
     * @param seenDigest of what the page showed, in hexadecimal: what has moved on since is not signed unseen
     */
    public String answer(Actor actor, long id, String key, String seenDigest, Decision decision, String remark) {
        return answer(actor, id, key, seenDigest, decision, remark, "");
    }

    /**
     * As {@link #answer(Actor, long, String, String, Decision, String)}, where a signature may ask for the password.
     *
     * @param password what the actor typed; empty where it was not asked
     */
    public String answer(
            Actor actor, long id, String key, String seenDigest, Decision decision, String remark, String password) {
        String words = words(decision, remark);
        boolean again = decision.signs() && this.again.said(actor, password);
        return acts.once(actor, key, () -> {
            answer(actor, id, seenDigest, decision, words, again);
            return "/rounds/" + id + "?answered";
        });
    }

    /**
     * Signs one of several documents; with the last of them the ask is answered.
     *
     * @param item the document
     * @param seenDigest what the page showed of that document, in hexadecimal
     * @return the page of the next document that is left, or of the round where none is
     */
    public String answerOne(
            Actor actor,
            long id,
            long item,
            String key,
            String seenDigest,
            Decision decision,
            String remark,
            String password) {
        if (!decision.signs()) throw new NotThere();
        String words = words(decision, remark);
        boolean again = this.again.said(actor, password);
        return acts.once(actor, key, () -> {
            List<Long> left = answerOne(actor, id, item, seenDigest, decision, words, again);
            if (left.isEmpty()) return "/rounds/" + id + "?answered";
            long next = left.stream().filter(i -> !i.equals(item)).findFirst().orElse(item);
            return "/rounds/" + id + "?document=" + next + "&one=" + item;
        });
    }

    private List<Long> answerOne(
            Actor actor, long id, long item, String seenDigest, Decision decision, String words, boolean again) {
        RoundView view = sight.locked(actor, id);
        Ask ask = asked(actor, view, decision, again);
        RoundSight.RoundLine line = view.lines().stream()
                .filter(l -> l.item().item() == item)
                .findFirst()
                .orElseThrow(NotThere::new);
        Set<Long> signed = view.round().signedBy(ask, actor.person());
        if (signed.contains(item)) {
            throw Refused.because(
                    "sign.one", "You signed " + line.seen().document().number() + " already.", "Go on to the next.");
        }
        if (!line.item().digest().hex().equals(seenDigest))
            throw movedOn(line.seen().document());
        record(actor, view, ask, List.of(line), decision, words);
        // Those behind it come next, then those that were passed over.
        List<Long> order = view.lines().stream().map(l -> l.item().item()).toList();
        int at = order.indexOf(item);
        List<Long> left = new ArrayList<>(order.subList(at + 1, order.size()));
        left.addAll(order.subList(0, at));
        left.removeAll(signed);
        return left;
    }

    /** The remark as it is kept; refused where the answer needs one and there is none. */
    static String words(Decision decision, String remark) {
        String words = Texts.optionalLines("The remark", remark, 2000).orElseThrow(Refused::new);
        if (decision.asksRemark() && words.isEmpty()) {
            throw Refused.because(
                    "sign.remark",
                    decision == Decision.RETURNED ? "Returning needs a word why." : "The remark is empty.",
                    "Write it; nothing was signed.");
        }
        return words;
    }

    /**
     * Records an answer in the caller's transaction.
     *
     * @param again whether the actor said their password again
     */
    void answer(Actor actor, long id, String seenDigest, Decision decision, String words, boolean again) {
        RoundView view = sight.locked(actor, id);
        Ask ask = asked(actor, view, decision, again);
        if (!view.digest().hex().equals(seenDigest))
            throw movedOn(view.lines().get(0).seen().document());
        Set<Long> signed = view.round().signedBy(ask, actor.person());
        if (!decision.signs() && !signed.isEmpty()) {
            rounds.fallBegun(ask, actor.person(), "they " + decision.words() + " after all", clock.instant());
        }
        List<RoundSight.RoundLine> rest = view.lines().stream()
                .filter(l -> !decision.signs() || !signed.contains(l.item().item()))
                .toList();
        record(actor, view, ask, rest, decision, words);
    }

    /** What waits for the actor; refused where nothing does, or what is decided on is not what stands there. */
    private Ask asked(Actor actor, RoundView view, Decision decision, boolean again) {
        Ask ask = asked(actor, view);
        passwordMissing(ask, decision, again).ifPresent(r -> {
            throw new Refused(r);
        });
        for (RoundSight.RoundLine line : view.lines()) {
            Document document = line.seen().document();
            if (!signOffs.item(document).digest().equals(line.item().digest())) throw movedOn(document);
        }
        return ask;
    }

    private void record(
            Actor actor, RoundView view, Ask ask, List<RoundSight.RoundLine> lines, Decision decision, String words) {
        long id = view.round().id();
        Instant now = clock.instant();
        rounds.answer(
                ask,
                view.round(),
                lines.stream().map(RoundSight.RoundLine::item).toList(),
                actor.person(),
                standsInFor(actor, ask),
                decision,
                words,
                now);
        for (RoundSight.RoundLine line : lines) {
            recorder.note(
                    actor,
                    line.item().item(),
                    "signoff.given",
                    line.item().number(),
                    says(decision, ask, line.item().number())
                            + (standsInFor(actor, ask).isPresent() ? ", for " + ask.personName() : ""),
                    words);
        }
        Round after = rounds.round(id).orElseThrow();
        // Nobody is asked anew by a sheet among others.
        if (!after.signedBy(ask, actor.person()).isEmpty()) return;
        if (after.goesBack()) giveBack(actor, view, after, returning(after), now);
        else if (after.openStep().isEmpty() && waitsForAHand(view)) waitForAHand(actor, view, after, now);
        else if (after.openStep().isEmpty()) release(actor, view, after, now);
        else goOn(actor, view, after);
    }

    /** The person that an ask names, when somebody else answers it: only their deputy can. */
    private Optional<Long> standsInFor(Actor actor, Ask ask) {
        return ask.deputy(sight.today()).filter(d -> d == actor.person()).flatMap(d -> ask.person());
    }

    /** Why a signature does not count yet: the rule asks for the password again. */
    static Optional<Refusal> passwordMissing(Ask ask, Decision decision, boolean again) {
        if (!decision.signs() || !ask.line().password() || again) return Optional.empty();
        return Optional.of(Refusal.of(
                "sign.password", "Signing as " + ask.line().meaning() + " asks for your password again.", "Type it."));
    }

    private static String says(Decision decision, Ask ask, int version) {
        return switch (decision) {
            case SIGNED -> "signed version " + version + " as " + ask.line().meaning();
            case REMARKED -> "signed version " + version + " as " + ask.line().meaning() + ", with remarks";
            case RETURNED -> "returned version " + version;
            case ABSTAINED -> "abstained from signing version " + version;
        };
    }

    private Ask asked(Actor actor, RoundView view) {
        refusal(actor, view, sight.today()).ifPresent(r -> {
            throw new Refused(r);
        });
        return view.mine().orElseThrow();
    }

    /** Why none of a round's asks is the actor's: the one that comes nearest tells. */
    static Optional<Refusal> refusal(Actor actor, RoundView view, LocalDate today) {
        if (view.mine().isPresent()) return Optional.empty();
        Round round = view.round();
        return Optional.of(round.asks().stream()
                .map(a -> SignOffRules.ask(round, a, actor.access(), view.authors(), view.places(), today)
                        .orElseThrow())
                .filter(r -> !r.code().equals("sign.enough"))
                .findFirst()
                .orElse(Refusal.of("sign.enough", "This is signed already.", "")));
    }

    private static Refused movedOn(Document document) {
        return Refused.because(
                "page.old",
                document.number() + " has moved on since your page was made.",
                "Look at it as it stands now; nothing was signed.");
    }

    /** Why it goes back: the words of everybody who returned it. */
    private static String returning(Round round) {
        return Texts.shorten(round.returning().orElseThrow().remark(), 1000);
    }

    private void giveBack(Actor actor, RoundView view, Round round, String why, Instant now) {
        List<Seen> all = seen(view);
        Plan<Bundles.Going> plan = bundles.plan(actor, all, Way.back(), By.LAST_SIGN_OFF);
        Refused.unlessOpen(plan, "gate.closed", "Nothing was signed.");
        bundles.carryOut(
                plan, Setting.of(actor, By.LAST_SIGN_OFF, why, now, all).ending(round, Round.State.RETURNED));
        List<SignOff> returns = round.returns();
        boolean mine = returns.size() == 1 && returns.get(0).person() == actor.person();
        tell(
                actor,
                view,
                round,
                "round.returned",
                mine
                        ? " returned " + named(view) + ": " + why
                        : " was the last to be heard on " + named(view) + "; it goes back: " + why);
    }

    private void release(Actor actor, RoundView view, Round round, Instant now) {
        List<Seen> all = seen(view);
        Plan<Bundles.Going> plan = bundles.plan(actor, all, Way.decided(), By.LAST_SIGN_OFF);
        if (!plan.opens()) {
            throw Refused.because(
                    "gate.closed",
                    "Your signature would be the last, and the move does not open: "
                            + plan.refusals().stream().map(Refusal::says).collect(Collectors.joining(" ")),
                    "Nothing was signed.");
        }
        rounds.end(round.id(), Round.State.SIGNED, actor.person(), "", now);
        bundles.close(round.bundle(), now);
        bundles.carryOut(plan, Setting.of(actor, By.LAST_SIGN_OFF, "", now, all).signed(round));
        // Of unlike routes the first document's says where it went.
        Bundles.Going first = plan.going().get(0);
        Stage to = first.route().stage(first.move().orElseThrow().to());
        String became = to.stageClass() != StageClass.RELEASED
                ? "is in " + to.name() + " now"
                : all.get(0).spine().isRequest() ? "is accepted" : "is released";
        tell(actor, view, round, "round.signed", " gave the last sign-off on " + named(view) + "; it " + became);
    }

    private static List<Seen> seen(RoundView view) {
        return view.lines().stream().map(RoundSight.RoundLine::seen).toList();
    }

    /** Whether somebody's hand makes the move that this round opens, as with a change order. */
    private boolean waitsForAHand(RoundView view) {
        return view.lines().stream()
                .anyMatch(l -> !bundles.decided(l.seen().document()).isMadeByRound());
    }

    private void waitForAHand(Actor actor, RoundView view, Round round, Instant now) {
        rounds.end(round.id(), Round.State.SIGNED, actor.person(), "", now);
        Move move = bundles.decided(view.lines().get(0).seen().document());
        // Whose hand it waits for. Whoever may change documents is everybody: they find it where they work.
        Set<Long> hands = move.who() == Right.CHANGE ? Set.of() : telling.having(move.who(), view.places());
        tell(
                actor,
                view,
                round,
                "round.signed",
                " gave the last sign-off on " + named(view) + "; it can be carried out",
                hands);
    }

    private void goOn(Actor actor, RoundView view, Round after) {
        for (Ask ask : SignOffRules.opened(view.round(), after)) {
            telling.ask(
                    actor,
                    after,
                    ask,
                    view.authors(),
                    view.places(),
                    view.round().note());
        }
        telling.tellWhenStuck(
                actor,
                after,
                view.authors(),
                view.places(),
                view.lines().get(0).item().item(),
                named(view));
    }

    /** The sender and whoever worked on it. */
    private void tell(Actor actor, RoundView view, Round round, String code, String says) {
        tell(actor, view, round, code, says, Set.of());
    }

    private void tell(Actor actor, RoundView view, Round round, String code, String says, Set<Long> others) {
        Set<Long> receivers = new LinkedHashSet<>(view.authors());
        receivers.addAll(others);
        receivers.add(round.by());
        telling.tell(
                actor,
                receivers,
                code,
                Optional.of(round.id()),
                view.lines().get(0).item().item(),
                actor.name() + says,
                "/rounds/" + round.id());
    }

    private static String named(RoundView view) {
        String first = view.lines().get(0).seen().document().number();
        return view.lines().size() == 1
                ? first
                : first + " and " + (view.lines().size() - 1) + " more";
    }
}
