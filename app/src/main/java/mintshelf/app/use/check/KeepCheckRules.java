package mintshelf.app.use.check;

import java.time.Clock;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalLong;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.house.CheckRuleStore;
import mintshelf.app.store.house.CheckRuleStore.Edition;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.RouteStore;
import mintshelf.app.store.person.GrantStore;
import mintshelf.core.base.Texts;
import mintshelf.core.drawing.check.CheckRules;
import mintshelf.core.house.RuleDifference;
import mintshelf.core.house.RuleLine;
import mintshelf.core.house.SheetLines;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Service;

/** Which rules sheets of each kind are held to, how strictly, and who may let a finding pass. */
@Service
public class KeepCheckRules {
    private static final int MOST = 200;

    private final CheckRuleStore rules;
    private final HouseStore house;
    private final GrantStore grants;
    private final Acts acts;
    private final Recorder recorder;
    private final Clock clock;

    public KeepCheckRules(
            CheckRuleStore rules, HouseStore house, GrantStore grants, Acts acts, Recorder recorder, Clock clock) {
        this.rules = rules;
        this.house = house;
        this.grants = grants;
        this.acts = acts;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** A kind with its rules. */
    public record KindRules(Kind kind, Edition edition) {
        public long binding() {
            return edition.rules().severities().values().stream()
                    .filter(s -> s == CheckRules.Severity.BINDING)
                    .count();
        }
    }

    /** All kinds that people file, with their rules. */
    public List<KindRules> all(Actor actor) {
        HouseRules.ask(actor);
        return house.kinds().stream()
                .filter(Kind::isFiled)
                .map(k -> new KindRules(k, rules.latest(k.id())))
                .toList();
    }

    public KindRules of(Actor actor, String kind) {
        return all(actor).stream()
                .filter(k -> k.kind().code().equals(kind))
                .findFirst()
                .orElseThrow(NotThere::new);
    }

    /** Whether readers are not told that documents of a kind are being revised. */
    public boolean hidesRevising(Actor actor, String kind) {
        return house.hidesRevising(of(actor, kind).kind().id());
    }

    /** Says whether readers are told of documents of a kind that what is released is being revised. */
    public String hideRevising(Actor actor, String key, String kind, boolean hides) {
        HouseRules.ask(actor);
        return acts.once(actor, key, () -> {
            Kind of = of(actor, kind).kind();
            if (house.hidesRevising(of.id()) != hides) {
                house.hideRevising(of.id(), hides);
                recorder.noteHouse(
                        actor,
                        "house.being_revised",
                        hides
                                ? "readers are not told any more that a " + of.name() + " is being revised"
                                : "readers are told that a " + of.name() + " is being revised",
                        "");
            }
            return "/check-rules/" + kind;
        });
    }

    /** Names of roles by their codes. */
    public Map<String, String> roles(Actor actor) {
        HouseRules.ask(actor);
        return grants.roleNames();
    }

    /**
     * Keeps the rules of a kind as their next edition.
     *
     * @param shown the edition that the page showed: one that somebody changed since is not overwritten unseen
     */
    public String keep(Actor actor, String key, String kind, int shown, CheckRules kept, String waivedBy, String why) {
        HouseRules.ask(actor);
        String said = Texts.optional("The reason", why, 300).orElseThrow(Refused::new);
        if (!grants.roleNames().containsKey(waivedBy)) throw new NotThere();
        return acts.once(actor, key, () -> {
            KindRules now = of(actor, kind);
            if (now.edition().edition() != shown) throw old(now.kind());
            boolean same = now.edition().rules().equals(kept)
                    && now.edition().waivedBy().equals(waivedBy);
            if (!same) {
                try {
                    rules.add(
                            now.kind().id(),
                            new Edition(shown + 1, kept, waivedBy),
                            new RouteStore.Made(OptionalLong.of(actor.person()), clock.instant(), said));
                } catch (DuplicateKeyException e) {
                    throw old(now.kind());
                }
                recorder.noteHouse(
                        actor,
                        "house.check_rules",
                        "changed the checks of " + now.kind().name(),
                        said);
            }
            return "/check-rules";
        });
    }

    private static Refused old(Kind kind) {
        return Refused.because(
                "page.old",
                "The rules of " + kind.name() + " were changed meanwhile.",
                "Look at them again; nothing was changed.");
    }

    /** The editions of a kind's rules, the latest first, down to the ready-made one. */
    public List<Edition> editions(Actor actor, String kind) {
        return rules.editions(of(actor, kind).kind().id(), MOST);
    }

    /** What the later of two editions says otherwise. */
    public List<RuleDifference> between(Edition was, Edition now) {
        return RuleDifference.between(lines(was), lines(now));
    }

    private List<RuleLine> lines(Edition edition) {
        String role = grants.roleNames().getOrDefault(edition.waivedBy(), edition.waivedBy());
        return SheetLines.of(edition.rules(), role.toLowerCase(Locale.ROOT));
    }

    /** Makes what an earlier edition says the next edition. */
    public String setBack(Actor actor, String key, String kind, int number, int shown) {
        Edition old = editions(actor, kind).stream()
                .filter(e -> e.edition() == number)
                .findFirst()
                .orElseThrow(NotThere::new);
        return keep(actor, key, kind, shown, old.rules(), old.waivedBy(), "as edition " + number + " had it");
    }
}
