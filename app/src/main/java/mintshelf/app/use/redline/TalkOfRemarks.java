package mintshelf.app.use.redline;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import mintshelf.app.effect.SetRemarks;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.redline.RemarkStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.redline.Look;
import mintshelf.core.redline.Remark;
import mintshelf.core.redline.RemarkRules;
import org.springframework.stereotype.Service;

/** Replies to remarks; sets them done, declined, withdrawn, open again, one or many at once; writes one's own anew. */
@Service
public class TalkOfRemarks {
    private static final int LONGEST = 2000;
    private static final int MOST = 500;

    private final Sight sight;
    private final RemarkStore remarks;
    private final SetRemarks set;
    private final Acts acts;

    public TalkOfRemarks(Sight sight, RemarkStore remarks, SetRemarks set, Acts acts) {
        this.sight = sight;
        this.remarks = remarks;
        this.set = set;
        this.acts = acts;
    }

    /** A remark of a document whose work in preparation the actor sees. */
    public Remark remark(Actor actor, long item, long id) {
        if (!sight.of(actor, item).all()) throw new NotThere();
        return remarks.remark(id).filter(r -> r.item() == item).orElseThrow(NotThere::new);
    }

    public String reply(Actor actor, long item, long id, String key, String says) {
        remark(actor, item, id);
        Seen seen = sight.of(actor, item);
        String words = Texts.optionalLines("The reply", says, LONGEST).orElseThrow(Refused::new);
        if (words.isEmpty()) {
            throw Refused.because("text.missing", "The reply is empty.", "Type one; nothing else was changed.");
        }
        return acts.once(actor, key, () -> {
            Remark remark = locked(item, List.of(id)).get(0);
            RemarkRules.reply(remark, actor.access(), seen.document().place()).ifPresent(r -> {
                throw new Refused(r);
            });
            set.reply(actor, seen.document(), remark, words, RemarkRules.afterReply(remark, actor.person()));
            return SetRemarks.address(remark);
        });
    }

    /** All of them or none: the first that cannot be set refuses. */
    public String set(Actor actor, long item, Collection<Long> ids, String key, Remark.State to, String why) {
        Seen seen = sight.of(actor, item);
        if (!seen.all()) throw new NotThere();
        if (ids.isEmpty()) throw tooMany();
        String words = Texts.optionalLines("The reason", why, LONGEST).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            List<Remark> all = locked(item, ids);
            for (Remark remark : all) {
                RemarkRules.set(
                                remark,
                                to,
                                words,
                                actor.access(),
                                seen.document().place())
                        .ifPresent(r -> {
                            throw new Refused(r);
                        });
            }
            for (Remark remark : all) set.set(actor, seen.document(), remark, to, words);
            return SetRemarks.address(all.get(0));
        });
    }

    /**
     * What becomes of a remark with a new version.
     *
     * @param why needed for declining
     */
    public record Settled(long item, long remark, Remark.State to, String why) {
        public Settled saying(String words) {
            return new Settled(item, remark, to, words);
        }
    }

    /** Refused when one is declined without words: asked before the check-in, so that no decision is lost after it. */
    public static void ask(Collection<Settled> all) {
        if (all.stream()
                .noneMatch(s -> s.to() == Remark.State.DECLINED && s.why().isBlank())) return;
        throw Refused.because(
                "remark.why",
                "A remark is declined without words.",
                "Go back and say why; its author reads it. Nothing was checked in, the files are kept for a day.");
    }

    /**
     * Sets remarks after their documents were checked in. Each stands for itself: one that somebody else has set meanwhile stays as
     * they left it, and the others are set.
     */
    public void settle(Actor actor, String key, Collection<Settled> all) {
        for (Settled one : all) {
            try {
                set(actor, one.item(), List.of(one.remark()), Acts.following(key + one.remark()), one.to(), one.why());
            } catch (Refused | NotThere e) {
                // Somebody was faster: what they said stands.
            }
        }
    }

    /** Words and kind of one's own remark, while nobody has answered it. */
    public String edit(Actor actor, long item, long id, String key, Remark.Kind kind, String line, String description) {
        remark(actor, item, id);
        String shortly = Texts.optional("The line", line, Remark.LONGEST_LINE).orElseThrow(Refused::new);
        String more = Texts.optionalLines("The description", description, Remark.LONGEST_DESCRIPTION)
                .orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            Remark r = locked(item, List.of(id)).get(0);
            RemarkRules.edit(r, actor.access()).ifPresent(no -> {
                throw new Refused(no);
            });
            remarks.edit(r.saying(kind, shortly, more));
            return SetRemarks.address(r);
        });
    }

    /** How one's own marks look. Others' stay: a look is no statement, and nothing of it is in the record. */
    public String look(Actor actor, long item, Collection<Long> ids, String key, Look look, boolean fromNowOn) {
        Seen seen = sight.of(actor, item);
        if (!seen.all()) throw new NotThere();
        return acts.once(actor, key, () -> {
            if (fromNowOn) remarks.keepLook(actor.person(), look);
            if (!ids.isEmpty()) {
                locked(item, ids).stream()
                        .filter(r -> r.author() == actor.person())
                        .forEach(r -> remarks.edit(r.looking(look)));
            }
            return "/documents/" + item;
        });
    }

    /** The look in which somebody draws: the one they chose, else one of their own. */
    public Look look(Actor actor) {
        return remarks.look(actor.person()).orElseGet(() -> Look.of(actor.person()));
    }

    private List<Remark> locked(long item, Collection<Long> ids) {
        if (ids.size() > MOST) throw tooMany();
        List<Remark> all = remarks.locked(ids);
        boolean here = all.size() == ids.size() && all.stream().allMatch(r -> r.item() == item);
        if (!here) throw new NotThere();
        return all;
    }

    private static Refused tooMany() {
        return Refused.because("remark.none", "Choose some remarks, " + MOST + " at most.", "Nothing was changed.");
    }

    /** What is in the way of a state for the actor, for a page that offers it. */
    public static Optional<Refusal> refusal(Actor actor, Seen seen, Remark remark, Remark.State to) {
        return RemarkRules.set(
                remark, to, "words", actor.access(), seen.document().place());
    }

    public static Optional<Refusal> replyRefusal(Actor actor, Seen seen, Remark remark) {
        return RemarkRules.reply(remark, actor.access(), seen.document().place());
    }

    public static Optional<Refusal> editRefusal(Actor actor, Remark remark) {
        return RemarkRules.edit(remark, actor.access());
    }
}
