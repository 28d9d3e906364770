package mintshelf.app.use.desk;

import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.HexFormat;
import java.util.Optional;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.desk.DeskLinkStore;
import mintshelf.app.store.desk.DeskLinkStore.Act;
import mintshelf.app.store.desk.DeskLinkStore.Link;
import mintshelf.app.store.desk.DeskStore;
import mintshelf.app.store.desk.DeskStore.Desk;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Texts;
import mintshelf.core.desk.DeskLink;
import org.springframework.stereotype.Service;

/**
 * Links by which a page asks the companion on its person's machine to bring a file and to open it. A link says which desk it is for and carries a code
 * that is good once, for two minutes, together with that person's own token: whatever else a program sends as a link comes to nothing. It names no path;
 * what may be fetched or held is asked of the companion as of everybody.
 */
@Service
public class DeskLinks {
    private static final Duration LIVES = Duration.ofMinutes(2);
    private static final Duration KEPT = Duration.ofDays(1);
    /** Links that one person makes within their life. */
    private static final int MOST = 60;

    private static final SecureRandom RANDOM = new SecureRandom();

    private final Sight sight;
    private final DeskStore desks;
    private final DeskLinkStore links;
    private final UnitOfWork unit;
    private final Recorder recorder;
    private final Clock clock;

    public DeskLinks(
            Sight sight, DeskStore desks, DeskLinkStore links, UnitOfWork unit, Recorder recorder, Clock clock) {
        this.sight = sight;
        this.desks = desks;
        this.links = links;
        this.unit = unit;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** A link as the page follows it; the answer is the only time that it is shown. */
    public record Offered(long id, String link) {}

    /** What the companion is to do: bring a version of a document, and hold it where it is to be worked on. */
    public record Wanted(long id, String desk, long item, String number, int version, Act act) {}

    /** How far a link has come. */
    public enum State {
        WAITING,
        TAKEN,
        DONE,
        REFUSED,
        /** Nobody took it in its time. */
        LATE
    }

    /** @param says what the companion said; empty while it is at it */
    public record How(State state, String says) {}

    /** Lets a desk's companion take links; gives by what it knows them. Asked again it is the same. */
    public String open(Actor actor, String name) {
        Desk desk = mine(actor, name);
        return desk.opens()
                .orElseGet(() -> unit.run(() -> {
                    byte[] bytes = new byte[DeskLink.TAG / 2];
                    RANDOM.nextBytes(bytes);
                    String tag = HexFormat.of().formatHex(bytes);
                    desks.opens(desk.id(), Optional.of(tag));
                    recorder.noteHouse(actor, "desk.opens", "lets pages open files on " + desk.name(), "");
                    return tag;
                }));
    }

    /** Its companion takes no links any more. */
    public void close(Actor actor, String name) {
        Desk desk = mine(actor, name);
        if (desk.opens().isEmpty()) return;
        unit.run(() -> {
            desks.opens(desk.id(), Optional.empty());
            recorder.noteHouse(actor, "desk.closed", "lets pages open no more files on " + desk.name(), "");
        });
    }

    /** Makes a link to a document that the actor sees. */
    public Offered offer(Actor actor, long item, Optional<Integer> version, Act act, String name) {
        Seen seen = sight.of(actor, item);
        if (seen.document().part()) {
            throw Refused.because("desk.part", seen.document().number() + " has no file.", "Open its page.");
        }
        Desk desk = desks.desk(actor.person(), name)
                .orElseThrow(() -> Refused.because(
                        "desk.gone",
                        "You have no desk “" + Texts.shorten(name, 60) + "” any more.",
                        "Choose another one under Companion and tokens."));
        String tag = desk.opens()
                .orElseThrow(() -> Refused.because(
                        "desk.closed",
                        desk.name() + " takes no links.",
                        "Let it on its machine: mint-shelf register. A copy can be fetched from here."));
        Instant now = clock.instant();
        if (links.since(actor.person(), now.minus(LIVES)) >= MOST) {
            throw Refused.because("desk.links", "Too many files were asked for at once.", "Wait two minutes.");
        }
        int wanted = version.orElse(seen.version());
        String code = DeskLink.code(RANDOM);
        long id = unit.run(() -> {
            links.clear(actor.person(), now.minus(KEPT));
            Link link =
                    new Link(0, desk.id(), item, wanted, act, now.plus(LIVES), Optional.empty(), Optional.empty(), "");
            return links.add(actor.person(), link, hash(code), now);
        });
        return new Offered(id, new DeskLink(tag, code).text());
    }

    /** The companion takes a link: once, in time, with its own person's token. Whatever else is wrong with it, it learns no more. */
    public Wanted take(Actor actor, String code) {
        Link link = unit.run(() -> links.take(actor.person(), hash(code), clock.instant()))
                .orElseThrow(() -> Refused.because(
                        "desk.link",
                        "That link was used, is older than two minutes, or is not yours.",
                        "Ask for the file once more on its page."));
        Seen seen = sight.of(actor, link.item());
        String desk = desks.of(actor.person()).stream()
                .filter(d -> d.id() == link.desk())
                .findFirst()
                .orElseThrow(NotThere::new)
                .name();
        return new Wanted(link.id(), desk, link.item(), seen.document().number(), link.version(), link.act());
    }

    /** The companion says what became of it, for the page that asked. */
    public void told(Actor actor, long id, boolean done, String says) {
        unit.run(() -> links.told(actor.person(), id, done, Texts.shorten(Texts.line(says), 500)));
    }

    /** How far the actor's own link has come. */
    public How how(Actor actor, long id) {
        Link link = links.link(actor.person(), id).orElseThrow(NotThere::new);
        if (link.done().isPresent()) return new How(link.done().get() ? State.DONE : State.REFUSED, link.says());
        if (link.taken().isPresent()) return new How(State.TAKEN, "");
        return new How(link.expires().isAfter(clock.instant()) ? State.WAITING : State.LATE, "");
    }

    private Desk mine(Actor actor, String name) {
        return desks.desk(actor.person(), name).orElseThrow(NotThere::new);
    }

    private static ContentHash hash(String code) {
        return ContentHash.compute(code.getBytes(StandardCharsets.UTF_8));
    }
}
