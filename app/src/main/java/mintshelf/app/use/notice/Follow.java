package mintshelf.app.use.notice;

import java.time.Clock;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.app.effect.Post;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.Places;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.notice.FollowStore;
import mintshelf.app.store.notice.FollowStore.Kind;
import mintshelf.app.store.person.SettingStore;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import mintshelf.core.notice.MailTime;
import mintshelf.core.notice.Moment;
import mintshelf.core.notice.NoticeKind;
import org.springframework.stereotype.Service;

/** "Tell me when …": a document, a folder with those below it, a shelf; and by when people are mailed of what. */
@Service
public class Follow {
    private static final int MOST = 500;

    private final FollowStore follows;
    private final SettingStore settings;
    private final ShelfStore shelves;
    private final Sight sight;
    private final Post post;
    private final Acts acts;
    private final UnitOfWork unit;
    private final Clock clock;

    Follow(
            FollowStore follows,
            SettingStore settings,
            ShelfStore shelves,
            Sight sight,
            Post post,
            Acts acts,
            UnitOfWork unit,
            Clock clock) {
        this.follows = follows;
        this.settings = settings;
        this.shelves = shelves;
        this.sight = sight;
        this.post = post;
        this.acts = acts;
        this.unit = unit;
        this.clock = clock;
    }

    /**
     * Something that can be followed.
     *
     * @param name "TG40-3030 Gland plate"
     * @param moments at which the actor is told; none where they do not follow it
     * @param possible moments that the actor could be told of: who sees only what is in force learns of nothing else
     * @param page where it is
     */
    public record Subject(
            Kind kind, long target, String name, Set<Moment> moments, Set<Moment> possible, String page) {}

    public Subject subject(Actor actor, Kind kind, long target) {
        Set<Moment> now = follows.of(actor.person(), kind, target)
                .map(FollowStore.Follow::moments)
                .orElse(Set.of());
        return switch (kind) {
            case ITEM -> {
                var seen = sight.of(actor, target);
                yield new Subject(
                        kind,
                        target,
                        seen.document().number() + " " + seen.document().title(),
                        now,
                        possible(actor, seen.document().place()),
                        seen.spine().page());
            }
            case FOLDER -> {
                ShelfStore.Folder folder = shelves.folder(target).orElseThrow(NotThere::new);
                Place place = Places.of(shelves, folder, 0);
                yield new Subject(
                        kind,
                        target,
                        folder.name(),
                        now,
                        seen(actor, place),
                        "/shelves/" + folder.shelf() + "?folder=" + target);
            }
            case SHELF -> {
                ShelfStore.Shelf shelf = shelves.shelf(target).orElseThrow(NotThere::new);
                yield new Subject(
                        kind,
                        target,
                        shelf.name(),
                        now,
                        seen(actor, new Place(target, List.of(), 0)),
                        "/shelves/" + target);
            }
        };
    }

    /** As {@link #possible}; somebody to whom nothing of it is shown follows nothing there. */
    private static Set<Moment> seen(Actor actor, Place place) {
        Set<Moment> possible = possible(actor, place);
        if (possible.isEmpty()) throw new NotThere();
        return possible;
    }

    private static Set<Moment> possible(Actor actor, Place place) {
        if (actor.access().may(Right.SEE_ALL, place)) return EnumSet.allOf(Moment.class);
        return actor.access().may(Right.SEE_RELEASED, place) ? EnumSet.of(Moment.RELEASE) : Set.of();
    }

    /** Follows something at some moments; at none it is followed no more. */
    public String follow(Actor actor, String key, Kind kind, long target, Set<Moment> moments) {
        return acts.once(actor, key, () -> {
            Subject subject = subject(actor, kind, target);
            Set<Moment> kept = EnumSet.noneOf(Moment.class);
            kept.addAll(moments);
            kept.retainAll(subject.possible());
            follows.keep(new FollowStore.Follow(actor.person(), kind, target, kept), clock.instant());
            return "/follows?kept";
        });
    }

    /** Something that the actor follows, with its name. */
    public record Named(FollowStore.Follow follow, String name) {}

    /** What the actor follows, the latest first; without a name where they do not see it any more. */
    public List<Named> mine(Actor actor) {
        List<FollowStore.Follow> all = follows.of(actor.person(), MOST);
        Map<Long, Seen> seen = sight.of(
                actor,
                all.stream()
                        .filter(n -> n.kind() == Kind.ITEM)
                        .map(n -> n.target())
                        .toList());
        return all.stream().map(n -> new Named(n, name(actor, n, seen))).toList();
    }

    /** A document is called as the actor sees it: a title that is in preparation is nobody else's. */
    private String name(Actor actor, FollowStore.Follow n, Map<Long, Seen> seen) {
        if (n.kind() == Kind.ITEM) {
            Seen one = seen.get(n.target());
            return one == null
                    ? ""
                    : one.document().number() + " " + one.document().title();
        }
        try {
            return subject(actor, n.kind(), n.target()).name();
        } catch (NotThere e) {
            return "";
        }
    }

    /** Follows something no more, also what is not there for the actor any more. */
    public void drop(Actor actor, Kind kind, long target) {
        unit.run(() -> follows.keep(new FollowStore.Follow(actor.person(), kind, target, Set.of()), clock.instant()));
    }

    /** When the actor is mailed of which kinds of notices. */
    public Map<NoticeKind, MailTime> mails(Actor actor) {
        Map<NoticeKind, MailTime> times = new LinkedHashMap<>();
        for (NoticeKind kind : NoticeKind.values()) times.put(kind, post.time(actor.person(), kind));
        return times;
    }

    /** Chooses when the actor is mailed; what a kind does not allow stays as it was. */
    public void chooseMails(Actor actor, Map<NoticeKind, MailTime> times) {
        unit.run(() -> times.forEach((kind, time) -> {
            if (kind.choices().contains(time)) settings.set(actor.person(), Post.setting(kind), time.name());
        }));
    }
}
