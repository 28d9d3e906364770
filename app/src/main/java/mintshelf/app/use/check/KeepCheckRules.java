package mintshelf.app.use.check;

import java.util.List;
import java.util.Map;
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
import mintshelf.app.store.person.GrantStore;
import mintshelf.core.drawing.check.CheckRules;
import org.springframework.stereotype.Service;

/** Which rules sheets of each kind are held to, how strictly, and who may let a finding pass. */
@Service
public class KeepCheckRules {
    private final CheckRuleStore rules;
    private final HouseStore house;
    private final GrantStore grants;
    private final Acts acts;
    private final Recorder recorder;

    public KeepCheckRules(CheckRuleStore rules, HouseStore house, GrantStore grants, Acts acts, Recorder recorder) {
        this.rules = rules;
        this.house = house;
        this.grants = grants;
        this.acts = acts;
        this.recorder = recorder;
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
                .filter(k -> !k.isChangePaper())
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
    public String keep(Actor actor, String key, String kind, int shown, CheckRules kept, String waivedBy) {
        HouseRules.ask(actor);
        if (!grants.roleNames().containsKey(waivedBy)) throw new NotThere();
        return acts.once(actor, key, () -> {
            KindRules now = of(actor, kind);
            if (now.edition().edition() != shown) {
                throw Refused.because(
                        "page.old",
                        "The rules of " + now.kind().name() + " were changed meanwhile.",
                        "Look at them again; nothing was changed.");
            }
            boolean same = now.edition().rules().equals(kept)
                    && now.edition().waivedBy().equals(waivedBy);
            if (!same) {
                rules.add(now.kind().id(), new Edition(shown + 1, kept, waivedBy));
                recorder.noteHouse(
                        actor,
                        "house.check_rules",
                        "changed the checks of " + now.kind().name(),
                        "");
            }
            return "/check-rules";
        });
    }
}
